import { check as judged, type Check, type CheckWish, type Mend } from '../figure/index.ts';
import type { Joint, Material, OutputShaft, Variant } from '../schema/joint.ts';
import { driverTemperature, pathCurrent, supplyFor, swollen, withUnit } from '../motor/drive.ts';
import { fullCurrent, linePerAmpere } from '../motor/driver.ts';
import type { Driver, DriverUnit, Supply } from '../motor/motor.ts';
import { motorHeat } from '../motor/heat.ts';
import { isBall, isCrossed, isNeedle } from '../shop/bearings.ts';
import { lifeAsked } from '../gear/lasting.ts';
import { faceOf } from '../shop/motor-face.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import { provenMend, type Change } from '../stage/mend.ts';
import { mendedBy } from './mend.ts';
import { fullRace } from './output.ts';
import { sumWith, type LineNumbers, type LineToSum } from './numbers.ts';

const tenths = (x: number) => Math.ceil(x * 10 - 1e-9) / 10;
const tenthsDown = (x: number) => Math.max(0.01, Math.floor(x * 10 + 1e-9) / 10);

/** The least driver current, in tenths of an ampere up to what the motor stands, with which the line passes. */
function currentMend(line: LineToSum, passes: (n: LineNumbers) => boolean): Mend | undefined {
  const { motor, driver } = line.variant;
  const most = Math.min(fullCurrent(motor, driver), driver.unit?.current ?? Infinity);
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
 * Life of a motor's own bearings under a force across its shaft, s: by the cube of the force that they are stated to stand.
 *
 * @param pull the force, N
 * @param stands what its data sheet states, N
 * @param rated the life that goes with it, s
 * Source: ISO 281 for balls, L ∝ P⁻³.
 * @example pulledLife(56, 28, 20000 * 3600) // 9000000
 */
export const pulledLife = (pull: number, stands: number, rated: number): number => rated * (stands / pull) ** 3;

/** Whether the motor's own bearings last under what a wheel on its shaft is pulled by. */
function pullChecks({ motor, housing }: Variant, n: LineNumbers, shelf: Shelf): Check[] {
  const pull = n.stages[0]?.pull ?? 0;
  if (!(pull > 0)) return [];
  const shaft = housing?.face?.shaft ?? faceOf(motor).shaft;
  const usual = factor(shelf, 'motor.pull') * shaft ** 2;
  const stands = motor.pull || usual;
  const told = motor.pull
    ? `its data sheet states ${stated(stands, 'force', 3)}`
    : `usual motors with a shaft of ${stated(shaft, 'length', 3)} are stated to stand ${stated(stands, 'force', 3)}, 20 mm off their face`;
  return [
    judged({
      id: 'pull',
      name: 'Motor’s bearings last',
      figure: pulledLife(pull, stands, factor(shelf, 'motor.pullLife')),
      limit: lifeAsked(n.duties[0]!),
      sense: 'min',
      quantity: 'life',
      near: 0.5,
      severity: 'warn',
      why: `What sits on its shaft is pulled across by ${stated(pull, 'force', 3)}; ${told}.`,
      // Eccentrics that tilt it are several, and hold each other already.
      advice:
        (n.stages[0]?.tiltPeak ?? 0) > 0
          ? 'Take larger discs or plates, which push it less, a motor with a thicker shaft, or hold the shaft’s end in a bearing of its own.'
          : 'Take a larger wheel on the motor’s shaft or no more pretension than it takes; let two or three eccentrics hold each other; or hold the shaft’s end in a bearing of its own.',
    }),
  ];
}

/** Whether the brief's moving mass has room for what the line itself puts on the carriage. */
function ridingChecks(brief: Joint['brief'], variant: Variant, n: LineNumbers): Check[] {
  const last = n.stages.at(-1);
  const moving = brief.cases.flatMap((c) => (c.pattern === 'straight' ? [c.mass] : []));
  if (last?.rides === undefined || moving.length === 0) return [];
  return [
    judged({
      id: 'rides',
      of: 'mass',
      name: 'Moving mass counts what rides along',
      figure: Math.min(...moving),
      limit: n.stages.slice(0, -1).reduce((sum, s) => sum + s.mass, variant.motor.mass + last.rides),
      sense: 'min',
      quantity: 'mass',
      severity: 'warn',
      near: 0,
      why: 'Motor, pinion and what lies between them ride on the carriage: they must be sped up and lifted with the load.',
      advice: 'Add them to the moving mass in the brief, or let the rack move.',
    }),
  ];
}

/**
 * What decides whether a line works, beyond what the brief limits: each with figure, limit, why and the nearest mend.
 */
export function lineChecks(
  brief: Joint['brief'],
  line: LineToSum,
  n: LineNumbers,
  /** Which checks are to look for a mend: it may take a sum for every step of a current. */
  looks: (id: string) => boolean = () => true,
): Check[] {
  const check = (wish: CheckWish): Check => judged(looks(wish.id) ? wish : { ...wish, mend: undefined });
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
  list.push(...pullChecks(variant, n, shelf));
  list.push(...ridingChecks(brief, variant, n));
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
    const race = variant.output?.arrangement === 'race';
    const wheel = n.stages.at(-1)?.pushes?.peak.across ?? 0;
    list.push(
      check({
        id: 'bearing',
        name: race ? 'Race of the output, static safety' : 'Output bearing, static safety',
        figure: n.bearingSafety,
        limit: 1,
        sense: 'min',
        quantity: 'ratio',
        near: 0.5,
        why: `${
          race
            ? 'Below one the balls leave dents in their grooves; force goes with the cube of the pressure.'
            : variant.output?.bearing && isNeedle(variant.output.bearing) && n.bearingSafety === 0
              ? 'Needles take no force along the shaft nor tilting, and the load asks for it.'
              : 'C0/P0 by ISO 76: below one the balls or rollers dent the races at rest.'
        }${wheel > 0 ? ` The last stage’s wheel adds ${stated(wheel, 'force', 3)} across its shaft.` : ''}`,
        mend: () => bearingMend(line),
        advice: race
          ? 'Take more or larger balls, a larger circle, or a stronger material.'
          : 'Take a larger bearing, crossed rollers, or two rows with more distance between them.',
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
  list.push(...driveChecks(line, n, check));
  return list;
}

/**
 * The same checks with mends that do what they say: each is tried on the line, followed up, and left out where it does not
 * help or something else would stop the line for it.
 */
export function provenLineChecks(brief: Joint['brief'], line: LineToSum, n: LineNumbers): Check[] {
  const checks = lineChecks(brief, line, n);
  const tried = (id: string) => (change: Change) => {
    const variant = mendedBy(line.variant, change, line.shelf);
    const made = sumWith(line, variant);
    return made && lineChecks(brief, { ...line, variant }, made, (x) => x === id);
  };
  return checks.map((c) => (c.state === 'fails' && c.mend ? provenMend(c, c.mend, checks, tried(c.id)) : c));
}

/** What a brake resistor is given above the most it has to take. */
const BRAKE_SPARE = 1.25;

/** Power of a brake resistor for what comes back, in whole watts. */
const brakeFor = (power: number): number => Math.ceil(power * BRAKE_SPARE);

/** What decides whether driver and supply carry it, where they are chosen. */
function driveChecks({ variant, shelf }: LineToSum, n: LineNumbers, check: (wish: CheckWish) => Check): Check[] {
  const { motor, driver } = variant;
  const { unit, supply, brake } = driver;
  const list: Check[] = [];
  const another = (suits: (u: DriverUnit) => boolean): Mend | undefined => {
    const found = shelf.drivers
      .filter((u) => u.id !== unit?.id && u.drives === motor.type && suits(u))
      .sort((a, b) => a.price - b.price)[0];
    return found && { path: 'driver.unit', value: found.id, label: `Driver: ${found.name}` };
  };
  if (unit) {
    const now = pathCurrent(motor, driver, n.motorRms);
    // As strong as the one that is chosen, so that nothing is lost but the fault.
    const strong = (u: DriverUnit) =>
      withUnit(driver, u, motor).currentLimit * linePerAmpere(motor, u) >=
      driver.currentLimit * linePerAmpere(motor, driver) * (1 - 1e-9);
    const volts = (u: DriverUnit) => u.least <= driver.supplyVoltage && driver.supplyVoltage <= u.most;
    const cool = (u: DriverUnit) => driverTemperature(u, now, shelf) <= u.hottest * 0.98;
    list.push(
      check({
        id: 'driver-current',
        name: 'Driver gives the current it is set to',
        figure: driver.currentLimit,
        limit: unit.current,
        sense: 'max',
        quantity: 'current',
        near: 0,
        why: `More than ${unit.name} can be set to does not arrive.`,
        mend: () =>
          another((u) => volts(u) && strong(u) && cool(u)) ?? {
            path: 'driver.currentLimit',
            value: tenthsDown(unit.current),
            label: `Driver current ${stated(tenthsDown(unit.current), 'current', 5)}`,
          },
      }),
    );
    const low = driver.supplyVoltage < unit.least;
    list.push(
      check({
        id: 'driver-voltage',
        name: 'Driver takes the supply’s voltage',
        figure: driver.supplyVoltage,
        limit: low ? unit.least : unit.most,
        sense: low ? 'min' : 'max',
        quantity: 'voltage',
        near: 0,
        why: low
          ? 'Below it the driver does not start.'
          : 'Above it the driver breaks, not only when the load comes down.',
        mend: () => another((u) => volts(u) && strong(u) && cool(u)),
        advice: 'Take another supply.',
      }),
      check({
        id: 'driver-heat',
        of: 'driverTemperature',
        name: 'Driver stays below its limit',
        figure: n.driverTemperature,
        limit: unit.hottest,
        sense: 'max',
        quantity: 'temperature',
        near: 0.02,
        why: 'In still air it settles there at the RMS torque; hotter it switches itself off, or fails.',
        mend: () => another((u) => volts(u) && strong(u) && cool(u)),
        advice: 'Give it a heat sink or a fan, or set less current.',
      }),
    );
  }
  if (supply) list.push(supplyGives(driver, supply, shelf, check));
  if (supply && !supply.takesBack && n.powerBack > 0) {
    const stands = Math.min(supply.stands, unit?.most ?? Infinity);
    const mend: Mend = {
      path: 'driver.brake',
      value: brakeFor(n.powerBack),
      label: `Brake resistor for ${stated(brakeFor(n.powerBack), 'power', 4)}`,
    };
    list.push(
      brake
        ? check({
            id: 'regeneration',
            of: 'powerBack',
            name: 'Brake resistor takes what comes back',
            figure: n.powerBack,
            limit: brake,
            sense: 'max',
            quantity: 'power',
            severity: 'warn',
            why: 'Lowered and stopped, the load drives the motor; what the resistor does not burn raises the supply’s voltage.',
            mend,
          })
        : check({
            id: 'regeneration',
            of: 'powerBack',
            name: 'Supply stands what comes back',
            figure: swollen({ ...supply, voltage: driver.supplyVoltage }, n.energyBack),
            limit: stands,
            sense: 'max',
            quantity: 'voltage',
            near: 0.05,
            severity: 'warn',
            why: 'Lowered and stopped, the load drives the motor; a supply that cannot take it back rises to this voltage.',
            mend,
            advice: 'Take a battery or a brake resistor.',
          }),
    );
  }
  return list;
}

/** Whether the chosen supply is what was set: another current or voltage asks for another. */
function supplyGives(driver: Driver, supply: Supply, shelf: Shelf, check: (wish: CheckWish) => Check): Check {
  const byCurrent = driver.supplyCurrent > supply.current || driver.supplyVoltage === supply.voltage;
  const mend = (): Mend | undefined => {
    const found = supplyFor(driver.supplyVoltage, driver.supplyCurrent, driver.unit, shelf);
    return found && { path: 'driver.supply', value: found.id, label: found.name };
  };
  const about = {
    id: 'supply',
    name: 'Supply gives what is set',
    near: 0,
    severity: 'warn' as const,
    why: `What is computed with is not what ${supply.name} gives.`,
    mend,
    advice: 'Choose a supply that gives it, or set what this one gives.',
  };
  return byCurrent
    ? check({ ...about, figure: driver.supplyCurrent, limit: supply.current, sense: 'max', quantity: 'current' })
    : check({
        ...about,
        figure: driver.supplyVoltage,
        limit: supply.voltage,
        sense: driver.supplyVoltage > supply.voltage ? 'max' : 'min',
        quantity: 'voltage',
      });
}

/** The smallest bearing of the shop with the same bore or more that passes; of a race, as many balls as go in. */
function bearingMend(line: LineToSum): Mend | undefined {
  const { output } = line.variant;
  if (!output) return undefined;
  const passes = (o: OutputShaft): boolean => (sumWith(line, { output: o })?.bearingSafety ?? 0) >= 1.5;
  if (output.arrangement === 'race') {
    const { race } = output;
    const balls = race ? fullRace(race) : 0;
    return race && passes({ ...output, race: { ...race, balls } })
      ? { path: 'output.balls', value: balls, label: `${balls} balls in the race` }
      : undefined;
  }
  // One row with a moment is for crossed rollers; two rows are as well with balls.
  const sort = output.arrangement === 'single' ? isCrossed : isBall;
  const found = line.shelf.bearings
    .filter((b) => sort(b) && b.bore >= output.shaftDiameter)
    .sort((x, y) => x.static - y.static)
    .find((b) => passes({ ...output, bearing: b }));
  return found && { path: 'output.bearing', value: found.id, label: `Bearing ${found.name}` };
}
