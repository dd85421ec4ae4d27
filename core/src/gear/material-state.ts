import type { Material } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { ToothMaterial } from './tooth-material.ts';

/** What a material behaves as: plastics and elastomers creep, warm and soften, and only a metal tires for ever. */
export type MaterialSort = 'metal' | 'plastic' | 'elastic';

/** Below these moduli (Pa) a material is no metal any more, and a rubber. */
const [PLASTIC_BELOW, ELASTIC_BELOW] = [20e9, 0.3e9];

/** Sorts a material by its modulus, which is what its behaviour goes with. */
export const sortOf = (m: Pick<Material, 'modulus'>): MaterialSort =>
  m.modulus < ELASTIC_BELOW ? 'elastic' : m.modulus < PLASTIC_BELOW ? 'plastic' : 'metal';

const STRENGTH = { printed: 'strength.printed', plastic: 'strength.plastic', metal: 'strength.metal' } as const;

/**
 * Strength counted on, Pa, cold and short: along the layers of a printed part or across them, with what it scatters by.
 * An elastomer is trusted by its strain alone: it has lost its shape long before it tears.
 *
 * @param way of the load in a printed part: teeth and plates printed flat bend along their layers, upright pins across
 */
export function strengthOf(m: ToothMaterial, way: 'along' | 'across', shelf: Shelf): number {
  const { material } = m;
  if (m.sort === 'elastic') return elastic(m, SHEET_AT, shelf) * factor(shelf, 'strength.elastic');
  const printed = material.made === 'printed';
  const says = way === 'across' && printed ? (material.across ?? material.strength) : material.strength;
  return says * factor(shelf, STRENGTH[printed ? 'printed' : m.plastic ? 'plastic' : 'metal']);
}

/** Temperature at which data sheets state a modulus, K. */
const SHEET_AT = 296.15;

/** What is left of a plastic's modulus at its softening temperature. */
const SOFTENED = 0.1;

/**
 * Young's modulus at a temperature, Pa, under a load that does not stay: it falls evenly from that of the data sheet, at
 * 23 °C, to a tenth at the softening point, and keeps that tenth beyond, where nothing is to be built on it.
 *
 * @param temperature K
 */
export function elastic(m: ToothMaterial, temperature: number, shelf: Shelf): number {
  const { modulus, made, softening } = m.material;
  if (!m.plastic) return modulus;
  const t = (temperature - SHEET_AT) / Math.max(1, softening - SHEET_AT);
  const warm = t <= 0 ? 1 : t < 1 ? 1 - (1 - SOFTENED) * t : SOFTENED;
  return modulus * warm * factor(shelf, made === 'printed' ? 'modulus.printed' : 'modulus.plastic');
}

/** How long a load that stays is counted with, h. */
export const HELD_HOURS = 1000;

/**
 * Share of its modulus that a material has left under a load that stays for a thousand hours: t^−n.
 * @example crept({ material: { creep: 0.06 } }) // 0.660693
 */
export const crept = (m: { readonly material: { readonly creep?: number | undefined } }): number =>
  m.material.creep ? HELD_HOURS ** -m.material.creep : 1;

/**
 * Share of its strength in bending that a printed tooth or web has by how thick it is: solid while its walls, two lines on
 * either side, fill it, and beyond by the section that walls and infill leave of it.
 *
 * @param thick m
 * Source: section modulus of a filled box, 1 − (1 − fill)·(core/thickness)³.
 */
export function solidShare(thick: number, shelf: Shelf): number {
  const walls = 4 * factor(shelf, 'print.wall');
  if (thick <= walls) return 1;
  return 1 - (1 - factor(shelf, 'print.infill')) * ((thick - walls) / thick) ** 3;
}
