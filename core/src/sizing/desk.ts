import { demandOf, type Demand } from '../brief/demand.ts';
import type { OperatingPoint } from '../brief/pattern.ts';
import type { Joint, Variant } from '../schema/joint.ts';
import { motorTorque, topSpeed } from '../motor/available.ts';
import { motorAsked } from '../line/spin.ts';
import type { Shelf } from '../shop/shelf.ts';

/** Range of total ratio within which one thing asked is met; `high` may be Infinity. */
export interface RatioWindow {
  readonly id: 'torque' | 'ever' | 'speed' | 'turnBack' | 'resolution' | 'match';
  readonly name: string;
  readonly why: string;
  readonly low: number;
  readonly high: number;
  /** Nothing in the range tried meets it. */
  readonly empty: boolean;
  /** Advice rather than a demand: it does not narrow the range. */
  readonly soft: boolean;
}

/** The ratio desk's answer for a number of stages. */
export interface DeskRow {
  readonly stages: number;
  /** Share of the motor's work that arrives. */
  readonly arrives: number;
  readonly windows: readonly RatioWindow[];
  /** Where all demands are met; absent where they never are. */
  readonly both: readonly [number, number] | undefined;
  /** A ratio with a fifth in hand, or the best there is. */
  readonly suggested: number;
  /** Least of available over asked at that ratio. */
  readonly margin: number;
  /** Ratio at which the load speeds up quickest. */
  readonly quickest: number;
}

export const DESK_LEAST = 1;
export const DESK_MOST = 2000;
const STEP = 1.02;
const IN_HAND = 1.2;

/** Least of available over asked torque at a total ratio, for moments and for ever. Infinity where nothing is asked. */
export function marginAt(
  variant: Pick<Variant, 'motor' | 'driver'>,
  points: readonly OperatingPoint[],
  shelf: Shelf,
  ratio: number,
  arrives: number,
): { peak: number; ever: number } {
  let [peak, ever] = [Infinity, Infinity];
  // Stages are not there yet: the rotor alone has to be sped up beside the load.
  const one = [{ ratio, etaForward: arrives, etaBackward: 1, drag: 0, stiffness: Infinity }];
  const spin = variant.motor.rotorInertia * ratio;
  for (const p of points) {
    if (!(p.torque > 0)) continue;
    const margin =
      motorTorque(variant.motor, variant.driver, shelf, p.speed * ratio, p.time).torque / motorAsked(one, p, spin);
    if (p.time === 'peak') peak = Math.min(peak, margin);
    else ever = Math.min(ever, margin);
  }
  return { peak, ever };
}

/** The range of a sampled condition, with its ends felt out by halving on the logarithm of the ratio. */
function windowOf(holds: (i: number) => boolean): { low: number; high: number; empty: boolean } {
  let first = NaN;
  let last = NaN;
  for (let i = DESK_LEAST; i <= DESK_MOST * 1.001; i *= STEP) {
    if (!holds(i)) {
      if (first > 0) break;
      continue;
    }
    if (!(first > 0)) first = i;
    last = i;
  }
  if (!(first > 0)) return { low: NaN, high: NaN, empty: true };
  const edge = (inside: number, outside: number) => {
    for (let k = 0; k < 30; k++) {
      const mid = Math.sqrt(inside * outside);
      if (holds(mid)) inside = mid;
      else outside = mid;
    }
    return inside;
  };
  return {
    low: first > DESK_LEAST ? edge(first, first / STEP) : DESK_LEAST,
    high: last * STEP > DESK_MOST ? Infinity : edge(last, last * STEP),
    empty: false,
  };
}

/**
 * What total ratio the brief needs of a motor, for each number of stages: the more stages, the less of the ratio
 * arrives.
 *
 * @param each efficiency of one stage
 * @param holds whether a stage will hold the line, so that the motor need not
 */
export function ratioDesk(
  joint: Pick<Joint, 'brief'>,
  variant: Variant,
  shelf: Shelf,
  each: number,
  most = 4,
  holds = false,
): DeskRow[] {
  const demand = demandOf(joint.brief, shelf);
  return Array.from({ length: most }, (_, k) => deskRow(joint, variant, demand, shelf, k + 1, each, holds));
}

