import type { Demand } from '../brief/demand.ts';
import { trapezoid } from '../brief/move.ts';
import type { OperatingPoint } from '../brief/pattern.ts';
import type { Variant } from '../schema/joint.ts';
import { currentFor, motorEfficiency, motorTorque, topSpeed } from '../motor/available.ts';
import { driverTemperature, pathCurrent } from '../motor/drive.ts';
import { driveMass, driveMoney } from '../motor/driver.ts';
import { motorHeat } from '../motor/heat.ts';
import { ok, refuse, type Problem, type Result } from '../result.ts';
import { recorded, type Reads } from '../shop/reads.ts';
import { factor, withFactor, type Shelf } from '../shop/shelf.ts';
import { arrivingShare } from '../stage/arriving.ts';
import type { Duty, Stage, StageNumbers } from '../stage/contract.ts';
import { motorRoom, roomOf } from './extent.ts';
import { creptMore } from '../stage/springs.ts';
import { stated } from '../units/stated.ts';
import { givenBack } from './giving-back.ts';
import { aroundWith, type Around } from '../reducer/around.ts';
import { outputNumbers } from './output.ts';
import { sensing } from './sensing.ts';
import { resolutionNumbers, type ResolutionNumbers } from './resolution.ts';
import { rootBetween } from '../math/root.ts';
import { bentWindUp } from '../math/springs.ts';
import { motorAsked, spinPerAcceleration } from './spin.ts';
import { forward, needed, ratiosAfter, stiffnessAtOutput, totalRatio, turnBack } from './sum.ts';

/** Everything the line adds up to, as plain numbers in SI units. NaN marks what does not apply. */
export interface LineNumbers {
  readonly stages: readonly StageNumbers[];
  readonly duties: readonly Duty[];
  readonly ratio: number;
  /**
   * Torque the motor can bring to the output where it is short of the brief most: the brief's peak times the least of
   * reach over torque at its peak points.
   */
  readonly reach: number;
  /** The peak point that decides it; none where the brief asks no torque. */
  readonly governing: OperatingPoint | undefined;
  /**
   * Least of reach over torque at the points carried for ever; holding counts unless a stage holds. Infinity where
   * nothing is asked for ever.
   */
  readonly everMargin: number;
  readonly continuousReach: number;
  readonly capacity: number;
  readonly capacityMode: string;
  readonly capacityStage: number;
  /** That limit at its stage, N·m, and whether it comes sooner since what is asked would warm the line more than it stands. */
  readonly capacityLimit: number;
  readonly heldBack: boolean;
  /** Every static limit carried to the output, N·m, of which the least is the capacity; and every life, s. */
  readonly capacities: readonly number[];
  readonly lives: readonly number[];
  /** The smaller of reach and capacity. */
  readonly torque: number;
  readonly speed: number;
  /** At the peak, what speeds up rotor and stages included; and that part alone. */
  readonly motorNeeded: number;
  readonly spinNeeded: number;
  /** Torque that the motor brings to the output at that speed with nothing sped up, N·m. */
  readonly pull: number;
  /** Acceleration that the motor reaches at the hardest peak that asks for one, and what is asked there, rad/s²; NaN. */
  readonly accelerates: number;
  readonly accelerationAsked: number;
  readonly efficiency: number;
  readonly stiffness: number;
  readonly windUpHold: number;
  readonly windUpPeak: number;
  readonly turnBack: number;
  readonly holder: number;
  readonly inertiaLine: number;
  readonly rotorShare: number;
  /** Load inertia over the rotor's, both at the output. */
  readonly inertiaMatch: number;
  /** Stiffness of the output shaft, N·m/rad; Infinity for none. */
  readonly shaftStiffness: number;
  /** Stiffness of the housing’s shafts between stages and of its bearing blocks, seen at the output, N·m/rad; Infinity for none. */
  readonly linkStiffness: number;
  /** Inertia of the housing’s shafts and hubs, seen at the output, kg·m². */
  readonly linkInertia: number;
  /** Of sensors and their magnets, kg and money. */
  readonly sensorMass: number;
  readonly sensorMoney: number;
  /** Time of the brief's widest move at what acceleration and speed allow, s. */
  readonly moveTime: number;
  /** Torque at the motor for the hardest peak without what its acceleration takes, N·m. */
  readonly steadyNeeded: number;
  /** Speed at the output from which a stepper starts and stops without a ramp under it, rad/s; NaN for others. */
  readonly startStop: number;
  readonly bore: number;
  /** Shortest life of anything that tires, wears or is rated, s; what that is, and of which stage (−1: none). */
  readonly life: number;
  readonly lifeMode: string;
  readonly lifeStage: number;
  readonly bearingLoad: number;
  /** Static safety of the output bearing, C0/P. */
  readonly bearingSafety: number;
  /** How the output bearings give: N·m/rad against tilting, how far the load tilts (rad) and sags (m) on them. */
  readonly tiltStiffness: number;
  readonly tilt: number;
  readonly sag: number;
  /** Winding and mount at the RMS torque held for ever, K. */
  readonly windingTemperature: number;
  readonly mountTemperature: number;
  readonly motorRms: number;
  readonly naturalFrequency: number;
  /**
   * What the output is sped up by where it is held and rubs, rad/s²: the least that the motor (−1) or any stage lets, which
   * one that is, the torque that it gives and the inertia that it speeds up.
   */
  readonly acceleration: number;
  readonly accelerationStage: number;
  readonly accelerationTorque: number;
  readonly accelerationInertia: number;
  readonly resolution: ResolutionNumbers;
  readonly size: number;
  readonly length: number;
  readonly mass: number;
  readonly money: number;
  /** Of that the housing, its shafts and screws; 0 where none is made here. */
  readonly aroundMass: number;
  readonly aroundMoney: number;
  readonly motorCurrent: number;
  /** Most power that comes back at the motor's terminals, W, and energy of one lowering with its stop, J. */
  readonly powerBack: number;
  readonly energyBack: number;
  /** Where the driver settles at the RMS torque, K; NaN where none is chosen. */
  readonly driverTemperature: number;
  readonly copperLoss: number;
  readonly motorEfficiency: number;
}

