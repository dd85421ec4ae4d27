import type { Shelf } from '../shop/shelf.ts';
import { meshPlaySpread } from './mesh.ts';
import { planetPlay, type PlanetMesh } from './planet-play.ts';
import { HALVES, UNPRESSED, type Press } from './taken-out.ts';

/**
 * Ways in which springs take the play out of planets that run side by side between a sun and a ring.
 *
 * - sun, ring: that wheel in two halves, turned apart
 * - planets: every planet in two halves, turned apart
 * - pairs: every second planet's pin pushed along its circle, the others' fixed
 */
export type PlanetsOut = 'none' | 'sun' | 'ring' | 'planets' | 'pairs';

/** How the play of planets is taken out: not at all where a file of an earlier version does not say. */
export const planetsOutBy = (p: { readonly takenOut?: PlanetsOut | undefined }): PlanetsOut => p.takenOut ?? 'none';

/** What a way does to the meshes and pins of one planet; the spring's force is along the circle, for each planet. */
export interface PlanetsPress {
  readonly sun: Press;
  readonly ring: Press;
  /** On a pin, which carries what both meshes push it by. */
  readonly pin: Press;
  /** Tooth force of the load, of all planets' mean, at which the play is back, over the spring's force. */
  readonly opens: number;
}

/** Every planet in halves: together they carry the load on the whole width, and half of the spring's force each. */
const SPREAD: Press = { load: 1, spring: 1, flanks: 1 };
/** The planets whose pins are fixed carry the load of all, and what the pushed ones push. */
const HELD: Press = { load: 2, spring: 1, flanks: 1 };

/**
 * What each way asks of teeth and pins.
 *
 * Source: force balance. *Planets*: the load goes in at a half's flank and out at the other half's, through the springs
 * between them: δ more on one flank is δ less on the other, so the play opens where δ is the spring's force. *Pairs*: N/2
 * pins pushed by 2F_s touch the sun and the ring with F_s each, and the other N/2 take that up; the load of all, N·f, lifts
 * these off where it is N/2·F_s.
 */
export const PLANETS_OUT: Readonly<Record<PlanetsOut, PlanetsPress>> = {
  none: { sun: UNPRESSED, ring: UNPRESSED, pin: UNPRESSED, opens: 0 },
  sun: { sun: HALVES, ring: UNPRESSED, pin: UNPRESSED, opens: 1 },
  ring: { sun: UNPRESSED, ring: HALVES, pin: UNPRESSED, opens: 1 },
  planets: { sun: SPREAD, ring: SPREAD, pin: UNPRESSED, opens: 1 },
  pairs: { sun: HELD, ring: HELD, pin: { load: 2, spring: 2, flanks: 1 }, opens: 0.5 },
};

/** Ways in which it is taken out of planets that two rings share: of both rings, or of the driven one alone. */
export type SharedOut = 'none' | 'driven' | 'rings';

/** How each mesh of shared planets is pressed: halves of a ring by springs, the sun's by nothing. */
export const SHARED_OUT: Readonly<Record<SharedOut, Readonly<Record<'input' | 'held' | 'output', Press>>>> = {
  none: { input: UNPRESSED, held: UNPRESSED, output: UNPRESSED },
  driven: { input: UNPRESSED, held: UNPRESSED, output: HALVES },
  rings: { input: UNPRESSED, held: HALVES, output: HALVES },
};

/** How it is taken out of shared planets: not at all where a file of an earlier version does not say. */
export const sharedOutBy = (p: { readonly takenOut?: SharedOut | undefined }): SharedOut => p.takenOut ?? 'none';

/** Play at the output, rad: likely, least, most. */
export type PlayRange = readonly [likely: number, least: number, most: number];

/**
 * Play that springs leave while the load does not overcome them, rad at the output.
 *
 * Halves of the sun or the ring leave the other mesh as it is. Halves of planets leave what the plays of the two meshes
 * differ by: a half turns no further than the tighter mesh lets it. Pushed pins leave none.
 *
 * @param sun, ring its meshes as the output sees them
 * @param planets how many run side by side
 * @example planetsLeft('planets', { angle: 30, pair: { play: 8e-5, working: 0.34906585 } },
 *   { angle: 30, pair: { play: 2e-4, working: 0.34906585 } }, 3, shelf) // [0.003725, 0.001684, 0.005516]
 */
export function planetsLeft(
  way: PlanetsOut,
  sun: PlanetMesh,
  ring: PlanetMesh,
  planets: number,
  shelf: Shelf,
): PlayRange {
  if (way === 'pairs') return [0, 0, 0];
  if (way === 'planets') {
    const apart = Math.abs(sun.angle * sun.pair.play - ring.angle * ring.pair.play);
    const spread = Math.hypot(
      sun.angle * meshPlaySpread(sun.pair, shelf),
      ring.angle * meshPlaySpread(ring.pair, shelf),
    );
    // Where both are drawn alike, what they come out apart is seldom nought: half of the spread is usual.
    return [Math.hypot(apart, spread / 2), Math.max(0, apart - spread), apart + spread];
  }
  const meshes = way === 'sun' ? [ring] : way === 'ring' ? [sun] : [sun, ring];
  const play = planetPlay(meshes, planets, shelf);
  return [play.likely, play.least, play.most];
}
