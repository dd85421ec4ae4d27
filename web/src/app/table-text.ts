/** What a cell says as one reads it: what fields hold, and nothing that is only for screen readers. */
function cellText(node: Node): string {
  if (node.nodeType === Node.TEXT_NODE) return node.textContent ?? '';
  if (!(node instanceof Element) || node.classList.contains('sr-only') || node.tagName === 'svg') return '';
  if (node instanceof HTMLInputElement)
    return node.type === 'checkbox' || node.type === 'radio' ? (node.checked ? '×' : '') : node.value;
  if (node instanceof HTMLSelectElement) return node.selectedOptions[0]?.textContent ?? '';
  if (node instanceof HTMLTextAreaElement) return node.value;
  const inner = [...node.childNodes].map(cellText).join('');
  // What stands under one another on the page is not one word.
  return getComputedStyle(node).display.startsWith('inline') ? inner : ` ${inner} `;
}

/**
 * A table's cells as text, row by row, all rows equally long: a cell that spans others is followed by empty ones.
 *
 * @returns the rows, and how many of them are its head
 */
export function tableRows(table: HTMLTableElement): {
  readonly rows: readonly (readonly string[])[];
  readonly head: number;
} {
  const rows = [...table.rows].map((row) =>
    [...row.cells].flatMap((cell) => [
      cellText(cell).replace(/\s+/g, ' ').trim(),
      ...Array.from({ length: cell.colSpan - 1 }, () => ''),
    ]),
  );
  const width = Math.max(0, ...rows.map((r) => r.length));
  // A column of buttons says nothing on paper.
  const padded = rows.map((r) => [...r, ...Array.from({ length: width - r.length }, () => '')]);
  const kept = Array.from({ length: width }, (_, i) => i).filter((i) => padded.some((r) => r[i] !== ''));
  return { rows: padded.map((r) => kept.map((i) => r[i]!)), head: table.tHead?.rows.length ?? 0 };
}

/** Rows for a spreadsheet: cells parted by tabs. */
export const asTsv = (rows: readonly (readonly string[])[]): string =>
  rows.map((r) => r.map((c) => c.replace(/[\t\r\n]+/g, ' ')).join('\t')).join('\n');

/**
 * Rows as a table of Markdown; without a head the first column's own is left empty.
 *
 * @param head how many of the rows are its head; more than one are put into one
 */
export function asMarkdown(rows: readonly (readonly string[])[], head: number): string {
  const width = rows[0]?.length ?? 0;
  const line = (cells: readonly string[]) =>
    `| ${cells.map((c) => c.replace(/\|/g, '\\|').replace(/[\r\n]+/g, ' ')).join(' | ')} |`;
  const top = Array.from({ length: width }, (_, i) =>
    rows
      .slice(0, head)
      .map((r) => r[i]!)
      .filter(Boolean)
      .join(' '),
  );
  return [line(top), line(top.map(() => '---')), ...rows.slice(head).map(line)].join('\n');
}
