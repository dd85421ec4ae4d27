import { fitColumns } from './regress.ts';
import { powerBelow } from './spectrum.ts';

/** Whether an angle jumps by more than half its range. */
function jumps(a: Float64Array, half: number, from: number, to: number): boolean {
  for (let i = Math.max(1, from); i < to; i++) {
    const d = a[i]! - a[i - 1]!;
    if (d > half || d < -half) return true;
  }
  return false;
}

/**
 * Angles as they run on, wraps of an encoder undone: a jump of more than half its range is a wrap. Where there is none,
 * the angles are what was given.
 *
 * @param range range of the encoder, rad
 * @example unwrapped(Float64Array.of(3, -3)).angles[1].toFixed(6) // '3.283185'
 */
export function unwrapped(a: Float64Array, range = 2 * Math.PI): { angles: Float64Array; wraps: number } {
  const half = range / 2;
  let wrapped = false;
  inBlocks(a.length, (from, to) => (wrapped ||= jumps(a, half, from, to)));
  if (!wrapped) return { angles: a, wraps: 0 };
  const out = new Float64Array(a.length);
  let add = 0;
  let wraps = 0;
  out[0] = a[0]!;
  for (let i = 1; i < a.length; i++) {
    const d = a[i]! - a[i - 1]!;
    if (d > half || d < -half) {
      add += d > 0 ? -range : range;
      wraps++;
    }
    out[i] = a[i]! + add;
  }
  return { angles: out, wraps };
}

export interface TransmissionRun {
  /** ω_out/ω_in with its sign, and its standard uncertainty. */
  readonly slope: number;
  readonly uSlope: number;
  /** Mean difference between both ways, rad, with its standard uncertainty; NaN where only one way was recorded. */
  readonly play: number;
  readonly uPlay: number;
  /** Turns of the output that were recorded. */
  readonly turns: number;
  /**
   * Even angles of the output over whole turns (all there is where it is less than one), and the error each way, rad.
   */
  readonly angles: Float64Array;
  readonly error: Float64Array;
  readonly back: Float64Array | undefined;
  readonly wholeTurns: number;
  readonly worst: number;
  readonly peakToPeak: number;
  readonly rms: number;
  /** Share of the samples that stood still or were crossing the play, and were left out. */
  readonly leftOut: number;
}

/** Means of cells, empty ones filled between their neighbours; undefined where all are empty. */
function filled(sum: Float64Array, count: Int32Array): Float64Array | undefined {
  const n = sum.length;
  const out = new Float64Array(n);
  let last = -1;
  for (let i = 0; i < n; i++) {
    if (count[i] === 0) continue;
    out[i] = sum[i]! / count[i]!;
    for (let k = last + 1; k < i; k++)
      out[k] = last < 0 ? out[i]! : out[last]! + ((out[i]! - out[last]!) * (k - last)) / (i - last);
    last = i;
  }
  if (last < 0) return undefined;
  for (let k = last + 1; k < n; k++) out[k] = out[last]!;
  return out;
}

/**
 * Samples that are worked through at one call. An engine compiles a loop well only once it has been left a few times:
 * one call over a million samples runs half of them slowly.
 */
const BLOCK = 1 << 14;

type Told = (share: number) => void;

/** Works through 0…n in blocks, and tells now and then how far it is between two shares of the whole. */
function inBlocks(
  n: number,
  work: (from: number, to: number) => void,
  told?: Told,
  [first, last]: readonly [number, number] = [0, 1],
): void {
  let next = 0;
  for (let from = 0; from < n; from += BLOCK) {
    if (told && from >= next) {
      told(first + ((last - first) * from) / n);
      next = from + n / 16;
    }
    work(from, Math.min(n, from + BLOCK));
  }
}

/** Least and largest of what it has been given. */
class Range {
  low = Infinity;
  high = -Infinity;

