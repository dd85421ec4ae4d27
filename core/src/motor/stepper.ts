import type { Driver, StepperMotor } from './motor.ts';

/** Torque per ampere of one phase, from the two-phase-on holding torque: k_t = T_hold/(√2·I_r), N·m/A. */
export const stepperTorqueConstant = (m: StepperMotor): number => m.holdTorque / (Math.SQRT2 * m.ratedCurrent);

/**
 * Phase current amplitude that the supply can still drive at a speed: the root of V² = (R·I + k_t·ω)² + (ω_e·L·I)², the
 * phasor sum of resistive drop, back-EMF and inductive drop, with ω_e = ω·steps/4 (one electrical turn is four full
 * steps).
 *
 * @returns amperes, between 0 and the smaller of the driver's limit and the rated current
 * Source: phasor model of one phase of a hybrid stepper (Acarnley, Stepping Motors, pull-out torque with a
 * fixed-voltage drive).
 */
export function stepperCurrent(m: StepperMotor, d: Driver, speed: number): number {
  const wanted = Math.min(d.currentLimit, m.ratedCurrent);
  const w = Math.abs(speed);
  const e = stepperTorqueConstant(m) * w;
  const x = ((w * m.stepsPerTurn) / 4) * m.inductance;
  const a = m.resistance ** 2 + x * x;
  const b = 2 * m.resistance * e;
  const c = e * e - d.supplyVoltage ** 2;
  if (c >= 0) return 0;
  return Math.max(0, Math.min(wanted, (-b + Math.sqrt(b * b - 4 * a * c)) / (2 * a)));
}

/** Pull-out torque at a speed (rad/s): T_hold·I(f)/I_r, N·m. */
export const stepperTorque = (m: StepperMotor, d: Driver, speed: number): number =>
  (m.holdTorque * stepperCurrent(m, d, speed)) / m.ratedCurrent;

/**
 * Torque that moves the rotor by no more than one microstep: T_hold·sin(π/2/n), N·m. Microsteps resolve; they do not
 * hold.
 */
export const microstepTorque = (m: StepperMotor, microsteps: number): number =>
  m.holdTorque * Math.sin(Math.PI / 2 / microsteps);
