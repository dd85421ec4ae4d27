import type { CrossSection, Manifold, ManifoldToplevel } from 'manifold-3d';
import { boundsOf } from '../shape/bounds.ts';
import { flatten } from '../shape/flatten.ts';
import { ORIGIN, scaled, type Outline } from '../shape/outline.ts';
import { endsOf, ownPrisms, type Prism, type Solid, type Taper } from '../shape/solid.ts';
import { evenly, isPlain, NO_CORRECTION, offsetOf, type Correction } from './correction.ts';

/** A closed surface of triangles, millimetres, counter-clockwise from outside. */
export interface TriangleMesh {
  readonly vertices: Float32Array;
  readonly triangles: Uint32Array;
  /** Enclosed volume, mm³, as the kernel finds it. */
  readonly volume: number;
}

const MM = 1000;
/** How far cuts reach beyond a face, so that none leaves a skin, m. */
const THROUGH = 1e-4;

/** An outline as the kernel takes it: pairs in mm. */
function ring(o: Outline, chordError: number): [number, number][] {
  const p = flatten(o, chordError);
  return Array.from({ length: p.length / 2 }, (_, i) => [p[2 * i]! * MM, p[2 * i + 1]! * MM]);
}

/**
 * Layers a twisted prism needs so that its surface strays no further than the chord error: each turns by at most
 * 2·acos(1 − e/r).
 */
function layers(p: Prism, chordError: number): number {
  if (p.twist === 0) return 0;
  const b = boundsOf([{ outline: p.outer, at: ORIGIN }])!;
  const r = Math.max(Math.abs(b.x0), Math.abs(b.x1), Math.abs(b.y0), Math.abs(b.y1));
  return Math.max(1, Math.ceil(Math.abs(p.twist) / (2 * Math.acos(1 - Math.min(0.5, chordError / r)))) - 1);
}

/** A section offset by so much, m; outwards above 0. */
function offset(section: CrossSection, by: number, chordError: number): CrossSection {
  if (by === 0) return section;
  // Round corners outside are parted as finely as the rest; sharp ones stay sharp up to twice the way.
  const out = section.offset(
    by * MM,
    'Miter',
    2,
    Math.max(8, Math.ceil(Math.PI / Math.sqrt(chordError / Math.max(chordError, Math.abs(by))))),
  );
  section.delete();
  return out;
}

/** A contour as it is drawn for its process: offset, then scaled. */
function corrected(
  kernel: ManifoldToplevel,
  o: Outline,
  c: Correction,
  hole: boolean,
  chordError: number,
): CrossSection {
  const moved = offset(new kernel.CrossSection([ring(o, chordError)], 'EvenOdd'), offsetOf(c, o, hole), chordError);
  if (c.scale === 0) return moved;
  const scaled = moved.scale(1 / (1 + c.scale));
  moved.delete();
  return scaled;
}

/** The section of a prism, corrected. */
function sectionOf(kernel: ManifoldToplevel, p: Prism, chordError: number, c: Correction): CrossSection {
  if (isPlain(c))
    return new kernel.CrossSection(
      [p.outer, ...p.holes].map((o) => ring(o, chordError)),
      'EvenOdd',
    );
  const outer = corrected(kernel, p.outer, c, p.cut === true, chordError);
  if (p.holes.length === 0) return outer;
  const holes = p.holes.map((h) => corrected(kernel, h, c, p.cut !== true, chordError));
  const section = kernel.CrossSection.difference([outer, ...holes]);
  for (const x of [outer, ...holes]) x.delete();
  return section;
}

function body(kernel: ManifoldToplevel, p: Prism, chordError: number, correction: Correction): Manifold {
  const section = sectionOf(kernel, p, chordError, correction);
  const up = section.extrude((p.to - p.from) * MM, layers(p, chordError), (p.twist * 180) / Math.PI);
  const turned = up.rotate([0, 0, ((p.turn ?? 0) * 180) / Math.PI]);
  const [x0, x1] = p.leans ?? [0, 0];
  const slant = (x1 - x0) / (p.to - p.from);
  const placed = turned.transform([1, 0, 0, 0, 0, 1, 0, 0, slant, 0, 1, 0, x0 * MM, 0, p.from * MM, 1]);
  for (const x of [section, up, turned]) x.delete();
  return placed;
}

/** A contour from one height to another, m, grown on its way so many times. */
function upright(section: CrossSection, from: number, to: number, grows = 1): Manifold {
  const up = section.extrude((to - from) * MM, 0, 0, [grows, grows]);
  const placed = up.translate([0, 0, from * MM]);
  up.delete();
  return placed;
}

