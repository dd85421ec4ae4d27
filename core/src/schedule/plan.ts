import type { BuildPlan } from '../schema/joint.ts';
import { recorded } from '../shop/reads.ts';
import { uncertain, withFactor, type Shelf } from '../shop/shelf.ts';
import { layOutTasks, type Placed, type Planned } from './lay-out.ts';
import type { Task } from './task.ts';
import { tasksOf, type PlanInput } from './tasks.ts';
import { DAY, startOf, type WallTime } from './wall-clock.ts';

/** Something that is behind, and what it holds up. */
export interface Late {
  readonly id: string;
  readonly name: string;
  /** What is late about it: a sentence’s end. */
  readonly why: 'promised' | 'kept' | 'wanted';
  /** By how much, s. */
  readonly by: number;
  /** Tasks that would begin a day later if it came a day later, by name, in their order. */
  readonly holds: readonly string[];
  /** How much later all would be done then, s. */
  readonly moves: number;
}

/** A build laid out in time. */
export interface Schedule extends Planned {
  readonly tasks: readonly Task[];
  /** Between which ends all is done, by the bands of what was reckoned with. */
  readonly earliest: WallTime;
  readonly latest: WallTime;
  readonly late: readonly Late[];
  /** Time of one's own that is left, and of the printers, s. */
  readonly handsLeft: number;
  readonly printsLeft: number;
}

/** What a task being a day later does to the others and to the end. */
export function heldUpBy(
  tasks: readonly Task[],
  plan: BuildPlan,
  now: WallTime,
  id: string,
): Pick<Late, 'holds' | 'moves'> {
  const as = layOutTasks(tasks, plan, now);
  const before = new Map(as.placed.map((p) => [p.task.id, p]));
  const own = before.get(id);
  if (!own) return { holds: [], moves: 0 };
  const later = tasks.map((t) => {
    if (t.id !== id) return t;
    return { ...t, on: Math.max(own.start, t.on ?? 0) + DAY, ...(t.comes && { comes: own.end + DAY }) };
  });
  const then = layOutTasks(later, plan, now);
  const holds = then.placed
    .filter((p) => p.task.id !== id && p.start > before.get(p.task.id)!.start + 60)
    .sort((a, b) => before.get(a.task.id)!.start - before.get(b.task.id)!.start)
    .map((p) => p.task.name);
  return { holds, moves: Math.max(0, then.end - as.end) };
}

/** What is behind: promised and not there, later than in the plan that was kept, or later than it is wanted. */
function lateOnes(tasks: readonly Task[], planned: Planned, plan: BuildPlan, now: WallTime): Late[] {
  const out: Late[] = [];
  const add = (p: Placed, why: Late['why'], by: number) =>
    out.push({ id: p.task.id, name: p.task.name, why, by, ...heldUpBy(tasks, plan, now, p.task.id) });
  const behind = new Set<string>();
  for (const p of planned.placed) {
    const { task } = p;
    if (task.done !== undefined) continue;
    const kept = plan.kept?.[task.id];
    const late = kept !== undefined && p.end > kept + DAY;
    if (late) behind.add(task.id);
    if (task.comes !== undefined && task.comes + DAY <= now) add(p, 'promised', now - task.comes);
    // What only waits for something that is behind is told with that.
    else if (late && !task.after.some((id) => behind.has(id))) add(p, 'kept', p.end - kept);
  }
  const by = plan.wanted === undefined ? Infinity : startOf(plan.wanted) + DAY;
  if (planned.end > by) {
    const last = planned.placed.reduce((most, p) => (p.end > most.end ? p : most));
    out.push({ id: last.task.id, name: last.task.name, why: 'wanted', by: planned.end - by, holds: [], moves: 0 });
  }
  return out;
}

/**
 * A build laid out in time, with the band of its end: how far each factor that was reckoned with moves it, the square
 * roots of the sums of their squares on either side.
 *
 * @param now by the clock on the wall
 */
export function scheduleOf(input: PlanInput, plan: BuildPlan, shelf: Shelf, now: WallTime): Schedule {
  const { value: tasks, reads } = recorded(shelf, (s) => tasksOf(input, plan, s));
  const planned = layOutTasks(tasks, plan, now);
  let [early, late] = [0, 0];
  for (const f of uncertain(shelf, reads.factors))
    for (const value of [f.low, f.high]) {
      const by = layOutTasks(tasksOf(input, plan, withFactor(shelf, f.id, value)), plan, now).end - planned.end;
      if (by < 0) early += by * by;
      else late += by * by;
    }
  const left = tasks.filter((t) => t.done === undefined && t.cannot === undefined);
  return {
    ...planned,
    tasks,
    earliest: Math.max(Math.min(now, planned.end), planned.end - Math.sqrt(early)),
    latest: planned.end + Math.sqrt(late),
    late: lateOnes(tasks, planned, plan, now),
    handsLeft: left.reduce((s, t) => s + t.hands, 0),
    printsLeft: left.reduce((s, t) => s + t.prints, 0),
  };
}
