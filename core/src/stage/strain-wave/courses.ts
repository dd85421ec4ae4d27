import { factor, type Shelf } from '../../shop/shelf.ts';
import { clearanceMap } from '../../wave/index.ts';
import type { Course, StageMap } from '../contract.ts';
import { toothState } from './geometry.ts';
import type { StrainWaveBuild } from './build.ts';
import type { StrainWaveModel } from './model.ts';
import { outRadius, type StrainWaveParams } from './params.ts';

const ANGLES = 180;

/**
 * What one tooth goes through in a turn of the generator, and the tightest of all when the generator stands off the
 * middle.
 */
export function strainWaveCourses(
  p: StrainWaveParams,
  { geometry: g }: StrainWaveBuild,
  shelf: Shelf,
  m: StrainWaveModel,
): readonly Course[] {
  const make = () => new Float64Array(ANGLES + 1);
  const [depth, clear, push, off] = [make(), make(), make(), make()];
  const stiffness = m.toothForce > 0 ? m.carried : undefined;
  const R = outRadius(p, g.module);
  const cos = Math.cos(g.lean);
  const map = clearanceMap(g.mesh, ANGLES, factor(shelf, 'wave.centre'));
  for (let k = 0; k <= ANGLES; k++) {
    // Seen from the ring the generator has turned on by what the spline turns back, or the ring on.
    const crank = (2 * Math.PI * k) / ANGLES;
    const s = toothState(g, 0, crank);
    depth[k] = s.depth;
    // A tooth that is out is as far off as its tip is from the ring's.
    clear[k] = s.depth > 0 ? Math.min(s.ahead, s.behind, g.module) : Math.min(g.module, -s.depth);
    if (stiffness && s.depth > 0.1 * g.engaged)
      push[k] =
        (Math.max(0, stiffness.turn * R * cos - Math.max(0, s.ahead)) * stiffness.stiffness) /
        Math.max(1, stiffness.carrying) /
        (R * cos) ** 2;
    let least = g.module;
    for (let i = 0; i < p.teeth; i++) least = Math.min(least, map.values[i * ANGLES + (k % ANGLES)]!);
    off[k] = least;
  }
  return [
    { id: 'depth', name: 'Tooth depth', quantity: 'length', values: depth },
    { id: 'clearance', name: 'Clearance', quantity: 'length', values: clear },
    { id: 'push', name: 'Its push', quantity: 'force', values: push },
    { id: 'off', name: 'Off centre', quantity: 'length', values: off },
  ];
}

/** Clearance of every tooth through a turn of the generator. */
export function strainWaveMap(p: StrainWaveParams, { geometry: g }: StrainWaveBuild): StageMap {
  const map = clearanceMap(g.mesh, ANGLES);
  return {
    name: 'All teeth',
    quantity: 'length',
    rows: p.teeth,
    rowName: 'tooth',
    columns: ANGLES,
    values: map.values,
    low: 'fault',
    limit: 0,
    ample: 0.08 * g.module,
    words: ['clash', 'tight', 'clear', 'out of the ring'],
  };
}
