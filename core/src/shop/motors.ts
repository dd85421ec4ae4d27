import type { BrushedMotor, BrushlessMotor, Motor, ServoMotor, StepperMotor } from '../motor/motor.ts';

const mm = 1e-3;
const gcm2 = 1e-7;

function stepper(id: string, name: string, frame: number, length: number, hold: number, current: number, resistance: number, inductance: number, detent: number, rotor: number, mass: number, price: number): StepperMotor {
  return { id, name, type: 'stepper', frame: frame * mm, length: length * mm, holdTorque: hold, ratedCurrent: current, resistance, inductance: inductance * 1e-3, stepsPerTurn: 200, detentTorque: detent, rotorInertia: rotor * gcm2, mass, price };
}

function brushless(id: string, name: string, frame: number, length: number, kv: number, resistance: number, idle: number, peak: number, rth: number, rotor: number, mass: number, price: number, cogging: number, sensored = true): BrushlessMotor {
  return { id, name, type: 'brushless', frame: frame * mm, length: length * mm, speedConstant: (kv * 2 * Math.PI) / 60, resistance, idleCurrent: idle, peakCurrent: peak, thermalResistance: rth, allowedRise: 80, sensored, detentTorque: cogging, rotorInertia: rotor * gcm2, mass, price };
}

function brushed(id: string, name: string, frame: number, length: number, kv: number, resistance: number, idle: number, peak: number, rth: number, rotor: number, mass: number, price: number, cogging: number): BrushedMotor {
  return { id, name, type: 'brushed', frame: frame * mm, length: length * mm, speedConstant: (kv * 2 * Math.PI) / 60, resistance, idleCurrent: idle, peakCurrent: peak, thermalResistance: rth, allowedRise: 70, detentTorque: cogging, rotorInertia: rotor * gcm2, mass, price };
}

function servo(id: string, name: string, frame: number, length: number, rated: number, peak: number, ratedRpm: number, maxRpm: number, current: number, efficiency: number, rotor: number, mass: number, price: number, idle: number): ServoMotor {
  const rpm = (2 * Math.PI) / 60;
  return { id, name, type: 'servo', frame: frame * mm, length: length * mm, ratedTorque: rated, ratedSpeed: ratedRpm * rpm, peakTorque: peak, maxSpeed: maxRpm * rpm, ratedCurrent: current, efficiency, allowedRise: 90, detentTorque: idle, rotorInertia: rotor * gcm2, mass, price };
}

/** Made-up generic motors by frame size; none is any maker's. */
export const MOTORS: readonly Motor[] = [
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
  brushless('bl86-60', 'Brushless, 86 mm frame, 60 rpm/V', 86, 30, 60, 0.2, 0.5, 40, 1.3, 1150, 0.72, 94, 0.04),
  brushless('bl28-900s', 'Brushless, 28 mm frame, 900 rpm/V, no sensor', 28, 26, 900, 0.11, 0.6, 18, 5.5, 10, 0.06, 12, 0.003, false),
  brushed('br24-750', 'Brushed, 24 mm, 750 rpm/V', 24, 34, 750, 1.9, 0.06, 4, 18, 5, 0.06, 6, 0.002),
  brushed('br37-420', 'Brushed, 37 mm, 420 rpm/V', 37, 57, 420, 0.62, 0.2, 12, 11, 42, 0.2, 12, 0.006),
  brushed('br42-180', 'Brushed, 42 mm, 180 rpm/V', 42, 72, 180, 0.55, 0.25, 18, 7, 130, 0.42, 28, 0.012),
  servo('sv40-100', 'Servo, 40 mm flange, 100 W', 40, 88, 0.32, 0.95, 3000, 6000, 1.1, 0.82, 45, 0.48, 120, 0.01),
  servo('sv60-200', 'Servo, 60 mm flange, 200 W', 60, 84, 0.64, 1.9, 3000, 6000, 1.7, 0.84, 220, 0.9, 150, 0.02),
  servo('sv60-400', 'Servo, 60 mm flange, 400 W', 60, 108, 1.27, 3.8, 3000, 6000, 2.8, 0.86, 340, 1.3, 180, 0.03),
];
