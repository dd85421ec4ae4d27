import { gcd } from '../../math/gcd.ts';
import type { CountDesk, CountSet, CountWish } from '../contract.ts';
import { pinionCone } from './geometry.ts';
import type { BevelParams } from './params.ts';

/** Teeth for a wanted ratio, with the size they give. */
export function bevelCounts(p: BevelParams, want: CountWish): CountDesk {
  const sets: CountSet[] = [];
  const ratio = Math.abs(want.ratio);
  for (let z1 = 10; z1 <= 40; z1++)
    for (let z2 = Math.max(10, Math.floor(z1 * ratio * 0.7)); z2 <= Math.min(200, z1 * ratio * 1.4); z2++) {
      const error = z2 / z1 / ratio - 1;
      if (Math.abs(error) > want.tolerance) continue;
      const size = p.module * (z2 + 2);
      if (size > want.size) continue;
      const virtual = z1 / Math.cos(pinionCone(z1, z2, p.shaft));
      const why = virtual < 12 ? 'undercut: too few virtual teeth' : undefined;
      sets.push({
        values: { z1, z2 },
        label: `${z1} / ${z2}`,
        x: z1,
        y: z2,
        ratio: z2 / z1,
        error,
        size,
        gap: p.module,
        sequence: false,
        hunting: gcd(z1, z2) === 1,
        assembles: why === undefined,
        ...(why && { why }),
        current: z1 === p.z1 && z2 === p.z2,
      });
    }
  return { axes: ['pinion', 'wheel'], sets };
}
