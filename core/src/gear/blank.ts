import { factor, type Shelf } from '../shop/shelf.ts';
import type { ToothMaterial } from './tooth-material.ts';

/**
 * Mass of a wheel as a disc with a hole, times the share of it that lightening holes leave.
 *
 * @param r radius of the disc whose volume the wheel has (its pitch radius), m
 * @param hole radius, m
 * @param width m
 * @returns kg; 0 where the hole is as large as the disc
 * @example blankMass(0.01, 0.002, 0.01, { material: { density: 7850 } }, shelf) // 0.02012379
 */
export const blankMass = (r: number, hole: number, width: number, m: ToothMaterial, shelf: Shelf): number =>
  Math.PI * Math.max(0, r * r - hole * hole) * width * m.material.density * factor(shelf, 'gear.solid');

/**
 * Moment of inertia of a ring about its axis, kg·m²: m·(R² + r²)/2.
 *
 * @param outer R, and
 * @param inner r, m
 * @example ringInertia(0.1, 0.03, 0.02) // 6.5e-5
 */
export const ringInertia = (mass: number, outer: number, inner: number): number =>
  (mass * (outer ** 2 + inner ** 2)) / 2;

/**
 * What cutting a part costs beside what it is made of: by its teeth where it is cut, nothing where it is printed.
 *
 * @param count teeth, lobes or holes to be cut
 * @returns the shop's currency
 */
export const cuttingPrice = (m: Pick<ToothMaterial, 'material'>, count: number, shelf: Shelf): number =>
  m.material.made === 'printed' ? 0 : count * factor(shelf, 'price.milled');

/**
 * Price of a part: its material, and the cutting of it.
 *
 * @param mass kg
 * @param count teeth, lobes or holes to be cut
 * @returns the shop's currency
 */
export const cutPartPrice = (m: Pick<ToothMaterial, 'material'>, mass: number, count: number, shelf: Shelf): number =>
  mass * m.material.price + cuttingPrice(m, count, shelf);

/**
 * Price of a wheel in one piece, or of both halves of a split one, whose teeth are cut twice.
 *
 * @param mass of the whole, kg
 * @example wheelPrice({ plastic: true, material: { made: 'printed', price: 30 } }, 0.1, 40, true, shelf) // 3
 */
export const wheelPrice = (
  m: Parameters<typeof cutPartPrice>[0],
  mass: number,
  count: number,
  split: boolean,
  shelf: Shelf,
): number => (split ? 2 * cutPartPrice(m, mass / 2, count, shelf) : cutPartPrice(m, mass, count, shelf));

/** Pitch-line speeds that greased wheels of plastic, and of metal, stand, m/s. */
const TOP_SPEED = { plastic: 5, metal: 15 };

/**
 * Highest pitch-line speed of wheels that run together.
 *
 * @returns m/s
 * @example topPitchSpeed([{ plastic: false }, { plastic: true }]) // 5
 */
export const topPitchSpeed = (materials: readonly Pick<ToothMaterial, 'plastic'>[]): number =>
  materials.some((m) => m.plastic) ? TOP_SPEED.plastic : TOP_SPEED.metal;
