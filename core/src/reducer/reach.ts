import { circumcircle } from './circumcircle.ts';
import type { Outline } from '../shape/outline.ts';
import type { Round } from '../shape/hull.ts';
import type { Solid } from '../shape/solid.ts';
import type { Frame } from './frame.ts';

/** Where an outline lies from its own origin: the farthest and the nearest point of it, m. */
export interface Radii {
  readonly most: number;
  readonly least: number;
}

const TURN = 2 * Math.PI;

/** Whether an arc that begins at an angle and sweeps another, signed, passes a third, rad. */
const passes = (start: number, sweep: number, angle: number): boolean => {
  const off = (sweep < 0 ? start - angle : angle - start) % TURN;
  return (off < 0 ? off + TURN : off) <= Math.abs(sweep);
};

/**
 * Farthest and nearest distance of an outline from the origin, arcs followed exactly, m.
 *
 * Source: a circle about c of radius r lies farthest at |c| + r and nearest at ||c| − r|, where those points are on the
 * arc; else an end does.
 */
export function radiiOf(o: Outline): Radii {
  const p = o.points;
  const n = p.length / 3;
  let [most, least] = [0, Infinity];
  for (let i = 0; i < n; i++) {
    const j = i + 1 < n ? i + 1 : 0;
    const [x1, y1, b, x2, y2] = [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!, p[3 * j]!, p[3 * j + 1]!];
    const end = Math.sqrt(x1 * x1 + y1 * y1);
    if (end > most) most = end;
    if (end < least) least = end;
    const [dx, dy] = [x2 - x1, y2 - y1];
    if (dx === 0 && dy === 0) continue;
    if (b === 0) {
      // Where the foot of the perpendicular lies between the ends, it is nearer than either.
      const t = -(x1 * dx + y1 * dy) / (dx * dx + dy * dy);
      if (t > 0 && t < 1) least = Math.min(least, Math.hypot(x1 + t * dx, y1 + t * dy));
      continue;
    }
    const k = (1 / b - b) / 4;
    const [cx, cy] = [(x1 + x2) / 2 - k * dy, (y1 + y2) / 2 + k * dx];
    const r = Math.sqrt((x1 - cx) * (x1 - cx) + (y1 - cy) * (y1 - cy));
    const far = Math.sqrt(cx * cx + cy * cy);
    // About the origin itself every point is as far.
    const about = far < 1e-12;
    // Neither can be beyond what is known: the arc is not looked at more closely.
    if (!about && far + r <= most && Math.abs(far - r) >= least) continue;
    const start = Math.atan2(y1 - cy, x1 - cx);
    const sweep = 4 * Math.atan(b);
    const out = Math.atan2(cy, cx);
    if (about || passes(start, sweep, out)) most = Math.max(most, far + r);
    if (about || passes(start, sweep, out + Math.PI)) least = Math.min(least, Math.abs(far - r));
  }
  return { most, least: Number.isFinite(least) ? least : 0 };
}

/** Where a body lies along its own axis, m. */
export function alongOf(solid: Solid): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const p of solid.prisms) {
    if (p.cut) continue;
    low = Math.min(low, p.from);
    high = Math.max(high, p.to);
  }
  return [low, high];
}

/** Farthest reach of a body from its own axis, m. */
export const reachOf = (solid: Solid): number =>
  solid.prisms.reduce((most, p) => (p.cut ? most : Math.max(most, radiiOf(p.outer).most)), 0);

/** Circles that hold an outline: of its arcs that bow out, and of its corners. */
export function roundsOf(o: Outline): Round[] {
  const p = o.points;
  const n = p.length / 3;
  const out: Round[] = [];
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [x1, y1, b] = [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
    const [dx, dy] = [p[3 * j]! - x1, p[3 * j + 1]! - y1];
    out.push({ x: x1, y: y1, r: 0 });
    if (!(b > 0) || Math.hypot(dx, dy) === 0) continue;
    const k = (1 / b - b) / 4;
    const [cx, cy] = [x1 + dx / 2 - k * dy, y1 + dy / 2 + k * dx];
    out.push({ x: cx, y: cy, r: Math.hypot(x1 - cx, y1 - cy) });
  }
  return out;
}

/** An outline whose farthest points lie all round is told by its circle; others by the circles of their pieces. */
const ROUND_AT = 24;

/**
 * The circles, in the frame of its stage or line, that a body sweeps as it turns or is carried round; its axis along z.
 *
 * @param places where a piece of it stands at three angles of the crank
 */
export function sweptRounds(solid: Solid, places: readonly [Frame, Frame, Frame]): Round[] {
  const [a, b, c] = places;
  const carried = circumcircle([a.at[0], a.at[1]], [b.at[0], b.at[1]], [c.at[0], c.at[1]]);
  const spins = Math.abs(a.x[0] - b.x[0]) + Math.abs(a.x[1] - b.x[1]) > 1e-9;
  const own = solid.prisms.filter((p) => !p.cut);
  const many = own.some((p) => p.outer.points.length / 3 > ROUND_AT);
  if (spins || many) return [{ x: carried.x, y: carried.y, r: carried.r + reachOf(solid) }];
  return own.flatMap((p) =>
    roundsOf(p.outer).map(({ x, y, r }): Round => ({
      x: carried.x + a.x[0] * x + a.y[0] * y,
      y: carried.y + a.x[1] * x + a.y[1] * y,
      r: r + carried.r,
    })),
  );
}
