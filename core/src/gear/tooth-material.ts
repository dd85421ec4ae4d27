import type { Material } from '../schema/joint.ts';
import { refuse, ok, type Result } from '../result.ts';
import { factor, findMaterial, type Shelf } from '../shop/shelf.ts';
import { sortOf, strengthOf, type MaterialSort, solidShare } from './material-state.ts';
import { METAL_ROOT, metalCycles, metalOver, plasticCycles, plasticShare } from './fatigue.ts';

/** What a toothed wheel is made of, as strength and heat see it; Pa and K. */
export interface ToothMaterial {
  readonly material: Material;
  readonly sort: MaterialSort;
  /** Whether it creeps, heats and softens: a plastic or an elastomer. */
  readonly plastic: boolean;
  readonly poisson: number;
}

/** A material of the shelf for a wheel; `place` is the field that names it. */
export function toothMaterial(id: string, shelf: Shelf, place: string): Result<ToothMaterial> {
  const material = findMaterial(shelf, id);
  if (!material)
    return refuse(
      `There is no material “${id}” in the shop.`,
      'Its strength and modulus are not known.',
      `Choose one of ${shelf.materials
        .slice(0, 4)
        .map((m) => m.id)
        .join(', ')} and others.`,
      place,
    );
  return ok(asToothMaterial(material));
}

/** A material as strength and heat see it. */
export function asToothMaterial(material: Material): ToothMaterial {
  const sort = sortOf(material);
  const plastic = sort !== 'metal';
  return { material, sort, plastic, poisson: sort === 'elastic' ? 0.48 : plastic ? 0.38 : 0.3 };
}

/**
 * Share of a plastic's strength left at a temperature: falls evenly from 20 °C to what is left at softening; none
 * beyond.
 */
function warmShare(m: ToothMaterial, temperature: number, shelf: Shelf): number {
  if (!m.plastic) return 1;
  const cold = 293.15;
  const left = factor(shelf, 'gear.hot');
  const t = (temperature - cold) / (m.material.softening - cold);
  return t <= 0 ? 1 : t <= 1 ? 1 - (1 - left) * t : Math.max(0, left * (2 - t));
}

/** What a tooth root stands, Pa. */
export interface RootStrength {
  /** Once in a while. */
  readonly peak: number;
  /** What its Wöhler line is told by: a plastic's static strength, a metal's endurance; both where it is bent as it is. */
  readonly lasting: number;
}

/**
 * Strength of a tooth root at a temperature; wheels are printed flat, so that their teeth bend along the layers.
 *
 * @param bothWays whether it is bent one way and the other in turn, as planets and idlers are
 * @param thick thickness of the tooth at its root, m; a printed one is solid where its walls fill it
 * Source: plastics in the manner of VDI 2736-2 (strength falling with temperature and cycles), metals of ISO 6336
 * method C from yield, with starting factors of the shop; alternating bending 0.7 (ISO 6336-5).
 */
export function rootStrength(
  m: ToothMaterial,
  temperature: number,
  bothWays: boolean,
  shelf: Shelf,
  thick = 0,
): RootStrength {
  const s = strengthOf(m, 'along', shelf) * (m.material.made === 'printed' ? solidShare(thick, shelf) : 1);
  const way = bothWays ? factor(shelf, 'gear.alternating') : 1;
  if (!m.plastic)
    return { peak: s * factor(shelf, 'gear.metalStatic'), lasting: s * factor(shelf, 'gear.metalRoot') * way };
  const warm = s * warmShare(m, temperature, shelf);
  return { peak: warm, lasting: warm * factor(shelf, 'gear.rootFatigue') * way };
}

/** Load cycles that a root stands at a stress, Pa; Infinity where it stands it for ever. */
export const rootCycles = (m: ToothMaterial, s: RootStrength, stress: number): number =>
  m.plastic ? plasticCycles(stress / s.lasting) : metalCycles(METAL_ROOT, stress / s.lasting);

/** Stress that a root stands for a number of load cycles, Pa. */
export const rootStress = (m: ToothMaterial, s: RootStrength, cycles: number): number =>
  s.lasting * (m.plastic ? plasticShare(cycles) : metalOver(METAL_ROOT, cycles));

/** Pressure that a metal flank stands for ever, Pa. */
export const flankEndurance = (m: ToothMaterial, shelf: Shelf): number =>
  strengthOf(m, 'along', shelf) * factor(shelf, 'gear.metalFlank');

/**
 * Hertzian pressure at which a flank is crushed, Pa.
 *
 * Source: plastics by a multiple of their strength (a contact yields below its surface at about 1.7 times the yield in
 * compression, and shows at 2.5 to 3 times); metals by the static life factor of ISO 6336-2, Z_NT = 1.6.
 */
export const flankCrush = (m: ToothMaterial, temperature: number, shelf: Shelf): number =>
  m.plastic
    ? strengthOf(m, 'along', shelf) * factor(shelf, 'gear.crush') * warmShare(m, temperature, shelf)
    : 1.6 * flankEndurance(m, shelf);

/** Coefficient of friction of a mesh, by whether a plastic runs in it. */
export const meshFriction = (a: ToothMaterial, b: ToothMaterial, shelf: Shelf): number =>
  factor(shelf, a.plastic || b.plastic ? 'gear.frictionPlastic' : 'gear.frictionMetal');
