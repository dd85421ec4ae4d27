import { ok, refuse, type Result } from '../result.ts';
import type { BenchTest } from '../schema/joint.ts';
import { formatQuantity } from '../units/format.ts';
import { parseQuantity } from '../units/parse.ts';
import type { QuantityId } from '../units/quantity.ts';
import { columnsOf, type ReadingColumn, type TestKind } from './contract.ts';

type Values = Record<string, number | string>;
/** Units a reader has chosen, by quantity; an empty record for the usual ones. */
type Units = Readonly<Partial<Record<QuantityId, string>>>;

/** A reading as it was typed: what goes into the test, and what the person wrote. */
export interface Entry {
  readonly values: Values;
  readonly text: string;
}

/** A column's name as a sentence begins with it. */
const named = ({ label }: ReadingColumn): string => label.charAt(0).toUpperCase() + label.slice(1);

function readCell(column: Extract<ReadingColumn, { as: 'quantity' }>, text: string, units: Units): Result<number> {
  const read = parseQuantity(text, column.quantity, units[column.quantity]);
  if (!read.ok) return { ok: false, problem: { ...read.problem, what: `${named(column)}: ${read.problem.what}` } };
  const value = read.value.si;
  if (!column.signed && value < 0)
    return refuse(
      `${named(column)}: ${text} is below nought.`,
      'It is read as a size here.',
      'Type it without its sign.',
    );
  const most = column.most ?? Infinity;
  if (Math.abs(value) > most)
    return refuse(
      `${named(column)}: ${text} cannot be read here.`,
      `It can be at most ${formatQuantity(most, column.quantity, units)}.`,
      'Look at its unit.',
    );
  return ok(value);
}

/**
 * Reads a row of typed cells into a reading of a kind, in the units a person has chosen.
 *
 * @param texts what was typed, by column
 * @returns the reading in SI, or what of it cannot be, with the column's name
 * @example readEntry(testKind('play-lever'), {}, { angle: '30°', difference: '0.4 mm' }, {}).value.text // '30°, 0.4 mm'
 */
export function readEntry(
  kind: TestKind,
  rig: BenchTest['rig'],
  texts: Readonly<Record<string, string>>,
  units: Units,
): Result<Entry> {
  const values: Values = {};
  const typed: string[] = [];
  for (const column of columnsOf(kind, rig)) {
    const text = (texts[column.id] ?? '').trim();
    if (column.as === 'choice') {
      values[column.id] = text;
      typed.push(column.options.find((o) => o.value === text)?.label ?? text);
      continue;
    }
    if (text === '' && column.optional) continue;
    const read = readCell(column, text, units);
    if (!read.ok) return read;
    values[column.id] = read.value;
    typed.push(text);
  }
  const wrong = kind.wrongReading?.(values, rig);
  return wrong ? { ok: false, problem: wrong } : ok({ values, text: typed.join(', ') });
}
