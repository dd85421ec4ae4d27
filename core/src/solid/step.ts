import type * as Kit from 'replicad';
import { ok, refuse, type Result } from '../result.ts';
import { exactContour, type ExactPiece } from '../shape/exact.ts';
import { place, type Outline } from '../shape/outline.ts';
import { endsOf, ownPrisms, solidVolume, type Prism, type Solid, type Taper } from '../shape/solid.ts';

/** The kit of exact bodies, handed in by whoever has loaded its kernel. */
export type StepKit = typeof Kit;

type Body = Kit.Shape3D;
type Point = [number, number, number];

const MM = 1000;
/** Splines stay this close to their points, mm. */
const NEAR = 1e-6;
/** How far cuts reach beyond a face, mm. */
const THROUGH = 0.1;

function edgeOf(kit: StepKit, q: ExactPiece, z: number): Kit.Edge {
  const at = (i: number): Point => [q.points[2 * i]! * MM, q.points[2 * i + 1]! * MM, z];
  if (q.kind === 'line') return kit.makeLine(at(0), at(1));
  if (q.kind === 'arc') return kit.makeThreePointArc(at(0), at(1), at(2));
  return kit.makeBSplineApproximation(
    Array.from({ length: q.points.length / 2 }, (_, i) => at(i)),
    { tolerance: NEAR, degMin: 3, degMax: 6 },
  );
}

/** A closed contour at a height, mm, turned by an angle. */
function wireOf(kit: StepKit, outline: Outline, z: number, turn = 0): Kit.Wire {
  const { pieces, repeat } = exactContour(outline);
  const one = pieces.map((q) => edgeOf(kit, q, z));
  const all: Kit.Edge[] = [];
  for (let k = 0; k < repeat; k++)
    for (const e of one)
      all.push(repeat === 1 && turn === 0 ? e : e.clone().rotate((360 * k) / repeat + (turn * 180) / Math.PI));
  return kit.assembleWire(all);
}

const faceOf = (
  kit: StepKit,
  outer: Outline,
  holes: readonly Outline[],
  z: number,
  turn = 0,
  holesTurn = turn,
): Kit.Face => {
  const face = kit.makeFace(wireOf(kit, outer, z, turn));
  return holes.length
    ? kit.addHolesInFace(
        face,
        holes.map((o) => wireOf(kit, o, z, holesTurn)),
      )
    : face;
};

/** The wall that one part of a contour sweeps as it goes up and round, repeated round the axis. */
function twistedWall(kit: StepKit, outline: Outline, p: Prism): Kit.Shell[] {
  const [z0, h] = [p.from * MM, (p.to - p.from) * MM];
  const { pieces, repeat } = exactContour(outline);
  const wire = kit.assembleWire(pieces.map((q) => edgeOf(kit, q, z0)));
  const spine = kit.assembleWire([kit.makeLine([0, 0, z0], [0, 0, z0 + h])]);
  // A helix beside the spine leads the section round as it goes up.
  const lead = kit.makeHelix((2 * Math.PI * h) / Math.abs(p.twist), h, 1, [0, 0, z0], [0, 0, 1], p.twist < 0);
  const [shell] = kit.genericSweep(wire, spine, { auxiliarySpine: lead }, true);
  return Array.from(
    { length: repeat },
    (_, k) => shell.clone().rotate((360 * k) / repeat + ((p.turn ?? 0) * 180) / Math.PI) as unknown as Kit.Shell,
  );
}

/** The wall of a contour that goes straight up. */
const straightWall = (kit: StepKit, outline: Outline, from: number, to: number): Kit.Shell => {
  const wire = wireOf(kit, outline, from * MM);
  const [shell] = kit.genericSweep(
    wire,
    kit.assembleWire([kit.makeLine([0, 0, from * MM], [0, 0, to * MM])]),
    {},
    true,
  );
  return shell as unknown as Kit.Shell;
};

const round = (o: Outline): boolean => exactContour(o).repeat === 1;

/**
 * The walls of prisms that go on from one another with one contour; a round one goes straight up while teeth go round.
 */
const wallsOf = (kit: StepKit, column: readonly Prism[], outlines: readonly Outline[]): Kit.Shell[] =>
  outlines.flatMap((o) =>
    round(o) || column[0]!.twist === 0
      ? [straightWall(kit, o, column[0]!.from, column[column.length - 1]!.to)]
      : column.flatMap((p) => twistedWall(kit, o, p)),
  );

const endTurn = (column: readonly Prism[], end: 'bottom' | 'top'): number =>
  end === 'bottom' ? (column[0]!.turn ?? 0) : (column[column.length - 1]!.turn ?? 0) + column[column.length - 1]!.twist;

/**
 * Twisted prisms that go on from one another with one contour: a helical wheel, or both hands of a double one, with
 * what is bored straight through.
 */
