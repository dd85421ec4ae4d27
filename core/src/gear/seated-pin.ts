import { factor, type Shelf } from '../shop/shelf.ts';
import { elastic, strengthOf } from './material-state.ts';
import type { ToothMaterial } from './tooth-material.ts';

/** A round pin, and what it stands in; lengths m. */
export interface SeatedPin {
  readonly diameter: number;
  /** Of the pin, Pa. */
  readonly modulus: number;
  /** Stiffness of the bore that it stands in for a metre of its length, N/m². */
  readonly seat: number;
  /** How deep it stands in it, at each end where it is held at both. */
  readonly depth: number;
}

/** How far a pin gives for a newton, m/N: by its own bending, and in what it stands in. */
export interface PinGives {
  readonly bends: number;
  readonly seats: number;
}

/** Second moment of a round section, π·d⁴/64, m⁴. */
export const roundMoment = (d: number): number => (Math.PI * d ** 4) / 64;

/** Modulus of the plastic that the shop's stiffness of seats was told for, Pa. */
export const SEAT_OF = 3e9;

/**
 * Stiffness of a bore about a pin, for a metre of its length, N/m²: in proportion to the modulus of what it is in.
 * @param of the part with the bore
 */
export const seatStiffness = (of: ToothMaterial, shelf: Shelf): number =>
  seatOf(elastic(of, factor(shelf, 'ambient'), shelf), shelf);

/** The same of a modulus, Pa. */
export const seatOf = (modulus: number, shelf: Shelf): number => (factor(shelf, 'lobe.seat') * modulus) / SEAT_OF;

/**
 * A pin that stands out of one plate, pushed at a distance from it.
 *
 * Its own bending is x³/(3·E·I); its seat gives along the push by 1/(k·t) and lets it lean by (x + t/2)²·12/(k·t³).
 *
 * @param out from the plate's face to the push, m
 * Source: cantilever; rigid stub in an even bed of springs k over its depth t.
 * @example pinStanding({ diameter: 8e-3, modulus: 206e9, seat: 4e9, depth: 8e-3 }, 6e-3) // { bends: 1.738343e-9, seats: 6.171875e-7 }
 */
export function pinStanding(pin: SeatedPin, out: number): PinGives {
  const { depth: t, seat: k } = pin;
  return {
    bends: out ** 3 / (3 * pin.modulus * roundMoment(pin.diameter)),
    seats: 1 / (k * t) + (12 * (out + t / 2) ** 2) / (k * t ** 3),
  };
}

/**
 * A pin held in a plate at either end, pushed in the middle or evenly along it.
 *
 * How square its seats keep its ends, β = k·t³/12·L/(E·I), decides between clamped (β large) and free to lean (β = 0):
 * F·L³/(192·E·I)·(β + 8)/(β + 2) in the middle, F·L³/(384·E·I)·(β + 10)/(β + 2) evenly.
 *
 * @param between the plates' middles, m
 * Source: beam with springs at its ends that resist leaning, by superposition of end moments.
 * @example pinBetween({ diameter: 4e-3, modulus: 206e9, seat: 4e9, depth: 4e-3 }, 12e-3, 'spread') // { bends: 8.364096e-9, seats: 3.125e-8 }
 */
export function pinBetween(pin: SeatedPin, between: number, load: 'middle' | 'spread'): PinGives {
  const bending = pin.modulus * roundMoment(pin.diameter);
  const beta = (((pin.seat * pin.depth ** 3) / 12) * between) / bending;
  const own = between ** 3 / bending;
  return {
    bends: load === 'middle' ? (own / 192) * ((beta + 8) / (beta + 2)) : (own / 384) * ((beta + 10) / (beta + 2)),
    seats: 1 / (2 * pin.seat * pin.depth),
  };
}

/** Share of its strength that a seat of plastic is counted on: what stands pressed there creeps. */
const SEAT_COUNTS = 0.5;

/** Pressure that the wall of a seat stands on its projected area, Pa. */
export const seatStands = (of: ToothMaterial, shelf: Shelf): number =>
  (of.plastic ? SEAT_COUNTS : 1) * strengthOf(of, 'along', shelf);

/**
 * Push at which the seats of a pin that is held at either end give way, N: both walls yield along their depth.
 *
 * @param stands pressure that a seat stands, Pa
 * @example seatsHold({ diameter: 4e-3, depth: 3e-3 }, 35e6) // 840
 */
export const seatsHold = ({ diameter: d, depth: t }: Pick<SeatedPin, 'diameter' | 'depth'>, stands: number): number =>
  2 * d * t * stands;

/**
 * Push at which the seat of a pin that stands out of one plate gives way, N: it leans about a point in its depth, and the
 * walls yield to one side before that and to the other behind, F = d·t·p·(√(c² + 1) − c) with c = 2x/t + 1.
 *
 * @param out lever of the push about the plate’s face, m
 * @param stands pressure that a seat stands, Pa
 * Source: a stiff dowel in a bed that yields (Johansen 1949).
 * @example seatHoldsOut({ diameter: 6e-3, depth: 6e-3 }, 9e-3, 35e6) // 155.113
 */
export function seatHoldsOut(
  { diameter: d, depth: t }: Pick<SeatedPin, 'diameter' | 'depth'>,
  out: number,
  stands: number,
): number {
  const c = (2 * out) / t + 1;
  return d * t * stands * (Math.sqrt(c * c + 1) - c);
}
