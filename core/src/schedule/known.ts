import type { BuildPlan, Material } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Task } from './task.ts';
import { startOf, wallTime } from './wall-clock.ts';

/** What every task has of what is known of it. */
export function common(
  id: string,
  plan: BuildPlan,
): Pick<Task, 'id' | 'prints' | 'runs' | 'waits' | 'done' | 'begun' | 'on'> {
  const known = plan.tasks[id];
  return {
    ...{ id, prints: 0, runs: 0, waits: 0 },
    ...(known?.done && { done: wallTime(known.done) }),
    ...(known?.begun && { begun: wallTime(known.begun) }),
    ...(known?.on && { on: startOf(known.on) }),
  };
}

/** A material of the shop by its name; undefined for what is made of none in particular. */
export const materialNamed = (name: string, shelf: Shelf): Material | undefined =>
  shelf.materials.find((m) => m.name === name);
