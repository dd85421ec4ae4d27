import Papa from 'papaparse';
import type { BenchTest } from '../schema/joint.ts';
import { inUnits, sayProblem } from '../units/stated.ts';
import { fromSi } from '../units/parse.ts';
import { QUANTITIES, type QuantityId, type Unit } from '../units/quantity.ts';
import { columnsOf } from './contract.ts';
import type { Finding } from './find.ts';
import { testKind } from './kinds/index.ts';
import { ENTERED, STRUCK } from './read-table.ts';
import { samplesOf, type Recording } from './recording.ts';

/** Units a table is written in where the SI unit is not what a bench reads. */
const UNITS: Readonly<Partial<Record<QuantityId, string>>> = { length: 'mm', angle: '°', smallAngle: '′' };

const unitOf = (q: QuantityId): Unit =>
  QUANTITIES[q].units.find((u) => u.symbol === UNITS[q]) ?? QUANTITIES[q].units[0]!;
/** Twelve digits: what is read back gives the same result, and no more is the arithmetic's. */
const inUnit = (si: number, q: QuantityId): number => Number(fromSi(si, unitOf(q)).toPrecision(12));
const headed = (label: string, q: QuantityId): string =>
  unitOf(q).symbol === '' ? label : `${label} (${unitOf(q).symbol})`;

/** Control characters break rows and programs: they become spaces. */
const plain = (x: string): string => x.replace(/[\p{Cc}\p{Cs}]+/gu, ' ');
/** A cell that a spreadsheet would take for a formula is made text; a number that cannot be told an empty cell. */
const cellOf = (x: string | number): string | number => {
  if (typeof x === 'number') return Number.isFinite(x) ? x : '';
  return /^[=+\-@]/.test(plain(x)) ? `'${plain(x)}` : plain(x);
};
/** A line that says something beside the table; a spreadsheet that parts it finds no formula in any part. */
const noteOf = (key: string, value: string | number): string =>
  `# ${plain(`${key}: ${value}`).replace(/([,;:]\s*)(?=[=+\-@]\D)/g, "$1'")}`;

/**
 * A test as CSV that reads back as it was: rig and result in lines of their own above the table, units in the heads,
 * struck-out readings with their reason, a recording sample by sample.
 *
 * @param finding what the test found, where it has been analysed
 * @param build name of the build
 * @param recording its samples, where it has some
 * @returns text with lines ended by CR and LF
 */
export function testCsv(
  test: BenchTest,
  finding: Finding | undefined,
  build: string,
  recording?: Recording | undefined,
): string {
  const kind = testKind(test.kind);
  const lines = [noteOf('test', test.kind), noteOf('date', test.date), noteOf('build', build)];
  for (const [id, value] of Object.entries(test.rig)) {
    const field = kind?.rig.find((f) => f.id === id);
    lines.push(
      field?.as === 'quantity' && typeof value === 'number'
        ? noteOf(field.id, `${inUnit(value, field.quantity)} ${unitOf(field.quantity).symbol}`.trim())
        : noteOf(id, String(value)),
    );
  }
  lines.push(...resultOf(finding));
  const { heads, rows } = recording ? samples(recording) : readings(test, finding);
  if (recording && recording.rate > 0) lines.push(noteOf('rate', `${recording.rate} Hz`));
  const table = Papa.unparse(
    [heads, ...rows].map((r) => r.map(cellOf)),
    { newline: '\r\n' },
  );
  return inUnits(`${lines.join('\r\n')}\r\n${table}\r\n`);
}

type Table = { readonly heads: string[]; readonly rows: (string | number)[][] };

function samples(recording: Recording): Table {
  return {
    heads: recording.channels.map((c) => headed(c.name, c.quantity)),
    rows: Array.from({ length: samplesOf(recording) }, (_, i) =>
      recording.channels.map((c, k) => inUnit(recording.data[k]![i]!, c.quantity)),
    ),
  };
}

function readings(test: BenchTest, finding: Finding | undefined): Table {
  const kind = testKind(test.kind);
  const columns = kind ? columnsOf(kind, test.rig) : [];
  const each = finding?.result?.each;
  return {
    heads: [
      ...columns.map((c) => (c.as === 'choice' ? c.label : headed(c.label, c.quantity))),
      ...(each ? [headed(`comes to, ${each.label}`, each.quantity)] : []),
      ENTERED,
      STRUCK,
    ],
    rows: test.readings.map((r) => [
      ...columns.map((c) => {
        const value = r.values[c.id];
        if (c.as === 'choice') return c.options.find((o) => o.value === value)?.label ?? value ?? '';
        return typeof value === 'number' ? inUnit(value, c.quantity) : (value ?? '');
      }),
      ...(each ? [each.values.has(r.id) ? inUnit(each.values.get(r.id)!, each.quantity) : ''] : []),
      r.text,
      r.struck ?? '',
    ]),
  };
}

/** What came out, a line each. */
function resultOf(finding: Finding | undefined): string[] {
  if (!finding) return [];
  if (finding.problem) return [noteOf('result', sayProblem(finding.problem))];
  const said = (x: number, q: QuantityId): string => `${inUnit(x, q)} ${unitOf(q).symbol}`.trim();
  const spread = (u: number, q: QuantityId): string =>
    `${Number((u / unitOf(q).factor).toPrecision(6))} ${unitOf(q).symbol}`.trim();
  const lines = (finding.result?.figures ?? []).map((f) =>
    noteOf(
      `result, ${f.name}`,
      `${said(f.value, f.quantity)}${f.U === undefined ? '' : ` ± ${spread(f.U, f.quantity)}`} (${f.how})`,
    ),
  );
  const { found } = finding;
  if (!found) return lines;
  return [
    ...lines,
    noteOf('result, found', said(found.value, found.quantity)),
    noteOf('result, expanded uncertainty 95 %', spread(found.U, found.quantity)),
    noteOf('result, coverage factor k', Number(found.k.toPrecision(6))),
    noteOf('result, known', finding.bound),
    ...found.budget.map((c) => noteOf(`result, standard uncertainty, ${c.name}`, spread(c.u, found.quantity))),
  ];
}
