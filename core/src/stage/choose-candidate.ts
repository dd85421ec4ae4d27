import type { Duty, StageNumbers } from './contract.ts';

/**
 * Peak torque of a duty at which the first of a stage's limits is reached, at once or by heat, N·m. What wears or tires is
 * a matter of its life.
 */
export const carries = (m: { readonly numbers: StageNumbers }, at: Duty): number =>
  m.numbers.limits.reduce((least, l) => {
    if (l.time === 'life') return least;
    const scale = l.time === 'continuous' && at.torqueRms > 0 ? at.torque / at.torqueRms : 1;
    return Math.min(least, l.torque * scale);
  }, Infinity);

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
