import { offPathFrom, type Cycloid } from './cycloid.ts';

/** Built pins against a profile that may be generated with others; metres. */
export interface LobedPair {
  readonly profile: Cycloid;
  /** Circle and radius of the pins as built. */
  readonly circle: number;
  readonly pin: number;
}

/** How the pins stand to the disc at one crank angle; arrays by pin. */
export interface ContactSet {
  /** Gaps with the disc in its middle, m; below 0 where the profile cuts in. */
  readonly gaps: Float64Array;
  /**
   * Lever of each contact's normal about the disc's centre, m: positive where a disc turning counter-clockwise closes
   * the gap.
   */
  readonly arms: Float64Array;
  /** Directions of the pin's push on the disc. */
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  /** Sliding way of each contact per radian of the disc against the ring, m. */
  readonly slides: Float64Array;
  /** Curvature of the profile there, 1/m: positive convex. */
  readonly curves: Float64Array;
}

/**
 * Gap of one pin when the disc has turned a little further than its middle, m: exact.
 *
 * @param crank angle of the eccentric, rad
 * @param further how far the disc is turned on, rad, counter-clockwise
 */
export function pinGap(pair: LobedPair, index: number, crank: number, further = 0): number {
  const { circle, profile: c } = pair;
  const a = (2 * Math.PI * index) / c.pins;
  const x = circle * Math.cos(a) - c.throw * Math.cos(crank);
  const y = circle * Math.sin(a) - c.throw * Math.sin(crank);
  const back = crank / (c.pins - 1) - further;
  const cs = Math.cos(back);
  const sn = Math.sin(back);
  // The pin's place on the path is near a + back, and Z·a is whole turns.
  const cz = Math.cos(c.pins * back);
  const sz = Math.sin(c.pins * back);
  return (
    c.pin - pair.pin + offPathFrom(c, cs * x - sn * y, sn * x + cs * y, Math.cos(a + back), Math.sin(a + back), cz, sz)
  );
}

/**
 * All pins at a crank angle. Source: gearing law; every contact normal passes through the pitch point, Z·e from the
 * ring's centre along the eccentric.
 */
export function contactSet(pair: LobedPair, crank: number): ContactSet {
  const { profile: c } = pair;
  const Z = c.pins;
  const ox = c.throw * Math.cos(crank);
  const oy = c.throw * Math.sin(crank);
  const px = Z * ox;
  const py = Z * oy;
  const make = () => new Float64Array(Z);
  const s = { gaps: make(), arms: make(), nx: make(), ny: make(), slides: make(), curves: make() };
  const { gaps, arms, nx, ny, slides, curves } = s;
  // Seen from the disc all pins are at the same place of their waves: Z·a is whole turns. So they share these.
  const back = crank / (Z - 1);
  const cs = Math.cos(back);
  const sn = Math.sin(back);
  const cz = Math.cos(Z * back);
  const sz = Math.sin(Z * back);
  const eZ = c.throw * Z;
  const [stepX, stepY] = [Math.cos((2 * Math.PI) / Z), Math.sin((2 * Math.PI) / Z)];
  let [ca, sa] = [1, 0];
  for (let j = 0; j < Z; j++) {
    const x = pair.circle * ca;
    const y = pair.circle * sa;
    const far = Math.sqrt((px - x) * (px - x) + (py - y) * (py - y));
    const dirX = (px - x) / far;
    const dirY = (py - y) / far;
    nx[j] = dirX;
    ny[j] = dirY;
    // Turning the disc counter-clockwise moves its flank at the contact by arm·θ against the push, which closes the gap
    // where the push would turn it clockwise.
    arms[j] = -((x - ox) * dirY - (y - oy) * dirX);
    slides[j] = Math.abs(far - pair.pin);
    const u = x - ox;
    const v = y - oy;
    const ct = ca * cs - sa * sn;
    const st = sa * cs + ca * sn;
    gaps[j] = c.pin - pair.pin + offPathFrom(c, cs * u - sn * v, sn * u + cs * v, ct, st, cz, sz);
    // The path's bend there, as `pathRadius` has it.
    const wave = ct * cz + st * sz;
    const speed2 = c.circle * c.circle + eZ * eZ - 2 * c.circle * eZ * wave;
    const cross = c.circle * c.circle + eZ * eZ * Z - c.circle * eZ * (Z + 1) * wave;
    curves[j] = 1 / ((speed2 * Math.sqrt(speed2)) / cross - c.pin);
    const before = ca;
    ca = before * stepX - sa * stepY;
    sa = sa * stepX + before * stepY;
  }
  return s;
}

