import { errorFunction } from 'simple-statistics';
import { ok, refuse, type Result } from '../result.ts';
import type { Instrument } from '../shop/instrument.ts';
import { combine, fromBounds, fromResolution, type Contribution, type Uncertain } from './uncertainty.ts';

/** What can happen at a rung. */
export const OUTCOMES = [
  'lifted',
  'held',
  'crept',
  'skipped',
  'lost-steps',
  'stalled',
  'driver-limit',
  'rig-failed',
] as const;
export type Outcome = (typeof OUTCOMES)[number];

interface Rig {
  /** Axis to the hung mass, m, and its largest error. */
  readonly lever: number;
  readonly leverError: number;
  /** Mass of the lever, kg, and axis to its centre, m. */
  readonly leverMass: number;
  readonly leverCentre: number;
  /** Basket and hook, kg. */
  readonly basket: number;
  /** Lever above the horizontal, rad, and its largest error. */
  readonly angle: number;
  readonly angleError: number;
}

/** Masses hung from a lever, one after the other. */
export interface LadderReadings {
  readonly rig: Rig;
  readonly readings: readonly {
    readonly id: string;
    /** Mass hung, without the basket, kg. */
    readonly mass: number;
    readonly outcome: Outcome;
    readonly struck?: string | undefined;
  }[];
}

/**
 * Torque of hung masses: g·cos φ·((m + basket)·L + m_lever·c), N·m, the lever φ above the horizontal.
 *
 * @example hungTorque({ lever: 0.15, leverMass: 0.183, leverCentre: 0.07, basket: 0.115, angle: 0 }, 4.381, 9.80665) // 6.739
 */
export const hungTorque = (
  rig: Pick<Rig, 'lever' | 'leverMass' | 'leverCentre' | 'basket' | 'angle'>,
  mass: number,
  g: number,
): number => g * Math.cos(rig.angle) * ((mass + rig.basket) * rig.lever + rig.leverMass * rig.leverCentre);

/** What a rung says about the joint: it carried the torque, it did not, or the rig gave way before it. */
export const rungSays = (o: Outcome): 'good' | 'bad' | 'rig' =>
  o === 'lifted' || o === 'held' ? 'good' : o === 'rig-failed' ? 'rig' : 'bad';

export const OUTCOME_WORDS: Readonly<Record<Outcome, string>> = {
  lifted: 'lifted',
  held: 'held',
  crept: 'crept',
  skipped: 'skipped',
  'lost-steps': 'lost steps',
  stalled: 'stalled',
  'driver-limit': 'driver limit',
  'rig-failed': 'rig failed',
};

export interface LadderRung {
  readonly id: string;
  readonly mass: number;
  readonly torque: number;
  readonly outcome: Outcome;
  readonly struck: string | undefined;
}

export interface LadderResult {
  readonly rungs: readonly LadderRung[];
  /** Largest torque carried, N·m; undefined when none was. */
  readonly bestGood: number | undefined;
  /** Smallest torque not carried. */
  readonly leastBad: number | undefined;
  /** How it gave way at the least bad rung. */
  readonly mode: Outcome | undefined;
  /** Middle of the bracket with its uncertainty; where only one side is known, that side. */
  readonly found: Uncertain;
  /** `bracket` both sides known; `atLeast` only carried; `atMost` only failed. */
  readonly bound: 'bracket' | 'atLeast' | 'atMost';
  /** A rung above one that failed was carried. */
  readonly overlap: boolean;
  readonly nextMass: number | undefined;
  readonly counted: number;
  readonly struck: number;
  readonly advice: readonly string[];
}

