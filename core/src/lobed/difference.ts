import type { Curve } from '../shape/curve.ts';
import type { Outline } from '../shape/outline.ts';
import { contactSet, discPlay, type ContactSet, type LobedPair } from './contacts.ts';
import { discOutline, lobeCurve, offPath, type Cycloid } from './cycloid.ts';
import { lobedOutline } from './lobes.ts';

/**
 * A ring of Z pins with a disc of Z − 2 lobes is two discs of Z/2 − 1 lobes in one, each for every second pin and
 * turned half a lobe against the other; what both leave is the disc. Its lobes are cut off where the two curves cross,
 * so
 * only some pins touch; the others have no gap (Infinity).
 *
 * Source: the conjugate of pins that advance by two lobes a turn has two overlapping branches; the inner envelope is
 * what can be made. `profile.pins` is the number of pins of one branch, Z/2.
 */
const HELD_OFF = Infinity;

/** Whether a contact of one branch lies on the disc: inside the other branch. */
function stands(c: Cycloid, x: number, y: number, turn: number): boolean {
  const [cs, sn] = [Math.cos(turn), Math.sin(turn)];
  const [u, v] = [cs * x + sn * y, -sn * x + cs * y];
  return offPath(c, u, v, Math.atan2(v, u)) + c.pin <= 1e-9;
}

/**
 * All pins of a ring at a crank angle, for a disc of one lobe less or of two; pins that meet a lobe where it is cut off
 * stand clear.
 */
export function ringContacts(pair: LobedPair, difference: number, crank: number): ContactSet {
  if (difference === 1) return contactSet(pair, crank);
  const { profile: c } = pair;
  const n = c.pins;
  const Z = 2 * n;
  const shift = (2 * Math.PI) / Z;
  const make = () => new Float64Array(Z);
  const out = { gaps: make(), arms: make(), nx: make(), ny: make(), slides: make(), curves: make() };
  const [ox, oy] = [c.throw * Math.cos(crank), c.throw * Math.sin(crank)];
  const turnOf = (branch: number) => -crank / (n - 1) + (branch * shift * n) / (n - 1);
  for (const branch of [0, 1]) {
    const set = contactSet(pair, crank - branch * shift);
    const [cs, sn] = [Math.cos(branch * shift), Math.sin(branch * shift)];
    for (let j = 0; j < n; j++) {
      const i = 2 * j + branch;
      const a = i * shift;
      const [nx, ny] = [cs * set.nx[j]! - sn * set.ny[j]!, sn * set.nx[j]! + cs * set.ny[j]!];
      const [x, y] = [pair.circle * Math.cos(a) + c.pin * nx - ox, pair.circle * Math.sin(a) + c.pin * ny - oy];
      out.nx[i] = nx;
      out.ny[i] = ny;
      out.arms[i] = set.arms[j]!;
      out.slides[i] = set.slides[j]!;
      out.curves[i] = set.curves[j]!;
      out.gaps[i] = stands(c, x, y, turnOf(1 - branch)) ? set.gaps[j]! : HELD_OFF;
    }
  }
  return out;
}

/** Whether pins stop the disc both ways. */
export const stopsBothWays = (set: ContactSet): boolean =>
  [-1, 1].every((way) => set.arms.some((arm, i) => way * arm >= 1e-9 && set.gaps[i]! < HELD_OFF));

/**
 * How far the disc can be turned either way, rad. For two lobes' difference by levers, which is right to the second
 * order of the play.
 */
export function ringPlay(pair: LobedPair, difference: number, crank: number, set: ContactSet): [number, number] {
  if (difference === 1) return discPlay(pair, crank, set);
  const ends: [number, number] = [-Infinity, Infinity];
  for (let i = 0; i < set.arms.length; i++) {
    const arm = set.arms[i]!;
    if (set.gaps[i]! >= HELD_OFF || Math.abs(arm) < 1e-9) continue;
    if (arm > 0) ends[1] = Math.min(ends[1], set.gaps[i]! / arm);
    else ends[0] = Math.max(ends[0], set.gaps[i]! / arm);
  }
  return [
    Number.isFinite(ends[0]) ? ends[0] : -Math.PI / set.arms.length,
    Number.isFinite(ends[1]) ? ends[1] : Math.PI / set.arms.length,
  ];
}

const p = new Float64Array(3);

/** The disc's outline, its first hollow on the x axis. */
export function ringDisc(c: Cycloid, difference: number, tolerance = 1e-7): Outline {
  if (difference === 1) return discOutline(c, tolerance);
  const lobes = 2 * (c.pins - 1);
  const curve = lobeCurve(c);
  const pitch = (2 * Math.PI) / (c.pins - 1);
  const want = pitch / 4;
  const angleAt = (u: number) => {
    curve(u, p);
    return Math.atan2(p[1]!, p[0]!);
  };
  // Branches cross a quarter of their lobe from a hollow.
  let [lo, hi] = [0, 0.5];
  for (let k = 0; k < 60; k++) {
    const mid = (lo + hi) / 2;
    if (angleAt(mid) < want) lo = mid;
    else hi = mid;
  }
  const half = (lo + hi) / 2;
  const hollow: Curve = (u, out) => {
    const at = half * (2 * u - 1);
    curve(Math.abs(at), out);
    if (at < 0) {
      out[1] = -out[1]!;
      out[2] = Math.PI - out[2]!;
    }
  };
  return lobedOutline(hollow, lobes, tolerance);
}

/** Height of what the crossing takes off each lobe, m. */
export function cutOff(c: Cycloid, difference: number): number {
  if (difference === 1) return 0;
  const curve = lobeCurve(c);
  curve(0.5, p);
  const whole = Math.hypot(p[0]!, p[1]!);
  const o = ringDisc(c, 2, 1e-6).points;
  let most = 0;
  for (let i = 0; i < o.length; i += 3) most = Math.max(most, Math.hypot(o[i]!, o[i + 1]!));
  return whole - most;
}
