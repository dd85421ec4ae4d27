import { stated } from '../units/stated.ts';
import { ok, refuse, type Result } from '../result.ts';
import { gearSize, type Gear, type GearSize } from './gear.ts';
import { inv, inverseInv } from './involute.ts';

/** Two wheels in mesh; the second may be a ring. Metres and radians, transverse section. */
export interface Pair {
  readonly g1: Gear;
  readonly g2: Gear;
  readonly s1: GearSize;
  readonly s2: GearSize;
  readonly ring: boolean;
  /** Working centre distance and pressure angle. */
  readonly centre: number;
  readonly working: number;
  readonly rw1: number;
  readonly rw2: number;
  /** Lengths along the line of action from wheel 1's base tangent point where contact begins and ends. */
  readonly start: number;
  readonly end: number;
  /** The pitch point's, on the same line. */
  readonly pitch: number;
  readonly basePitch: number;
  /** Transverse contact ratio, and its parts before and after the pitch point. */
  readonly contact: number;
  readonly approach: number;
  readonly recess: number;
  /** Circumferential play on the working circle from both allowances, m. */
  readonly play: number;
}

/** +1 outside, −1 in a ring: sums become differences. */
const sign = (ring: boolean): number => (ring ? -1 : 1);

/**
 * Working pressure angle at no play: inv α_wt = inv α_t + 2 tan α·(x1 ± x2)/(z1 ± z2) with a ring's differences taken
 * as ring less pinion.
 *
 * @returns NaN where the shifts ask for less than no angle
 * Source: ISO 21771:2007, 6.3.
 */
export function workingAngle(
  z1: number,
  z2: number,
  x1: number,
  x2: number,
  pressure: number,
  helix: number,
  ring: boolean,
): number {
  const at = Math.atan(Math.tan(pressure) / Math.cos(helix));
  const y = inv(at) + (2 * Math.tan(pressure) * (ring ? x2 - x1 : x1 + x2)) / (ring ? z2 - z1 : z1 + z2);
  return y > 0 ? inverseInv(y) : NaN;
}

/** Centre distance of wheels without shift, m. */
export const plainCentre = (module: number, z1: number, z2: number, helix: number, ring: boolean): number =>
  (module * (ring ? z2 - z1 : z1 + z2)) / (2 * Math.cos(helix));

/**
 * Sum of shifts (ring: x2 − x1) that two wheels need at a centre distance. Source: ISO 21771:2007, 6.3, solved for Σx.
 */
export function shiftSum(
  module: number,
  z1: number,
  z2: number,
  pressure: number,
  helix: number,
  ring: boolean,
  centre: number,
): Result<number> {
  const at = Math.atan(Math.tan(pressure) / Math.cos(helix));
  const n = ring ? z2 - z1 : z1 + z2;
  const cosine = (plainCentre(module, z1, z2, helix, ring) * Math.cos(at)) / centre;
  const least = plainCentre(module, z1, z2, helix, ring) * Math.cos(at);
  if (!(cosine > 0 && cosine < 1))
    return refuse(
      'The wheels cannot run at that centre distance.',
      `Their base circles need more than ${stated(least, 'length', 5)}.`,
      'Take a larger centre distance, fewer teeth or a smaller module.',
      'centre',
    );
  return ok(((inv(Math.acos(cosine)) - inv(at)) * n) / (2 * Math.tan(pressure)));
}

/**
 * Two wheels in mesh, as close as they run without play when their allowances are left out, or at a given centre
 * distance.
 *
 * @returns a problem where a ring is too small for its pinion, base circles do not reach, or module, angles or helix do
 *   not match
 */
