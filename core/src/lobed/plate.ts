import { fitArcs, type Curve } from '../shape/curve.ts';
import { drawnFrom, sampled } from '../shape/exact.ts';
import { OutlinePen, type Outline } from '../shape/outline.ts';

/** The inner lobes of a plate that moves in a circle of radius e round a wheel of Z pins; metres. It has Z + 1 lobes. */
export interface PlateProfile {
  readonly pins: number;
  readonly circle: number;
  /** Radius of the pins that it is cut for. */
  readonly pin: number;
  readonly throw: number;
}

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

/** The profile over one lobe. Source: envelope of the pins' circles seen from the plate, outside them; contact normals pass through the pitch point −Z·e·u. */
export const plateCurve = (c: PlateProfile): Curve => (u, out) => {
  platePath(c, ((2 * Math.PI) / (c.pins + 1)) * u, p);
  const speed = Math.hypot(p[2]!, p[3]!);
  out[0] = p[0]! + (c.pin * p[3]!) / speed;
  out[1] = p[1]! - (c.pin * p[2]!) / speed;
  out[2] = Math.atan2(p[3]!, p[2]!);
};

/** The plate's inner outline about its own middle, as it stands when the crank points along x and the wheel has a pin there. */
export function plateOutline(c: PlateProfile, tolerance = 1e-7): Outline {
  const lobes = c.pins + 1;
  const pen = new OutlinePen();
  const curve = plateCurve(c);
  fitArcs(curve, tolerance, pen);
  const one = pen.close().points;
  const points = new Float64Array(one.length * lobes);
  for (let k = 0; k < lobes; k++) {
    const [cs, sn] = [Math.cos((2 * Math.PI * k) / lobes), Math.sin((2 * Math.PI * k) / lobes)];
    for (let i = 0, o = k * one.length; i < one.length; i += 3, o += 3) {
      points[o] = cs * one[i]! - sn * one[i + 1]!;
      points[o + 1] = sn * one[i]! + cs * one[i + 1]!;
      points[o + 2] = one[i + 2]!;
    }
  }
  return drawnFrom({ points, closed: true }, () => ({ pieces: [{ kind: 'spline', points: sampled(curve, 48) }], repeat: lobes }));
}
