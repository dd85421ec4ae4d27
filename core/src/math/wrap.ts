/**
 * An angle brought into −π … π by whole turns, rad.
 *
 * @example wrap(7) // 0.716814692820414
 */
export const wrap = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
