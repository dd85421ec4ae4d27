import { RANGE } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom, GapSide } from '../freedom.ts';
import type { WormBuild } from './build.ts';
import type { WormParams } from './params.ts';

/** Room in the mesh, along the wheel's circle, and what the worm's end play adds; a spring leaves neither room nor need for it. */
export function wormFreedom(p: WormParams, { geometry: g }: WormBuild, shelf: Shelf): Freedom {
  const r = g.mesh.s2.r;
  const along = 1 / (Math.cos(p.pressure) * Math.cos(g.lead));
  const spring = p.playBy === 'spring';
  // Once set by moving the worm, errors of thickness and centre are in what was set.
  const set = p.playBy !== 'centre';
  const side = (part: string): GapSide => ({
    part,
    name: part,
    contour: 'outside',
    share: set ? 0 : 2 * along,
    each: false,
    usual: ((set ? 0.2 : 1) * factor(shelf, 'gear.thickness')) / RANGE,
    radius: 0,
    perGrowth: 0,
  });
  return {
    chains: [
      {
        name: 'worm',
        paths: 1,
        gaps: spring
          ? []
          : [
              {
                name: 'thread and wheel',
                drawn: g.normalPlay * along,
                turn: 1 / r,
                sides: [side('worm'), side('wheel')],
                wobble: 0,
                place: set ? 0 : (2 * factor(shelf, 'worm.centre') * Math.tan(p.pressure)) / Math.cos(g.lead) / RANGE,
                centre: 0,
                perCentre: 0,
              },
            ],
        apart: 0,
        extra: (factor(shelf, 'worm.endPlay') + factor(shelf, 'gear.tilt') / 2) / r,
      },
    ],
    // Allowances are told across the thread on the reference circle, gaps along the wheel's circle.
    wider: (by) => ({
      allowance1: p.allowance1 + (by * Math.cos(g.lead)) / 2,
      allowance2: p.allowance2 + (by * Math.cos(g.lead)) / 2,
    }),
  };
}
