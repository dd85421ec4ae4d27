import { toast } from 'sonner';
import { asMarkdown, asTsv, tableRows } from './table-text.ts';

export type TableFormat = 'tsv' | 'md';

/** What a table is called: as it says itself, or by its caption. */
export const tableName = (t: HTMLTableElement): string =>
  t.getAttribute('aria-label') ??
  (document.getElementById(t.getAttribute('aria-labelledby') ?? '')?.textContent || t.caption?.textContent || 'table');

/** The tables of the page that hold more than a row. */
export const tablesHere = (): HTMLTableElement[] =>
  [...document.querySelectorAll<HTMLTableElement>('main table, aside table')].filter(
    (t) => t.rows.length > 1 && t.getClientRects().length > 0,
  );

/** Copies a table, for a spreadsheet or as Markdown, and says so. */
export async function copyTable(table: HTMLTableElement, format: TableFormat): Promise<void> {
  const { rows, head } = tableRows(table);
  const text = format === 'tsv' ? asTsv(rows) : asMarkdown(rows, head);
  try {
    await navigator.clipboard.writeText(text);
    toast(
      `Copied ${rows.length - head} row${rows.length - head === 1 ? '' : 's'} of “${tableName(table)}”${format === 'md' ? ' as Markdown' : ''}.`,
    );
  } catch {
    toast('The browser does not let Gristmill write to the clipboard. Select the table and copy it by hand.');
  }
}