function deskRow(
  joint: Pick<Joint, 'brief'>,
  variant: Variant,
  demand: Demand,
  shelf: Shelf,
  stages: number,
  each: number,
  holds: boolean,
): DeskRow {
  const arrives = each ** stages;
  const { motor, driver } = variant;
  const points = holds ? demand.points.filter((p) => p.speed > 0) : demand.points;
  const windows: RatioWindow[] = [];
  const add = (
    id: RatioWindow['id'],
    name: string,
    why: string,
    w: { low: number; high: number; empty?: boolean },
    soft = false,
  ) => windows.push({ id, name, why, low: w.low, high: w.high, empty: w.empty ?? w.high < w.low, soft });
  if (points.some((p) => p.time === 'peak' && p.torque > 0))
    add(
      'torque',
      'Peak torque',
      'Less ratio stalls; more runs the motor into its voltage.',
      windowOf((i) => marginAt(variant, points, shelf, i, arrives).peak >= 1),
    );
  if (points.some((p) => p.time === 'continuous' && p.torque > 0))
    add(
      'ever',
      'Continuous',
      'RMS and holding torque within what the motor carries continuously.',
      windowOf((i) => marginAt(variant, points, shelf, i, arrives).ever >= 1),
    );
  if (demand.speed > 0)
    add('speed', 'Speed', 'Above it the motor cannot turn fast enough at all.', {
      low: DESK_LEAST,
      high: topSpeed(motor, driver) / demand.speed,
    });
  const back = joint.brief.limits.find((l) => l.id === 'turnBack');
  if (back?.value && motor.detentTorque > 0) {
    // From the unpowered motor's torque alone; drag comes on top.
    const edge = (back.value * arrives) / motor.detentTorque;
    if (back.sense === 'max')
      add(
        'turnBack',
        'Turns back',
        'The unpowered motor’s torque grows with the ratio.',
        { low: DESK_LEAST, high: edge },
        back.need === 'wish',
      );
    if (back.sense === 'min')
      add(
        'turnBack',
        'Holds unpowered',
        'The unpowered motor’s torque grows with the ratio; a self-locking stage needs none of it.',
        { low: edge, high: Infinity },
        back.need === 'wish',
      );
  }
  const fine = joint.brief.limits.find((l) => l.id === 'resolution');
  const counts =
    motor.type === 'stepper'
      ? motor.stepsPerTurn * driver.microsteps
      : variant.sensor.place === 'motor' || variant.sensor.place === 'both'
        ? variant.sensor.counts
        : NaN;
  if (fine?.value && counts > 0)
    add(
      'resolution',
      'Resolution',
      'Smallest commanded change at the output.',
      { low: (2 * Math.PI) / (counts * fine.value), high: Infinity },
      fine.need === 'wish',
    );
  if (demand.inertia > 0 && motor.rotorInertia > 0)
    add(
      'match',
      'Inertia match',
      'Load within ten times the rotor’s inertia: beyond, a position loop is hard to tune.',
      {
        low: Math.sqrt(demand.inertia / (10 * motor.rotorInertia)),
        high: Math.sqrt((10 * demand.inertia) / motor.rotorInertia),
      },
      true,
    );
  const hard = windows.filter((w) => !w.soft);
  const low = hard.reduce((m, w) => Math.max(m, w.low), DESK_LEAST);
  const high = hard.reduce((m, w) => Math.min(m, w.high), DESK_MOST);
  const both = hard.some((w) => w.empty) || high < low ? undefined : ([low, high] as const);
  let [quickest, quickness, suggested, best] = [NaN, 0, DESK_LEAST, -Infinity];
  const least = (i: number) => {
    const m = marginAt(variant, points, shelf, i, arrives);
    return Math.min(m.peak, m.ever);
  };
  let inHand = false;
  for (let i = DESK_LEAST; i <= DESK_MOST; i *= STEP) {
    const torque = motorTorque(motor, driver, shelf, demand.speed * i, 'peak').torque * i * arrives;
    const a = (torque - demand.hold - demand.friction) / (demand.inertia + motor.rotorInertia * i * i * arrives);
    if (a > quickness && demand.inertia > 0) [quickness, quickest] = [a, i];
    if (inHand || (both && (i < both[0] || i > both[1]))) continue;
    const m = least(i);
    if (m > best) [best, suggested] = [m, i];
    if (m >= IN_HAND) inHand = true;
  }
  return { stages, arrives, windows, both, suggested, margin: least(suggested), quickest };
}

/** The demands that set the ends of what a number of stages may have of ratio; none where only the desk's own range does. */
export interface Limiting {
  readonly low: RatioWindow | undefined;
  readonly high: RatioWindow | undefined;
}

/**
 * Which demand asks for the most ratio, and which allows the least; where the first exceeds the second, no ratio meets
 * both.
 *
 * @example limitingOf({ windows: [{ id: 'speed', low: 1, high: 25, empty: false, soft: false }] }).high.high // 25
 */
export function limitingOf(row: Pick<DeskRow, 'windows'>): Limiting {
  const hard = row.windows.filter((w) => !w.soft && !w.empty);
  const low = hard.reduce<RatioWindow | undefined>((m, w) => (w.low > (m?.low ?? DESK_LEAST) ? w : m), undefined);
  const high = hard.reduce<RatioWindow | undefined>((m, w) => (w.high < (m?.high ?? DESK_MOST) ? w : m), undefined);
  return { low, high };
}
