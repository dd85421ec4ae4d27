import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { meshSolid } from '../solid/mesh.ts';
import type { Prism, Solid } from '../shape/solid.ts';
import type { Body } from './body.ts';
import type { Frame } from './frame.ts';
import { isRound, poseOf } from './pose.ts';

/** Two pieces that stand in one another. */
export interface Clash {
  readonly a: string;
  readonly b: string;
  /** Volume they share, mm³, and the turn of the motor at which most, rad. */
  readonly volume: number;
  readonly crank: number;
}

/** How far the search has come. */
export interface ClashProgress {
  readonly share: number;
}

const MM = 1000;
/** Facets stand off the true surface by at most this, m. */
const CHORD = 1e-5;
/** Every surface is taken back by this, so that what is meant to fit does not count: fits closer than twice it do not, m. */
export const TAKEN_BACK = 2e-5;
/** Ends of layers are taken back by no less than this, m: a boolean is slow on faces that lie in one plane. */
const APART = 1e-7;
/** Volume that counts, mm³. */
const COUNTS = 2e-3;

interface Piece {
  readonly body: Body;
  readonly frame: Frame;
  readonly shape: Manifold;
  readonly box: ReturnType<Manifold['boundingBox']>;
}

/** A frame as the kernel takes it: columns, with the place in millimetres. */
const matrix = (f: Frame): Parameters<Manifold['transform']>[0] => [
  ...f.x,
  0,
  ...f.y,
  0,
  ...f.z,
  0,
  f.at[0] * MM,
  f.at[1] * MM,
  f.at[2] * MM,
  1,
];

/** Whether the boxes round two pieces are nearer to each other than so much, mm. */
function together({ box: p }: Piece, { box: q }: Piece, by: number): boolean {
  for (let k = 0; k < 3; k++) if (p.max[k]! + by < q.min[k]! || q.max[k]! + by < p.min[k]!) return false;
  return true;
}

/**
 * A solid whose layers are taken back at both of their ends, and whose cuts reach as much further. Layers of one body
 * stand apart by that, which hides nothing that counts; faces that lie in one plane, on which a boolean is slow, are gone.
 */
export const endsTakenBack = (solid: Solid, by: number): Solid => ({
  prisms: solid.prisms.map((p) => shortened(p, p.cut ? -by : by)).filter((p) => p.to > p.from),
  ...(solid.tapers && { tapers: solid.tapers.map((t) => ({ ...t, from: t.from + by, to: t.to - by })) }),
});

/** A prism that is shorter by so much at both ends, with the rest of its twist or slant where it was. */
function shortened(p: Prism, by: number): Prism {
  const share = by / (p.to - p.from);
  return {
    ...p,
    from: p.from + by,
    to: p.to - by,
    twist: p.twist * (1 - 2 * share),
    ...(p.twist !== 0 && { turn: (p.turn ?? 0) + p.twist * share }),
    ...(p.leans && { leans: slantWithin(p.leans, share) }),
  };
}

/** A slant without a share of it at either end. */
const slantWithin = ([from, to]: readonly [number, number], share: number): [number, number] => [
  from + (to - from) * share,
  to - (to - from) * share,
];

/** Every rigid body as the kernel has it, its surface taken back; word of each as it is made. */
function* shapesOf(kernel: ManifoldToplevel, bodies: readonly Body[]): Generator<number, Map<Body, Manifold>> {
  const shapes = new Map<Body, Manifold>();
  for (const [i, b] of bodies.entries()) {
    const shape = shapeOf(kernel, b, TAKEN_BACK);
    if (shape) shapes.set(b, shape);
    yield (i + 1) / bodies.length;
  }
  return shapes;
}

function shapeOf(kernel: ManifoldToplevel, b: Body, takenBack: number): Manifold | undefined {
  const mesh = meshSolid(kernel, endsTakenBack(b.solid(), Math.max(takenBack, APART)), CHORD, takenBack);
  return (
    mesh &&
    new kernel.Manifold(new kernel.Mesh({ numProp: 3, vertProperties: mesh.vertices, triVerts: mesh.triangles }))
  );
}

/** Distance of two pieces by their true surfaces, m; `within` where they are farther apart than that. */
class Distances {
  private readonly shapes = new Map<Body, Manifold | undefined>();
  private readonly placed = new Map<Piece, Manifold | undefined>();

  constructor(private readonly kernel: ManifoldToplevel) {}

  between(p: Piece, q: Piece, within: number): number {
    const [a, b] = [this.at(p), this.at(q)];
    return a && b ? a.minGap(b, within * MM) / MM : within;
  }

  /** Gives back what no longer stands where it stood. */
  keep(pieces: readonly Piece[]): void {
    const stays = new Set(pieces);
    for (const [piece, shape] of this.placed)
      if (!stays.has(piece)) {
        shape?.delete();
        this.placed.delete(piece);
      }
  }

  private at(piece: Piece): Manifold | undefined {
    if (!this.placed.has(piece)) this.placed.set(piece, this.shape(piece.body)?.transform(matrix(piece.frame)));
    return this.placed.get(piece);
  }

  private shape(body: Body): Manifold | undefined {
    if (!this.shapes.has(body)) this.shapes.set(body, shapeOf(this.kernel, body, 0));
    return this.shapes.get(body);
  }

  delete(): void {
    this.keep([]);
    for (const m of this.shapes.values()) m?.delete();
  }
}