/** What the driven shaft is asked for. */
export const outputDuty = (demand: Demand): Duty => ({
  torque: demand.peak,
  torqueRms: demand.rms,
  speed: demand.speed,
  equivalent: demand.equivalent,
  meanSpeed: demand.meanSpeed,
  ...(demand.swing > 0 ? { swing: demand.swing } : {}),
  ...(demand.reverses ? { reverses: true } : {}),
  ...(demand.life === undefined ? {} : { life: demand.life }),
});

/**
 * The duty of a shaft that is asked for a torque where the output is asked for its peak, N·m: what a stage is strong by.
 * What wears and warms is left to the whole line.
 */
export function dutyAt(demand: Demand, torque: number): Duty {
  const out = outputDuty(demand);
  const share = torque / Math.max(out.torque, 1e-12);
  return {
    torque,
    torqueRms: out.torqueRms * share,
    speed: out.speed / share,
    ...(out.swing !== undefined && { swing: out.swing / share }),
    ...(out.reverses && { reverses: true }),
  };
}

/** What the shaft before a stage is asked for: what the stage takes in at a duty, its drag included. */
export function inputDuty(at: Duty, s: StageNumbers): Duty {
  const i = Math.abs(s.ratio);
  const gain = i * arrivingShare(s);
  // Written out: one is made for every stage of every trial behind a band, and spreading costs more than the sums.
  const before: { -readonly [K in keyof Duty]: Duty[K] } = {
    torque: at.torque / gain + s.drag,
    torqueRms: at.torqueRms / gain + s.drag,
    speed: at.speed * i,
    equivalent: (at.equivalent ?? 0) / gain + s.drag,
    meanSpeed: (at.meanSpeed ?? 0) * i,
  };
  if (at.swing !== undefined) before.swing = at.swing * i;
  if (at.reverses) before.reverses = true;
  if (at.life !== undefined) before.life = at.life;
  return before;
}

/** The stages of a line under their duties. */
export interface Carrying {
  readonly stages: readonly StageNumbers[];
  readonly duties: readonly Duty[];
}

/** The same with the stages under what they carry (`strongest`). */
interface Carried extends Carrying {
  readonly atMost: readonly StageNumbers[];
}

/** Duties from the output back to the motor; `numbers` gives a stage's at its duty, undefined where it cannot be. */
function carrying(
  count: number,
  output: Duty,
  numbers: (j: number, at: Duty) => StageNumbers | undefined,
): Carrying | undefined {
  const stages = new Array<StageNumbers>(count);
  const duties = new Array<Duty>(count);
  let at = output;
  for (let j = count - 1; j >= 0; j--) {
    const made = numbers(j, at);
    if (!made) return undefined;
    stages[j] = made;
    duties[j] = at;
    at = inputDuty(at, made);
  }
  return { stages, duties };
}

