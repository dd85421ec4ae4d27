import { fitArcs, type Curve } from '../shape/curve.ts';
import { drawnFrom, sampled } from '../shape/exact.ts';
import { OutlinePen, type Outline } from '../shape/outline.ts';
import { repeated } from '../shape/repeat.ts';

/** Steps of a lobe between which a spline runs. */
const SPLINE_STEPS = 48;

/**
 * A closed outline of equal lobes from the curve of one.
 *
 * @param tolerance largest distance of its arcs from the exact curve, m
 */
export function lobedOutline(curve: Curve, lobes: number, tolerance: number): Outline {
  const pen = new OutlinePen();
  fitArcs(curve, tolerance, pen);
  return drawnFrom(repeated(pen.close().points, lobes), () => ({
    pieces: [{ kind: 'spline', points: sampled(curve, SPLINE_STEPS) }],
    repeat: lobes,
  }));
}
