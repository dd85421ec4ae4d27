import type { Demand } from '../brief/demand.ts';
import type { OperatingPoint } from '../brief/pattern.ts';
import type { Variant } from '../joint/joint.ts';
import { currentFor, motorEfficiency, motorTorque, topSpeed } from '../motor/available.ts';
import { motorHeat } from '../motor/heat.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Duty, StageNumbers } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { ok, refuse, type Problem, type Result } from '../result.ts';
import { trapezoid } from '../brief/move.ts';
import { formatQuantity } from '../units/format.ts';
import { outputNumbers } from './output.ts';
import { resolutionNumbers, type ResolutionNumbers } from './resolution.ts';
import { bentWindUp, forward, needed, ratiosAfter, stiffnessAtOutput, totalRatio, turnBack } from './sum.ts';

/** A stage that cannot be computed, and why. */
export interface StageTrouble {
  readonly stageId: string;
  readonly problem: Problem;
}

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
  /** The smaller of reach and capacity. */
  readonly torque: number;
  readonly speed: number;
  readonly motorNeeded: number;
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
  /** Time of the brief's widest move at what acceleration and speed allow, s. */
  readonly moveTime: number;
  readonly bore: number;
  /** Shortest life of anything rated, s. */
  readonly life: number;
  readonly bearingLoad: number;
  /** Static safety of the output bearing, C0/P. */
  readonly bearingSafety: number;
  /** Winding and mount at the RMS torque held for ever, K. */
  readonly windingTemperature: number;
  readonly mountTemperature: number;
  readonly motorRms: number;
  readonly naturalFrequency: number;
  readonly acceleration: number;
  readonly resolution: ResolutionNumbers;
  readonly size: number;
  readonly length: number;
  readonly mass: number;
  readonly money: number;
  readonly motorCurrent: number;
  readonly copperLoss: number;
  readonly motorEfficiency: number;
}

/**
 * What a line came to before one factor was moved, and which factors each stage reads; lets a trial keep what did not
 * move.
 */
export interface Before {
  readonly numbers: LineNumbers;
  readonly reads: readonly ReadonlySet<string>[];
}

const carriesAlike = (a: StageNumbers, b: StageNumbers): boolean =>
  a === b || (a.ratio === b.ratio && a.etaForward === b.etaForward && a.drag === b.drag && a.maxSpeed === b.maxSpeed);

const same = (a: Duty, b: Duty): boolean => a.torque === b.torque && a.torqueRms === b.torqueRms && a.speed === b.speed;

/** Duties from the output back to the motor: each stage carries what the next one takes in, drag included. */
export function stageDuties(
  variant: Variant,
  demand: Demand,
  shelf: Shelf,
  before?: Before,
): Result<{ stages: StageNumbers[]; duties: Duty[] }> {
  const n = variant.stages.length;
  const stages = new Array<StageNumbers>(n);
  const duties = new Array<Duty>(n);
  let at: Duty = {
    torque: demand.peak,
    torqueRms: demand.rms,
    speed: demand.speed,
    equivalent: demand.equivalent,
    meanSpeed: demand.meanSpeed,
    ...(demand.swing > 0 ? { swing: demand.swing } : {}),
  };
  for (let j = n - 1; j >= 0; j--) {
    const record = variant.stages[j]!;
    const kind = stageKind(record.kind);
    if (!kind)
      return {
        ok: false,
        problem: {
          what: `There is no stage of kind “${record.kind}”.`,
          why: 'This version does not know it.',
          mend: 'Remove the stage or open the file with a newer version.',
          place: record.id,
        },
      };
    const kept =
      before && shelf.over && !before.reads[j]!.has(shelf.over.id) && same(before.numbers.duties[j]!, at)
        ? before.numbers.stages[j]
        : undefined;
    const made = kept ? ok(kept) : kind.screen(record.params, at, shelf);
    if (!made.ok) return { ok: false, problem: { ...made.problem, place: record.id } };
    const s = made.value;
    stages[j] = s;
    duties[j] = at;
    const gain = Math.abs(s.ratio) * s.etaForward;
    const i = Math.abs(s.ratio);
    at = {
      torque: at.torque / gain + s.drag,
      torqueRms: at.torqueRms / gain + s.drag,
      speed: at.speed * i,
      equivalent: (at.equivalent ?? 0) / gain + s.drag,
      meanSpeed: (at.meanSpeed ?? 0) * i,
      ...(at.swing === undefined ? {} : { swing: at.swing * i }),
    };
  }
  return ok({ stages, duties });
}

