import type { Material } from '../schema/joint.ts';
import { refuse, ok, type Result } from '../result.ts';
import { factor, findMaterial, type Shelf } from '../shop/shelf.ts';

/** What a toothed wheel is made of, as strength and heat see it; Pa and K. */
export interface ToothMaterial {
  readonly material: Material;
  readonly plastic: boolean;
  readonly poisson: number;
}

/** Below this modulus (Pa) a material creeps, heats and softens as plastics do. */
const PLASTIC_BELOW = 20e9;

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
  const plastic = material.modulus < PLASTIC_BELOW;
  return ok({ material, plastic, poisson: plastic ? 0.38 : 0.3 });
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

/** What a printed part keeps of its material's strength: layers along or across the force, and infill. */
const made = (m: ToothMaterial, shelf: Shelf): number =>
  m.material.made === 'printed' ? factor(shelf, 'gear.layer') * factor(shelf, 'gear.infill') : 1;

/**
 * Permissible root stress, Pa: once in a while (peak), and for the counted load cycles (ever).
 *
 * Source: plastics in the manner of VDI 2736-2 (strength falling with temperature and cycles), metals of ISO 6336
 * method C, both from yield with
 * starting factors of the shop.
 */
export function rootLimits(m: ToothMaterial, temperature: number, shelf: Shelf): { peak: number; ever: number } {
  const s = m.material.strength * made(m, shelf);
  if (!m.plastic) return { peak: s * factor(shelf, 'gear.metalStatic'), ever: s * factor(shelf, 'gear.metalRoot') };
  const warm = s * warmShare(m, temperature, shelf);
  // Strength counted at ten thousand load cycles and less is the whole one.
  return {
    peak: warm,
    ever: warm * (Math.max(1e4, factor(shelf, 'gear.cycles')) / 1e4) ** -factor(shelf, 'gear.fatigue'),
  };
}

/** Permissible flank pressure, Pa. */
export const flankLimit = (m: ToothMaterial, temperature: number, shelf: Shelf): number =>
  m.plastic
    ? m.material.strength * factor(shelf, 'gear.plasticFlank') * warmShare(m, temperature, shelf)
    : m.material.strength * factor(shelf, 'gear.metalFlank');

/** Coefficient of friction of a mesh, by whether a plastic runs in it. */
export const meshFriction = (a: ToothMaterial, b: ToothMaterial, shelf: Shelf): number =>
  factor(shelf, a.plastic || b.plastic ? 'gear.frictionPlastic' : 'gear.frictionMetal');

/** Factors that a mesh of these materials reads. */
export function materialFactors(list: readonly ToothMaterial[]): string[] {
  const plastic = list.some((m) => m.plastic);
  const metal = list.some((m) => !m.plastic);
  return [
    plastic ? 'gear.frictionPlastic' : 'gear.frictionMetal',
    'gear.load',
    'gear.stiffness',
    'gear.housing',
    'gear.thickness',
    'gear.runout',
    'gear.tilt',
    ...(plastic
      ? ['gear.hot', 'gear.cycles', 'gear.fatigue', 'gear.plasticFlank', 'gear.heatRoot', 'gear.heatFlank', 'ambient']
      : []),
    ...(metal ? ['gear.metalRoot', 'gear.metalFlank', 'gear.metalStatic'] : []),
    ...(list.some((m) => m.material.made === 'printed') ? ['gear.layer', 'gear.infill'] : []),
  ];
}
