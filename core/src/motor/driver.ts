import type { Driver, Motor } from './motor.ts';

/**
 * Amplitude of a phase's current at a setting of the driver, A: the setting itself, or √2 of it where it is root mean
 * square.
 * @example phaseAmplitude({ sets: 'rms' }, 2) // 2.82843
 */
export const phaseAmplitude = (d: Pick<Driver, 'sets'>, setting: number): number =>
  d.sets === 'rms' ? Math.SQRT2 * setting : setting;

/**
 * Line current that gives a brushless motor the torque of a driver's ampere: with sine currents √3/2 of the phase's
 * amplitude (torque k_t·√3/2·I, copper loss 3/2·I²·R/2), itself where two phases carry it in turn (trapezoidal).
 *
 * @returns 1 for motors without phases of their own to set
 * @example linePerAmpere({ type: 'brushless' }, {}) // 0.866025
 * @example linePerAmpere({ type: 'brushless' }, { sets: 'line' }) // 1
 */
export const linePerAmpere = (m: Pick<Motor, 'type'>, d: Pick<Driver, 'sets'>): number =>
  m.type === 'brushless' && d.sets !== 'line' ? (Math.sqrt(3) / 2) * phaseAmplitude(d, 1) : 1;

/** Most that a driver may be set to for a motor, in the measure of its setting, A. */
export const fullCurrent = (m: Motor, d: Pick<Driver, 'sets'> = {}): number =>
  m.type === 'stepper'
    ? m.ratedCurrent
    : m.type === 'servo'
      ? (m.ratedCurrent * m.peakTorque) / m.ratedTorque
      : m.peakCurrent / linePerAmpere(m, d);

/** Mass of the driver, which stands with the joint, kg; a supply stands elsewhere. */
export const driveMass = (d: Pick<Driver, 'unit'>): number => d.unit?.mass ?? 0;

/** Price of driver and supply, where they are chosen. */
export const driveMoney = (d: Pick<Driver, 'unit' | 'supply'>): number => (d.unit?.price ?? 0) + (d.supply?.price ?? 0);

/**
 * A driver with one of its numbers set by hand: another voltage or current than the chosen supply's is no longer that
 * supply.
 */
export function setDriver(d: Driver, key: 'supplyVoltage' | 'supplyCurrent' | 'currentLimit', value: number): Driver {
  const { supply, ...rest } = d;
  const same =
    !supply || key === 'currentLimit' || value === (key === 'supplyVoltage' ? supply.voltage : supply.current);
  return { ...rest, ...(supply && same && { supply }), [key]: value };
}
