/** inv α = tan α − α, rad. Source: ISO 21771:2007, 4.2.2. */
export const inv = (a: number): number => Math.tan(a) - a;

/**
 * The angle whose involute function is `y` (rad): Newton's method on tan α − α, whose derivative is tan² α.
 *
 * @param y at least 0; larger than any gear has gives an angle just below 90°
 * @example inverseInv(inv(0.35)) // 0.35
 */
export function inverseInv(y: number): number {
  if (!(y > 0)) return 0;
  // Cheng's series starts within 1e-5 for usual gears; large values start from the pole of the tangent.
  let a = y < 1.8 ? Math.cbrt(3 * y) - (2 * y) / 5 : Math.PI / 2 - 1 / (y + Math.PI / 2);
  for (let k = 0; k < 60; k++) {
    const t = Math.tan(a);
    const step = (t - a - y) / (t * t);
    a = Math.min(Math.max(a - step, a / 2), (a + Math.PI / 2) / 2);
    if (Math.abs(step) < 1e-15) break;
  }
  return a;
}
