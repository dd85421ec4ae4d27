import { POINT_COLUMNS, readQuantityTable, type PointsCase, type Problem } from '@gristmill/core';
import Papa from 'papaparse';
import { useState } from 'react';
import { PasteTable } from '../../parts/PasteTable.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { usePrefs } from '../../state/prefs.ts';

type Row = PointsCase['rows'][number];
const COLUMNS = [
  ['torque', 'torque', 0.1, -1e6, 1e6],
  ['speed', 'speed', 0.1, -1e4, 1e4],
  ['seconds', 'time', 0.1, 0, 1e6],
] as const;
/** Rows that are edited in place; longer lists are pasted anew. */
const SHOWN = 40;

/** Rows of torque, speed and seconds from pasted text. */
export function readPoints(text: string): ReturnType<typeof readQuantityTable> {
  return readQuantityTable(
    Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' }).data,
    POINT_COLUMNS,
    usePrefs.getState().comma,
  );
}

/** The list of own points: edited row by row, or pasted from a table or a CSV file. */
export function PointsTable({
  c,
  onChange,
  disabled,
}: {
  c: PointsCase;
  onChange: (change: Partial<PointsCase>, what: string) => Problem | undefined;
  disabled?: boolean;
}) {
  const [pasting, setPasting] = useState(false);
  const set = (i: number, part: Partial<Row>) =>
    onChange({ rows: c.rows.map((r, k) => (k === i ? { ...r, ...part } : r)) }, 'Own points');
  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="min-h-0 flex-1 overflow-y-auto" tabIndex={0} role="region" aria-label="Own points">
        <table className="w-full max-w-[470px]">
          <thead className="sticky top-0 bg-paper">
            <tr className="border-b border-strong">
              <th className="w-8">#</th>
              <th className="text-right">torque</th>
              <th className="text-right">speed</th>
              <th className="text-right">lasts</th>
              <th>
                <span className="sr-only">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {c.rows.slice(0, SHOWN).map((r, i) => (
              <tr key={i} className="rule-b">
                <td className="num text-muted">{i + 1}</td>
                {COLUMNS.map(([key, quantity, step, min, max]) => (
                  <td key={key}>
                    <QuantityField
                      label={`Point ${i + 1}, ${key}`}
                      hideLabel
                      quantity={quantity}
                      step={step}
                      min={min}
                      max={max}
                      value={r[key]}
                      disabled={disabled ?? false}
                      onChange={(v) => set(i, { [key]: v })}
                    />
                  </td>
                ))}
                <td className="pr-0 text-right">
                  <button
                    type="button"
                    className="btn-quiet px-1"
                    aria-label={`Remove point ${i + 1}`}
                    disabled={disabled || c.rows.length < 2}
                    onClick={() => onChange({ rows: c.rows.filter((_, k) => k !== i) }, 'Remove point')}
                  >
                    ✕
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {c.rows.length > SHOWN ? (
          <p className="label py-1">and {c.rows.length - SHOWN} more; paste the list anew to change them</p>
        ) : null}
      </div>
      {pasting ? (
        <PasteTable
          title="Paste torque, speed, seconds"
          hint="A heading may name columns and units: torque (N·m), speed (rpm), time (s)."
          onCancel={() => setPasting(false)}
          onTake={(text) => {
            const read = readPoints(text);
            if (!read.ok) return read.problem;
            const rows = read.value['torque']!.map((torque, i) => ({
              torque,
              speed: read.value['speed']![i]!,
              seconds: read.value['seconds']![i]!,
            }));
            const problem = onChange({ rows }, `Paste ${rows.length} points`);
            if (!problem) setPasting(false);
            return problem;
          }}
        />
      ) : (
        <p className="flex gap-2 py-1.5">
          <button
            type="button"
            className="btn"
            disabled={disabled}
            onClick={() => onChange({ rows: [...c.rows, { torque: 1, speed: 1, seconds: 1 }] }, 'Add point')}
          >
            Add point
          </button>
          <button type="button" className="btn" disabled={disabled} onClick={() => setPasting(true)}>
            Paste or read CSV
          </button>
        </p>
      )}
    </div>
  );
}
