import { readJson } from './json-test.ts';
import { ok, refuse, type Result } from '../result.ts';
import { parseQuantity } from '../units/parse.ts';
import type { Comma } from '../units/comma.ts';
import type { BenchTest } from '../schema/joint.ts';
import { columnsOf, type TestKind } from './contract.ts';
import { readLong, type LongTable } from './read-long.ts';
import { readTable, type WantedColumn } from './read-table.ts';
import { readWav } from './read-wav.ts';
import type { Recording } from './recording.ts';
import { rigFrom, soundRig } from './rig-values.ts';

/** Beyond this many rows a table is a recording, not readings for a grid. */
export const MOST_READINGS = 400;

/** What a file gives a test. */
export interface Imported {
  readonly readings: BenchTest['readings'];
  readonly recording: Recording | undefined;
  readonly rig: Readonly<Record<string, number | string>>;
  readonly notes: readonly string[];
}

const nothing = { readings: [], recording: undefined, rig: {}, notes: [] };

/** The order of times where more than one in twenty goes back: rows that were sorted by something else. */
function shuffled(t: Float64Array): Int32Array | undefined {
  let back = 0;
  for (let i = 1; i < t.length; i++) if (t[i]! < t[i - 1]!) back++;
  if (back <= 0.05 * t.length) return undefined;
  return Int32Array.from(t, (_, i) => i).sort((a, b) => t[a]! - t[b]!);
}

/** Marks gaps and backward steps of a time channel; samples that run backwards are left out. */
function tidyTime(columns: Float64Array[], time: number): { columns: Float64Array[]; gaps: number; notes: string[] } {
  const t = columns[time]!;
  const order = shuffled(t);
  if (order) {
    const { gaps } = tidyTime(
      columns.map((c) => Float64Array.from(order, (i) => c[i]!)),
      time,
    );
    return {
      columns: columns.map((c) => Float64Array.from(order, (i) => c[i]!)),
      gaps,
      notes: ['Times do not rise: the samples were put in the order of their times. Look whether the file is whole.'],
    };
  }
  const keep: number[] = [];
  let last = -Infinity;
  for (let i = 0; i < t.length; i++) {
    if (t[i]! < last) continue;
    last = t[i]!;
    keep.push(i);
  }
  const back = t.length - keep.length;
  const steps = keep
    .slice(1)
    .map((i, k) => t[i]! - t[keep[k]!]!)
    .sort((a, b) => a - b);
  const usual = steps[steps.length >> 1] ?? 0;
  const gaps = usual > 0 ? steps.filter((s) => s > 4 * usual).length : 0;
  return {
    columns: back ? columns.map((c) => Float64Array.from(keep, (i) => c[i]!)) : columns,
    gaps,
    notes: [
      ...(back
        ? [
            `Time runs backwards at ${back} sample${back === 1 ? '' : 's'}, which ${back === 1 ? 'was' : 'were'} left out.`,
          ]
        : []),
      ...(gaps ? [`There ${gaps === 1 ? 'is a gap' : `are ${gaps} gaps`} in time.`] : []),
    ],
  };
}

/** How many numbers of a column are known. */
function filled(column: Float64Array): number {
  let n = 0;
  for (let i = 0; i < column.length; i++) if (Number.isFinite(column[i])) n++;
  return n;
}

/** A table as a recording of a kind's channels. */
function asRecording(wanted: readonly WantedColumn[], table: LongTable): Recording {
  // An optional column that is mostly empty is not there; where it is, a row without it is not whole.
  const channels = wanted.filter((c) => {
    const column = table.columns[c.id];
    return column && (!c.optional || 2 * filled(column) > table.rows);
  });
  const all = channels.map((c) => table.columns[c.id]!);
  const holes = all.some((c) => filled(c) < table.rows);
  const whole = holes
    ? Array.from({ length: table.rows }, (_, i) => i).filter((i) => all.every((c) => Number.isFinite(c[i])))
    : [];
  const lost = holes ? table.rows - whole.length : 0;
  const raw = all.map((c) => (lost ? Float64Array.from(whole, (i) => c[i]!) : c));
  const time = channels.findIndex((c) => c.id === 'time');
  const { columns, gaps, notes } = time >= 0 ? tidyTime(raw, time) : { columns: raw, gaps: 0, notes: [] };
  return {
    channels: channels.map((c) => ({ id: c.id, name: c.label, quantity: c.quantity! })),
    data: columns,
    rate: rateSaid(table.head),
    malformed: table.malformed + lost,
    gaps,
    notes: [
      ...table.notes,
      ...(lost ? [`${lost} row${lost === 1 ? ' was' : 's were'} not whole and left out.`] : []),
      ...notes,
    ],
  };
}

/** Whether a text has more lines than a test has readings. */
function isLong(text: string): boolean {
  let lines = 0;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) if (++lines > MOST_READINGS) return true;
  return false;
}

/** What the lines above a table say of the rig, and of the instrument it was read with. */
function rigSaid(kind: TestKind, head: Readonly<Record<string, string>>): Record<string, number | string> {
  const rig = rigFrom(kind, head);
  const instrument = head['instrument'];
  return instrument === undefined ? rig : { ...rig, instrument };
}

/** Samples a second as the lines above a table say; 0 where they do not. */
function rateSaid(head: Readonly<Record<string, string>>): number {
  const read = head['rate'] === undefined ? undefined : parseQuantity(head['rate'], 'frequency');
  return read?.ok && read.value.si > 0 ? read.value.si : 0;
}

