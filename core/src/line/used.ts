import type { Joint } from '../joint/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import { stageKind, stageKinds } from '../stage/registry.ts';

/** What the factors of one family have in common: `belt.R2.stiffness` and `belt.AT5.stiffness` are read alike. */
const family = (id: string): string => {
  const parts = id.split('.');
  return parts.length > 2 ? `${parts[0]}.*.${parts[parts.length - 1]}` : id;
};

const GENERAL: Readonly<Record<string, string>> = {
  gravity: 'briefs',
  ambient: 'motors',
  'mount.margin': 'motor mounts',
  'belt.backBend': 'belt',
};

/** Kinds of stage that read each family of factors, found by asking candidates of every kind. */
export function factorReaders(shelf: Shelf): ReadonlyMap<string, readonly string[]> {
  const out = new Map<string, Set<string>>();
  const note = (id: string, name: string) => out.set(family(id), (out.get(family(id)) ?? new Set()).add(name));
  for (const kind of stageKinds()) {
    const want = { ratio: 3, torque: 2, size: Infinity, shelf };
    let n = 0;
    for (const p of [kind.defaults(want), ...kind.candidates(want)]) {
      // A candidate may be made either way; the alternatives of its choices read other factors.
      const tried = [
        p,
        ...kind.fields.flatMap((f) =>
          f.as === 'choice'
            ? f
                .options(p, shelf)
                .slice(0, 6)
                .map((o) => ({ ...p, [f.path]: o.value }))
            : [],
        ),
      ];
      for (const t of tried) for (const id of kind.factors(t)) note(id, kind.name.toLowerCase());
      if (++n >= 3) break;
    }
  }
  for (const id of Object.keys(shelf.factors)) {
    if (GENERAL[id]) note(id, GENERAL[id]);
    else if (id.startsWith('motor.')) note(id, 'motors');
  }
  return new Map([...out].map(([k, v]) => [k, [...v].sort()]));
}

/** Where a factor is used: by kind in general, and by stage in a joint. */
export function whereUsed(
  id: string,
  readers: ReadonlyMap<string, readonly string[]>,
  joint?: Pick<Joint, 'variants'>,
): string {
  const kinds = readers.get(family(id)) ?? [];
  const here =
    joint?.variants.flatMap((v) =>
      v.stages.flatMap((s, i) => (stageKind(s.kind)?.factors(s.params).includes(id) ? [`${v.name}${i + 1}`] : [])),
    ) ?? [];
  return [kinds.join(', ') || 'nothing yet', ...(here.length ? [`here: stage ${here.join(', ')}`] : [])].join('; ');
}
