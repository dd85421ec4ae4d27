import type { CycloidalParams } from './params.ts';

const E_STEEL = 206e9;

/** How the output pins of one disc share a moment of one newton metre: pushes together and the most, N; longest lever, m. */
export interface OutShare {
  readonly sum: number;
  readonly most: number;
  readonly lever: number;
}

/**
 * Pushes at right angles to the crank's arm, in proportion to their levers; only pins on the driving side push.
 * @param crank angle of the eccentric against the pins, rad
 * @example outShare({ outPins: 6, outCircle: 0.05 }, 0.4) // { sum: 52.92647, most: 26.46324, lever: 0.0248093 }
 */
export function outShare(p: Pick<CycloidalParams, 'outPins' | 'outCircle'>, crank: number): OutShare {
  let [sum, squares, most] = [0, 0, 0];
  for (let i = 0; i < p.outPins; i++) {
    const s = Math.max(0, Math.sin(crank - (2 * Math.PI * i) / p.outPins));
    sum += s;
    squares += s * s;
    most = Math.max(most, s);
  }
  const each = 1 / ((p.outCircle / 2) * squares);
  return { sum: each * sum, most: each * most, lever: (p.outCircle / 2) * most };
}

/**
 * One steel pin under a push, N/m: standing out of one plate 3E·I/L³, held in one on either side and pushed in the middle
 * 192E·I/L³.
 * @param pin its diameter, m
 * @param length of the discs between or before the plates, m
 * @example outPinStiffness('plate', 4e-3, 0.013) // 3534828
 * @example outPinStiffness('both', 4e-3, 0.013) // 226228990
 */
export const outPinStiffness = (by: CycloidalParams['carriedBy'], pin: number, length: number): number =>
  ((by === 'both' ? 192 : 3) * E_STEEL * (Math.PI * pin ** 4)) / 64 / length ** 3;

/**
 * Bending stress of a pin for a newton of each disc's push, Pa/N: at its plate with the pushes half way out, n·L/2, or
 * clamped at both ends, n·L/8.
 * @example outPinBending('plate', 4e-3, 0.013, 2) // 2069014.3
 * @example outPinBending('both', 4e-3, 0.013, 1) // 258626.78
 */
export const outPinBending = (by: CycloidalParams['carriedBy'], pin: number, length: number, discs: number): number =>
  (32 * ((discs * length) / (by === 'both' ? 8 : 2))) / (Math.PI * pin ** 3);

/**
 * All output pins against turning, N·m/rad: on the mean over the turn a quarter of them push with their whole lever.
 * @param each stiffness of one, N/m
 * @param circle diameter on which they stand, m
 * @example outStiffness(6, 1e6, 0.05) // 937.5
 */
export const outStiffness = (pins: number, each: number, circle: number): number =>
  (pins / 4) * each * (circle / 2) ** 2;

/**
 * Equivalent stress of a pin in bending and shear, Pa: √(σ² + 3τ²), τ at the middle of a round section 4/3 of the mean.
 * @param force of the worst disc, N
 * @param bending stress for a newton, Pa/N
 * @example outPinStress(30, 0.5e6, 4e-3) // 15981125
 */
export const outPinStress = (force: number, bending: number, pin: number): number =>
  Math.hypot(force * bending, Math.sqrt(3) * (4 / 3) * (force / ((Math.PI / 4) * pin ** 2)));