/** Whether two frames are one to the bit. */
const isSame = (p: Frame, q: Frame): boolean =>
  [0, 1, 2].every((k) => p.at[k] === q.at[k] && p.x[k] === q.x[k] && p.y[k] === q.y[k] && p.z[k] === q.z[k]);

/**
 * Every piece where it stands at an angle of the crank, in the same order each time. What stands still is left as it was at
 * the angle before; what has moved is given back.
 */
function piecesAt(shapes: ReadonlyMap<Body, Manifold>, crank: number, before: readonly Piece[]): Piece[] {
  let n = 0;
  return [...shapes].flatMap(([body, shape]) =>
    body.places(crank).map((frame): Piece => {
      const was = before[n++];
      if (was && isSame(was.frame, frame)) return was;
      was?.shape.delete();
      const placed = shape.transform(matrix(frame));
      return { body, frame, shape: placed, box: placed.boundingBox() };
    }),
  );
}

/** Poses that were looked at, of each pair of bodies. */
class Poses {
  private readonly seen = new Map<string, Set<string>>();
  private readonly round = new Map<Body, boolean>();

  isNew(pair: string, p: Piece, q: Piece): boolean {
    const pose = poseOf(p.frame, q.frame, this.isRound(p.body), this.isRound(q.body));
    const of = this.seen.get(pair) ?? new Set();
    this.seen.set(pair, of);
    return of.size < of.add(pose).size;
  }

  private isRound(body: Body): boolean {
    const known = this.round.get(body) ?? isRound(body.solid());
    this.round.set(body, known);
    return known;
  }
}

const joined = (a: Body, b: Body): boolean => Boolean(a.joins?.includes(b.id) || b.joins?.includes(a.id));

/** Two bodies that move against each other, and how near they come. */
export interface Near {
  readonly a: string;
  readonly b: string;
  /** m */
  readonly gap: number;
  readonly crank: number;
}

/** Bodies that stand in one another, and those that come nearest to each other as they move. */
export interface Clearances {
  readonly clashes: readonly Clash[];
  readonly near: readonly Near[];
}

/** Distances are looked for up to this, m. */
const WITHIN = 4e-3;
/** Distances are measured at every so many of the turns: what turns against something round keeps its distance. */
const EVERY = 3;

/**
 * Whether two bodies must keep clear of each other: what turns unlike, and belongs to unlike things. Teeth and rollers of
 * a stage touch on purpose, and so does a shaft in its bearing.
 */
const keepsClear = (a: Body, b: Body): boolean =>
  a.speed !== b.speed &&
  !(a.of === b.of && a.stage === b.stage && a.of !== 'case') &&
  !/bearing/.test(a.id) &&
  !/bearing/.test(b.id);

/**
 * Pieces of a reducer that stand in one another at angles of the crank, and how near those come that move against each
 * other; a pair that stands to each other as it did before is not looked at again. What bends or runs is left out: it is shown as it was made.
 *
 * @param cranks turns of the motor, rad
 * @param within distances are looked for up to this, m; at 0 none are
 * @returns each pair of bodies once, by the most that they share, and by the least distance
 */
export function* clashesOf(
  kernel: ManifoldToplevel,
  bodies: readonly Body[],
  cranks: readonly number[],
  within = WITHIN,
): Generator<ClashProgress, Clearances> {
  const making = shapesOf(
    kernel,
    bodies.filter((b) => !b.flexes),
  );
  let made = making.next();
  for (; !made.done; made = making.next()) yield { share: 0.4 * made.value };
  const shapes = made.value;
  const found = new Map<string, Clash>();
  const near = new Map<string, Near>();
  const distances = new Distances(kernel);
  const shared = new Poses();
  const apart = new Poses();
  let pieces: Piece[] = [];
  for (const [n, crank] of cranks.entries()) {
    pieces = piecesAt(shapes, crank, pieces);
    distances.keep(pieces);
    for (let i = 0; i < pieces.length; i++)
      for (let j = i + 1; j < pieces.length; j++) {
        const [p, q] = [pieces[i]!, pieces[j]!];
        if (joined(p.body, q.body)) continue;
        const key = `${p.body.id} ${q.body.id}`;
        const isClose = together(p, q, 0);
        if (isClose && shared.isNew(key, p, q)) {
          const both = p.shape.intersect(q.shape);
          const volume = both.volume();
          both.delete();
          if (volume > Math.max(COUNTS, found.get(key)?.volume ?? 0))
            found.set(key, { a: p.body.id, b: q.body.id, volume, crank });
        }
        if (n % EVERY || within <= 0 || !keepsClear(p.body, q.body)) continue;
        const reach = Math.min(within, near.get(key)?.gap ?? within);
        if (!isClose && !together(p, q, reach * MM)) continue;
        if (!apart.isNew(key, p, q)) continue;
        const gap = distances.between(p, q, reach);
        if (gap < reach - 1e-9) near.set(key, { a: p.body.id, b: q.body.id, gap, crank });
      }
    yield { share: 0.4 + (0.6 * (n + 1)) / cranks.length };
  }
  for (const p of pieces) p.shape.delete();
  for (const m of shapes.values()) m.delete();
  distances.delete();
  return {
    clashes: [...found.values()].sort((a, b) => b.volume - a.volume),
    near: [...near.values()].sort((a, b) => a.gap - b.gap),
  };
}

/** Turns of the motor at which a line is looked at: a dozen over a turn, and one that no tooth count divides. */
export const CRANKS: readonly number[] = [...Array.from({ length: 12 }, (_, k) => (k * Math.PI) / 6 + 0.05), 40.7];
