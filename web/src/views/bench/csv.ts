import { OUTCOME_WORDS, sayProblem, type BenchTest, type Finding, type ReadingsTest } from '@gristmill/core';
import Papa from 'papaparse';

const deg = (rad: number): number => Number(((rad * 180) / Math.PI).toFixed(6));
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
  if (test.kind === 'play-lever') {
    rows.push(['output angle (deg)', 'difference (mm)', 'as entered', 'struck out because']);
    for (const r of test.readings)
      rows.push([deg(r.angle), Number((r.difference * 1000).toFixed(6)), r.text, r.struck ?? '']);
  } else if (test.kind === 'torque-ladder') {
    rows.push(['mass (kg)', 'torque (N m)', 'outcome', 'as entered', 'struck out because']);
    for (const r of test.readings)
      rows.push([
        r.mass,
        Number((finding?.ladder?.rungs.find((x) => x.id === r.id)?.torque ?? NaN).toFixed(6)),
        OUTCOME_WORDS[r.outcome],
        r.text,
        r.struck ?? '',
      ]);
  }
  if (test.kind !== 'play-lever' && test.kind !== 'torque-ladder') {
    const own = test as ReadingsTest;
    const columns = [...new Set(own.readings.flatMap((r) => Object.keys(r.values)))];
    rows.push([...columns.map((c) => `${c} (SI)`), 'as entered', 'struck out because']);
    for (const r of own.readings) rows.push([...columns.map((c) => r.values[c] ?? ''), r.text, r.struck ?? '']);
    rows.push([]);
    for (const f of finding?.result?.figures ?? [])
      rows.push([`${f.name} (SI)`, f.value, ...(f.U === undefined ? [] : [`± ${f.U}`]), f.how]);
  }
  rows.push([]);
  if (finding?.found) {
    const scale = finding.found.quantity === 'smallAngle' ? 10800 / Math.PI : 1;
    const unit =
      finding.found.quantity === 'smallAngle' ? 'arcmin' : finding.found.quantity === 'torque' ? 'N m' : 'SI';
    rows.push(
      [`found (${unit})`, finding.found.value * scale],
      [`expanded uncertainty 95 % (${unit})`, finding.found.U * scale],
      ['coverage factor k', finding.found.k],
      ['known', finding.bound],
    );
    for (const c of finding.found.budget) rows.push([`standard uncertainty, ${c.name} (${unit})`, c.u * scale]);
    if (finding.ladder)
      rows.push(
        ['best carried (N m)', finding.ladder.bestGood ?? ''],
        ['least not carried (N m)', finding.ladder.leastBad ?? ''],
      );
  } else if (finding?.problem) rows.push(['result', sayProblem(finding.problem)]);
  return `${Papa.unparse(rows.map((r) => r.map(safe)))}\r\n`;
}
