import type { MadeBy } from '../src/fit/making-of.ts';
import { fitHistory } from '../src/fit/process-fit.ts';
import { PROCESSES, type Process } from '../src/index.ts';

/**
 * A process that is known for certain: contours out and holes in by so much, m, without scale.
 *
 * @param spread standard deviation of a made size, m
 */
export function madeBy(out: number, into: number, more: Partial<Process> = {}, spread = 2e-5): MadeBy {
  const process = { ...PROCESSES[0]!, ...more };
  const made = fitHistory(process, '2026-11-01');
  if (!made.ok) throw new Error(made.problem.what);
  const told = (value: number) => ({ value, u: 0 });
  const known = { out: told(out), into: told(into), scaleX: told(0), scaleY: told(0), spread: told(spread) };
  return { process, fit: { ...made.value.now, ...known, covariance: new Float64Array(25) } };
}