/**
 * What lies inside the sphere that a taper ends in, from beyond its one end to beyond its other: as it is drawn for its
 * process, across its axis as contours are.
 */
function ball(kernel: ManifoldToplevel, t: Taper, chordError: number, c: Correction): Manifold {
  const r = t.within + offsetOf(c, t.outer, false);
  const [far, near] = endsOf(t).map((z) => Math.abs(z - t.apex)) as [number, number];
  const [first, last] = [Math.acos(Math.min(1, (far + THROUGH) / r)), Math.acos((near - THROUGH) / r)];
  // Chords of the arc and of its way round the axis keep within the error.
  const step = 2 * Math.acos(1 - chordError / r);
  const n = Math.ceil((last - first) / step);
  const arc = Array.from({ length: n + 1 }, (_, i): [number, number] => {
    const angle = first + ((last - first) * i) / n;
    return [r * Math.sin(angle) * MM, r * Math.cos(angle) * MM];
  });
  const half = new kernel.CrossSection([[[0, arc[n]![1]], ...[...arc].reverse(), [0, arc[0]![1]]]], 'EvenOdd');
  const round = half.revolve(Math.ceil((2 * Math.PI) / step));
  // It opens away from the apex: upwards, or turned over.
  const up = endsOf(t)[0] > t.apex ? 1 : -1;
  const across = 1 / (1 + c.scale);
  const placed = round.transform([across, 0, 0, 0, 0, up * across, 0, 0, 0, 0, up, 0, 0, 0, t.apex * MM, 1]);
  for (const x of [half, round]) x.delete();
  return placed;
}

/**
 * A taper as it is drawn for its process. Its contour is moved by what is told half way along it, and so by less towards its
 * apex and by more at its outer end.
 */
function tapered(kernel: ManifoldToplevel, t: Taper, chordError: number, c: Correction): Manifold {
  const [low, high] = [t.from, t.to].map((z) => Math.abs(z - t.apex)) as [number, number];
  const middle = (low + high) / 2;
  const section = corrected(kernel, scaled(t.outer, middle), c, false, chordError / 2);
  const lowest = section.scale(low / middle);
  const teeth = upright(lowest, t.from, t.to, high / low);
  const inside = ball(kernel, t, chordError, c);
  const bored = t.holes.map((h) => {
    const hole = corrected(kernel, h, c, true, chordError);
    const tool = upright(hole, t.from - THROUGH, t.to + THROUGH);
    hole.delete();
    return tool;
  });
  const whole = teeth.intersect(inside);
  const out = kernel.Manifold.difference([whole, ...bored]);
  for (const x of [section, lowest, teeth, inside, whole, ...bored]) x.delete();
  return out;
}

/** Steps in which the lowest layers of a foot are drawn in. */
const FOOT_STEPS = 3;
/** Part of a foot that its contours may be off by. */
const FOOT_FINE = 20;

/** A body whose lowest layers are narrower by what spreads there: less and less up to where nothing does. */
function withoutFoot(
  kernel: ManifoldToplevel,
  whole: Manifold,
  foot: NonNullable<Correction['foot']>,
  low: number,
): Manifold {
  const [z, high] = [low * MM, foot.high * MM];
  const kernelParts: Manifold[] = [];
  const above = whole.trimByPlane([0, 0, 1], z + high);
  kernelParts.push(above);
  for (let k = 0; k < FOOT_STEPS; k++) {
    const [from, to] = [(high * k) / FOOT_STEPS, (high * (k + 1)) / FOOT_STEPS];
    const slice = whole.slice(z + (from + to) / 2);
    // Half of the step's own share: at the bed all of it, at its top nothing.
    const inset = slice.offset(-foot.by * MM * (1 - (k + 0.5) / FOOT_STEPS), 'Miter', 2, 16);
    // What is drawn in by a step need not be told finer than a part of it; a file has a fraction of the triangles.
    const plain = inset.simplify((foot.by * MM) / FOOT_FINE);
    const slab = plain.extrude(to - from);
    kernelParts.push(slab.translate([0, 0, z + from]));
    for (const x of [slice, inset, plain, slab]) x.delete();
  }
  const out = kernel.Manifold.union(kernelParts);
  for (const x of kernelParts) x.delete();
  return out;
}

/**
 * A mark of what a solid is: alike for alike bodies, so that a surface can be kept by it.
 *
 * Source: two runs of FNV-1a over the bits of its numbers.
 */
