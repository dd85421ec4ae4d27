import { factor, type Shelf } from '../shop/shelf.ts';
import { brushlessCurrent, brushlessTorque, continuousCurrent, torqueConstant } from './brushless.ts';
import type { Driver, Motor } from './motor.ts';
import { stepperCurrent, stepperTorque, stepperTorqueConstant } from './stepper.ts';

export interface MotorPoint {
  /** Torque at the shaft, N·m. */
  readonly torque: number;
  readonly current: number;
  readonly bound: string;
}

/**
 * Torque a motor can give at a speed.
 *
 * @param speed shaft speed, rad/s; the sign does not matter
 * @param time `peak` for seconds, `continuous` for ever (brushless: winding heat; a stepper's rated current is continuous)
 */
export function motorTorque(m: Motor, d: Driver, shelf: Shelf, speed: number, time: 'peak' | 'continuous'): MotorPoint {
  const spread = factor(shelf, 'motor.spread');
  if (m.type === 'stepper') {
    const current = stepperCurrent(m, d, speed);
    const wanted = Math.min(d.currentLimit, m.ratedCurrent);
    return { torque: spread * stepperTorque(m, d, speed), current, bound: current < wanted - 1e-12 ? 'voltage and inductance' : d.currentLimit < m.ratedCurrent ? 'driver current' : 'rated current' };
  }
  const thermal = time === 'peak' ? m.peakCurrent : Math.min(m.peakCurrent, continuousCurrent(m, shelf));
  const { current, bound } = brushlessCurrent(m, d, shelf, speed, thermal);
  return { torque: spread * brushlessTorque(m, current), current, bound };
}

/** Current needed for a torque at the shaft, A. A stepper is driven at its set current whatever the load. */
export function currentFor(m: Motor, d: Driver, torque: number): number {
  if (m.type === 'stepper') return Math.min(d.currentLimit, m.ratedCurrent);
  return Math.abs(torque) / torqueConstant(m) + m.idleCurrent;
}

export interface MotorEfficiency {
  readonly current: number;
  readonly copperLoss: number;
  readonly shaftPower: number;
  /** Shaft power over electrical power; 0 at standstill. */
  readonly efficiency: number;
}

/** Copper loss and efficiency of the motor at a torque and speed. A stepper has two phases, each at I_rms = I/√2. */
export function motorEfficiency(m: Motor, d: Driver, torque: number, speed: number): MotorEfficiency {
  const current = currentFor(m, d, torque);
  const copperLoss = current * current * m.resistance;
  const shaftPower = Math.abs(torque * speed);
  const idle = m.type === 'brushless' ? m.idleCurrent * torqueConstant(m) * Math.abs(speed) : 0;
  const total = shaftPower + copperLoss + idle;
  return { current, copperLoss, shaftPower, efficiency: total > 0 ? shaftPower / total : 0 };
}

/** Highest speed at which any torque is left, rad/s: where the back-EMF meets the supply. */
export function topSpeed(m: Motor, d: Driver): number {
  if (m.type === 'brushless') return d.supplyVoltage * m.speedConstant;
  return d.supplyVoltage / stepperTorqueConstant(m);
}
