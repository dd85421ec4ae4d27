import type { Curve } from './curve.ts';
import type { Outline } from './outline.ts';

/**
 * A piece of an exact contour: straight between two points, an arc through three, or a spline through many; pairs x, y
 * in metres.
 */
export interface ExactPiece {
  readonly kind: 'line' | 'arc' | 'spline';
  readonly points: Float64Array;
}

/** A closed contour as pieces head to tail; the pieces are one part of it, turned round the origin `repeat` times. */
export interface ExactContour {
  readonly pieces: readonly ExactPiece[];
  readonly repeat: number;
}

const known = new WeakMap<Outline, () => ExactContour>();

/** Keeps with an outline what it was drawn from, for formats that hold more than lines and arcs. */
export function drawnFrom(outline: Outline, contour: () => ExactContour): Outline {
  known.set(outline, contour);
  return outline;
}

const p = new Float64Array(3);

/** Points of a curve at equal steps, both ends included. */
export function sampled(curve: Curve, steps: number): Float64Array {
  const out = new Float64Array(2 * (steps + 1));
  for (let i = 0; i <= steps; i++) {
    curve(i / steps, p);
    out[2 * i] = p[0]!;
    out[2 * i + 1] = p[1]!;
  }
  return out;
}

/** A closed outline exactly: as it was drawn where that was kept, otherwise its own lines and arcs, which are exact. */
export function exactContour(o: Outline): ExactContour {
  const kept = known.get(o);
  if (kept) return kept();
  const q = o.points;
  const n = q.length / 3;
  const pieces: ExactPiece[] = [];
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [x1, y1, b, x2, y2] = [q[3 * i]!, q[3 * i + 1]!, q[3 * i + 2]!, q[3 * j]!, q[3 * j + 1]!];
    if (Math.hypot(x2 - x1, y2 - y1) < 1e-9) continue;
    // The middle of an arc lies off the chord's middle by bulge times half the chord, to the right for a positive
    // bulge.
    pieces.push(
      Math.abs(b) < 1e-9
        ? { kind: 'line', points: Float64Array.of(x1, y1, x2, y2) }
        : {
            kind: 'arc',
            points: Float64Array.of(
              x1,
              y1,
              (x1 + x2) / 2 + (b * (y2 - y1)) / 2,
              (y1 + y2) / 2 - (b * (x2 - x1)) / 2,
              x2,
              y2,
            ),
          },
    );
  }
  return { pieces, repeat: 1 };
}
