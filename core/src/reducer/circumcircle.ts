import type { Round } from '../shape/hull.ts';

type Point = readonly [number, number];

/** Points nearer to each other than this are one, m. */
const SAME = 1e-10;

/**
 * The circle through three points, m; a point where all are one.
 *
 * What stands on a circle at three angles tells the whole of it, however little it has gone round.
 * @example circumcircle([1, 0], [0, 1], [-1, 0]) // { x: 0, y: 0, r: 1 }
 */
export function circumcircle(a: Point, b: Point, c: Point): Round {
  const [bx, by, cx, cy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
  if (Math.hypot(bx, by) < SAME && Math.hypot(cx, cy) < SAME) return { x: a[0], y: a[1], r: 0 };
  const d = 2 * (bx * cy - by * cx);
  const [b2, c2] = [bx * bx + by * by, cx * cx + cy * cy];
  const [ux, uy] = [(cy * b2 - by * c2) / d, (bx * c2 - cx * b2) / d];
  return { x: a[0] + ux, y: a[1] + uy, r: Math.hypot(ux, uy) };
}
