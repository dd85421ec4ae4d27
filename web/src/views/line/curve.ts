import { CURVE_COLUMNS, curveFromColumns, readQuantityTable, type Result } from '@gristmill/core';
import Papa from 'papaparse';
import { usePrefs } from '../../state/prefs.ts';

/** A motor's curve from pasted text: speed and torque. */
export function readCurve(text: string): Result<{ speed: number[]; torque: number[] }> {
  const read = readQuantityTable(
    Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' }).data,
    CURVE_COLUMNS,
    usePrefs.getState().comma,
  );
  return read.ok ? curveFromColumns(read.value) : read;
}
