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
  f('gear.frictionMetal', 'Tooth friction, metal on metal, greased', 'count', 0.07, 0.05, 0.1),
  f('gear.frictionPlastic', 'Tooth friction with a plastic wheel, greased', 'count', 0.12, 0.06, 0.25),
  f('gear.load', 'Load on the worst place of a tooth over the mean', 'ratio', 1.2, 1.05, 1.5, 'product of the dynamic and face load factors of ISO 6336-1 for slow reducers; starting value'),
  f('gear.stiffness', 'Mesh stiffness of a steel pair per width and tooth', 'stiffnessPerWidth', 14e9, 11e9, 18e9, 'ISO 6336-1: c′ about 14 N/(mm·µm); other materials in proportion to their modulus'),
  f('gear.housing', 'Radial stiffness that holds a mesh together', 'stiffnessPerLength', 2e6, 5e5, 8e6),
  f('gear.thickness', 'Spread of a made tooth’s thickness, half its range', 'length', 3e-5, 1e-5, 8e-5),
  f('gear.runout', 'Run-out of a made toothing on its shaft', 'length', 3e-5, 1e-5, 8e-5, 'ISO 1328-2 quality 8 to 10 for small wheels; starting value'),
  f('gear.tilt', 'Play of bearings and shafts seen at a mesh, along the circle', 'length', 1.5e-5, 5e-6, 4e-5),
  f('gear.layer', 'Printed tooth: strength left by its layers', 'efficiency', 0.75, 0.5, 0.95),
  f('gear.infill', 'Printed tooth: strength left by its infill', 'efficiency', 0.9, 0.7, 1),
  f('gear.hot', 'Plastic tooth: strength left at its softening temperature', 'efficiency', 0.35, 0.2, 0.5),
  f('gear.fatigue', 'Plastic tooth: slope of strength over load cycles', 'count', 0.1, 0.06, 0.15, 'usual slope of VDI 2736-2 curves; starting value'),
  f('gear.cycles', 'Load cycles a tooth is counted on for', 'count', 1e6, 2e5, 5e6),
  f('gear.plasticFlank', 'Plastic flank: permissible pressure over strength', 'efficiency', 0.85, 0.6, 1.1),
  f('gear.metalRoot', 'Metal tooth for ever: permissible root stress over yield', 'efficiency', 0.75, 0.6, 0.95, 'ISO 6336-5 endurance of through-hardened steels over their yield; starting value'),
  f('gear.metalStatic', 'Metal tooth at a peak: permissible root stress over yield', 'ratio', 1.5, 1.2, 2, 'ISO 6336-3 static strength, support by the notch; starting value'),
  f('gear.metalFlank', 'Metal flank: permissible pressure over yield', 'ratio', 1.5, 1.2, 1.8, 'ISO 6336-5 for through-hardened steels; starting value'),
  f('gear.heatRoot', 'Plastic tooth: heating of the root', 'count', 2100, 1000, 4000, 'VDI 2736-2 coefficient, mm and m/s'),
  f('gear.heatFlank', 'Plastic tooth: heating of the flank', 'count', 9000, 5000, 14000, 'VDI 2736-2 coefficient, mm and m/s'),
  f('gear.churn', 'Drag of a greased gear stage with its seals, at the input', 'torque', 0.004, 0.0015, 0.012),
  f('planet.share', 'Load share of the worst of three planets, one member floating', 'ratio', 1.05, 1, 1.15, 'K_γ of usual planetary practice; starting value'),
  f('planet.rigid', 'Load share of the worst planet, nothing floating, for each planet over two', 'ratio', 1.15, 1.05, 1.35, 'K_γ of usual planetary practice; starting value'),
  f('planet.place', 'Spread of a planet’s place along the circle, half its range', 'length', 2e-5, 1e-5, 6e-5),
  f('pin.pv', 'Plain planet bore: permissible pressure times speed', 'pressureSpeed', 1e5, 5e4, 2e5),
  f('pin.pressure', 'Plain planet bore: permissible pressure', 'stress', 2e7, 1e7, 4e7),
  f('pin.friction', 'Planet bearing, friction coefficient of a plain bore', 'count', 0.12, 0.08, 0.2),
  f('pin.roll', 'Planet bearing, friction coefficient of balls or needles', 'count', 0.003, 0.0015, 0.006),
  f('worm.friction', 'Worm mesh, friction coefficient, greased', 'count', 0.09, 0.05, 0.14),
  f('worm.vibration', 'Worm: share of its friction left under vibration', 'efficiency', 0.6, 0.4, 0.8),
  f('worm.centre', 'Worm: made centre distance against the drawn one, half its range', 'length', 3e-5, 1e-5, 1e-4),
  f('worm.endPlay', 'Worm shaft: play of its bearings along the axis', 'length', 1e-5, 2e-6, 4e-5),
  f('worm.runIn', 'Worm wheel: share of its carrying width that touches once run in', 'efficiency', 0.4, 0.2, 0.8),
  f('worm.support', 'Worm shaft: stiffness of its bearings and seats along the axis', 'stiffnessPerLength', 1e7, 3e6, 4e7),
  f('lobe.slide', 'Lobes on fixed pins, friction coefficient, greased', 'count', 0.1, 0.06, 0.15),
  f('lobe.roll', 'Lobes on sleeves, friction coefficient seen at their outside', 'count', 0.02, 0.01, 0.04),
  f('lobe.profile', 'Spread of a made lobed profile from its drawing, half its range', 'length', 3e-5, 1e-5, 8e-5),
  f('lobe.place', 'Spread of a pin’s place, half its range', 'length', 2e-5, 8e-6, 6e-5),
  f('lobe.crank', 'Play of the eccentric’s bearing, across', 'length', 1e-5, 5e-6, 2e-5),
  f('lobe.seat', 'Stiffness of a pin in its seat, per length', 'stiffnessPerWidth', 4e9, 1e9, 1e10),
  f('gear.solid', 'Toothed wheel: share of its blank left by holes and pockets', 'efficiency', 0.85, 0.65, 1),
  f('price.milled', 'Milled wheel, price of the work for each tooth', 'money', 0.5, 0.3, 1),
  f('motor.copper', 'Temperature coefficient of copper resistance per kelvin', 'count', 0.00393, 0.00393, 0.00393, 'annealed copper at 20 °C, IEC 60028'),
];
