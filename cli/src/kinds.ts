import { displayUnit, formatQuantity, makeShelf, ok, stageKind, stageKinds, type Result } from '@gristmill/core';
import { toJson, type Options } from './commands.ts';
import { misuse } from './misuse.ts';

/** `kinds`: the kinds of stage there are. */
export function kinds(o: Options): Result<string> {
  const all = stageKinds().map(({ id, name, summary, bought }) => ({ id, name, summary, bought: bought ?? false }));
  return ok(o.json ? toJson({ kinds: all }) : all.map((k) => `${k.id.padEnd(20)} ${k.name}. ${k.summary}`).join('\n'));
}

/** `params KIND`: what a kind of stage is given by, with where it starts. */
export function params(kindId: string | undefined, o: Options): Result<string> {
  const kind = kindId === undefined ? undefined : stageKind(kindId);
  if (!kind)
    return misuse(
      kindId === undefined ? 'KIND is missing.' : `There is no stage of kind “${kindId}”.`,
      `This version knows ${stageKinds()
        .map((k) => k.id)
        .join(', ')}.`,
      'Write gristmill params belt.',
    );
  const starts = kind.starts as Readonly<Record<string, unknown>>;
  const shelf = makeShelf();
  const list = kind.fields.map((f) => {
    const common = { name: f.path, label: f.label, group: f.group, help: f.help, start: starts[f.path] };
    if (f.as === 'quantity') return { ...common, as: f.as, quantity: f.quantity, unit: displayUnit(f.quantity).symbol };
    if (f.as === 'count') return { ...common, as: f.as, least: f.min, most: f.max };
    if (f.as === 'choice') return { ...common, as: f.as, choices: f.options(kind.starts, shelf).map((c) => c.value) };
    return { ...common, as: f.as, maxLength: f.maxLength };
  });
  if (o.json) return ok(toJson({ kind: kind.id, params: list }));
  const width = Math.max(...list.map((p) => p.name.length));
  const starting = (p: (typeof list)[number]): string =>
    p.as === 'quantity' && typeof p.start === 'number'
      ? formatQuantity(p.start, p.quantity)
      : JSON.stringify(p.start ?? '');
  const range = (p: (typeof list)[number]): string =>
    p.as === 'count'
      ? `, ${p.least} to ${p.most}`
      : p.as === 'choice'
        ? `, one of ${p.choices.slice(0, 12).join(', ')}${p.choices.length > 12 ? ` and ${p.choices.length - 12} more` : ''}`
        : '';
  return ok(
    list
      .map((p) => `${p.name.padEnd(width)}  ${p.label} (${starting(p)}${range(p)})${p.help ? `: ${p.help}` : ''}`)
      .join('\n'),
  );
}
