import { RANGE } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom, GapSide } from '../freedom.ts';
import type { StrainWaveBuild } from './build.ts';
import { freeWay } from './contacts.ts';
import { outRadius, type StrainWaveParams } from './params.ts';

/** Room between the teeth of spline and ring where they stand well in, along the circle of what goes out. */
export function strainWaveFreedom(p: StrainWaveParams, { geometry: g }: StrainWaveBuild, shelf: Shelf): Freedom {
  const radius = outRadius(p, g.module);
  const tan = Math.tan(g.lean);
  const usual = factor(shelf, 'gear.thickness') / RANGE / Math.SQRT2;
  const side = (part: string, contour: GapSide['contour']): GapSide => ({
    part,
    name: part,
    contour,
    share: 2 / Math.cos(g.lean),
    each: false,
    usual,
    radius,
    perGrowth: part === 'ring' ? 2 * tan : -2 * tan,
  });
  return {
    chains: [
      {
        name: 'teeth',
        paths: 1,
        gaps: [
          {
            name: 'spline and ring',
            drawn: freeWay(g) + 2 * p.slack * tan,
            turn: 1 / radius,
            sides: [side('spline', 'outside'), side('ring', 'hole')],
            wobble: 0,
            place: (factor(shelf, 'wave.round') * tan) / RANGE,
            centre: 0,
            perCentre: 0,
            ...((p.tension ?? 0) > 0 && { taken: true }),
          },
        ],
        apart: 0,
        extra: 0,
      },
    ],
    wider: (by) => ({ thin: p.thin + by }),
  };
}