/**
 * How far the disc can be turned either way with the crank held, rad: least and most, both from its middle. Where pins
 * already bite, the range is empty and its ends cross.
 *
 * Source: first pin to touch either way, by levers, then by Newton's method on the exact gap.
 */
export function discPlay(pair: LobedPair, crank: number, set: ContactSet = contactSet(pair, crank)): [number, number] {
  return [-firstTouch(pair, crank, set, -1), firstTouch(pair, crank, set, 1)];
}

/** Pins that are looked at exactly: the first by levers and its neighbours, the true first being among them. */
const CANDIDATES = 4;

/** How far the disc turns one way until the first pin touches, rad; Infinity where none would. */
function firstTouch(pair: LobedPair, crank: number, set: ContactSet, way: 1 | -1): number {
  const { gaps, arms } = set;
  const first = Array.from(arms.keys())
    .filter((j) => arms[j]! * way > 1e-9)
    .sort((i, j) => gaps[i]! / (arms[i]! * way) - gaps[j]! / (arms[j]! * way));
  let least = Infinity;
  for (const j of first.slice(0, CANDIDATES)) {
    const arm = arms[j]! * way;
    let theta = gaps[j]! / arm;
    for (let n = 0; n < 8; n++) {
      const step = pinGap(pair, j, crank, way * theta) / arm;
      theta += step;
      if (Math.abs(step) < 1e-12) break;
    }
    least = Math.min(least, theta);
  }
  return least;
}

/** Pins under a torque: how far the disc gives way and what each pin pushes. */
export interface Carried {
  /** Turn of the disc from its middle, rad. */
  readonly turn: number;
  /** Push of each pin of each disc, N, disc after disc. */
  readonly forces: Float64Array;
  readonly carrying: number;
  /** Slope of torque over turn there, N·m/rad. */
  readonly stiffness: number;
}

/** Moment of one-sided springs over the turn of the discs, with its slope. */
class Moment {
  /** N·m/rad, at the turn last asked for. */
  slope = 0;

  constructor(
    private readonly sets: readonly ContactSet[],
    private readonly stiffness: number,
  ) {}

  /** N·m at a turn, rad. */
  at(turn: number): number {
    let sum = 0;
    let slope = 0;
    for (const { arms, gaps } of this.sets)
      for (let j = 0; j < arms.length; j++) {
        const arm = arms[j]!;
        const bite = turn * arm - gaps[j]!;
        if (bite > 0) {
          sum += bite * arm;
          slope += arm * arm;
        }
      }
    this.slope = this.stiffness * slope;
    return this.stiffness * sum;
  }
}

/**
 * Contact equilibrium of discs that turn together against their pins: each pin pushes as far as its gap has closed
 * beyond nothing.
 *
 * @param sets one for each disc
 * @param stiffness of one contact, N/m
 * @param torque on the discs, N·m, positive counter-clockwise
 * Source: equilibrium of moments with one-sided springs; the moment rises evenly with the turn, so its root is found by
 * Newton’s steps kept within a bracket.
 */
export function carry(sets: readonly ContactSet[], stiffness: number, torque: number): Carried {
  const Z = sets[0]!.arms.length;
  const moment = new Moment(sets, stiffness);
  let lo = -1e-6;
  let hi = 1e-6;
  while (moment.at(hi) < torque && hi < 10) hi *= 2;
  while (moment.at(lo) > torque && lo > -10) lo *= 2;
  // The moment is made of straight pieces: Newton lands on the root once it is on the right one.
  let turn = (lo + hi) / 2;
  for (let k = 0; k < 100; k++) {
    const off = moment.at(turn) - torque;
    if (Math.abs(off) <= 1e-12 * Math.abs(torque) + 1e-15) break;
    if (off < 0) lo = turn;
    else hi = turn;
    const next = moment.slope > 0 ? turn - off / moment.slope : NaN;
    turn = next > lo && next < hi ? next : (lo + hi) / 2;
  }
  const forces = new Float64Array(Z * sets.length);
  let carrying = 0;
  sets.forEach((s, d) => {
    for (let j = 0; j < Z; j++) {
      const f = stiffness * Math.max(0, turn * s.arms[j]! - s.gaps[j]!);
      forces[d * Z + j] = f;
      if (f > 0) carrying++;
    }
  });
  moment.at(turn);
  return { turn, forces, carrying, stiffness: moment.slope };
}
