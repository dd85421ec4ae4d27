import type { ShopReads } from '../shop/reads.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Duty } from '../stage/contract.ts';
import { stageKinds } from '../stage/registry.ts';

/** What the factors of one family have in common: `belt.R2.stiffness` and `belt.AT5.stiffness` are read alike. */
const family = (id: string): string => {
  const parts = id.split('.');
  return parts.length > 2 ? `${parts[0]}.*.${parts[parts.length - 1]}` : id;
};

const GENERAL: Readonly<Record<string, string>> = {
  gravity: 'briefs',
  ambient: 'motors',
  'mount.margin': 'motor mounts',
  'clamp.friction': 'housings',
  'clamp.kept': 'housings',
  'price.sensor': 'sensors',
  'print.layer': 'schedules',
  'print.speed': 'schedules',
  'print.change': 'schedules',
  'print.start': 'schedules',
  'print.resin': 'schedules',
  'print.hands': 'schedules',
  'mill.plastic': 'schedules',
  'mill.light': 'schedules',
  'mill.steel': 'schedules',
  'mill.setup': 'schedules',
  'mill.piece': 'schedules',
  'work.step': 'schedules',
  'work.test': 'schedules',
  'work.pace': 'schedules',
  'buy.days': 'schedules',
  'expand.plastic': 'fits',
  'expand.metal': 'fits',
};

/** Who reads others of a factor's group: what no candidate was made of (a metal, rollers) is used where they are. */
const sameGroup = (id: string, known: ReadonlyMap<string, ReadonlySet<string>>): string[] => {
  const group = `${id.split('.')[0]}.`;
  return [...new Set([...known].flatMap(([other, kinds]) => (other.startsWith(group) ? [...kinds] : [])))];
};

/** A light load under which the reads of candidates are recorded. */
const LIGHT: Duty = { torque: 2, torqueRms: 1, speed: 1, equivalent: 1, meanSpeed: 0.5 };

/**
 * Kinds of stage that read each family of factors, found by computing candidates of every kind and the alternatives of
 * their choices. Takes a good part of a second: not for the main thread.
 */
export function factorReaders(shelf: Shelf): ReadonlyMap<string, readonly string[]> {
  const out = new Map<string, Set<string>>();
  const note = (id: string, name: string) => out.set(family(id), (out.get(family(id)) ?? new Set()).add(name));
  for (const kind of stageKinds()) {
    const name = kind.name.toLowerCase();
    const want = { ratio: 3, torque: 2, size: Infinity, shelf };
    const start = kind.defaults(want) as Record<string, unknown>;
    const choices = kind.fields.flatMap((f) =>
      f.as === 'choice'
        ? f
            .options(start, shelf)
            .slice(0, 6)
            .map((o) => ({ ...start, [f.path]: o.value }))
        : [],
    );
    for (const [i, p] of [start, ...choices].entries()) {
      const opened = kind.open(p, shelf);
      if (!opened.ok) continue;
      // The checks read as well; they are asked once, since a report costs more.
      const read = i === 0 ? opened.value.report(LIGHT).reads.factors : opened.value.reads(LIGHT).factors;
      for (const id of read) note(id, name);
    }
  }
  for (const id of Object.keys(shelf.factors)) {
    if (GENERAL[id]) note(id, GENERAL[id]);
    else if (id.startsWith('motor.')) note(id, 'motors');
    else if (!out.has(family(id))) for (const kind of sameGroup(id, out)) note(id, kind);
  }
  return new Map([...out].map(([k, v]) => [k, [...v].sort()]));
}

/** A stage of a joint, as "A2", and what it was computed from. */
export interface StageReads {
  readonly name: string;
  readonly reads: ShopReads;
}

/** Where a factor is used: by kind in general, and by stage in a joint. */
export function whereUsed(
  id: string,
  readers: ReadonlyMap<string, readonly string[]>,
  stages: readonly StageReads[] = [],
): string {
  const kinds = readers.get(family(id)) ?? [];
  const here = stages.filter((s) => s.reads.factors.includes(id)).map((s) => s.name);
  return [kinds.join(', ') || 'nothing yet', ...(here.length ? [`here: stage ${here.join(', ')}`] : [])].join('; ');
}
