import { carry } from '../../lobed/index.ts';
import type { Course, Duty, StageMap } from '../contract.ts';
import { phaseOf, type RollerWaveBuild } from './model.ts';
import { heldShare, type RollerWaveParams } from './params.ts';
import { rowState } from './wave.ts';

/** Angles over one turn of the crank. */
const ANGLES = 144;

const rowsAt = (p: RollerWaveParams, b: RollerWaveBuild, crank: number) =>
  Array.from({ length: p.rows }, (_, i) => rowState(b.wave, crank + phaseOf(p, i), p.gap));

/** What a turn of the crank brings: rollers that carry, the worst and the first one's push, the worst push on a wall. */
export function rollerWaveCourses(
  p: RollerWaveParams,
  b: RollerWaveBuild,
  at: Duty,
  contact: number,
): readonly Course[] {
  const make = () => new Float64Array(ANGLES + 1);
  const [carrying, worst, one, wall] = [make(), make(), make(), make()];
  const moment = Math.max(1e-6, at.torque * heldShare(p));
  for (let k = 0; k <= ANGLES; k++) {
    const rows = rowsAt(p, b, (2 * Math.PI * k) / ANGLES);
    const c = carry(rows, contact, moment);
    carrying[k] = c.carrying;
    worst[k] = Math.max(...c.forces);
    one[k] = c.forces[0]!;
    let most = 0;
    rows.forEach((s, d) => {
      for (let j = 0; j < p.rollers; j++) most = Math.max(most, c.forces[d * p.rollers + j]! * Math.abs(s.wall[j]!));
    });
    wall[k] = most;
  }
  return [
    { id: 'carrying', name: 'Rollers that carry', quantity: 'count', values: carrying },
    { id: 'worst', name: 'Worst roller', quantity: 'force', values: worst },
    { id: 'one', name: 'First roller', quantity: 'force', values: one },
    { id: 'wall', name: 'Worst push on a wall', quantity: 'force', values: wall },
  ];
}

/** What is left of every roller's gap at the peak torque over a turn of the crank; those that carry have none. First row. */
export function rollerWaveMap(p: RollerWaveParams, b: RollerWaveBuild, at: Duty, contact: number): StageMap {
  const values = new Float32Array(p.rollers * ANGLES);
  const moment = Math.max(1e-6, at.torque * heldShare(p));
  let most = 1e-6;
  for (let k = 0; k < ANGLES; k++) {
    const rows = rowsAt(p, b, (2 * Math.PI * k) / ANGLES);
    const { turn } = carry(rows, contact, moment);
    for (let j = 0; j < p.rollers; j++) {
      const left = rows[0]!.gaps[j]! - turn * rows[0]!.arms[j]!;
      values[j * ANGLES + k] = left;
      most = Math.max(most, left);
    }
  }
  return {
    name: 'Gaps of all rollers',
    quantity: 'length',
    rows: p.rollers,
    rowName: 'roller',
    columns: ANGLES,
    values,
    low: 'carries',
    limit: 1e-9,
    ample: most,
    words: ['carries', 'gap', 'widest', 'none'],
  };
}
