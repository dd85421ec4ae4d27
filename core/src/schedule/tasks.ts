import { hash32 } from '../math/hash.ts';
import type { BuildPlan } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import { common, materialNamed } from './known.ts';
import { millTime } from './making-time.ts';
import { donePrints, markOf, printing, type InTurn } from './printing.ts';
import type { BoughtGroup, Buy, MadePiece, Pieces } from './pieces.ts';
import type { Task } from './task.ts';
import { DAY, startOf, type WallTime } from './wall-clock.ts';

/** A stretch of putting together: steps that are done in one go. */
export interface Stretch {
  readonly name: string;
  /** Steps that are still to be done, and of how many. */
  readonly left: number;
  readonly of: number;
  /** Parts by key that it takes. */
  readonly keys: readonly string[];
  /** Time it must stand afterwards, s: adhesives. */
  readonly rests: number;
  /** When the last of its steps was ticked off, where all are. */
  readonly done?: WallTime;
}

/** A test that a plan of the bench asks for. */
export interface TestToDo {
  readonly id: string;
  readonly name: string;
}

/** Readings of a run that are still to come. */
export interface Running {
  readonly id: string;
  readonly name: string;
  /** Cycles at which it was read last, and when. */
  readonly cycles: number;
  readonly since: WallTime;
  /** Time of a cycle, s. */
  readonly period: number;
  /** Cycles up to which it is to run. */
  readonly upTo: number;
}

/** All that a plan is made of. */
export interface PlanInput {
  readonly pieces: Pieces;
  readonly stretches: readonly Stretch[];
  readonly tests: readonly TestToDo[];
  readonly running: readonly Running[];
}

/** What a group of things to buy is called. */
export const BUY_NAMES: Readonly<Record<Buy, string>> = {
  motor: 'Motor and electronics',
  bearings: 'Bearings',
  belts: 'Belts and pulleys',
  screws: 'Screws, nuts and washers',
  stock: 'Bars, rods and pins',
  units: 'Bought units and other parts',
};

/** Time by hand to order something, s. */
const ORDERING = 600;
/** Readings of a run that are planned ahead, and time by hand for one, s. */
const [AHEAD, READING] = [5, 900];
/** Cycles of the first reading of a run that has none. */
const FIRST = 1000;

const seconds = (x: number) => stated(x, 'life', 2);

/** Ordering and waiting for what is bought; nothing where all of it lies in the drawer. */
function buying(group: BoughtGroup, plan: BuildPlan, shelf: Shelf): Task | undefined {
  const rows = group.rows
    .map((r) => ({ name: r.name, missing: r.each * plan.joints - r.there }))
    .filter((r) => r.missing > 0);
  if (rows.length === 0) return undefined;
  const id = `buy/${group.id}`;
  const known = plan.tasks[id];
  const days = known?.days ?? Math.ceil(factor(shelf, 'buy.days') / DAY - 1e-9);
  const comes = known?.comes ? startOf(known.comes) : known?.ordered ? startOf(known.ordered) + days * DAY : undefined;
  return {
    ...common(id, plan),
    kind: 'buy',
    name: BUY_NAMES[group.id],
    says: rows.map((r) => `${r.missing} × ${r.name}`).join(', '),
    hands: known?.ordered ? 0 : ORDERING,
    inOneGo: true,
    waits: days * DAY,
    byDay: true,
    after: [],
    ...(comes !== undefined && { comes }),
  };
}

/** Order in which parts are needed: by the first stretch that takes them, then by name of their key. */
function neededAt(stretches: readonly Stretch[]): (key: string) => number {
  const at = new Map<string, number>();
  stretches.forEach((s, i) => s.keys.forEach((k) => at.has(k) || at.set(k, i)));
  return (key) => at.get(key) ?? stretches.length;
}

/** Time by hand at one’s own pace, and at a pace of one. */
const byHand = (work: number, shelf: Shelf): Pick<Task, 'hands' | 'work'> => ({
  hands: work * factor(shelf, 'work.pace'),
  work,
});

/** What is made by hand to its drawing. */
function machining(p: MadePiece, plan: BuildPlan, after: readonly string[], shelf: Shelf): Task {
  const own = materialNamed(p.material, shelf);
  const count = p.each * plan.joints;
  return {
    ...common(`make/${p.key}`, plan),
    kind: 'make',
    name: `Make ${p.name}`,
    says: `${count} of ${p.material}`,
    ...byHand(millTime(p.body, own ?? { modulus: 2e11 }, count, shelf), shelf),
    inOneGo: false,
    after,
  };
}

/** Marks a stretch by its parts, so that what was done of another one does not count for it. */
export const stretchId = (
  joint: number,
  s: Pick<Stretch, 'keys'>,
  before: readonly Pick<Stretch, 'keys'>[] = [],
): string => {
  const parts = s.keys.join();
  const alike = before.filter((x) => x.keys.join() === parts).length;
  return `assemble/${joint + 1}/${hash32(alike ? `${parts} ${alike}` : parts)
    .toString(16)
    .padStart(8, '0')}`;
};

