import type { Outline } from './outline.ts';

/** A circle that most of an outline lies on. */
export interface RoundOf {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** Share of a full turn that must lie on one circle: a flat or a keyway leaves more, teeth less. */
const MOST = 0.6;
const ALIKE = 1e-7;

/**
 * The circle that an outline is round by: whole circles, and bores with a flat or a keyway; undefined for teeth and
 * straight pieces.
 *
 * @example roundOf(circle(0.01, 0, 0.004)).r // 0.004
 */
export function roundOf({ points, closed }: Outline): RoundOf | undefined {
  if (!closed) return undefined;
  const n = points.length / 3;
  const found: { x: number; y: number; r: number; sweep: number }[] = [];
  for (let i = 0; i < n; i++) {
    const b = points[3 * i + 2]!;
    if (b === 0) continue;
    const j = (i + 1) % n;
    const [x1, y1, x2, y2] = [points[3 * i]!, points[3 * i + 1]!, points[3 * j]!, points[3 * j + 1]!];
    const chord = Math.hypot(x2 - x1, y2 - y1);
    if (!(chord > 0)) continue;
    const sweep = 4 * Math.atan(b);
    const r = chord / (2 * Math.sin(Math.abs(sweep) / 2));
    // From the middle of the chord to the centre, to the left for arcs that turn left.
    const h = (chord / 2) * ((1 - b * b) / (2 * b));
    const x = (x1 + x2) / 2 - (h * (y2 - y1)) / chord;
    const y = (y1 + y2) / 2 + (h * (x2 - x1)) / chord;
    const had = found.find((f) => Math.hypot(f.x - x, f.y - y) < ALIKE && Math.abs(f.r - r) < ALIKE);
    if (had) had.sweep += Math.abs(sweep);
    else if (found.length < 12) found.push({ x, y, r, sweep: Math.abs(sweep) });
  }
  const most = found.sort((a, b) => b.sweep - a.sweep)[0];
  return most && most.sweep > MOST * 2 * Math.PI ? { x: most.x, y: most.y, r: most.r } : undefined;
}
