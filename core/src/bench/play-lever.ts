import { stated } from '../units/stated.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { Instrument } from '../shop/instrument.ts';
import { roundMean } from './round-mean.ts';
import { combine, fromBounds, fromResolution, typeA, type Contribution, type Uncertain } from './uncertainty.ts';

/** Play from a difference d between two pushes at radius L: 2·asin(d/2L), rad. */
export const playFromLever = (difference: number, lever: number): number => 2 * Math.asin(difference / (2 * lever));

/** A push each way at a lever, as it was rigged and read. */
export interface PlayReadings {
  readonly rig: {
    /** Axis to the point that is read, m, and its largest error. */
    readonly lever: number;
    readonly leverError: number;
    /** Torque of the light push each way, N·m; 0 where not known. */
    readonly push: number;
    /** Takes the push's wind-up out with the expected stiffness. */
    readonly correctWindUp: boolean;
  };
  readonly readings: readonly {
    readonly id: string;
    /** Output angle, rad. */
    readonly angle: number;
    /** Difference between the two pushes, m. */
    readonly difference: number;
    /** As entered. */
    readonly text: string;
    readonly struck?: string | undefined;
  }[];
}

export interface PlayAtAngle {
  readonly angle: number;
  readonly play: number;
  readonly count: number;
}

export interface PlayResult {
  readonly found: Uncertain;
  readonly perAngle: readonly PlayAtAngle[];
  readonly worst: PlayAtAngle;
  /** Play of each reading that has a difference the lever can swing, by its id, wind-up taken out. */
  readonly each: ReadonlyMap<string, number>;
  /** Wind-up of the push that was taken out, rad. */
  readonly windUp: number;
  readonly counted: number;
  readonly struck: number;
  readonly advice: readonly string[];
}

const sameAngle = (a: number, b: number): boolean => Math.abs(a - b) < 1e-4;
const degrees = (x: number): string => stated(x, 'angle', 3);

/**
 * Analyses a play test: play at each output angle, their mean with uncertainty, the worst angle, and what to read next.
 *
 * @param stiffness expected stiffness at the output, N·m/rad; its share of the push is taken out where the rig asks for
 *   it
 * Source: play = 2·asin(d/2L); JCGM 100:2008 for the budget (resolution √2·r/√12 for a difference, stated error a/√3).
 */
export function analysePlay(
  test: PlayReadings,
  instrument: Instrument | undefined,
  stiffness: number | undefined,
): Result<PlayResult> {
  const counted = test.readings.filter((r) => r.struck === undefined);
  if (counted.length === 0)
    return refuse(
      'There are no readings yet.',
      'Play is worked out from the difference between a push each way.',
      'Push the lever lightly both ways and type the difference.',
    );
  const { lever, leverError, push } = test.rig;
  const far = counted.find((r) => r.difference > 2 * lever);
  if (far)
    return refuse(
      `The reading “${far.text}” is longer than the lever can swing.`,
      `A point at ${stated(lever, 'length', 4)} moves at most ${stated(2 * lever, 'length', 4)}.`,
      'Check the reading and the lever’s radius.',
      far.id,
    );
  const windUp = test.rig.correctWindUp && stiffness && push > 0 ? (2 * push) / stiffness : 0;
  const plays = counted.map((r) => playFromLever(r.difference, lever) - windUp);
  const angles: { angle: number; plays: number[] }[] = [];
  counted.forEach((r, i) => {
    const at = angles.find((a) => sameAngle(a.angle, r.angle));
    if (at) at.plays.push(plays[i]!);
    else angles.push({ angle: r.angle, plays: [plays[i]!] });
  });
  angles.sort((a, b) => a.angle - b.angle);
  const perAngle = angles.map((a) => ({ angle: a.angle, play: typeA(a.plays).mean, count: a.plays.length }));
  const worst = perAngle.reduce((m, a) => (a.play > m.play ? a : m));
  const over = roundMean(
    counted.map((r) => r.angle),
    plays,
    'play',
  );
  const mid = counted.reduce((sum, r) => sum + r.difference, 0) / counted.length;
  // ∂/∂d = 1/(L·√(1 − (d/2L)²)); ∂/∂L = −(d/L) of that.
  const byReading = 1 / (lever * Math.sqrt(Math.max(1e-12, 1 - (mid / (2 * lever)) ** 2)));
  const resolution = instrument?.resolution ?? 0;
  const spread = Math.max(...counted.map((r) => r.difference)) - Math.min(...counted.map((r) => r.difference));
  // Readings that all fall on the same step share its rounding: repeating them gains nothing.
  const independent = spread > resolution ? counted.length : 1;
  const budget: Contribution[] = [
    ...over.budget,
    {
      id: 'resolution',
      name: 'resolution of the instrument',
      u: (Math.SQRT2 * fromResolution(resolution) * byReading) / Math.sqrt(independent),
      dof: Infinity,
      halve: 'a lever twice as long, or an instrument with half the step',
    },
    {
      id: 'error',
      name: 'stated error of the instrument',
      u: fromBounds(instrument?.error ?? 0) * byReading,
      dof: Infinity,
      halve: 'a lever twice as long, or a better instrument',
    },
    {
      id: 'lever',
      name: 'lever radius',
      u: fromBounds(test.rig.leverError) * byReading * (mid / lever),
      dof: Infinity,
      halve: 'the radius measured to half the error',
    },
  ];
  if (windUp > 0)
    budget.push({
      id: 'wind-up',
      name: 'wind-up taken out',
      u: fromBounds(windUp * 0.3),
      dof: Infinity,
      halve: 'a lighter push',
    });
  const found = combine(over.mean, 'smallAngle', budget);
  return ok({
    found,
    perAngle,
    worst,
    each: new Map(
      test.readings
        .filter((r) => r.difference <= 2 * lever)
        .map((r) => [r.id, playFromLever(r.difference, lever) - windUp] as const),
    ),
    windUp,
    counted: counted.length,
    struck: test.readings.length - counted.length,
    advice: [...over.says, ...advise(found, perAngle, counted.length, leverError)],
  });
}

/** Where play is best read: a third of a turn apart. */
const THIRDS = [0, (2 * Math.PI) / 3, (4 * Math.PI) / 3];
const HALF_DEGREE = Math.PI / 360;

function advise(found: Uncertain, perAngle: readonly PlayAtAngle[], count: number, leverError: number): string[] {
  const list: string[] = [];
  if (count < 3)
    list.push(`With ${count === 1 ? 'one reading' : 'two readings'} the scatter is hardly known: read at least three.`);
  if (perAngle.length < 3) {
    const done = perAngle.map((a) => degrees(a.angle)).join(', ');
    list.push(
      `Play changes round the turn. So far read at ${done}: add ${THIRDS.filter(
        (third) => !perAngle.some((a) => Math.abs(a.angle - third) < HALF_DEGREE),
      )
        .slice(0, 2)
        .map(degrees)
        .join(' and ')}.`,
    );
  }
  if (found.dominant)
    list.push(
      `The largest part of the uncertainty is the ${found.dominant.name}; to halve it: ${found.dominant.halve}.`,
    );
  if (leverError === 0) list.push('The lever’s radius is taken as exact. Give its error for an honest uncertainty.');
  if (found.value < 0)
    list.push(
      'More wind-up was taken out than was measured: the push was lighter than stated, or the joint is stiffer than expected.',
    );
  return list;
}