/** As near to what it carries as a line is loaded that heat holds back, as a share of it. */
const NEAR = 1e-4;

/**
 * Stages of a line that breaks under what is asked since that warms it: under as much as they carry when it is as warm as that
 * makes it. A bench that loads it until it breaks finds that, and not what is left of it at a heat that it never comes to.
 * Where heat has no part in it, and where it carries what is asked, the stages as they are.
 *
 * @param under stages under a share of what is asked of the output; undefined where they cannot be
 */
function strongest(
  { stages }: Carrying,
  peak: number,
  under: (share: number) => readonly StageNumbers[] | undefined,
): readonly StageNumbers[] {
  const { capacity } = weakest(stages);
  if (!(capacity < peak)) return stages;
  const at = new Map<number, readonly StageNumbers[]>([[1, stages]]);
  const over = (share: number): number => {
    const made = at.get(share) ?? under(share) ?? stages;
    at.set(share, made);
    const off = weakest(made).capacity / peak - share;
    return Math.abs(off) < NEAR * share ? 0 : off;
  };
  // Where it carries no more when it is loaded less, it is not the heat.
  const least = Math.max(NEAR, capacity / peak);
  if (!(over(least) > 0)) return stages;
  const share = rootBetween(over, least, 1);
  return at.get(share) ?? under(share) ?? stages;
}

/** A duty of which a share is asked, as fast and as often. */
const shareOf = (at: Duty, share: number): Duty => ({
  ...at,
  torque: at.torque * share,
  torqueRms: at.torqueRms * share,
  ...(at.equivalent !== undefined && { equivalent: at.equivalent * share }),
});

const sameDuty = (a: Duty, b: Duty): boolean =>
  a.torque === b.torque && a.torqueRms === b.torqueRms && a.speed === b.speed && a.equivalent === b.equivalent;

/** What motor and driver bring to the output through a line. */
interface Brought {
  readonly reach: number;
  readonly governing: OperatingPoint | undefined;
  readonly pull: number;
  readonly continuousReach: number;
  readonly everMargin: number;
  readonly accelerates: number;
  readonly accelerationAsked: number;
  readonly speed: number;
}

/**
 * What motor and driver bring to the output: where they are short of the brief most, for ever, and up to which speed.
 *
 * @param speedLimit speed that motor and stages stand, at the output, rad/s
 * @param holds whether a stage cannot be driven back and so carries the holding by itself
 * @param spin motor torque that speeding up rotor and stages takes, for an acceleration of the output
 */
function brought(
  variant: Variant,
  demand: Demand,
  shelf: Shelf,
  stages: readonly StageNumbers[],
  speedLimit: number,
  holds: boolean,
  spin: number,
): Brought {
  const size = Math.abs(totalRatio(stages));
  const gives = (speed: number, time: 'peak' | 'continuous') =>
    motorTorque(variant.motor, variant.driver, shelf, speed * size, time).torque;
  const reachAt = (speed: number, time: 'peak' | 'continuous', acceleration = 0) =>
    forward(stages, gives(speed, time) - spin * acceleration);
  const peaks = demand.points.filter((p) => p.time === 'peak' && p.torque > 0);
  let reach = reachAt(demand.speed, 'peak');
  let governing: OperatingPoint | undefined;
  if (peaks.length > 0) {
    let least = Infinity;
    for (const p of peaks) {
      const margin = reachAt(p.speed, 'peak', p.acceleration) / p.torque;
      if (margin < least) [least, governing] = [margin, p];
    }
    reach = demand.peak * least;
  }
  // T_out(a) = T_other + J·a with the motor's torque less what rotor and stages take, solved for a.
  let [accelerates, accelerationAsked] = [NaN, NaN];
  const gain = gainOf(stages);
  for (const p of peaks) {
    if (!(p.acceleration! > 0)) continue;
    const other = Math.max(0, p.torque - demand.inertia * p.acceleration!);
    const all = demand.inertia + gain * spin;
    const able = all > 0 ? (reachAt(p.speed, 'peak') - other) / all : Infinity;
    if (!(able / p.acceleration! >= accelerates / accelerationAsked))
      [accelerates, accelerationAsked] = [able, p.acceleration!];
  }
  let everMargin = Infinity;
  for (const p of demand.points) {
    if (p.time !== 'continuous' || !(p.torque > 0) || (p.speed === 0 && holds)) continue;
    everMargin = Math.min(everMargin, gives(p.speed, 'continuous') / motorAsked(stages, p, spin));
  }
  const carries = (w: number): boolean => {
    if (peaks.length === 0) return reachAt(w, 'peak') >= demand.peak;
    for (const p of peaks)
      if (reachAt(demand.speed > 0 ? (p.speed * w) / demand.speed : w, 'peak', p.acceleration) < p.torque) return false;
    return true;
  };
  return {
    reach,
    governing,
    pull: reachAt(governing?.speed ?? demand.speed, 'peak'),
    everMargin,
    continuousReach: reachAt(demand.speed, 'continuous'),
    accelerates,
    accelerationAsked,
    speed: highestSpeed(carries, demand.speed, speedLimit, reach >= demand.peak),
  };
}

