import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { copyTable, tableName, type TableFormat } from './copy-table.ts';

/** How long the pointer rests in a table before it offers to be copied, ms: one that only passes is not bothered. */
const REST = 800;
const FORMATS: readonly (readonly [TableFormat, string])[] = [
  ['tsv', 'For a spreadsheet'],
  ['md', 'As Markdown'],
];

/** Offers to copy the table that the pointer rests in, above its right end. By the keyboard all actions list the same. */
export function TableCopy() {
  const [at, setAt] = useState<{ table: HTMLTableElement; top: number; right: number } | undefined>();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let over: Element | null = null;
    const move = (e: PointerEvent) => {
      if (!(e.target instanceof Element) || e.target.closest('[data-copy-table]')) return;
      const table = e.target.closest('main table, aside table');
      if (table === over) return;
      over = table;
      clearTimeout(timer);
      setAt((was) => (was && was.table !== table ? undefined : was));
      if (!(table instanceof HTMLTableElement) || table.rows.length < 2) return;
      timer = setTimeout(() => {
        const box = table.getBoundingClientRect();
        setAt({ table, top: Math.max(2, box.top - 24), right: window.innerWidth - box.right });
      }, REST);
    };
    const away = () => (clearTimeout(timer), (over = null), setAt(undefined));
    document.addEventListener('pointermove', move);
    document.addEventListener('scroll', away, true);
    document.addEventListener('keydown', away);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('pointermove', move);
      document.removeEventListener('scroll', away, true);
      document.removeEventListener('keydown', away);
    };
  }, []);
  if (!at) return null;
  return (
    <div data-copy-table="" className="no-print fixed z-20" style={{ top: at.top, right: Math.max(2, at.right) }}>
      <DropdownMenu.Root open={open} onOpenChange={setOpen}>
        <DropdownMenu.Trigger className="btn bg-panel px-2 py-0 text-[12px]" aria-label={`Copy ${tableName(at.table)}`}>
          Copy
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" className="z-30 border border-strong bg-panel py-1" data-copy-table="">
            {FORMATS.map(([format, label]) => (
              <DropdownMenu.Item
                key={format}
                onSelect={() => void copyTable(at.table, format)}
                className="cursor-pointer px-4 py-1 data-[highlighted]:bg-ink data-[highlighted]:text-panel"
              >
                {label}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  );
}