function twistedColumn(kit: StepKit, column: readonly Prism[], through: readonly Outline[]): Body {
  const [first, last] = [column[0]!, column[column.length - 1]!];
  const cap = (z: number, turn: number) => {
    const turned = (o: Outline) => wireOf(kit, o, z, round(o) ? 0 : turn);
    const holes = [...first.holes.map(turned), ...through.map((o) => wireOf(kit, o, z))];
    const face = kit.makeFace(turned(first.outer));
    return holes.length ? kit.addHolesInFace(face, holes) : face;
  };
  return kit.makeSolid([
    cap(first.from * MM, endTurn(column, 'bottom')),
    ...wallsOf(kit, column, [first.outer, ...first.holes]),
    ...through.map((o) => straightWall(kit, o, first.from, last.to)),
    cap(last.to * MM, endTurn(column, 'top')),
  ]);
}

/** Smallest and largest distance of a contour's points from the axis, m. */
function reach(o: Outline): [number, number] {
  let [low, high] = [Infinity, 0];
  for (const { points } of exactContour(o).pieces)
    for (let i = 0; i < points.length; i += 2) {
      const r = Math.hypot(points[i]!, points[i + 1]!);
      [low, high] = [Math.min(low, r), Math.max(high, r)];
    }
  return [low, high];
}

/**
 * Columns without holes that stand on one another, each contour wholly inside or outside the next: a worm on its shaft.
 * Made of faces, since a boolean over a thread of many turns takes
 * the kernel half a minute.
 *
 * @returns undefined where the columns are not so
 */
function nestedStack(kit: StepKit, columns: readonly (readonly Prism[])[]): Body | undefined {
  const faces: (Kit.Face | Kit.Shell)[] = [];
  for (const [i, column] of columns.entries()) {
    const top = column[column.length - 1]!.to;
    const next = columns[i + 1];
    if (column.some((p) => p.holes.length > 0)) return undefined;
    faces.push(...wallsOf(kit, column, [column[0]!.outer]));
    if (i === 0)
      faces.push(kit.makeFace(wireOf(kit, column[0]!.outer, column[0]!.from * MM, endTurn(column, 'bottom'))));
    const here = () => wireOf(kit, column[0]!.outer, top * MM, endTurn(column, 'top'));
    if (!next) faces.push(kit.makeFace(here()));
    else {
      if (Math.abs(next[0]!.from - top) > 1e-9) return undefined;
      const [a, b] = [reach(column[0]!.outer), reach(next[0]!.outer)];
      const there = () => wireOf(kit, next[0]!.outer, top * MM, endTurn(next, 'bottom'));
      if (b[1] < a[0] - 1e-6) faces.push(kit.addHolesInFace(kit.makeFace(here()), [there()]));
      else if (a[1] < b[0] - 1e-6) faces.push(kit.addHolesInFace(kit.makeFace(there()), [here()]));
      else return undefined;
    }
  }
  return kit.makeSolid(faces);
}

/** One straight prism as an exact body. */
function straightBody(kit: StepKit, p: Prism): Body {
  const [x0, x1] = p.leans ?? [0, 0];
  const there = (o: Outline) => (x0 === 0 ? o : place(o, { x: x0, y: 0, turn: 0 }));
  return kit.basicFaceExtrusion(
    faceOf(kit, there(p.outer), p.holes.map(there), p.from * MM, p.turn),
    new kit.Vector([(x1 - x0) * MM, 0, (p.to - p.from) * MM]),
  );
}

/** Teeth that taper towards their apex: faces ruled from one end to the other, inside a sphere, with holes straight through. */
function taperedBody(kit: StepKit, t: Taper): Body {
  const [far, near] = endsOf(t);
  const apex: Point = [0, 0, t.apex * MM];
  const share = (near - t.apex) / (far - t.apex);
  const { pieces, repeat } = exactContour(t.outer);
  const large = pieces.map((q) =>
    edgeOf(kit, { ...q, points: q.points.map((x) => x * Math.abs(far - t.apex)) }, far * MM),
  );
  // One that is the other drawn in about the apex: what is ruled between them are pieces of cones.
  const small = large.map((e) => e.clone().scale(share, apex));
  const wall = kit.loft([kit.assembleWire(large), kit.assembleWire(small)], { ruled: true }, true);
  const all = <T extends { clone: () => T; rotate: (deg: number) => T }>(list: readonly T[]): T[] =>
    Array.from({ length: repeat }, (_, k) => list.map((e) => e.clone().rotate((360 * k) / repeat))).flat();
  const cap = (edges: readonly Kit.Edge[]) => kit.makeFace(kit.assembleWire(all(edges)));
  const teeth = kit.makeSolid([cap(large), ...all([wall as unknown as Kit.Shell]), cap(small)]);
  const inside = teeth.intersect(kit.makeSphere(t.within * MM).translate(apex));
  const holes = t.holes.map((h) =>
    straightBody(kit, { outer: h, holes: [], from: t.from - THROUGH / MM, to: t.to + THROUGH / MM, twist: 0 }),
  );
  return holes.reduce((body, hole) => body.cut(hole), inside);
}

