import type { Curve } from '../shape/curve.ts';
import { gearSize, type Gear } from './gear.ts';
import { toothSide } from './profile.ts';
import { rootBetween } from '../math/root.ts';
import { wrap } from '../math/wrap.ts';

/** The tooth as a cantilever, from its true root. Lengths over the normal module. */
export interface RootSection {
  /** Chord of the critical section, height of the force over it, radius of the root there. */
  readonly chord: number;
  readonly height: number;
  readonly radius: number;
  /** Form factor Y_F and stress correction Y_S for force at the tip. */
  readonly form: number;
  readonly stress: number;
}

/** Where a root curve's heading, seen from a tooth's middle line, is at an angle: u between 0 and 1. */
function headingAt(curve: Curve, middle: number, wanted: number, p: Float64Array): number {
  const off = (u: number) => {
    curve(u, p);
    return wrap(p[2]! - middle - wanted);
  };
  const first = off(0);
  // A curve that never reaches the angle has its narrowest section at the end nearer to it.
  const last = off(1);
  if (Math.sign(first) === Math.sign(last)) return Math.abs(first) < Math.abs(last) ? 0 : 1;
  return rootBetween(off, 0, 1);
}

/**
 * Root section of a tooth for force at its tip: tangents of 30° to the true root outside, 60° in a ring. A helical
 * tooth is taken as that of the virtual spur wheel with z/(cos² β_b·cos β) teeth.
 *
 * Source: ISO 6336-3:2019, clause 6 (Y_F, tip loading as in method C) and clause 7: Y_S = (1.2 + 0.13·L)·q_s^(1/(1.21 +
 * 2.3/L)).
 */
export function rootSection(g: Gear): RootSection {
  const base = gearSize(g).helixBase;
  const flat: Gear = { ...g, teeth: g.teeth / (Math.cos(base) ** 2 * Math.cos(g.helix)), helix: 0 };
  const z = gearSize(flat);
  const side = toothSide(flat);
  const fillet = side.pieces.find((x) => x.kind === 'fillet')!.curve;
  const p = new Float64Array(3);
  const m = g.module;
  const tip = g.ring ? Math.max(z.ra, z.rb) : Math.min(z.ra, side.tipForm);
  const roll = Math.sqrt(Math.max(0, (tip / z.rb) ** 2 - 1));
  // A ring's side runs from its root inwards, so its root is met in reverse, and its tooth stands half a pitch further
  // on.
  const middle = g.ring ? Math.PI / flat.teeth : 0;
  const u = g.ring ? headingAt(fillet, middle, (2 * Math.PI) / 3, p) : headingAt(fillet, middle, (5 * Math.PI) / 6, p);
  fillet(u, p);
  const [x, y] = [p[0]!, p[1]!];
  const angle = Math.atan2(y, x);
  const radius = Math.hypot(x, y);
  const along = radius * Math.cos(angle - middle);
  const chord = (2 * radius * Math.abs(Math.sin(angle - middle))) / m;
  const lean = g.ring ? middle - (z.halfBase - roll) : roll - z.halfBase;
  const force = z.rb / Math.cos(lean);
  const height = Math.max(0.05, Math.abs(g.ring ? along - force : force - along) / m);
  // Curvature from a short piece round the section.
  const d = 1e-4;
  const [ua, ub] = [Math.max(0, u - d), Math.min(1, u + d)];
  fillet(ua, p);
  const [xa, ya, ha] = [p[0]!, p[1]!, p[2]!];
  fillet(ub, p);
  const bend = Math.abs(wrap(p[2]! - ha));
  const rho = Math.max(0.02, bend > 0 ? Math.hypot(p[0]! - xa, p[1]! - ya) / bend / m : 1);
  const L = chord / height;
  const q = Math.min(8, Math.max(1, chord / (2 * rho)));
  return {
    chord,
    height,
    radius: rho,
    form: (6 * height * Math.cos(lean)) / (chord ** 2 * Math.cos(g.pressure)),
    stress: (1.2 + 0.13 * L) * q ** (1 / (1.21 + 2.3 / L)),
  };
}
