import type { QuantityId } from '../units/quantity.ts';

/** A coefficient that the predictions use: likely value, range that covers about 95 % of cases, and who says so. */
export interface Factor {
  readonly id: string;
  readonly name: string;
  readonly quantity: QuantityId;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly source: string;
}

export const STARTING = 'starting value; a bench test should replace it';

const f = (id: string, name: string, quantity: QuantityId, value: number, low: number, high: number, source = STARTING): Factor => ({ id, name, quantity, value, low, high, source });

/** The general factors; those of a belt section are made from the section itself (see `section.ts`). */
export const FACTORS: readonly Factor[] = [
  f('gravity', 'Acceleration of gravity', 'gravity', 9.80665, 9.80665, 9.80665, 'standard gravity, ISO 80000-3; set the local value'),
  f('belt.efficiency', 'Synchronous belt stage, efficiency', 'efficiency', 0.96, 0.93, 0.98),
  f('belt.seal', 'No-load drag of a pulley shaft with two shielded bearings', 'torque', 0.003, 0.001, 0.008),
  f('belt.bearing', 'Bearing friction coefficient at the shaft', 'count', 0.0015, 0.001, 0.003, 'deep-groove ball bearings, usual catalogue practice for the constant coefficient of friction'),
  f('belt.tooth', 'Belt tooth stiffness per tooth and width', 'stiffnessPerWidth', 60e6, 30e6, 120e6),
  f('belt.jump', 'Tooth jump: share of the installation tension that resists it', 'count', 1.6, 1.1, 2.2),
  f('belt.takeUp', 'Take-up for tensioning, share of the centre distance', 'efficiency', 0.005, 0.003, 0.01),
  f('belt.backBend', 'Smallest back-bending diameter over the smallest pulley', 'ratio', 1.3, 1.1, 1.6),
  f('hold.screw', 'Set screw M3: tangential holding force', 'force', 200, 120, 300),
  f('hold.glue', 'Bonded bore: shear strength', 'stiffnessPerWidth', 8e6, 4e6, 15e6),
  f('hold.key', 'Flat or key: bearing pressure', 'stiffnessPerWidth', 30e6, 20e6, 60e6),
  f('hold.bolt', 'Bolted through: friction force per M3 screw', 'force', 350, 200, 500),
  f('printed.shear', 'Printed tooth, shear strength', 'stiffnessPerWidth', 9e6, 5e6, 18e6),
  f('printed.density', 'Printed part, density with its infill', 'density', 800, 600, 1150),
  f('metal.density', 'Bought pulley, density with its bores', 'density', 2300, 2100, 2700),
  f('price.pulley', 'Bought pulley, price before its teeth', 'money', 2.2, 1.5, 4),
  f('price.tooth', 'Bought pulley, price per tooth and 6 mm of width', 'money', 0.09, 0.05, 0.16),
  f('price.belt', 'Belt, price per metre and 6 mm of width', 'money', 7, 4, 12),
  f('price.print', 'Printed part, price per kilogram', 'money', 24, 18, 40),
  f('price.bearing', 'Pair of deep-groove ball bearings for a shaft', 'money', 2.4, 1.2, 5),
  f('motor.spread', 'Motor torque against its data sheet', 'ratio', 1, 0.9, 1.07, 'usual tolerance of winding and magnet'),
  f('motor.sensorless', 'Sensorless drive: share of no-load speed below which no torque can be relied on', 'efficiency', 0.1, 0.06, 0.15),
  f('motor.duty', 'Highest duty of the driver’s output voltage', 'efficiency', 0.95, 0.92, 0.98),
  f('ambient', 'Surroundings, temperature', 'temperature', 293.15, 283.15, 308.15, 'a workshop in summer and winter; set your own'),
  f('motor.stepperRise', 'Stepper at rated current: rise of the winding', 'temperatureRise', 65, 50, 80),
  f('motor.case', 'Motor’s face at its mount: share of the winding’s rise', 'efficiency', 0.6, 0.45, 0.8),
  f('motor.stepError', 'Stepper: step error, share of a full step, not adding up', 'efficiency', 0.05, 0.03, 0.08, 'usual data-sheet tolerance of hybrid steppers'),
  f('mount.margin', 'Printed mount: how far below softening it must stay', 'temperatureRise', 10, 10, 10),
  f('unit.efficiency', 'Bought unit: spread of its efficiency about the data sheet', 'ratio', 1, 0.95, 1.03),
  f('unit.drag', 'Bought unit: spread of its drag about the data sheet', 'ratio', 1, 0.6, 1.6),
  f('unit.stiffness', 'Bought unit: spread of its stiffness about the data sheet', 'ratio', 1, 0.8, 1.2),
  f('motor.copper', 'Temperature coefficient of copper resistance per kelvin', 'count', 0.00393, 0.00393, 0.00393, 'annealed copper at 20 °C, IEC 60028'),
];
