import { MODULES } from '../../gear/index.ts';
import { steppedDown } from '../../math/steps.ts';
import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { DEDENDUM, pinionCone } from './geometry.ts';
import { bevelParams, type BevelParams } from './params.ts';

/** A pair of usual proportions: three tenths of the cone distance wide, shifted where the pinion is small. */
export function baseBevel(module: number, z1: number, z2: number): BevelParams {
  const start = startsOf(bevelParams);
  const cone = pinionCone(z1, z2, start.shaft);
  const outer = (module * z1) / (2 * Math.sin(cone));
  const width = Math.max(1e-3, steppedDown(0.3 * outer, 5e-4));
  const virtual = z1 / Math.cos(cone);
  const root = (z: number, angle: number) =>
    (outer - width) * Math.sin(angle - Math.atan((DEDENDUM * module) / outer)) * 2 - 2 * module * Number(z > 0);
  const bore = (room: number, most: number) =>
    [12e-3, 10e-3, 8e-3, 6e-3, 5e-3, 4e-3, 3e-3, 2e-3, 1e-3].find((b) => b <= most && b <= room) ?? 5e-4;
  return {
    ...start,
    module,
    z1,
    z2,
    width,
    shift: virtual < 17 && z2 > z1 ? Math.ceil((1 - virtual / 17) * 20) / 20 : 0,
    bore1: bore(root(z1, cone), 8e-3),
    bore2: bore(root(z2, start.shaft - cone), 8e-3),
  };
}

/** Pairs for a wish, small first. */
export function* bevelCandidates(want: StageWish): Generator<BevelParams> {
  const ratio = Math.abs(want.ratio);
  if (ratio > 8) return;
  for (const module of MODULES.slice(2))
    for (const z1 of [14, 16, 18, 20, 24]) {
      const z2 = Math.round(z1 * Math.max(1, ratio));
      if (z2 > 140) continue;
      const p = baseBevel(module, z1, z2);
      const cone = pinionCone(z1, z2, p.shaft);
      if ((module * (z2 + 2)) / 2 + (module * z1) / (2 * Math.tan(cone)) + p.hub1 > want.size) continue;
      if (p.bore1 < 2e-3) continue;
      yield p;
      yield { ...p, material2: 'pom' };
    }
}

/** A plain pair as near to a wish as one can be. */
export const nearestBevel = (want: StageWish): BevelParams =>
  baseBevel(1e-3, 18, Math.round(18 * Math.min(6, Math.max(1, Math.abs(want.ratio)))));
