import { blankMass, cutPartPrice, planetsOutBy, isTwoHanded } from '../../gear/index.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { PIN_PRICE, rodMass, type Cost } from '../costs.ts';
import { ROUND_A_WHEEL, springsCost } from '../split-wheel.ts';
import type { PlanetaryBuild } from './build.ts';
import type { PlanetaryParams } from './params.ts';

/** Room between turning parts along the axis, m. */
export const GAP = 5e-4;

/** Where the sets of a stage begin along its axis, and how wide each is, m; the last is as wide as drawn. */
export function setsAlong(p: PlanetaryParams): {
  readonly floors: readonly number[];
  readonly widths: readonly number[];
} {
  const widths = Array.from({ length: p.sets }, (_, k) => p.width * p.step ** (p.sets - 1 - k));
  const floors: number[] = [];
  let z = 0;
  for (const w of widths) {
    floors.push(z);
    // A set's last plate and the next one's first turn at unlike speeds.
    z += w + 2 * p.plate + 3 * GAP;
  }
  return { floors, widths };
}

/** Length of the pins of a set, from plate to plate, m. */
export const pinLength = (p: PlanetaryParams, width: number): number => width + 2 * p.plate + 2 * GAP;

/** How many springs take the play out of all sets. */
export const springsOf = (p: PlanetaryParams): number => {
  const way = planetsOutBy(p);
  const each = {
    none: 0,
    sun: ROUND_A_WHEEL,
    ring: ROUND_A_WHEEL,
    planets: p.planets,
    pairs: Math.floor(p.planets / 2),
  };
  return p.sets * each[way];
};

/**
 * What each part weighs and costs: wheels by their mass and, where they are milled, their teeth; what is bought as priced.
 *
 * @param mass of sun, planet with its bearing, ring and carrier with pins, of the width that is drawn, kg
 */
export function planetaryCosts(p: PlanetaryParams, b: PlanetaryBuild, mass: readonly number[], shelf: Shelf) {
  const [ms, mp, mr] = b.materials;
  const [sun, withBearing, ring] = mass as [number, number, number, number];
  const planet = withBearing - (b.bearing?.mass ?? 0);
  const { floors, widths } = setsAlong(p);
  const tube = floors[p.sets - 1]! + widths[p.sets - 1]!;
  const way = planetsOutBy(p);
  const wheel = (m: typeof ms, whole: number, width: number, teeth: number, quantity: number, split: boolean): Cost => {
    const pieces = split ? 2 : 1;
    const own = (whole * width) / p.width / pieces;
    return { quantity: quantity * pieces, mass: own, money: cutPartPrice(m, own, teeth, shelf) };
  };
  const plate = blankMass(b.geometry.centre + p.pin, 0, p.plate, mr, shelf);
  const plates = (quantity: number): Cost => ({ quantity, mass: plate, money: plate * mr.material.price });
  return {
    suns: widths.map((w) => wheel(ms, sun, w, p.zs, 1, way === 'sun')),
    planets: widths.map((w) => wheel(mp, planet, w, p.zp, p.planets, way === 'planets')),
    ring: wheel(mr, ring, tube, p.zr, 1, way === 'ring' || isTwoHanded(p)),
    plateIn: plates(p.sets),
    plateMid: plates(p.sets - 1),
    plateOut: plates(1),
    pins: widths.map((w): Cost => ({
      quantity: p.planets,
      mass: rodMass(p.pin, pinLength(p, w), b.pin.material.density),
      money: PIN_PRICE,
    })),
    springs: springsCost(springsOf(p)),
    bearing: {
      quantity: b.bearing ? p.planets * p.sets : 0,
      mass: b.bearing?.mass ?? 0,
      money: b.bearing?.price ?? 0,
    },
  };
}

/** All of them, one after the other. */
export const everyCost = (c: ReturnType<typeof planetaryCosts>): readonly Cost[] => [
  ...c.suns,
  ...c.planets,
  c.ring,
  c.plateIn,
  c.plateMid,
  c.plateOut,
  ...c.pins,
  c.bearing,
  c.springs,
];
