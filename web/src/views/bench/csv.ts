import {
  inUnits,
  columnsOf,
  sayProblem,
  TEST_KINDS,
  type BenchTest,
  type Finding,
  type QuantityId,
} from '@gristmill/core';
import Papa from 'papaparse';

/** Units a spreadsheet is given lengths and angles in; all else is SI. */
const UNITS: Readonly<Partial<Record<QuantityId, { readonly name: string; readonly factor: number }>>> = {
  length: { name: 'mm', factor: 1e3 },
  angle: { name: 'deg', factor: 180 / Math.PI },
  smallAngle: { name: 'arcmin', factor: 10800 / Math.PI },
  mass: { name: 'kg', factor: 1 },
  torque: { name: 'N m', factor: 1 },
};
const unitOf = (q: QuantityId): string => UNITS[q]?.name ?? 'SI';
/** Nine digits: more are the arithmetic's, not the reading's. */
const inUnit = (value: number, q: QuantityId): number => Number((value * (UNITS[q]?.factor ?? 1)).toPrecision(9));

/**
 * A cell a spreadsheet would take for a formula is made plain text; control characters, which break rows and programs,
 * become spaces, and a number that cannot be told an empty cell.
 */
const safe = (x: string | number): string | number => {
  if (typeof x === 'number') return Number.isFinite(x) ? x : '';
  const plain = x.replace(/[\p{Cc}\p{Cs}]+/gu, ' ');
  return /^[=+\-@]/.test(plain) ? `'${plain}` : plain;
};

/** Readings and result of a test as CSV: units in the heads, struck-out readings with their reason. */
export function testCsv(test: BenchTest, finding: Finding | undefined, build: string): string {
  const rows: (string | number)[][] = [
    ['test', test.kind],
    ['date', test.date],
    ['build', build],
  ];
  for (const [key, value] of Object.entries(test.rig)) rows.push([`rig ${key} (SI)`, String(value)]);
  rows.push([]);
  const kind = TEST_KINDS.find((k) => k.id === test.kind);
  const each = finding?.result?.each;
  const columns = kind ? columnsOf(kind, test.rig) : [];
  rows.push([
    ...columns.map((c) => (c.as === 'choice' ? c.label : `${c.label} (${unitOf(c.quantity)})`)),
    ...(each ? [`${each.label} (${unitOf(each.quantity)})`] : []),
    'as entered',
    'struck out because',
  ]);
  for (const r of test.readings)
    rows.push([
      ...columns.map((c) => {
        const value = r.values[c.id];
        if (c.as === 'choice') return c.options.find((o) => o.value === value)?.label ?? value ?? '';
        return typeof value === 'number' ? inUnit(value, c.quantity) : (value ?? '');
      }),
      ...(each ? [each.values.has(r.id) ? inUnit(each.values.get(r.id)!, each.quantity) : ''] : []),
      r.text,
      r.struck ?? '',
    ]);
  rows.push([]);
  for (const f of finding?.result?.figures ?? [])
    rows.push([`${f.name} (SI)`, f.value, ...(f.U === undefined ? [] : [`± ${f.U}`]), f.how]);
  rows.push([]);
  if (finding?.found) {
    const scale = UNITS[finding.found.quantity]?.factor ?? 1;
    const unit = unitOf(finding.found.quantity);
    rows.push(
      [`found (${unit})`, finding.found.value * scale],
      [`expanded uncertainty 95 % (${unit})`, finding.found.U * scale],
      ['coverage factor k', finding.found.k],
      ['known', finding.bound],
    );
    for (const c of finding.found.budget) rows.push([`standard uncertainty, ${c.name} (${unit})`, c.u * scale]);
  } else if (finding?.problem) rows.push(['result', sayProblem(finding.problem)]);
  return `${inUnits(Papa.unparse(rows.map((r) => r.map(safe))))}\r\n`;
}
