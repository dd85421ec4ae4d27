import { rootBetween } from '../math/root.ts';
import { completeElliptic } from './elliptic.ts';

/** A touching ellipse: half axes (m) and the largest pressure (Pa). */
export interface PointContact {
  readonly a: number;
  readonly b: number;
  readonly pressure: number;
}

/**
 * The reduced modulus of two materials, Pa: 1/E* = (1 − ν1²)/E1 + (1 − ν2²)/E2.
 *
 * Source: K. L. Johnson, Contact Mechanics, eq. 4.5.
 */
export const reducedModulus = (e1: number, nu1: number, e2: number, nu2: number): number =>
  1 / ((1 - nu1 * nu1) / e1 + (1 - nu2 * nu2) / e2);

/**
 * Contact of two cylinders whose axes cross, or of any two bodies that are curved in one direction each.
 *
 * @param force N
 * @param rho1 radius of the first, m
 * @param rho2 radius of the second, m
 * @param angle between the cylinders' axes, rad; 0 would be a line and is refused
 * @param modulus reduced modulus, Pa
 * @throws RangeError where the axes are parallel, since a line contact has no ellipse
 * Source: K. L. Johnson, Contact Mechanics, 4.1 and 4.2 (eqs. 4.26 to 4.28), elliptic integrals exact.
 */
export function crossedCylinders(
  force: number,
  rho1: number,
  rho2: number,
  angle: number,
  modulus: number,
): PointContact {
  const [k1, k2] = [1 / rho1, 1 / rho2];
  const sum = (k1 + k2) / 2;
  const difference = Math.sqrt(Math.max(0, k1 * k1 + k2 * k2 + 2 * k1 * k2 * Math.cos(2 * angle))) / 2;
  // A is the flatter direction, along which the ellipse is long.
  const [A, B] = [(sum - difference) / 2, (sum + difference) / 2];
  if (!(A > 1e-9 * B)) throw new RangeError('Cylinders with parallel axes touch along a line.');
  const shape = (q: number) => {
    const e = Math.sqrt(1 - q * q);
    const { K, E } = completeElliptic(e);
    return { K, E, e };
  };
  // (B/A) = ((a/b)²E − K)/(K − E) falls as the ellipse grows rounder.
  const rounder = (q: number) => {
    const { K, E } = shape(q);
    return Math.log((E / (q * q) - K) / (K - E)) - Math.log(B / A);
  };
  const found = rootBetween(rounder, 1e-6, 1 - 1e-9);
  // As long as that it is as good as a line, and equal curvatures touch in a circle.
  const q = Number.isNaN(found) ? (rounder(0.5) > 0 ? 1 - 1e-9 : 1e-6) : found;
  const { K, E, e } = shape(q);
  const radius = 1 / (2 * Math.sqrt(A * B));
  const c3 =
    ((3 * force * radius) / (4 * modulus)) *
    ((4 / (Math.PI * e * e)) * q ** 1.5 * Math.sqrt((E / (q * q) - K) * (K - E)));
  const c = Math.cbrt(c3);
  const [a, b] = [c / Math.sqrt(q), c * Math.sqrt(q)];
  return { a, b, pressure: (3 * force) / (2 * Math.PI * a * b) };
}
