import { factor, type Shelf } from '../shop/shelf.ts';

/** Yield of a shaft of plain steel, Pa. Source: E295 or C45 as rolled, EN 10025-2. */
const YIELD = 350e6;

/** What a shaft of steel stands before it stays bent, Pa. */
export const shaftStands = (shelf: Shelf): number => YIELD * factor(shelf, 'strength.metal');

/**
 * Bending stress of a round shaft for a newton metre, Pa: 32/(π·d³).
 * @example shaftStress(8e-3) // 19894367.9
 */
export const shaftStress = (across: number): number => 32 / (Math.PI * across ** 3);

/**
 * Moment that stresses a shaft as bending and twisting together do, N·m: √(M² + ¾T²).
 *
 * Source: von Mises, σ = 32M/(π·d³) and τ = 16T/(π·d³).
 * @example bentAndTwisted(3, 4) // 4.58258
 */
export const bentAndTwisted = (bends: number, twists: number): number => Math.sqrt(bends ** 2 + 0.75 * twists ** 2);
