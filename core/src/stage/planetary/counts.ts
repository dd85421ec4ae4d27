import { spacesEvenly } from '../../gear/epicyclic.ts';
import type { CountDesk, CountSet, CountWish } from '../contract.ts';
import { roles, type PlanetaryParams } from './params.ts';
import { gcd } from '../../math/gcd.ts';

interface Counts {
  readonly zs: number;
  readonly zp: number;
  readonly zr: number;
}

/** Ratio of a set by its counts alone. Source: Willis. */
export function countRatio(c: Counts, arrangement: PlanetaryParams['arrangement']): number {
  const k = { sun: -1 / c.zs, ring: 1 / c.zr, carrier: 0 };
  const r = roles({ arrangement });
  return (k[r.input] - k[r.held]) / (k[r.output] - k[r.held]);
}

/** Tip gap of neighbours over the module for plain wheels. */
const neighbourGap = (c: Counts, planets: number): number => (c.zs + c.zp) * Math.sin(Math.PI / planets) - (c.zp + 2);

/**
 * Counts near the present ones that assemble evenly, nearest first: the ratio kept as well as it can be, then the size.
 */
export function nearestCounts(p: PlanetaryParams, howMany = 3): Counts[] {
  const ratio = Math.abs(countRatio(p, p.arrangement));
  const found: { c: Counts; far: number }[] = [];
  for (let zs = Math.max(5, p.zs - 6); zs <= p.zs + 6; zs++) {
    for (let zp = Math.max(5, p.zp - 6); zp <= p.zp + 6; zp++) {
      const c = { zs, zp, zr: zs + 2 * zp };
      if (!spacesEvenly(zs, c.zr, p.planets) || neighbourGap(c, p.planets) < 0.5 || zp < 7 || c.zr > 600) continue;
      found.push({
        c,
        far:
          Math.abs(Math.log(Math.abs(countRatio(c, p.arrangement)) / ratio)) * 20 +
          (Math.abs(zs - p.zs) + Math.abs(zp - p.zp)) / 4,
      });
    }
  }
  return found
    .sort((a, b) => a.far - b.far)
    .slice(0, howMany)
    .map((f) => f.c);
}

/** Tooth counts for a wanted ratio, whether or not they assemble, for the desk to lay out. */
export function planetaryCounts(p: PlanetaryParams, want: CountWish): CountDesk {
  const sets: CountSet[] = [];
  const total = Math.abs(want.ratio);
  const each = total ** (1 / p.sets);
  for (let zs = 9; zs <= 60; zs++) {
    for (let zp = 9; zp <= 90; zp++) {
      const zr = zs + 2 * zp;
      const c = { zs, zp, zr };
      const outside = p.module * (zr + 2.5) + 2 * p.rim;
      if (outside > want.size) continue;
      const one = countRatio(c, p.arrangement);
      const error = Math.abs(one) / each - 1;
      if (Math.abs(error) > want.tolerance) continue;
      const over = (zs + zr) % p.planets;
      const gap = neighbourGap(c, p.planets) * p.module;
      const why =
        over !== 0
          ? `${zs} + ${zr} does not divide by ${p.planets}`
          : gap < 0.5 * p.module
            ? 'neighbours touch'
            : undefined;
      sets.push({
        values: { zs, zp, zr },
        label: `${zs} / ${zp} / ${zr}`,
        x: zs,
        y: zp,
        ratio: Math.sign(one) * Math.abs(one) ** p.sets,
        error: Math.abs(one) ** p.sets / total - 1,
        size: outside,
        gap,
        sequence: zs % p.planets !== 0,
        hunting: gcd(zs, zp) === 1 && gcd(zp, zr) === 1,
        assembles: why === undefined,
        ...(why && { why }),
        current: zs === p.zs && zp === p.zp && zr === p.zr,
      });
    }
  }
  return { axes: ['sun', 'planet'], sets };
}
