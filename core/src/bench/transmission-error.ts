import { cleanCurve, type CleanCurve } from './error-curve.ts';
import { seeded } from '../math/random.ts';
import { hangingTogether, stepOf } from './hanging.ts';
import { noiseFloor } from './noise-floor.ts';
import { slopeAmongWaves, type Stretch } from './slope-among-waves.ts';
import { amplitudes, powerBelow } from './spectrum.ts';

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
  /** How far the curve is tilted from one end of its whole turns to the other by what the slope is uncertain, rad. */
  readonly tilt: number;
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
  /** The error with its noise taken out, and its sizes; undefined for less than a whole turn, which tells no size. */
  readonly clean: CleanCurve | undefined;
  readonly peakToPeak: number;
  /** Share of the samples that stood still or were crossing the play, and were left out. */
  readonly leftOut: number;
  /** Step of the output sensor where it is so coarse that its steps beat with the samples, rad; 0 where they do not. */
  readonly step: number;
  /** Samples that jump off their neighbours, and were left out. */
  readonly glitches: number;
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

/** How far a sample stands off the middle of its neighbours, rad. */
const offNeighbours = (a: Float64Array, i: number): number => {
  const d = a[i]! - (a[i - 1]! + a[i + 1]!) / 2;
  return d < 0 ? -d : d;
};

/** Distance off their neighbours from which samples are no noise: four times what two in a hundred exceed. */
function jumpFrom(output: Float64Array): number {
  const every = Math.max(1, Math.floor(output.length / 20_000));
  const some: number[] = [];
  let least = Infinity;
  for (let i = 1; i + 1 < output.length; i += every) {
    const d = offNeighbours(output, i);
    some.push(d);
    if (d > 1e-12 && d < least) least = d;
  }
  some.sort((x, y) => x - y);
  const usual = Math.max(some[Math.floor(0.98 * some.length)] ?? 0, Number.isFinite(least) ? least : 0);
  return usual > 0 ? 4 * usual : Infinity;
}

/** Takes the mark from samples that jump off both their neighbours; how many there were. */
function leaveJumps({ output, use }: Samples, jump: number, from: number, to: number): number {
  let found = 0;
  const last = output.length - 1;
  for (let i = from < 1 ? 1 : from; i < to && i < last; i++) {
    if (use[i] === 0) continue;
    if (offNeighbours(output, i) > jump) {
      use[i] = 0;
      found++;
    }
  }
  return found;
}

/** Stretches of the input over which means are taken for the slope, a way. */
const STRETCHES = 240;

/** Sums of input and output along the input: one way in the first half, the other in the second. */
class Sums {
  readonly input = new Float64Array(2 * STRETCHES);
  readonly output = new Float64Array(2 * STRETCHES);
  readonly count = new Int32Array(2 * STRETCHES);

  take({ input, output, way, use }: Samples, low: number, per: number, from: number, to: number): void {
    for (let i = from; i < to; i++) {
      if (use[i] === 0) continue;
      const at = ((input[i]! - low) * per) | 0;
      const k = (at < STRETCHES ? at : STRETCHES - 1) + (way[i] === 1 ? 0 : STRETCHES);
      this.input[k] = this.input[k]! + input[i]!;
      this.output[k] = this.output[k]! + output[i]!;
      this.count[k] = this.count[k]! + 1;
    }
  }

  means(): Stretch[] {
    return Array.from(this.count, (count, k) => ({
      input: this.input[k]! / count,
      output: this.output[k]! / count,
      way: k < STRETCHES ? 1 : -1,
      count,
    })).filter((s) => s.count > 0);
  }
}

/** Sums of the error in even cells of the output's angle: one way in the first half, the other in the second. */
class Cells {
  readonly sum: Float64Array;
  readonly count: Int32Array;
  constructor(readonly size: number) {
    this.sum = new Float64Array(2 * size);
    this.count = new Int32Array(2 * size);
  }
}

