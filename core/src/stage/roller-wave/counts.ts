import type { CountDesk, CountSet, CountWish } from '../contract.ts';
import { lobesOf, rollerWaveRatio, type RollerWaveParams } from './params.ts';

/** Rollers and lobes for a wanted ratio, with the size that rollers of the present diameter give. */
export function rollerWaveCounts(p: RollerWaveParams, want: CountWish): CountDesk {
  const sets: CountSet[] = [];
  for (let rollers = 5; rollers <= 120; rollers++)
    for (const more of [1, -1]) {
      const now = { ...p, rollers, more };
      const ratio = rollerWaveRatio(now);
      const error = Math.abs(ratio) / Math.abs(want.ratio) - 1;
      if (Math.abs(error) > want.tolerance) continue;
      // Walls of a millimetre between slots.
      const size = (rollers * (p.roller + 1e-3)) / Math.PI + 2 * (p.roller / 2 + p.throw + p.rim);
      if (size > want.size) continue;
      sets.push({
        values: { rollers, more },
        label: `${rollers} / ${lobesOf(now)}`,
        x: rollers,
        y: lobesOf(now),
        ratio,
        error,
        size,
        gap: 1e-3,
        sequence: true,
        hunting: true,
        assembles: true,
        current: rollers === p.rollers && more === p.more,
      });
    }
  return { axes: ['rollers', 'lobes'], sets };
}
