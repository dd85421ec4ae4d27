import { crept, hubTurning, seatStiffness, type ToothMaterial } from '../gear/index.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Spring } from './contract.ts';
import { spring } from './springs.ts';

/** A wheel on the shaft that turns it, and one on its own or screwed to what it turns; lengths in m. */
interface BothHubs {
  readonly bore1: number;
  readonly bore2: number;
  readonly bolts2: number;
  readonly boltCircle2: number;
}

/**
 * How stiff a wheel is on screws through it, N·m/rad: each lies in its hole as a pin in its seat, n·k·L·R².
 *
 * @param circle diameter of the screws' circle, m
 * @param length of the holes, m
 * Source: force balance of n seats on a circle; friction under the heads, which holds until it slips, is left to be found.
 */
export const screwedTurning = (
  of: ToothMaterial,
  screws: number,
  circle: number,
  length: number,
  shelf: Shelf,
): number => screws * seatStiffness(of, shelf) * length * (circle / 2) ** 2;

/**
 * Springs of the first and the last wheel on their shafts, about the output, N·m/rad.
 *
 * @param widths of both along their shafts, m
 * @param ratio what the first turns by gives at the output by so much less, from so much less torque: its spring counts by
 *   the square
 */
export function hubSprings(
  p: BothHubs,
  names: readonly [string, string],
  widths: readonly [number, number],
  materials: readonly [ToothMaterial, ToothMaterial],
  ratio: number,
  shelf: Shelf,
): readonly [Spring, Spring] {
  const [first, last] = materials;
  const turned = hubTurning(first, p.bore1, widths[0], shelf) * ratio ** 2;
  return [
    spring(`${names[0]} on its shaft`, turned, crept(first)),
    p.bolts2 > 0
      ? spring(
          `${names[1]} on its screws`,
          screwedTurning(last, p.bolts2, p.boltCircle2, widths[1], shelf),
          crept(last),
        )
      : spring(`${names[1]} on its shaft`, hubTurning(last, p.bore2, widths[1], shelf), crept(last)),
  ];
}
