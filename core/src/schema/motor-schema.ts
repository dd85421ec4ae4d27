import * as v from 'valibot';
import { quantity, wholeNumber } from './quantity-schema.ts';

/** A data sheet's curve: speeds rising, as many torques. */
const curve = v.optional(
  v.pipe(
    v.looseObject({
      speed: v.pipe(v.array(quantity('speed', 0, 1e5)), v.minLength(2, 'needs at least two points'), v.maxLength(500)),
      torque: v.array(quantity('torque', 0, 1e5)),
    }),
    v.check((c) => c.speed.length === c.torque.length, 'must have as many torques as speeds'),
    v.check((c) => c.speed.every((x, i) => i === 0 || x > c.speed[i - 1]!), 'must have rising speeds'),
  ),
);

const common = {
  id: v.pipe(v.string(), v.description('Identifier on the shop’s shelf, or the joint’s own')),
  name: v.string(),
  frame: v.pipe(quantity('length', 1e-3, 1), v.description('Side or diameter of the frame, m')),
  length: v.pipe(quantity('length', 1e-3, 2), v.description('Length of the body, m')),
  detentTorque: v.pipe(quantity('torque', 0, 1e3), v.description('Torque of the unpowered rotor, N·m')),
  rotorInertia: v.pipe(quantity('inertia', 0, 10), v.description('Rotor inertia, kg·m²')),
  mass: v.pipe(quantity('mass', 0, 1e3), v.description('Mass, kg')),
  price: v.pipe(quantity('money', 0, 1e7), v.description('Price')),
  pull: v.pipe(
    v.optional(quantity('force', 0, 1e5)),
    v.description('Force across its shaft that its bearings stand, N; 0 or left out where nobody says'),
  ),
  curve: v.pipe(curve, v.description('Short-time torque over speed from the data sheet, rad/s and N·m')),
  curveEver: v.pipe(curve, v.description('Continuous torque over speed from the data sheet')),
};

const magnets = {
  speedConstant: v.pipe(quantity('speedConstant', 0.05, 5e3), v.description('Speed constant, rad/s per volt')),
  resistance: v.pipe(quantity('resistance', 1e-4, 1e3), v.description('Resistance between two terminals, Ω')),
  idleCurrent: v.pipe(quantity('current', 0, 100), v.description('No-load current, A')),
  peakCurrent: v.pipe(quantity('current', 1e-2, 1e3), v.description('Short-time current of the winding, A')),
  thermalResistance: v.pipe(quantity('thermalResistance', 1e-2, 1e3), v.description('Winding to surroundings, K/W')),
  allowedRise: v.pipe(v.number(), v.minValue(1), v.maxValue(300), v.description('Allowed rise of the winding, K')),
};

export const stepperSchema = v.looseObject({
  type: v.literal('stepper'),
  ...common,
  holdTorque: v.pipe(
    quantity('torque', 1e-4, 1e3),
    v.description('Holding torque at rated current, two phases on, N·m'),
  ),
  ratedCurrent: v.pipe(quantity('current', 1e-2, 100), v.description('Rated current of a phase, A')),
  resistance: v.pipe(quantity('resistance', 1e-3, 1e3), v.description('Resistance of a phase, Ω')),
  inductance: v.pipe(quantity('inductance', 1e-6, 1), v.description('Inductance of a phase, H')),
  stepsPerTurn: v.pipe(wholeNumber(4, 1000), v.description('Full steps per turn')),
});

export const brushlessSchema = v.looseObject({
  type: v.literal('brushless'),
  ...common,
  ...magnets,
  sensored: v.pipe(v.boolean(), v.description('Whether the drive knows the rotor angle at standstill')),
});

export const brushedSchema = v.looseObject({ type: v.literal('brushed'), ...common, ...magnets });

