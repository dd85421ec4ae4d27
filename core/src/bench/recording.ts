import { unzlibSync, zlibSync } from 'fflate';
import { refuse, ok, type Result } from '../result.ts';
import { QUANTITIES, type QuantityId } from '../units/quantity.ts';

export interface Channel {
  readonly id: string;
  readonly name: string;
  readonly quantity: QuantityId;
}

/** The largest sample that is taken, SI: beyond it there is no measurement, and single precision ends. */
export const MOST_SAMPLE = 1e30;

/** Samples of several channels, SI, one array each. */
export interface Recording {
  readonly channels: readonly Channel[];
  readonly data: readonly Float64Array[];
  /** Samples a second where they are even; 0 where a time channel tells. */
  readonly rate: number;
  /** Lines that could not be read. */
  readonly malformed: number;
  /** Gaps in time that were found. */
  readonly gaps: number;
  /** What was noticed while reading, in plain words. */
  readonly notes: readonly string[];
}

export const samplesOf = (r: Recording): number => r.data[0]?.length ?? 0;

export const channelOf = (r: Recording | undefined, id: string): Float64Array | undefined => {
  const i = r?.channels.findIndex((c) => c.id === id) ?? -1;
  return i < 0 ? undefined : r!.data[i];
};

/** A recording as text that a joint file can hold: single precision, by channel, squeezed. */
export function packRecording(r: Recording): {
  channels: ({ id: string; name: string; quantity: QuantityId } & Record<string, unknown>)[];
  rows: number;
  rate: number;
  malformed: number;
  gaps: number;
  notes: string[];
  data: string;
} {
  const rows = samplesOf(r);
  const flat = new Float32Array(rows * r.data.length);
  // Offsets of each channel are kept apart, so that single precision is spent on what changes.
  const offsets = r.data.map((d) => d[0] ?? 0);
  r.data.forEach((d, c) => {
    for (let i = 0; i < rows; i++) flat[c * rows + i] = d[i]! - offsets[c]!;
  });
  const bytes = zlibSync(new Uint8Array(flat.buffer), { level: 6 });
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return {
    channels: r.channels.map((c): { id: string; name: string; quantity: QuantityId } & Record<string, unknown> => ({
      ...c,
    })),
    rows,
    rate: r.rate,
    malformed: r.malformed,
    gaps: r.gaps,
    notes: [...r.notes],
    data: `${offsets.join(',')};${btoa(text)}`,
  };
}

/** What `packRecording` made, back as samples; damaged text is refused. */
export function unpackRecording(p: {
  channels: readonly { id: string; name: string; quantity: string }[];
  rows: number;
  rate: number;
  malformed: number;
  gaps: number;
  notes: readonly string[];
  data?: string | undefined;
}): Result<Recording> {
  const damaged = () =>
    refuse(
      'The recording in this test is damaged.',
      'Its samples cannot be unpacked.',
      'Record it again, or import the file it came from.',
    );
  if (p.data === undefined)
    return refuse(
      'The recording of this test is not here.',
      'It was kept in the browser it was made in.',
      'Import the file it came from, or record it again.',
    );
  try {
    const [head, body] = p.data.split(';');
    const raw = atob(body ?? '');
    const bytes = Uint8Array.from(raw, (c) => c.charCodeAt(0));
    const flat = new Float32Array(unzlibSync(bytes).slice().buffer);
    const offsets = head!.split(',').map(Number);
    if (
      flat.length !== p.rows * p.channels.length ||
      p.rows < 1 ||
      offsets.length !== p.channels.length ||
      !p.channels.every((c) => Object.hasOwn(QUANTITIES, c.quantity))
    )
      return damaged();
    // What was changed under way may still unpack, into no numbers.
    if (!offsets.every((x) => Math.abs(x) <= MOST_SAMPLE) || !flat.every((x) => Math.abs(x) <= 2 * MOST_SAMPLE))
      return damaged();
    const data = p.channels.map((_, c) =>
      Float64Array.from(flat.subarray(c * p.rows, (c + 1) * p.rows), (x) => x + offsets[c]!),
    );
    return ok({
      channels: p.channels as Channel[],
      data,
      rate: p.rate,
      malformed: p.malformed,
      gaps: p.gaps,
      notes: p.notes,
    });
  } catch {
    return damaged();
  }
}

/** A long channel as means of as few neighbours as leave at most so many; a short one as it is. */
export function neighbourMeans(a: Float64Array, most: number): Float64Array {
  const by = Math.ceil(a.length / most);
  return by <= 1
    ? a
    : Float64Array.from(
        { length: Math.floor(a.length / by) },
        (_, i) => a.subarray(i * by, (i + 1) * by).reduce((s, v) => s + v, 0) / by,
      );
}
