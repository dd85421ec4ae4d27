import { rootBetween } from '../math/root.ts';
import type { Wheel } from './path.ts';

/**
 * Length that a loop over two wheels gives for a way of their shafts towards each other: dL/dC = 2·cos α, sin α = (r₂ − r₁)/C.
 *
 * @param r1 and r2 radii of the wheels, m
 * @param centre distance of their shafts, m
 * @example perWay(0.01, 0.04, 0.05) // 1.6
 */
export function perWay(r1: number, r2: number, centre: number): number {
  const lean = (r2 - r1) / centre;
  return 2 * Math.sqrt(1 - lean * lean);
}

/**
 * Whether a wheel of a loop stands clear of all others.
 *
 * @param within how far its own outside lies within the circle that the loop runs on, m
 */
export const standsClear = (wheels: readonly Wheel[], at: number, within = 0): boolean =>
  wheels.every(
    (w, i) => i === at || Math.hypot(w.x - wheels[at]!.x, w.y - wheels[at]!.y) >= w.r + wheels[at]!.r - within,
  );

/** How far a wheel that presses a loop aside is moved, m: on until the loop is taut, and back until it is slack. */
export interface Tensioning {
  readonly on: number;
  readonly back: number;
  /** Length of the loop that it lets go of or takes up between the two, m. */
  readonly length: number;
}

/** First and last step by which a way on is looked for, m. */
const [STEP, FAR] = [1e-4, 0.1];

/**
 * How far a wheel that presses a loop aside must be moved to tension it and to let it go, its shafts where they are.
 *
 * @param lengthAt length of the loop as it is pressed aside by so much, m; undefined where it cannot lie so
 * @param bare length of the loop without the wheel, m
 * @param push how far it presses the loop aside as it runs, m
 * @param longer by how much the loop is stretched to tension it, m
 * @param shorter how much it needs to be put on, m; as much of it as the wheel gives
 * @example tensioning((x) => 0.3 + x * x, 0.3, 0.01, 4.4e-5, 1.9e-5) // { on: 0.002, back: 0.001, length: 6.3e-5 }
 */
export function tensioning(
  lengthAt: (push: number) => number | undefined,
  bare: number,
  push: number,
  longer: number,
  shorter: number,
): Tensioning {
  const here = lengthAt(push) ?? bare;
  const at = (x: number, more: number): number => (lengthAt(x) ?? bare) - here - more;
  const slack = Math.max(0, Math.min(shorter, here - bare));
  const back = slack < here - bare ? push - rootBetween((x) => at(x, -slack), 0, push) : push;
  for (let d = STEP; d < FAR; d *= 2) {
    const reached = lengthAt(push + d);
    if (reached === undefined) break;
    if (reached < here + longer) continue;
    return { on: rootBetween((x) => at(x, longer), push, push + d) - push, back, length: longer + slack };
  }
  return { on: 0, back, length: slack };
}
