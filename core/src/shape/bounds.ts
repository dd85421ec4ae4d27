import type { Outline, Pose } from './outline.ts';

export interface Bounds {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/**
 * Bounds of placed outlines; an arc counts with the circle it bows out by, so they may be a little wide, never narrow.
 */
export function boundsOf(items: readonly { readonly outline: Outline; readonly at: Pose }[]): Bounds | undefined {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { outline, at } of items) {
    const p = outline.points;
    const c = Math.cos(at.turn);
    const s = Math.sin(at.turn);
    for (let i = 0; i < p.length; i += 3) {
      const j = (i + 3) % p.length;
      const bulge = Math.abs(p[i + 2]!);
      const bow = bulge === 0 ? 0 : (bulge * Math.hypot(p[j]! - p[i]!, p[j + 1]! - p[i + 1]!)) / 2;
      // The bow stands on the chord's middle, so it is measured from there.
      const mx = bow === 0 ? p[i]! : (p[i]! + p[j]!) / 2;
      const my = bow === 0 ? p[i + 1]! : (p[i + 1]! + p[j + 1]!) / 2;
      for (const [x, y, r] of [
        [p[i]!, p[i + 1]!, 0],
        [mx, my, bow],
      ] as const) {
        const gx = at.x + c * x - s * y;
        const gy = at.y + s * x + c * y;
        x0 = Math.min(x0, gx - r);
        x1 = Math.max(x1, gx + r);
        y0 = Math.min(y0, gy - r);
        y1 = Math.max(y1, gy + r);
      }
    }
  }
  return x0 <= x1 ? { x0, y0, x1, y1 } : undefined;
}
