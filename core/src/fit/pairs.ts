import type { Body } from '../reducer/body.ts';
import { pointIn, type Vec } from '../reducer/frame.ts';
import type { Outline } from '../shape/outline.ts';
import { roundOf } from '../shape/round-of.ts';
import type { Solid } from '../shape/solid.ts';
import type { Purpose } from './purposes.ts';

/** A round face of a body: a hole, or an outside. */
interface Face {
  readonly hole: boolean;
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly from: number;
  readonly to: number;
}

/** One side of a pair. */
export interface PairSide {
  /** Body, by its id, and its part's name. */
  readonly body: string;
  readonly name: string;
  readonly stage: number;
  readonly diameter: number;
}

/** Two round things of a reducer that go into one another. */
export interface MatingPair {
  readonly id: string;
  readonly purpose: Purpose;
  readonly hole: PairSide;
  readonly shaft: PairSide;
  /** How many such pairs there are. */
  readonly count: number;
  /** Length over which they touch, m. */
  readonly long: number;
}

/** Faces that run past each other by less than this do not hold each other, m. */
const LEAST = 2e-4;
/** Axes nearer than this are one. */
const ALIGNED = 2e-5;
/** A hole this much wider or narrower in diameter than what goes through it is another thing's, m. */
const [WIDER, NARROWER] = [8e-4, 2e-4];

/** Round faces of a solid, in its own frame; a face that lies on another part of the same body is none. */
export function facesOf({ prisms }: Solid): Face[] {
  const faces: Face[] = [];
  const add = (outline: Outline, hole: boolean, from: number, to: number) => {
    const round = roundOf(outline);
    if (round) faces.push({ hole, ...round, from, to });
  };
  for (const p of prisms) {
    if (p.cut) add(p.outer, true, p.from, p.to);
    else {
      add(p.outer, false, p.from, p.to);
      for (const h of p.holes) add(h, true, p.from, p.to);
    }
  }
  return faces;
}

/** Across the flats of a hexagon, m; undefined for other outlines. */
export function hexagonAcross({ points, closed }: Outline): number | undefined {
  if (!closed || points.length !== 18) return undefined;
  let [x, y] = [0, 0];
  for (let i = 0; i < 6; i++) {
    if (points[3 * i + 2] !== 0) return undefined;
    x += points[3 * i]! / 6;
    y += points[3 * i + 1]! / 6;
  }
  const radii = Array.from({ length: 6 }, (_, i) => Math.hypot(points[3 * i]! - x, points[3 * i + 1]! - y));
  const r = radii[0]!;
  return radii.every((q) => Math.abs(q - r) < 1e-7) ? r * Math.sqrt(3) : undefined;
}

const isBearing = (b: Body): boolean => /bearing|needle/i.test(b.part.name) && b.part.material === 'as supplied';
/** Whether it is made here, and can be drawn to fit. */
const made = (b: Body): boolean =>
  b.part.made === 'printed' || (b.of !== 'motor' && b.part.material !== 'as supplied' && !isScrew(b));
const isScrew = (b: Body): boolean => /^(screw|threaded rod)/i.test(b.part.name);
const isWasherOrNut = (b: Body): boolean => /^(washer|nut)/i.test(b.part.name);

/** What a pair is there for, from what its bodies are and how they turn. */
function purposeOf(h: Standing, s: Standing): Purpose {
  const [hole, shaft] = [h.body, s.body];
  if (isScrew(shaft)) return 'screw';
  if (isBearing(shaft)) return 'seat';
  if (isBearing(hole)) return 'hub';
  if (shaft.id === 'motor/body') return 'locate';
  if (shaft.id === 'motor/shaft') return 'hub';
  if (!together(h, s)) return 'run';
  if (/\bpin\b|\brod\b/i.test(shaft.part.name)) return 'press';
  return hole.turns === 'fixed' ? 'locate' : 'hub';
}

/** A face of a piece where it stands. */
interface Standing {
  readonly body: Body;
  readonly piece: number;
  readonly face: Face;
  readonly axis: Vec;
  readonly at: Vec;
  /** Place of its ends along its axis. */
  readonly from: number;
  readonly to: number;
}

const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

function standing(bodies: readonly Body[]): Standing[] {
  return bodies.flatMap((body) => {
    const faces = facesOf(body.solid());
    return body.places(0).flatMap((frame, piece) =>
      faces.map((face): Standing => {
        // Axes that point against each other are one and the same.
        const flip = frame.z[2] < -0.5 || (Math.abs(frame.z[2]) <= 0.5 && frame.z[0] < 0) ? -1 : 1;
        const axis: Vec = [flip * frame.z[0], flip * frame.z[1], flip * frame.z[2]];
        const at = pointIn(frame, [face.x, face.y, 0]);
        const ends = [face.from, face.to].map((z) => dot(pointIn(frame, [face.x, face.y, z]), axis));
        return { body, piece, face, axis, at, from: Math.min(...ends), to: Math.max(...ends) };
      }),
    );
  });
}