/**
 * A solid as an exact body: splines and arcs swept straight or round, then put together.
 *
 * @throws Error where the kernel cannot sweep or join it
 */
export function exactBody(kit: StepKit, solid: Solid): Body {
  const tapers = solid.tapers ?? [];
  const added = ownPrisms(solid).filter((p) => !p.cut);
  let cuts = solid.prisms.filter((p) => p.cut);
  const ends = [...added, ...tapers];
  const [low, high] = [Math.min(...ends.map((p) => p.from)), Math.max(...ends.map((p) => p.to))];
  // Prisms of one contour go on from one another: the hands of a double helix.
  const columns: Prism[][] = [];
  for (const p of [...added].sort((x, y) => x.from - y.from)) {
    const before = columns[columns.length - 1];
    if (before && p.twist !== 0 && before[0]!.outer === p.outer) before.push(p);
    else columns.push([p]);
  }
  if (columns.length > 1 && cuts.length === 0 && tapers.length === 0) {
    const stack = nestedStack(kit, columns);
    if (stack) return stack;
  }
  const bodies = columns.map((column) => {
    if (column[0]!.twist === 0) return straightBody(kit, column[0]!);
    const [from, to] = [column[0]!.from, column[column.length - 1]!.to];
    // What goes through the whole of it is bored as it is made, which spares a boolean over hundreds of faces.
    const through = cuts.filter((c) => Math.abs(c.from - from) < 1e-9 && Math.abs(c.to - to) < 1e-9);
    cuts = cuts.filter((c) => !through.includes(c));
    return twistedColumn(
      kit,
      column,
      through.map((c) => c.outer),
    );
  });
  const body = [...bodies, ...tapers.map((t) => taperedBody(kit, t))].reduce((a, b) => a.fuse(b));
  if (cuts.length === 0) return body;
  const tools = cuts.map((p) =>
    straightBody(kit, {
      ...p,
      from: p.from <= low + 1e-9 ? p.from - THROUGH / MM : p.from,
      to: p.to >= high - 1e-9 ? p.to + THROUGH / MM : p.to,
    }),
  );
  return body.cut((tools.length === 1 ? tools[0]! : kit.makeCompound(tools)) as Body);
}

/** A named exact body with its volume as the kernel finds it, mm³. */
export interface NamedBody {
  readonly name: string;
  readonly shape: Body;
  readonly volume: number;
}

/**
 * How far a swept body's volume may be from that of its outlines before it is not trusted; cuts may overlap by so much.
 */
const TRUST = 0.03;

/**
 * Makes a named body and looks whether it came out whole; where it did not, that is said, and a meshed file is the way.
 */
export function namedBody(kit: StepKit, name: string, solid: Solid): Result<NamedBody> {
  const no = (why: string) =>
    refuse(`“${name}” could not be made as an exact body.`, why, 'Take it as STL or 3MF with a fine chord error.');
  try {
    const shape = exactBody(kit, solid);
    const volume = kit.measureVolume(shape);
    const expected = solidVolume(solid) * MM ** 3;
    if (!(Math.abs(volume / expected - 1) < TRUST))
      return no(`Swept, it holds ${volume.toFixed(1)} mm³ where its outlines make ${expected.toFixed(1)} mm³.`);
    return ok({ name, shape, volume });
  } catch (error) {
    return no(
      `Its teeth could not be swept or joined (${error instanceof Error ? error.message : 'the kernel gave up'}).`,
    );
  }
}

/**
 * A STEP file whose names are told in ASCII: what is not is escaped by its UTF-16 units.
 *
 * Source: ISO 10303-21, 6.4.3.3, \\X2\\…\\X0\\.
 */
export function inAscii(file: Uint8Array): Uint8Array {
  const text = new TextDecoder().decode(file);
  const units = (s: string) => [...Array(s.length).keys()].map((i) => s.charCodeAt(i).toString(16).padStart(4, '0'));
  // eslint-disable-next-line no-control-regex
  const escaped = text.replace(/[^\x00-\x7f]+/g, (s) => `\\X2\\${units(s).join('').toUpperCase()}\\X0\\`);
  return escaped === text ? file : new TextEncoder().encode(escaped);
}

/** Bodies as one STEP file (ISO 10303-21, AP242) in millimetres. */
export async function writeStep(kit: StepKit, bodies: readonly NamedBody[]): Promise<Uint8Array> {
  const blob = kit.exportSTEP(
    bodies.map((b) => ({ shape: b.shape, name: b.name })),
    { unit: 'MM', modelUnit: 'MM' },
  );
  return inAscii(new Uint8Array(await blob.arrayBuffer()));
}