/**
 * Sums a line: ratio, torque both ways, capacity, stiffness, inertia, resolution, mass and money.
 *
 * Source: recursions of `sum.ts`; capacity is the least of every stage limit carried forward through what follows.
 */
export function lineNumbers(variant: Variant, demand: Demand, shelf: Shelf, before?: Before): Result<LineNumbers> {
  const made = stageDuties(variant, demand, shelf, before);
  if (!made.ok) return made;
  const { stages, duties } = made.value;
  const { motor, driver } = variant;
  const ratio = totalRatio(stages);
  const size = Math.abs(ratio);
  const reachAt = (speed: number, time: 'peak' | 'continuous') =>
    forward(stages, motorTorque(motor, driver, shelf, speed * size, time).torque);
  const unknown = outsideCurve(variant, demand, shelf, size);
  if (unknown) return unknown;
  // Most factors move neither the motor nor what the stages let through: then reach and speed stand as they were.
  const moves =
    !before ||
    !shelf.over ||
    MOVES_REACH.has(shelf.over.id) ||
    stages.some((s, j) => !carriesAlike(s, before.numbers.stages[j]!));
  const peaks = demand.points.filter((p) => p.time === 'peak' && p.torque > 0);
  let reach = moves ? reachAt(demand.speed, 'peak') : before.numbers.reach;
  let governing = moves ? undefined : before.numbers.governing;
  if (moves && peaks.length > 0) {
    let least = Infinity;
    for (const p of peaks) {
      const margin = reachAt(p.speed, 'peak') / p.torque;
      if (margin < least) [least, governing] = [margin, p];
    }
    reach = demand.peak * least;
  }
  let capacity = Infinity;
  let capacityMode = 'motor';
  let capacityStage = -1;
  let speedLimit = topSpeed(motor, driver) / size;
  const after = ratiosAfter(stages);
  for (let j = 0; j < stages.length; j++) {
    for (const limit of stages[j]!.limits) {
      const t = forward(stages, limit.torque, j + 1);
      if (t < capacity) [capacity, capacityMode, capacityStage] = [t, limit.mode, j];
    }
    speedLimit = Math.min(speedLimit, stages[j]!.maxSpeed / Math.abs(stages[j]!.ratio * after[j]!));
  }
  // Available torque falls with speed, so the highest speed with the peak torque is found by halving; all points are
  // sped up alike.
  const carries = (w: number): boolean => {
    if (peaks.length === 0) return reachAt(w, 'peak') >= demand.peak;
    for (const p of peaks)
      if (reachAt(demand.speed > 0 ? (p.speed * w) / demand.speed : w, 'peak') < p.torque) return false;
    return true;
  };
  let speed = 0;
  if (!moves) speed = before.numbers.speed;
  else if (carries(speedLimit)) speed = speedLimit;
  else {
    let [lo, hi] =
      reach >= demand.peak ? [Math.min(demand.speed, speedLimit), speedLimit] : [0, Math.min(demand.speed, speedLimit)];
    if (carries(lo)) {
      // Twenty-four halvings leave less than a ten-millionth of the range.
      for (let i = 0; i < 24; i++) {
        const mid = (lo + hi) / 2;
        if (carries(mid)) lo = mid;
        else hi = mid;
      }
      speed = lo;
    }
  }
  let windUpHold = 0;
  let windUpPeak = 0;
  let inertiaStages = 0;
  let mass = motor.mass;
  let money = motor.price;
  let outside = motor.frame;
  let length = motor.length;
  for (let j = 0; j < stages.length; j++) {
    const s = stages[j]!;
    const d = Math.abs(after[j]!);
    windUpHold += bentWindUp(demand.hold / d, s.stiffness, s.bendTorque, s.stiffnessBeyond) / d;
    windUpPeak += bentWindUp(demand.peak / d, s.stiffness, s.bendTorque, s.stiffnessBeyond) / d;
    inertiaStages += s.inertiaIn * (s.ratio * d) ** 2 + s.inertiaOut * d * d;
    mass += s.mass;
    money += s.money;
    outside = Math.max(outside, s.outside);
    length += s.length;
  }
  const shaft = outputNumbers(variant.output, demand.meanSpeed);
  windUpHold += demand.hold / shaft.stiffness;
  windUpPeak += demand.peak / shaft.stiffness;
  mass += shaft.mass;
  money += shaft.money;
  // Friction winds up the springs before it: the load's the shaft and every stage, a stage's own drag only what lies
  // before that stage.
  let behind = demand.friction;
  let stick = behind / shaft.stiffness;
  for (let j = stages.length - 1; j >= 0; j--) {
    const s = stages[j]!;
    const d = Math.abs(after[j]!);
    stick += behind / (s.stiffness * d * d);
    behind += s.drag * Math.abs(s.ratio) * d;
  }
  const rotor = motor.rotorInertia * ratio * ratio;
  const inertiaLine = rotor + inertiaStages;
  const stiffness = 1 / (1 / stiffnessAtOutput(stages) + 1 / shaft.stiffness);
  const motorNeeded = needed(stages, demand.peak);
  const motorRms = needed(stages, demand.rms);
  const back = turnBack(stages, motor.detentTorque);
  const torque = Math.min(reach, capacity);
  const loss = motorEfficiency(motor, driver, motorNeeded, demand.speed * size);
  const warm = motorHeat(motor, driver, shelf, motorRms);
  const acceleration = (torque - demand.hold) / (demand.inertia + inertiaLine);
  const move = trapezoid(demand.swing, speed, Math.max(0, acceleration));
  let everMargin = moves ? Infinity : before.numbers.everMargin;
  if (moves) {
    for (const p of demand.points) {
      // A stage that cannot be driven back carries the holding by itself.
      if (p.time !== 'continuous' || !(p.torque > 0) || (p.speed === 0 && back.holder >= 0)) continue;
      everMargin = Math.min(everMargin, reachAt(p.speed, 'continuous') / p.torque);
    }
  }
  return ok({
    stages,
    duties,
    ratio,
    reach,
    governing,
    everMargin,
    continuousReach: moves ? reachAt(demand.speed, 'continuous') : before.numbers.continuousReach,
    capacity,
    capacityMode,
    capacityStage,
    torque,
    speed,
    motorNeeded,
    motorRms,
    efficiency: motorNeeded > 0 ? demand.peak / (motorNeeded * size) : NaN,
    stiffness,
    shaftStiffness: shaft.stiffness,
    windUpHold,
    windUpPeak,
    turnBack: back.torque,
    holder: back.holder,
    inertiaLine,
    rotorShare: inertiaLine > 0 ? rotor / inertiaLine : NaN,
    inertiaMatch: rotor > 0 && demand.inertia > 0 ? demand.inertia / rotor : NaN,
    naturalFrequency:
      demand.inertia > 0 && Number.isFinite(stiffness) ? Math.sqrt(stiffness / demand.inertia) / (2 * Math.PI) : NaN,
    acceleration,
    moveTime: acceleration > 0 && speed > 0 && demand.swing > 0 ? 2 * move.up + move.cruise : NaN,
    resolution: resolutionNumbers(variant, shelf, size, needed(stages, 0), stick),
    size: outside,
    length,
    mass,
    money,
    bore: clearBore(stages),
    life: Math.min(shaft.life, ...stages.map((s) => s.life)),
    bearingLoad: shaft.load,
    bearingSafety: shaft.safety,
    windingTemperature: warm.winding,
    mountTemperature: warm.mount,
    motorCurrent: currentFor(motor, driver, motorNeeded),
    copperLoss: loss.copperLoss,
    motorEfficiency: loss.efficiency,
  });
}

/** Factors that change what the motor gives; the others leave its reach alone. */
const MOVES_REACH = new Set(['motor.spread', 'motor.sensorless', 'motor.duty', 'motor.copper']);

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
    const say = (w: number) => formatQuantity(w, 'speed', {}, 4);
    const fast = p.speed * size > to;
    return refuse(
      `${p.name[0]!.toUpperCase()}${p.name.slice(1)} needs ${say(p.speed * size)} at the motor, and its ` +
        `${p.time === 'continuous' ? 'continuous ' : ''}curve ` +
        `${fast ? `ends at ${say(to)}` : `begins at ${say(from)}`}.`,
      'Outside its points nothing is known of its torque, and nothing is made up.',
      fast
        ? `Take less ratio than ${formatQuantity(to / p.speed, 'ratio', {}, 4)}, ask for less speed, or add points to the curve.`
        : 'Add the point at standstill, or remove the curve.',
    );
  }
  return undefined;
}
