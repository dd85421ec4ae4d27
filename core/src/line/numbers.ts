import type { Demand } from '../brief/demand.ts';
import type { Variant } from '../joint/joint.ts';
import { currentFor, motorEfficiency, motorTorque, topSpeed } from '../motor/available.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Duty, StageNumbers } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { ok, type Problem, type Result } from '../result.ts';
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
  /** Torque the motor can bring to the output at the asked speed. */
  readonly reach: number;
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
  readonly naturalFrequency: number;
  readonly acceleration: number;
  readonly commanded: number;
  readonly sensed: number;
  readonly size: number;
  readonly length: number;
  readonly mass: number;
  readonly money: number;
  readonly motorCurrent: number;
  readonly copperLoss: number;
  readonly motorEfficiency: number;
}

/** What a line came to before one factor was moved, and which factors each stage reads; lets a trial keep what did not move. */
export interface Before {
  readonly numbers: LineNumbers;
  readonly reads: readonly ReadonlySet<string>[];
}

const carriesAlike = (a: StageNumbers, b: StageNumbers): boolean => a === b || (a.ratio === b.ratio && a.etaForward === b.etaForward && a.drag === b.drag && a.maxSpeed === b.maxSpeed);

const same = (a: Duty, b: Duty): boolean => a.torque === b.torque && a.torqueRms === b.torqueRms && a.speed === b.speed;

/** Duties from the output back to the motor: each stage carries what the next one takes in, drag included. */
export function stageDuties(variant: Variant, demand: Demand, shelf: Shelf, before?: Before): Result<{ stages: StageNumbers[]; duties: Duty[] }> {
  const n = variant.stages.length;
  const stages = new Array<StageNumbers>(n);
  const duties = new Array<Duty>(n);
  let at: Duty = { torque: demand.peak, torqueRms: demand.rms, speed: demand.speed };
  for (let j = n - 1; j >= 0; j--) {
    const record = variant.stages[j]!;
    const kind = stageKind(record.kind);
    if (!kind) return { ok: false, problem: { what: `There is no stage of kind “${record.kind}”.`, why: 'This version does not know it.', mend: 'Remove the stage or open the file with a newer version.', place: record.id } };
    const kept = before && shelf.over && !before.reads[j]!.has(shelf.over.id) && same(before.numbers.duties[j]!, at) ? before.numbers.stages[j] : undefined;
    const made = kept ? ok(kept) : kind.screen(record.params, at, shelf);
    if (!made.ok) return { ok: false, problem: { ...made.problem, place: record.id } };
    const s = made.value;
    stages[j] = s;
    duties[j] = at;
    const gain = Math.abs(s.ratio) * s.etaForward;
    at = { torque: at.torque / gain + s.drag, torqueRms: at.torqueRms / gain + s.drag, speed: at.speed * Math.abs(s.ratio) };
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
  const reachAt = (speed: number, time: 'peak' | 'continuous') => forward(stages, motorTorque(motor, driver, shelf, speed * size, time).torque);
  // Most factors move neither the motor nor what the stages let through: then reach and speed stand as they were.
  const moves = !before || !shelf.over || shelf.over.id.startsWith('motor.') || stages.some((s, j) => !carriesAlike(s, before.numbers.stages[j]!));
  const reach = moves ? reachAt(demand.speed, 'peak') : before.numbers.reach;
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
  // Available torque falls with speed, so the highest speed with the peak torque is found by halving.
  let speed = 0;
  if (!moves) speed = before.numbers.speed;
  else if (reachAt(speedLimit, 'peak') >= demand.peak) speed = speedLimit;
  else {
    let [lo, hi] = reach >= demand.peak ? [demand.speed, speedLimit] : [0, Math.min(demand.speed, speedLimit)];
    if (reachAt(lo, 'peak') >= demand.peak) {
      // Twenty-four halvings leave less than a ten-millionth of the range.
      for (let i = 0; i < 24; i++) {
        const mid = (lo + hi) / 2;
        if (reachAt(mid, 'peak') >= demand.peak) lo = mid;
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
  const rotor = motor.rotorInertia * ratio * ratio;
  const inertiaLine = rotor + inertiaStages;
  const stiffness = stiffnessAtOutput(stages);
  const motorNeeded = needed(stages, demand.peak);
  const back = turnBack(stages, motor.detentTorque);
  const torque = Math.min(reach, capacity);
  const heat = motorEfficiency(motor, driver, motorNeeded, demand.speed * size);
  const motorCounts = motor.type === 'stepper' ? motor.stepsPerTurn * driver.microsteps : variant.sensor.place === 'motor' ? variant.sensor.counts : NaN;
  return ok({
    stages, duties, ratio, reach, continuousReach: moves ? reachAt(demand.speed, 'continuous') : before.numbers.continuousReach, capacity, capacityMode, capacityStage, torque, speed, motorNeeded,
    efficiency: motorNeeded > 0 ? demand.peak / (motorNeeded * size) : NaN,
    stiffness, windUpHold, windUpPeak, turnBack: back.torque, holder: back.holder, inertiaLine, rotorShare: inertiaLine > 0 ? rotor / inertiaLine : NaN,
    naturalFrequency: demand.inertia > 0 && Number.isFinite(stiffness) ? Math.sqrt(stiffness / demand.inertia) / (2 * Math.PI) : NaN,
    acceleration: (torque - demand.hold) / (demand.inertia + inertiaLine),
    commanded: (2 * Math.PI) / (motorCounts * size),
    sensed: variant.sensor.place === 'none' ? NaN : (2 * Math.PI) / (variant.sensor.counts * (variant.sensor.place === 'motor' ? size : 1)),
    size: outside, length, mass, money,
    motorCurrent: currentFor(motor, driver, motorNeeded), copperLoss: heat.copperLoss, motorEfficiency: heat.efficiency,
  });
}
