import type { Check } from '../figure/index.ts';
import type { Duty, StageNumbers } from '../stage/contract.ts';
import { NO_PUSH, type Push } from '../stage/push.ts';
import { stated } from '../units/stated.ts';
import { bearingsBear } from './bearings-bear.ts';
import { sweptBy } from './body.ts';
import type { StandingStage } from './layout.ts';
import { endingAt, goesOn, hasShaft } from './plan.ts';
import type { Reducer, ReducerVariant } from './reducer.ts';
import type { Link } from './shafts.ts';

/** A force across a shaft, N, and where along it, m. */
export interface AcrossAt {
  readonly force: number;
  readonly at: number;
}

/**
 * Most that two bearings of a shaft carry under forces across it whose directions are nobody's choice yet, N: each as if all
 * came the same way.
 *
 * @param a and b where the bearings are, m
 * Source: a beam on two supports; moments about the other one.
 * @example onSupports([{ force: 90, at: 0.01 }, { force: 30, at: 0.04 }], 0, 0.03) // [70, 70]
 */
export function onSupports(forces: readonly AcrossAt[], a: number, b: number): [number, number] {
  const span = Math.abs(b - a);
  const sum = (from: number) => forces.reduce((s, f) => s + (f.force * Math.abs(f.at - from)) / span, 0);
  return [sum(b), sum(a)];
}

/**
 * Most that a force between two supports and one beyond them bend a shaft, N·m, both as if they came the way that is worse:
 * at the support before the one beyond, or where the other one acts.
 *
 * @param inside a force at some place between the supports
 * @param beyond one past the second of them
 * Source: a beam on two supports; the moment runs straight between forces.
 * @example mostBent({ force: 90, at: 0.01 }, { force: 30, at: 0.04 }, 0, 0.03) // 0.7
 */
export function mostBent(inside: AcrossAt, beyond: AcrossAt, a: number, b: number): number {
  const share = Math.min(1, Math.max(0, (inside.at - a) / (b - a)));
  const overhung = beyond.force * Math.abs(beyond.at - b);
  return Math.max(overhung, inside.force * share * (1 - share) * Math.abs(b - a) + overhung * share);
}

/** What a stage of the line does, and what is asked of it. */
export interface Working {
  readonly numbers: StageNumbers;
  readonly duty: Duty;
}

/** Where the bearings of a link are along it, m: of its own two places those that a bearing of the housing is in. */
function supportsOf({ housing, plan, run }: Reducer, link: Link, k: number): { a: number; b: number; both: boolean } {
  const { plates } = housing!;
  const s = run.stages[plan!.first + k]!;
  const half = link.bearing!.width / 2;
  const b = plates[k + 1]!.from + half;
  if (link.beside) return { a: plates[k]!.to - half, b, both: true };
  // Otherwise it hangs on what turns in its stage: on a flange, or in it.
  return { a: link.hub ? s.to : s.from, b, both: false };
}

/** The middle, along the axis, of what turns with an end of a stage; of the whole stage where nothing does, m. */
function wheelsAt(s: StandingStage, end: 'input' | 'output'): number {
  const swept = s.bodies.filter((b) => b.turns === end).map(sweptBy);
  if (swept.length === 0) return (s.from + s.to) / 2;
  return (Math.min(...swept.map((x) => x.from)) + Math.max(...swept.map((x) => x.to))) / 2;
}

/** What presses on a link's shaft at the peak or for the life, and where: of its own stage's wheel, and of the next one's. */
function pressing(
  { plan, run }: Reducer,
  k: number,
  own: Push,
  pull: number,
): { readonly inside: AcrossAt; readonly beyond: AcrossAt } {
  const inside = { force: own.across, at: wheelsAt(run.stages[plan!.first + k]!, 'output') };
  if (!(pull > 0)) return { inside, beyond: { force: 0, at: inside.at } };
  return { inside, beyond: { force: pull, at: wheelsAt(run.stages[plan!.first + k + 1]!, 'input') } };
}

/** What a link's shaft is bent by at the peak, N·m; 0 where nothing pushes, or no bearing of ours holds it. */
export function bendingOf(reducer: Reducer, k: number, working: readonly Working[]): number {
  const plan = reducer.plan!;
  const link = plan.links[k]!;
  if (!link.bearing) return 0;
  const { peak } = working[link.stage]!.numbers.pushes ?? { peak: NO_PUSH };
  const { pullPeak = 0, tiltPeak = 0 } = goesOn(plan, k) ? working[link.stage + 1]!.numbers : {};
  const { inside, beyond } = pressing(reducer, k, peak, pullPeak);
  const { a, b } = supportsOf(reducer, link, k);
  return mostBent(inside, beyond, a, b) + peak.moment + tiltPeak;
}

/**
 * Whether the bearings of shafts between stages bear what their wheels are pushed and pulled by, at the peak and for the
 * life that is asked.
 *
 * @param working of every stage of the line
 */
export function linkChecks(reducer: Reducer, whole: ReducerVariant, working: readonly Working[]): Check[] {
  const { housing, plan } = reducer;
  if (!housing || !plan) return [];
  const variant = endingAt(plan, whole, reducer.layout.stages.length);
  return plan.links.flatMap((link, k): Check[] => {
    const { bearing } = link;
    if (!bearing || !hasShaft(plan, variant, k)) return [];
    const drives = goesOn(plan, k);
    const { numbers, duty } = working[link.stage]!;
    const next = drives ? working[link.stage + 1]!.numbers : undefined;
    const { a, b, both } = supportsOf(reducer, link, k);
    const carried = (push: Push, pull = 0, tilt = 0) => {
      const { inside, beyond } = pressing(reducer, k, push, pull);
      const [below, above] = onSupports([inside, beyond], a, b);
      return (both ? Math.max(below, above) : above) + (push.moment + tilt) / Math.abs(b - a);
    };
    const { peak, lasting } = numbers.pushes ?? { peak: NO_PUSH, lasting: NO_PUSH };
    const most = carried(peak, next?.pullPeak, next?.tiltPeak);
    if (!(most > 0)) return [];
    const ever = carried(lasting, next?.pull, next?.tilt);
    const name = drives ? `shaft ${k + 1}` : 'the output’s shaft';
    const why = `bearing ${bearing.name} is pressed with ${stated(most, 'force', 3)} at the peak and ${stated(ever, 'force', 3)} for the life, by the wheels on either side of it as if all came the same way.`;
    const advice =
      'Take a thicker shaft (larger bores on either side of it), whose bearing is larger, or less pretension.';
    return bearingsBear(
      { bearing, most, mostAlong: peak.along, ever, everAlong: lasting.along, speed: duty.meanSpeed },
      duty,
      { ids: [`bears-${k + 1}`, `bears-life-${k + 1}`], of: name, why, advice },
    );
  });
}
