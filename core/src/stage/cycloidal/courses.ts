import { carry, ringContacts, ringPlay } from '../../lobed/index.ts';
import type { Course, Duty, StageMap } from '../contract.ts';
import { phaseOf } from './geometry.ts';
import type { CycloidalBuild } from './build.ts';
import { heldShare, type CycloidalParams } from './params.ts';

/** Crank angles over one turn. */
const ANGLES = 144;

/** What a turn of the crank brings: play either way, pins that carry, the worst and one chosen pin's push. */
export function cycloidalCourses(
  p: CycloidalParams,
  { geometry: g }: CycloidalBuild,
  at: Duty,
  contact: number,
): readonly Course[] {
  const held = heldShare(p);
  const make = () => new Float64Array(ANGLES + 1);
  const [play, carrying, worst, one, tight] = [make(), make(), make(), make(), make()];
  for (let k = 0; k <= ANGLES; k++) {
    const crank = (2 * Math.PI * k) / ANGLES;
    // Seen from the ring the crank has turned by as much less as the ring has turned.
    const inner = crank * heldShare(p);
    const sets = Array.from({ length: p.discs }, (_, i) => ringContacts(g.pair, p.difference, inner + phaseOf(p, i)));
    const [a, b] = ringPlay(g.pair, p.difference, inner, sets[0]!);
    play[k] = Math.max(0, b - a) * held;
    const c = carry(sets, contact, Math.max(1e-6, at.torque * held));
    carrying[k] = c.carrying;
    worst[k] = Math.max(...c.forces);
    one[k] = c.forces[0]!;
    tight[k] = sets[0]!.gaps[0]!;
  }
  return [
    { id: 'play', name: 'Play of one disc', quantity: 'smallAngle', values: play },
    { id: 'carrying', name: 'Pins that carry', quantity: 'count', values: carrying },
    { id: 'worst', name: 'Worst pin', quantity: 'force', values: worst },
    { id: 'one', name: 'First pin', quantity: 'force', values: one },
    // All round alike, or broken off where the lobe is, a gap is no course.
    ...(p.ringChange === 0 || p.difference > 1
      ? []
      : [{ id: 'gap', name: 'Gap at the first pin', quantity: 'length' as const, values: tight }]),
  ];
}

/**
 * What is left of every pin's gap at the peak torque, over a turn of the crank; pins that carry have none. First disc.
 */
export function cycloidalMap(p: CycloidalParams, { geometry: g }: CycloidalBuild, at: Duty, contact: number): StageMap {
  const held = heldShare(p);
  const values = new Float32Array(p.pins * ANGLES);
  let most = 1e-6;
  for (let k = 0; k < ANGLES; k++) {
    const crank = ((2 * Math.PI * k) / ANGLES) * heldShare(p);
    const sets = Array.from({ length: p.discs }, (_, i) => ringContacts(g.pair, p.difference, crank + phaseOf(p, i)));
    const { turn } = carry(sets, contact, Math.max(1e-6, at.torque * held));
    for (let j = 0; j < p.pins; j++) {
      const left = sets[0]!.gaps[j]! - turn * sets[0]!.arms[j]!;
      values[j * ANGLES + k] = left;
      if (left < Infinity) most = Math.max(most, left);
    }
  }
  return {
    name: 'Gaps of all pins',
    quantity: 'length',
    rows: p.pins,
    rowName: 'pin',
    columns: ANGLES,
    values,
    low: 'carries',
    limit: 1e-9,
    ample: most,
    words: ['carries', 'gap', 'widest', 'none: its lobe is cut off'],
  };
}