  take(a: Float64Array, from = 0, to = a.length): void {
    let { low, high } = this;
    for (let i = from; i < to; i++) {
      const v = a[i]!;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    this.low = low;
    this.high = high;
  }

  /** Takes those alone that are marked. */
  takeMarked(a: Float64Array, marks: Uint8Array, from: number, to: number): void {
    let { low, high } = this;
    for (let i = from; i < to; i++) {
      if (marks[i] === 0) continue;
      const v = a[i]!;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    this.low = low;
    this.high = high;
  }
}

const rangeOf = (a: Float64Array): Range => {
  const range = new Range();
  inBlocks(a.length, (from, to) => range.take(a, from, to));
  return range;
};

/** What is known of each sample while a run is worked out; one array a property, so that loops stay in one line. */
interface Samples {
  readonly input: Float64Array;
  readonly output: Float64Array;
  /** Samples to either side over which a local slope is taken. */
  readonly w: number;
  /** Which way the input turns: 1, −1, or 0 where it hardly moves. */
  readonly way: Int8Array;
  /** Output over input across 2·w samples; NaN where the input hardly moves. */
  readonly local: Float64Array;
  /** 1 where a sample counts. */
  readonly use: Uint8Array;
}

/**
 * Ways and local slopes of the samples from `from` to `to`.
 *
 * @param pace how far the input must move across 2·w samples, rad
 */
function slopesOf({ input, output, w, way, local }: Samples, pace: number, from: number, to: number): void {
  const last = input.length - 1;
  for (let i = from; i < to; i++) {
    const a = i < w ? 0 : i - w;
    const b = i + w > last ? last : i + w;
    const d = input[b]! - input[a]!;
    if (d > pace || d < -pace) {
      way[i] = d > 0 ? 1 : -1;
      local[i] = (output[b]! - output[a]!) / d;
    } else {
      way[i] = 0;
      local[i] = NaN;
    }
  }
}

/** The middle of the local slopes, of a few thousand of them; undefined where hardly any is known. */
function middleSlope({ local, way }: Samples): number | undefined {
  const n = local.length;
  const some: number[] = [];
  for (let i = 0; i < n; i += Math.max(1, Math.floor(n / 4000))) if (way[i] !== 0) some.push(local[i]!);
  if (some.length < 4) return undefined;
  some.sort((x, y) => x - y);
  return some[some.length >> 1]!;
}

/**
 * Marks the samples that count: not the turning points, nor the stretch after them in which the output hardly follows.
 *
 * @returns how many from `from` to `to` do
 */
function markUsed({ w, way, local, use }: Samples, guess: number, from: number, to: number): number {
  const last = way.length - 1;
  const per = 1 / guess;
  let used = 0;
  for (let i = from; i < to; i++) {
    const a = i < w ? 0 : i - w;
    const b = i + w > last ? last : i + w;
    const turning = way[i]!;
    if (turning === 0 || way[a] !== turning || way[b] !== turning) continue;
    const q = local[i]! * per;
    if (q > 0.6 && q < 1.6 && local[a]! * per > 0.6 && local[b]! * per > 0.6) {
      use[i] = 1;
      used++;
    }
  }
  return used;
}

/** Every so many-th of the samples that count. */
class Picked {
  readonly at: Int32Array;
  private count = 0;
  private seen = 0;

  constructor(
    used: number,
    private readonly every: number,
  ) {
    this.at = new Int32Array(Math.ceil(used / every));
  }

  take(use: Uint8Array, from: number, to: number): void {
    const { at, every } = this;
    let { count, seen } = this;
    for (let i = from; i < to; i++) {
      if (use[i] === 0) continue;
      if (seen === 0) at[count++] = i;
      seen = seen + 1 === every ? 0 : seen + 1;
    }
    this.count = count;
    this.seen = seen;
  }
}

const at = (a: ArrayLike<number>, pick: Int32Array, less = 0): Float64Array => {
  const out = new Float64Array(pick.length);
  for (let k = 0; k < pick.length; k++) out[k] = a[pick[k]!]! - less;
  return out;
};

const meanAt = (a: Float64Array, pick: Int32Array): number => {
  let sum = 0;
  for (let k = 0; k < pick.length; k++) sum += a[pick[k]!]!;
  return sum / pick.length;
};

/** Sums of the error in even cells of the output's angle: one way in the first half, the other in the second. */
class Cells {
  readonly sum: Float64Array;
  readonly count: Int32Array;
  constructor(readonly size: number) {
    this.sum = new Float64Array(2 * size);
    this.count = new Int32Array(2 * size);
  }
}

/** The line the errors are read from, and how the output's angle falls into cells. */
interface Line {
  readonly slope: number;
  readonly meanIn: number;
  readonly meanOut: number;
  readonly start: number;
  readonly cellsPerRadian: number;
}

/**
 * Puts the errors of the samples from `from` to `to` into their cells. Neighbours mostly share one: their sum is put
 * down when the cell changes.
 */
function intoCells({ input, output, way, use }: Samples, line: Line, cells: Cells, from: number, to: number): void {
  const { sum, count, size } = cells;
  const { slope, meanIn, meanOut, start, cellsPerRadian } = line;
  let now = 0;
  let errors = 0;
  let many = 0;
  for (let i = from; i < to; i++) {
    if (use[i] === 0) continue;
    const out = output[i]!;
    const place = (out - start) * cellsPerRadian;
    if (!(place >= 0 && place < size)) continue;
    const cell = (place | 0) + (way[i] === 1 ? 0 : size);
    if (cell !== now) {
      sum[now] = sum[now]! + errors;
      count[now] = count[now]! + many;
      now = cell;
      errors = 0;
      many = 0;
    }
    errors += out - meanOut - slope * (input[i]! - meanIn);
    many++;
  }
  sum[now] = sum[now]! + errors;
  count[now] = count[now]! + many;
}

/** Mean difference of both ways over the cells that both have, and its standard uncertainty. */
function playBetween({ sum: sums, count, size }: Cells, turns: number): { play: number; uPlay: number } {
  let [sum, square, m] = [0, 0, 0];
  for (let i = 0; i < size; i++) {
    if (count[i] === 0 || count[size + i] === 0) continue;
    const d = sums[i]! / count[i]! - sums[size + i]! / count[size + i]!;
    sum += d;
    square += d * d;
    m++;
  }
  if (m < 2) return { play: NaN, uPlay: NaN };
  const mean = sum / m;
  // Errors over angle hang together: as many independent ones as there are turns of the slowest.
  const independent = Math.min(m, Math.max(8, 24 * turns));
  return { play: Math.abs(mean), uPlay: Math.sqrt(Math.max(0, square / m - mean * mean) / independent) };
}

const shifted = (a: Float64Array, by: number): Float64Array => a.map((v) => v - by);

/** Worst, RMS and both ends of a curve about its mean. */
function spreadOf(error: Float64Array): { worst: number; rms: number; peakToPeak: number } {
  const { low, high } = rangeOf(error);
  const square = error.reduce((sum, e) => sum + e * e, 0);
  return { worst: Math.max(high, -low), rms: Math.sqrt(square / error.length), peakToPeak: high - low };
}

/** Slope of output on input with its standard uncertainty: one intercept a way, and the first harmonic of the output. */
function commonSlope(
  { input, output, way }: Samples,
  pick: Int32Array,
  turns: number,
): { slope: number; uSlope: number; meanIn: number; meanOut: number; both: boolean } | undefined {
  const ways = at(way, pick);
  const both = ways.includes(1) && ways.includes(-1);
  const [meanIn, meanOut] = [meanAt(input, pick), meanAt(output, pick)];
  const angle = at(output, pick);
  const columns = [at(input, pick, meanIn), new Float64Array(pick.length).fill(1)];
  if (both) columns.push(ways);
  if (turns > 0.7) columns.push(angle.map(Math.cos), angle.map(Math.sin));
  const fit = fitColumns(columns, shifted(angle, meanOut));
  if (!fit) return undefined;
  // Errors over angle hang together: as many independent ones as there are turns of the slowest, not as samples.
  const share = Math.max(1, pick.length / Math.max(24, 24 * turns));
  return { slope: fit.values[0]!, uSlope: Math.sqrt(fit.covariance[0]![0]! * share), meanIn, meanOut, both };
}

/** Samples whose slope is fitted: more than these add nothing to it. */
const FITTED = 20_000;

/**
 * Error of an output against its input over angle: a slope common to both ways, play between them, and the error on
 * even angles of the output.
 *
 * @param input rad, as it runs on
 * @param output rad, as it runs on
 * @param told hears the share done, 0 to 1, now and then
 * @returns undefined where nothing moves
 * Source: least squares of output on input with one intercept a way (and the first harmonic of the output, so that a
 * part of a turn does not tilt the slope); stretches in which the output does not follow, the play being
 * crossed, are left out by their local slope.
 */
export function transmissionRun(input: Float64Array, output: Float64Array, told?: Told): TransmissionRun | undefined {
  const n = input.length;
  const { low, high } = rangeOf(input);
  if (!(high - low > 1e-9)) return undefined;
  const w = Math.max(2, Math.floor(n / 500));
  const s: Samples = {
    input,
    output,
    w,
    way: new Int8Array(n),
    local: new Float64Array(n),
    use: new Uint8Array(n),
  };
  const pace = ((high - low) / n) * w * 0.1;
  inBlocks(n, (from, to) => slopesOf(s, pace, from, to), told, [0, 0.5]);
  const guess = middleSlope(s);
  if (guess === undefined || !(Math.abs(guess) > 1e-12)) return undefined;
  let used = 0;
  inBlocks(n, (from, to) => (used += markUsed(s, guess, from, to)), told, [0.5, 0.8]);
  if (used < 8) return undefined;
  const ends = new Range();
  const pick = new Picked(used, Math.max(1, Math.floor(used / FITTED)));
  inBlocks(n, (from, to) => {
    ends.takeMarked(output, s.use, from, to);
    pick.take(s.use, from, to);
  });
  const turns = (ends.high - ends.low) / (2 * Math.PI);
  const fit = commonSlope(s, pick.at, turns);
  if (!fit) return undefined;
  const wholeTurns = Math.floor(turns + 1e-6);
  const reach = (wholeTurns >= 1 ? wholeTurns : turns) * 2 * Math.PI;
  const cells = Math.max(64, Math.min(65536, powerBelow(used / (fit.both ? 16 : 8))));
  const sorted = new Cells(cells);
  const line: Line = { ...fit, start: ends.low, cellsPerRadian: cells / reach };
  inBlocks(n, (from, to) => intoCells(s, line, sorted, from, to), told, [0.8, 1]);
  const half = (from: number) =>
    filled(sorted.sum.subarray(from, from + cells), sorted.count.subarray(from, from + cells));
  const [a, b] = [half(0), half(cells)];
  const raw = (a ?? b)!;
  const middle = raw.reduce((sum, v) => sum + v, 0) / cells;
  const error = shifted(raw, middle);
  return {
    slope: fit.slope,
    uSlope: fit.uSlope,
    ...(a && b ? playBetween(sorted, turns) : { play: NaN, uPlay: NaN }),
    turns,
    angles: Float64Array.from({ length: cells }, (_, i) => ends.low + (reach * (i + 0.5)) / cells),
    error,
    back: a && b ? shifted(b, middle) : undefined,
    wholeTurns,
    ...spreadOf(error),
    leftOut: 1 - used / n,
  };
}

/** The simplest fraction p/q within `tolerance` of a value. Source: Stern and Brocot. */
export function nearestFraction(value: number, tolerance: number, largest = 400): { p: number; q: number } | undefined {
  const x = Math.abs(value);
  for (let q = 1; q <= largest; q++) {
    const p = Math.round(x * q);
    if (p > 0 && Math.abs(p / q - x) <= tolerance) return { p: p * Math.sign(value), q };
  }
  return undefined;
}