/**
 * The highest speed with the peak torque, by halving: available torque falls with speed, and all points are sped up
 * alike. Twenty-four halvings leave less than a ten-millionth of the range; false position needed as many.
 */
function highestSpeed(carries: (w: number) => boolean, asked: number, limit: number, reached: boolean): number {
  if (carries(limit)) return limit;
  let [lo, hi] = reached ? [Math.min(asked, limit), limit] : [0, Math.min(asked, limit)];
  if (!carries(lo)) return 0;
  for (let i = 0; i < 24; i++) {
    const mid = (lo + hi) / 2;
    if (carries(mid)) lo = mid;
    else hi = mid;
  }
  return lo;
}

/** Share of the motor's work that arrives at a torque carried steadily; NaN where none is asked. */
function arriving(stages: readonly StageNumbers[], torque: number, size: number): number {
  const motor = needed(stages, torque);
  return motor > 0 ? torque / (motor * size) : NaN;
}

/** What the motor is asked for at the hardest peak, how much of it speeds up rotor and stages, and root mean square, N·m. */
function askedOfMotor(stages: readonly StageNumbers[], demand: Demand, spin: number) {
  let [motorNeeded, spinNeeded, motorRms] = [0, 0, 0];
  for (const p of demand.points) {
    const asked = motorAsked(stages, p, spin);
    if (p.time === 'peak' && asked > motorNeeded) [motorNeeded, spinNeeded] = [asked, spin * (p.acceleration ?? 0)];
    if (p.time === 'continuous' && p.acceleration !== undefined) motorRms = Math.max(motorRms, asked);
  }
  return {
    motorNeeded: motorNeeded > 0 ? motorNeeded : needed(stages, demand.peak),
    spinNeeded,
    motorRms: motorRms > 0 ? motorRms : needed(stages, demand.rms),
  };
}

/** Torque at the output for one at the motor that nothing rubs away from, N·m/N·m. */
const gainOf = (stages: readonly StageNumbers[]): number =>
  stages.reduce((g, s) => g * Math.abs(s.ratio) * arrivingShare(s), 1);

/** What turns from a stage's output on and must go through it to be sped up, at the line's output, kg·m². */
function inertiasBehind(stages: readonly StageNumbers[], after: Float64Array, links: readonly number[]): Float64Array {
  const out = new Float64Array(stages.length);
  let behind = 0;
  for (let j = stages.length - 1; j >= 0; j--) {
    const s = stages[j]!;
    const square = after[j]! ** 2;
    behind += (s.inertiaOut + (links[j] ?? 0)) * square;
    out[j] = behind;
    behind += s.inertiaIn * s.ratio ** 2 * square;
  }
  return out;
}

/**
 * What the output is sped up by while its load hangs and rubs: what the motor brings, on load, line and rotor, or what a
 * stage carries, on what lies behind it, whichever is less.
 *
 * @param pull torque of the motor at the output with nothing sped up, N·m
 * @param own inertia of rotor and line that the motor's torque speeds up, each of it through the efficiency, kg·m²
 */
