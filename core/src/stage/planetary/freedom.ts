import { meshGap, PLANETS_OUT, planetsOutBy } from '../../gear/index.ts';
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
  const press = PLANETS_OUT[planetsOutBy(p)];
  const chains = Array.from({ length: p.sets }, (_, k): FreeChain => {
    const down = Math.abs(m.setRatio) ** (p.sets - 1 - k);
    const [aS, aR] = m.angles.map((a) => a / down) as [number, number];
    const set = p.sets > 1 ? `-${k + 1}` : '';
    const planet = { part: `planet${set}`, name: 'planet', each: true };
    return {
      name: p.sets > 1 ? `set ${k + 1}` : 'planets',
      paths: p.planets,
      gaps: [
        {
          ...meshGap('sun and planet', g.sunMesh, [{ part: `sun${set}`, name: 'sun', each: false }, planet], aS, shelf),
          taken: press.sun.flanks > 0,
        },
        {
          ...meshGap('planet and ring', g.ringMesh, [planet, { part: 'ring', name: 'ring', each: false }], aR, shelf),
          taken: press.ring.flanks > 0,
        },
      ],
      apart: (factor(shelf, 'planet.place') / 2) * Math.hypot(press.sun.flanks ? 0 : aS, press.ring.flanks ? 0 : aR),
      extra: factor(shelf, 'gear.tilt') * ((press.sun.flanks ? 0 : aS) + (press.ring.flanks ? 0 : aR)),
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
