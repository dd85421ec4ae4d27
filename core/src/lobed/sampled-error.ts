import { seeded } from '../line/random.ts';
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

const kept = new WeakMap<LobedPair, { arms: Float64Array; gaps: Float64Array; nx: Float64Array; ny: Float64Array }>();

/** Levers, gaps and normals of every pin at every angle, as flat arrays; kept for a pair. */
function contactsOver(
  pair: LobedPair,
  difference: number,
): { arms: Float64Array; gaps: Float64Array; nx: Float64Array; ny: Float64Array } {
  let made = kept.get(pair);
  if (made) return made;
  const Z = pair.profile.pins * difference;
  const make = () => new Float64Array(Z * ANGLES);
  made = { arms: make(), gaps: make(), nx: make(), ny: make() };
  for (let k = 0; k < ANGLES; k++) {
    const s = ringContacts(pair, difference, (2 * Math.PI * k) / ANGLES);
    made.arms.set(s.arms, k * Z);
    made.gaps.set(s.gaps, k * Z);
    made.nx.set(s.nx, k * Z);
    made.ny.set(s.ny, k * Z);
  }
  kept.set(pair, made);
  return made;
}

/**
 * How far a disc that is driven one way runs ahead and behind over a turn of the crank, for rings whose pins are off
 * their places and lobes that are off their profile, by sampling.
 *
 * @param place half the range of a pin's place, m, either way in the plane
 * @param profile half the range of a lobe's flank, m
 * @param difference lobes that the disc has less than the ring has pins
 * @param draws specimens; the same seed gives the same answer
 * Source: first pin to touch, gap over lever, each gap moved by its pin's error along the contact's normal and by its
 * lobe's error; Monte Carlo (JCGM 101).
 */
export function sampledError(
  pair: LobedPair,
  place: number,
  profile: number,
  difference = 1,
  draws = 120,
  seed = 1,
): SampledError {
  const Z = pair.profile.pins * difference;
  const c = contactsOver(pair, difference);
  const next = seeded(seed);
  // A contact without a lever turns nothing; where only short levers stand, the longest of them counts.
  const least = Float64Array.from({ length: ANGLES }, (_, k) => {
    let longest = 0;
    for (let i = k * Z; i < (k + 1) * Z; i++) if (c.gaps[i] !== Infinity && c.arms[i]! > longest) longest = c.arms[i]!;
    return Math.min(0.15 * pair.profile.throw * pair.profile.pins, longest);
  });
  const found = new Float64Array(draws);
  const [dx, dy, lobe] = [new Float64Array(Z), new Float64Array(Z), new Float64Array(Z)];
  for (let d = 0; d < draws; d++) {
    for (let j = 0; j < Z; j++) {
      dx[j] = place * (2 * next() - 1);
      dy[j] = place * (2 * next() - 1);
      lobe[j] = profile * (2 * next() - 1);
    }
    let [low, high] = [Infinity, -Infinity];
    for (let k = 0; k < ANGLES; k++) {
      let turn = Infinity;
      for (let j = 0; j < Z; j++) {
        const i = k * Z + j;
        const arm = c.arms[i]!;
        if (arm < least[k]! || arm <= 0 || c.gaps[i] === Infinity) continue;
        turn = Math.min(turn, (c.gaps[i]! - dx[j]! * c.nx[i]! - dy[j]! * c.ny[i]! + lobe[j]!) / arm);
      }
      if (turn === Infinity) continue;
      if (turn < low) low = turn;
      if (turn > high) high = turn;
    }
    found[d] = Math.max(0, high - low);
  }
  found.sort();
  return {
    likely: found[draws >> 1]!,
    low: found[Math.floor(draws * 0.025)]!,
    high: found[Math.min(draws - 1, Math.floor(draws * 0.975))]!,
  };
}
