/**
 * Complete elliptic integrals K(e) and E(e) of the first and second kind, of the modulus e.
 *
 * Source: Abramowitz and Stegun, 17.6: the arithmetic-geometric mean, which doubles its digits at each step.
 */
export function completeElliptic(e: number): { K: number; E: number } {
  let a = 1;
  let b = Math.sqrt(Math.max(0, 1 - e * e));
  let c = e;
  let sum = (c * c) / 2;
  let weight = 1;
  for (let k = 1; k < 40 && Math.abs(c) > 1e-16; k++) {
    const mean = (a + b) / 2;
    c = (a - b) / 2;
    b = Math.sqrt(a * b);
    a = mean;
    sum += weight * c * c;
    weight *= 2;
  }
  const K = Math.PI / (2 * a);
  return { K, E: K * (1 - sum) };
}
