import { check, type Check } from '../figure/index.ts';
import { bentAndTwisted } from '../stage/shaft.ts';
import { stated } from '../units/stated.ts';
import { sweptBy } from './body.ts';
import { undone } from './frame.ts';
import { bodyIn } from './layout.ts';
import type { Working } from './link-loads.ts';
import type { Reducer } from './reducer.ts';
import { shaftCarries } from './strength.ts';

/** How far off the motor's face the middle of what sits on its shaft is, m; undefined where nothing of the stage does. */
export function overhungBy({ bodies, layout }: Reducer): number | undefined {
  const shaft = bodies.find((b) => b.id === 'motor/shaft')?.places(0)[0];
  const on = layout.stages[0]?.bodies.filter((b) => b.turns === 'input') ?? [];
  if (!shaft || on.length === 0) return undefined;
  const home = undone(shaft);
  const swept = on.map((b) => sweptBy(bodyIn(home, b)));
  return (Math.min(...swept.map((s) => s.from)) + Math.max(...swept.map((s) => s.to))) / 2;
}

/**
 * Whether the motor's shaft stands what is pulled, tilted and twisted on it at the peak: it hangs out of the motor, and nothing
 * else holds it.
 *
 * @param working of every stage of the line
 */
export function motorShaftChecks(reducer: Reducer, working: readonly Working[]): Check[] {
  const first = working[0];
  const { pullPeak = 0, tiltPeak = 0 } = first?.numbers ?? {};
  const lever = overhungBy(reducer);
  if (!first || lever === undefined || !(pullPeak > 0 || tiltPeak > 0)) return [];
  const bent = pullPeak * Math.max(0, lever) + tiltPeak;
  const twisted = Math.abs(first.duty.torque / (first.numbers.ratio * first.numbers.etaForward));
  const { shaft } = reducer.face;
  return [
    check({
      id: 'motor-bent',
      name: 'Motor’s shaft carries the peak',
      // As a torque alone: √(T² + ⁴⁄₃·M²).
      figure: (2 / Math.sqrt(3)) * bentAndTwisted(bent, twisted),
      limit: shaftCarries(shaft),
      sense: 'max',
      quantity: 'torque',
      why: `Steel of ${stated(shaft, 'length', 3)} with a key or a flat yields in torsion; ${stated(bent, 'torque', 3)} of bending by what sits on it, ${stated(lever, 'length', 3)} off the motor’s face, count as torque does (von Mises).`,
      advice:
        tiltPeak > 0
          ? 'Take a motor with a thicker shaft, thinner discs or plates, which tilt it less, or larger ones, which push it less.'
          : 'Take a larger wheel on the motor’s shaft, no more pretension than it takes, or a motor with a thicker shaft; of eccentrics two or three, which hold each other.',
    }),
  ];
}