/** Readings of a run that are due next: at twice the cycles each time, until it has run as long as it should. */
function readings(run: Running, plan: BuildPlan): Task[] {
  const out: Task[] = [];
  let [at, before] = [run.cycles, ''];
  for (let i = 0; i < AHEAD && at < run.upTo; i++) {
    const next = Math.min(run.upTo, at === 0 ? FIRST : 2 * at);
    const id = `reading/${run.id}/${next}`;
    out.push({
      ...common(id, plan),
      kind: 'reading',
      name: `${run.name}: read play at ${Math.round(next).toLocaleString('en').replaceAll(',', '\u202f')} cycles`,
      says: `after ${seconds((next - at) * run.period)} more of running; let it cool first`,
      hands: READING,
      inOneGo: true,
      runs: (next - at) * run.period,
      after: before ? [before] : [],
      // It has been running since it was read last.
      ...(i === 0 && { since: run.since }),
    });
    [at, before] = [next, id];
  }
  return out;
}

/**
 * Every task of a build: ordering, drying, printing in the order of need, making to drawings, putting together joint by
 * joint, the bench, readings of runs.
 */
export function tasksOf(input: PlanInput, plan: BuildPlan, shelf: Shelf): Task[] {
  const { pieces, stretches } = input;
  const order = neededAt(stretches);
  const tasks: Task[] = pieces.bought.flatMap((g) => buying(g, plan, shelf) ?? []);
  const prints: Task[] = donePrints(plan);
  const inTurn: InTurn[] = [];
  const toPrint = pieces.made.filter((p) => p.how === 'printed');
  for (const name of new Set(toPrint.map((p) => p.material))) {
    const list = toPrint.filter((p) => p.material === name);
    inTurn.push(...printing(name, list, plan, order, shelf));
  }
  // What the first stretch takes is printed first, of whatever it is.
  prints.push(...inTurn.sort((a, b) => a.need - b.need).map((t) => t.task));
  tasks.push(...prints);
  const cut = pieces.made.filter((p) => p.how === 'cut').sort((a, b) => order(a.key) - order(b.key));
  const blanks = tasks.some((t) => t.id === 'buy/stock') ? ['buy/stock'] : [];
  for (const p of cut) tasks.push(machining(p, plan, blanks, shelf));
  // Which task a part comes from: what is bought, made, and plate after plate for what is printed.
  const bought = new Map(pieces.bought.flatMap((g) => g.keys.map((k) => [k, `buy/${g.id}`] as const)));
  const known = new Set(tasks.map((t) => t.id));
  const each = new Map(pieces.made.map((p) => [p.key, p]));
  const from = (key: string, joint: number): string[] => {
    const piece = each.get(key);
    if (!piece) return [bought.get(key) ?? ''].filter((id) => known.has(id));
    if (piece.how === 'cut') return [`make/${key}`];
    const out: string[] = [];
    let have = 0;
    for (const t of prints) {
      const n = t.made?.[markOf(piece)];
      if (n === undefined) continue;
      out.push(t.id);
      have += n;
      if (have >= piece.each * (joint + 1)) break;
    }
    return out;
  };
  const step = factor(shelf, 'work.step');
  const named = new Set(stretches.flatMap((s) => s.keys));
  const unnamed = [...pieces.made.map((p) => p.key), ...pieces.bought.flatMap((g) => g.keys)].filter(
    (k) => !named.has(k),
  );
  let last: string[] = [];
  for (let joint = 0; joint < plan.joints; joint++)
    stretches.forEach((s, i) => {
      const id = stretchId(joint, s, stretches.slice(0, i));
      // What no step names, a pair of bearings or the rings of a race, is there by the end.
      const takes = i === stretches.length - 1 ? [...s.keys, ...unnamed] : s.keys;
      const own = joint === 0 ? s.left : s.of;
      tasks.push({
        ...common(id, plan),
        ...(joint === 0 && s.left === 0 && { done: s.done ?? startOf(plan.start) }),
        kind: 'assemble',
        name: plan.joints > 1 ? `Joint ${joint + 1}: ${s.name}` : s.name,
        says: own < s.of ? `${own} of ${s.of} steps left` : `${s.of} ${s.of === 1 ? 'step' : 'steps'}`,
        ...byHand(own * step, shelf),
        inOneGo: false,
        waits: s.rests,
        after: [...new Set([...takes.flatMap((k) => from(k, joint)), ...last])],
      });
      last = [id];
    });
  for (const t of input.tests) {
    const id = `test/${t.id}`;
    tasks.push({
      ...common(id, plan),
      kind: 'test',
      name: `Bench: ${t.name.toLowerCase()}`,
      says: 'as the plan of the bench asks',
      ...byHand(factor(shelf, 'work.test'), shelf),
      inOneGo: false,
      after: stretches.length > 0 ? [stretchId(0, stretches.at(-1)!, stretches.slice(0, -1))] : [],
    });
  }
  for (const run of input.running) tasks.push(...readings(run, plan));
  return tasks;
}
