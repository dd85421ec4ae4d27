import type { BuildPlan, TaskRecord } from '../schema/joint.ts';
import type { Footprint } from '../assembly/plates.ts';
import { hash32 } from '../math/hash.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import { dryingTime, POST_CURE } from '../shop/drying.ts';
import { common, materialNamed } from './known.ts';
import { laidFor, laidTogether, printTime, resinFor, type Laid } from './making-time.ts';
import { platesInTurn, type PlateOf } from './plates-in-turn.ts';
import type { MadePiece } from './pieces.ts';
import type { Task } from './task.ts';

/** A task with the place of its first piece in the order of need: joint after joint, stretch after stretch. */
export interface InTurn {
  readonly need: number;
  readonly task: Task;
}

/** A piece that is still to be printed. */
interface Missing {
  readonly key: string;
  readonly size: Footprint;
  readonly need: number;
}

/** A plate: what lies on it, under which name it is known, and when it is needed. */
interface Plate {
  readonly id: string;
  readonly made: PlateOf;
  readonly need: number;
}

/** Stretches that a joint has at most, for the order of need. */
const MOST = 1e4;
/** Time by hand to put a plastic into the dryer, s. */
const FILLING = 180;

/** A part with its shape: what was printed of an earlier shape does not count. */
export const markOf = (p: MadePiece): string => `${p.key}#${p.shape}`;

/** Prints of a plan that say what they make. */
const records = (plan: BuildPlan): [id: string, known: TaskRecord & { made: PlateOf }][] =>
  Object.entries(plan.tasks).flatMap(([id, t]) =>
    id.startsWith('print/') && t.made ? [[id, { ...t, made: t.made }] as const] : [],
  ) as [string, TaskRecord & { made: PlateOf }][];

/** Every piece that the joints take, the first joint’s before anything of the second. */
function missingOf(list: readonly MadePiece[], joints: number, order: (key: string) => number): Missing[] {
  const wanted = list.filter((p) => p.body).sort((a, b) => order(a.key) - order(b.key) || (a.key < b.key ? -1 : 1));
  return Array.from({ length: joints }, (_, joint) =>
    wanted.flatMap((p) => {
      const [width, depth] = p.body!.box;
      const one: Missing = { key: markOf(p), size: { width, depth }, need: joint * MOST + order(p.key) };
      return Array.from({ length: p.each }, () => one);
    }),
  ).flat();
}

/** Takes pieces out of what is missing, those that are needed first; returns what it took. */
function take(missing: Missing[], made: PlateOf): Missing[] {
  const left = new Map(Object.entries(made));
  const taken: Missing[] = [];
  for (let i = 0; i < missing.length; i++) {
    const n = left.get(missing[i]!.key) ?? 0;
    if (n === 0) continue;
    left.set(missing[i]!.key, n - 1);
    taken.push(...missing.splice(i--, 1));
  }
  return taken;
}

const countOf = (made: PlateOf): number => Object.values(made).reduce((s, n) => s + n, 0);

/**
 * Plates that were moved to a day, are under way or have a time written down: they stay as they are, as long as all of
 * their pieces are still wanted.
 */
function setPlates(plan: BuildPlan, missing: Missing[]): Plate[] {
  return records(plan).flatMap(([id, t]): Plate[] => {
    if (t.done || !(t.on || t.begun || t.took)) return [];
    const before = [...missing];
    const taken = take(missing, t.made);
    if (taken.length === countOf(t.made)) return [{ id, made: t.made, need: Math.min(...taken.map((x) => x.need)) }];
    missing.splice(0, missing.length, ...before);
    return [];
  });
}

/** Prints that are done, as tasks. */
export const donePrints = (plan: BuildPlan): Task[] =>
  records(plan)
    .filter(([, t]) => t.done)
    .map(([id, t]) => ({
      ...common(id, plan),
      kind: 'print',
      name: t.name ?? 'Print',
      says: `${countOf(t.made)} pieces`,
      ...{ hands: 0, inOneGo: true, after: [], made: t.made },
    }));