function speedsUp(
  stages: readonly StageNumbers[],
  demand: Demand,
  pull: number,
  own: number,
  behind: Float64Array,
): { readonly acceleration: number; readonly stage: number; readonly torque: number; readonly inertia: number } {
  const against = demand.hold + demand.friction;
  const by = (stage: number, torque: number, inertia: number) => ({
    acceleration: inertia > 0 ? (torque - against) / inertia : Infinity,
    stage,
    torque,
    inertia,
  });
  let least = by(-1, pull, demand.inertia + own);
  stages.forEach((s, j) => {
    for (const limit of s.limits) {
      if (limit.time !== 'static') continue;
      const now = by(j, forward(stages, limit.torque, j + 1), demand.inertia + behind[j]!);
      if (now.acceleration < least.acceleration) least = now;
    }
  });
  return least;
}

/** The least of every stage's static limits carried forward through what follows, N·m: what breaks, skips or dents it. */
function weakest(stages: readonly StageNumbers[]) {
  const capacities: number[] = [];
  let capacity = Infinity;
  let capacityMode = 'motor';
  let capacityStage = -1;
  let capacityLimit = Infinity;
  for (let j = 0; j < stages.length; j++) {
    for (const limit of stages[j]!.limits) {
      if (limit.time !== 'static') continue;
      const t = forward(stages, limit.torque, j + 1);
      capacities.push(t);
      if (t < capacity) [capacity, capacityMode, capacityStage, capacityLimit] = [t, limit.mode, j, limit.torque];
    }
  }
  return { capacity, capacityMode, capacityStage, capacityLimit, capacities };
}

/** Every life of a line, s: of its shaft's bearings, of brushes, of each limit that is one, and of each stage's bearings. */
function livesOf(stages: readonly StageNumbers[], shaft: number, brushes: number): number[] {
  const out = [shaft, brushes];
  for (const s of stages) {
    for (const limit of s.limits) out.push(limit.life);
    out.push(s.life);
  }
  return out;
}

/** Wind-up of a stage under a torque that is held, rad: with what its plastics creep in a thousand hours. */
export const heldWindUp = (s: StageNumbers, torque: number): number =>
  bentWindUp(torque, s.stiffness, s.bendTorque, s.stiffnessBeyond) * creptMore(s.springs);

/** What ends first in the long run, and after how long, s. */
function shortest(
  stages: readonly StageNumbers[],
  shaft: number,
  brushes: number,
): { life: number; lifeMode: string; lifeStage: number } {
  let [life, lifeMode, lifeStage] = shaft <= brushes ? [shaft, 'output bearings', -1] : [brushes, 'brushes', -1];
  stages.forEach((s, j) => {
    if (!(s.life < life)) return;
    const mode = s.limits.reduce<string | undefined>((m, l) => (l.life <= s.life * (1 + 1e-9) ? l.mode : m), undefined);
    [life, lifeMode, lifeStage] = [s.life, mode ?? 'bearings', j];
  });
  return { life, lifeMode, lifeStage };
}

/**
 * Wind-up that friction holds, rad: the load's winds up the shaft and every stage, a stage's own drag only what lies
 * before that stage.
 */
function heldByFriction(stages: readonly StageNumbers[], after: Float64Array, friction: number, shaft: number): number {
  let behind = friction;
  let stick = behind / shaft;
  for (let j = stages.length - 1; j >= 0; j--) {
    const s = stages[j]!;
    const d = Math.abs(after[j]!);
    stick += behind / (s.stiffness * d * d);
    behind += s.drag * Math.abs(s.ratio) * d;
  }
  return stick;
}

/** A line that was summed: its numbers, and what a trial of one factor can keep of them. */
export interface SummedLine {
  readonly numbers: LineNumbers;
  /** What the stages depend on is known by the stages; this is all that the sum itself has read. */
  readonly reads: Reads;
  /** What motor and driver bring depends on. */
  readonly reach: Reads;
}

/** A line before it is summed: what is asked, and the opened stages. */
export interface LineToSum {
  readonly variant: Variant;
  readonly stages: readonly Stage[];
  readonly demand: Demand;
  readonly shelf: Shelf;
  /** What stands round its stages, where mass, money and size are to count it. */
  readonly around?: Around | undefined;
}

/**
 * Sums a line: ratio, torque both ways, capacity, stiffness, inertia, resolution, mass and money.
 *
 * Source: recursions of `sum.ts`; capacity is the least of every stage limit carried forward through what follows.
 */
