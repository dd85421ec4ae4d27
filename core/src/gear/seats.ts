import { inSeries } from '../math/springs.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { elastic } from './material-state.ts';
import { SEAT_OF } from './seated-pin.ts';
import type { ToothMaterial } from './tooth-material.ts';

/**
 * Radial stiffness of the seat that a bearing is pressed into, N/m: in proportion to the modulus of what it is in.
 * @param of the part with the seat
 */
export const bearingSeat = (of: ToothMaterial, shelf: Shelf): number =>
  (factor(shelf, 'bearing.seat') * elastic(of, factor(shelf, 'ambient'), shelf)) / SEAT_OF;

/**
 * Radial stiffness of a ball bearing with the seat that it is pressed into, N/m.
 * @param of the part with the seat
 */
export const bearingStiffness = (of: ToothMaterial, shelf: Shelf): number =>
  inSeries(factor(shelf, 'bearing.radial'), bearingSeat(of, shelf));

/**
 * How stiff a hub sits on its shaft, N·m/rad: c·E·d²·L; Infinity where there is no bore.
 *
 * @param bore d, m
 * @param length L, m
 * Source: a bore, flat or key in an even bed gives by its radius squared times its length and modulus; c from the shop.
 */
export const hubTurning = (of: ToothMaterial, bore: number, length: number, shelf: Shelf): number =>
  hubOf(elastic(of, factor(shelf, 'ambient'), shelf), bore, length, shelf);

/**
 * The same of a modulus, Pa.
 * @example hubOf(3e9, 0.008, 0.01, shelf) // 960
 */
export const hubOf = (modulus: number, bore: number, length: number, shelf: Shelf): number =>
  bore > 0 ? factor(shelf, 'hub.turn') * modulus * bore ** 2 * length : Infinity;
