import { completeElliptic } from '../contact/elliptic.ts';
import type { Curve } from '../shape/curve.ts';
import type { Outline } from '../shape/outline.ts';
import { lobedOutline } from './lobes.ts';

/**
 * A lobed profile by what generates it; metres. Z pins of radius r stand on a circle of radius R, and the disc of Z − 1
 * lobes runs inside them by e.
 */
export interface Cycloid {
  readonly pins: number;
  /** Radius of the pin circle that the profile is generated with, R. */
  readonly circle: number;
  /** Radius of the pins that it is generated with, r: a larger one than is built leaves an equidistant gap. */
  readonly pin: number;
  /** Eccentricity, e. */
  readonly throw: number;
}

/** Path of a pin's centre as the disc sees it: R·e^{it} − e·e^{iZt}; writes x, y and the derivative by t. */
export function pinPath(c: Cycloid, t: number, out: Float64Array): void {
  const { circle: R, throw: e, pins: Z } = c;
  const ct = Math.cos(t);
  const st = Math.sin(t);
  const cz = Math.cos(Z * t);
  const sz = Math.sin(Z * t);
  out[0] = R * ct - e * cz;
  out[1] = R * st - e * sz;
  out[2] = -R * st + e * Z * sz;
  out[3] = R * ct - e * Z * cz;
}

/** Radius of curvature of the path of pin centres, m: positive where it is convex, negative where it is hollow. */
export function pathRadius(c: Cycloid, t: number): number {
  const { circle: R, throw: e, pins: Z } = c;
  const cos = Math.cos((Z - 1) * t);
  const speed2 = R * R + e * Z * (e * Z) - 2 * R * e * Z * cos;
  const cross = R * R + e * e * Z * Z * Z - R * e * Z * (Z + 1) * cos;
  return (speed2 * Math.sqrt(speed2)) / cross;
}

/**
 * Length of the path of pin centres once round, m: ∫√(R² + (eZ)² − 2ReZ·cos) = 4(R + eZ)·E(k), k² = 4ReZ/(R + eZ)².
 *
 * A profile at a pin's radius inside it is 2π·r shorter, one outside it as much longer, whatever its lobes are like.
 * @example pathLength(11, 0.04, 1.5e-3) // 0.262138
 */
export function pathLength(pins: number, circle: number, lift: number): number {
  const b = lift * pins;
  return 4 * (circle + b) * completeElliptic((2 * Math.sqrt(circle * b)) / (circle + b)).E;
}

/**
 * Smallest convex radius of the path of pin centres, m: pins as large cut into the lobes. Infinity where nothing is
 * convex.
 */
export function smallestConvex(c: Cycloid): number {
  // Radius depends on the cosine of (Z − 1)t alone: half a lobe holds all there is.
  const span = Math.PI / (c.pins - 1);
  const radius = (t: number) => {
    const r = pathRadius(c, t);
    return r > 0 ? r : Infinity;
  };
  let [best, at] = [Infinity, 0];
  const n = 400;
  for (let i = 0; i <= n; i++) {
    const r = radius((span * i) / n);
    if (r < best) [best, at] = [r, i];
  }
  let [lo, hi] = [(span * Math.max(0, at - 1)) / n, (span * Math.min(n, at + 1)) / n];
  for (let k = 0; k < 60; k++) {
    const [a, b] = [lo + (hi - lo) / 3, hi - (hi - lo) / 3];
    if (radius(a) < radius(b)) hi = b;
    else lo = a;
  }
  return Math.min(best, radius((lo + hi) / 2));
}

const p = new Float64Array(4);

/**
 * The profile as a curve over one lobe, from the middle of a hollow to the next: every pin's centre lies its radius off
 * it at any crank angle.
 *
 * Source: envelope of the pins' circles: the contact lies from the pin's centre towards the pitch point, e·(Z −
 * 1)·e^{iZt} in the disc's frame. The same curve as
 * x = R cos t − r cos(t + ψ) − e cos Zt, y = −(R sin t − r sin(t + ψ) − e sin Zt) with ψ = atan2(sin((1 − Z)t), R/(eZ)
 * − cos((1 − Z)t)).
 */
