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

/** How far a point is off an arc, m: by its middle and radius, or by its chord where it is straight. */
interface Arc {
  straight: boolean;
  /** Middle of the arc, or where its chord begins. */
  x: number;
  y: number;
  /** Radius, or nothing. */
  radius: number;
  /** Direction of a chord. */
  alongX: number;
  alongY: number;
}

const arc: Arc = { straight: false, x: 0, y: 0, radius: 0, alongX: 0, alongY: 0 };

/**
 * Sets the arc between two points.
 * @param bulge tangent of a quarter of its turn
 */
function setArc(x0: number, y0: number, x1: number, y1: number, bulge: number): void {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const chord = Math.sqrt(dx * dx + dy * dy);
  arc.straight = Math.abs(bulge) < 2.5e-10;
  if (arc.straight) {
    arc.x = x0;
    arc.y = y0;
    arc.alongX = chord === 0 ? 0 : dx / chord;
    arc.alongY = chord === 0 ? 0 : dy / chord;
    return;
  }
  const k = (1 / bulge - bulge) / 4;
  arc.x = (x0 + x1) / 2 - k * dy;
  arc.y = (y0 + y1) / 2 + k * dx;
  // Chord over twice the sine of half the turn, by its bulge.
  arc.radius = (chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
}

/** Distance of a point from the arc that was set, m. */
function offArc(x: number, y: number): number {
  const dx = x - arc.x;
  const dy = y - arc.y;
  if (arc.straight) return Math.abs(dx * arc.alongY - dy * arc.alongX);
  return Math.abs(Math.sqrt(dx * dx + dy * dy) - arc.radius);
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
    const bulge = Math.tan(turn / 4);
    const um = (u0 + u1) / 2;
    curve(um, tmp);
    const xm = tmp[0]!;
    const ym = tmp[1]!;
    const hm = tmp[2]!;
    let near = Math.abs(turn) <= 2;
    if (near) {
      // A point in the middle and one on either side of it.
      setArc(x0, y0, x1, y1, bulge);
      near = offArc(xm, ym) <= tolerance;
      for (let k = 1; k <= 3 && near; k += 2) {
        curve(u0 + ((u1 - u0) * k) / 4, tmp);
        near = offArc(tmp[0]!, tmp[1]!) <= tolerance;
      }
    }
    // A piece shorter than the tolerance cannot be off by more.
    if (near || depth >= DEEPEST || Math.abs(x1 - x0) + Math.abs(y1 - y0) < tolerance) {
      pen.to(x0, y0, bulge);
      return;
    }
    step(u0, x0, y0, h0, um, xm, ym, hm, depth + 1);
    step(um, xm, ym, hm, u1, x1, y1, h1, depth + 1);
  };
  curve(0, tmp);
  const x0 = tmp[0]!;
  const y0 = tmp[1]!;
  const h0 = tmp[2]!;
  curve(1, tmp);
  if (Math.hypot(tmp[0]! - x0, tmp[1]! - y0) > 1e-12) step(0, x0, y0, h0, 1, tmp[0]!, tmp[1]!, tmp[2]!, 0);
}
