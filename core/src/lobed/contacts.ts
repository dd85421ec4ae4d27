import { offPath, pathRadius, type Cycloid } from './cycloid.ts';

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
  const { profile: c } = pair;
  const Z = c.pins;
  const a = (2 * Math.PI * index) / Z;
  const turn = -crank / (Z - 1) + further;
  const [x, y] = [
    pair.circle * Math.cos(a) - c.throw * Math.cos(crank),
    pair.circle * Math.sin(a) - c.throw * Math.sin(crank),
  ];
  const [cs, sn] = [Math.cos(turn), Math.sin(turn)];
  return c.pin - pair.pin + offPath(c, cs * x + sn * y, -sn * x + cs * y, a + crank / (Z - 1) - further);
}

/**
 * All pins at a crank angle. Source: gearing law; every contact normal passes through the pitch point, Z·e from the
 * ring's centre along the eccentric.
 */
export function contactSet(pair: LobedPair, crank: number): ContactSet {
  const { profile: c } = pair;
  const Z = c.pins;
  const [ox, oy] = [c.throw * Math.cos(crank), c.throw * Math.sin(crank)];
  const [px, py] = [Z * ox, Z * oy];
  const make = () => new Float64Array(Z);
  const s = { gaps: make(), arms: make(), nx: make(), ny: make(), slides: make(), curves: make() };
  for (let j = 0; j < Z; j++) {
    const a = (2 * Math.PI * j) / Z;
    const [x, y] = [pair.circle * Math.cos(a), pair.circle * Math.sin(a)];
    const far = Math.hypot(px - x, py - y);
    const [nx, ny] = [(px - x) / far, (py - y) / far];
    s.nx[j] = nx;
    s.ny[j] = ny;
    // Turning the disc counter-clockwise moves its flank at the contact by arm·θ against the push, which closes the gap
    // where the push would turn it clockwise.
    s.arms[j] = -((x - ox) * ny - (y - oy) * nx);
    s.slides[j] = Math.abs(far - pair.pin);
    s.gaps[j] = pinGap(pair, j, crank);
    const t = a + crank / (Z - 1);
    const path = pathRadius(c, t);
    s.curves[j] = 1 / (path - c.pin);
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
  const ends: [number, number] = [-Infinity, Infinity];
  for (const [k, way] of [
    [0, -1],
    [1, 1],
  ] as const) {
    const rough: [number, number][] = [];
    for (let j = 0; j < set.arms.length; j++) {
      const arm = set.arms[j]! * way;
      if (arm > 1e-9) rough.push([set.gaps[j]! / arm, j]);
    }
    rough.sort((a, b) => a[0] - b[0]);
    let least = Infinity;
    // The first by levers and its neighbours: the true first is among them.
    for (const [guess, j] of rough.slice(0, 4)) {
      let theta = guess;
      for (let n = 0; n < 8; n++) {
        const gap = pinGap(pair, j, crank, way * theta);
        const step = gap / (set.arms[j]! * way);
        theta += step;
        if (Math.abs(step) < 1e-12) break;
      }
      least = Math.min(least, theta);
    }
    ends[k] = way * least;
  }
  return ends;
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
  const moment = (turn: number): [number, number] => {
    let [sum, slope] = [0, 0];
    for (const s of sets)
      for (let j = 0; j < Z; j++) {
        const bite = turn * s.arms[j]! - s.gaps[j]!;
        if (bite > 0) {
          sum += stiffness * bite * s.arms[j]!;
          slope += stiffness * s.arms[j]! ** 2;
        }
      }
    return [sum, slope];
  };
  let [lo, hi] = [-1e-6, 1e-6];
  while (moment(hi)[0] < torque && hi < 10) hi *= 2;
  while (moment(lo)[0] > torque && lo > -10) lo *= 2;
  // The moment is made of straight pieces: Newton lands on the root once it is on the right one.
  let turn = (lo + hi) / 2;
  for (let k = 0; k < 100; k++) {
    const [m, slope] = moment(turn);
    if (Math.abs(m - torque) <= 1e-12 * Math.abs(torque) + 1e-15) break;
    if (m < torque) lo = turn;
    else hi = turn;
    const next = slope > 0 ? turn - (m - torque) / slope : NaN;
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
  return { turn, forces, carrying, stiffness: moment(turn)[1] };
}
