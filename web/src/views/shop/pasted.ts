import { ok, refuse, type Result } from '@gristmill/core';
import type { ThingColumn } from './ThingTable.tsx';

/**
 * Things with a block of a spreadsheet laid over them: a row each from the first, a cell each from the first column. All of
 * it is taken, or nothing.
 *
 * @param text cells parted by tabs, rows by lines
 * @param things rows that it falls on
 * @param columns columns that it falls on
 * @param read a cell's value in SI units
 */
export function pasted<T extends { readonly name: string }>(
  text: string,
  things: readonly T[],
  columns: readonly ThingColumn[],
  read: (cell: string, column: ThingColumn) => Result<number>,
): Result<readonly T[]> {
  const block = text
    .replace(/\r/g, '')
    .replace(/\n+$/, '')
    .split('\n')
    .map((line) => line.split('\t'));
  const wide = Math.max(...block.map((r) => r.length));
  if (block.length > things.length || wide > columns.length)
    return refuse(
      `What was pasted has ${block.length} rows of ${wide} cells.`,
      `From here on there are ${things.length} rows of ${columns.length}.`,
      'Paste it further up or further left, or a smaller part of it.',
    );
  const out: T[] = [];
  for (const [i, line] of block.entries()) {
    const thing = things[i]!;
    const change: Record<string, number> = {};
    for (const [j, cell] of line.entries()) {
      const column = columns[j]!;
      // A cell left empty leaves what is there.
      if (cell.trim() === '') continue;
      const value = read(cell, column);
      if (!value.ok)
        return {
          ok: false,
          problem: { ...value.problem, what: `${thing.name}, ${column.label}: ${value.problem.what}` },
        };
      if (!(value.value >= column.min && value.value <= column.max))
        return refuse(
          `${thing.name}, ${column.label}: “${cell.trim().slice(0, 30)}” is out of reach.`,
          'It is larger or smaller than any such thing.',
          'Check its unit; nothing of the block was taken.',
        );
      change[column.key] = value.value;
    }
    if (Object.keys(change).length) out.push({ ...thing, ...change });
  }
  return ok(out);
}
