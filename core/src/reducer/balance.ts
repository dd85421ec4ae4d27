import type { OutputShaft } from '../schema/joint.ts';
import { solidMoments } from '../shape/moments.ts';
import type { Body } from './body.ts';
import { STEEL } from './drawn.ts';
import { pointIn, type Vec } from './frame.ts';
import type { Reducer } from './reducer.ts';

/** What stands in a line, as one mass. */
export interface Balance {
  /** Of every body that has a place, kg. */
  readonly mass: number;
  /** Its centre, m: z along the output’s axis towards the load, from where the last stage gives its power. */
  readonly centre: Vec;
}

/** What one piece of a body weighs, kg: what is counted with the output has none of its own. */
function massOf(b: Body, output: OutputShaft | undefined): number {
  if (b.id === 'case/output-shaft')
    return solidMoments(b.solid()).volume * (output?.shaftMaterial.density ?? STEEL.density);
  if (/^case\/bearing.*output/.test(b.id)) return output?.bearing?.mass ?? 0;
  return b.part.mass;
}

/**
 * Mass and centre of mass of a line’s bodies while the motor stands at an angle. What has no place of its own is left out:
 * driver, cables, and pairs of bearings that are not drawn.
 *
 * @param crank turn of the motor, rad
 */
export function balanceOf({ bodies }: Pick<Reducer, 'bodies'>, output: OutputShaft | undefined, crank = 0): Balance {
  let [mass, x, y, z] = [0, 0, 0, 0];
  for (const b of bodies) {
    const one = massOf(b, output);
    if (!(one > 0)) continue;
    const { centre } = solidMoments(b.solid());
    for (const frame of b.places(crank)) {
      const at = pointIn(frame, centre);
      mass += one;
      x += one * at[0];
      y += one * at[1];
      z += one * at[2];
    }
  }
  return { mass, centre: mass > 0 ? [x / mass, y / mass, z / mass] : [0, 0, 0] };
}

/**
 * Inertia of the housing’s shafts and hubs about their own axes, kg·m², one number a stage of the line: they turn with its
 * output.
 */
export function linkInertias({ bodies, plan, layout }: Pick<Reducer, 'bodies' | 'plan' | 'layout'>): readonly number[] {
  const out = layout.stages.map(() => 0);
  for (const b of bodies) {
    const k = /^case\/(?:shaft|hub)-(\d+)$/.exec(b.id)?.[1];
    if (k === undefined || !plan) continue;
    out[plan.first + Number(k) - 1]! += STEEL.density * solidMoments(b.solid()).polar;
  }
  return out;
}
