import type { Duty } from '../stage/contract.ts';

/** What is counted on where nobody asks for a life, s: five hundred hours at the duty. */
export const USUAL_LIFE = 500 * 3600;

/** Life that is asked of a stage at its duty, s. */
export const lifeAsked = (at: Pick<Duty, 'life'>): number => at.life ?? USUAL_LIFE;

/** Torque that tires and wears as the load cycle does, N·m; what is carried for ever where no cycle is known. */
export const lastingTorque = (at: Pick<Duty, 'equivalent' | 'torqueRms'>): number => at.equivalent ?? at.torqueRms;

/**
 * That torque as a share of the peak: what goes with torque goes with it. 0 where there is no torque.
 *
 * @example lastingShare({ torque: 4, torqueRms: 2, equivalent: 3 }) // 0.75
 */
export const lastingShare = (at: Pick<Duty, 'torque' | 'equivalent' | 'torqueRms'>): number =>
  at.torque > 0 ? lastingTorque(at) / at.torque : 0;

/**
 * How often a place of a wheel passes a mesh while the life that is asked for goes by.
 *
 * A joint that swings to and fro uses a sector of its last wheels: each sweep takes a tooth of it through the mesh once,
 * however short the way.
 *
 * @param turns of the wheel against the line of its meshes, for a turn of the stage's output
 * @param meshes that a place of the wheel goes through in a turn
 * @returns load cycles; 0 where nothing turns
 * @example passesIn({ speed: 1, torqueRms: 1, torque: 1, life: 2 * Math.PI, meanSpeed: 1 }, 3, 2) // 6
 * @example passesIn({ speed: 1, torqueRms: 1, torque: 1, life: 100, meanSpeed: 1, swing: 0.5 }, 1, 1) // 200
 */
export function passesIn(at: Duty, turns: number, meshes: number): number {
  const way = (at.meanSpeed ?? at.speed) * lifeAsked(at) * turns;
  const round = (way * meshes) / (2 * Math.PI);
  if (!at.swing) return round;
  const sweep = at.swing * turns;
  return Math.max(round, way / sweep);
}
