import { stated } from '../units/stated.ts';
import type { BenchTest } from '../schema/joint.ts';
import { calibratedReading, type Instrument } from '../shop/instrument.ts';
import { fitColumns } from './regress.ts';
import { columnsOf, type ReadingColumn, type TestKind } from './contract.ts';
import type { Recording } from './recording.ts';

const SAME: Readonly<Record<Instrument['measures'], readonly string[]>> = {
  length: ['length'],
  mass: ['mass'],
  angle: ['angle', 'smallAngle'],
  temperature: ['temperature'],
  force: ['force'],
  current: ['current'],
};

/** A test as its instrument's calibration makes it, its recording too, and what is to be said of it. */
export interface Calibrated {
  readonly test: BenchTest;
  readonly recording: Recording | undefined;
  readonly says: readonly string[];
}

/**
 * Readings and recording as the instrument's calibration makes them; raw ones stay as they are in the test. Nothing is
 * said of a calibration that has nothing to correct here: a cell's counts are calibrated by its rig.
 */
export function calibrated(
  test: BenchTest,
  kind: TestKind,
  instrument: Instrument | undefined,
  recording?: Recording,
): Calibrated {
  if (!instrument) return { test, recording, says: [] };
  const reads = (q: string): boolean => SAME[instrument.measures].includes(q);
  const columns = columnsOf(kind, test.rig).filter((c) => c.as === 'quantity' && reads(c.quantity));
  const channels = recording?.channels.map((c) => reads(c.quantity)) ?? [];
  if (columns.length === 0 && !channels.includes(true)) return { test, recording, says: [] };
  const says = beyondRange(test, columns, instrument);
  if (instrument.factor === undefined && instrument.zero === undefined) return { test, recording, says };
  says.push(
    'Readings are corrected by the calibration of ' +
      `${instrument.name}${instrument.calibrated ? ` of ${instrument.calibrated}` : ''}: times ` +
      `${(instrument.factor ?? 1).toPrecision(5)}.`,
  );
  const change = (c: ReadingColumn) => {
    // Differences have no zero of their own.
    const by = c.as === 'quantity' && c.difference ? { ...instrument, zero: 0 } : instrument;
    return (x: number) => calibratedReading(by, x);
  };
  const each = columns.map((c) => ({ id: c.id, change: change(c) }));
  return {
    says,
    recording: recording && {
      ...recording,
      data: recording.data.map((d, i) => (channels[i] ? d.map((x) => calibratedReading(instrument, x)) : d)),
    },
    test: {
      ...test,
      readings: test.readings.map((r) => ({ ...r, values: { ...r.values, ...changed(r.values, each) } })),
    },
  };
}

type Values = BenchTest['readings'][number]['values'];

const changed = (values: Values, each: readonly { id: string; change: (x: number) => number }[]): Values =>
  Object.fromEntries(
    each.flatMap(({ id, change }) => (typeof values[id] === 'number' ? [[id, change(values[id])] as const] : [])),
  );

/** The first reading beyond what the instrument reads, in words. */
function beyondRange(test: BenchTest, columns: readonly ReadingColumn[], instrument: Instrument): string[] {
  const { range } = instrument;
  if (range === undefined) return [];
  for (const r of test.readings) {
    if (r.struck !== undefined) continue;
    const over = columns.find((c) => typeof r.values[c.id] === 'number' && Math.abs(r.values[c.id] as number) > range);
    if (over?.as === 'quantity')
      return [
        `“${r.text}” lies beyond what ${instrument.name} reads (${stated(range, over.quantity, 5)}): its last step ` +
          'may be all it shows.',
      ];
  }
  return [];
}

/**
 * Error of a sensor over its turn from a curve of error against angle: its first harmonics, those above a twentieth of
 * the largest.
 */
export function sensorMap(
  angles: Float64Array,
  error: Float64Array,
  harmonics = 8,
): { order: number; amplitude: number; phase: number }[] {
  const columns = [
    angles.map(() => 1),
    ...Array.from({ length: harmonics }, (_, k) => [
      angles.map((a) => Math.cos((k + 1) * a)),
      angles.map((a) => Math.sin((k + 1) * a)),
    ]).flat(),
  ];
  const fit = fitColumns(columns, error);
  if (!fit) return [];
  const list = Array.from({ length: harmonics }, (_, k) => {
    const [c, s] = [fit.values[1 + 2 * k]!, fit.values[2 + 2 * k]!];
    return { order: k + 1, amplitude: Math.hypot(c, s), phase: Math.atan2(-s, c) };
  });
  const most = Math.max(...list.map((h) => h.amplitude));
  return list.filter((h) => h.amplitude > 0.05 * most);
}

/** The sensor's own error at an angle, rad. */
export const mappedError = (map: Instrument['map'], angle: number): number =>
  (map ?? []).reduce((s, h) => s + h.amplitude * Math.cos(h.order * angle + h.phase), 0);
