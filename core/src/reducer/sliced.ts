import { prism, type Prism } from '../shape/solid.ts';
import type { Outline } from '../shape/outline.ts';

/** A hole that goes through part of a plate: from one height to another, m. */
export interface Hole {
  readonly outline: Outline;
  readonly from: number;
  readonly to: number;
}

/** Heights nearer to each other than this are one, m. */
const SAME = 1e-9;

/**
 * A plate with holes of several depths, as one prism for every height at which something changes. Where holes of one axis
 * overlap, the wider is meant to be given alone for that height.
 */
export function sliced(outer: Outline, from: number, to: number, holes: readonly Hole[]): Prism[] {
  const cuts = [from, to, ...holes.flatMap((h) => [h.from, h.to])]
    .filter((z) => z >= from - SAME && z <= to + SAME)
    .sort((a, b) => a - b)
    .filter((z, i, all) => i === 0 || z - all[i - 1]! > SAME);
  return cuts.slice(1).map((top, i) => {
    const middle = (cuts[i]! + top) / 2;
    return prism(
      outer,
      cuts[i]!,
      top,
      holes.filter((h) => h.from < middle && h.to > middle).map((h) => h.outline),
    );
  });
}