/** Contributions of the rig to one rung's torque, by derivative. */
function rigBudget(rig: Rig, mass: number, g: number, instrument: Instrument | undefined): Contribution[] {
  const c = g * Math.cos(rig.angle);
  const hung = mass + rig.basket;
  return [
    {
      id: 'mass',
      name: 'hung mass',
      u: Math.hypot(fromResolution(instrument?.resolution ?? 0), fromBounds(instrument?.error ?? 0)) * c * rig.lever,
      dof: Infinity,
      halve: 'a finer scale, or masses weighed together',
    },
    {
      id: 'lever',
      name: 'lever radius',
      u: fromBounds(rig.leverError) * c * hung,
      dof: Infinity,
      halve: 'a lever twice as long, or the radius measured to half the error',
    },
    {
      id: 'angle',
      name: 'lever angle',
      u:
        fromBounds(rig.angleError) *
        Math.max(Math.abs(Math.tan(rig.angle)), rig.angleError / 2) *
        hungTorque(rig, mass, g),
      dof: Infinity,
      halve: 'the lever set level',
    },
  ];
}

/** How often a torque was tried, near enough. */
const triesAt = (rungs: readonly LadderRung[], torque: number): number =>
  rungs.filter((r) => rungSays(r.outcome) !== 'rig' && Math.abs(r.torque - torque) <= 0.02 * torque).length;

/** Whether it failed, after it had carried more, at less than that, and never carried so much again. */
function weakened(rungs: readonly LadderRung[]): boolean {
  const first = rungs.findIndex((r, i) => {
    if (rungSays(r.outcome) !== 'bad') return false;
    return rungs.slice(0, i).some((b) => rungSays(b.outcome) === 'good' && b.torque > r.torque);
  });
  if (first < 0) return false;
  const { torque } = rungs[first]!;
  return !rungs.slice(first + 1).some((r) => rungSays(r.outcome) === 'good' && r.torque >= torque);
}

/** Share of rungs that are noted wrongly, or give way for another reason. */
const NOTED_WRONG = 0.01;

/** Standard deviations of a capacity from try to try that are thought of, as shares of it. */
const SCATTERS = Array.from({ length: 16 }, (_, i) => 0.005 * 1.26 ** i);

/**
 * Mean capacity where it scatters from try to try: each rung is carried where the capacity of that try lies above it.
 *
 * @returns mean and standard deviation, N·m, over all means from half the lightest rung to twice the heaviest and all
 *   scatters from a half to sixteen in a hundred, each as likely as the other in its logarithm
 * Source: probit analysis of quantal response (Finney), by sums over a grid in place of the largest likelihood, which
 * few rungs do not have.
 */
export function scatteredCapacity(rungs: readonly { readonly torque: number; readonly outcome: Outcome }[]): {
  mean: number;
  u: number;
} {
  const told = rungs.filter((r) => rungSays(r.outcome) !== 'rig');
  const torques = told.map((r) => Math.max(r.torque, 1e-9));
  const [from, to] = [Math.log(Math.min(...torques) / 2), Math.log(Math.max(...torques) * 2)];
  let [weight, first, second] = [0, 0, 0];
  const steps = 400;
  for (let i = 0; i <= steps; i++) {
    const mean = Math.exp(from + ((to - from) * i) / steps);
    for (const share of SCATTERS) {
      let likely = 1;
      told.forEach((r, k) => {
        const carried = (1 + errorFunction((1 - torques[k]! / mean) / share / Math.SQRT2)) / 2;
        likely *= NOTED_WRONG / 2 + (1 - NOTED_WRONG) * (rungSays(r.outcome) === 'good' ? carried : 1 - carried);
      });
      weight += likely;
      first += likely * mean;
      second += likely * mean * mean;
    }
  }
  const mean = first / weight;
  return { mean, u: Math.sqrt(Math.max(0, second / weight - mean * mean)) };
}

/**
 * Analyses a torque ladder: capacity as a bracket between the best rung carried and the least that was not, the mode,
 * and the
 * next mass to try. A rung at which the rig failed bounds the capacity only from below, by what was carried before it.
 *
 * @param g local gravity, m/s²
 */
