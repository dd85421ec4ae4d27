import type { Outline } from './outline.ts';

/** A half-plane by the way that it lies and how far on it begins, m: the points with nx·x + ny·y ≥ from. */
export interface HalfPlane {
  /** A unit vector. */
  readonly nx: number;
  readonly ny: number;
  readonly from: number;
}

type Point = readonly [number, number];

/** A piece of an outline: from one point to another, with a quarter of its angle as a tangent. */
interface Piece {
  readonly a: Point;
  readonly b: Point;
  readonly bulge: number;
}

/** Nearer to the edge than this is on it, m; a bulge flatter than the second is none. */
const [ON, FLAT] = [1e-9, 1e-12];

/** Shares of a piece's way at which it crosses a half-plane's edge, in order. */
function crossingsOf({ a, b, bulge }: Piece, { nx, ny, from }: HalfPlane): number[] {
  const [p, q] = [nx * a[0] + ny * a[1] - from, nx * b[0] + ny * b[1] - from];
  if (bulge === 0) return p * q < 0 ? [p / (p - q)] : [];
  const { x, y, r, start, sweep } = circleOf({ a, b, bulge });
  const off = from - (nx * x + ny * y);
  if (Math.abs(off) >= r) return [];
  const way = Math.atan2(ny, nx);
  const half = Math.acos(off / r);
  return [way - half, way + half]
    .map((t) => {
      const turned = (t - start) % (2 * Math.PI);
      const on = sweep > 0 ? (turned + 2 * Math.PI) % (2 * Math.PI) : (turned - 2 * Math.PI) % (2 * Math.PI);
      return on / sweep;
    })
    .filter((t) => t > 0 && t < 1)
    .sort((s, t) => s - t);
}

/** The circle that an arc is of, where on it it begins, and how far it goes, rad. */
function circleOf({ a, b, bulge }: Piece): { x: number; y: number; r: number; start: number; sweep: number } {
  const k = (1 / bulge - bulge) / 4;
  const [x, y] = [(a[0] + b[0]) / 2 - k * (b[1] - a[1]), (a[1] + b[1]) / 2 + k * (b[0] - a[0])];
  return {
    x,
    y,
    r: Math.hypot(a[0] - x, a[1] - y),
    start: Math.atan2(a[1] - y, a[0] - x),
    sweep: 4 * Math.atan(bulge),
  };
}

/** A piece between two shares of its way. */
function part(piece: Piece, from: number, to: number): Piece {
  const { a, b, bulge } = piece;
  if (from <= 0 && to >= 1) return piece;
  if (bulge === 0) {
    const at = (t: number): Point => [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
    return { a: at(from), b: at(to), bulge };
  }
  const { x, y, r, start, sweep } = circleOf(piece);
  const at = (t: number): Point => [x + r * Math.cos(start + t * sweep), y + r * Math.sin(start + t * sweep)];
  return {
    a: from <= 0 ? a : at(from),
    b: to >= 1 ? b : at(to),
    bulge: Math.tan(((to - from) * sweep) / 4),
  };
}

/** A point of a piece half way. */
function middleOf(piece: Piece): Point {
  return part(piece, 0, 0.5).b;
}

/**
 * What of a closed outline lies in a half-plane, its edge straight; arcs stay arcs.
 *
 * @returns an outline without points where nothing does
 * @example area(clipTo(circle(0, 0, 1), { nx: 1, ny: 0, from: 0 })) // 1.5708
 */
export function clipTo(o: Outline, edge: HalfPlane): Outline {
  const p = o.points;
  const n = p.length / 3;
  const kept: Piece[] = [];
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const piece: Piece = {
      a: [p[3 * i]!, p[3 * i + 1]!],
      b: [p[3 * j]!, p[3 * j + 1]!],
      bulge: Math.abs(p[3 * i + 2]!) < FLAT ? 0 : p[3 * i + 2]!,
    };
    const at = [0, ...crossingsOf(piece, edge), 1];
    at.slice(1).forEach((to, k) => {
      const own = part(piece, at[k]!, to);
      const [x, y] = middleOf(own);
      if (edge.nx * x + edge.ny * y >= edge.from - ON) kept.push(own);
    });
  }
  const points = kept.flatMap(({ a, b, bulge }, i) => {
    const next = kept[(i + 1) % kept.length]!.a;
    // Where it went out and comes in again it goes straight along the edge.
    return Math.hypot(next[0] - b[0], next[1] - b[1]) > ON ? [...a, bulge, ...b, 0] : [...a, bulge];
  });
  return { points: Float64Array.from(points), closed: true };
}
