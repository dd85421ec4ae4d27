import type { Problem } from '@gristmill/core';
import { note } from './note.ts';

let last: Problem | undefined;

/**
 * Tells that a change was not made. The field it came from takes the reason and shows it; where nothing does, it is
 * said in a note.
 */
export function refuseChange(problem: Problem): void {
  last = problem;
  // Fields take it as soon as their change returns; nobody else is that quick.
  queueMicrotask(() => {
    if (last !== problem) return;
    last = undefined;
    note(`${problem.what} ${problem.why} ${problem.mend}`, { id: 'refused', stays: 8000 });
  });
}

/** The reason why the change just asked for was not made, for the field that asked; undefined where it was made. */
export function takeRefusal(): Problem | undefined {
  const problem = last;
  last = undefined;
  return problem;
}
