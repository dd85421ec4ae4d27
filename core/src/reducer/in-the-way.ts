import type { Round } from '../shape/hull.ts';
import { place, type Outline } from '../shape/outline.ts';
import type { Prism } from '../shape/solid.ts';
import type { Body } from './body.ts';
import { insideOf } from './cut-line.ts';
import type { Frame } from './frame.ts';
import { radiiOf } from './reach.ts';

/** Holes of a prism, and what is cut through all of it afterwards. */
const openedIn = (b: Body, p: Prism): Outline[] => [
  ...p.holes,
  ...b.solid().prisms.flatMap((c) => (c.cut && c.from <= p.from + 1e-9 && c.to >= p.to - 1e-9 ? [c.outer] : [])),
];

/** Whether an outline goes round a circle without touching it. */
const holds = (o: Outline, x: number, y: number, r: number): boolean =>
  insideOf(o, x, y) && radiiOf(place(o, { x: -x, y: -y, turn: 0 })).least >= r - 1e-9;

/** Where an axis along the line's stands in the frame of a piece that stands along it too, m. */
const seenFrom = ({ at, x: ex, y: ey }: Frame, x: number, y: number): readonly [number, number] => {
  const [dx, dy] = [x - at[0], y - at[1]];
  return [ex[0] * dx + ex[1] * dy, ey[0] * dx + ey[1] * dy];
};

/** Angles of the crank at which it is asked whether an opening stays round a shaft that the piece goes about. */
const TURNS = [0, 0.9, 1.7, 2.9, 4.4] as const;

/**
 * Where a shaft along the line's axis, coming from below, meets what is in its way, m; Infinity where nothing is. What flexes
 * and what lies across are left aside; what goes about the shaft leaves it free by an opening that stays round it.
 *
 * @param bodies that do not turn with it
 * @param shaft its axis and its radius, m
 * @param beyond from where on it is looked, m
 */
export function inTheWay(bodies: readonly Body[], { x, y, r }: Round, beyond = -Infinity): number {
  let least = Infinity;
  for (const b of bodies) {
    if (b.flexes) continue;
    const turned = TURNS.map((crank) => b.places(crank));
    turned[0]!.forEach((f, i) => {
      if (f.z[2] < 0.5) return;
      const off = Math.hypot(f.at[0] - x, f.at[1] - y);
      for (const p of b.solid().prisms) {
        const from = f.at[2] + p.from;
        if (p.cut || from >= least || from < beyond - 1e-9) continue;
        const { most } = radiiOf(p.outer);
        const beside = off > 1e-6 && !b.id.startsWith('case/');
        if (beside ? off - most >= r - 1e-9 : most < off) continue;
        const open = openedIn(b, p);
        const clear = turned.every((places) => open.some((h) => holds(h, ...seenFrom(places[i]!, x, y), r)));
        // What is beside its axis sweeps all that its outline comes near to.
        if (!clear && (beside || insideOf(p.outer, ...seenFrom(f, x, y)))) least = from;
      }
    });
  }
  return least;
}

/**
 * Where such a shaft meets what turns about an axis across its own, m: a cylinder by how far each of its prisms reaches.
 *
 * @param bodies told so that the shaft's axis is z
 */
export function acrossTheWay(bodies: readonly Body[], { x, y, r }: Round): number {
  let least = Infinity;
  for (const b of bodies)
    for (const f of b.places(0)) {
      const lies = Math.hypot(f.z[0], f.z[1]);
      if (lies < 0.5) continue;
      const [ux, uy] = [f.z[0] / lies, f.z[1] / lies];
      const [dx, dy] = [x - f.at[0], y - f.at[1]];
      // How far along the body's axis the shaft passes it, and how far beside it.
      const [along, off] = [ux * dx + uy * dy, Math.abs(ux * dy - uy * dx)];
      for (const p of b.solid().prisms) {
        const { most } = radiiOf(p.outer);
        if (p.cut || along < p.from - r || along > p.to + r || off >= most + r) continue;
        least = Math.min(least, f.at[2] - Math.sqrt(most ** 2 - Math.max(0, off - r) ** 2));
      }
    }
  return least;
}
