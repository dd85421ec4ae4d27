import type { Demand } from '../brief/demand.ts';
import { motorEfficiency, motorTorque, topSpeed } from '../motor/available.ts';
import { motorHeat } from '../motor/heat.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { LineNumbers } from './numbers.ts';
import { forward, needed } from './sum.ts';
import { motorAsked, spinPerAcceleration } from './spin.ts';

/** The reach of the motor after ratio and losses, over output speed. */
export interface TorqueMap {
  readonly speed: Float64Array;
  readonly peak: Float64Array;
  readonly continuous: Float64Array;
  readonly capacity: number;
  readonly points: readonly {
    readonly name: string;
    readonly torque: number;
    readonly speed: number;
    readonly margin: number;
    readonly time: 'peak' | 'continuous';
  }[];
}

/** Efficiency of the stages over the torque at the output, N·m. */
export interface LoadCurve {
  readonly torque: Float64Array;
  readonly efficiency: Float64Array;
}

/** One point of the brief as the motor meets it. */
export interface MotorDuty {
  readonly name: string;
  readonly time: 'peak' | 'continuous';
  /** Needed at the shaft, N·m. */
  readonly torque: number;
  readonly speed: number;
  readonly available: number;
  readonly bound: string;
  /** Available over needed. */
  readonly margin: number;
  readonly current: number;
  readonly copperLoss: number;
  readonly shaftPower: number;
  readonly efficiency: number;
  /** Winding and mount if it went on for ever, K. */
  readonly winding: number;
  readonly mount: number;
}

const MAP_POINTS = 60;
const LOAD_POINTS = 48;

export function torqueMap(variant: Variant, demand: Demand, shelf: Shelf, n: LineNumbers): TorqueMap {
  const size = Math.abs(n.ratio);
  const end = topSpeed(variant.motor, variant.driver) / size;
  // A data sheet's curve is drawn to its last point and no further.
  const top = variant.motor.curve ? end : Math.max(end * 1.02, demand.speed * 1.1, 1e-6);
  const speed = new Float64Array(MAP_POINTS + 1);
  const peak = new Float64Array(MAP_POINTS + 1);
  const continuous = new Float64Array(MAP_POINTS + 1);
  const gives = (w: number, time: 'peak' | 'continuous') =>
    motorTorque(variant.motor, variant.driver, shelf, w * size, time).torque;
  const at = (w: number, time: 'peak' | 'continuous') => forward(n.stages, gives(w, time));
  const spin = spinPerAcceleration(n.inertiaLine, size);
  for (let i = 0; i <= MAP_POINTS; i++) {
    const w = (top * i) / MAP_POINTS;
    speed[i] = w;
    peak[i] = at(w, 'peak');
    continuous[i] = at(w, 'continuous');
  }
  const points = demand.points
    .filter((p) => p.torque > 0)
    .map((p) => ({
      name: p.name,
      torque: p.torque,
      speed: p.speed,
      time: p.time,
      margin:
        p.speed === 0 && n.holder >= 0
          ? Infinity
          : p.time === 'peak'
            ? over(forward(n.stages, gives(p.speed, 'peak') - spin * (p.acceleration ?? 0)), p.torque)
            : over(gives(p.speed, 'continuous'), motorAsked(n.stages, p, spin)),
    }));
  return { speed, peak, continuous, capacity: n.capacity, points };
}

/** What is there over what is asked; as much as anybody likes where nothing is. */
const over = (has: number, asked: number): number => (asked > 0 ? has / asked : Infinity);

/** How much of the motor's work arrives as the load grows to a quarter above the peak: drag weighs less and less. */
export function loadCurve(demand: Demand, n: LineNumbers): LoadCurve | undefined {
  if (!(demand.peak > 0)) return undefined;
  const torque = Float64Array.from({ length: LOAD_POINTS }, (_, i) => (1.25 * demand.peak * (i + 1)) / LOAD_POINTS);
  return { torque, efficiency: torque.map((t) => t / (needed(n.stages, t) * Math.abs(n.ratio))) };
}

/** Every operating point of the brief at the motor's shaft: needed, available, current, heat. */
export function motorPoints(variant: Variant, demand: Demand, shelf: Shelf, n: LineNumbers): MotorDuty[] {
  const { motor, driver } = variant;
  const size = Math.abs(n.ratio);
  const spin = spinPerAcceleration(n.inertiaLine, size);
  return demand.points.map((p) => {
    const torque = p.speed === 0 && n.holder >= 0 ? 0 : motorAsked(n.stages, p, spin);
    const speed = p.speed * size;
    const has = motorTorque(motor, driver, shelf, speed, p.time);
    const heat = motorHeat(motor, driver, shelf, torque);
    const use = motorEfficiency(motor, driver, torque, speed, shelf);
    return {
      name: p.name,
      time: p.time,
      torque,
      speed,
      available: has.torque,
      bound: has.bound,
      margin: over(has.torque, torque),
      current: use.current,
      copperLoss: use.copperLoss,
      shaftPower: use.shaftPower,
      efficiency: use.efficiency,
      winding: heat.winding,
      mount: heat.mount,
    };
  });
}
