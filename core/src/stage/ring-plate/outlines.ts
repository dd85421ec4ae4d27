import { OutlinePen, type Outline } from '../../shape/outline.ts';
import type { RingPlateParams } from './params.ts';

/** The outside of a plate: the smallest convex slab round its lobes and its bearings, all widened by `more`, m. */
export function plateOutside(p: RingPlateParams, bearing: number, more = 0): Outline {
  const big = p.circle / 2 + p.throw + p.pin / 2 + p.offset + p.wall + more;
  const small = bearing / 2 + p.wall + more;
  const D = p.distance;
  // Angle at which the straight sides touch both rounds.
  const phi = Math.acos(Math.max(-1, Math.min(1, (big - small) / D)));
  const pen = new OutlinePen();
  const arc = (x: number, r: number, from: number, sweep: number) =>
    pen.arc(x, 0, r, from, sweep).to(x + r * Math.cos(from + sweep), r * Math.sin(from + sweep));
  arc(D, small, -phi, 2 * phi);
  if (p.layout === 'one') arc(0, big, phi, 2 * Math.PI - 2 * phi);
  else {
    arc(0, big, phi, Math.PI - 2 * phi);
    arc(-D, small, Math.PI - phi, 2 * phi);
    arc(0, big, Math.PI + phi, Math.PI - 2 * phi);
  }
  return pen.close();
}

/**
 * Radius of the wheel's body, m: a little inside the pins' middles, so that seats hold them, but clear of the lobes'
 * tips at their nearest.
 */
export const wheelBody = (p: Pick<RingPlateParams, 'circle' | 'pin' | 'throw' | 'offset'>): number =>
  Math.min(p.circle / 2 - 0.1 * p.pin, p.circle / 2 - 2 * p.throw + p.pin / 2 + p.offset - 2e-4);

/** Room between plates, so that they do not rub, m. */
export const GAP = 2e-4;

/** Centres of the cranks. */
export const crankPlaces = (p: Pick<RingPlateParams, 'layout' | 'distance'>): readonly number[] =>
  p.layout === 'one' ? [p.distance] : [p.distance, -p.distance];