/** Angle of the crank at which it is looked whether two pieces have turned against each other, rad. */
const TURNED = 0.37;

/** Whether two pieces on one axis turn alike: their own x axes keep their angle. */
function together(a: Standing, b: Standing): boolean {
  const between = (crank: number): number => {
    const [p, q] = [a.body.places(crank)[a.piece]!, b.body.places(crank)[b.piece]!];
    return Math.atan2(dot(q.x, p.y), dot(q.x, p.x));
  };
  const turned = between(TURNED) - between(0);
  return Math.abs(Math.sin(turned / 2)) < 1e-7;
}

/** Whether two faces stand on one axis. */
function coaxial(a: Standing, b: Standing): boolean {
  if (dot(a.axis, b.axis) < 1 - 1e-9) return false;
  const d: Vec = [b.at[0] - a.at[0], b.at[1] - a.at[1], b.at[2] - a.at[2]];
  const along = dot(d, a.axis);
  return Math.hypot(d[0] - along * a.axis[0], d[1] - along * a.axis[1], d[2] - along * a.axis[2]) < ALIGNED;
}

/**
 * Every pair of round faces of a reducer that go into one another: bearings in their seats, shafts in hubs, pins in plates
 * and planets, screws in their holes. Found by where bodies stand, so that a new kind of stage has its pairs as well.
 *
 * @param bodies of the line, in their places
 */
export function matingPairs(bodies: readonly Body[]): MatingPair[] {
  const all = standing(bodies.filter((b) => !isWasherOrNut(b) && !b.flexes));
  const holes = all.filter((s) => s.face.hole);
  const shafts = all.filter((s) => !s.face.hole).sort((a, b) => a.face.r - b.face.r);
  const found = new Map<
    string,
    { readonly pair: Omit<MatingPair, 'count' | 'id' | 'long'>; readonly lengths: Map<string, number> }
  >();
  for (const h of holes) {
    let from = 0;
    let to = shafts.length;
    const least = h.face.r - WIDER / 2;
    while (from < to) {
      const m = (from + to) >> 1;
      if (shafts[m]!.face.r < least) from = m + 1;
      else to = m;
    }
    for (let i = from; i < shafts.length && shafts[i]!.face.r <= h.face.r + NARROWER / 2; i++) {
      const s = shafts[i]!;
      if (s.body === h.body) continue;
      // A screw that bites is in its thread or its insert there, and passes nothing.
      if (isScrew(s.body) && s.body.joins?.includes(h.body.id)) continue;
      const long = Math.min(h.to, s.to) - Math.max(h.from, s.from);
      if (!(long > LEAST) || !coaxial(h, s)) continue;
      // Of two bought things neither is the reader's to fit.
      if (!made(h.body) && !made(s.body)) continue;
      const [dh, ds] = [2 * h.face.r, 2 * s.face.r];
      const purpose = purposeOf(h, s);
      const um = (x: number) => Math.round(x * 1e6);
      const id = `${h.body.id}>${s.body.id}>${um(dh)}>${um(ds)}>${purpose}`;
      const pieces = `${h.piece}/${s.piece}`;
      const had = found.get(id);
      if (had) {
        had.lengths.set(pieces, (had.lengths.get(pieces) ?? 0) + long);
        continue;
      }
      const side = (b: Body, diameter: number): PairSide => ({
        body: b.id,
        name: b.part.name,
        stage: b.stage,
        diameter,
      });
      found.set(id, {
        pair: { purpose, hole: side(h.body, dh), shaft: side(s.body, ds) },
        lengths: new Map([[pieces, long]]),
      });
    }
  }
  const traps = bodies.flatMap((b) => trapsOf(b));
  const pairs = [...found].map(([id, { pair, lengths }]) => ({
    id,
    ...pair,
    count: lengths.size,
    long: Math.max(...lengths.values()),
  }));
  return [...pairs, ...traps];
}

/** Traps for hexagon nuts: each with a nut of its size, which is no body of the line. */
function trapsOf(body: Body): MatingPair[] {
  if (/^(nut|washer|screw|threaded)/i.test(body.part.name)) return [];
  const across = new Map<number, { count: number; deep: number }>();
  for (const p of body.solid().prisms) {
    const a = p.cut ? hexagonAcross(p.outer) : undefined;
    if (a === undefined) continue;
    const key = Math.round(a * 1e6) / 1e6;
    across.set(key, { count: (across.get(key)?.count ?? 0) + 1, deep: p.to - p.from });
  }
  return [...across].map(([a, { count, deep }]) => ({
    id: `${body.id}>nut>${a}`,
    purpose: 'nut' as const,
    hole: { body: body.id, name: body.part.name, stage: body.stage, diameter: a },
    shaft: { body: 'nut', name: 'Nut ISO 4032', stage: -1, diameter: a },
    count: count * body.places(0).length,
    long: deep,
  }));
}
