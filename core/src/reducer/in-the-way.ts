import type { Round } from '../shape/hull.ts';
import { place, type Outline } from '../shape/outline.ts';
import type { Prism } from '../shape/solid.ts';
import type { Body } from './body.ts';
import { insideOf } from './cut-line.ts';
import { radiiOf } from './reach.ts';

/** Holes of a prism, and what is cut through all of it afterwards. */
const openedIn = (b: Body, p: Prism): Outline[] => [
  ...p.holes,
  ...b.solid().prisms.flatMap((c) => (c.cut && c.from <= p.from + 1e-9 && c.to >= p.to - 1e-9 ? [c.outer] : [])),
];

/** Whether an outline goes round a circle without touching it. */
const holds = (o: Outline, x: number, y: number, r: number): boolean =>
  insideOf(o, x, y) && radiiOf(place(o, { x: -x, y: -y, turn: 0 })).least >= r - 1e-9;

/**
 * Where a shaft along the line's axis, coming from below, meets what is in its way, m; Infinity where nothing is. What flexes
 * and what lies across are left aside.
 *
 * @param bodies that do not turn with it
 * @param shaft its axis and its radius, m
 * @param beyond from where on it is looked, m
 */
export function inTheWay(bodies: readonly Body[], { x, y, r }: Round, beyond = -Infinity): number {
  let least = Infinity;
  for (const b of bodies) {
    if (b.flexes) continue;
    for (const f of b.places(0)) {
      if (f.z[2] < 0.5) continue;
      const off = Math.hypot(f.at[0] - x, f.at[1] - y);
      for (const p of b.solid().prisms) {
        const from = f.at[2] + p.from;
        if (p.cut || from >= least || from < beyond - 1e-9) continue;
        const { most } = radiiOf(p.outer);
        // What goes round the shaft leaves its passage free, or does not.
        if (off > 1e-6 && !b.id.startsWith('case/')) {
          if (off - most < r - 1e-9) least = from;
          continue;
        }
        if (most < off) continue;
        const local = { x: x - f.at[0], y: y - f.at[1] };
        const clear = openedIn(b, p).some((h) => holds(h, local.x, local.y, r));
        if (!clear && insideOf(p.outer, local.x, local.y)) least = from;
      }
    }
  }
  return least;
}
