import { ok, refuse, type Result } from '../result.ts';
import type { Comma } from './comma.ts';
import { headingIn, type Heading } from './heading.ts';
import { findUnit, parseQuantity } from './parse.ts';
import { QUANTITIES, type QuantityId } from './quantity.ts';

export interface TableColumn {
  readonly id: string;
  readonly name: string;
  readonly quantity: QuantityId;
  /** Words that mark it in a heading, lower case. */
  readonly words: readonly string[];
  /** The unit a bare number is in where no heading says. */
  readonly bare?: string;
}

const MAX_ROWS = 5000;
const numeric = (cell: string): boolean => /^[+\-−]?[\d.,]/.test(cell.trim());

/** The unit in a heading: "torque (N·m)", "speed [rpm]", "time / s", or alone: "rpm". */
const headingUnit = (cell: string, quantity: QuantityId): Heading => {
  const alone = findUnit(QUANTITIES[quantity], cell)?.symbol;
  return alone ? { name: '', unit: alone, doubt: undefined } : headingIn(cell, quantity);
};

/**
 * Reads a pasted table of quantities. A first row of words names the columns and their units, in any order; without one
 * they stand in
 * the order given and in the usual units. Cells may carry units of their own.
 *
 * @param cells rows of cells as a CSV reader splits them
 * @returns SI values by column, one array each; or a problem that names the row
 */
export function readQuantityTable(
  cells: readonly (readonly string[])[],
  columns: readonly TableColumn[],
  comma: Comma = 'ask',
): Result<Record<string, number[]>> {
  const rows = cells.map((r) => r.map((c) => c.trim())).filter((r) => r.some((c) => c !== ''));
  if (rows.length === 0)
    return refuse(
      'There is nothing to read.',
      'No row has anything in it.',
      `Paste rows of ${columns.map((c) => c.name).join(', ')}.`,
    );
  if (rows.length > MAX_ROWS)
    return refuse(`There are ${rows.length} rows.`, `At most ${MAX_ROWS} are read.`, 'Thin the table out first.');
  const head = rows[0]!.every((c) => c === '' || !numeric(c)) ? rows[0]! : undefined;
  const body = head ? rows.slice(1) : rows;
  if (body.length === 0)
    return refuse('There is a heading and nothing under it.', 'No row has numbers.', 'Paste the rows as well.');
  const place = columns.map((c, i) => {
    const found = head ? head.findIndex((h) => c.words.some((w) => h.toLowerCase().includes(w))) : -1;
    return found >= 0 ? found : i;
  });
  if (new Set(place).size < place.length)
    return refuse(
      'The heading cannot be matched to the columns.',
      `Looked for ${columns.map((c) => c.name).join(', ')}.`,
      'Name the columns so, or leave the heading out.',
    );
  const heads = columns.map((c, k) =>
    head?.[place[k]!] === undefined ? undefined : headingUnit(head[place[k]!]!, c.quantity),
  );
  const doubt = heads.find((h) => h?.doubt)?.doubt;
  if (doubt) return refuse(doubt.what, doubt.why, doubt.mend);
  const out: Record<string, number[]> = Object.fromEntries(columns.map((c) => [c.id, []]));
  for (const [i, row] of body.entries()) {
    for (const [k, c] of columns.entries()) {
      const cell = row[place[k]!];
      if (cell === undefined || cell === '')
        return refuse(
          `Row ${i + 1} has no ${c.name}.`,
          `It has ${row.filter((x) => x !== '').length} of ${columns.length} values.`,
          `Give every row ${columns.map((x) => x.name).join(', ')}.`,
        );
      const read = parseQuantity(cell, c.quantity, heads[k]?.unit ?? c.bare, comma);
      if (!read.ok) return refuse(`Row ${i + 1}, ${c.name}: ${read.problem.what}`, read.problem.why, read.problem.mend);
      out[c.id]!.push(read.value.si);
    }
  }
  return ok(out);
}

/** Columns of a motor's curve and of a brief's own points. */
export const CURVE_COLUMNS: readonly TableColumn[] = [
  { id: 'speed', name: 'speed', quantity: 'speed', words: ['speed', 'rpm', 'rad/s', 'rev'] },
  { id: 'torque', name: 'torque', quantity: 'torque', words: ['torque', 'n·m', 'nm', 'kgf', 'ozf'] },
];
export const POINT_COLUMNS: readonly TableColumn[] = [
  { id: 'torque', name: 'torque', quantity: 'torque', words: ['torque', 'moment'] },
  { id: 'speed', name: 'speed', quantity: 'speed', words: ['speed', 'rpm', 'velocity'] },
  { id: 'seconds', name: 'seconds', quantity: 'time', words: ['second', 'time', 'duration'] },
];

/**
 * A curve from the columns of a table: sorted by speed, refused where two speeds are the same or torque is negative.
 */
export function curveFromColumns(
  columns: Readonly<Record<string, readonly number[]>>,
): Result<{ speed: number[]; torque: number[] }> {
  const rows = columns['speed']!.map((speed, i) => ({ speed, torque: columns['torque']![i]! })).sort(
    (a, b) => a.speed - b.speed,
  );
  if (rows.length < 2)
    return refuse('One point is no curve.', 'Between points the torque is interpolated.', 'Give at least two.');
  if (rows.some((r) => r.speed < 0 || r.torque < 0))
    return refuse(
      'The curve has a negative speed or torque.',
      'A motor’s reach is given in magnitudes.',
      'Leave the signs out.',
    );
  const twice = rows.find((r, i) => i > 0 && r.speed === rows[i - 1]!.speed);
  if (twice)
    return refuse('Two points share a speed.', 'The curve cannot have two torques there.', 'Take one of them out.');
  return ok({ speed: rows.map((r) => r.speed), torque: rows.map((r) => r.torque) });
}
