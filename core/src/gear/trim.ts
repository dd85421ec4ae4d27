import { gearSize, type Gear } from './gear.ts';
import { meshPair } from './pair.ts';
import { toothSide } from './profile.ts';

/**
 * Radial clearance that trimmed tips keep from the mating root, in modules: what plain basic-rack wheels have is a
 * quarter.
 */
export const CLEAR = 0.15;

/**
 * How far the tips of a pair are to be shortened so that each stays on the other's involute and clear of its root, m.
 *
 * @returns shortening of wheel 1 and 2; zeros where nothing touches or the pair does not mesh
 */
export function trimTips(g1: Gear, g2: Gear, centre?: number): [number, number] {
  const made = meshPair(g1, g2, centre);
  if (!made.ok) return [0, 0];
  const p = made.value;
  const [t1, t2] = [toothSide(g1), toothSide(g2)];
  const line = p.centre * Math.sin(p.working);
  const along = (rb: number, form: number) => Math.sqrt(Math.max(0, form * form - rb * rb));
  const [f1, f2] = [along(p.s1.rb, t1.form), along(p.s2.rb, t2.form)];
  const clear = CLEAR * g1.module;
  // Wheel 1's tip may reach to where wheel 2's involute ends, and no nearer to its root than the clearance; the same
  // the other way.
  const tip1 = Math.min(
    Math.hypot(p.s1.rb, Math.max(0, p.ring ? f2 - line : line - f2)),
    p.ring ? t2.root - p.centre - clear : p.centre - t2.root - clear,
  );
  const reach2 = Math.hypot(p.s2.rb, Math.max(0, p.ring ? f1 + line : line - f1));
  const tip2 = p.ring ? Math.max(reach2, p.centre + t1.root + clear) : Math.min(reach2, p.centre - t1.root - clear);
  // A micrometre in hand, so that arcs drawn to a tenth of one do not touch either.
  const spare = 1e-6;
  const short = (by: number) => (by > 1e-9 ? by + spare : 0);
  return [short(gearSize(g1).ra - tip1), short(p.ring ? tip2 - gearSize(g2).ra : gearSize(g2).ra - tip2)];
}
