import * as v from 'valibot';
import { quantity, wholeNumber } from './quantity-schema.ts';

const common = {
  id: v.pipe(v.string(), v.description('Identifier on the shop’s shelf, or the joint’s own')),
  name: v.string(),
  frame: v.pipe(quantity('length', 1e-3, 1), v.description('Side or diameter of the frame, m')),
  length: v.pipe(quantity('length', 1e-3, 2), v.description('Length of the body, m')),
  detentTorque: v.pipe(quantity('torque', 0, 1e3), v.description('Torque of the unpowered rotor, N·m')),
  rotorInertia: v.pipe(quantity('inertia', 0, 10), v.description('Rotor inertia, kg·m²')),
  mass: v.pipe(quantity('mass', 0, 1e3), v.description('Mass, kg')),
  price: v.pipe(quantity('money', 0, 1e7), v.description('Price')),
};

export const stepperSchema = v.looseObject({
  type: v.literal('stepper'),
  ...common,
  holdTorque: v.pipe(quantity('torque', 1e-4, 1e3), v.description('Holding torque at rated current, two phases on, N·m')),
  ratedCurrent: v.pipe(quantity('current', 1e-2, 100), v.description('Rated current of a phase, A')),
  resistance: v.pipe(quantity('resistance', 1e-3, 1e3), v.description('Resistance of a phase, Ω')),
  inductance: v.pipe(quantity('inductance', 1e-6, 1), v.description('Inductance of a phase, H')),
  stepsPerTurn: v.pipe(wholeNumber(4, 1000), v.description('Full steps per turn')),
});

export const brushlessSchema = v.looseObject({
  type: v.literal('brushless'),
  ...common,
  speedConstant: v.pipe(quantity('speedConstant', 0.05, 5e3), v.description('Speed constant, rad/s per volt')),
  resistance: v.pipe(quantity('resistance', 1e-4, 1e3), v.description('Resistance between two terminals, Ω')),
  idleCurrent: v.pipe(quantity('current', 0, 100), v.description('No-load current, A')),
  peakCurrent: v.pipe(quantity('current', 1e-2, 1e3), v.description('Short-time current of the winding, A')),
  thermalResistance: v.pipe(quantity('thermalResistance', 1e-2, 1e3), v.description('Winding to surroundings, K/W')),
  allowedRise: v.pipe(v.number(), v.minValue(1), v.maxValue(300), v.description('Allowed rise of the winding, K')),
  sensored: v.pipe(v.boolean(), v.description('Whether the drive knows the rotor angle at standstill')),
});

export const motorSchema = v.variant('type', [stepperSchema, brushlessSchema], 'must be a stepper or a brushless motor');

export const driverSchema = v.looseObject({
  supplyVoltage: v.pipe(quantity('voltage', 0.5, 1e3), v.description('Supply voltage, V')),
  currentLimit: v.pipe(quantity('current', 1e-2, 1e3), v.description('Phase current limit, A')),
  supplyCurrent: v.pipe(quantity('current', 1e-2, 1e3), v.description('What the supply gives, A')),
  microsteps: v.pipe(wholeNumber(1, 256), v.description('Microsteps per full step (steppers)')),
});