type Refused = Extract<Result<Imported>, { ok: false }>;

/** Reads a table of readings or a recording for a kind of test. */
export function importTable(
  kind: TestKind,
  text: string,
  newId: (i: number) => string = (i) => `r${i + 1}`,
  comma: Comma = 'ask',
): Result<Imported> {
  const lone = kind.columns.length === 0;
  const heading = text.split(/\r?\n/).find((l) => /[a-z]/i.test(l) && !l.trim().startsWith('#')) ?? '';
  const byHeading = kind.rigFromHeading?.(heading) ?? {};
  const columns = columnsOf(kind, byHeading);
  const fromColumns: WantedColumn[] = columns.map((c) => ({
    id: c.id,
    label: c.label,
    words: c.words,
    ...(c.as === 'quantity'
      ? { quantity: c.quantity, ...(c.optional && { optional: true }) }
      : { options: c.options, optional: true, ...(c.yes && { yes: c.yes }) }),
  }));
  const fromChannels: WantedColumn[] = (kind.channels ?? []).map((c) => ({
    id: c.id,
    label: c.label,
    quantity: c.quantity,
    words: c.words,
    ...(c.optional && { optional: true }),
  }));
  // A time column nobody needs is still good for gaps.
  if (kind.channels && !fromChannels.some((c) => c.id === 'time'))
    fromChannels.push({ id: 'time', label: 'time', quantity: 'time', words: ['time', 't'], optional: true });
  if (kind.channels && (lone || isLong(text))) {
    const long = readLong(text, fromChannels, undefined, comma);
    if (lone && !long.ok) return long;
    if (long.ok && long.value.rows > (lone ? 0 : MOST_READINGS))
      return ok({
        ...nothing,
        rig: { ...rigSaid(kind, long.value.head), ...byHeading },
        recording: asRecording(fromChannels, long.value),
        notes: long.value.notes,
      });
    if (lone) return readTable(text, fromChannels, comma) as Refused;
  }
  const table = readTable(text, fromColumns, comma);
  if (!table.ok) return table;
  const rig = { ...rigSaid(kind, table.value.head), ...byHeading };
  if (table.value.rows > 5000)
    return refuse(
      `There are ${table.value.rows} rows.`,
      'This test is made of single readings, a few hundred at most.',
      'Thin the table out, or choose a test that records.',
    );
  const readings = Array.from({ length: table.value.rows }, (_, i) => ({
    id: newId(i),
    text: table.value.texts[i] ?? '',
    ...(table.value.struck?.[i] && { struck: table.value.struck[i] }),
    values: Object.fromEntries(
      Object.entries(table.value.columns)
        .map(([k, c]) => [k, c[i]!] as const)
        .filter(([, v]) => typeof v === 'string' || Number.isFinite(v)),
    ),
  }));
  return ok({ ...nothing, rig, readings, notes: table.value.notes });
}

/**
 * Reads a file for a kind of test: WAV by its first bytes, JSON by its first brace, anything else as a table. What a
 * rig cannot be is left out, and said.
 */
export function importFile(
  kind: TestKind,
  bytes: Uint8Array,
  newId?: (i: number) => string,
  comma: Comma = 'ask',
): Result<Imported> {
  const read = fileOf(kind, bytes, newId, comma);
  if (!read.ok) return read;
  const { rig, notes } = soundRig(kind, read.value.rig);
  return ok({ ...read.value, rig, notes: [...read.value.notes, ...notes] });
}

function fileOf(
  kind: TestKind,
  bytes: Uint8Array,
  newId: ((i: number) => string) | undefined,
  comma: Comma,
): Result<Imported> {
  if (bytes.length === 0) return refuse('The file is empty.', 'It has no bytes.', 'Choose another one.');
  if (bytes[0] === 0x52 && bytes[1] === 0x49 && bytes[2] === 0x46 && bytes[3] === 0x46) {
    if (!kind.channels?.some((c) => c.id === 'sound'))
      return refuse(
        'This test is not made from sound.',
        `${kind.name} wants ${(kind.channels ?? kind.columns).map((c) => c.label).join(', ')}.`,
        'Import a table, or choose Pluck a belt or Noise.',
      );
    const wav = readWav(bytes);
    return wav.ok ? ok({ ...nothing, recording: wav.value, notes: wav.value.notes }) : wav;
  }
  const zeros = bytes.subarray(0, 2000).filter((b) => b === 0).length;
  if (zeros > 0 && !(bytes[0] === 0xff && bytes[1] === 0xfe))
    return refuse(
      'This file is not text.',
      'It has bytes that no table has.',
      'Export the readings as CSV, or the sound as WAV.',
    );
  const { text, notes } = textOf(bytes);
  const read = /^\s*[{[]/.test(text) ? readJson(kind, text, newId) : importTable(kind, text, newId, comma);
  return read.ok ? ok({ ...read.value, notes: [...notes, ...read.value.notes] }) : read;
}

/** Text of a file: UTF-16 by its mark, UTF-8 where it is that, else Windows-1252, as instruments and old sheets write. */
function textOf(bytes: Uint8Array): { text: string; notes: string[] } {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes), notes: [] };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), notes: [] };
  } catch {
    return {
      text: new TextDecoder('windows-1252').decode(bytes),
      notes: ['The file is not UTF-8: its signs were read as Windows-1252.'],
    };
  }
}
