import type { BrushlessMotor, StepperMotor } from '../motor/motor.ts';

const mm = 1e-3;
const gcm2 = 1e-7;

function stepper(id: string, name: string, frame: number, length: number, hold: number, current: number, resistance: number, inductance: number, detent: number, rotor: number, mass: number, price: number): StepperMotor {
  return { id, name, type: 'stepper', frame: frame * mm, length: length * mm, holdTorque: hold, ratedCurrent: current, resistance, inductance: inductance * 1e-3, stepsPerTurn: 200, detentTorque: detent, rotorInertia: rotor * gcm2, mass, price };
}

function brushless(id: string, name: string, frame: number, length: number, kv: number, resistance: number, idle: number, peak: number, rth: number, rotor: number, mass: number, price: number, cogging: number): BrushlessMotor {
  return { id, name, type: 'brushless', frame: frame * mm, length: length * mm, speedConstant: (kv * 2 * Math.PI) / 60, resistance, idleCurrent: idle, peakCurrent: peak, thermalResistance: rth, allowedRise: 80, sensored: true, detentTorque: cogging, rotorInertia: rotor * gcm2, mass, price };
}

/** Made-up generic motors by frame size; none is any maker's. */
export const MOTORS: readonly (StepperMotor | BrushlessMotor)[] = [
  stepper('st35-28', 'Stepper, 35 mm frame, 28 long', 35, 28, 0.11, 0.8, 5.6, 6.2, 0.008, 12, 0.14, 12),
  stepper('st42-40', 'Stepper, 42 mm frame, 40 long', 42, 40, 0.42, 1.5, 1.9, 3.6, 0.015, 54, 0.28, 13),
  stepper('st42-48', 'Stepper, 42 mm frame, 48 long', 42, 48, 0.55, 1.7, 1.7, 3.2, 0.02, 72, 0.36, 16),
  stepper('st42-60', 'Stepper, 42 mm frame, 60 long', 42, 60, 0.68, 2.0, 1.4, 2.9, 0.025, 96, 0.48, 21),
  stepper('st57-56', 'Stepper, 57 mm frame, 56 long', 57, 56, 1.25, 2.8, 0.95, 2.6, 0.04, 290, 0.7, 26),
  stepper('st57-76', 'Stepper, 57 mm frame, 76 long', 57, 76, 1.9, 2.8, 1.15, 3.8, 0.07, 470, 1.0, 34),
  brushless('bl28-140', 'Brushless, 28 mm frame, 900 rpm/V', 28, 30, 900, 0.11, 0.6, 18, 5.5, 10, 0.07, 18, 0.003),
  brushless('bl42-340', 'Brushless, 42 mm frame, 340 rpm/V', 42, 38, 340, 0.13, 0.5, 22, 3.4, 62, 0.19, 32, 0.008),
  brushless('bl50-170', 'Brushless, 50 mm frame, 170 rpm/V', 50, 40, 170, 0.19, 0.4, 28, 2.4, 160, 0.31, 46, 0.014),
  brushless('bl63-100', 'Brushless, 63 mm frame, 100 rpm/V', 63, 48, 100, 0.16, 0.6, 36, 1.7, 480, 0.55, 68, 0.025),
];
