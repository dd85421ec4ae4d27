import type { LoopPath } from './path.ts';

/** Force of the tight and of the slack side of a loop, N. */
export interface Sides {
  readonly tight: number;
  readonly slack: number;
}

/**
 * Share of a change of load that the tight side takes while the slack one carries as well: springs E·A/L side by side,
 * of lengths that an idler makes unlike.
 *
 * @param tight free length of the tight side, m
 * @param slack of the slack side, m
 * @example tightShare(0.1, 0.1) // 0.5
 * @example tightShare(0.1, 0.15) // 0.6
 */
export const tightShare = (tight: number, slack: number): number => slack / (tight + slack);

/**
 * What the two sides of a tensioned loop carry: the tension, with a share of the circumferential force more on the tight
 * one and the rest of it less on the other, until that hangs and the tight one carries all.
 *
 * @param force circumferential force, N, ≥ 0
 * @param tension of each side at rest, N
 * @param share that the tight side takes, see `tightShare`
 * @returns N
 * Source: two springs side by side, that cannot push.
 * @example sides(40, 30, 0.5) // { tight: 50, slack: 10 }
 * @example sides(100, 30, 0.5) // { tight: 100, slack: 0 }
 * @example sides(50, 30, 0.6) // { tight: 60, slack: 10 }
 */
export const sides = (force: number, tension: number, share: number): Sides =>
  force * (1 - share) > tension
    ? { tight: force, slack: 0 }
    : { tight: tension + force * share, slack: tension - force * (1 - share) };

/**
 * Circumferential force under which the tight side carries a load, N: the inverse of `sides`; nought where the tension
 * alone is as much.
 *
 * @example pullFor(50, 30, 0.5) // 40
 * @example pullFor(100, 30, 0.5) // 100
 * @example pullFor(20, 30, 0.5) // 0
 */
export const pullFor = (load: number, tension: number, share: number): number =>
  load * (1 - share) >= tension ? load : Math.max(0, (load - tension) / share);

/**
 * Stiffness about the driven wheel that both sides of a loop give it: springs E·A/L side by side at its radius,
 * r²·E·A·(1/L_t + 1/L_s).
 *
 * @param r radius of the driven wheel's pitch line, m
 * @param ea stiffness of the loop to a strain, N
 * @param tight free length of the tight side, m
 * @param slack of the slack side, m
 * @returns N·m/rad
 * @example spanStiffness(0.02, 50e3, 0.1, 0.2) // 300
 */
export const spanStiffness = (r: number, ea: number, tight: number, slack: number): number =>
  r * r * ea * (1 / tight + 1 / slack);

/** Force that a loop puts on the shafts of its first and its last wheel, as x and y, N. */
export interface ShaftForces {
  readonly first: readonly [number, number];
  readonly last: readonly [number, number];
}

/**
 * What a loop pulls the driving shaft (its first wheel) and the driven one (its last) with: along the run that leaves
 * each, and back along the run that arrives. The tight run goes from the last wheel to the first.
 *
 * @returns N, in the path's axes
 * @example shaftForces({ runs: [{ heading: 0 }, { heading: Math.PI }] }, { tight: 50, slack: 10 }) // { first: [60, 0], last: [-60, 0] }
 */
export function shaftForces(path: LoopPath, { tight, slack }: Sides): ShaftForces {
  const { runs } = path;
  const along = (i: number): [number, number] => [Math.cos(runs[i]!.heading), Math.sin(runs[i]!.heading)];
  const last = runs.length - 1;
  const [tx, ty] = along(last);
  const [ax, ay] = along(0);
  const [bx, by] = along(last - 1);
  return {
    first: [slack * ax - tight * tx, slack * ay - tight * ty],
    last: [tight * tx - slack * bx, tight * ty - slack * by],
  };
}

/**
 * Note of a plucked span: √(F/μ)/2L.
 *
 * @param tension N
 * @param mass of the loop per length, kg/m
 * @param span free length, m
 * @returns Hz; 0 without tension
 * Source: fundamental of a string between fixed ends.
 * @example pluckedNote(100, 0.01, 0.5) // 100
 */
export const pluckedNote = (tension: number, mass: number, span: number): number =>
  tension > 0 ? Math.sqrt(tension / mass) / (2 * span) : 0;
