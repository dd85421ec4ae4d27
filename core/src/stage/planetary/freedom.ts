import { meshGap } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { FreeChain, Freedom } from '../freedom.ts';
import type { PlanetaryBuild } from './build.ts';
import type { PlanetaryModel } from './model.ts';
import type { PlanetaryParams } from './params.ts';

/** Room at the planets: through each of them the sun's mesh and the ring's; sets before the last one show less of theirs. */
export function planetaryFreedom(
  p: PlanetaryParams,
  { geometry: g }: PlanetaryBuild,
  shelf: Shelf,
  m: PlanetaryModel,
): Freedom {
  const chains = Array.from({ length: p.sets }, (_, k): FreeChain => {
    const down = Math.abs(m.setRatio) ** (p.sets - 1 - k);
    const [aS, aR] = m.angles.map((a) => a / down) as [number, number];
    const set = p.sets > 1 ? `-${k + 1}` : '';
    const planet = { part: `planet${set}`, name: 'planet', each: true };
    return {
      name: p.sets > 1 ? `set ${k + 1}` : 'planets',
      paths: p.planets,
      gaps: [
        meshGap('sun and planet', g.sunMesh, [{ part: `sun${set}`, name: 'sun', each: false }, planet], aS, shelf),
        meshGap('planet and ring', g.ringMesh, [planet, { part: 'ring', name: 'ring', each: false }], aR, shelf),
      ],
      apart: (factor(shelf, 'planet.place') / 2) * Math.hypot(aS, aR),
      extra: factor(shelf, 'gear.tilt') * (aS + aR),
    };
  });
  return {
    chains,
    wider: (by) => ({
      allowanceS: p.allowanceS + by / 2,
      allowanceP: p.allowanceP + by / 2,
      allowanceR: p.allowanceR + by / 2,
    }),
  };
}
