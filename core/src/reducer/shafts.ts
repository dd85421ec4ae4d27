import { isBall } from '../shop/bearings.ts';
import { findBearing, type Shelf } from '../shop/shelf.ts';
import type { Bearing } from '../schema/joint.ts';
import type { Ports } from '../stage/contract.ts';

/** A shaft or a flange that carries power out of a stage: to the next one, or to the load. */
export interface Link {
  /** Place of the stage it comes out of, in the line. */
  readonly stage: number;
  /** Diameter, m. */
  readonly diameter: number;
  /** Its diameter in the next stage, m: turned with a step where the bore there is a smaller one. */
  readonly into: number;
  /** It stands beside the input of its stage, so that it can be borne on either side. */
  readonly beside: boolean;
  /** It hangs on a flange of the stage, with a hub of its own. */
  readonly flange: Ports['output']['flange'] | undefined;
  readonly hub: boolean;
  /** What it runs in; undefined where the shop has none that fits. */
  readonly bearing: Bearing | undefined;
  /** The stage has paid for a pair of bearings. */
  readonly paid: boolean;
}

/** Shaft of a hub where what comes next does not say one, m. */
const USUAL_SHAFT = 8e-3;
/** Bores nearer than this fit, m. */
export const FITS = 5e-5;

/**
 * The ball bearing of a bore that takes up least; undefined where the shop has none of it.
 *
 * @param bore m
 */
export function smallestBearing(shelf: Shelf, bore: number): Bearing | undefined {
  const fitting = shelf.bearings.filter((b) => isBall(b) && Math.abs(b.bore - bore) < FITS);
  const least = fitting.sort((a, b) => a.outside - b.outside || a.width - b.width)[0];
  return least && findBearing(shelf, least.id);
}

/**
 * What carries the power out of each stage of a housed run, the last to the load or to the stage behind the housing.
 *
 * @param behind ports of the stage behind the run, if any
 */
export function linksOf(ports: readonly Ports[], from: number, shelf: Shelf, behind?: Ports): Link[] {
  return ports.map(({ input, output }, k): Link => {
    const next = ports[k + 1] ?? behind;
    const hub = !(output.shaft > 0);
    const diameter = output.shaft || next?.input.shaft || USUAL_SHAFT;
    return {
      stage: from + k,
      diameter,
      // Thicker than its bearings it could not be put through them: a sleeve fills a wider bore.
      into: Math.min(next?.input.shaft || diameter, diameter),
      beside: Math.hypot(output.at[0] - input.at[0], output.at[1] - input.at[1]) > FITS,
      flange: output.flange,
      hub,
      bearing: smallestBearing(shelf, diameter),
      paid: output.pairPaid ?? false,
    };
  });
}
