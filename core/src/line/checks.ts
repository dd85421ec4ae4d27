import { check, type Check, type Mend } from '../figure/index.ts';
import type { Joint, Material } from '../schema/joint.ts';
import { fullCurrent } from '../motor/driver.ts';
import { motorHeat } from '../motor/heat.ts';
import { isNeedle } from '../shop/bearings.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import { sumWith, type LineNumbers, type LineToSum } from './numbers.ts';

const tenths = (x: number) => Math.ceil(x * 10 - 1e-9) / 10;
const tenthsDown = (x: number) => Math.max(0.01, Math.floor(x * 10 + 1e-9) / 10);

/** The least driver current, in tenths of an ampere up to what the motor stands, with which the line passes. */
function currentMend(line: LineToSum, passes: (n: LineNumbers) => boolean): Mend | undefined {
  const { motor, driver } = line.variant;
  const most = fullCurrent(motor, driver);
  for (
    let i = tenths(driver.currentLimit) + 0.1;
    i <= most + 1e-9;
    i += Math.max(0.1, tenths((most - driver.currentLimit) / 40))
  ) {
    const value = Math.round(i * 10) / 10;
    const n = sumWith(line, { driver: { ...driver, currentLimit: value } });
    if (n && passes(n))
      return { path: 'driver.currentLimit', value, label: `Driver current ${stated(value, 'current', 5)}` };
  }
  return undefined;
}

/** How near its limit a mount counts as near, as a share of it. */
const MOUNT_NEAR = 0.015;

/**
 * The material of the least softening temperature that stands the heat with something in hand, printed ones first, and
 * is no softer than what the mount is of: what holds a motor in line must be stiff.
 */
function mountMend(shelf: Shelf, temperature: number, now: Material): Mend | undefined {
  const order = { printed: 0, milled: 1, bought: 2 };
  const found = [...shelf.materials]
    .sort((a, b) => order[a.made] - order[b.made] || a.softening - b.softening)
    .find(
      (m) =>
        m.modulus >= now.modulus && (m.softening - factor(shelf, 'mount.margin')) * (1 - MOUNT_NEAR) >= temperature,
    );
  return found && { path: 'mount', value: found.id, label: `Mount of ${found.name}` };
}

/**
 * What decides whether a line works, beyond what the brief limits: each with figure, limit, why and the nearest mend.
 */
