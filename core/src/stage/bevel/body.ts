import { OutlinePen, type Outline } from '../../shape/outline.ts';
import { prism, type Prism } from '../../shape/solid.ts';
import { circle } from '../../shape/outline.ts';
import { flankOf, type BevelGeometry, type Cone } from './geometry.ts';

/** Slices that a bevel's toothed body is laid of. */
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

/**
 * A bevel's body, its apex at z = 0 and its back at the mounting distance: slices across the axis, each true in its middle,
 * between the plane of the inner end’s roots and the sphere of the outer end; then its hub.
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
): Prism[] {
  const inner = g.outer - face;
  const flank = flankAcross(c, pressure);
  // Towards the apex it ends in a plane where the roots of the inner end lie.
  const [from, to] = [inner * Math.cos(c.root), g.outer * Math.cos(c.root)];
  const out: Prism[] = [];
  const lay = (outline: Outline, a: number, b: number, more: readonly Outline[]) =>
    out.push(towards > 0 ? prism(outline, a, b, more) : prism(outline, -b, -a, more));
  for (let i = 0; i < SLICES; i++) {
    const [a, b] = [from + ((to - from) * i) / SLICES, from + ((to - from) * (i + 1)) / SLICES];
    const z = (a + b) / 2;
    const most = Math.sqrt(Math.max(0, g.outer ** 2 - z * z));
    lay(section(c, flank, z, most), a, b, holes);
  }
  lay(circle(0, 0, Math.min(hub, to * Math.tan(c.root))), to, c.mount, holes);
  return out;
}

/** How far the slices' steps stand off the true body, along its cone, m: half a slice's height times its slope. */
export const sliceError = (c: Cone, face: number): number =>
  ((face * Math.cos(c.root)) / SLICES / 2) * Math.tan(c.pitch);
