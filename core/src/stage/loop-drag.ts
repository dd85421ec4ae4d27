import { factor, type Shelf } from '../shop/shelf.ts';

/**
 * Drag of the shafts of a belt, chain or cable drive at its input, N·m: each has its seals, and bearings that the loop loads; the driven
 * shaft's reaches the input through the ratio.
 *
 * @param loads on the driving and on the driven shaft, N
 * @param bores of their bearings, m
 * @example shaftDrag([100, 100], [0.008, 0.008], 3, shelf) // 0.0048
 */
export function shaftDrag(
  loads: readonly [number, number],
  bores: readonly [number, number],
  ratio: number,
  shelf: Shelf,
): number {
  const of = (i: 0 | 1) => factor(shelf, 'belt.seal') + (factor(shelf, 'belt.bearing') * loads[i] * bores[i]) / 2;
  return of(0) + of(1) / ratio;
}
