import type { KeyboardEvent } from 'react';

/** Ways between cells by key, as rows and columns. */
const WAYS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/**
 * Goes from field to field of a table by keys: Enter to the one below, Shift Enter to the one above, Ctrl with an arrow any way.
 * What was typed is taken by the field itself before.
 */
export function cellKeys(e: KeyboardEvent<HTMLTableElement>): void {
  const field = e.target;
  if (!(field instanceof HTMLInputElement) || field.type === 'search') return;
  const way = e.key === 'Enter' ? WAYS[e.shiftKey ? 'ArrowUp' : 'ArrowDown'] : e.ctrlKey ? WAYS[e.key] : undefined;
  const cell = field.closest('td');
  const row = field.closest('tr');
  if (!way || !cell || !row) return;
  const rows = [...e.currentTarget.querySelectorAll('tbody > tr')];
  let [r, c] = [rows.indexOf(row), [...row.children].indexOf(cell)];
  // Over cells without a field to the next one that has one.
  for (;;) {
    [r, c] = [r + way[0], c + way[1]];
    const next = rows[r]?.children[c];
    if (!next) return;
    const to = next.querySelector<HTMLInputElement>('input:not([disabled])');
    if (!to) continue;
    e.preventDefault();
    to.focus();
    to.select();
    return;
  }
}
