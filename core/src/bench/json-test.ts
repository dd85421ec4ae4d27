import * as v from 'valibot';
import { notPlain } from '../schema/plain.ts';
import { recordingSchema } from '../schema/test-schema.ts';
import { ok, refuse, type Result } from '../result.ts';
import { columnsOf, type TestKind } from './contract.ts';
import type { Imported } from './import.ts';
import { keyed, siOf, tidy } from './keyed-value.ts';
import { LineReader } from './protocol.ts';
import { unpackRecording, type Recording } from './recording.ts';
import { rigFrom } from './rig-values.ts';

type Raw = Record<string, unknown>;
const isRecord = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);
/** What was entered, or the values themselves where nothing says. */
const textOf = (said: unknown, values: Readonly<Record<string, number | string>>): string =>
  typeof said === 'string'
    ? said.slice(0, 200)
    : Object.values(values)
        .map((v) => (typeof v === 'number' ? Number(v.toPrecision(6)) : v))
        .join(', ');

/**
 * Reads a test as JSON: a record of this program's, an object with rig values and either a list of readings or arrays
 * by column, ISO 230-2 targets with deviations each way, or the lines of a rig.
 * Bare numbers are SI unless a key ends in its unit (`angle_arcmin`) or the object has a `unit`.
 */
export function readJson(
  kind: TestKind,
  text: string,
  newId: (i: number) => string = (i) => `r${i + 1}`,
): Result<Imported> {
  const lines = text.trim().split(/\r?\n/);
  if (lines.length > 2 && lines[0]!.trim().endsWith('}') && lines[1]!.trim().startsWith('{')) {
    const reader = new LineReader();
    for (const l of lines) reader.line(l);
    const r = reader.recording();
    return r
      ? ok({ readings: [], rig: {}, recording: r, notes: [...r.notes] })
      : refuse('These lines of a rig give no samples.', 'No line was whole.', 'Record again.');
  }
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (e) {
    const at = /position (\d+)/.exec((e as Error).message)?.[1];
    return refuse(
      'This JSON is damaged.',
      at ? `It stops making sense at character ${at}: it may be cut off or altered.` : 'It may be cut off or altered.',
      'Export it again.',
    );
  }
  const odd = notPlain(raw);
  if (odd) return refuse(`This JSON cannot be taken. ${odd.what}`, odd.why, odd.mend, odd.place);
  if (Array.isArray(raw)) raw = { readings: raw };
  if (!isRecord(raw))
    return refuse(
      'This JSON is not a test.',
      'It is neither an object nor a list.',
      'Write an object with rig and readings.',
    );
  const rigRaw = isRecord(raw['rig']) ? raw['rig'] : {};
  const flat: Record<string, number | string> = {};
  for (const [k, x] of [...Object.entries(raw), ...Object.entries(rigRaw)])
    if (typeof x === 'number' || typeof x === 'string') flat[k] = x;
  const rig = rigFrom(kind, flat);
  // What this program wrote stands in SI under the rig's own names.
  for (const f of kind.rig)
    if (typeof rigRaw[f.id] === (f.as === 'choice' ? 'string' : 'number')) rig[f.id] = rigRaw[f.id] as number | string;
  if (typeof rigRaw['instrument'] === 'string') rig['instrument'] = rigRaw['instrument'];
  const unit = typeof raw['unit'] === 'string' ? raw['unit'] : undefined;
  const notes: string[] = [];
  /** @param raws the objects the rows were read from: what was entered and what was struck out stays so */
  const put = (rows: Record<string, number | string>[], raws: readonly Raw[] = []): Result<Imported> => {
    if (rows.length === 0)
      return refuse(
        'There are no readings in this JSON.',
        `Looked for ${kind.columns.map((c) => c.id).join(', ') || 'a recording'}.`,
        'Give a list of readings, or an array for each column.',
      );
    if (kind.channels && rows.length > 400) {
      const has = (r: (typeof rows)[number], id: string) => typeof r[id] === 'number';
      const needed = kind.channels.filter((c) => !c.optional);
      const whole = rows.filter((r) => needed.every((c) => has(r, c.id)));
      const channels = kind.channels.filter((c) => whole.every((r) => has(r, c.id)));
      if (whole.length === 0 || channels.length === 0)
        return refuse(
          'These samples are not whole.',
          `None has ${needed.map((c) => c.label).join(' and ') || 'a channel of this test'}.`,
          'Give every sample all of them.',
        );
      const lost = rows.length - whole.length;
      if (lost) notes.push(`${lost} sample${lost === 1 ? ' was' : 's were'} not whole and left out.`);
      return ok({
        readings: [],
        rig,
        notes,
        recording: {
          channels: channels.map((c) => ({ id: c.id, name: c.label, quantity: c.quantity })),
          data: channels.map((c) => Float64Array.from(whole, (r) => r[c.id] as number)),
          rate: 0,
          malformed: lost,
          gaps: 0,
          notes,
        },
      });
    }
    return ok({
      readings: rows.map((values, i) => ({
        id: newId(i),
        text: textOf(raws[i]?.['text'], values),
        ...(typeof raws[i]?.['struck'] === 'string' && { struck: raws[i]['struck'] }),
        values,
      })),
      rig,
      recording: undefined,
      notes,
    });
  };
  if (isRecord(raw['recording']) && typeof raw['recording']['data'] === 'string') {
    const parsed = v.safeParse(recordingSchema, raw['recording']);
    if (!parsed.success)
      return refuse(
        'The recording in this JSON is damaged.',
        'What says how its samples lie is missing or altered.',
        'Export it again.',
      );
    const r = unpackRecording(parsed.output as never);
    if (!r.ok) return r;
    return ok({ readings: [], rig, recording: r.value, notes: r.value.notes });
  }
  const own = kind.rowsFromJson?.(raw, unit, rig);
  if (own) {
    Object.assign(rig, own.rig);
    return put(own.rows);
  }
  const list = raw['readings'] ?? raw['samples'] ?? raw['data'] ?? raw['rows'];
  const quantities = [
    ...columnsOf(kind, rig),
    ...(kind.channels ?? []).map((c) => ({ as: 'quantity' as const, ...c, example: '' })),
  ].filter((c, i, a) => a.findIndex((x) => x.id === c.id) === i);
  const rowOf = (source: Raw): Record<string, number | string> | undefined => {
    const row: Record<string, number | string> = {};
    for (const c of quantities) {
      if (c.as === 'choice') {
        const hit = Object.entries(source).find(([k]) => tidy(k) === c.id || c.words.includes(tidy(k)));
        const v = hit?.[1];
        const option =
          c.options.find(
            (o) => o.value === String(v).toLowerCase() || o.label.toLowerCase() === String(v).toLowerCase(),
          ) ??
          (c.yes && (v === 1 || v === true)
            ? c.options.find((o) => o.value === c.yes)
            : c.yes && (v === -1 || v === 0 || v === false)
              ? c.options.find((o) => o.value !== c.yes)
              : undefined);
        if (option) row[c.id] = option.value;
        continue;
      }
      const hit = keyed(source, c.words, c.id, c.quantity);
      const v = hit && siOf(hit.value, c.quantity, hit.unit, unit);
      if (v !== undefined) row[c.id] = v;
    }
    return quantities.some((c) => c.as === 'quantity' && typeof row[c.id] === 'number') ? row : undefined;
  };
  if (Array.isArray(list)) {
    const read = list.filter(isRecord).flatMap((r) => {
      const row = rowOf(isRecord(r['values']) ? r['values'] : r);
      return row ? [{ row, raw: r }] : [];
    });
    return put(
      read.map((x) => x.row),
      read.map((x) => x.raw),
    );
  }
  // Arrays by column, beside or below the rig.
  const source = isRecord(list) ? list : raw;
  const arrays = Object.entries(source).filter(([, v]) => Array.isArray(v) && v.every((x) => typeof x !== 'object'));
  const length = Math.max(0, ...arrays.map(([, v]) => (v as unknown[]).length));
  const rate = siOf(
    raw['rate'] ?? raw['sample_rate'] ?? raw['rate_hz'] ?? raw['sample_rate_hz'],
    'frequency',
    undefined,
  );
  const sound = arrays.find(([k]) => ['sound', 'signal', 'samples', 'wav'].includes(tidy(k)));
  if (rate && sound && kind.channels?.some((c) => c.id === 'sound')) {
    const samples = (sound[1] as unknown[]).map(Number);
    if (samples.length === 0 || !samples.every((x) => Math.abs(x) <= 1e6))
      return refuse('The sound in this JSON is damaged.', 'Some of its samples are no numbers.', 'Export it again.');
    const recording: Recording = {
      channels: [{ id: 'sound', name: 'sound', quantity: 'count' }],
      data: [Float64Array.from(samples)],
      rate,
      malformed: 0,
      gaps: 0,
      notes: [],
    };
    return ok({ readings: [], rig, recording, notes });
  }
  if (length > 0)
    return put(
      Array.from({ length }, (_, i) =>
        rowOf(Object.fromEntries(arrays.map(([k, v]) => [k, (v as unknown[])[i]]))),
      ).filter((x) => x !== undefined),
    );
  const lone = rowOf(source);
  return put(lone ? [lone] : []);
}
