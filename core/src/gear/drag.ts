import type { Bearing } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';

/** Above this product of viscosity, mm²/s, and speed, rpm, drag grows with both. */
const TURBULENT = 2000;

/**
 * No-load torque of a ball bearing, N·m: 10⁻¹⁰·f₀·(ν·n)^⅔·d_m³, and 1.6·10⁻⁸·f₀·d_m³ where ν·n stays below 2000, with ν in
 * mm²/s, n in rpm and d_m in mm.
 *
 * @param speed of one ring against the other, rad/s; its sign does not matter
 * @param f0 by the kind of bearing and how it is greased
 * @param viscosity of the oil or of a grease's oil, mm²/s
 * Source: Palmgren, load-independent part.
 * @example bearingTorque({ bore: 0.017, outside: 0.023 }, 104.71976, 2, 100) // 0.00344709561
 */
export function bearingTorque(
  b: Pick<Bearing, 'bore' | 'outside'>,
  speed: number,
  f0: number,
  viscosity: number,
): number {
  const mean = ((b.bore + b.outside) / 2) * 1e3;
  const product = (viscosity * Math.abs(speed) * 30) / Math.PI;
  return f0 * mean ** 3 * (product < TURBULENT ? 1.6e-8 : 1e-10 * Math.cbrt(product) ** 2);
}

/** The same with how the shop greases its bearings. */
export const bearingDrag = (b: Pick<Bearing, 'bore' | 'outside'>, speed: number, shelf: Shelf): number =>
  bearingTorque(b, speed, factor(shelf, 'drag.bearing'), factor(shelf, 'drag.viscosity'));

/** Across the stage that the shop's drag of greased teeth is told for, m. */
const TOLD_FOR = 0.08;

/**
 * Drag of greased teeth or lobes and what seals them, at the input, N·m: it grows with the square of the size.
 *
 * Source: a film's drag by its area; that area and its lever grow with the size, what an input turns at does not.
 * @param outside of the stage, m
 */
export const greaseDrag = (outside: number, shelf: Shelf): number =>
  factor(shelf, 'gear.churn') * (outside / TOLD_FOR) ** 2;

/**
 * The same at the input of a stage that may speed up: what turns fastest drags it.
 * @param ratio input over output speed, of either sign
 */
export const greaseAtInput = (outside: number, ratio: number, shelf: Shelf): number =>
  greaseDrag(outside, shelf) * Math.max(1, 1 / Math.abs(ratio));
