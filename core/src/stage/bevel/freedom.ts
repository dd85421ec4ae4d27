import { meshGap, RANGE } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom } from '../freedom.ts';
import type { BevelBuild } from './model.ts';
import type { BevelParams } from './params.ts';

/** Room between the teeth at mid-face, as of the virtual pair; where both wheels stand along their axes moves it. */
export function bevelFreedom(p: BevelParams, { geometry: g }: BevelBuild, shelf: Shelf): Freedom {
  const [c1, c2] = g.cones;
  const stand = 2 * factor(shelf, 'bevel.place') * Math.tan(p.pressure);
  const gap = meshGap(
    'pinion and wheel',
    g.mesh,
    [
      { part: 'pinion', name: 'pinion', each: false },
      { part: 'wheel', name: 'wheel', each: false },
    ],
    1 / c2.mean,
    shelf,
  );
  const place = (stand * Math.hypot(Math.sin(c1.pitch), Math.sin(c2.pitch))) / RANGE;
  // Allowances are told at the outer end.
  const outer = g.outer / g.mean;
  return {
    chains: [
      { name: 'pair', paths: 1, gaps: [{ ...gap, place }], apart: 0, extra: factor(shelf, 'gear.tilt') / c2.mean },
    ],
    wider: (by) => ({
      allowance1: p.allowance1 + (by * outer) / 2,
      allowance2: p.allowance2 + (by * outer) / 2,
    }),
  };
}
