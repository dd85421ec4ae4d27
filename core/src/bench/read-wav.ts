import { ok, refuse, type Result } from '../result.ts';
import type { Recording } from './recording.ts';

/** Samples at full scale in a row that count as clipped. */
const CLIPPED = 3;

/**
 * Reads a WAV file: PCM of 8, 16, 24 or 32 bits and 32-bit float; several channels become their mean.
 *
 * Source: RIFF/WAVE, format tags 1 (PCM), 3 (IEEE float) and 0xFFFE (extensible).
 */
export function readWav(bytes: Uint8Array): Result<Recording> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const word = (at: number) => (at + 4 <= bytes.length ? String.fromCharCode(...bytes.subarray(at, at + 4)) : '');
  const wrong = (why: string) =>
    refuse('This is not a WAV file that can be read.', why, 'Export the recording as WAV, 16 bit, and import that.');
  if (word(0) !== 'RIFF' || word(8) !== 'WAVE') return wrong('It does not begin as one.');
  let format: { tag: number; channels: number; rate: number; bits: number } | undefined;
  for (let at = 12; at + 8 <= bytes.length;) {
    const [id, size] = [word(at), view.getUint32(at + 4, true)];
    const body = at + 8;
    if (id === 'fmt ' && body + 16 <= bytes.length) {
      const tag = view.getUint16(body, true);
      format = {
        tag: tag === 0xfffe && body + 26 <= bytes.length ? view.getUint16(body + 24, true) : tag,
        channels: view.getUint16(body + 2, true),
        rate: view.getUint32(body + 4, true),
        bits: view.getUint16(body + 14, true),
      };
    }
    if (id === 'data') {
      if (!format) return wrong('Its samples come before what they are.');
      const { tag, channels, rate, bits } = format;
      const width = bits / 8;
      if (
        !(channels > 0) ||
        !(rate > 0) ||
        !((tag === 1 && [8, 16, 24, 32].includes(bits)) || (tag === 3 && bits === 32))
      )
        return wrong(`Its samples are of a kind (${tag}, ${bits} bit) that is not known here.`);
      // A recorder that was cut off leaves the size too large or nought: what is there counts.
      const whole = Math.min(size === 0 || size === 0xffffffff ? Infinity : size, bytes.length - body);
      const frames = Math.floor(whole / (width * channels));
      if (frames === 0) return wrong('It has no samples.');
      const one = (p: number): number => {
        if (tag === 3) return view.getFloat32(p, true);
        if (bits === 8) return (view.getUint8(p) - 128) / 128;
        if (bits === 16) return view.getInt16(p, true) / 32768;
        if (bits === 24)
          return ((view.getUint8(p) | (view.getUint8(p + 1) << 8) | (view.getInt8(p + 2) << 16)) as number) / 8388608;
        return view.getInt32(p, true) / 2147483648;
      };
      const data = new Float64Array(frames);
      let [run, clipped, odd] = [0, 0, 0];
      for (let i = 0; i < frames; i++) {
        let s = 0;
        let full = false;
        for (let c = 0; c < channels; c++) {
          const v = one(body + (i * channels + c) * width);
          full ||= Math.abs(v) >= 0.9998;
          s += v / channels;
        }
        // Samples are shares of full scale; a damaged float file holds anything.
        if (!(Math.abs(s) <= 1e6)) odd++;
        else data[i] = s;
        run = full ? run + 1 : 0;
        if (run === CLIPPED) clipped++;
      }
      if (odd === frames) return wrong('None of its samples is a number.');
      const notes = [
        ...(odd
          ? [
              `${odd} sample${odd === 1 ? ' was' : 's were'} no number and ${odd === 1 ? 'counts' : 'count'} as silence.`,
            ]
          : []),
        ...(clipped
          ? [
              `The recording is clipped in ${clipped} places: record again with less gain, or the spectrum has lines that nothing made.`,
            ]
          : []),
        ...(size !== whole && size !== 0 && size !== 0xffffffff
          ? ['The file is cut short; what is there was read.']
          : []),
      ];
      return ok({
        channels: [{ id: 'sound', name: 'sound', quantity: 'count' }],
        data: [data],
        rate,
        malformed: 0,
        gaps: 0,
        notes,
      });
    }
    at = body + size + (size % 2);
  }
  return wrong('It has no samples.');
}

/** A mono 16-bit WAV file of samples between −1 and 1. */
export function writeWav(sound: ArrayLike<number>, rate: number): Uint8Array {
  const bytes = new Uint8Array(44 + 2 * sound.length);
  const view = new DataView(bytes.buffer);
  const put = (at: number, text: string) => [...text].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  put(0, 'RIFF');
  view.setUint32(4, 36 + 2 * sound.length, true);
  put(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, 2 * rate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  put(36, 'data');
  view.setUint32(40, 2 * sound.length, true);
  for (let i = 0; i < sound.length; i++)
    view.setInt16(44 + 2 * i, Math.max(-32768, Math.min(32767, Math.round(sound[i]! * 32768))), true);
  return bytes;
}
