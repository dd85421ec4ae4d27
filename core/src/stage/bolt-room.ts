import type { Mend } from '../figure/index.ts';
import { SCREWS } from '../shop/fasteners.ts';
import { stated } from '../units/stated.ts';

/** Screws on a circle: how many, its diameter, that of their holes, m. */
export interface BoltCircle {
  readonly bolts: number;
  readonly circle: number;
  readonly hole: number;
}

/** Wall that a hole leaves, m. */
export const BOLT_WALL = 1e-3;
/** Room between heads, and steps in which circles are drawn, m. */
const [BETWEEN_HEADS, STEP] = [2e-4, 5e-4] as const;

/** Head of the largest screw that goes through a hole, m; 0 where none does. Source: ISO 4762, ISO 273. */
const headThrough = (hole: number): number => Object.values(SCREWS).findLast((s) => s.hole <= hole + 1e-6)?.head ?? 0;

/**
 * Least wall round the holes of screws on a circle, m; less where their heads stand nearer to one another than 0.2 mm.
 *
 * @param inner radius of what is inside of them, m
 * @param outer radius of what is outside of them, m
 * @example boltRoom({ bolts: 6, circle: 0.03, hole: 3.4e-3 }, 4e-3, 0.02) // 3.3e-3
 */
export function boltRoom({ bolts, circle, hole }: BoltCircle, inner: number, outer: number): number {
  const takes = Math.max(hole + BOLT_WALL, headThrough(hole) + BETWEEN_HEADS);
  const between = bolts > 1 ? circle * Math.sin(Math.PI / bolts) - takes + BOLT_WALL : Infinity;
  return Math.min(outer - (circle + hole) / 2, (circle - hole) / 2 - inner, between);
}

/**
 * The circle nearest to the one that is asked on which screws leave a millimetre of wall; undefined where none does.
 *
 * @param most that one may be wide, m
 * @param room wall that is left on a circle, m
 * @example nearestCircle(0.02, 0.04, (c) => c - 0.0232) // 0.0245
 */
export function nearestCircle(asked: number, most: number, room: (circle: number) => number): number | undefined {
  const fits = (c: number) => c > 0 && c <= most && room(c) >= BOLT_WALL - 1e-9;
  const middle = Math.round(Math.min(asked, most) / STEP);
  for (let k = 0; k * STEP <= most; k++) {
    const found = [middle - k, middle + k].map((n) => Math.round(n * STEP * 1e7) / 1e7).find(fits);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** The nearest circle that leaves a wall, as a mend; undefined where none does. */
export function circleMend(b: BoltCircle, inner: number, outer: number): Mend | undefined {
  const value = nearestCircle(b.circle, 2 * outer, (circle) => boltRoom({ ...b, circle }, inner, outer));
  return value === undefined
    ? undefined
    : { path: 'boltCircle2', value, label: `Screws on ⌀ ${stated(value, 'length', 4)}` };
}
