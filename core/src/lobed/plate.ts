import type { Curve } from '../shape/curve.ts';
import type { Outline } from '../shape/outline.ts';
import type { Cycloid } from './cycloid.ts';
import { lobedOutline } from './lobes.ts';

/**
 * The inner lobes of a plate that moves in a circle of radius e round a wheel of Z pins, told as a disc's are; it has Z
 * + 1 lobes.
 */
export type PlateProfile = Cycloid;

/** Path of a pin's centre as the plate sees it: R·e^{it} − e·e^{−iZt}; writes x, y and the derivative by t. */
export function platePath(c: PlateProfile, t: number, out: Float64Array): void {
  const { circle: R, throw: e, pins: Z } = c;
  const [ct, st, cz, sz] = [Math.cos(t), Math.sin(t), Math.cos(Z * t), Math.sin(Z * t)];
  out[0] = R * ct - e * cz;
  out[1] = R * st + e * sz;
  out[2] = -R * st + e * Z * sz;
  out[3] = R * ct + e * Z * cz;
}

/** Radius of curvature of that path, m: negative where it is hollow, which is where the plate's lobes stand in. */
export function platePathRadius(c: PlateProfile, t: number): number {
  const { circle: R, throw: e, pins: Z } = c;
  const cos = Math.cos((Z + 1) * t);
  return (R * R + (e * Z) ** 2 + 2 * R * e * Z * cos) ** 1.5 / (R * R - e * e * Z ** 3 - (Z - 1) * R * e * Z * cos);
}

/**
 * Curvature of a plate's lobe where a pin touches it, 1/m: positive where the plate bulges towards the pin, most at a
 * lobe's tip, negative where it lies round it.
 * @param toPin angle from the plate's eccentric to the pin, rad: nought at a lobe's tip
 * @example lobeCurvature({ pins: 20, circle: 0.015, pin: 1.25e-3, throw: 4e-4 }, 0) // 416.966
 * @example lobeCurvature({ pins: 20, circle: 0.015, pin: 1.25e-3, throw: 4e-4 }, Math.PI) // -653.595
 */
export function lobeCurvature(c: PlateProfile, toPin: number): number {
  const path = platePathRadius(c, toPin / (c.pins + 1));
  return path < 0 ? 1 / (-path - c.pin) : -1 / (path + c.pin);
}

/** Smallest hollow radius of the path, m: pins as large cut the lobes' tips away. Infinity where nothing is hollow. */
export function smallestHollow(c: PlateProfile): number {
  let least = Infinity;
  for (let i = 0; i <= 2000; i++) {
    const r = platePathRadius(c, (Math.PI / (c.pins + 1)) * (i / 2000));
    if (r < 0) least = Math.min(least, -r);
  }
  return least;
}

const p = new Float64Array(4);

/**
 * The profile over one lobe. Source: envelope of the pins' circles seen from the plate, outside them; contact normals
 * pass through the pitch point −Z·e·u.
 */
export const plateCurve =
  (c: PlateProfile): Curve =>
  (u, out) => {
    platePath(c, ((2 * Math.PI) / (c.pins + 1)) * u, p);
    const speed = Math.hypot(p[2]!, p[3]!);
    out[0] = p[0]! + (c.pin * p[3]!) / speed;
    out[1] = p[1]! - (c.pin * p[2]!) / speed;
    out[2] = Math.atan2(p[3]!, p[2]!);
  };

/**
 * The plate's inner outline about its own middle, as it stands when the crank points along x and the wheel has a pin
 * there.
 */
export const plateOutline = (c: PlateProfile, tolerance = 1e-7): Outline =>
  lobedOutline(plateCurve(c), c.pins + 1, tolerance);
