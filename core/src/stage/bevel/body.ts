import { drawnFrom, type ExactContour, type ExactPiece } from '../../shape/exact.ts';
import { OutlinePen, type Outline } from '../../shape/outline.ts';
import { prism, type Solid } from '../../shape/solid.ts';
import { circle } from '../../shape/outline.ts';
import { flankOf, type BevelGeometry, type Cone } from './geometry.ts';

/** Steps that stand in for a bevel's toothed body where only its room counts. */
const SLICES = 30;

/** A point of a flank in the section across the axis at distance 1 from the apex: radius tan θ. */
type Polar = readonly [radius: number, half: number];

/** Outline of teeth across the axis, at a distance from the apex, none of it farther out than `most`, m. */
function section(c: Cone, flank: readonly Polar[], distance: number, most: number): Outline {
  const pen = new OutlinePen();
  const step = (2 * Math.PI) / c.teeth;
  const put = (r: number, a: number) => pen.to(Math.min(most, r) * Math.cos(a), Math.min(most, r) * Math.sin(a));
  for (let k = 0; k < c.teeth; k++) {
    const middle = k * step;
    // Up one flank and down the other, counter-clockwise.
    for (const [r, half] of flank) put(distance * r, middle - half);
    for (let i = flank.length - 1; i >= 0; i--) put(distance * flank[i]![0], middle + flank[i]![1]);
  }
  return pen.close();
}

/** The flank in sections across the axis. */
const flankAcross = (c: Cone, pressure: number): readonly Polar[] =>
  flankOf(c, pressure).map(([cone, half]) => [Math.tan(cone), half] as const);

/** The outer end seen along the axis: what a drawing shows. */
export const seenAlong = (c: Cone, g: BevelGeometry, pressure: number): Outline =>
  section(
    c,
    // Seen along the axis a point of the sphere stands at R·sin θ.
    flankOf(c, pressure).map(([cone, half]) => [Math.sin(cone), half] as const),
    g.outer,
    Infinity,
  );

/** One tooth and the root beside it at distance 1 from the apex, for formats that hold splines. */
function toothOf(c: Cone, flank: readonly Polar[]): ExactContour {
  const step = (2 * Math.PI) / c.teeth;
  const put = ([r, half]: Polar, side: 1 | -1, at = 0) => [
    r * Math.cos(at + side * half),
    r * Math.sin(at + side * half),
  ];
  const [root, tip] = [flank[0]!, flank[flank.length - 1]!];
  const spline = (points: number[][]): ExactPiece => ({ kind: 'spline', points: Float64Array.from(points.flat()) });
  const line = (a: number[], b: number[]): ExactPiece => ({ kind: 'line', points: Float64Array.from([...a, ...b]) });
  return {
    pieces: [
      spline(flank.map((q) => put(q, -1))),
      line(put(tip, -1), put(tip, 1)),
      spline([...flank].reverse().map((q) => put(q, 1))),
      line(put(root, 1), put(root, -1, step)),
    ],
    repeat: c.teeth,
  };
}

/**
 * A bevel's body, its apex at z = 0 and its back at the mounting distance: teeth that taper towards the apex, between the
 * plane of the inner end's roots and the sphere of the outer end; behind them their rim and the hub. Steps across the axis,
 * each true in its middle, stand in for the teeth where only their room is asked.
 *
 * @param holes through all of it
 * @param towards 1 where the body lies along z, −1 where against it
 */
export function bevelBody(
  c: Cone,
  g: BevelGeometry,
  pressure: number,
  face: number,
  hub: number,
  holes: readonly Outline[],
  towards: 1 | -1,
): Solid {
  const inner = g.outer - face;
  const flank = flankAcross(c, pressure);
  // Towards the apex it ends in a plane where the roots of the inner end lie.
  const [from, to] = [inner * Math.cos(c.root), g.outer * Math.cos(c.root)];
  const between = (a: number, b: number) => (towards > 0 ? ([a, b] as const) : ([-b, -a] as const));
  const steps = Array.from({ length: SLICES }, (_, i) => {
    const [a, b] = [from + ((to - from) * i) / SLICES, from + ((to - from) * (i + 1)) / SLICES];
    const z = (a + b) / 2;
    const most = Math.sqrt(Math.max(0, g.outer ** 2 - z * z));
    return { ...prism(section(c, flank, z, most), ...between(a, b), holes), step: true };
  });
  const [low, high] = between(from, to);
  const outer = drawnFrom(section(c, flank, 1, Infinity), () => toothOf(c, flank));
  // A ring about the hub, or a disc that the hub stands on: prisms of one body do not overlap.
  const isRing = c.rim.within > hub;
  const top = to + c.rim.deep;
  return {
    prisms: [
      ...steps,
      prism(circle(0, 0, c.rim.over), ...between(to, top), isRing ? [circle(0, 0, c.rim.within)] : holes),
      prism(circle(0, 0, Math.min(hub, c.rim.over)), ...between(isRing ? to : top, c.mount), holes),
    ],
    tapers: [{ outer, holes, apex: 0, from: low, to: high, within: g.outer }],
  };
}
