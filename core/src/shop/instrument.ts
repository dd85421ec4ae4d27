/** What reads a measurement: its resolution and the largest error its maker or a check states, both in SI units. */
export interface Instrument {
  readonly id: string;
  readonly name: string;
  readonly measures: 'length' | 'mass' | 'angle';
  readonly resolution: number;
  readonly error: number;
  readonly source: string;
}

const i = (id: string, name: string, measures: Instrument['measures'], resolution: number, error: number, source: string): Instrument => ({ id, name, measures, resolution, error, source });

export const INSTRUMENTS: readonly Instrument[] = [
  i('caliper', 'Digital caliper', 'length', 1e-5, 3e-5, 'usual for 150 mm digital calipers, ISO 13385-1'),
  i('dial', 'Dial indicator 0.01 mm', 'length', 1e-5, 2e-5, 'usual for 10 mm dial indicators, ISO 463'),
  i('lever-dial', 'Lever indicator 0.002 mm', 'length', 2e-6, 4e-6, 'usual for lever indicators, ISO 9493'),
  i('rule', 'Steel rule', 'length', 5e-4, 3e-4, 'starting value'),
  i('kitchen', 'Kitchen scale', 'mass', 1e-3, 5e-3, 'starting value'),
  i('bathroom', 'Bathroom scale', 'mass', 0.1, 0.3, 'starting value'),
  i('hanging', 'Hanging scale', 'mass', 0.01, 0.03, 'starting value'),
];
