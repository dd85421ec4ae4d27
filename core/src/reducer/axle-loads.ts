import { check, type Check } from '../figure/index.ts';
import type { AxleLoad, Push } from '../stage/push.ts';
import { shaftStress } from '../stage/shaft.ts';
import { stated } from '../units/stated.ts';
import type { StandingAxle } from './axles.ts';
import { bearingsBear } from './bearings-bear.ts';
import { onSupports, type Working } from './link-loads.ts';
import type { Reducer } from './reducer.ts';

/** Where the bearings of an axle are along it, m: each in the plate on its side, flush with the inner face. */
function supportsOf({ housing }: Reducer, { k, bearing }: StandingAxle): readonly [number, number] {
  const half = (bearing?.width ?? 0) / 2;
  return [housing!.plates[k]!.to - half, housing!.plates[k + 1]!.from + half];
}

/**
 * Most that an axle is bent by, N·m: where it is slim, in the middle of what pushes and tilts it, as if both came the same
 * way; else where an end comes out of what is thicker, by its bearing's own force.
 *
 * @param push what eccentrics do to it, about their middle
 * @param ends from either bearing's middle to what is on the axle, m
 * @param slim no thicker between its ends
 * Source: a beam on two supports; a couple in its middle bends it by half of itself on either side.
 * @example axleBent({ across: 100, along: 0, moment: 1 }, [0.004, 0.004], 0.02, true) // 1
 */
export function axleBent(push: Push, ends: readonly [number, number], span: number, slim: boolean): number {
  if (slim) return (push.across * span) / 4 + push.moment / 2;
  return (push.across / 2 + push.moment / span) * Math.max(...ends);
}

/**
 * Whether bearings of the axles that stages bring with them, and the axles themselves, bear what is asked: at the peak, and
 * for the life.
 *
 * @param working of every stage of the line
 */
export function axleLoadChecks(reducer: Reducer, working: readonly Working[]): Check[] {
  if (!reducer.housing) return [];
  return reducer.housing.axles.flatMap((axle, i): Check[] => {
    const { numbers, duty } = working[axle.stage]!;
    const load = numbers.axles?.[axle.nth];
    if (!load || !(load.peak.across > 0 || load.peak.moment > 0)) return [];
    const name = `${axle.axle.name} of stage ${axle.stage + 1}`;
    const [a, b] = supportsOf(reducer, axle);
    const at = (axle.from + axle.to) / 2;
    const carried = (push: Push) =>
      Math.max(...onSupports([{ force: push.across, at }], a, b)) + push.moment / Math.abs(b - a);
    return [...bearingChecks(), bentCheck(load)];

    function bearingChecks(): Check[] {
      const { bearing } = axle;
      if (!bearing) return [];
      const [most, ever] = [carried(load!.peak), carried(load!.lasting)];
      const why = `bearing ${bearing.name} in a plate is pressed with ${stated(most, 'force', 3)} at the peak and ${stated(ever, 'force', 3)} for the life, by all eccentrics on it.`;
      const advice =
        'Set the cranks farther out, or take larger bearings on the eccentrics, so that its ends and their bearings are thicker.';
      // It turns with the input.
      const speed = duty.meanSpeed && duty.meanSpeed * Math.abs(numbers.ratio);
      return bearingsBear({ bearing, most, mostAlong: 0, ever, everAlong: 0, speed }, duty, {
        ids: [`axle-bears-${i + 1}`, `axle-life-${i + 1}`],
        of: `the ${name}`,
        why,
        advice,
      });
    }

    function bentCheck({ peak, stands, slim }: AxleLoad): Check {
      const bent = axleBent(peak, [axle.from - a, b - axle.to], Math.abs(b - a), slim);
      const { diameter } = axle.axle;
      return check({
        id: `axle-bent-${i + 1}`,
        name: `The ${name} carries the peak`,
        figure: bent * shaftStress(diameter),
        limit: stands,
        sense: 'max',
        quantity: 'stress',
        why: slim
          ? `Its rod of ${stated(diameter, 'length', 3)} is bent with ${stated(bent, 'torque', 3)} between its bearings, by eccentrics that push and tilt it as if both came the same way.`
          : `Its ends of ${stated(diameter, 'length', 3)} are bent with ${stated(bent, 'torque', 3)} where they come out of the eccentrics.`,
        advice: slim
          ? 'Take larger bearings on the eccentrics, so that the rod is thicker, or narrower plates.'
          : 'Make the crank of metal, or take three plates, whose crank is put on a rod; larger bearings make its ends thicker.',
      });
    }
  });
}
