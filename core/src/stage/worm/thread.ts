import { fitArcs, mirrored, type Curve } from '../../shape/curve.ts';
import { flatten } from '../../shape/flatten.ts';
import { OutlinePen, type Outline } from '../../shape/outline.ts';
import type { CrossedMesh } from '../../gear/index.ts';

/**
 * A transverse curve of a helicoid as it shows in the axial section: radius stays, angle becomes the way along the
 * axis.
 *
 * @param advance way along the axis for one radian, m
 */
const axial =
  (c: Curve, advance: number): Curve =>
  (u, out) => {
    c(u, out);
    const [radius, heading] = [Math.hypot(out[0]!, out[1]!), out[2]!];
    let angle = Math.atan2(out[1]!, out[0]!);
    // One side of a single start runs from 0 to just π, where rounding may tip it over to −π.
    if (angle < -1) angle += 2 * Math.PI;
    out[0] = radius;
    out[1] = angle * advance;
    out[2] = Math.atan2((Math.sin(heading - angle) * advance) / radius, Math.cos(heading - angle));
  };

/** One thread of a worm in its axial section, from space to space: pairs of place along the axis and radius, m. */
export function threadProfile(m: CrossedMesh, tolerance: number): Float64Array {
  const pen = new OutlinePen();
  const advance = m.s1.r * Math.tan(m.lead);
  const pieces = m.sides[0].pieces.map((p) => axial(p.curve, advance));
  for (const c of [...pieces].reverse()) fitArcs(mirrored(c), tolerance / 2, pen);
  for (const c of pieces) fitArcs(c, tolerance / 2, pen);
  const end = new Float64Array(3);
  pieces[pieces.length - 1]!(1, end);
  const flat = flatten(pen.to(end[0]!, end[1]!).open(), tolerance / 2);
  const out = new Float64Array(flat.length);
  for (let i = 0; i < flat.length; i += 2) [out[i], out[i + 1]] = [flat[i + 1]!, flat[i]!];
  return out;
}

/** A row of threads between two places, cut off square there; `offset` is where the middle of one thread lies. */
function row(thread: Float64Array, from: number, to: number, offset: number): [number, number][] {
  const pitch = thread[thread.length - 2]! - thread[0]!;
  const out: [number, number][] = [];
  let before: [number, number] | undefined;
  const put = (x: number, r: number) => {
    if (before) {
      const [bx, br] = before;
      for (const edge of [from, to])
        if (bx < edge !== x < edge && x !== bx) out.push([edge, br + ((r - br) * (edge - bx)) / (x - bx)]);
    }
    if (x >= from && x <= to) out.push([x, r]);
    before = [x, r];
  };
  const first = Math.floor((from - offset) / pitch) - 1;
  for (let k = first; offset + (k - 1) * pitch < to; k++)
    for (let i = k === first ? 0 : 2; i < thread.length; i += 2) put(offset + k * pitch + thread[i]!, thread[i + 1]!);
  return out;
}

/** The axial section of a worm, lying along x about a height: threads below at `offset`, above half a turn on. */
export function axialSection(
  m: CrossedMesh,
  thread: Float64Array,
  length: number,
  height: number,
  offset: number,
): Outline {
  const half = Math.PI * m.s1.r * Math.tan(m.lead);
  const pen = new OutlinePen();
  for (const [x, r] of row(thread, -length / 2, length / 2, offset)) pen.to(x, height - r);
  for (const [x, r] of row(thread, -length / 2, length / 2, offset + half).reverse()) pen.to(x, height + r);
  return pen.close();
}