export function meshPair(g1: Gear, g2: Gear, at?: number): Result<Pair> {
  const ring = g2.ring;
  if (g1.ring)
    return refuse(
      'A ring cannot drive from inside out.',
      'The first wheel of a pair has outside teeth.',
      'Give the pinion first.',
    );
  if (Math.abs(g1.module - g2.module) > 1e-12)
    return refuse(
      'The modules differ.',
      `${stated(g1.module, 'length', 5)} does not mesh with ${stated(g2.module, 'length', 5)}: their base pitches must be alike.`,
      'Use one module for both.',
      'module',
    );
  if (Math.abs(g1.pressure - g2.pressure) > 1e-12)
    return refuse(
      'The pressure angles differ.',
      'Their base pitches must be alike.',
      'Use one pressure angle for both.',
      'pressure',
    );
  if (ring && g2.teeth <= g1.teeth)
    return refuse(
      `A ring of ${g2.teeth} teeth is smaller than its pinion of ${g1.teeth}.`,
      'The pinion runs inside the ring.',
      `Give the ring more than ${g1.teeth} teeth.`,
      'z2',
    );
  const s1 = gearSize(g1);
  const s2 = gearSize(g2);
  const a0 = plainCentre(g1.module, g1.teeth, g2.teeth, g1.helix, ring);
  let working = workingAngle(g1.teeth, g2.teeth, g1.shift, g2.shift, g1.pressure, g1.helix, ring);
  if (Number.isNaN(working))
    return refuse(
      'The profile shifts bring the wheels too close.',
      `Their ${ring ? 'difference' : 'sum'} asks for less than no pressure angle.`,
      ring ? 'Shift the ring out or the pinion in.' : 'Give a larger shift.',
      'x2',
    );
  let centre = (a0 * Math.cos(s1.at)) / Math.cos(working);
  let opened = 0;
  if (at !== undefined) {
    if (!((a0 * Math.cos(s1.at)) / at < 1))
      return refuse(
        'The wheels cannot run at that centre distance.',
        `Their base circles need more than ${stated(a0 * Math.cos(s1.at), 'length', 5)}.`,
        'Take a larger centre distance.',
        'centre',
      );
    // Play from moving apart: the involutes' base angles against the new working angle, exact (2Δa·tan α for small
    // moves).
    const there = Math.acos((a0 * Math.cos(s1.at)) / at);
    const rw1 = (at * g1.teeth) / (ring ? g2.teeth - g1.teeth : g1.teeth + g2.teeth);
    opened =
      (((inv(there) - inv(working)) * 2 * rw1 * (ring ? g2.teeth - g1.teeth : g1.teeth + g2.teeth)) / g1.teeth) *
      sign(ring);
    [working, centre] = [there, at];
  }
  const n = ring ? g2.teeth - g1.teeth : g1.teeth + g2.teeth;
  const rw1 = (centre * g1.teeth) / n;
  const rw2 = (centre * g2.teeth) / n;
  const pitch = rw1 * Math.sin(working);
  const along = (s: GearSize, radius: number) => Math.sqrt(Math.max(0, radius * radius - s.rb * s.rb));
  const end = along(s1, s1.ra);
  const start = ring ? along(s2, s2.ra) - centre * Math.sin(working) : centre * Math.sin(working) - along(s2, s2.ra);
  const basePitch = Math.PI * s1.mt * Math.cos(s1.at);
  const c = Math.cos(g1.helix);
  // Allowances are told in the normal section on the reference circle; on the working circle they grow with its cosine
  // ratio.
  const play = (((g1.allowance + g2.allowance) / c) * Math.cos(s1.at)) / Math.cos(working) + opened;
  return ok({
    g1,
    g2,
    s1,
    s2,
    ring,
    centre,
    working,
    rw1,
    rw2,
    start,
    end,
    pitch,
    basePitch,
    contact: (end - start) / basePitch,
    approach: (pitch - start) / basePitch,
    recess: (end - pitch) / basePitch,
    play,
  });
}

/** Overlap ratio of a helical pair, b·sin β/(π m_n). Source: ISO 21771. */
export const overlapRatio = (g: Gear, width: number): number =>
  (width * Math.abs(Math.sin(g.helix))) / (Math.PI * g.module);

/**
 * Sliding over rolling at a place of the line of action, on either wheel: ζ1 = 1 − ρ2·z1/(ρ1·z2), ζ2 = 1 −
 * ρ1·z2/(ρ2·z1).
 *
 * @param at length from wheel 1's base tangent point, m
 */
