import { spacesEvenly } from '../../gear/epicyclic.ts';
import type { CountDesk, CountSet, CountWish } from '../contract.ts';
import type { CompoundParams } from './params.ts';
import { gcd } from '../../math/gcd.ts';

type Counts = Pick<CompoundParams, 'drive' | 'zs' | 'zpA' | 'zr1' | 'zpB' | 'zr2'>;

/**
 * Ratio by counts alone; infinite where both toothings turn the rings alike. Source: Willis, held ring A, driven ring
 * B.
 */
export const compoundRatio = (c: Counts): number =>
  (c.drive === 'sun' ? 1 + c.zr1 / c.zs : 1) / (1 - (c.zr1 * c.zpB) / (c.zpA * c.zr2));

/**
 * Tooth counts for a wanted ratio, one set for each pair of planet toothings: the sun that comes nearest among those
 * that assemble, or among all where none does.
 * Unshifted, both toothings on one centre distance, so that zr2 = zpB + (zs + zpA)·m/mB must be whole.
 */
export function compoundCounts(p: CompoundParams, want: CountWish): CountDesk {
  const sets: CountSet[] = [];
  const scale = p.module / p.moduleB;
  for (let zpA = 10; zpA <= 48; zpA++) {
    for (let zpB = 10; zpB <= 48; zpB++) {
      let best: CountSet | undefined;
      for (let zs = 9; zs <= 36; zs++) {
        const zr1 = zs + 2 * zpA;
        const exact = zpB + (zs + zpA) * scale;
        const zr2 = Math.round(exact);
        if (Math.abs(exact - zr2) > 1e-6 || zr2 <= zpB + 4) continue;
        const ratio = compoundRatio({ drive: p.drive, zs, zpA, zr1, zpB, zr2 });
        const error = Math.abs(ratio) / Math.abs(want.ratio) - 1;
        if (!(Math.abs(error) <= want.tolerance)) continue;
        const size = Math.max(p.module * (zr1 + 2.5), p.moduleB * (zr2 + 2.5)) + 2 * p.rim;
        if (size > want.size) continue;
        const centre = (p.module * (zs + zpA)) / 2;
        const gap = 2 * centre * Math.sin(Math.PI / p.planets) - Math.max(p.module * (zpA + 2), p.moduleB * (zpB + 2));
        const even = p.drive === 'carrier' || spacesEvenly(zs, zr1, p.planets);
        const why = !even
          ? `${zs} + ${zr1} does not divide by ${p.planets}`
          : gap < 0.5 * p.module
            ? 'neighbours touch'
            : undefined;
        const alike = Number.isInteger((zr1 * zpB - zr2 * zpA) / (p.planets * gcd(zpA, zpB)));
        const set: CountSet = {
          values: { zs, zpA, zr1, zpB, zr2 },
          label: `${p.drive === 'sun' ? `${zs} / ` : ''}${zpA} / ${zr1} + ${zpB} / ${zr2}${alike ? '' : ', unlike'}`,
          x: zpA,
          y: zpB,
          ratio,
          error,
          size,
          gap,
          sequence: zr1 % p.planets !== 0,
          hunting: gcd(zpA, zr1) === 1 && gcd(zpB, zr2) === 1,
          assembles: why === undefined,
          ...(why && { why }),
          current: zs === p.zs && zpA === p.zpA && zr1 === p.zr1 && zpB === p.zpB && zr2 === p.zr2,
        };
        // Planets alike are worth a percent of ratio: one drawing serves all.
        const worth = (x: CountSet) =>
          (x.current ? -1 : 0) + (x.assembles ? 0 : 10) + Math.abs(x.error) + (x.label.endsWith('unlike') ? 0.01 : 0);
        if (!best || worth(set) < worth(best)) best = set;
      }
      if (best) sets.push(best);
    }
  }
  return { axes: ['planet A', 'planet B'], sets };
}
