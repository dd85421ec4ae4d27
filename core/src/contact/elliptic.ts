/**
 * Complete elliptic integrals K(e) and E(e) of the first and second kind, of the modulus e.
 *
 * Source: Abramowitz and Stegun, 17.6: the arithmetic-geometric mean, which doubles its digits at each step.
 */
export function completeElliptic(e: number): { K: number; E: number } {
  let [a, b, c] = [1, Math.sqrt(Math.max(0, 1 - e * e)), e];
  let sum = (c * c) / 2;
  for (let k = 1; k < 40 && Math.abs(c) > 1e-16; k++) {
    [a, b, c] = [(a + b) / 2, Math.sqrt(a * b), (a - b) / 2];
    sum += 2 ** (k - 1) * c * c;
  }
  const K = Math.PI / (2 * a);
  return { K, E: K * (1 - sum) };
}
