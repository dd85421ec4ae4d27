import {
  columnsOf,
  inOrderOfTime,
  readEntry,
  type Problem,
  type ReadingColumn,
  type BenchTest,
  type TestKind,
  type TestResult,
} from '@gristmill/core';
import { getCoreRowModel, getSortedRowModel, useReactTable, type ColumnDef } from '@tanstack/react-table';
import { useEffect, useMemo, useRef, useState, type ClipboardEvent, type FormEvent } from 'react';
import { QuantityText } from '../../parts/FigureText.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { useLongRows } from '../../parts/long-rows.ts';
import { SortHead } from '../../parts/SortHead.tsx';
import { newId } from '../../state/identifier.ts';
import { useOpen } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { takeRefusal } from '../../state/refusal.ts';
import { editTest } from './edit-test.ts';
import { useDropTaker } from '../../app/drop-taker.ts';
import { useImport } from './use-import.ts';
import { Said } from '../../parts/Said.tsx';

/** Height of a usual row, px. */
const ROW = 27;
/** The column of what each reading comes to. */
const EACH = '=';
type Reading = BenchTest['readings'][number];

/** Strikes a reading out with a reason, or lets it count again; nothing is ever removed. */
function Strike({ test, id, struck }: { test: BenchTest; id: string; struck: string | undefined }) {
  const [asking, setAsking] = useState(false);
  if (struck !== undefined) {
    return (
      <span className="block text-right">
        <span className="label ml-auto block max-w-[9rem] whitespace-normal">{struck || 'no reason given'}</span>
        <button
          type="button"
          className="btn-quiet"
          onClick={() =>
            editTest(
              test.id,
              'Let a reading count again',
              (t) => void delete t.readings.find((r) => r.id === id)!.struck,
            )
          }
        >
          Let it count
        </button>
      </span>
    );
  }
  if (!asking)
    return (
      <button type="button" className="btn-quiet" onClick={() => setAsking(true)}>
        Strike out
      </button>
    );
  return (
    <form
      className="flex justify-end gap-1"
      onSubmit={(e) => {
        e.preventDefault();
        const why = String(new FormData(e.currentTarget).get('why')).trim();
        editTest(test.id, 'Strike out a reading', (t) => void (t.readings.find((r) => r.id === id)!.struck = why));
        setAsking(false);
      }}
    >
      <input
        name="why"
        autoFocus
        className="field-input !w-40 !text-left"
        aria-label="Why it is struck out"
        placeholder="why"
        maxLength={200}
        onKeyDown={(e) => e.key === 'Escape' && setAsking(false)}
      />
      <button type="submit" className="btn">
        Strike
      </button>
    </form>
  );
}

function CellText({ column, value }: { column: ReadingColumn; value: number | string | undefined }) {
  if (value === undefined) return <span className="text-muted">–</span>;
  if (column.as === 'choice') return <>{column.options.find((o) => o.value === value)?.label ?? String(value)}</>;
  return <QuantityText value={value as number} quantity={column.quantity} />;
}

/** Where times go back: what is made of it, and the rows themselves put into their order. */
function OutOfOrder({ test }: { test: BenchTest }) {
  const ordered = inOrderOfTime(test);
  if (ordered.says.length === 0) return null;
  return (
    <p role="status" className="border-l-3 border-near bg-serious px-3 py-1.5">
      {ordered.says.join(' ')}{' '}
      <button
        type="button"
        className="mend no-print"
        onClick={() =>
          editTest(test.id, 'Sort readings by time', (t) => void (t.readings = [...ordered.test.readings]))
        }
      >
        Sort the readings by time
      </button>
    </p>
  );
}

/**
 * Readings as a grid: type and Enter, paste rows from a spreadsheet, or import a file; those struck out stay with their
 * reason.
 */
