import { RANGE } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom } from '../freedom.ts';
import type { CycloidalBuild } from './build.ts';
import { turnPerGap, type CycloidalModel } from './model.ts';
import { branchPins, type CycloidalParams } from './params.ts';

/**
 * Room between a disc and the pins of its ring, as the mean over a turn of the crank; the output's holes add what they
 * leave. Pins are bought: only the lobes and the holes are made.
 */
export function cycloidalFreedom(
  p: CycloidalParams,
  { geometry: g }: CycloidalBuild,
  shelf: Shelf,
  m: CycloidalModel,
): Freedom {
  const rough = turnPerGap(branchPins(p), p.throw);
  const mean = g.plays.reduce((s, [a, c]) => s + (c - a), 0) / g.plays.length;
  const usual = factor(shelf, 'lobe.profile') / RANGE;
  const place = factor(shelf, 'lobe.place') / RANGE;
  const common = { wobble: 0, centre: 0, perCentre: 0 };
  const name = (part: string) => ({ part, name: 'disc', each: false, usual, radius: 0, perGrowth: 0 });
  return {
    chains: [
      {
        name: 'lobes',
        paths: 1,
        gaps: [
          {
            ...common,
            name: 'lobes and pins',
            drawn: mean / rough - factor(shelf, 'lobe.place'),
            turn: m.turnGap,
            sides: [{ ...name('disc'), contour: 'outside', share: 1 }],
            place,
          },
        ],
        apart: 0,
        extra: 2 * m.turnGap * factor(shelf, 'lobe.crank'),
      },
      {
        name: 'output',
        paths: 1,
        gaps: [
          {
            ...common,
            name: 'output pins in their holes',
            drawn: p.outGap,
            turn: m.turnOut,
            sides: [{ ...name('disc'), contour: 'hole', share: 2 }],
            place,
          },
        ],
        apart: 0,
        extra: 0,
      },
    ],
    wider: (by) => ({ offset: p.offset + by, outGap: p.outGap + by }),
  };
}
