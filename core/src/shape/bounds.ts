import type { Outline, Pose } from './outline.ts';

export interface Bounds {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** A bulge flatter than this bows out by less than a number can tell. */
const STRAIGHT = 1e-14;

/** The ways in which something may stick out. */
const WAYS = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;

/**
 * Exact bounds of placed outlines: their corners, and where an arc turns back between its ends.
 *
 * An arc of bulge b over a chord lies to the right of it for b above zero; what its circle reaches farthest in a way
 * belongs to the arc where it lies on that side.
 *
 * @returns undefined where there is nothing
 */
export function boundsOf(items: readonly { readonly outline: Outline; readonly at: Pose }[]): Bounds | undefined {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  const take = (x: number, y: number) => {
    x0 = Math.min(x0, x);
    x1 = Math.max(x1, x);
    y0 = Math.min(y0, y);
    y1 = Math.max(y1, y);
  };
  for (const { outline, at } of items) {
    const p = outline.points;
    const c = Math.cos(at.turn);
    const s = Math.sin(at.turn);
    for (let i = 0; i < p.length; i += 3) {
      const ax = at.x + c * p[i]! - s * p[i + 1]!;
      const ay = at.y + s * p[i]! + c * p[i + 1]!;
      take(ax, ay);
      const b = p[i + 2]!;
      if (Math.abs(b) < STRAIGHT) continue;
      const j = (i + 3) % p.length;
      const dx = at.x + c * p[j]! - s * p[j + 1]! - ax;
      const dy = at.y + s * p[j]! + c * p[j + 1]! - ay;
      const chord = Math.sqrt(dx * dx + dy * dy);
      if (chord === 0) continue;
      const r = (chord * (1 + b * b)) / (4 * Math.abs(b));
      const h = (1 - b * b) / (4 * b);
      const [mx, my] = [ax + dx / 2 - dy * h, ay + dy / 2 + dx * h];
      for (const [ux, uy] of WAYS) {
        const [x, y] = [mx + r * ux, my + r * uy];
        if ((dx * (y - ay) - dy * (x - ax)) * b < 0) take(x, y);
      }
    }
  }
  return x0 <= x1 ? { x0, y0, x1, y1 } : undefined;
}
