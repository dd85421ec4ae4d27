/**
 * Greatest common divisor of two whole numbers, never negative. Source: Euclid.
 *
 * @example gcd(24, 36) // 12
 */
export function gcd(a: number, b: number): number {
  let [x, y] = [Math.abs(a), Math.abs(b)];
  while (y !== 0) [x, y] = [y, x % y];
  return x;
}
