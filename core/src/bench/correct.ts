import type { BenchTest, LimitId } from '../schema/joint.ts';
import { columnsOf, type TestKind } from './contract.ts';
import type { QuantityId } from '../units/quantity.ts';

/** Something typed that a found figure goes with. */
export interface SlipInput {
  readonly in: 'readings' | 'rig';
  /** Column or rig field. */
  readonly id: string;
  readonly label: string;
  readonly quantity: QuantityId;
  /** The figure goes as the input to this power. */
  readonly exponent: number;
}

/** What undoes a slip: every reading of a column, or a field of the rig, times a factor. */
export interface Correction {
  readonly in: SlipInput['in'];
  readonly id: string;
  readonly label: string;
  readonly factor: number;
}

/** What a row's figure goes with in a test, columns as the rig stands. Source: the kind's `goesAs`. */
export const slipInputs = (kind: TestKind, rig: BenchTest['rig'], row: LimitId): SlipInput[] =>
  Object.entries(kind.goesAs?.[row] ?? {}).flatMap(([id, exponent]): SlipInput[] => {
    const column = columnsOf(kind, rig).find((c) => c.id === id);
    if (column?.as === 'quantity')
      return [{ in: 'readings', id, label: column.label, quantity: column.quantity, exponent }];
    const field = kind.rig.find((f) => f.id === id);
    return field?.as === 'quantity' ? [{ in: 'rig', id, label: field.label, quantity: field.quantity, exponent }] : [];
  });

const times = (factor: number): string =>
  factor >= 1 ? `× ${Number(factor.toPrecision(4))}` : `÷ ${Number((1 / factor).toPrecision(4))}`;

/** The test with a slip taken out of its readings or its rig; what was entered stays beside the factor. */
export function corrected(test: BenchTest, { in: where, id, factor }: Correction): BenchTest {
  if (where === 'rig') {
    const now = test.rig[id];
    return typeof now === 'number' ? { ...test, rig: { ...test.rig, [id]: now * factor } } : test;
  }
  return {
    ...test,
    readings: test.readings.map((r) =>
      typeof r.values[id] === 'number'
        ? { ...r, text: `${r.text} (${times(factor)})`, values: { ...r.values, [id]: r.values[id] * factor } }
        : r,
    ),
  };
}
