import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { meshSolid } from '../solid/mesh.ts';
import type { Body } from './body.ts';
import type { Frame } from './frame.ts';

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
/** Volume that counts, mm³. */
const COUNTS = 2e-3;

interface Piece {
  readonly body: Body;
  readonly index: number;
  readonly shape: Manifold;
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

const together = (a: Manifold, b: Manifold): boolean => {
  const [p, q] = [a.boundingBox(), b.boundingBox()];
  return [0, 1, 2].every((k) => p.max[k]! >= q.min[k]! && q.max[k]! >= p.min[k]!);
};

/** Whether two bodies keep their places to each other as the motor turns: alike turned ones may do so about two axes. */
const still = (a: Body, b: Body): boolean => a.speed === 0 && b.speed === 0;

/**
 * Pieces of a reducer that stand in one another at angles of the crank; a pair that keeps its places is looked at once.
 * What bends or runs is left out: it is shown as it was made.
 *
 * @param cranks turns of the motor, rad
 * @returns each pair of bodies once, by the most that they share
 */
export function* clashesOf(
  kernel: ManifoldToplevel,
  bodies: readonly Body[],
  cranks: readonly number[],
): Generator<ClashProgress, Clash[]> {
  const rigid = bodies.filter((b) => !b.flexes);
  const meshes = new Map<Body, Manifold>();
  for (const [i, b] of rigid.entries()) {
    const mesh = meshSolid(kernel, b.solid(), CHORD, TAKEN_BACK);
    if (mesh)
      meshes.set(
        b,
        new kernel.Manifold(new kernel.Mesh({ numProp: 3, vertProperties: mesh.vertices, triVerts: mesh.triangles })),
      );
    yield { share: (0.4 * (i + 1)) / rigid.length };
  }
  const found = new Map<string, Clash>();
  for (const [n, crank] of cranks.entries()) {
    const pieces = rigid.flatMap((body): Piece[] => {
      const mesh = meshes.get(body);
      return mesh ? body.places(crank).map((f, index) => ({ body, index, shape: mesh.transform(matrix(f)) })) : [];
    });
    for (let i = 0; i < pieces.length; i++)
      for (let j = i + 1; j < pieces.length; j++) {
        const [p, q] = [pieces[i]!, pieces[j]!];
        if (n > 0 && still(p.body, q.body)) continue;
        if (p.body.joins?.includes(q.body.id) || q.body.joins?.includes(p.body.id)) continue;
        if (!together(p.shape, q.shape)) continue;
        const both = p.shape.intersect(q.shape);
        const volume = both.volume();
        both.delete();
        const key = `${p.body.id} ${q.body.id}`;
        if (volume > Math.max(COUNTS, found.get(key)?.volume ?? 0))
          found.set(key, { a: p.body.id, b: q.body.id, volume, crank });
      }
    for (const p of pieces) p.shape.delete();
    yield { share: 0.4 + (0.6 * (n + 1)) / cranks.length };
  }
  for (const m of meshes.values()) m.delete();
  return [...found.values()].sort((a, b) => b.volume - a.volume);
}

/** Turns of the motor at which a line is looked at: a dozen over a turn, and one that no tooth count divides. */
export const CRANKS: readonly number[] = [...Array.from({ length: 12 }, (_, k) => (k * Math.PI) / 6 + 0.05), 40.7];
