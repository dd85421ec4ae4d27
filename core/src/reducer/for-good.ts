import type { Material } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';

/** Share of its strength that a plastic bears for good: beyond, it creeps away. */
const PLASTIC = 0.5;
/** Share of a screw's force that is left over what does not creep. Source: rough faces settle by micrometres (VDI 2230). */
const SETTLED = 0.9;

type Creeping = Pick<Material, 'creep'> & Partial<Pick<Material, 'made'>>;

/**
 * Whether a material creeps. What is printed does where nothing is told of it, as in joints that were saved before it was.
 * @example Number(creeps({ made: 'printed' })) // 1
 */
export const creeps = ({ creep, made }: Creeping): boolean => (creep === undefined ? made === 'printed' : creep > 0);

/**
 * Pressure that a material bears for good, Pa: what does not creep bears all that it stands.
 * @example standsForGood({ strength: 40e6, creep: 0.05 }) // 20e6
 */
export const standsForGood = (m: Pick<Material, 'strength'> & Creeping): number =>
  (creeps(m) ? PLASTIC : 1) * m.strength;

/**
 * The same across the layers of what is printed, as under the head of a screw, Pa.
 * @example standsAcross({ strength: 40e6, across: 30e6, creep: 0.05 }) // 15e6
 */
export const standsAcross = (m: Pick<Material, 'strength' | 'across'> & Creeping): number =>
  standsForGood({ ...m, strength: m.across ?? m.strength });

/**
 * Share of its tightening force that a screw over a material keeps.
 * @example keptOf({ creep: 0 }, shelf) // 0.9
 */
export const keptOf = (m: Creeping, shelf: Shelf): number => (creeps(m) ? factor(shelf, 'clamp.kept') : SETTLED);
