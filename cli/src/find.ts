import {
  activeVariant,
  adviceOf,
  AIM_WORDS,
  AIMS,
  cannotFind,
  characterOf,
  LIMIT_KINDS,
  ok,
  refuse,
  stageKinds,
  stated,
  countSays,
  whyNotSays,
  type FindAsk,
  type FindResult,
  type Result,
} from '@gristmill/core';
import { openFile, toJson, type Options } from './commands.ts';
import { misuse } from './misuse.ts';
import { findOnAllCores } from './find-parts.ts';

/** `find FILE`: lines that do what the brief asks, as the sheet *Find lines* has them. */
export async function find(file: string | undefined, o: Options): Promise<Result<string>> {
  if (!file) return misuse('FILE is missing.', 'A line is looked for by a brief.', 'Write gristmill find joint.json.');
  const opened = openFile(file, o);
  if (!opened.ok) return opened;
  const { joint, shelf, chosen } = opened.value;
  const variant = o.variant === undefined ? activeVariant(joint) : chosen[0]!;
  const known = stageKinds().map((k) => k.id);
  const kinds = o.kinds?.split(',').map((k) => k.trim());
  const unknown = kinds?.find((k) => !known.includes(k));
  if (unknown !== undefined)
    return misuse(`There is no kind “${unknown}”.`, `This version knows ${known.join(', ')}.`, 'Name some of these.');
  const stages = o.stages === undefined ? 3 : Number(o.stages);
  if (!Number.isInteger(stages) || stages < 1 || stages > 3)
    return refuse('--stages is not a number of stages.', 'One, two or three are put together.', 'Write --stages 2.');
  const ask: FindAsk = { joint, variant, shelf, stages, ...(kinds && { kinds }) };
  const problem = cannotFind(ask);
  if (problem) return { ok: false, problem };
  const found = await findOnAllCores(ask);
  return ok(o.json ? toJson({ format: 'gristmill-found', ...found }) : sayFound(found));
}

function sayFound({ lines, whyNot, screened, looked, pruned }: FindResult): string {
  const name = (id: string) => stageKinds().find((k) => k.id === id)?.name ?? id;
  const of = lines.map((l, i) => {
    const aims = AIMS.map((a) => `${AIM_WORDS[a].name} ${stated(l.aims[a], AIM_WORDS[a].quantity, 3)}`).join(', ');
    const { all, risk } = l.chance;
    return [
      `${i + 1}. ${l.motor.name}: ${l.stages.map((s) => name(s.kind)).join(' + ')}`,
      `   ${aims}`,
      `   ${characterOf(l, lines)} Meets every must with about ${Math.round(100 * all)} %` +
        `${risk && risk.met < 0.995 ? `, ${LIMIT_KINDS[risk.limit].name.toLowerCase()} most at risk` : ''}.`,
    ].join('\n');
  });
  return [
    `${lines.length} line${lines.length === 1 ? '' : 's'} out of ${countSays(looked, pruned)}; ${screened} stages.`,
    ...of,
    ...adviceOf(lines),
    ...whyNot.map((w) => `Not: ${whyNotSays(w)}`),
  ].join('\n');
}
