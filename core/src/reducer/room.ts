import { hullArcs, hullOutline } from '../shape/hull.ts';
import { prism, type Solid } from '../shape/solid.ts';
import { sweptBy } from './body.ts';
import type { Reducer } from './reducer.ts';

/** Room that a housing of the maker's own must leave free, seen along the axis, and where it lies along it, m. */
export interface Room {
  readonly solid: Solid;
  readonly from: number;
  readonly to: number;
}

/**
 * The room that the stages of a line sweep, grown by a gap; undefined where axes cross or everything is bought.
 *
 * @param gap all round and at both ends, m
 */
export function roomOf({ layout }: Reducer, gap: number): Room | undefined {
  const stages = layout.stages.filter((s) => !s.bought);
  if (!layout.parallel || stages.length === 0) return undefined;
  const swept = stages.flatMap((s) => s.bodies.map(sweptBy));
  const from = Math.min(...swept.map((s) => s.from)) - gap;
  const to = Math.max(...swept.map((s) => s.to)) + gap;
  const outline = hullOutline(
    hullArcs(
      swept.flatMap((s) => s.rounds),
      gap,
    ),
  );
  return { solid: { prisms: [prism(outline, from, to)] }, from, to };
}
