import { meshGap, SHARED_OUT, sharedOutBy, type WheelPart } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom } from '../freedom.ts';
import type { CompoundBuild, CompoundModel } from './model.ts';
import type { CompoundParams } from './params.ts';

const WHEELS: Readonly<Record<string, readonly [WheelPart, WheelPart]>> = {
  sun: [
    { part: 'sun', name: 'sun', each: false },
    { part: 'planet', name: 'planet A', each: true },
  ],
  ring1: [
    { part: 'planet', name: 'planet A', each: true },
    { part: 'ring1', name: 'held ring', each: false },
  ],
  ring2: [
    { part: 'planet', name: 'planet B', each: true },
    { part: 'ring2', name: 'driven ring', each: false },
  ],
};

/** Room at the planets, through every mesh of each. */
export function compoundFreedom(p: CompoundParams, _b: CompoundBuild, shelf: Shelf, m: CompoundModel): Freedom {
  const press = SHARED_OUT[sharedOutBy(p)];
  const gaps = m.meshes.map((x) => ({
    ...meshGap(x.name, x.mesh, WHEELS[x.id]!, x.angle, shelf),
    taken: press[x.of].flanks > 0,
  }));
  const loose = gaps.filter((g) => !g.taken);
  return {
    chains: [
      {
        name: 'planets',
        paths: p.planets,
        gaps,
        apart: (factor(shelf, 'planet.place') / 2) * Math.hypot(...loose.map((g) => g.turn)),
        extra: factor(shelf, 'gear.tilt') * loose.reduce((s, g) => s + g.turn, 0),
      },
    ],
    wider: (by) => ({ allowanceA: p.allowanceA + by / 2, allowanceB: p.allowanceB + by / 2 }),
  };
}