export const servoSchema = v.looseObject({
  type: v.literal('servo'),
  ...common,
  ratedTorque: v.pipe(quantity('torque', 1e-4, 1e4), v.description('Continuous torque up to the rated speed, N·m')),
  ratedSpeed: v.pipe(quantity('speed', 1e-2, 1e5), v.description('Rated speed, rad/s')),
  peakTorque: v.pipe(quantity('torque', 1e-4, 1e5), v.description('Short-time torque, N·m')),
  maxSpeed: v.pipe(quantity('speed', 1e-2, 1e5), v.description('Highest speed, rad/s')),
  ratedCurrent: v.pipe(quantity('current', 1e-3, 1e3), v.description('Current at rated torque, A')),
  efficiency: v.pipe(quantity('efficiency', 0.01, 1), v.description('At rated torque and speed')),
  allowedRise: v.pipe(
    v.number(),
    v.minValue(1),
    v.maxValue(300),
    v.description('Rise of the winding at rated torque, K'),
  ),
});

export const motorSchema = v.variant(
  'type',
  [stepperSchema, brushlessSchema, brushedSchema, servoSchema],
  'must be a stepper, a brushless or brushed motor, or a servo',
);

export const driverUnitSchema = v.looseObject({
  id: v.string(),
  name: v.string(),
  drives: v.picklist(['stepper', 'brushless', 'brushed', 'servo']),
  sets: v.pipe(v.picklist(['peak', 'rms', 'line']), v.description('What its current setting is')),
  current: v.pipe(quantity('current', 1e-2, 1e3), v.description('Most it can be set to, A')),
  least: v.pipe(quantity('voltage', 0, 1e3), v.description('Least supply voltage, V')),
  most: v.pipe(quantity('voltage', 0.5, 1e3), v.description('Most supply voltage, V')),
  torque: v.pipe(v.boolean(), v.description('Whether it commands torque')),
  resistance: v.pipe(quantity('resistance', 0, 100), v.description('Of the two switches a current passes, Ω')),
  idle: v.pipe(quantity('power', 0, 1e3), v.description('Its own use, switching included, W')),
  thermalResistance: v.pipe(quantity('thermalResistance', 1e-2, 1e3), v.description('Driver to air, K/W')),
  hottest: v.pipe(quantity('temperature', 200, 600), v.description('Temperature it must stay below, K')),
  mass: v.pipe(v.optional(quantity('mass', 0, 100)), v.description('Mass, kg; not counted where left out')),
  price: v.pipe(quantity('money', 0, 1e7), v.description('Price')),
  source: v.string(),
});

export const supplySchema = v.looseObject({
  id: v.string(),
  name: v.string(),
  voltage: v.pipe(quantity('voltage', 0.5, 1e3), v.description('Voltage, V')),
  current: v.pipe(quantity('current', 1e-2, 1e3), v.description('Current it gives, A')),
  takesBack: v.pipe(v.boolean(), v.description('Whether it takes power back, as a battery does')),
  capacitance: v.pipe(quantity('capacitance', 1e-6, 100), v.description('At its output, with the driver’s, F')),
  stands: v.pipe(quantity('voltage', 0.5, 2e3), v.description('Voltage at its output that it stands, V')),
  price: v.pipe(quantity('money', 0, 1e7), v.description('Price')),
  source: v.string(),
});

export const driverSchema = v.looseObject({
  supplyVoltage: v.pipe(quantity('voltage', 0.5, 1e3), v.description('Supply voltage, V')),
  currentLimit: v.pipe(quantity('current', 1e-2, 1e3), v.description('Current limit, A, in the measure of sets')),
  sets: v.pipe(
    v.optional(v.picklist(['peak', 'rms', 'line'])),
    v.description(
      'What the current limit is: amplitude of a phase (peak, where left out), its root mean square (rms), or the line current of a trapezoidal drive (line)',
    ),
  ),
  supplyCurrent: v.pipe(quantity('current', 1e-2, 1e3), v.description('What the supply gives, A')),
  microsteps: v.pipe(wholeNumber(1, 256), v.description('Microsteps per full step (steppers)')),
  winding: v.pipe(
    v.optional(quantity('temperature', 200, 600)),
    v.description('Winding temperature the curves hold for, K; absent for 20 °C'),
  ),
  unit: v.pipe(v.optional(driverUnitSchema), v.description('The driver itself, where one is chosen')),
  supply: v.pipe(v.optional(supplySchema), v.description('The supply itself, where one is chosen')),
  brake: v.pipe(
    v.optional(quantity('power', 0, 1e5)),
    v.description('Power that a brake resistor takes up, W; none where left out'),
  ),
});