export function specificSliding(p: Pair, at: number): [number, number] {
  const rho1 = at;
  const rho2 = p.ring ? p.centre * Math.sin(p.working) + at : p.centre * Math.sin(p.working) - at;
  const u = p.g2.teeth / p.g1.teeth;
  return [1 - rho2 / (rho1 * u), 1 - (rho1 * u) / rho2];
}

/** Largest specific sliding on either wheel at the ends of contact. */
export function worstSliding(p: Pair): [number, number] {
  const a = specificSliding(p, p.start);
  const b = specificSliding(p, p.end);
  return [Math.max(Math.abs(a[0]), Math.abs(b[0])), Math.max(Math.abs(a[1]), Math.abs(b[1]))];
}

/**
 * How far from the pitch point pairs in contact stand in the mean over a base pitch, in base pitches; pairs share alike.
 * Where none is in contact half a pitch counts.
 *
 * @param before length of contact before the pitch point, base pitches
 * @param after the same behind it
 * @example meanReach(0.8, 0.7) // 0.315
 * @example meanReach(1.25, 0.25) // 0.53125
 */
export function meanReach(before: number, after: number): number {
  // The foremost pair goes from −before on by one pitch, the others stand whole pitches further. Between places where a
  // pair comes or crosses the pitch point everything is straight, so that the middle tells the mean.
  const cuts = [-before, 1 - before];
  for (let k = 0; k <= before + after + 1; k++)
    for (const x of [after - k, -k]) if (x > -before && x < 1 - before) cuts.push(x);
  cuts.sort((a, b) => a - b);
  let mean = 0;
  for (let i = 1; i < cuts.length; i++) {
    const middle = (cuts[i - 1]! + cuts[i]!) / 2;
    let [sum, pairs] = [0, 0];
    for (let s = middle; s <= after; s++) {
      sum += Math.abs(s);
      pairs++;
    }
    mean += (cuts[i]! - cuts[i - 1]!) * (pairs > 0 ? sum / pairs : 0.5);
  }
  return mean;
}

/**
 * Geometric loss factor H_v of a mesh; the loss is µ·H_v.
 *
 * Source: ISO/TR 14179-2 (after Ohlendorf), whose bracket 1 − ε_α + ε1² + ε2² is twice the mean reach while one or two
 * pairs are in contact and the pitch point lies where one is alone. Beyond that, in most rings, the mean itself is taken.
 */
export function lossFactor(p: Pair): number {
  const teeth = 1 / p.g1.teeth + sign(p.ring) / p.g2.teeth;
  return ((Math.PI * teeth) / Math.cos(p.s1.helixBase)) * 2 * meanReach(p.approach, p.recess);
}

/** How a shift sum can be shared between two wheels. */
export type ShiftSplit = 'sliding' | 'undercut' | 'even';

/**
 * Shares a shift sum: so that both wheels slide alike at their roots, so that the pinion just escapes undercut, or in
 * halves.
 * For a ring the sum is x2 − x1, and the pinion's share is solved the same way.
 *
 * @param make builds the pair's wheels from their shifts
 */
export function splitShift(
  sum: number,
  ring: boolean,
  way: ShiftSplit,
  least: number,
  make: (x1: number, x2: number) => Result<Pair>,
): [number, number] {
  const other = (x1: number) => (ring ? sum + x1 : sum - x1);
  if (way === 'even') return ring ? [-sum / 2, sum / 2] : [sum / 2, sum / 2];
  if (way === 'undercut') {
    const x1 = Math.max(least, ring ? 0 : sum / 2);
    return [x1, other(x1)];
  }
  const unlike = (x1: number) => {
    const made = make(x1, other(x1));
    if (!made.ok) return NaN;
    const p = made.value;
    if (p.start <= 0) return -Infinity;
    return -Math.abs(specificSliding(p, p.start)[0]) + Math.abs(specificSliding(p, p.end)[1]);
  };
  let [lo, hi] = [Math.max(-0.6, least - 0.5), 1.2];
  for (let k = 0; k < 50; k++) {
    const mid = (lo + hi) / 2;
    const f = unlike(mid);
    if (Number.isNaN(f) || f > 0) hi = mid;
    else lo = mid;
  }
  const x1 = (lo + hi) / 2;
  return [x1, other(x1)];
}
