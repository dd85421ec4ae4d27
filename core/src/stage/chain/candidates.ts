import { CHAINS, findChain } from '../../shop/chains.ts';
import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { leastCentre, linksOver } from './layout.ts';
import { chainParams, type ChainParams } from './params.ts';
import { pitchRadiusOf } from './sprocket.ts';

/** A chain stage of usual proportions, as short as it may be. */
export function baseChain(size: string, z1: number, z2: number, longer = 1): ChainParams {
  const chain = findChain(size)!;
  const p: ChainParams = { ...startsOf(chainParams), size, z1, z2 };
  const r1 = pitchRadiusOf(chain.pitch, z1);
  const r2 = pitchRadiusOf(chain.pitch, z2);
  // Five teeth in mesh and plates that pass.
  const wrap = Math.PI - (2 * Math.PI * 5) / Math.min(z1, z2);
  const lean = Math.abs(r2 - r1) / Math.max(0.05, Math.sin(Math.max(0, wrap / 2)));
  const centre = Math.max(leastCentre(p, chain) * 1.02, lean * 1.02) * longer;
  const links = 2 * Math.ceil(linksOver(centre, chain.pitch, z1, z2) / 2);
  const root = 2 * (r1 - 0.52 * chain.roller);
  const bore = [12e-3, 10e-3, 8e-3, 6e-3, 5e-3, 4e-3, 3e-3].find((b) => root - 1.3 * b > chain.roller) ?? 3e-3;
  return { ...p, links, centre, bore1: Math.min(8e-3, bore), bore2: 8e-3 };
}

/** Chain stages for a wish, small first. */
export function* chainCandidates(want: StageWish): Generator<ChainParams> {
  const ratio = Math.abs(want.ratio);
  for (const chain of [...CHAINS].sort((a, b) => a.pitch - b.pitch || a.breaks - b.breaks))
    for (const z1 of [11, 13, 15, 17, 19]) {
      const z2 = Math.round(z1 * ratio);
      if (z2 < 11 || z2 > 120) continue;
      const p = baseChain(chain.id, z1, z2);
      const across = p.centre + pitchRadiusOf(chain.pitch, z1) + pitchRadiusOf(chain.pitch, z2) + chain.plate;
      if (across > want.size) continue;
      yield p;
      // Milled where printed teeth are too weak.
      yield { ...p, material2: 'c45' };
    }
}

/** A plain stage as near to a wish as one can be. */
export const nearestChain = (want: StageWish): ChainParams => {
  const ratio = Math.min(8, Math.max(1, Math.abs(want.ratio)));
  return baseChain('04C', 13, Math.min(120, Math.round(13 * ratio)));
};
