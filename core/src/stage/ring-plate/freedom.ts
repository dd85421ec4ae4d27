import { RANGE } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom } from '../freedom.ts';
import type { RingPlateBuild } from './build.ts';
import type { RingPlateParams } from './params.ts';

/** Room between the lobes of the plates and the pins of the wheel, as the mean over a turn of the crank. */
export function ringPlateFreedom(p: RingPlateParams, b: RingPlateBuild, shelf: Shelf): Freedom {
  const rough = 2 / (p.pins * p.throw);
  return {
    chains: [
      {
        name: 'lobes',
        paths: 1,
        gaps: [
          {
            name: 'lobes and pins',
            drawn: b.drawnPlay / rough - factor(shelf, 'lobe.place'),
            turn: rough,
            sides: [
              {
                part: 'plate',
                name: 'plate',
                contour: 'hole',
                share: 1,
                each: false,
                usual: factor(shelf, 'lobe.profile') / RANGE,
                radius: 0,
                perGrowth: 0,
              },
            ],
            wobble: 0,
            place: factor(shelf, 'lobe.place') / RANGE,
            centre: 0,
            perCentre: 0,
          },
        ],
        apart: 0,
        extra: 2 * rough * factor(shelf, 'lobe.crank'),
      },
    ],
    wider: (by) => ({ offset: p.offset + by }),
  };
}