/** The line the errors are read from, and how the angle that the output should have falls into cells. */
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
    // By where the output should be: its own angle comes in the steps of its sensor.
    const ideal = meanOut + slope * (input[i]! - meanIn);
    const place = (ideal - start) * cellsPerRadian;
    if (!(place >= 0 && place < size)) continue;
    const cell = (place | 0) + (way[i] === 1 ? 0 : size);
    if (cell !== now) {
      sum[now] = sum[now]! + errors;
      count[now] = count[now]! + many;
      now = cell;
      errors = 0;
      many = 0;
    }
    errors += output[i]! - ideal;
    many++;
  }
  sum[now] = sum[now]! + errors;
  count[now] = count[now]! + many;
}

/**
 * Mean difference of both ways at the same angle, where a sensor's own error falls out, and its standard uncertainty.
 * Over whole turns what goes round falls out of the mean as well, and noise alone is left; over a part of one the
 * difference may go on changing.
 */
function playBetween(there: Float64Array, back: Float64Array, whole: boolean): { play: number; uPlay: number } {
  const n = there.length;
  const d = there.map((v, i) => v - back[i]!);
  const mean = d.reduce((s, v) => s + v, 0) / n;
  if (whole) return { play: Math.abs(mean), uPlay: noiseFloor(amplitudes(d))[1]! / Math.SQRT2 };
  const every = Math.max(1, Math.floor(n / 2000));
  const some = Float64Array.from({ length: Math.floor(n / every) }, (_, i) => d[i * every]! - mean);
  const square = some.reduce((s, v) => s + v * v, 0) / some.length;
  return { play: Math.abs(mean), uPlay: Math.sqrt((square * hangingTogether(some, 1)) / some.length) };
}

const shifted = (a: Float64Array, by: number): Float64Array => a.map((v) => v - by);

/** Cells at most: an error is told up to half as many orders over all turns. */
const CELLS = 16_384;

/**
 * Error of an output against its input over angle: a slope common to both ways, play between them, and the error on
 * even angles of the output.
 *
 * @param input rad, as it runs on
 * @param output rad, as it runs on
 * @param told hears the share done, 0 to 1, now and then
 * @returns undefined where nothing moves
 * Source: slope with one intercept a way among waves that go round with the output (`slopeAmongWaves`); stretches in
 * which the output does not follow, the play being crossed, are left out by their local slope, and samples that jump
 * off both their neighbours.
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
  const jump = jumpFrom(output);
  let glitches = 0;
  const ends = new Range();
  inBlocks(n, (from, to) => {
    glitches += leaveJumps(s, jump, from, to);
    ends.takeMarked(input, s.use, from, to);
  });
  const sums = new Sums();
  const per = STRETCHES / (ends.high - ends.low);
  inBlocks(n, (from, to) => sums.take(s, ends.low, per, from, to));
  const stretches = sums.means();
  const fit = slopeAmongWaves(stretches, guess);
  if (!fit) return undefined;
  const both = stretches.some((q) => q.way > 0) && stretches.some((q) => q.way < 0);
  const slope = fit.value;
  const turns = (Math.abs(slope) * (ends.high - ends.low)) / (2 * Math.PI);
  const wholeTurns = Math.floor(turns + 1e-6);
  const reach = (wholeTurns >= 1 ? wholeTurns : turns) * 2 * Math.PI;
  const cells = Math.max(64, Math.min(CELLS, powerBelow((used - glitches) / (both ? 8 : 4))));
  const sorted = new Cells(cells);
  const meanIn = stretches.reduce((sum, q) => sum + q.input, 0) / stretches.length;
  const meanOut = stretches.reduce((sum, q) => sum + q.output, 0) / stretches.length;
  const start = meanOut + Math.min(slope * (ends.low - meanIn), slope * (ends.high - meanIn));
  const line: Line = { slope, meanIn, meanOut, start, cellsPerRadian: cells / reach };
  inBlocks(n, (from, to) => intoCells(s, line, sorted, from, to), told, [0.8, 1]);
  const half = (from: number) =>
    filled(sorted.sum.subarray(from, from + cells), sorted.count.subarray(from, from + cells));
  const [a, b] = [half(0), half(cells)];
  const raw = (a ?? b)!;
  const middle = raw.reduce((sum, v) => sum + v, 0) / cells;
  const error = shifted(raw, middle);
  const step = stepOf(thinnedTo(output, 4000));
  const coarse = wholeTurns >= 1 && step > 0 && used / turns < COARSE * ((2 * Math.PI) / step);
  const clean =
    wholeTurns >= 1
      ? cleanCurve(
          error,
          coarse ? recordedAgain(s, line, sorted, step, a ? 1 : -1) : undefined,
          Math.max(5, Math.min(16, Math.round(AGAIN / used))),
        )
      : undefined;
  return {
    slope,
    uSlope: fit.u,
    tilt: (fit.u / Math.abs(slope)) * reach,
    ...(a && b ? playBetween(a, b, wholeTurns >= 1) : { play: NaN, uPlay: NaN }),
    turns,
    angles: Float64Array.from({ length: cells }, (_, i) => start + (reach * (i + 0.5)) / cells),
    error,
    back: a && b ? shifted(b, middle) : undefined,
    wholeTurns,
    clean,
    peakToPeak: clean?.peakToPeak.value ?? spanOf(error),
    leftOut: 1 - used / n,
    step: coarse ? step : 0,
    glitches,
  };
}

/** Samples a step of the sensor below which its steps beat with them. */
const COARSE = 4;

