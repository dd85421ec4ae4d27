import { MODULES, plainToothing } from '../../gear/index.ts';
import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { spurParams, type SpurParams } from './params.ts';

/** A pair with usual proportions. */
export const baseSpur = (module: number, width: number, z1: number, z2: number): SpurParams => ({
  ...startsOf(spurParams),
  z1,
  z2,
  idlers: 0,
  ...plainToothing(module, width),
  centre: (module * (z1 + z2)) / 2,
  rim: 4e-3,
  bore1: module * z1 > 9e-3 ? 5e-3 : module * z1 > 6e-3 ? 3e-3 : 0,
  bore2: Math.min(8e-3, Math.round(module * z2 * 0.4 * 1e3) * 1e-3),
});

/** Pairs for a wish, small and light first. */
export function* spurCandidates(want: StageWish): Generator<SpurParams> {
  const ratio = Math.max(1, Math.abs(want.ratio));
  for (const module of MODULES.slice(2)) {
    for (const z1 of [18, 20, 24]) {
      const z2 = Math.round(z1 * ratio);
      if (z2 > 200) continue;
      for (const width of [8, 14]) {
        const p = baseSpur(module, width * module + 3e-3, z1, z2);
        if (module * (z1 + z2 + 2) <= want.size && p.bore1 > 0) yield p;
      }
    }
  }
}
