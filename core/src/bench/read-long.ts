import { ok, refuse, type Result } from '../result.ts';
import type { Comma } from '../units/comma.ts';
import { Growing } from './growing.ts';
import { isHeading, isNote, leftOutNote, readRows, type Rows, type WantedColumn } from './read-table.ts';

/** A table of numbers, column by column. */
export interface LongTable {
  readonly columns: Readonly<Record<string, Float64Array>>;
  readonly rows: number;
  readonly head: Readonly<Record<string, string>>;
  readonly malformed: number;
  readonly notes: readonly string[];
}

/** Rows that are read at once: their texts are forgotten before the next ones come. */
const AT_ONCE = 20_000;

/** The end of the next so many lines, from a place in the text. */
function endOf(text: string, from: number, lines: number): number {
  let at = from;
  for (let k = 0; k < lines; k++) {
    const next = text.indexOf('\n', at);
    if (next < 0) return text.length;
    at = next + 1;
  }
  return at;
}

/** The heading of a table, where it has one: its first line that is no note, if that line is no row. */
function headingOf(text: string): string {
  let at = 0;
  while (at < text.length) {
    const end = endOf(text, at, 1);
    const line = text.slice(at, end);
    if (line.trim() !== '' && !isNote(line)) return isHeading(line) ? line : '';
    at = end;
  }
  return '';
}

/**
 * Reads a long table of numbers as `readTable` does, some thousand rows at a time and straight into typed arrays: a
 * million rows are never held as text in cells.
 *
 * @param wanted columns of numbers
 * @param atOnce rows read at once
 * @param comma what a comma before three digits stands for
 */
export function readLong(
  text: string,
  wanted: readonly WantedColumn[],
  atOnce = AT_ONCE,
  comma: Comma = 'ask',
): Result<LongTable> {
  const heading = headingOf(text);
  const columns = new Map<string, Growing>();
  let [rows, malformed] = [0, 0];
  let why: string | undefined;
  let first: Rows | undefined;
  for (let from = 0, line = 0; from < text.length; line += atOnce) {
    const to = endOf(text, from, atOnce);
    const part = text.slice(from, to);
    from = to;
    if (first && part.trim() === '') continue;
    const read = readRows(
      first ? heading + part : part,
      wanted,
      first ? line : 0,
      first && first.commas !== 'none' ? first.commas : comma,
    );
    if (!read.ok) return read;
    const { value } = read;
    first ??= value;
    malformed += value.malformed;
    why ??= value.why;
    rows += value.rows;
    for (const [id, cells] of Object.entries(value.columns)) {
      const column = columns.get(id) ?? new Growing();
      columns.set(id, column);
      for (const c of cells) column.push(c as number);
    }
  }
  if (!first) return refuse('There is nothing to read.', 'No line has anything in it.', 'Choose another file.');
  return ok({
    columns: Object.fromEntries([...columns].map(([id, c]) => [id, c.values])),
    rows,
    head: first.head,
    malformed,
    notes: [...first.notes, ...leftOutNote(malformed, why)],
  });
}