export function analyseLadder(
  test: LadderReadings,
  instrument: Instrument | undefined,
  g: number,
): Result<LadderResult> {
  const { rig } = test;
  const rungs: LadderRung[] = test.readings.map((r) => ({
    id: r.id,
    mass: r.mass,
    torque: hungTorque(rig, r.mass, g),
    outcome: r.outcome,
    struck: r.struck,
  }));
  const counted = rungs.filter((r) => r.struck === undefined);
  if (counted.length === 0)
    return refuse(
      'There are no rungs yet.',
      'Capacity is bracketed by masses that were carried and masses that were not.',
      'Hang a mass the joint should carry easily and say what happened.',
    );
  const good = counted.filter((r) => rungSays(r.outcome) === 'good');
  const bad = counted.filter((r) => rungSays(r.outcome) === 'bad');
  const bestGood = good.length ? Math.max(...good.map((r) => r.torque)) : undefined;
  const least = bad.reduce<LadderRung | undefined>((m, r) => (!m || r.torque < m.torque ? r : m), undefined);
  const leastBad = least?.torque;
  if (bestGood === undefined && leastBad === undefined)
    return refuse(
      'No rung says anything about the joint.',
      'The rig failed at each of them.',
      'Strengthen the rig and begin with a lighter mass.',
    );
  const perMass = g * Math.cos(rig.angle) * rig.lever;
  const bare = hungTorque(rig, 0, g);
  const toMass = (t: number) => Math.max(0, (t - bare) / perMass);
  const overlap = bestGood !== undefined && leastBad !== undefined && bestGood >= leastBad;
  const bound =
    bestGood !== undefined && leastBad !== undefined ? 'bracket' : bestGood !== undefined ? 'atLeast' : 'atMost';
  const [low, high] = [
    Math.min(bestGood ?? leastBad!, leastBad ?? bestGood!),
    Math.max(bestGood ?? leastBad!, leastBad ?? bestGood!),
  ];
  const scattered = overlap ? scatteredCapacity(counted) : undefined;
  const value = scattered?.mean ?? (low + high) / 2;
  const budget = rigBudget(rig, toMass(value), g, instrument);
  if (scattered)
    budget.push({
      id: 'bracket',
      name: 'rungs that contradict each other',
      u: scattered.u,
      dof: Infinity,
      halve: 'the rungs in between tried three times more',
    });
  else if (high > low)
    budget.push({
      id: 'bracket',
      name: 'gap between the rungs',
      u: fromBounds((high - low) / 2),
      dof: Infinity,
      halve: 'one more rung in the middle',
    });
  const found = combine(value, 'torque', budget);
  const nextTorque = bound === 'bracket' ? value : bound === 'atLeast' ? bestGood! * 1.25 : leastBad! * 0.6;
  const nextMass = nextTorque > bare ? toMass(nextTorque) : undefined;
  const advice: string[] = [];
  if (bound === 'atLeast')
    advice.push('Nothing failed yet, so this only says “at least”. Add mass in steps of about a quarter.');
  if (bound === 'atMost') advice.push('Nothing was carried yet, so this only says “less than”. Begin lighter.');
  if (overlap)
    advice.push(
      weakened(counted)
        ? 'It failed at a rung lighter than one it had carried before: it has got weaker, by warmth or by wear, or the capacity scatters. Let it cool and repeat the rungs in between.'
        : 'A heavier rung was carried than one that failed: the capacity scatters, or a rung was noted wrongly. Repeat those in between.',
    );
  else if (bound === 'bracket' && (triesAt(counted, bestGood!) < 2 || triesAt(counted, leastBad!) < 2))
    advice.push(
      'The rungs about the bracket were tried once: it says nothing of how far the capacity scatters from try to try. Try both again.',
    );
  if (counted.some((r) => rungSays(r.outcome) === 'rig'))
    advice.push('Where the rig failed the joint’s own capacity is only known to be above what it carried before.');
  if (found.dominant)
    advice.push(
      `The largest part of the uncertainty is the ${found.dominant.name}; to halve it: ${found.dominant.halve}.`,
    );
  if (rig.leverMass === 0)
    advice.push('The lever’s own weight is taken as nothing. Weigh it, or it is missing from every rung.');
  if (rig.basket === 0) advice.push('The basket’s weight is taken as nothing. Weigh it with its hook.');
  return ok({
    rungs,
    bestGood,
    leastBad,
    mode: least?.outcome,
    found,
    bound,
    overlap,
    nextMass,
    counted: counted.length,
    struck: rungs.length - counted.length,
    advice,
  });
}
