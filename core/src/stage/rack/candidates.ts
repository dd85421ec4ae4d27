import { MODULES, plainToothing } from '../../gear/index.ts';
import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { rackParams, type RackParams } from './params.ts';

/** A rack and pinion of usual proportions. */
export function baseRack(module: number, z: number, width: number, stroke: number): RackParams {
  const root = module * (z - 2.5);
  // A shaft as thick as the pinion bears without becoming a ring: half of its roots.
  const bore = [12e-3, 10e-3, 8e-3, 6e-3, 5e-3, 4e-3, 3e-3, 2e-3].find((b) => root - b > 3 * module && b <= 0.5 * root);
  return {
    ...startsOf(rackParams),
    ...plainToothing(module, width),
    z,
    shift: z < 17 ? Math.ceil((1 - z / 17) * 20) / 20 : 0,
    bore: bore ?? 1e-3,
    stroke,
    overhang: width / 2 + 6e-3,
    back: Math.max(4e-3, Math.ceil(module * 5e3) * 1e-3),
    roller: Number((0.5 * Math.PI * module).toPrecision(2)),
  };
}

/** Where a wish says nothing of its move, the stroke is the plain one, m. */
const strokeOf = (want: StageWish): number => Math.max(0.01, want.duty?.swing ?? rackParams.stroke.start);

/** Racks for a wish, small first: teeth by the travel that is wanted. */
export function* rackCandidates(want: StageWish): Generator<RackParams> {
  const radius = 1 / Math.abs(want.ratio);
  const stroke = strokeOf(want);
  if (stroke > 50) return;
  for (const module of MODULES.slice(3)) {
    const z = Math.round((2 * radius) / module);
    if (z < 12 || z > 80) continue;
    for (const width of [8, 14]) {
      const p = baseRack(module, z, width * module + 2e-3, stroke);
      if (module * (z + 2) + p.back > want.size) continue;
      yield p;
      // Of plastic, which is cheaper and softer.
      yield { ...p, material2: 'pom' };
    }
  }
  for (const module of MODULES.slice(5)) {
    const z = Math.round((2 * radius) / module);
    if (z < 10 || z > 16) continue;
    // Pins bend with their length: as wide as flanks and pins come to their end together.
    const p = baseRack(module, z, 5 * module, stroke);
    if (module * (z + 2) + p.back <= want.size) yield { ...p, form: 'rollers', shift: 0, material1: 'silver-steel' };
  }
}

/** A plain rack as near to a wish as one can be. */
export const nearestRack = (want: StageWish): RackParams => {
  const z = Math.round(Math.min(80, Math.max(14, 2e3 / Math.abs(want.ratio))));
  return baseRack(1e-3, z, 0.012, Math.min(10, strokeOf(want)));
};
