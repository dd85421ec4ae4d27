import { RANGE } from '../gear/mesh-gap.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { ProcessFit } from './process-fit.ts';

/** A factor of the shop that a process knows better than its starting value. */
export interface TaughtFactor {
  readonly id: 'gear.thickness' | 'lobe.profile';
  readonly name: string;
  /** What the shop counts on now, what the process says, and its range, m. */
  readonly now: number;
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** Pressure angle of the basic rack, by which a flank's stand is seen along the circle. */
const COS = Math.cos(Math.PI / 9);

/**
 * How much tooth thickness and lobed profiles made by a process stray, as half ranges: by how its sizes scatter, and by
 * how well its mean is known once it is corrected. Expected play follows from them.
 *
 * A contour scatters by half of a size; a tooth has two flanks, each seen along the circle as c/cos α.
 * Source: half ranges are 1.96 standard deviations, as the shop's factors are read.
 */
export function taughtFactors(fit: ProcessFit, shelf: Shelf): TaughtFactor[] {
  const contour = Math.hypot(fit.spread.value / 2, fit.out.u);
  const rel = fit.spread.u / Math.max(1e-12, fit.spread.value);
  const told = (id: TaughtFactor['id'], value: number): TaughtFactor => ({
    id,
    name: shelf.factors[id]!.name,
    now: factor(shelf, id),
    value,
    low: value * Math.max(0.4, 1 - RANGE * rel),
    high: value * (1 + RANGE * rel),
  });
  return [told('gear.thickness', (RANGE * 2 * contour) / COS), told('lobe.profile', RANGE * contour)];
}