export function sumLine(line: LineToSum): Result<SummedLine> {
  const output = outputDuty(line.demand);
  const under = (at: Duty) => carrying(line.stages.length, at, (j, x) => line.stages[j]!.load(x))!;
  const asked = under(output);
  const atMost = strongest(asked, line.demand.peak, (share) => under(shareOf(output, share)).stages);
  const carries: Carried = { ...asked, atMost };
  const unknown = outsideCurve(line.variant, line.demand, line.shelf, Math.abs(totalRatio(carries.stages)));
  if (unknown) return unknown;
  let reach: Reads | undefined;
  const { value, reads } = recorded(line.shelf, (shelf) =>
    sum(line.variant, line.demand, shelf, carries, line.around, (find) => {
      const found = recorded(shelf, find);
      reach = found.reads;
      return found.value;
    }),
  );
  if (line.around) reads.add(line.around.reads);
  return ok({ numbers: value, reads, reach: reach! });
}

/** The same numbers with one factor of the shop at another value; undefined where the line cannot be so. */
export function trialOf(line: LineToSum, before: SummedLine, id: string, value: number): LineNumbers | undefined {
  const was = before.numbers;
  const output = outputDuty(line.demand);
  const under = (at: Duty) =>
    carrying(line.stages.length, at, (j, x) => {
      const stage = line.stages[j]!;
      const untouched = sameDuty(was.duties[j]!, x) && !stage.reads(x).factors.has(id);
      return untouched ? was.stages[j] : stage.moved(id, value)?.load(x);
    });
  const asked = under(output);
  if (!asked) return undefined;
  const atMost = strongest(asked, line.demand.peak, (share) => under(shareOf(output, share))?.stages);
  const carries: Carried = { ...asked, atMost };
  const shelf = withFactor(line.shelf, id, value);
  const spins = line.demand.points.some((p) => (p.acceleration ?? 0) > 0);
  const kept = !before.reach.factors.has(id) && carries.stages.every((s, j) => bringsAlike(s, was.stages[j]!, spins));
  const around = line.around && aroundWith(line.around, line.shelf, id, value);
  return sum(line.variant, line.demand, shelf, carries, around, (find) => (kept ? was : find(shelf)));
}

/** The same numbers with motor, driver or output shaft changed and the stages as they are. */
export function sumWith(line: LineToSum, change: Partial<Variant>): LineNumbers | undefined {
  const made = sumLine({ ...line, variant: { ...line.variant, ...change } });
  return made.ok ? made.value.numbers : undefined;
}

/** Whether a stage lets through the same of what the motor brings. */
const bringsAlike = (a: StageNumbers, b: StageNumbers, spins: boolean): boolean =>
  a === b ||
  (a.ratio === b.ratio &&
    arrivingShare(a) === arrivingShare(b) &&
    a.etaBackward > 0 === b.etaBackward > 0 &&
    a.drag === b.drag &&
    a.maxSpeed === b.maxSpeed &&
    (!spins || (a.inertiaIn === b.inertiaIn && a.inertiaOut === b.inertiaOut)));

/**
 * Shafts between stages as one spring at the output, N·m/rad: k·D² of each, one after the other.
 *
 * @param after ratio that follows each stage
 */
function linksAtOutput(springs: readonly number[], after: Float64Array): number {
  let gives = 0;
  for (let j = 0; j < springs.length; j++) gives += 1 / (springs[j]! * after[j]! ** 2);
  return 1 / gives;
}

