import type { ChannelCalibration } from './channel.ts';

/** What reads a measurement: its resolution and the largest error its maker or a check states, both in SI units. */
export interface Instrument {
  readonly id: string;
  readonly name: string;
  readonly measures: 'length' | 'mass' | 'angle' | 'temperature' | 'force' | 'current';
  readonly resolution: number;
  readonly error: number;
  readonly source: string;
  /** The most it reads, SI; absent where it is not said. */
  readonly range?: number;
  /** The day it was last calibrated, and what its readings are multiplied by since. */
  readonly calibrated?: string;
  readonly factor?: number;
  /** What it reads with nothing on it, after the factor; taken off. */
  readonly zero?: number;
  /** Channels of a rig it is read through, by name. */
  readonly channels?: Readonly<Record<string, ChannelCalibration>>;
  /** Error of an angle sensor over its turn: harmonics by order, amplitude (rad) and phase of a cosine. */
  readonly map?: readonly { readonly order: number; readonly amplitude: number; readonly phase: number }[];
}

/** Factor and zero from two known values and what was read for each; undefined where both readings are the same. */
export function twoPoint(
  known: readonly [number, number],
  read: readonly [number, number],
): { factor: number; zero: number } | undefined {
  const span = read[1] - read[0];
  if (!(Math.abs(span) > 0)) return undefined;
  const factor = (known[1] - known[0]) / span;
  return { factor, zero: factor * read[0] - known[0] };
}

/** A reading as the instrument's calibration makes it. */
export const calibratedReading = (i: Pick<Instrument, 'factor' | 'zero'> | undefined, reading: number): number =>
  reading * (i?.factor ?? 1) - (i?.zero ?? 0);

const i = (
  id: string,
  name: string,
  measures: Instrument['measures'],
  resolution: number,
  error: number,
  range: number,
  source: string,
): Instrument => ({ id, name, measures, resolution, error, range, source });

export const INSTRUMENTS: readonly Instrument[] = [
  i('caliper', 'Digital caliper', 'length', 1e-5, 3e-5, 0.15, 'usual for 150 mm digital calipers, ISO 13385-1'),
  i('dial', 'Dial indicator 0.01 mm', 'length', 1e-5, 2e-5, 0.01, 'usual for 10 mm dial indicators, ISO 463'),
  i('lever-dial', 'Lever indicator 0.002 mm', 'length', 2e-6, 4e-6, 8e-4, 'usual for lever indicators, ISO 9493'),
  i('rule', 'Steel rule', 'length', 5e-4, 3e-4, 0.3, 'starting value'),
  i('kitchen', 'Kitchen scale', 'mass', 1e-3, 5e-3, 5, 'starting value'),
  i('bathroom', 'Bathroom scale', 'mass', 0.1, 0.3, 150, 'starting value'),
  i('hanging', 'Hanging scale', 'mass', 0.01, 0.03, 40, 'starting value'),
  i(
    'magnetic',
    'Magnetic angle sensor, 14 bit',
    'angle',
    (2 * Math.PI) / 16384,
    Math.PI / 360,
    2 * Math.PI,
    'usual non-linearity of 0.5° before its error is mapped; starting value',
  ),
  i(
    'optical',
    'Optical encoder, 10 000 counts',
    'angle',
    (2 * Math.PI) / 10000,
    Math.PI / 10800,
    2 * Math.PI,
    'usual data-sheet value',
  ),
  i('thermocouple', 'Thermocouple, type K', 'temperature', 0.1, 1.5, 1373.15, 'IEC 60584-1, class 1'),
  i(
    'load-cell',
    'Load cell 10 kg',
    'force',
    0.02,
    0.1,
    98,
    'usual for bar cells with a 24-bit converter; starting value',
  ),
  i('multimeter', 'Multimeter, 10 A range', 'current', 0.01, 0.05, 10, 'usual hand-held meter; starting value'),
];