/** What else there is to print, plate after plate; each is marked by what lies on it, so that it keeps its name. */
function newPlates(name: string, missing: readonly Missing[], plan: BuildPlan, time: (plate: PlateOf) => number) {
  const [width, depth] = plan.bed;
  const longest = Math.min(plan.longest, plan.unattended ? Infinity : Math.max(...plan.hours));
  const waiting = missing.map((m) => ({ ...m, count: 1 }));
  const { plates, tooLarge } = platesInTurn(waiting, { width, depth }, plan.gap, longest, time);
  const needs = missing.filter((m) => !tooLarge.includes(m.key)).map((m) => m.need);
  const alike = new Map<string, number>();
  let first = 0;
  const made = plates.map((plate): Plate => {
    const what = JSON.stringify([name, plate]);
    const n = alike.get(what) ?? 0;
    alike.set(what, n + 1);
    const need = needs[first]!;
    first += countOf(plate);
    return { id: `print/${hash32(`${what} ${n}`).toString(16).padStart(8, '0')}`, made: plate, need };
  });
  return { plates: made, tooLarge: [...new Set(tooLarge)] };
}

/** Prints of one plastic, one plate after another, and its drying before the first. */
export function printing(
  name: string,
  list: readonly MadePiece[],
  plan: BuildPlan,
  order: (key: string) => number,
  shelf: Shelf,
): InTurn[] {
  const own = materialNamed(name, shelf);
  const isResin = own?.id === 'resin';
  const laid = new Map<string, Laid>();
  for (const p of list) if (p.body) laid.set(markOf(p), isResin ? resinFor(p.body) : laidFor(p.body, shelf));
  const together = (plate: PlateOf) =>
    laidTogether(Object.entries(plate).map(([key, count]) => ({ laid: laid.get(key)!, count })));
  const missing = missingOf(list, plan.joints, order);
  for (const [, t] of records(plan)) if (t.done) take(missing, t.made);
  const set = setPlates(plan, missing);
  const { plates, tooLarge } = newPlates(name, missing, plan, (plate) => printTime(together(plate), shelf));
  const all = [...set, ...plates].sort((a, b) => a.need - b.need);
  const nameOf = new Map(list.map((p) => [markOf(p), p.name]));
  const plastic = name.replace(/, printed$/, '');
  const drying = own && all.length > 0 ? dryingTime(own.id) : 0;
  const dryId = `dry/${own?.id ?? 'x'}`;
  const dry: InTurn = {
    need: -1,
    task: {
      ...common(dryId, plan),
      kind: 'dry',
      name: `Dry the ${plastic}`,
      says: `${stated(drying, 'life', 2)} in a dryer; print out of a dry box`,
      hands: FILLING,
      inOneGo: true,
      waits: drying,
      after: [],
    },
  };
  const prints = all.map(({ id, made, need }, i): InTurn => {
    const on = together(made);
    return {
      need,
      task: {
        ...common(id, plan),
        kind: 'print',
        name: `Print ${plastic}, plate ${i + 1} of ${all.length}`,
        says: Object.entries(made)
          .map(([key, n]) => `${n} × ${nameOf.get(key)}`)
          .join(', '),
        hands: factor(shelf, 'print.hands'),
        inOneGo: true,
        prints: printTime(on, shelf),
        waits: isResin ? POST_CURE : 0,
        after: drying > 0 ? [dryId] : [],
        made,
        laid: { path: on.path, layers: on.layers },
      },
    };
  });
  const large = tooLarge.map((key): InTurn => ({ need: Infinity, task: largerThanBed(key, nameOf.get(key)!, plan) }));
  return [...(drying > 0 ? [dry] : []), ...prints, ...large];
}

/** A piece that no plate takes. */
function largerThanBed(key: string, name: string, plan: BuildPlan): Task {
  const [width, depth] = plan.bed.map((x) => stated(x, 'length', 4)) as [string, string];
  return {
    ...common(`print/large/${key}`, plan),
    kind: 'print',
    name: `Print ${name}`,
    says: name,
    ...{ hands: 0, inOneGo: true, after: [], made: { [key]: 1 } },
    cannot: `“${name}” is larger than the bed of ${width} by ${depth}: give a larger bed, or have it made elsewhere.`,
  };
}
