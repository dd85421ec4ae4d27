import { roundOf } from '../shape/round-of.ts';
import type { Outline } from '../shape/outline.ts';

/** A round face that is to come out at another diameter than it is drawn. */
export interface RoundChange {
  readonly hole: boolean;
  readonly diameter: number;
  /** Added to the diameter, m. */
  readonly by: number;
}

/** How a part is drawn for its process: what the process adds is taken off beforehand. Lengths in m. */
export interface Correction {
  /** Every outer contour moves into the material by so much, every hole opens by so much. */
  readonly out: number;
  readonly into: number;
  /** Share by which made sizes are larger than drawn ones: they are drawn smaller by it. */
  readonly scale: number;
  /** The lowest layers are drawn narrower by `by` at the bed, less and less up to `high`. */
  readonly foot?: { readonly by: number; readonly high: number };
  readonly rounds: readonly RoundChange[];
}

/** As drawn. */
export const NO_CORRECTION: Correction = { out: 0, into: 0, scale: 0, rounds: [] };

/** Every contour moved into the material by the same, m. */
export const evenly = (by: number): Correction => ({ ...NO_CORRECTION, out: by, into: by });

/** Whether nothing of a part is moved. */
export const isPlain = (c: Correction): boolean =>
  c.out === 0 && c.into === 0 && c.scale === 0 && c.rounds.length === 0 && !(c.foot && c.foot.by > 0);

/** Diameters nearer than this are the same face. */
const SAME = 2e-6;

/**
 * How far a contour is offset, m: above 0 outwards. A hole opens, an outside draws in, and a round one gains what its fit
 * asks for.
 *
 * @example offsetOf({ ...evenly(1e-4), rounds: [{ hole: true, diameter: 0.01, by: 2e-4 }] }, circle(0, 0, 0.005), true) // 0.0002
 */
export function offsetOf(c: Correction, outline: Outline, hole: boolean): number {
  const by = hole ? c.into : -c.out;
  if (c.rounds.length === 0) return by;
  const round = roundOf(outline);
  const change = round && c.rounds.find((x) => x.hole === hole && Math.abs(x.diameter - 2 * round.r) < SAME);
  return by + (change ? change.by / 2 : 0);
}
