import type { Shelf } from '../shop/shelf.ts';
import { motorTorque, topSpeed } from './available.ts';
import { continuousCurrent, torqueConstant } from './brushless.ts';
import type { Driver, Motor } from './motor.ts';
import { microstepTorque, stepperTorqueConstant } from './stepper.ts';

/** What follows from a motor and its driver, SI units; NaN marks what a type does not have. */
export interface MotorConstants {
  readonly torqueConstant: number;
  /** k_t/√R, N·m/√W: torque for a watt of heat. */
  readonly motorConstant: number;
  readonly topSpeed: number;
  readonly noLoadSpeed: number;
  readonly stallTorque: number;
  readonly continuousTorque: number;
  readonly continuousCurrent: number;
  /** Torque of one microstep, N·m. */
  readonly microstepTorque: number;
  /** Slope of the torque over the rotor's angle at rest, N·m/rad: what a stepper holds its place with. */
  readonly stepStiffness: number;
}

export function motorConstants(m: Motor, d: Driver, shelf: Shelf): MotorConstants {
  const magnets = m.type === 'brushless' || m.type === 'brushed';
  const kt = magnets ? torqueConstant(m) : m.type === 'stepper' ? stepperTorqueConstant(m) : m.ratedTorque / m.ratedCurrent;
  const current = m.type === 'stepper' ? Math.min(1, d.currentLimit / m.ratedCurrent) : NaN;
  return {
    torqueConstant: kt,
    motorConstant: m.type === 'servo' ? NaN : kt / Math.sqrt(m.resistance),
    topSpeed: topSpeed(m, d),
    noLoadSpeed: magnets ? (d.supplyVoltage - m.idleCurrent * m.resistance) * m.speedConstant : NaN,
    stallTorque: motorTorque(m, d, shelf, 0, 'peak').torque,
    continuousTorque: motorTorque(m, d, shelf, 0, 'continuous').torque,
    continuousCurrent: magnets ? continuousCurrent(m, shelf) : m.ratedCurrent,
    microstepTorque: m.type === 'stepper' ? current * microstepTorque(m, d.microsteps) : NaN,
    // T = T_hold·sin(θ·steps/4): slope at rest T_hold·steps/4.
    stepStiffness: m.type === 'stepper' ? (current * m.holdTorque * m.stepsPerTurn) / 4 : NaN,
  };
}