function sum(
  variant: Variant,
  demand: Demand,
  shelf: Shelf,
  { stages, duties, atMost }: Carried,
  around: Around | undefined,
  reachBy: (find: (shelf: Shelf) => Brought) => Brought,
): LineNumbers {
  const { motor, driver } = variant;
  const ratio = totalRatio(stages);
  const size = Math.abs(ratio);
  const after = ratiosAfter(stages);
  const back = turnBack(stages, motor.detentTorque);
  let speedLimit = topSpeed(motor, driver) / size;
  let [windUpHold, windUpPeak, inertiaStages, inertiaLinks] = [0, 0, 0, 0];
  const senses = sensing(variant, shelf);
  let mass = motor.mass + driveMass(driver) + senses.mass;
  let money = motor.price + driveMoney(driver) + senses.money;
  for (let j = 0; j < stages.length; j++) {
    const s = stages[j]!;
    const d = Math.abs(after[j]!);
    speedLimit = Math.min(speedLimit, s.maxSpeed / Math.abs(s.ratio * after[j]!));
    windUpHold += heldWindUp(s, demand.hold / d) / d;
    windUpPeak += bentWindUp(demand.peak / d, s.stiffness, s.bendTorque, s.stiffnessBeyond) / d;
    inertiaStages += s.inertiaIn * (s.ratio * d) ** 2 + s.inertiaOut * d * d;
    inertiaLinks += (around?.inertias[j] ?? 0) * d * d;
    mass += s.mass;
    money += s.money;
  }
  const [room, own] = [roomOf(stages), motorRoom(motor)];
  const rotor = motor.rotorInertia * ratio * ratio;
  const inertiaLine = rotor + inertiaStages + inertiaLinks;
  const spin = spinPerAcceleration(inertiaLine, size);
  const { reach, governing, pull, continuousReach, everMargin, speed, accelerates, accelerationAsked } = reachBy(
    (read) => brought(variant, demand, read, stages, speedLimit, back.holder >= 0, spin),
  );
  const strong = weakest(atMost);
  const shaft = outputNumbers(variant.output, demand.meanSpeed, shelf, stages.at(-1)?.pushes);
  // Shafts between stages give as well, each seen through what follows it.
  const links = around ? linksAtOutput(around.springs, after) : Infinity;
  const behind = 1 / (1 / shaft.stiffness + 1 / links);
  const stick = heldByFriction(stages, after, demand.friction, behind);
  const stiffness = 1 / (1 / stiffnessAtOutput(stages) + 1 / behind);
  const { motorNeeded, spinNeeded, motorRms } = askedOfMotor(stages, demand, spin);
  const brushes = motor.type === 'brushed' && demand.meanSpeed > 0 ? factor(shelf, 'motor.brushes') : Infinity;
  const lives = shortest(stages, shaft.life, brushes);
  const torque = Math.min(reach, strong.capacity);
  const warm = motorHeat(motor, driver, shelf, motorRms);
  // A peak is carried by a winding as warm as the cycle keeps it; one that would run away is as hot as it may be.
  const hot = Number.isFinite(warm.winding) ? warm.winding : undefined;
  const loss = motorEfficiency(motor, driver, motorNeeded, demand.speed * size, shelf, driver.winding ?? hot);
  const returned = givenBack(motor, driver, stages, demand, inertiaLine, size);
  const gain = gainOf(stages);
  const steadyNeeded = needed(stages, steadyPeak(demand));
  const behindStages = inertiasBehind(stages, after, around?.inertias ?? []);
  const fastest = speedsUp(stages, demand, pull, gain * spin, behindStages);
  const move = trapezoid(demand.swing, speed, Math.max(0, fastest.acceleration));
  return {
    stages,
    duties,
    ratio,
    reach,
    governing,
    pull,
    everMargin,
    continuousReach,
    capacity: strong.capacity,
    capacityMode: strong.capacityMode,
    capacityStage: strong.capacityStage,
    capacityLimit: strong.capacityLimit,
    heldBack: atMost !== stages,
    capacities: strong.capacities,
    lives: livesOf(stages, shaft.life, brushes),
    torque,
    speed,
    motorNeeded,
    spinNeeded,
    motorRms,
    accelerates,
    accelerationAsked,
    efficiency: arriving(stages, demand.peak, size),
    stiffness,
    shaftStiffness: shaft.stiffness,
    linkStiffness: links,
    linkInertia: inertiaLinks,
    sensorMass: senses.mass,
    sensorMoney: senses.money,
    windUpHold: windUpHold + demand.hold / behind,
    windUpPeak: windUpPeak + demand.peak / behind,
    turnBack: back.torque,
    holder: back.holder,
    inertiaLine,
    rotorShare: inertiaLine > 0 ? rotor / inertiaLine : NaN,
    inertiaMatch: rotor > 0 && demand.inertia > 0 ? demand.inertia / rotor : NaN,
    naturalFrequency:
      demand.inertia > 0 && Number.isFinite(stiffness) ? Math.sqrt(stiffness / demand.inertia) / (2 * Math.PI) : NaN,
    acceleration: fastest.acceleration,
    accelerationStage: fastest.stage,
    accelerationTorque: fastest.torque,
    accelerationInertia: fastest.inertia,
    moveTime: fastest.acceleration > 0 && speed > 0 && demand.swing > 0 ? 2 * move.up + move.cruise : NaN,
    resolution: resolutionNumbers(variant, shelf, size, needed(stages, 0), stick),
    size: around?.size ?? room.size(own),
    length: around?.length ?? room.length(own),
    mass: mass + shaft.mass + (around?.mass ?? 0),
    money: money + shaft.money + (around?.money ?? 0),
    aroundMass: around?.mass ?? 0,
    aroundMoney: around?.money ?? 0,
    bore: clearBore(stages),
    life: lives.life,
    lifeMode: lives.lifeMode,
    lifeStage: lives.lifeStage,
    steadyNeeded,
    startStop: startStopSpeed(variant, shelf, steadyNeeded, spin + demand.inertia / gain, size),
    bearingLoad: shaft.load,
    bearingSafety: shaft.safety,
    tiltStiffness: shaft.tiltStiffness,
    tilt: shaft.tilt,
    sag: shaft.sag,
    windingTemperature: warm.winding,
    mountTemperature: warm.mount,
    motorCurrent: currentFor(motor, driver, motorNeeded),
    powerBack: returned.power,
    energyBack: returned.energy,
    driverTemperature: driver.unit ? driverTemperature(driver.unit, pathCurrent(motor, driver, motorRms), shelf) : NaN,
    copperLoss: loss.copperLoss,
    motorEfficiency: loss.efficiency,
  };
}

