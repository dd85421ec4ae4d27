import type { OutlinePen } from './outline.ts';
import { wrap } from '../math/wrap.ts';

/** A smooth piece of a plane curve run through as u goes from 0 to 1: writes x, y and the heading (rad) into `out`. */
export type Curve = (u: number, out: Float64Array) => void;

/** How deep a piece may be halved: 2^14 arcs is beyond any tolerance that a file can keep. */
const DEEPEST = 14;

/** A circular arc about a point as a curve, with the heading of travel. */
export const arcCurve =
  (cx: number, cy: number, r: number, from: number, sweep: number): Curve =>
  (u, out) => {
    const a = from + sweep * u;
    out[0] = cx + r * Math.cos(a);
    out[1] = cy + r * Math.sin(a);
    out[2] = a + (Math.sign(sweep) * Math.PI) / 2;
  };

export const lineCurve =
  (x0: number, y0: number, x1: number, y1: number): Curve =>
  (u, out) => {
    out[0] = x0 + u * (x1 - x0);
    out[1] = y0 + u * (y1 - y0);
    out[2] = Math.atan2(y1 - y0, x1 - x0);
  };

/** The curve run backwards and mirrored in the x axis: the other half of anything symmetrical about it. */
export const mirrored =
  (c: Curve): Curve =>
  (u, out) => {
    c(1 - u, out);
    out[1] = -out[1]!;
    out[2] = Math.PI - out[2]!;
  };

const tmp = new Float64Array(3);

/** Distance of a point from the arc that turns from heading h0 to h1 between two points, m. */
function offArc(x0: number, y0: number, x1: number, y1: number, turn: number, x: number, y: number): number {
  const chord = Math.hypot(x1 - x0, y1 - y0);
  if (Math.abs(turn) < 1e-9) return chord === 0 ? 0 : Math.abs((x - x0) * (y1 - y0) - (y - y0) * (x1 - x0)) / chord;
  const b = Math.tan(turn / 4);
  const k = (1 / b - b) / 4;
  const cx = (x0 + x1) / 2 - k * (y1 - y0);
  const cy = (y0 + y1) / 2 + k * (x1 - x0);
  return Math.abs(Math.hypot(x - cx, y - cy) - chord / (2 * Math.sin(Math.abs(turn) / 2)));
}

/**
 * Draws a curve as circular arcs that stay within `tolerance` of it, leaving out its last point, so that pieces can be
 * strung together.
 * Each arc turns as far as the curve does between its ends, which is right to the third order of their distance.
 *
 * @param tolerance m
 */
export function fitArcs(curve: Curve, tolerance: number, pen: OutlinePen): void {
  const step = (
    u0: number,
    x0: number,
    y0: number,
    h0: number,
    u1: number,
    x1: number,
    y1: number,
    h1: number,
    depth: number,
  ): void => {
    const turn = wrap(h1 - h0);
    let off = Math.abs(turn) > 2 ? Infinity : 0;
    for (let k = 1; k <= 3 && off <= tolerance; k++) {
      curve(u0 + ((u1 - u0) * k) / 4, tmp);
      off = Math.max(off, offArc(x0, y0, x1, y1, turn, tmp[0]!, tmp[1]!));
    }
    // A piece shorter than the tolerance cannot be off by more.
    if (off <= tolerance || depth >= DEEPEST || Math.abs(x1 - x0) + Math.abs(y1 - y0) < tolerance) {
      pen.to(x0, y0, Math.tan(turn / 4));
      return;
    }
    const um = (u0 + u1) / 2;
    curve(um, tmp);
    const [xm, ym, hm] = [tmp[0]!, tmp[1]!, tmp[2]!];
    step(u0, x0, y0, h0, um, xm, ym, hm, depth + 1);
    step(um, xm, ym, hm, u1, x1, y1, h1, depth + 1);
  };
  curve(0, tmp);
  const [x0, y0, h0] = [tmp[0]!, tmp[1]!, tmp[2]!];
  curve(1, tmp);
  if (Math.hypot(tmp[0]! - x0, tmp[1]! - y0) > 1e-12) step(0, x0, y0, h0, 1, tmp[0]!, tmp[1]!, tmp[2]!, 0);
}
