import type { Outline } from '../shape/outline.ts';
import type { Prism } from '../shape/solid.ts';

/** Where a straight line lies in an outline: from one place along it to another, m. */
export type Interval = readonly [number, number];

/** How far beside what is asked a line is taken, m. */
const HAIR = 1e-11;
/** Crossings nearer to each other than this are a touch, m. */
const TOUCH = 1e-10;

/**
 * Whether a point of an arc's circle is on the arc: on its side of the chord; a bulge to the right of it for a positive
 * one.
 *
 * @param x and y, the point, from where the chord begins, m
 * @param ex and ey, the chord, m
 */
const onArc = (x: number, y: number, ex: number, ey: number, bulge: number): boolean =>
  bulge > 0 ? ex * y < ey * x : ex * y > ey * x;

/**
 * Places along a line at which it crosses an outline, in order, arcs followed exactly, m.
 *
 * Source: the line x = p + t·d against each piece; a circle about c is met where |p + t·d − c| = r.
 * @param x and y, a point of the line, m
 * @param dx its direction, a unit vector
 */
export function crossings(o: Outline, x: number, y: number, dx: number, dy: number): number[] {
  // A hair beside, no vertex of a part's own symmetry lies on the line.
  const [px, py] = [x - HAIR * dy, y + HAIR * dx];
  const p = o.points;
  const n = p.length / 3;
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    const j = i + 1 < n ? i + 1 : 0;
    const [x1, y1, b, x2, y2] = [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!, p[3 * j]!, p[3 * j + 1]!];
    const [ex, ey] = [x2 - x1, y2 - y1];
    // The side of the line that a vertex lies on decides, so that a crossing through a vertex counts once.
    const crosses = dx * (y1 - py) - dy * (x1 - px) >= 0 !== dx * (y2 - py) - dy * (x2 - px) >= 0;
    if (b === 0) {
      if (!crosses) continue;
      const det = dx * ey - dy * ex;
      out.push(((x1 - px) * ey - (y1 - py) * ex) / det);
      continue;
    }
    const k = (1 / b - b) / 4;
    const [cx, cy] = [x1 + ex / 2 - k * ey, y1 + ey / 2 + k * ex];
    const r = Math.sqrt((x1 - cx) * (x1 - cx) + (y1 - cy) * (y1 - cy));
    const along = (cx - px) * dx + (cy - py) * dy;
    const off = (cx - px) * dy - (cy - py) * dx;
    if (Math.abs(off) >= r) continue;
    const half = Math.sqrt(r * r - off * off);
    const [t1, t2] = [along - half, along + half];
    const on1 = onArc(px + t1 * dx - x1, py + t1 * dy - y1, ex, ey, b);
    const on2 = onArc(px + t2 * dx - x1, py + t2 * dy - y1, ex, ey, b);
    if (crosses && on1 === on2) {
      // An end lies on the line within rounding: take the hit nearest to the chord's own crossing.
      const det = dx * ey - dy * ex;
      const t = ((x1 - px) * ey - (y1 - py) * ex) / det;
      out.push(Math.abs(t1 - t) < Math.abs(t2 - t) ? t1 : t2);
    } else if (crosses) out.push(on1 ? t1 : t2);
    else if (on1 && on2) out.push(t1, t2);
  }
  return out.sort((a, b) => a - b);
}

/** The way of a ray that no outline of ours runs along. */
const RAY = [Math.cos(0.7391), Math.sin(0.7391)] as const;

/** Whether a point lies within an outline: a ray from it crosses it oddly often. */
export const insideOf = (o: Outline, x: number, y: number): boolean =>
  crossings(o, x, y, RAY[0], RAY[1]).filter((t) => t > 0).length % 2 === 1;

/** Where a line lies in the material of a prism: in its outer outline and in none of its holes. */
export function materialAlong(
  prism: Pick<Prism, 'outer' | 'holes'>,
  px: number,
  py: number,
  dx: number,
  dy: number,
): Interval[] {
  // Holes lie within the outline and apart from each other, so that all crossings together alternate.
  const all = [prism.outer, ...prism.holes].flatMap((o) => crossings(o, px, py, dx, dy)).sort((a, b) => a - b);
  const out: Interval[] = [];
  for (let i = 0; i + 1 < all.length; i += 2) if (all[i + 1]! - all[i]! > TOUCH) out.push([all[i]!, all[i + 1]!]);
  return out;
}
