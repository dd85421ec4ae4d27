import { steppedDown } from '../math/steps.ts';

/** Least that is left of an eccentric beside the rod through it, m. */
const ECCENTRIC_WALL = 1e-3;
/** Density of ground rod, kg/m³. */
export const ROD_DENSITY = 7850;

/**
 * Diameter of the rod that eccentrics are put on, m; 0 where a crank is in one piece: up to two of them have an end each from
 * which a bearing goes on, and none gets to a third between them.
 *
 * @param throws how far an eccentric stands off the axis, m
 * @param bore of the bearings on them, m
 * @example crankRod(3, 0.4e-3, 8e-3) // 5e-3
 */
export const crankRod = (eccentrics: number, throws: number, bore: number): number =>
  eccentrics > 2 ? crankEnd(throws, bore) : 0;

/**
 * Diameter of a crank's own axis through its eccentrics, and of its ends, m: what they leave of themselves beside it; 0 where
 * that is nothing.
 *
 * @param throws how far an eccentric stands off the axis, m
 * @param bore of the bearings on them, m
 * @example crankEnd(0.3e-3, 8e-3) // 5e-3
 */
export const crankEnd = (throws: number, bore: number): number =>
  Math.max(0, steppedDown(bore - 2 * (throws + ECCENTRIC_WALL), 5e-4));
