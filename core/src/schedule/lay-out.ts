import type { BuildPlan } from '../schema/joint.ts';
import { stated } from '../units/stated.ts';
import { Booked, ownHours, type Span } from './hours.ts';
import type { Task } from './task.ts';
import { DAY, startOf, type WallTime } from './wall-clock.ts';

/** A task with its place in time. */
export interface Placed {
  readonly task: Task;
  readonly start: WallTime;
  readonly end: WallTime;
  /** When one is at it oneself. */
  readonly hands: readonly Span[];
  /** Which printer, from when to when. */
  readonly printer?: { readonly which: number; readonly span: Span };
  /** When a rig runs, or when it is waited for. */
  readonly waits?: Span;
}

/** Tasks in time, and what cannot be planned. */
export interface Planned {
  readonly placed: readonly Placed[];
  /** When all is done; the start where nothing is to be done. */
  readonly end: WallTime;
  readonly stuck: readonly { readonly task: Task; readonly why: string }[];
}

/** Shortest stretch of work by hand that is worth beginning, s. */
const LEAST = 600;

/** What is booked of one's own time and of every printer. */
class Shop {
  readonly hands = new Booked();
  readonly printers: readonly Booked[];

  constructor(readonly plan: BuildPlan) {
    this.printers = Array.from({ length: plan.printers }, () => new Booked());
  }

  /** Work in as many stretches as it takes. */
  inPieces(from: WallTime, time: number): Span[] | undefined {
    const out: Span[] = [];
    let left = time;
    for (const hours of ownHours(this.plan, from))
      for (const [a, b] of this.hands.free(hours)) {
        if (b - a < Math.min(LEAST, left)) continue;
        const span: Span = [a, Math.min(b, a + left)];
        out.push(span);
        left -= span[1] - span[0];
        if (left <= 1e-6) return out;
      }
    return undefined;
  }

  /** Work in one go. */
  inOneGo(from: WallTime, time: number): Span | undefined {
    for (const hours of ownHours(this.plan, from))
      for (const [a, b] of this.hands.free(hours)) if (b - a >= time - 1e-6) return [a, a + time];
    return undefined;
  }

  /** A print: begun by hand, then on a printer, within one's hours where it may not run alone. */
  print(from: WallTime, hands: number, prints: number): { hands: Span; which: number; span: Span } | undefined {
    const { unattended } = this.plan;
    for (const hours of ownHours(this.plan, from))
      for (const [a, b] of this.hands.free(hours))
        for (const t of this.beginnings(a, b - hands)) {
          const span: Span = [t, t + hands + prints];
          if (!unattended && span[1] > hours[1] + 1e-6) continue;
          const which = this.printers.findIndex((p) => p.isFree(span));
          if (which >= 0) return { hands: [t, t + hands], which, span };
        }
    return undefined;
  }

  /** Times between two at which a printer could begin: at once, or when one comes free. */
  private beginnings(from: WallTime, to: WallTime): WallTime[] {
    if (to < from - 1e-6) return [];
    const free = this.printers.flatMap((p) => p.endsAfter(from)).filter((t) => t <= to);
    return [from, ...free.sort((a, b) => a - b)];
  }

  /** When something that runs only while one is there has run so long. */
  runsTo(from: WallTime, time: number): WallTime | undefined {
    if (this.plan.unattended || time <= 0) return from + time;
    let left = time;
    for (const [a, b] of ownHours(this.plan, from)) {
      if (b - a >= left) return a + left;
      left -= b - a;
    }
    return undefined;
  }
}

/** What a task is called where it keeps another from being planned. */
const named = (t: Task): string => `“${t.name}”`;

const ON_NO_DAY = 'No day has any hours: give at least one weekday some.';

/** Why something does not go into the hours there are. */
function tooLong(task: Task, plan: BuildPlan): string {
  const most = Math.max(...plan.hours);
  if (!(most > 0)) return ON_NO_DAY;
  const say = (x: number) => stated(x, 'life', 2);
  if (task.prints > 0 && !plan.unattended && task.hands + task.prints > most)
    return (
      `${named(task)} takes ${say(task.hands + task.prints)}, and no day has more than ${say(most)}: ` +
      'let machines run unattended, or give one day more hours.'
    );
  if (task.inOneGo && task.hands > most)
    return `${named(task)} takes ${say(task.hands)} in one go, and no day has more than ${say(most)}: give one day more hours.`;
  return `${named(task)} does not go into the next three years: give more hours, or take days off back.`;
}

