import { stated } from '../units/stated.ts';
import type { Mend } from '../figure/index.ts';
import type { Result } from '../result.ts';
import type { StageProblem } from './contract.ts';

/** Refuses a stage in words, with the parameter that decides and the nearest change that makes it possible. */
export function stop(what: string, why: string, mend: string, place: string, fix?: Mend): Result<never> {
  const problem: StageProblem = { what, why, mend, place, ...(fix && { fix }) };
  return { ok: false, problem };
}

/** A length for such words, in millimetres to the micrometre. */
export const inMm = (x: number): string => stated(x, 'length', 5);
