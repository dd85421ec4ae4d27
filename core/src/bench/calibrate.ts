import type { ReadingsTest } from '../schema/joint.ts';
import { calibratedReading, type Instrument } from '../shop/instrument.ts';
import { formatQuantity } from '../units/format.ts';
import { fitColumns } from './regress.ts';
import type { TestKind } from './contract.ts';

const SAME: Readonly<Record<Instrument['measures'], readonly string[]>> = {
  length: ['length'],
  mass: ['mass'],
  angle: ['angle', 'smallAngle'],
  temperature: ['temperature'],
  force: ['force'],
  current: ['current'],
};

/**
 * Readings as the instrument's calibration makes them, and what is to be said of it; raw ones stay as they are in the
 * test.
 */
export function calibrated(
  test: ReadingsTest,
  kind: TestKind,
  instrument: Instrument | undefined,
): { test: ReadingsTest; says: string[] } {
  if (!instrument) return { test, says: [] };
  const columns = kind.columns.filter((c) => c.as === 'quantity' && SAME[instrument.measures].includes(c.quantity));
  const says: string[] = [];
  const over =
    instrument.range === undefined
      ? undefined
      : test.readings.find(
          (r) =>
            r.struck === undefined &&
            columns.some(
              (c) => typeof r.values[c.id] === 'number' && Math.abs(r.values[c.id] as number) > instrument.range!,
            ),
        );
  if (over && columns[0]?.as === 'quantity')
    says.push(
      `“${over.text}” lies beyond what ${instrument.name} reads ` +
        `(${formatQuantity(instrument.range!, columns[0].quantity)}): its last step may be all it shows.`,
    );
  if (instrument.factor === undefined && instrument.zero === undefined) return { test, says };
  says.push(
    'Readings are corrected by the calibration of ' +
      `${instrument.name}${instrument.calibrated ? ` of ${instrument.calibrated}` : ''}: times ` +
      `${(instrument.factor ?? 1).toPrecision(5)}.`,
  );
  // Differences have no zero of their own.
  const differs = kind.id === 'play-spot' || kind.id === 'play-lever';
  return {
    says,
    test: {
      ...test,
      readings: test.readings.map((r) => ({
        ...r,
        values: {
          ...r.values,
          ...Object.fromEntries(
            columns
              .filter((c) => typeof r.values[c.id] === 'number')
              .map((c) => [
                c.id,
                calibratedReading(differs ? { ...instrument, zero: 0 } : instrument, r.values[c.id] as number),
              ]),
          ),
        },
      })),
    },
  };
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
