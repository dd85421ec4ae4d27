import type { StageNumbers } from './contract.ts';

/** Torque at which the first of a stage's limits is reached, N·m. */
export const carries = (m: { readonly numbers: StageNumbers }): number =>
  m.numbers.limits.reduce((least, l) => Math.min(least, l.torque), Infinity);

/**
 * The first candidate that carries a torque with a fifth in hand; the strongest where none does; undefined where none
 * can be computed.
 */
export function firstThatCarries<P>(list: Iterable<P>, torque: number, strength: (p: P) => number): P | undefined {
  let [best, most] = [undefined as P | undefined, 0];
  for (const p of list) {
    const stands = strength(p);
    if (stands > 0 && stands >= 1.2 * torque) return p;
    if (stands > most) [best, most] = [p, stands];
  }
  return best;
}
