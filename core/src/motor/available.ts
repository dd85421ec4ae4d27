import { factor, type Shelf } from '../shop/shelf.ts';
import { brushlessCurrent, brushlessTorque, continuousCurrent, torqueConstant } from './brushless.ts';
import { curveTorque } from './curve.ts';
import type { Driver, Motor } from './motor.ts';
import { servoLoss, servoTorque } from './servo.ts';
import { stepperCurrent, stepperTorque, stepperTorqueConstant } from './stepper.ts';

export interface MotorPoint {
  /** Torque at the shaft, N·m; 0 where nothing is known. */
  readonly torque: number;
  readonly current: number;
  readonly bound: string;
  /** False where the speed lies outside the data sheet's curve. */
  readonly known: boolean;
}

/** The curve that counts for a motor, if it has one. A stepper's holding torque is its curve's point at standstill. */
function curveOf(m: Motor, time: 'peak' | 'continuous') {
  return time === 'continuous' ? (m.curveEver ?? (m.type === 'stepper' ? m.curve : undefined)) : m.curve;
}

/**
 * Torque a motor can give at a speed.
 *
 * @param speed shaft speed, rad/s; the sign does not matter
 * @param time `peak` for seconds, `continuous` for ever (brushless: winding heat; a stepper's rated current is
 *   continuous)
 */
export function motorTorque(m: Motor, d: Driver, shelf: Shelf, speed: number, time: 'peak' | 'continuous'): MotorPoint {
  const spread = factor(shelf, 'motor.spread');
  const curve = curveOf(m, time);
  if (curve) {
    const w = Math.abs(speed);
    const scale = m.type === 'stepper' ? Math.min(1, d.currentLimit / m.ratedCurrent) : 1;
    const torque = m.type === 'stepper' && w === 0 && curve.speed[0]! > 0 ? m.holdTorque : curveTorque(curve, w);
    if (!Number.isFinite(torque)) return { torque: 0, current: 0, bound: 'end of its curve', known: false };
    return {
      torque: spread * scale * Math.max(0, torque),
      current: currentFor(m, d, torque),
      bound: 'data sheet',
      known: true,
    };
  }
  if (m.type === 'stepper') {
    const current = stepperCurrent(m, d, speed);
    const wanted = Math.min(d.currentLimit, m.ratedCurrent);
    return {
      torque: spread * stepperTorque(m, d, speed),
      current,
      bound:
        current < wanted - 1e-12
          ? 'voltage and inductance'
          : d.currentLimit < m.ratedCurrent
            ? 'driver current'
            : 'rated current',
      known: true,
    };
  }
  if (m.type === 'servo') {
    const sheet = servoTorque(m, speed, time);
    const limited = (m.ratedTorque * d.currentLimit) / m.ratedCurrent;
    const torque = Math.min(sheet, limited);
    return {
      torque: spread * torque,
      current: currentFor(m, d, torque),
      bound:
        limited < sheet
          ? 'driver current'
          : Math.abs(speed) > m.maxSpeed
            ? 'highest speed'
            : time === 'peak'
              ? 'peak torque'
              : 'rated torque',
      known: true,
    };
  }
  const thermal = time === 'peak' ? m.peakCurrent : Math.min(m.peakCurrent, continuousCurrent(m, shelf));
  const { current, bound } = brushlessCurrent(m, d, shelf, speed, thermal);
  return { torque: spread * brushlessTorque(m, current), current, bound, known: true };
}

/** Current needed for a torque at the shaft, A. A stepper is driven at its set current whatever the load. */
export function currentFor(m: Motor, d: Driver, torque: number): number {
  if (m.type === 'stepper') return Math.min(d.currentLimit, m.ratedCurrent);
  if (m.type === 'servo') return (m.ratedCurrent * Math.abs(torque)) / m.ratedTorque;
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
  const copperLoss = m.type === 'servo' ? servoLoss(m, torque) : current * current * m.resistance;
  const shaftPower = Math.abs(torque * speed);
  const idle = m.type === 'brushless' || m.type === 'brushed' ? m.idleCurrent * torqueConstant(m) * Math.abs(speed) : 0;
  const total = shaftPower + copperLoss + idle;
  return { current, copperLoss, shaftPower, efficiency: total > 0 ? shaftPower / total : 0 };
}

/**
 * Highest speed at which any torque is left or known, rad/s: where the back-EMF meets the supply, or the data sheet
 * ends.
 */
export function topSpeed(m: Motor, d: Driver): number {
  if (m.curve) return m.curve.speed[m.curve.speed.length - 1]!;
  if (m.type === 'servo') return m.maxSpeed;
  if (m.type === 'stepper') return d.supplyVoltage / stepperTorqueConstant(m);
  return d.supplyVoltage * m.speedConstant;
}
