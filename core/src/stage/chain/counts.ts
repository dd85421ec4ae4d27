import { gcd } from '../../math/gcd.ts';
import { findChain } from '../../shop/chains.ts';
import type { CountDesk, CountSet, CountWish } from '../contract.ts';
import { leastCentre } from './layout.ts';
import type { ChainParams } from './params.ts';
import { pitchRadiusOf } from './sprocket.ts';

/** Teeth for a wanted ratio, with the size that the shortest chain gives them. */
export function chainCounts(p: ChainParams, want: CountWish): CountDesk {
  const chain = findChain(p.size);
  const sets: CountSet[] = [];
  const ratio = Math.abs(want.ratio);
  for (let z1 = 9; chain && z1 <= 40; z1++)
    for (let z2 = Math.max(9, Math.floor(z1 * ratio * 0.7)); z2 <= Math.min(150, z1 * ratio * 1.4); z2++) {
      const error = z2 / z1 / ratio - 1;
      if (Math.abs(error) > want.tolerance) continue;
      const least = leastCentre({ ...p, z1, z2 }, chain);
      const size = least + pitchRadiusOf(chain.pitch, z1) + pitchRadiusOf(chain.pitch, z2) + chain.plate;
      if (size > want.size) continue;
      const why = z1 < 11 ? 'rough: fewer than eleven teeth' : z2 > 120 ? 'a little wear makes it climb' : undefined;
      sets.push({
        values: { z1, z2 },
        label: `${z1} / ${z2}`,
        x: z1,
        y: z2,
        ratio: z2 / z1,
        error,
        size,
        gap: chain.plate,
        sequence: z1 % 2 === 1,
        hunting: gcd(z1, z2) === 1,
        assembles: why === undefined,
        ...(why && { why }),
        current: z1 === p.z1 && z2 === p.z2,
      });
    }
  return { axes: ['driving', 'driven'], sets };
}