/** Samples that are made again in all. */
const AGAIN = 6e5;

const thinnedTo = (a: Float64Array, most: number): Float64Array => {
  const every = Math.max(1, Math.floor(a.length / most));
  return Float64Array.from({ length: Math.floor(a.length / every) }, (_, i) => a[i * every]!);
};

/**
 * A clean curve as the same samples would have told it once more: noise put on, rounded to the sensor's steps from a
 * zero at chance, and sorted into the same cells.
 *
 * @param step of the output sensor, rad
 * @param turning the way whose curve it is
 */
function recordedAgain(s: Samples, line: Line, cells: Cells, step: number, turning: 1 | -1) {
  const next = seeded(29);
  const { size } = cells;
  const counts = cells.count.subarray(turning === 1 ? 0 : size, turning === 1 ? size : 2 * size);
  const each = counts.reduce((sum, c) => sum + c, 0) / size;
  const inStep = stepOf(thinnedTo(s.input, 4000));
  const smooth = inStep > 0 ? evened(s.input, s.w) : s.input;
  return (curve: Float64Array, noise: number): Float64Array => {
    // What scatters beside the steps themselves.
    const own = Math.sqrt(Math.max(0, noise * noise * each - (step * step) / 12));
    const zero = step * next();
    const inZero = inStep * next();
    const sum = new Float64Array(size);
    const count = new Int32Array(size);
    for (let i = 0; i < s.input.length; i++) {
      if (s.use[i] === 0 || s.way[i] !== turning) continue;
      const read = inStep > 0 ? Math.round((smooth[i]! + inZero) / inStep) * inStep - inZero : smooth[i]!;
      const at = line.meanOut + line.slope * (read - line.meanIn);
      const place = (at - line.start) * line.cellsPerRadian;
      if (!(place >= 0 && place < size)) continue;
      const cell = place | 0;
      const ideal = line.meanOut + line.slope * (smooth[i]! - line.meanIn);
      const gauss = Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
      const told = Math.round((ideal + curve[cell]! + own * gauss + zero) / step) * step - zero;
      sum[cell] = sum[cell]! + told - at;
      count[cell] = count[cell]! + 1;
    }
    const all = filled(sum, count)!;
    const mean = all.reduce((x, v) => x + v, 0) / size;
    return shifted(all, mean);
  };
}

/** Means over `w` samples to either side: an even movement without the steps in which it was told. */
function evened(a: Float64Array, w: number): Float64Array {
  const n = a.length;
  const sums = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) sums[i + 1] = sums[i]! + a[i]!;
  return a.map((v, i) => (i < w || i + w >= n ? v : (sums[i + w + 1]! - sums[i - w]!) / (2 * w + 1)));
}

const spanOf = (a: Float64Array): number => {
  const { low, high } = rangeOf(a);
  return high - low;
};

/** The simplest fraction p/q within `tolerance` of a value. Source: Stern and Brocot. */
export function nearestFraction(value: number, tolerance: number, largest = 400): { p: number; q: number } | undefined {
  const x = Math.abs(value);
  for (let q = 1; q <= largest; q++) {
    const p = Math.round(x * q);
    if (p > 0 && Math.abs(p / q - x) <= tolerance) return { p: p * Math.sign(value), q };
  }
  return undefined;
}
