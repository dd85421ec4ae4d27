import { armLoads, term, type ArmCase, type Figure } from '@gristmill/core';

/** What one load case asks, each with its working. */
export function caseFigures(c: ArmCase, g: number): Figure[] {
  const loads = armLoads(c, g);
  const mass = term('m', 'mass carried', c.load, 'mass', 'brief', 'load');
  const length = term('L', 'axis to load', c.length, 'length', 'brief', 'length');
  const arm = term('mₐ', 'mass of the arm', c.armMass, 'mass', 'brief', 'armMass');
  const centre = term('c', 'axis to its centre', c.armCentre, 'length', 'brief', 'armCentre');
  const gravity = term('g', 'gravity', g, 'gravity', 'shop', 'gravity');
  const inertia = term('J', 'inertia, m·L² + mₐ·c²', loads.inertia, 'inertia', 'computed');
  const sure = (id: string, name: string, quantity: Figure['quantity'], value: number, working: Figure['working']): Figure => ({ id, name, quantity, value, low: value, high: value, working });
  return [
    sure('case-peak', 'Peak', 'torque', loads.peak, { formula: 'max |g·cos θ·(m·L + mₐ·c) + J·θ̈| · shock', terms: [gravity, mass, length, arm, centre, inertia, term('θ̈', 'acceleration', c.acceleration, 'acceleration', 'brief'), term('shock', 'shock factor', c.dynamicFactor, 'ratio', 'brief'), term('θ', 'worst angle for gravity', loads.worstAngle, 'angle', 'computed')], source: 'moments about the axis, load and arm as points' }),
    sure('case-rms', 'RMS', 'torque', loads.rms, { formula: '√(Σ T²·t / Σ t) over up, rest, down, rest', terms: [term('t', 'one move', loads.moveTime, 'time', 'computed'), term('rest', 'rest at each end', c.rest, 'time', 'brief'), inertia], source: 'trapezoid move, 400 steps', note: 'What motor and stages carry for ever; the shock factor is not in it.' }),
    sure('case-hold', 'Hold', 'torque', loads.hold, { formula: 'larger |g·cos θ·(m·L + mₐ·c)| of the two ends', terms: [gravity, mass, length, arm, centre], source: 'moments about the axis' }),
    sure('case-move', 'One move', 'time', loads.moveTime, { formula: '2·v/a + rest of the way at v', terms: [term('v', 'speed reached', loads.topSpeed, 'speed', 'computed'), term('a', 'acceleration', c.acceleration, 'acceleration', 'brief')], source: 'trapezoid, or triangle where the speed is not reached' }),
    sure('case-inertia', 'Inertia', 'inertia', loads.inertia, { formula: 'm·L² + mₐ·c²', terms: [mass, length, arm, centre], source: 'point masses' }),
  ];
}