export function lineChecks(brief: Joint['brief'], line: LineToSum, n: LineNumbers): Check[] {
  const { variant, demand, shelf } = line;
  const { motor, driver } = variant;
  const list: Check[] = [];
  const margin = (d: LineNumbers) => d.everMargin >= 1;
  if (Number.isFinite(n.everMargin)) {
    list.push(
      check({
        id: 'ever',
        of: 'continuous',
        name: 'Carried continuously',
        figure: n.everMargin,
        limit: 1,
        sense: 'min',
        quantity: 'ratio',
        why: 'RMS and holding torque must stay within what motor and driver give continuously.',
        mend: () => currentMend(line, margin),
        advice: 'Take more ratio or a larger motor, or shorten the holding.',
      }),
    );
  }
  if (Number.isFinite(n.accelerates))
    list.push(
      check({
        id: 'accelerates',
        of: 'accelerates',
        name: 'Accelerates as asked',
        figure: n.accelerates,
        limit: n.accelerationAsked,
        sense: 'min',
        quantity: 'acceleration',
        near: 0.05,
        why: 'Rotor and stages have to be sped up beside the load; what the motor has left for that decides.',
        mend: () => currentMend(line, (d) => d.accelerates >= d.accelerationAsked),
        advice: 'Take less ratio, a motor with a lighter rotor or more torque, or give the move more time.',
      }),
    );
  if (motor.type === 'brushless' && !motor.sensored) {
    const start =
      factor(shelf, 'motor.sensorless') * driver.supplyVoltage * factor(shelf, 'motor.duty') * motor.speedConstant;
    const slow =
      demand.points.reduce(
        (m, p) => (p.torque > 0 && !(p.speed === 0 && n.holder >= 0) ? Math.min(m, p.speed) : m),
        Infinity,
      ) * Math.abs(n.ratio);
    list.push(
      check({
        id: 'sensorless',
        name: 'Slow enough for a sensorless drive',
        figure: Number.isFinite(slow) ? slow : start,
        limit: start,
        sense: 'min',
        quantity: 'speed',
        near: 0,
        why: 'Without a rotor sensor it cannot see the rotor at low speed: no torque to start under load or to hold.',
        mend: { path: 'motor.sensored', value: 1, label: 'With a rotor sensor' },
      }),
    );
  }
  const heat = motorHeat(motor, driver, shelf, n.motorRms);
  if (motor.type !== 'stepper') {
    const limit = factor(shelf, 'ambient') + motor.allowedRise;
    list.push(
      check({
        id: 'winding',
        of: 'winding',
        name: 'Winding stays below its limit',
        figure: Number.isFinite(heat.winding) ? heat.winding : limit * 10,
        limit,
        sense: 'max',
        quantity: 'temperature',
        near: 0.02,
        why: 'Held at the RMS torque continuously the winding settles there; its enamel and magnets do not stand more.',
        advice: 'Take more ratio, a larger motor, or shorter loads.',
      }),
    );
  }
  const { mount } = variant;
  if (mount) {
    const limit = mount.softening - factor(shelf, 'mount.margin');
    const figure = Number.isFinite(heat.mount) ? heat.mount : limit * 10;
    list.push(
      check({
        id: 'mount',
        of: 'mount',
        name: `Mount of ${mount.name} keeps its shape`,
        figure,
        limit,
        sense: 'max',
        quantity: 'temperature',
        near: MOUNT_NEAR,
        why: 'The motor’s face warms its mount; near its softening temperature a screwed plate creeps and the drive goes out of line.',
        mend: () => mountMend(shelf, heat.mount, mount),
        advice: 'Lower the current at rest, put a metal plate between, or take a larger motor.',
      }),
    );
  }
  for (const [j, s] of n.stages.entries()) {
    const speed = n.duties[j]!.speed * Math.abs(s.ratio);
    if (speed > s.maxSpeed)
      list.push(
        check({
          id: `speed-${j}`,
          name: `Stage ${j + 1} stands its input speed`,
          figure: speed,
          limit: s.maxSpeed,
          sense: 'max',
          quantity: 'speed',
          severity: 'warn',
          why: 'Above it the stage heats and wears.',
          advice: 'Take less ratio after it.',
        }),
      );
  }
  if (Number.isFinite(n.bearingSafety)) {
    list.push(
      check({
        id: 'bearing',
        name: 'Output bearing, static safety',
        figure: n.bearingSafety,
        limit: 1,
        sense: 'min',
        quantity: 'ratio',
        near: 0.5,
        why:
          variant.output?.bearing && variant.output.axial && isNeedle(variant.output.bearing)
            ? 'Needles take no force along the shaft, and the load pushes along it.'
            : 'C0/P0 by ISO 76: below one the balls dent the races at rest.',
        mend: () => bearingMend(line),
        advice: 'Take a larger bearing or more distance between the two.',
      }),
    );
  }
  if (variant.output && variant.output.shaftBore >= variant.output.shaftDiameter)
    list.push(
      check({
        id: 'shaft',
        name: 'Output shaft has a wall',
        figure: variant.output.shaftBore,
        limit: variant.output.shaftDiameter,
        sense: 'max',
        quantity: 'length',
        near: 0,
        why: 'Its hollow is as wide as the shaft itself, and nothing is left to twist.',
        advice: 'Make the hollow smaller.',
      }),
    );
  const must = brief.limits.find((l) => l.id === 'turnBack');
  if (must?.sense === 'max' && must.need === 'must' && n.holder >= 0)
    list.push(
      check({
        id: 'back',
        name: 'Turns back',
        figure: n.stages[n.holder]!.etaBackward,
        limit: 0,
        sense: 'min',
        quantity: 'efficiency',
        why: `Stage ${n.holder + 1} cannot be driven from its output, and the brief says it must.`,
        advice: 'Replace that stage by one that runs backwards.',
      }),
    );
  if (motor.type === 'brushless' || motor.type === 'brushed')
    list.push(
      check({
        id: 'driver',
        name: 'Driver within the motor’s short-time current',
        figure: driver.currentLimit,
        limit: fullCurrent(motor, driver),
        sense: 'max',
        quantity: 'current',
        near: 0,
        why: 'A driver set higher burns the winding before anything else gives.',
        mend: {
          path: 'driver.currentLimit',
          value: tenthsDown(fullCurrent(motor, driver)),
          label: `Driver current ${stated(tenthsDown(fullCurrent(motor, driver)), 'current', 5)}`,
        },
      }),
    );
  return list;
}

/** The smallest bearing of the shop with the same bore or more that passes. */
function bearingMend(line: LineToSum): Mend | undefined {
  const { output } = line.variant;
  if (!output) return undefined;
  for (const b of line.shelf.bearings.filter((x) => !isNeedle(x)).sort((x, y) => x.static - y.static)) {
    if (b.bore < output.shaftDiameter) continue;
    const n = sumWith(line, { output: { ...output, bearing: b } });
    if (n && n.bearingSafety >= 1.5) return { path: 'output.bearing', value: b.id, label: `Bearing ${b.name}` };
  }
  return undefined;
}
