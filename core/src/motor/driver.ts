import type { Driver, Motor } from './motor.ts';

/** What is added to the current that a supply must give, as a share: rounding and the driver's own use. */
const SPARE = 1.1;

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

/**
 * Driver and supply for a motor that is picked: set to what the motor stands where it was set for another type, to all that
 * the motor before stood, or to more than this one does, on a supply that can give it. A lower setting is a choice, and
 * stays.
 *
 * @param before the motor it was for
 */
export function driverFor(m: Motor, before: Motor, d: Driver): Driver {
  const other = m.type !== before.type;
  // What a setting means belongs to the sort of driver: a stepper's and a sine drive's set a phase, a brushed motor's the line.
  const { sets: was, ...rest } = d;
  const sets = other ? undefined : was;
  const base: Driver = sets === undefined ? rest : { ...rest, sets };
  const full = fullCurrent(m, base);
  const all = d.currentLimit >= fullCurrent(before, d) * (1 - 1e-9);
  const currentLimit = other || all || d.currentLimit > full ? Math.min(full, 1e3) : d.currentLimit;
  const line = currentLimit * linePerAmpere(m, base);
  return { ...base, currentLimit, supplyCurrent: Math.max(d.supplyCurrent, Math.ceil(line * SPARE)) };
}