export function ReadingsGrid({
  test,
  kind,
  result,
}: {
  test: BenchTest;
  kind: TestKind;
  result: TestResult | undefined;
}) {
  const readOnly = useOpen((s) => s.readOnly);
  const units = useUnits();
  const [problem, setProblem] = useState<Problem | undefined>();
  const form = useRef<HTMLFormElement>(null);
  const file = useRef<HTMLInputElement>(null);
  const { state, take, cancel } = useImport(test, kind);
  // What is dropped anywhere on the page goes into the test that is open.
  useEffect(() => {
    const taker = {
      name: kind.name,
      take: async (file: File) => take(new Uint8Array(await file.arrayBuffer()), file.name),
    };
    useDropTaker.setState({ taker });
    return () => useDropTaker.setState((s) => (s.taker === taker ? { taker: undefined } : s));
  }, [kind.name, take]);
  const columns = useMemo(() => columnsOf(kind, test.rig), [kind, test.rig]);
  const one = kind.one ?? 'reading';
  const each = result?.each;
  // Four columns leave no room for the text as entered, which the row then says on pointing at it.
  const wide = columns.length + (each ? 1 : 0) > 3;
  const add = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    const texts = Object.fromEntries(columns.map((c) => [c.id, String(data.get(c.id) ?? '')]));
    const entry = readEntry(kind, test.rig, texts, units);
    if (!entry.ok) return setProblem(entry.problem);
    const refused = editTest(test.id, `Add ${one}`, (t) => void t.readings.push({ id: newId(), ...entry.value }));
    setProblem(refused && takeRefusal());
    if (refused) return;
    // Those with a name are cells; the other one picks a file.
    const fields = [...e.currentTarget.querySelectorAll<HTMLInputElement>('input[name]')];
    const last = fields[fields.length - 1];
    if (last) last.value = '';
    (columns.length > 1 ? fields[0] : last)?.focus();
    fields[0]?.select();
  };
  const paste = (e: ClipboardEvent) => {
    const text = e.clipboardData.getData('text');
    if (!/[\t\n]/.test(text.trim())) return;
    e.preventDefault();
    void take(new TextEncoder().encode(text), 'pasted rows');
  };
  const defs = useMemo<ColumnDef<Reading>[]>(
    () => [
      ...columns.map((c): ColumnDef<Reading> => ({
        id: c.id,
        accessorFn: (r) => r.values[c.id],
        sortUndefined: 'last',
        sortDescFirst: false,
      })),
      { id: EACH, accessorFn: (r) => each?.values.get(r.id), sortUndefined: 'last', sortDescFirst: false },
    ],
    [columns, each],
  );
  const data = useMemo(() => [...test.readings], [test.readings]);
  // It keeps its own state of sorting; what it gives is asked for at each render.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data,
    columns: defs,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getRowId: (r) => r.id,
  });
  const sorted = table.getState().sorting.length > 0;
  const all = table.getRowModel().rows;
  // As they were read the last are looked at first; sorted, the first.
  const rows = useLongRows(all.length, ROW, !sorted);
  return (
    <section aria-label="Readings">
      {test.recording ? (
        <p className="rule-b py-1">
          Recording “{test.recording.name}”: <span className="num">{test.recording.rows}</span> samples of{' '}
          {test.recording.channels.map((c) => c.name).join(', ')}
          {test.recording.malformed ? `; ${test.recording.malformed} lines left out` : ''}
          {test.recording.gaps ? `; ${test.recording.gaps} gaps` : ''}.
        </p>
      ) : null}
      {readOnly ? null : <OutOfOrder test={test} />}
      {columns.length && test.readings.length ? (
        <div
          ref={rows.box}
          className={rows.long ? 'max-h-[52vh] overflow-y-auto' : ''}
          {...(rows.long && { tabIndex: 0, role: 'region', 'aria-label': `All ${all.length} of them` })}
        >
          <table className="w-full text-[13px] [&_td]:py-[2px]" {...(rows.long && { 'aria-rowcount': all.length + 1 })}>
            <thead className={rows.long ? 'sticky top-0 z-10 bg-paper' : ''}>
              <tr className="border-b border-strong">
                {columns.map((c) => (
                  <SortHead key={c.id} column={table.getColumn(c.id)} className="whitespace-nowrap">
                    {c.label}
                  </SortHead>
                ))}
                {each ? (
                  <SortHead column={table.getColumn(EACH)} className="whitespace-nowrap">
                    {each.label}
                  </SortHead>
                ) : null}
                {wide ? null : <th className="whitespace-nowrap max-[1099px]:hidden">as entered</th>}
                <th>
                  <span className="sr-only">Strike out</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.above > 0 ? <tr aria-hidden="true" style={{ height: rows.above }} /> : null}
              {rows.at.map((k) => {
                const r = all[k]!.original;
                return (
                  <tr
                    key={r.id}
                    data-index={k}
                    ref={rows.measure}
                    {...(rows.long && { 'aria-rowindex': k + 2 })}
                    title={`as entered: ${r.text}`}
                    className={`rule-b ${r.struck !== undefined ? 'text-muted line-through decoration-1' : ''}`}
                  >
                    {columns.map((c) => (
                      <td key={c.id} className="whitespace-nowrap pr-2">
                        <CellText column={c} value={r.values[c.id]} />
                      </td>
                    ))}
                    {each ? (
                      <td className="whitespace-nowrap pr-2 text-found">
                        {each.values.has(r.id) ? (
                          <QuantityText value={each.values.get(r.id)!} quantity={each.quantity} />
                        ) : null}
                      </td>
                    ) : null}
                    {wide ? null : (
                      <td
                        className={`num truncate text-[12px] text-muted max-[1099px]:hidden ${columns.length > 2 ? 'max-w-[5.5rem]' : 'max-w-[9.5rem]'}`}
                      >
                        {r.text}
                      </td>
                    )}
                    <td className="no-print whitespace-nowrap text-right no-underline">
                      {readOnly ? null : <Strike test={test} id={r.id} struck={r.struck} />}
                    </td>
                  </tr>
                );
              })}
              {rows.below > 0 ? <tr aria-hidden="true" style={{ height: rows.below }} /> : null}
            </tbody>
          </table>
        </div>
      ) : null}
      {readOnly ? null : (
        <form
          ref={form}
          className="no-print flex flex-wrap items-baseline gap-x-3 gap-y-1 py-2"
          onSubmit={add}
          onPaste={paste}
          aria-label={`Add a ${one}`}
        >
          {columns.map((c, i) =>
            c.as === 'choice' ? (
              <label key={c.id}>
                {c.label}{' '}
                <select name={c.id} className="select" aria-label={c.label}>
                  {c.options.map((o) => (
                    <option key={o.value} value={o.value}>
                      {o.label}
                    </option>
                  ))}
                </select>
              </label>
            ) : (
              <label key={c.id}>
                {c.label}{' '}
                <input
                  name={c.id}
                  className="field-input !w-24 !text-left"
                  placeholder={c.example}
                  defaultValue={
                    i === 0 && columns.length > 1 && test.readings.length === 0 && !c.optional ? '' : undefined
                  }
                  autoComplete="off"
                  aria-label={c.label}
                />
              </label>
            ),
          )}
          {columns.length ? (
            <button type="submit" className="btn">
              Add {one}
            </button>
          ) : null}
          <button type="button" className="btn" onClick={() => file.current?.click()}>
            Import a file
          </button>
          <input
            ref={file}
            type="file"
            accept=".csv,.txt,.tsv,.json,.jsonl,.wav,text/csv,text/plain,application/json,audio/wav"
            className="sr-only"
            tabIndex={-1}
            aria-label="Import readings: file"
            onChange={(e) => {
              const f = e.target.files?.[0];
              e.target.value = '';
              if (f) void f.arrayBuffer().then((b) => take(new Uint8Array(b), f.name));
            }}
          />
          <span className="label">or paste rows from a spreadsheet into a field</span>
        </form>
      )}
      {state.busy ? (
        <p role="status" className="flex items-center gap-2">
          {state.busy}{' '}
          <button type="button" className="btn-quiet" onClick={cancel}>
            Stop
          </button>
        </p>
      ) : null}
      {(problem ?? state.problem) ? <ProblemNote problem={(problem ?? state.problem)!} /> : null}
      {state.notes.length ? (
        <ul className="list-disc pl-5 text-[12.5px] text-muted" aria-label="What was noticed while reading">
          {state.notes.map((n) => (
            <li key={n}>
              <Said>{n}</Said>
            </li>
          ))}
        </ul>
      ) : null}
    </section>
  );
}