export function lobeCurve(c: Cycloid): Curve {
  const pitch = (2 * Math.PI) / (c.pins - 1);
  return (u, out) => {
    pinPath(c, pitch * u, p);
    const speed = Math.sqrt(p[2]! * p[2]! + p[3]! * p[3]!);
    // Inwards is the tangent turned to the left.
    out[0] = p[0]! - (c.pin * p[3]!) / speed;
    out[1] = p[1]! + (c.pin * p[2]!) / speed;
    out[2] = Math.atan2(p[3]!, p[2]!);
  };
}

/**
 * The disc's outline, its first hollow on the x axis: that is where a pin stands when the crank points at it.
 *
 * @param tolerance largest distance of its arcs from the exact curve, m
 */
export const discOutline = (c: Cycloid, tolerance = 1e-7): Outline => lobedOutline(lobeCurve(c), c.pins - 1, tolerance);

/**
 * Distance of a point from the path of pin centres, m, positive outside; the point is near the path at a parameter.
 *
 * Source: foot of the perpendicular by Newton's method.
 */
export const offPath = (c: Cycloid, x: number, y: number, near: number): number =>
  offPathFrom(c, x, y, Math.cos(near), Math.sin(near), Math.cos(c.pins * near), Math.sin(c.pins * near));

/**
 * The same where cosine and sine of the parameter and of Z times it are known. Newton's steps are small: they turn both
 * pairs by their series, so that no more sines are taken.
 */
export function offPathFrom(c: Cycloid, x: number, y: number, ct: number, st: number, cz: number, sz: number): number {
  const { circle: R, throw: e, pins: Z } = c;
  const eZ = e * Z;
  for (let k = 0; ; k++) {
    const dx = R * ct - e * cz - x;
    const dy = R * st - e * sz - y;
    // The path's derivative, and its second by the same sines.
    const vx = eZ * sz - R * st;
    const vy = R * ct - eZ * cz;
    const speed2 = vx * vx + vy * vy;
    const bend = dx * (eZ * Z * cz - R * ct) + dy * (eZ * Z * sz - R * st);
    const step = (dx * vx + dy * vy) / (speed2 + bend);
    if (k === MOST_STEPS || (step < FOOT && step > -FOOT)) return (dy * vx - dx * vy) / Math.sqrt(speed2);
    const d = -step;
    const dz = Z * d;
    let cd, sd, cdz, sdz: number;
    if (dz < SMALL && dz > -SMALL) {
      const d2 = d * d;
      const z2 = dz * dz;
      cd = 1 - d2 * (1 / 2 - d2 * (1 / 24 - d2 * (1 / 720 - d2 / 40320)));
      sd = d * (1 - d2 * (1 / 6 - d2 * (1 / 120 - d2 * (1 / 5040 - d2 / 362880))));
      cdz = 1 - z2 * (1 / 2 - z2 * (1 / 24 - z2 * (1 / 720 - z2 / 40320)));
      sdz = dz * (1 - z2 * (1 / 6 - z2 * (1 / 120 - z2 * (1 / 5040 - z2 / 362880))));
    } else {
      cd = Math.cos(d);
      sd = Math.sin(d);
      cdz = Math.cos(dz);
      sdz = Math.sin(dz);
    }
    const c0 = ct;
    const z0 = cz;
    ct = c0 * cd - st * sd;
    st = st * cd + c0 * sd;
    cz = z0 * cdz - sz * sdz;
    sz = sz * cdz + z0 * sdz;
  }
}

/**
 * Newton's last step towards the foot, rad: from so near the distance changes with the square of it, by less than 10⁻¹⁶ m
 * even where the path bends within a millimetre.
 */
const FOOT = 1e-9;
const MOST_STEPS = 12;
/** Angles below this have their series right to the last digit, rad. */
const SMALL = 0.05;
