import { seeded } from '../math/random.ts';
import type { LobedPair } from './contacts.ts';
import { ringContacts } from './difference.ts';

/** Crank angles of a turn at which errors are read. */
const ANGLES = 72;

/**
 * Transmission error of made discs and rings, end to end over a turn of the crank, rad: likely, and the quantiles 2.5
 * and 97.5 % over specimens.
 */
export interface SampledError {
  readonly likely: number;
  readonly low: number;
  readonly high: number;
}

/**
 * Where pins can stop a disc over a turn of the crank: for every angle those with lever enough, as flat arrays. The gap
 * over the lever, and what an error of place along x and y and one of the lobe add to it, all per metre of lever.
 */
export interface StopContacts {
  /** Pins of the ring. */
  readonly pins: number;
  /** Where each angle's entries begin; one more than there are angles. */
  readonly from: Int32Array;
  readonly pin: Int32Array;
  readonly gap: Float64Array;
  readonly alongX: Float64Array;
  readonly alongY: Float64Array;
  readonly lobe: Float64Array;
}

/**
 * Contacts of a pair over a turn. A contact without a lever turns nothing; where only short levers stand, the longest
 * of them counts.
 *
 * @param difference lobes that the disc has less than the ring has pins
 */
export function stopContacts(pair: LobedPair, difference = 1): StopContacts {
  const Z = pair.profile.pins * difference;
  const make = () => new Float64Array(Z * ANGLES);
  const [gap, alongX, alongY, lobe] = [make(), make(), make(), make()];
  const pin = new Int32Array(Z * ANGLES);
  const from = new Int32Array(ANGLES + 1);
  let n = 0;
  for (let k = 0; k < ANGLES; k++) {
    const s = ringContacts(pair, difference, (2 * Math.PI * k) / ANGLES);
    let longest = 0;
    for (let j = 0; j < Z; j++) if (s.gaps[j] !== Infinity && s.arms[j]! > longest) longest = s.arms[j]!;
    const least = Math.min(0.15 * pair.profile.throw * pair.profile.pins, longest);
    for (let j = 0; j < Z; j++) {
      const arm = s.arms[j]!;
      if (arm < least || arm <= 0 || s.gaps[j] === Infinity) continue;
      pin[n] = j;
      gap[n] = s.gaps[j]! / arm;
      alongX[n] = s.nx[j]! / arm;
      alongY[n] = s.ny[j]! / arm;
      lobe[n] = 1 / arm;
      n++;
    }
    from[k + 1] = n;
  }
  return { pins: Z, from, pin, gap, alongX, alongY, lobe };
}

/**
 * How far a disc that is driven one way runs ahead and behind over a turn of the crank, for rings whose pins are off
 * their places and lobes that are off their profile, by sampling.
 *
 * @param place half the range of a pin's place, m, either way in the plane
 * @param profile half the range of a lobe's flank, m
 * @param draws specimens; the same seed gives the same answer
 * Source: first pin to touch, gap over lever, each gap moved by its pin's error along the contact's normal and by its
 * lobe's error; Monte Carlo (JCGM 101).
 */
export function sampledError(c: StopContacts, place: number, profile: number, draws = 120, seed = 1): SampledError {
  const next = seeded(seed);
  const found = new Float64Array(draws);
  const [dx, dy, off] = [new Float64Array(c.pins), new Float64Array(c.pins), new Float64Array(c.pins)];
  for (let d = 0; d < draws; d++) {
    for (let j = 0; j < c.pins; j++) {
      dx[j] = place * (2 * next() - 1);
      dy[j] = place * (2 * next() - 1);
      off[j] = profile * (2 * next() - 1);
    }
    found[d] = errorOf(c, dx, dy, off);
  }
  found.sort();
  return {
    likely: found[draws >> 1]!,
    low: found[Math.floor(draws * 0.025)]!,
    high: found[Math.min(draws - 1, Math.floor(draws * 0.975))]!,
  };
}

/** Error of one specimen from end to end: how far the angle at which its first pin stops it wanders over a turn. */
function errorOf(c: StopContacts, dx: Float64Array, dy: Float64Array, off: Float64Array): number {
  const { from, pin, gap, alongX, alongY, lobe } = c;
  let low = Infinity;
  let high = -Infinity;
  for (let k = 0; k < ANGLES; k++) {
    let turn = Infinity;
    for (let i = from[k]!; i < from[k + 1]!; i++) {
      const j = pin[i]!;
      const at = gap[i]! - dx[j]! * alongX[i]! - dy[j]! * alongY[i]! + off[j]! * lobe[i]!;
      if (at < turn) turn = at;
    }
    if (turn === Infinity) continue;
    if (turn < low) low = turn;
    if (turn > high) high = turn;
  }
  return Math.max(0, high - low);
}
