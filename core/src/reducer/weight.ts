import type { Material } from '../schema/joint.ts';
import { solidVolume, type Solid } from '../shape/solid.ts';
import { factor, type Shelf } from '../shop/shelf.ts';

/** Lines of a printed wall on either side. */
const LINES = 2;

/**
 * Share of a printed part that is filled: its walls whole, what is between them by its infill.
 *
 * @param thick of its walls, m
 * @example filledShare(0.0018, shelf) // 1
 */
export function filledShare(thick: number, shelf: Shelf): number {
  const walls = Math.min(thick, 2 * LINES * factor(shelf, 'print.wall'));
  return (walls + (thick - walls) * factor(shelf, 'print.infill')) / thick;
}

/** What a part of the housing weighs, kg, and costs. */
export function weightOf(solid: Solid, material: Material, thick: number, shelf: Shelf) {
  const whole = solidVolume(solid) * material.density;
  const isPrinted = material.made === 'printed';
  const mass = isPrinted ? whole * filledShare(thick, shelf) : whole;
  const { price } = material;
  return { mass, money: mass * price, ...(isPrinted && { printed: { whole, price, thick } }) };
}
