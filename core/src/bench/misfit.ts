import { hangingTogether } from './hanging.ts';

/** How well a curve goes through its readings, apart from how far they scatter. */
export interface Misfit {
  /** Times that the variance of what was fitted is larger than if residuals were independent; at least 1. */
  readonly widen: number;
  /** What is wrong with the fit and what would settle it; nothing where nothing is. */
  readonly says: readonly string[];
}

/** Residuals hang together for more than chance where they say the same thing over so many readings. */
const TELLING = 2;

/**
 * Looks at what a fit has left over: residuals that hang together mean that the curve does not know of something, and
 * that its uncertainty, reckoned as if they were independent, is too small.
 *
 * @param residuals in the order they were read
 * @param fitted how many numbers were fitted
 * @param cause what usually does it in this test: “a zero that drifts”
 * @param next the reading that would settle it, a sentence
 * @example misfitOf(Float64Array.of(1, -1, 2, -2, 1, -1, 2, -2, 1, -1, 2, -2), 2, 'a drift', 'Read on.').says.length // 0
 */
export function misfitOf(residuals: ArrayLike<number>, fitted: number, cause: string, next: string): Misfit {
  const widen = hangingTogether(residuals, fitted);
  if (widen < TELLING) return { widen, says: [] };
  return {
    widen,
    says: [
      `The curve does not go quite through the readings: what is left hangs together over about ${Math.round(widen)} of ` +
        `them (${cause}). The uncertainty is ${Math.sqrt(widen).toFixed(1)} times what scatter alone would give. ${next}`,
    ],
  };
}