/**
 * Lays tasks out in time: each as early as what it waits for, its own day, one's hours and the printers allow, in the
 * order in which they are given. What is done lies where it was done.
 *
 * Source: serial schedule generation (Kolisch, 1996): every schedule that it makes can be done, and none of its tasks
 * could begin earlier while the others stay.
 *
 * @param now nothing that is still to be done begins before it, nor before the plan's first day
 */
export function layOutTasks(tasks: readonly Task[], plan: BuildPlan, now: WallTime): Planned {
  const begin = Math.max(now, startOf(plan.start));
  const shop = new Shop(plan);
  const placed = new Map<string, Placed>();
  const stuck: { task: Task; why: string }[] = [];
  const isStuck = new Map<string, Task>();
  const fails = (task: Task, why: string) => {
    stuck.push({ task, why });
    isStuck.set(task.id, task);
  };
  for (const task of underWayFirst(tasks)) {
    if (task.done !== undefined) {
      placed.set(task.id, { task, start: task.done, end: task.done, hands: [] });
      continue;
    }
    const held = task.after.map((id) => isStuck.get(id)).find((t) => t !== undefined);
    if (task.cannot !== undefined || held) {
      fails(task, task.cannot ?? `${named(task)} waits for ${named(held!)}, which cannot be planned.`);
      continue;
    }
    const from = Math.max(begin, task.on ?? 0, ...task.after.map((id) => placed.get(id)?.end ?? 0));
    const one = task.begun === undefined ? place(task, from, shop) : underWay(task, task.begun, shop, begin);
    if (one) placed.set(task.id, one);
    else fails(task, tooLong(task, plan));
  }
  const list = [...placed.values()];
  return { placed: list, end: list.reduce((most, p) => Math.max(most, p.end), startOf(plan.start)), stuck };
}

/** Prints that are under way hold their printers before anything else is given one. */
const underWayFirst = (tasks: readonly Task[]): readonly Task[] =>
  tasks.some((t) => t.begun !== undefined)
    ? [...tasks.filter((t) => t.begun !== undefined), ...tasks.filter((t) => t.begun === undefined)]
    : tasks;

/** One task at its place, booked; undefined where it has none. */
function place(task: Task, from: WallTime, shop: Shop): Placed | undefined {
  if (task.prints > 0) {
    const at = shop.print(from, task.hands, task.prints);
    if (!at) return undefined;
    shop.hands.book(at.hands);
    shop.printers[at.which]!.book(at.span);
    const [start, ready] = at.span;
    const end = ready + task.waits;
    return {
      ...{ task, start, end, hands: [at.hands], printer: { which: at.which, span: at.span } },
      ...(task.waits > 0 && { waits: [ready, end] as const }),
    };
  }
  // A reading is taken when the rig has run as long as it should.
  const runsTo = task.runs > 0 ? shop.runsTo(task.since ?? from, task.runs) : from;
  if (runsTo === undefined) return undefined;
  const ran = Math.max(from, runsTo);
  const hands = task.hands > 0 ? byHand(task, ran, shop) : [];
  if (!hands) return undefined;
  for (const span of hands) shop.hands.book(span);
  const start = task.runs > 0 ? from : (hands[0]?.[0] ?? from);
  const finished = hands[hands.length - 1]?.[1] ?? ran;
  const end = comesAt(task, finished);
  const waits: Span | undefined = task.runs > 0 ? [from, ran] : end > finished ? [finished, end] : undefined;
  return { task, start, end, hands, ...(waits && { waits }) };
}

/** What was begun already runs on from then; what should have ended by now ends now. */
function underWay(task: Task, begun: WallTime, shop: Shop, now: WallTime): Placed {
  const end = Math.max(now, begun + task.hands + task.prints + task.waits);
  if (!(task.prints > 0)) return { task, start: begun, end, hands: [], waits: [begun, end] };
  const span: Span = [begun, Math.max(now, begun + task.hands + task.prints)];
  const free = shop.printers.findIndex((p) => p.isFree(span));
  // More prints are under way than there are printers: they are shown on the last one.
  const which = free < 0 ? shop.printers.length - 1 : free;
  shop.printers[which]!.book(span);
  return { task, start: begun, end, hands: [], printer: { which, span } };
}

function byHand(task: Task, from: WallTime, shop: Shop): readonly Span[] | undefined {
  if (!task.inOneGo) return shop.inPieces(from, task.hands);
  const span = shop.inOneGo(from, task.hands);
  return span && [span];
}

/** When what is waited for is there: on a morning where it comes by the day, as promised where it is. */
function comesAt(task: Task, finished: WallTime): WallTime {
  if (!task.byDay) return finished + task.waits;
  const due = Math.floor(finished / DAY) * DAY + task.waits;
  return Math.max(finished, task.comes ?? due);
}
