import { pointIn } from './frame.ts';
import { goesOn } from './plan.ts';
import type { Reducer } from './reducer.ts';

/** Shear modulus of steel, E/2(1 + ν), Pa. */
const SHEAR_STEEL = 210e9 / 2.6;

/**
 * Torsional stiffness of a round bar, N·m/rad: G·π·d⁴/(32·L).
 *
 * @param diameter m
 * @param length that twists, m; 0 gives Infinity
 * @example shaftTwist(0.008, 0.04).toFixed(1) // '812.0'
 */
export const shaftTwist = (diameter: number, length: number): number =>
  length > 0 ? (SHEAR_STEEL * Math.PI * diameter ** 4) / (32 * length) : Infinity;

/**
 * How stiff the shafts of the housing are that carry power from one stage to the next in it or behind it, N·m/rad, one number a stage of the
 * line; Infinity where none does. Each twists from the middle of the stage behind it, or from the flange its hub is on, to
 * the middle of the next.
 */
export function linkSprings({ plan, run: layout }: Pick<Reducer, 'plan' | 'run'>): readonly number[] {
  const out = layout.stages.map(() => Infinity);
  plan?.links.forEach((link, k) => {
    if (!goesOn(plan, k)) return;
    const [before, after] = [layout.stages[plan.first + k]!, layout.stages[plan.first + k + 1]!];
    const from = link.hub ? pointIn(before.frame, before.ports.output.at)[2] : (before.from + before.to) / 2;
    const step = pointIn(after.frame, after.ports.input.at)[2];
    // What is coupled ends at the coupling.
    const to = after.ports.input.coupling ? step : (after.from + after.to) / 2;
    out[plan.first + k] =
      link.into === link.diameter
        ? shaftTwist(link.diameter, to - from)
        : 1 / (1 / shaftTwist(link.diameter, step - from) + 1 / shaftTwist(link.into, to - step));
  });
  return out;
}
