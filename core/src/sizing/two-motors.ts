import { demandOf, type Demand } from '../brief/demand.ts';
import { check, FigureMaker, term, worked, type Check, type Figure } from '../figure/index.ts';
import { aroundOf } from '../reducer/around.ts';
import { sumLine, trialOf, type LineNumbers, type LineToSum, type SummedLine } from '../line/numbers.ts';
import { openFor } from '../line/open.ts';
import { backward, forward, needed, playAtOutput, stiffnessAtOutput } from '../line/sum.ts';
import { currentFor, motorEfficiency } from '../motor/available.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { Joint, Variant } from '../schema/joint.ts';
import { uncertain, withFactor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';

/** Two lines as one drives its output now, turned against one another. */
interface Pair {
  readonly demand: Demand;
  /** One of the two, as the pair loads it. */
  readonly one: LineNumbers;
  readonly offset: number;
  /** What the offset presses at the output, N·m. */
  readonly bias: number;
  readonly opens: number;
  readonly reach: number;
  readonly efficiency: number;
  readonly stiffness: number;
  readonly beyond: readonly [number, number, number];
  readonly resting: number;
  readonly mass: number;
  readonly money: number;
}

/** What two motors on one output hold without play, and what that costs. */
export interface TwoMotors {
  readonly figures: readonly Figure[];
  readonly checks: readonly Check[];
  /** Offset of each motor against the other, N·m: as asked, or such that no play is left under the brief's peak. */
  readonly offset: number;
}

/** What one of two lines is asked for: half of everything, and at the output what the other one pulls the other way. */
export function halfDemand(demand: Demand, bias: number): Demand {
  const half = (torque: number): number => torque / 2 + bias;
  return {
    ...demand,
    peak: half(demand.peak),
    // The mean of the squares is no more than that of the sum.
    rms: half(demand.rms),
    hold: half(demand.hold),
    equivalent: half(demand.equivalent),
    inertia: demand.inertia / 2,
    friction: demand.friction / 2,
    // One that is always pressed one way does not change its flank.
    reverses: demand.reverses && 2 * bias < demand.peak,
    points: demand.points.map((p) => ({ ...p, torque: half(p.torque) })),
  };
}

/**
 * Power out over power in where one line pushes with half of the load and the bias, and the other is dragged, or pushes
 * with what half of the load is more than the bias.
 *
 * @param size ratio of a line, without its sign
 */
function passedOn(one: LineNumbers, demand: Demand, bias: number, size: number): number {
  const behind = demand.peak / 2 - bias;
  const other = behind >= 0 ? needed(one.stages, behind) : -backward(one.stages, -behind);
  const both = needed(one.stages, demand.peak / 2 + bias) + other;
  return demand.peak > 0 ? demand.peak / (both * size) : NaN;
}

/** Offset of a motor that presses half of the brief's peak at the output, a tenth in hand, N·m; drag comes on top of it. */
const offsetFor = (n: LineNumbers, demand: Demand): number =>
  Number((needed(n.stages, 0.55 * demand.peak) * 1.005).toPrecision(3));

/** The line as it is summed for the brief, and for half of it with the bias of an offset. */
interface Summed {
  readonly demand: Demand;
  readonly offset: number;
  readonly line: LineToSum;
  readonly whole: SummedLine;
  readonly half: LineToSum;
  readonly one: SummedLine;
}

function summed(
  joint: Pick<Joint, 'brief'>,
  variant: Variant,
  shelf: Shelf,
  asked: number | undefined,
): Result<Summed> {
  const demand = demandOf(joint.brief, shelf);
  const opened = openFor(demand.travel, variant.stages, shelf);
  if (!opened.all.ok) return opened.all;
  const stages = opened.all.value;
  const line = { variant, stages, demand, shelf, around: aroundOf(variant, stages, shelf) };
  const whole = sumLine(line);
  if (!whole.ok) return whole;
  const { numbers } = whole.value;
  const offset = asked ?? offsetFor(numbers, demand);
  const bias = forward(numbers.stages, offset);
  if (!(bias > 0))
    return refuse(
      'This offset does not reach the output.',
      `The line’s own drag takes ${stated(needed(numbers.stages, 0), 'torque', 3)} of it.`,
      'Take more.',
    );
  const half = { ...line, demand: halfDemand(demand, bias) };
  const one = sumLine(half);
  return one.ok ? ok({ demand, offset, line, whole: whole.value, half, one: one.value }) : one;
}

/** What both lines come to, from what one of them is summed to for all of the brief and for its half. */
function pairOf({ demand, offset, line: { variant, shelf } }: Summed, whole: LineNumbers, one: LineNumbers): Pair {
  const { motor, driver } = variant;
  const bias = forward(whole.stages, offset);
  const play = (k: 0 | 1 | 2) =>
    playAtOutput(
      one.stages,
      one.stages.map((s) => s.play[k]),
    );
  const own = (of: 'mass' | 'money') => one.stages.reduce((s, x) => s + x[of], 0);
  return {
    demand,
    one,
    offset,
    bias,
    opens: 2 * bias,
    reach: 2 * Math.max(0, one.torque - bias),
    efficiency: passedOn(one, demand, bias, Math.abs(one.ratio)),
    stiffness: 1 / (1 / (2 * stiffnessAtOutput(one.stages)) + 1 / one.shaftStiffness + 1 / one.linkStiffness),
    beyond: [play(0), play(1), play(2)],
    resting: 2 * motorEfficiency(motor, driver, offset, 0, shelf).copperLoss,
    mass: motor.mass + (driver.unit?.mass ?? 0) + own('mass'),
    money: motor.price + (driver.unit?.price ?? 0) + own('money'),
  };
}

/**
 * Two motors on one output, each through a line as the variant has it, their torques offset against one another so that
 * no flank lifts: what load that holds up to, what it leaves beyond, and what it costs.
 *
 * @param asked offset of each motor against the other, N·m; left out: what holds the brief's peak
 * @returns refused where the line cannot be summed, or its drag takes all of the offset
 * Source: balance at the output: each line carries half of the load and the bias, one with it and one against it; the
 * second one's flanks lift where half of the load is the bias, so that none do while |T| < 2·T_o·i·η.
 */
export function twoMotors(
  joint: Pick<Joint, 'brief'>,
  variant: Variant,
  shelf: Shelf,
  asked?: number,
): Result<TwoMotors> {
  const made = summed(joint, variant, shelf, asked);
  if (!made.ok) return made;
  const { line, whole, half, one, offset } = made.value;
  const pair = pairOf(made.value, whole.numbers, one.numbers);
  const ids = new Set([...whole.reads.factors, ...one.reads.factors]);
  line.stages.forEach((s, j) => s.reads(one.numbers.duties[j]!).factors.forEach((id) => ids.add(id)));
  const end = (id: string, value: number): Pair | undefined => {
    const [a, b] = [trialOf(line, whole, id, value), trialOf(half, one, id, value)];
    return a && b && pairOf({ ...made.value, line: { ...line, shelf: withFactor(shelf, id, value) } }, a, b);
  };
  const ends = uncertain(shelf, ids).map((f) => [end(f.id, f.low), end(f.id, f.high)] as const);
  return ok({ figures: figuresOf(pair, variant, new FigureMaker(pair, ends)), checks: checksOf(pair), offset });
}

function figuresOf(pair: Pair, variant: Variant, make: FigureMaker<Pair>): Figure[] {
  const { offset } = pair;
  const T0 = term('T_o', 'offset of each motor', offset, 'torque', 'field');
  const B = term('T_B', 'what it presses at the output', pair.bias, 'torque', 'computed');
  const T = term('T', 'peak', pair.demand.peak, 'torque', 'brief');
  const i = term('i', 'ratio', Math.abs(pair.one.ratio), 'ratio', 'computed');
  const [value, low, high] = pair.beyond;
  const { motor, driver } = variant;
  const secondTerms = (of: 'mass' | 'money') => [
    term('motor', 'motor', of === 'mass' ? motor.mass : motor.price, of, 'motor'),
    term('driver', 'driver', (of === 'mass' ? driver.unit?.mass : driver.unit?.price) ?? 0, of, 'motor'),
    ...pair.one.stages.map((s, j) => term(`${j + 1}`, `stage ${j + 1}`, s[of], of, 'computed')),
  ];
  return [
    make.figure(
      'pairOpens',
      'No play up to',
      'torque',
      (x) => x.opens,
      () => ({
        formula: '2·T_B,  T_B = (T_o − drag)·i·η stage by stage',
        terms: [T0, i, B],
        source: 'the dragged line’s flanks lift where half of the load is what presses them',
      }),
    ),
    worked({ id: 'pairBeyond', name: 'Play beyond that', quantity: 'smallAngle', value, low, high }, () => ({
      formula: 'Σ play of each stage over the ratio after it',
      terms: pair.one.stages.map((s, j) => term(`b${j + 1}`, `stage ${j + 1}`, s.play[0], 'smallAngle', 'computed')),
      source: 'that of one of the lines',
    })),
    make.figure(
      'pairReach',
      'Both bring, lifting',
      'torque',
      (x) => x.reach,
      () => ({
        formula: '2·(T_one − T_B)',
        terms: [term('T_one', 'one line brings or bears', pair.one.torque, 'torque', 'computed'), B],
        source: 'the offset is there whatever the load is',
      }),
    ),
    make.figure(
      'motorPair',
      'Each motor, at the peak',
      'torque',
      (x) => x.one.motorNeeded,
      () => ({
        formula: 'T/2 + T_B back through the line',
        terms: [T, B, i],
        source: 'the one that pushes; what speeds up its rotor and stages included',
      }),
    ),
    // One that would run away settles nowhere: the check of what is carried continuously says so.
    ...(Number.isFinite(pair.one.windingTemperature)
      ? [
          make.figure(
            'motorPairWinding',
            'Its winding settles at',
            'temperature',
            (x) => x.one.windingTemperature,
            () => ({
              formula: 'RMS/2 + T_B held continuously',
              terms: [B],
              source: 'at most: where load and offset pull the same way all the time',
            }),
          ),
        ]
      : []),
    make.figure(
      'motorPairResting',
      'Heat of both at rest',
      'power',
      (x) => x.resting,
      () => ({
        formula: '2·I²·R at T_o',
        terms: [T0, term('I', 'current', currentFor(motor, driver, offset), 'current', 'computed')],
        source: 'the offset has to be held unless the joint is unpowered',
      }),
    ),
    ...(Number.isFinite(pair.efficiency)
      ? [
          make.figure(
            'pairEfficiency',
            'Efficiency of both at the peak',
            'efficiency',
            (x) => x.efficiency,
            () => ({
              formula: 'T/(i·(T_1 + T_2))',
              terms: [T, B, i],
              source: 'T_1 drives T/2 + T_B; T_2 gives what is left, or is dragged by what the bias is more',
            }),
          ),
        ]
      : []),
    ...(Number.isFinite(pair.stiffness)
      ? [
          make.figure(
            'pairStiffness',
            'Stiffness of both',
            'stiffness',
            (x) => x.stiffness,
            () => ({
              formula: '1/(1/(2·k) + 1/k_shaft)',
              terms: [term('k', 'one line', stiffnessAtOutput(pair.one.stages), 'stiffness', 'computed')],
              source: 'side by side while both are pressed',
            }),
          ),
        ]
      : []),
    make.figure(
      'pairMass',
      'The second line weighs',
      'mass',
      (x) => x.mass,
      () => ({
        formula: 'motor + driver + stages',
        terms: secondTerms('mass'),
        source: 'a wheel that both share counts twice here',
      }),
    ),
    make.figure(
      'pairMoney',
      'The second line costs',
      'money',
      (x) => x.money,
      () => ({
        formula: 'motor + driver + stages',
        terms: secondTerms('money'),
        source: 'prices of the shop',
      }),
    ),
  ];
}

/** What a stage must pass on backwards to be dragged without sticking: below it friction varies by as much. Source: usual practice. */
const LEAST_BACK = 0.1;

function checksOf(pair: Pair): Check[] {
  const { demand, one } = pair;
  const offset = offsetFor(one, demand);
  const back = one.stages.reduce((least, s) => Math.min(least, s.etaBackward), 1);
  return [
    check({
      id: 'pairOpens',
      of: 'pairOpens',
      name: 'Stays without play under the peak',
      figure: demand.peak,
      limit: pair.opens,
      sense: 'max',
      quantity: 'torque',
      severity: 'warn',
      near: 0.05,
      why: 'Beyond it the line that is dragged lifts off its flanks, and its play is there.',
      mend: { path: 'offset', value: offset, label: `Offset ${stated(offset, 'torque', 3)}` },
    }),
    check({
      id: 'pairReach',
      of: 'pairReach',
      name: 'Both together lift the peak',
      figure: pair.reach,
      limit: demand.peak,
      sense: 'min',
      quantity: 'torque',
      why: 'One line carries half of the load and all of the offset.',
      advice: 'Take less offset, a stronger motor, or more ratio.',
    }),
    check({
      id: 'motorPairEver',
      name: 'Each motor carries it continuously',
      figure: Math.min(one.everMargin, 99),
      limit: 1,
      sense: 'min',
      quantity: 'ratio',
      why: 'The offset heats both motors all the time, at rest as well.',
      advice: 'Take less offset, or a motor with more continuous torque.',
    }),
    check({
      id: 'motorPairHolds',
      name: 'The dragged line turns back',
      figure: back,
      limit: LEAST_BACK,
      sense: 'min',
      quantity: 'efficiency',
      severity: 'warn',
      near: 0,
      why: `${one.holder >= 0 ? `Stage ${one.holder + 1} cannot be driven back` : 'A stage is hard to drive back'}: its own motor must push it along, and any lag of that jams the pair.`,
      advice: 'Take stages that turn back; a self-locking pair is pressed by setting its centres instead.',
    }),
  ];
}