export function solidKey(solid: Solid): string {
  let [a, b] = [0x811c9dc5, 0xc59d1c81];
  const take = (list: ArrayLike<number>) => {
    const bits = new Uint32Array(Float64Array.from(list).buffer);
    for (const x of bits) {
      a = Math.imul(a ^ x, 0x01000193);
      b = Math.imul(b ^ x ^ (b >>> 13), 0x85ebca6b);
    }
  };
  for (const t of solid.tapers ?? []) {
    take([t.apex, t.from, t.to, t.within]);
    take(t.outer.points);
    for (const h of t.holes) take(h.points);
  }
  for (const p of ownPrisms(solid)) {
    take([p.from, p.to, p.twist, p.turn ?? 0, ...(p.leans ?? [0, 0]), p.cut ? 1 : 0, p.holes.length]);
    take(p.outer.points);
    for (const h of p.holes) take(h.points);
  }
  return [a, b].map((x) => (x >>> 0).toString(16).padStart(8, '0')).join('');
}

/**
 * Meshes a solid: prisms added, then what is cut taken away.
 *
 * @param kernel the boolean kernel, loaded by whoever calls, since that takes a file
 * @param chordError largest distance of the surface from the exact one, m; outline and twist share it
 * @param correction what a process adds and is taken off beforehand; a number moves every contour into the material, m
 * @returns undefined where nothing is left
 */
export function meshSolid(
  kernel: ManifoldToplevel,
  solid: Solid,
  chordError: number,
  correction: Correction | number = NO_CORRECTION,
): TriangleMesh | undefined {
  const half = chordError / 2;
  const by = typeof correction === 'number' ? evenly(correction) : correction;
  const added = ownPrisms(solid).filter((p) => !p.cut);
  const tapers = solid.tapers ?? [];
  const ends = [...added, ...tapers];
  const [low, high] = [Math.min(...ends.map((p) => p.from)), Math.max(...ends.map((p) => p.to))];
  const bodies = [...added.map((p) => body(kernel, p, half, by)), ...tapers.map((t) => tapered(kernel, t, half, by))];
  const cuts = solid.prisms
    .filter((p) => p.cut)
    .map((p) =>
      body(
        kernel,
        { ...p, from: p.from <= low ? p.from - THROUGH : p.from, to: p.to >= high ? p.to + THROUGH : p.to },
        half,
        by,
      ),
    );
  const joined = bodies.length === 1 ? bodies[0]! : kernel.Manifold.union(bodies);
  let whole = cuts.length ? kernel.Manifold.difference([joined, ...cuts]) : joined;
  // The kernel's memory is its own: all that was made on the way is given back.
  const made = [...bodies, ...cuts, joined, whole];
  if (by.foot && by.foot.by > 0 && by.foot.high > 0) made.push((whole = withoutFoot(kernel, whole, by.foot, low)));
  const mesh = whole.getMesh();
  const volume = whole.volume();
  const empty = mesh.triVerts.length === 0;
  const vertices = new Float32Array((mesh.vertProperties.length / mesh.numProp) * 3);
  for (let i = 0, n = vertices.length / 3; i < n; i++)
    for (let k = 0; k < 3; k++) vertices[3 * i + k] = mesh.vertProperties[mesh.numProp * i + k]!;
  const out = { vertices, triangles: Uint32Array.from(mesh.triVerts), volume };
  for (const m of new Set(made)) m.delete();
  return empty ? undefined : out;
}

/** Layers whose contours have their material inside; where a part has an outside of its own, only that. */
const INSIDE = /^(profile(-[ab])?|seats|eccentric-\d+|axial-section)$/;
/** Layers that are only drawn, not cut. */
const DRAWN = /^(mark|clearance|pitch-circle)$/;

/**
 * Contours of an outline file drawn for their process, as closed straight pieces.
 *
 * @param curves closed ones are moved; open ones and marks stay
 * @param correction what a process adds; a number moves every contour into the material, m
 * @param chordError largest distance of the pieces from the exact contour, m
 */
export function compensated(
  kernel: ManifoldToplevel,
  curves: readonly { readonly layer: string; readonly outline: Outline }[],
  correction: Correction | number,
  chordError: number,
): { layer: string; outline: Outline }[] {
  const by = typeof correction === 'number' ? evenly(correction) : correction;
  const shell = curves.some((c) => c.layer === 'outside');
  return curves.flatMap(({ layer, outline }) => {
    if (!outline.closed || DRAWN.test(layer)) return [{ layer, outline }];
    const solid = layer === 'outside' || (!shell && INSIDE.test(layer));
    const section = corrected(kernel, outline, by, !solid, chordError);
    const polygons = section.toPolygons();
    section.delete();
    return polygons.map((polygon) => ({
      layer,
      outline: { points: Float64Array.from(polygon.flatMap(([x, y]) => [x! / MM, y! / MM, 0])), closed: true },
    }));
  });
}
