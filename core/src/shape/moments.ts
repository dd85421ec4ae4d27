import { flatten } from './flatten.ts';
import type { Outline } from './outline.ts';
import type { Solid } from './solid.ts';

/** An area with its moments about the origin: of the first order, and the polar one of the second. */
export interface AreaMoments {
  /** m² */
  readonly area: number;
  /** ∫x dA and ∫y dA, m³. */
  readonly x: number;
  readonly y: number;
  /** ∫(x² + y²) dA, m⁴. */
  readonly polar: number;
}

/** Arcs are taken in pieces that stray by at most this, m. */
const FINE = 1e-7;

/**
 * Moments of what an outline encloses, whichever way round it runs.
 *
 * Source: Green’s theorem over the sides of a polygon.
 * @example areaMoments(circle(0, 0, 0.01)).polar.toExponential(3) // '1.571e-8'
 */
export function areaMoments(o: Outline): AreaMoments {
  const p = flatten(o, FINE);
  const n = p.length / 2;
  let [area, x, y, polar] = [0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [x1, y1, x2, y2] = [p[2 * i]!, p[2 * i + 1]!, p[2 * j]!, p[2 * j + 1]!];
    const cross = x1 * y2 - x2 * y1;
    area += cross / 2;
    x += ((x1 + x2) * cross) / 6;
    y += ((y1 + y2) * cross) / 6;
    polar += (cross * (x1 * x1 + x1 * x2 + x2 * x2 + y1 * y1 + y1 * y2 + y2 * y2)) / 12;
  }
  const sign = area < 0 ? -1 : 1;
  return { area: sign * area, x: sign * x, y: sign * y, polar: sign * polar };
}

/** A solid’s volume, m³, its centre, m, and ∫(x² + y²) dV about its z, m⁵. */
export interface SolidMoments {
  readonly volume: number;
  readonly centre: readonly [number, number, number];
  readonly polar: number;
}

/**
 * Moments of a solid whose added prisms do not overlap and whose cuts lie wholly inside them. A twisted prism is taken to
 * be the same all round, as wheels are.
 */
export function solidMoments({ prisms }: Solid): SolidMoments {
  let [volume, x, y, z, polar] = [0, 0, 0, 0, 0];
  for (const p of prisms) {
    const long = (p.to - p.from) * (p.cut ? -1 : 1);
    const [c, s] = [Math.cos(p.turn ?? 0), Math.sin(p.turn ?? 0)];
    const add = (m: AreaMoments, k: number) => {
      volume += k * m.area;
      x += k * (c * m.x - s * m.y);
      y += k * (s * m.x + c * m.y);
      z += (k * m.area * (p.from + p.to)) / 2;
      polar += k * m.polar;
    };
    add(areaMoments(p.outer), long);
    for (const h of p.holes) add(areaMoments(h), -long);
  }
  return { volume, centre: [x / volume, y / volume, z / volume], polar };
}
