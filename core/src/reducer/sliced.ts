import { boundsOf, type Bounds } from '../shape/bounds.ts';
import { flatten } from '../shape/flatten.ts';
import { hullArcs, hullOutline } from '../shape/hull.ts';
import { ORIGIN, type Outline } from '../shape/outline.ts';
import { prism, type Prism } from '../shape/solid.ts';
import { insideOf } from './cut-line.ts';
import { roundsOf } from './reach.ts';

/** A hole that goes through part of a plate: from one height to another, m. */
export interface Hole {
  readonly outline: Outline;
  readonly from: number;
  readonly to: number;
}

/** Heights nearer to each other than this are one, m. */
const SAME = 1e-9;

/** How far a chord of an outline may be off where it is asked whether two meet, m. */
const CHORD = 1e-5;

const apart = (a: Bounds, b: Bounds): boolean => a.x1 < b.x0 || b.x1 < a.x0 || a.y1 < b.y0 || b.y1 < a.y0;

/** How much of an outline lies in another: all of its points, some, or none. */
function liesIn(o: Outline, other: Outline): 'all' | 'some' | 'none' {
  const points = flatten(o, CHORD);
  let inside = 0;
  for (let i = 0; i < points.length; i += 2) if (insideOf(other, points[i]!, points[i + 1]!)) inside++;
  return inside === 0 ? 'none' : 2 * inside === points.length ? 'all' : 'some';
}

/**
 * Holes as they come out where they run into one another: one that lies in another is none of its own, and two that overlap
 * are one, with straight sides from one to the other.
 */
export function opened(holes: readonly Outline[]): Outline[] {
  const out: { outline: Outline; bounds: Bounds }[] = [];
  const rest = [...holes];
  for (let next = rest.shift(); next; next = rest.shift()) {
    const outline = next;
    const bounds = boundsOf([{ outline, at: ORIGIN }])!;
    const met = out.findIndex(
      (o) =>
        !apart(o.bounds, bounds) && (liesIn(outline, o.outline) !== 'none' || liesIn(o.outline, outline) !== 'none'),
    );
    if (met < 0) {
      out.push({ outline, bounds });
      continue;
    }
    const [other] = out.splice(met, 1);
    if (liesIn(outline, other!.outline) === 'all') rest.unshift(other!.outline);
    else if (liesIn(other!.outline, outline) === 'all') rest.unshift(outline);
    else rest.unshift(hullOutline(hullArcs([...roundsOf(outline), ...roundsOf(other!.outline)])));
  }
  return out.map((o) => o.outline);
}

/** A plate with holes of several depths, as one prism for every height at which something changes. */
export function sliced(outer: Outline, from: number, to: number, holes: readonly Hole[]): Prism[] {
  const cuts = [from, to, ...holes.flatMap((h) => [h.from, h.to])]
    .filter((z) => z >= from - SAME && z <= to + SAME)
    .sort((a, b) => a - b)
    .filter((z, i, all) => i === 0 || z - all[i - 1]! > SAME);
  return cuts.slice(1).map((top, i) => {
    const middle = (cuts[i]! + top) / 2;
    const here = holes.filter((h) => h.from < middle && h.to > middle).map((h) => h.outline);
    return prism(outer, cuts[i]!, top, opened(here));
  });
}
