import { factor, type Shelf } from '../shop/shelf.ts';
import { expectedRange } from './epicyclic.ts';
import { meshPlaySpread } from './mesh.ts';
import type { Pair } from './pair.ts';

/** A mesh of the planets as the output sees it. */
export interface PlanetMesh {
  /** Angle at the output for a metre along the mesh's circle, rad/m. */
  readonly angle: number;
  readonly pair: Pair;
}

/** Play of planets that run side by side, rad at the output, and what it comes from. */
export interface PlanetPlay {
  /** One planet alone, by allowances only. */
  readonly one: number;
  /** What is left on the tight side; below nought some planets bind. */
  readonly bind: number;
  readonly least: number;
  readonly likely: number;
  readonly most: number;
}

/**
 * Play of a planetary train from the plays of its meshes. Along one planet they add; bearings and shafts add theirs at
 * each mesh. Several planets leave play only where the free ranges of all overlap: less, by the range of their places.
 *
 * @param meshes every mesh of one planet
 * @param planets how many run side by side
 * @returns rad at the output
 * Source: Willis for small angles; expected range d₂(N)·σ of N places.
 * @example planetPlay([{ angle: 30, pair: { play: 8e-5, working: 0.34906585 } },
 *   { angle: 40, pair: { play: 8e-5, working: 0.34906585 } }], 3, shelf) // { one: 0.0056, bind: 0.00164954,
 *   least: 0.00164954, likely: 0.0052785, most: 0.00890746 }
 * @example planetPlay([{ angle: 30, pair: { play: 8e-5, working: 0.34906585 } },
 *   { angle: 40, pair: { play: 8e-5, working: 0.5 } }], 1, shelf) // { one: 0.0056, bind: 0.00323904,
 *   least: 0.00323904, likely: 0.006125, most: 0.00901096 }
 */
export function planetPlay(meshes: readonly PlanetMesh[], planets: number, shelf: Shelf): PlanetPlay {
  let [one, sum, squares, thick] = [0, 0, 0, 0];
  for (const m of meshes) {
    one += m.angle * m.pair.play;
    sum += m.angle;
    squares += m.angle * m.angle;
    thick += (m.angle * meshPlaySpread(m.pair, shelf)) ** 2;
  }
  const both = Math.sqrt(squares);
  const unlike = Math.sqrt(thick);
  const tilt = sum * factor(shelf, 'gear.tilt');
  const overlap = planets > 1 ? expectedRange(planets) * (factor(shelf, 'planet.place') / 2) * both : 0;
  const bind = one - unlike - 2 * overlap;
  return {
    one,
    bind,
    least: Math.max(0, bind),
    likely: Math.max(0, one + tilt / 2 - overlap),
    most: one + unlike + tilt,
  };
}
