import { factor, type Shelf } from '../shop/shelf.ts';
import {
  brushlessCurrent,
  brushlessTorque,
  continuousCurrent,
  resistanceAt,
  ROOM,
  sensorlessShare,
  torqueConstant,
} from './brushless.ts';
import { curveTorque } from './curve.ts';
import { linePerAmpere } from './driver.ts';
import type { DcMotor, Driver, Motor } from './motor.ts';
import { servoLoss, servoTorque } from './servo.ts';
import { stepperAmplitude, stepperTop, stepperTorque } from './stepper.ts';

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
 * @param time `peak` for seconds, `continuous` as long as it takes (brushless: winding heat; a stepper's rated current is
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
    const { torque, bound } = stepperTorque(m, d, shelf, speed);
    return {
      torque: spread * torque,
      current: currentFor(m, d, torque),
      bound,
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
  const share = sensorlessShare(m, d, shelf, speed, time);
  return {
    torque: spread * share * brushlessTorque(m, current),
    current: current / linePerAmpere(m, d),
    bound: share < 1 ? 'sensorless start' : bound,
    known: true,
  };
}

/**
 * Current needed for a torque at the shaft, A, in the measure of the driver's setting. A stepper is driven at its set
 * current whatever the load.
 */
export function currentFor(m: Motor, d: Driver, torque: number): number {
  if (m.type === 'stepper') return Math.min(d.currentLimit, m.ratedCurrent);
  if (m.type === 'servo') return (m.ratedCurrent * Math.abs(torque)) / m.ratedTorque;
  return lineCurrentFor(m, torque) / linePerAmpere(m, d);
}

/** Line current of a motor with magnets for a torque at its shaft, A. */
export const lineCurrentFor = (m: DcMotor, torque: number): number =>
  Math.abs(torque) / torqueConstant(m) + m.idleCurrent;

export interface MotorEfficiency {
  readonly current: number;
  readonly copperLoss: number;
  readonly shaftPower: number;
  /** Shaft power over electrical power; 0 at standstill. */
  readonly efficiency: number;
}

/**
 * Copper loss of a motor at a torque, W.
 *
 * A stepper has two phases, each at I/√2 of its amplitude: I²·R. With magnets the line current through the two terminals:
 * I²·R, which for sine currents is the same 3/2·I_phase²·R/2. A servo's are told by its efficiency.
 *
 * @param resistance of a phase or between two terminals as warm as it is, Ω
 */
export function copperLoss(m: Motor, d: Driver, torque: number, resistance: number): number {
  if (m.type === 'servo') return servoLoss(m, torque);
  const current = m.type === 'stepper' ? stepperAmplitude(m, d) : lineCurrentFor(m, torque);
  return current * current * resistance;
}

/**
 * Copper loss and efficiency of the motor at a torque and speed.
 *
 * @param temperature of the winding, K
 */
export function motorEfficiency(
  m: Motor,
  d: Driver,
  torque: number,
  speed: number,
  shelf: Shelf,
  temperature: number = d.winding ?? ROOM,
): MotorEfficiency {
  const current = currentFor(m, d, torque);
  const loss = copperLoss(m, d, torque, m.type === 'servo' ? 0 : resistanceAt(m, temperature, shelf));
  const shaftPower = Math.abs(torque * speed);
  const idle = m.type === 'brushless' || m.type === 'brushed' ? m.idleCurrent * torqueConstant(m) * Math.abs(speed) : 0;
  const total = shaftPower + loss + idle;
  return { current, copperLoss: loss, shaftPower, efficiency: total > 0 ? shaftPower / total : 0 };
}

/**
 * Highest speed at which torque is left or known, rad/s: where the back-EMF meets the supply, a stepper has a third of its
 * torque left, or the data sheet ends.
 */
export function topSpeed(m: Motor, d: Driver): number {
  if (m.curve) return m.curve.speed[m.curve.speed.length - 1]!;
  if (m.type === 'servo') return m.maxSpeed;
  if (m.type === 'stepper') return stepperTop(m, d);
  return d.supplyVoltage * m.speedConstant;
}
