import type { Material } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';

/** Share of its strength that a plastic bears for good: beyond, it creeps away. */
const PLASTIC = 0.5;
/** Share of a screw's force that is left over what does not creep. Source: rough faces settle by micrometres (VDI 2230). */
const SETTLED = 0.9;

/**
 * Pressure that a material bears for good, Pa: what does not creep bears all that it stands.
 * @example standsForGood({ strength: 40e6, creep: 0.05 }) // 20e6
 */
export const standsForGood = ({ strength, creep }: Pick<Material, 'strength' | 'creep'>): number =>
  (creep ? PLASTIC : 1) * strength;

/**
 * The same across the layers of what is printed, as under the head of a screw, Pa.
 * @example standsAcross({ strength: 40e6, across: 30e6, creep: 0.05 }) // 15e6
 */
export const standsAcross = ({ strength, across, creep }: Pick<Material, 'strength' | 'across' | 'creep'>): number =>
  standsForGood({ strength: across ?? strength, creep });

/**
 * Share of its tightening force that a screw over a material keeps.
 * @example keptOf({ creep: 0 }, shelf) // 0.9
 */
export const keptOf = ({ creep }: Pick<Material, 'creep'>, shelf: Shelf): number =>
  creep ? factor(shelf, 'clamp.kept') : SETTLED;
