import { factor, type Shelf } from '../../shop/shelf.ts';
import type { BeltParams } from './params.ts';

/** Width that a bought pulley's hub adds, m, and that flanges add to any. */
export const HUB = 6e-3;
export const FLANGES = 2e-3;
/** Wall of a bought pulley's hub round the bore, m. */
export const HUB_WALL = 3e-3;
/** Width whose price the shop states for belts and teeth, m. */
const PRICED_WIDTH = 6e-3;

/** How long a pulley's bore is, m: through its teeth and flanges, and through the hub of a bought one. */
export const onShaft = (made: BeltParams['made1'], width: number): number =>
  width + FLANGES + (made === 'bought' ? HUB : 0);

/**
 * Mass of a pulley: a disc over its teeth with flanges; a bought one has a hub besides.
 *
 * @param outside radius over the teeth, m
 * @param bore diameter, m
 * @param width of the belt, m
 * @returns kg
 * @example pulleyMass('printed', 0.02, 0.008, 0.006, shelf) // 0.00772078
 */
export function pulleyMass(
  made: BeltParams['made1'],
  outside: number,
  bore: number,
  width: number,
  shelf: Shelf,
): number {
  const ring = (outer: number, long: number) => Math.PI * Math.max(0, outer ** 2 - (bore / 2) ** 2) * long;
  const bought = made === 'bought';
  const volume = ring(outside, width + FLANGES) + (bought ? ring(bore / 2 + HUB_WALL, HUB) : 0);
  return volume * factor(shelf, bought ? 'metal.density' : 'printed.density');
}

/**
 * Price of a pulley: a bought one by its teeth and width, a printed one by its mass.
 *
 * @param width of the belt, m
 * @param mass kg
 * @returns the shop's currency
 */
export const pulleyPrice = (
  made: BeltParams['made1'],
  teeth: number,
  width: number,
  mass: number,
  shelf: Shelf,
): number =>
  made === 'bought'
    ? factor(shelf, 'price.pulley') + (factor(shelf, 'price.tooth') * teeth * width) / PRICED_WIDTH
    : mass * factor(shelf, 'price.print');

/**
 * Price of a belt by its length and width.
 *
 * @param length m
 * @param width m
 * @returns the shop's currency
 */
export const beltPrice = (length: number, width: number, shelf: Shelf): number =>
  (factor(shelf, 'price.belt') * length * width) / PRICED_WIDTH;
