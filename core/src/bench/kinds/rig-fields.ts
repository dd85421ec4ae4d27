import type { BenchTest } from '../../schema/joint.ts';
import type { Instrument } from '../../shop/instrument.ts';
import type { QuantityId } from '../../units/quantity.ts';
import type { ReadingColumn, RigField, TestContext, TestResult } from '../contract.ts';
import { fromBounds, fromResolution, type Contribution } from '../uncertainty.ts';

export const rigQuantity = (
  id: string,
  label: string,
  help: string,
  quantity: QuantityId,
  start: number,
  step: number,
  min = 0,
  max = Infinity,
  words: readonly string[] = [],
): RigField => ({ as: 'quantity', id, label, help, quantity, start, step, min, max, words });
export const rigChoice = (
  id: string,
  label: string,
  help: string,
  options: readonly { value: string; label: string }[],
  words: readonly string[] = [],
): RigField => ({ as: 'choice', id, label, help, start: options[0]!.value, options, words });
export const column = (
  id: string,
  label: string,
  quantity: QuantityId,
  example: string,
  words: readonly string[],
  more: { signed?: boolean; positive?: boolean; optional?: boolean; difference?: boolean; most?: number } = {},
): ReadingColumn => ({ as: 'quantity', id, label, quantity, example, words, ...more });

export const LEVER: readonly RigField[] = [
  rigQuantity(
    'lever',
    'Lever radius',
    'From the axis to the point that is read or hung from.',
    'length',
    0.2,
    1e-3,
    1e-4,
    20,
    ['lever', 'radius', 'arm'],
  ),
  rigQuantity('leverError', 'Its largest error', 'How far off that radius could be.', 'length', 5e-4, 1e-4, 0, 1, [
    'lever error',
    'radius error',
  ]),
];

/** A rig's number as it stands, or what it starts with. */
export const rigNumber = (test: BenchTest, field: RigField | undefined): number => {
  const v = field && test.rig[field.id];
  return typeof v === 'number' ? v : field?.as === 'quantity' ? field.start : NaN;
};
export const rigOf =
  (fields: readonly RigField[], test: BenchTest) =>
  (id: string): number =>
    rigNumber(
      test,
      fields.find((f) => f.id === id),
    );
export const rigText =
  (fields: readonly RigField[], test: BenchTest) =>
  (id: string): string => {
    const field = fields.find((f) => f.id === id);
    const v = test.rig[id];
    return typeof v === 'string' ? v : field?.as === 'choice' ? field.start : '';
  };

export type Row = BenchTest['readings'][number];
/** Readings that count and have a number in every column named. */
export const countedRows = (test: BenchTest, ...columns: readonly string[]): Row[] =>
  test.readings.filter((r) => r.struck === undefined && columns.every((c) => Number.isFinite(r.values[c])));
export const cell = (r: Row, id: string): number => r.values[id] as number;
export const struckOf = (test: BenchTest): number => test.readings.filter((r) => r.struck !== undefined).length;

export const instrumentOf = (test: BenchTest, context: TestContext): Instrument | undefined =>
  context.instruments.find((i) => i.id === test.rig['instrument']);

/** What the instrument adds to a mean of readings, times a derivative. */
export function instrumentBudget(
  instrument: Instrument | undefined,
  by: number,
  difference = false,
  independent = 1,
): Contribution[] {
  return [
    {
      id: 'resolution',
      name: 'resolution of the instrument',
      u:
        ((difference ? Math.SQRT2 : 1) * fromResolution(instrument?.resolution ?? 0) * Math.abs(by)) /
        Math.sqrt(independent),
      dof: Infinity,
      halve: 'an instrument with half the step',
    },
    {
      id: 'error',
      name: 'stated error of the instrument',
      u: fromBounds(instrument?.error ?? 0) * Math.abs(by),
      dof: Infinity,
      halve: 'a better instrument, or the same one calibrated',
    },
  ];
}

/** The sentence that names the largest part of an uncertainty. */
export const dominantAdvice = (f: { dominant: Contribution | undefined } | undefined): string[] =>
  f?.dominant
    ? [`The largest part of the uncertainty is the ${f.dominant.name}; to halve it: ${f.dominant.halve}.`]
    : [];

/** A result without a headline yet. */
export const plainResult = (
  test: BenchTest,
  counted: number,
  says: string,
): Pick<TestResult, 'bound' | 'lands' | 'figures' | 'plots' | 'advice' | 'says' | 'counted' | 'struck'> => ({
  bound: 'both',
  lands: [],
  figures: [],
  plots: [],
  advice: [],
  says,
  counted,
  struck: struckOf(test),
});
