import { displayUnit, parseQuantity, type Problem, type QuantityId } from '@gristmill/core';
import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
} from '@tanstack/react-table';
import { useMemo, useState, type ClipboardEvent, type ReactNode } from 'react';
import { TextField } from '../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { cellKeys } from '../../parts/cells.ts';
import { SortHead } from '../../parts/SortHead.tsx';
import { newId } from '../../state/identifier.ts';
import { usePrefs } from '../../state/prefs.ts';
import { pasted } from './pasted.ts';

export interface ThingColumn {
  readonly key: string;
  readonly label: string;
  readonly quantity: QuantityId;
  readonly min: number;
  readonly max: number;
  /** What a thing that does not say it counts as: a number, or another column's. */
  readonly absent?: number | string;
}

interface Thing {
  readonly id: string;
  readonly name: string;
  readonly source: string;
}

const valueOf = (t: Thing, { key, absent }: ThingColumn): number => {
  const said = t as unknown as Readonly<Record<string, number | undefined>>;
  return said[key] ?? (typeof absent === 'string' ? said[absent]! : (absent ?? NaN));
};

/** A shelf of things with a few numbers each: edited in place, copied, and put back as shipped. */
export function ThingTable<T extends Thing>({
  title,
  note,
  things,
  own,
  columns,
  tell,
  onPut,
  onRemove,
}: {
  title: string;
  note: string;
  things: readonly T[];
  own: ReadonlySet<string>;
  columns: readonly ThingColumn[];
  tell?: { readonly name: string; readonly of: (t: T) => ReactNode };
  onPut: (t: T) => void;
  onRemove: (id: string) => void;
}) {
  const [look, setLook] = useState('');
  const [problem, setProblem] = useState<Problem | undefined>();
  const { units, comma } = usePrefs();
  const defs = useMemo<ColumnDef<T>[]>(
    () => [
      { id: 'name', accessorFn: (t) => t.name, sortingFn: 'alphanumeric' },
      ...columns.map((c): ColumnDef<T> => ({ id: c.key, accessorFn: (t) => valueOf(t, c), enableGlobalFilter: false })),
      { id: 'source', accessorFn: (t) => t.source },
    ],
    [columns],
  );
  const data = useMemo(() => [...things], [things]);
  // It keeps its own state of sorting; what it gives is asked for at each render.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data,
    columns: defs,
    state: { globalFilter: look },
    onGlobalFilterChange: setLook,
    globalFilterFn: 'includesString',
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getRowId: (t) => t.id,
  });
  const rows = table.getRowModel().rows.map((r) => r.original);
  /** Rows of a spreadsheet, laid over the cells from the one they were pasted into. */
  const paste = (e: ClipboardEvent, row: number, column: number) => {
    const text = e.clipboardData.getData('text');
    if (!/[\t\n]/.test(text.trim())) return;
    e.preventDefault();
    const read = pasted(text, rows.slice(row), columns.slice(column), (value, c) => {
      const parsed = parseQuantity(value, c.quantity, displayUnit(c.quantity, units).symbol, comma);
      return parsed.ok ? { ok: true, value: parsed.value.si } : parsed;
    });
    setProblem(read.ok ? undefined : read.problem);
    // What was put last stands first on its shelf.
    if (read.ok) for (const t of [...read.value].reverse()) onPut({ ...t, source: 'set in the shop' });
  };
  return (
    <section aria-label={title} className="relative max-w-full overflow-x-auto pb-6">
      <div className="flex items-baseline justify-between gap-4 border-b border-strong pb-1">
        <h2>{title}</h2>
        {things.length > 8 ? (
          <label className="label flex items-baseline gap-2">
            find
            <input
              type="search"
              className="field-input w-36"
              maxLength={60}
              value={look}
              onChange={(e) => setLook(e.target.value)}
            />
          </label>
        ) : null}
        <span className="label">{note}</span>
      </div>
      {problem ? (
        <div className="py-2">
          <ProblemNote problem={problem} />
        </div>
      ) : null}
      <table
        className={`w-full [&_.field-input]:text-[12.5px] ${columns.length < 8 ? '[&_.field-input]:min-w-[5.7rem]' : ''}`}
        aria-label={title}
        onKeyDown={cellKeys}
      >
        <thead>
          <tr>
            <SortHead column={table.getColumn('name')}>name</SortHead>
            {tell ? <th>{tell.name}</th> : null}
            {columns.map((c) => (
              <SortHead key={c.key} column={table.getColumn(c.key)} className="text-right">
                {c.label}
              </SortHead>
            ))}
            <SortHead column={table.getColumn('source')} className="whitespace-nowrap">
              where from
            </SortHead>
            <th>
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.length === 0 ? (
            <tr>
              <td colSpan={columns.length + 3} className="label">
                Nothing here has that in its name.
              </td>
            </tr>
          ) : null}
          {rows.map((t, row) => (
            <tr key={t.id} className="rule-b" data-thing={t.id}>
              <td className={own.has(t.id) ? 'whitespace-nowrap' : ''}>
                {own.has(t.id) ? (
                  <TextField
                    label={`Name of ${t.name}`}
                    hideLabel
                    value={t.name}
                    refuse={(v) => v === ''}
                    onChange={(name) => onPut({ ...t, name })}
                  />
                ) : (
                  t.name
                )}
              </td>
              {tell ? <td className="whitespace-nowrap pr-3">{tell.of(t)}</td> : null}
              {columns.map((c, column) => {
                const value = valueOf(t, c);
                return (
                  <td key={c.key} className="w-[88px]" onPaste={(e) => paste(e, row, column)}>
                    <QuantityField
                      label={`${t.name}, ${c.label}`}
                      hideLabel
                      quantity={c.quantity}
                      value={value}
                      min={c.min}
                      max={c.max}
                      step={Math.max(Math.abs(value) / 20, 1e-9)}
                      onChange={(v) => onPut({ ...t, [c.key]: v, source: 'set in the shop' })}
                    />
                  </td>
                );
              })}
              <td className="label max-w-[130px] truncate" title={t.source}>
                {t.source}
              </td>
              <td className="whitespace-nowrap pr-0 text-right">
                <button
                  type="button"
                  className="btn-quiet"
                  aria-label={`Copy ${t.name}`}
                  onClick={() => onPut({ ...t, id: newId(), name: `${t.name}, copy` })}
                >
                  Copy
                </button>
                {own.has(t.id) ? (
                  <button
                    type="button"
                    className="btn-quiet"
                    aria-label={`Reset ${t.name}`}
                    onClick={() => onRemove(t.id)}
                  >
                    Reset
                  </button>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
