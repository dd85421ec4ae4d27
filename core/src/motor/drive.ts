import { factor, type Shelf } from '../shop/shelf.ts';
import { fullCurrent, linePerAmpere, phaseAmplitude } from './driver.ts';
import { lineCurrentFor } from './available.ts';
import type { Driver, DriverUnit, Motor, Supply } from './motor.ts';

/** What is added to the current that a supply must give, as a share: rounding and the driver's own use. */
const SPARE = 1.1;

/**
 * Current that heats a driver's switches, as one current through one path of two of them, A.
 *
 * Sine currents of an amplitude I in three legs of one switch each lose 3·(I²/2)·R/2 = (√3/2·I)²·R, as the line current of
 * a trapezoidal drive does in two switches; two phases of a stepper at I/√2 each lose I²·R; a servo's current is root mean
 * square, 3·I²·R/2.
 *
 * @param torque at the motor's shaft, N·m
 */
export function pathCurrent(m: Motor, d: Driver, torque: number): number {
  if (m.type === 'stepper') return phaseAmplitude(d, Math.min(d.currentLimit, m.ratedCurrent));
  if (m.type === 'servo') return Math.sqrt(1.5) * ((m.ratedCurrent * Math.abs(torque)) / m.ratedTorque);
  return lineCurrentFor(m, torque);
}

/**
 * Heat of a driver at a torque, W: its own use and I²·R of the path.
 * @example driverHeat({ resistance: 0.2, idle: 1 }, 2) // 1.8
 */
export const driverHeat = (u: Pick<DriverUnit, 'resistance' | 'idle'>, current: number): number =>
  u.idle + current * current * u.resistance;

/** Temperature at which a driver settles in still air, K. */
export const driverTemperature = (u: DriverUnit, current: number, shelf: Shelf): number =>
  factor(shelf, 'ambient') + u.thermalResistance * driverHeat(u, current);

/**
 * Voltage to which a supply rises that has to swallow energy in its capacitance: √(V² + 2E/C), V.
 *
 * @param energy J
 * @example swollen({ voltage: 24, capacitance: 2e-3 }, 1) // 39.699
 */
export const swollen = (s: Pick<Supply, 'voltage' | 'capacitance'>, energy: number): number =>
  Math.sqrt(s.voltage ** 2 + (2 * energy) / s.capacitance);

/** Whether a driver runs a motor from a voltage; a servo's drive makes its own. */
const fits = (u: DriverUnit, m: Motor, voltage: number): boolean =>
  u.drives === m.type && (m.type === 'servo' || (u.least <= voltage && voltage <= u.most));

/** Most a unit can be set to for a motor, in the unit's own measure, A. */
const unitFull = (u: DriverUnit, m: Motor): number => Math.min(u.current, fullCurrent(m, { sets: u.sets }));

/**
 * The cheapest driver of the shop that runs a motor at a voltage with all that the motor stands; where none has as much
 * current, the strongest.
 */
export function driverUnitFor(m: Motor, voltage: number, shelf: Shelf): DriverUnit | undefined {
  const able = shelf.drivers.filter((u) => fits(u, m, voltage));
  const share = (u: DriverUnit) => unitFull(u, m) / fullCurrent(m, { sets: u.sets });
  const whole = able.filter((u) => share(u) >= 1 - 1e-9).sort((a, b) => a.price - b.price);
  return whole[0] ?? able.sort((a, b) => share(b) - share(a))[0];
}

/** The cheapest supply of the shop of about a voltage, within a driver's, that gives a current. */
export function supplyFor(
  voltage: number,
  current: number,
  unit: DriverUnit | undefined,
  shelf: Shelf,
): Supply | undefined {
  const able = shelf.supplies
    .filter((s) => s.current >= current && (!unit || (unit.least <= s.voltage && s.voltage <= unit.most)))
    .sort((a, b) => a.price - b.price);
  return able.find((s) => Math.abs(s.voltage / voltage - 1) <= 0.1) ?? able[0];
}

/** A driver with a unit of the shop: what it sets, no more current than it gives. */
export function withUnit(d: Driver, unit: DriverUnit, m: Motor): Driver {
  const { sets: _, ...rest } = d;
  const sets = m.type === 'servo' || m.type === 'brushed' ? undefined : unit.sets;
  // The same current in the motor, told in the new unit's measure.
  const measure = (x: Pick<Driver, 'sets'>) => (m.type === 'stepper' ? phaseAmplitude(x, 1) : linePerAmpere(m, x));
  const now = (d.currentLimit * measure(d)) / measure({ sets });
  return {
    ...rest,
    ...(sets && { sets }),
    unit,
    currentLimit: Math.min(now, unitFull(unit, m)),
  };
}

/** A driver on a supply of the shop: its voltage and current. */
export const withSupply = (d: Driver, supply: Supply): Driver => ({
  ...d,
  supply,
  supplyVoltage: supply.voltage,
  supplyCurrent: supply.current,
});

/**
 * Driver and supply for a motor that is picked: set to what the motor stands where it was set for another type, to all that
 * the motor before stood, or to more than this one does, on a supply that can give it. A lower setting is a choice, and
 * stays. Units of the shop are replaced where they do not run the motor.
 *
 * @param before the motor it was for
 */
export function driverFor(m: Motor, before: Motor, d: Driver, shelf: Shelf): Driver {
  const other = m.type !== before.type;
  // What a setting means belongs to the sort of driver: a stepper's and a sine drive's set a phase, a brushed motor's the line.
  const { sets: was, unit: hadUnit, ...rest } = d;
  const unit = hadUnit && (fits(hadUnit, m, d.supplyVoltage) ? hadUnit : driverUnitFor(m, d.supplyVoltage, shelf));
  const phases = m.type === 'stepper' || m.type === 'brushless';
  const sets = unit ? (phases ? unit.sets : undefined) : other ? undefined : was;
  const base: Driver = { ...rest, ...(sets && { sets }), ...(unit && { unit }) };
  const full = unit ? unitFull(unit, m) : fullCurrent(m, base);
  const all = d.currentLimit >= fullCurrent(before, d) * (1 - 1e-9);
  const currentLimit = other || all || d.currentLimit > full ? Math.min(full, 1e3) : d.currentLimit;
  const line = currentLimit * linePerAmpere(m, base);
  const set: Driver = { ...base, currentLimit };
  const wanted = Math.ceil(line * SPARE);
  if (!d.supply) return { ...set, supplyCurrent: Math.max(d.supplyCurrent, wanted) };
  if (d.supply.current >= wanted && (!unit || m.type === 'servo' || fits(unit, m, d.supply.voltage))) return set;
  const supply = supplyFor(d.supplyVoltage, wanted, unit, shelf);
  return supply ? withSupply(set, supply) : { ...set, supplyCurrent: Math.max(d.supplyCurrent, wanted) };
}