/** The hardest peak without what its own acceleration takes, N·m. */
const steadyPeak = (demand: Demand): number => {
  const peaks = demand.points.filter((p) => p.time === 'peak' && p.torque > 0);
  if (peaks.length === 0) return demand.peak;
  return Math.max(0, ...peaks.map((p) => p.torque - demand.inertia * Math.max(0, p.acceleration ?? 0)));
};

/**
 * Speed at the output up to which a stepper starts and stops within a full step, without a ramp, rad/s: what its torque
 * leaves over the load does over that step speeds everything up, ½·J·ω² = (T − T_load)·θ_s.
 *
 * @param load torque at the motor that the load takes without being sped up, N·m
 * @param spin torque at the motor for an acceleration of the output, of load, rotor and stages, N·m·s²/rad
 * @returns NaN where the motor is none, 0 where it does not lift the load
 */
function startStopSpeed({ motor, driver }: Variant, shelf: Shelf, load: number, spin: number, size: number): number {
  if (motor.type !== 'stepper') return NaN;
  const spare = motorTorque(motor, driver, shelf, 0, 'peak').torque - load;
  const step = (2 * Math.PI) / motor.stepsPerTurn;
  return spare > 0 && spin > 0 ? Math.sqrt((2 * spare * step) / (spin * size)) : 0;
}

/** Clear passage from the output back to where the line turns aside; a motor in line blocks it, m. */
export function clearBore(stages: readonly { readonly bore: number; readonly beside: boolean }[]): number {
  let bore = Infinity;
  for (let j = stages.length - 1; j >= 0; j--) {
    bore = Math.min(bore, stages[j]!.bore);
    if (stages[j]!.beside) return bore;
  }
  return 0;
}

/** Refuses a brief that asks the motor for speeds outside its data sheet's curve, where nothing is known. */
function outsideCurve(
  variant: Variant,
  demand: Demand,
  shelf: Shelf,
  size: number,
): { ok: false; problem: Problem } | undefined {
  const { motor, driver } = variant;
  if (!motor.curve && !motor.curveEver) return undefined;
  for (const p of demand.points) {
    if (motorTorque(motor, driver, shelf, p.speed * size, p.time).known) continue;
    const curve = p.time === 'continuous' ? (motor.curveEver ?? motor.curve) : motor.curve;
    const [from, to] = [curve!.speed[0]!, curve!.speed[curve!.speed.length - 1]!];
    const say = (w: number) => stated(w, 'speed', 4);
    const fast = p.speed * size > to;
    return refuse(
      `${p.name[0]!.toUpperCase()}${p.name.slice(1)} needs ${say(p.speed * size)} at the motor, and its ` +
        `${p.time === 'continuous' ? 'continuous ' : ''}curve ` +
        `${fast ? `ends at ${say(to)}` : `begins at ${say(from)}`}.`,
      'Outside its points nothing is known of its torque, and nothing is made up.',
      fast
        ? `Take less ratio than ${stated(to / p.speed, 'ratio', 4)}, ask for less speed, or add points to the curve.`
        : 'Add the point at standstill, or remove the curve.',
    );
  }
  return undefined;
}
