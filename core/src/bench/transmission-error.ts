import { fitColumns } from './regress.ts';
import { powerBelow } from './spectrum.ts';

/** Angles as they run on, wraps of an encoder undone: a jump of more than half its range is a wrap. */
export function unwrapped(a: Float64Array, range = 2 * Math.PI): { angles: Float64Array; wraps: number } {
  const out = new Float64Array(a.length);
  let [add, wraps] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    if (i > 0) {
      const d = a[i]! - a[i - 1]!;
      if (d > range / 2) {
        add -= range;
        wraps++;
      } else if (d < -range / 2) {
        add += range;
        wraps++;
      }
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
function filled(sum: Float64Array, count: Uint32Array): Float64Array | undefined {
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
 * Error of an output against its input over angle: a slope common to both ways, play between them, and the error on
 * even angles of the output.
 *
 * @param told hears the share done, 0 to 1, now and then
 * @returns undefined where nothing moves
 * Source: least squares of output on input with one intercept a way (and the first harmonic of the output, so that a
 * part of a turn does not tilt the slope); stretches in which the output does not follow, the play being
 * crossed, are left out by their local slope.
 */
export function transmissionRun(
  input: Float64Array,
  output: Float64Array,
  told: (share: number) => void = () => undefined,
): TransmissionRun | undefined {
  const n = input.length;
  const often = Math.max(1, Math.ceil(n / 16));
  const w = Math.max(2, Math.floor(n / 500));
  let [low, high] = [Infinity, -Infinity];
  for (const v of input) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  if (!(high - low > 1e-9)) return undefined;
  const pace = ((high - low) / n) * w * 0.1;
  const local = new Float64Array(n);
  const way = new Int8Array(n);
  const some: number[] = [];
  for (let i = 0; i < n; i++) {
    if (i % often === 0) told((0.5 * i) / n);
    const [a, b] = [Math.max(0, i - w), Math.min(n - 1, i + w)];
    const d = input[b]! - input[a]!;
    way[i] = d > pace ? 1 : d < -pace ? -1 : 0;
    local[i] = way[i] === 0 ? NaN : (output[b]! - output[a]!) / d;
    if (way[i] !== 0 && i % Math.max(1, Math.floor(n / 4000)) === 0) some.push(local[i]!);
  }
  if (some.length < 4) return undefined;
  some.sort((x, y) => x - y);
  const guess = some[some.length >> 1]!;
  if (!(Math.abs(guess) > 1e-12)) return undefined;
  const use = new Uint8Array(n);
  let used = 0;
  for (let i = 0; i < n; i++) {
    if (i % often === 0) told(0.5 + (0.3 * i) / n);
    // Turning points and the stretch after them, in which the output hardly follows.
    if (way[i] === 0 || way[Math.max(0, i - w)] !== way[i] || way[Math.min(n - 1, i + w)] !== way[i]) continue;
    const q = local[i]! / guess;
    const [q0, q1] = [local[Math.max(0, i - w)]! / guess, local[Math.min(n - 1, i + w)]! / guess];
    if (q > 0.6 && q < 1.6 && q0 > 0.6 && q1 > 0.6) {
      use[i] = 1;
      used++;
    }
  }
  if (used < 8) return undefined;
  // The slope by least squares on at most a few thousand of them: more add nothing to it.
  const every = Math.max(1, Math.floor(used / 20_000));
  const pick: number[] = [];
  for (let i = 0, k = 0; i < n; i++) if (use[i] && k++ % every === 0) pick.push(i);
  const [mi, mo] = [
    pick.reduce((s, i) => s + input[i]!, 0) / pick.length,
    pick.reduce((s, i) => s + output[i]!, 0) / pick.length,
  ];
  const both = pick.some((i) => way[i] === 1) && pick.some((i) => way[i] === -1);
  let [oLow, oHigh] = [Infinity, -Infinity];
  for (let i = 0; i < n; i++) if (use[i]) [oLow, oHigh] = [Math.min(oLow, output[i]!), Math.max(oHigh, output[i]!)];
  const turns = (oHigh - oLow) / (2 * Math.PI);
  const column = (f: (i: number) => number) => Float64Array.from(pick, f);
  const columns = [
    column((i) => input[i]! - mi),
    column(() => 1),
    ...(both ? [column((i) => way[i]!)] : []),
    ...(turns > 0.7 ? [column((i) => Math.cos(output[i]!)), column((i) => Math.sin(output[i]!))] : []),
  ];
  const fit = fitColumns(
    columns,
    column((i) => output[i]! - mo),
  );
  if (!fit) return undefined;
  const slope = fit.values[0]!;
  // Errors over angle hang together: as many independent ones as there are turns of the slowest, not as samples.
  const uSlope = Math.sqrt(fit.covariance[0]![0]! * Math.max(1, pick.length / Math.max(24, 24 * turns)));
  const wholeTurns = Math.floor(turns + 1e-6);
  const reach = (wholeTurns >= 1 ? wholeTurns : turns) * 2 * Math.PI;
  const cells = Math.max(64, Math.min(65536, powerBelow(used / (both ? 16 : 8))));
  const make = () => ({ sum: new Float64Array(cells), count: new Uint32Array(cells) });
  const [there, back] = [make(), make()];
  for (let i = 0; i < n; i++) {
    if (i % often === 0) told(0.8 + (0.2 * i) / n);
    if (!use[i]) continue;
    const c = Math.floor(((output[i]! - oLow) / reach) * cells);
    if (c < 0 || c >= cells) continue;
    const e = output[i]! - mo - slope * (input[i]! - mi);
    const part = way[i] === 1 ? there : back;
    part.sum[c]! += e;
    part.count[c]!++;
  }
  const [a, b] = [filled(there.sum, there.count), filled(back.sum, back.count)];
  const error = (a ?? b)!;
  const angles = Float64Array.from({ length: cells }, (_, i) => oLow + (reach * (i + 0.5)) / cells);
  let [play, uPlay] = [NaN, NaN];
  if (a && b) {
    let [sum, square, m] = [0, 0, 0];
    for (let i = 0; i < cells; i++) {
      if (there.count[i] === 0 || back.count[i] === 0) continue;
      const d = there.sum[i]! / there.count[i]! - back.sum[i]! / back.count[i]!;
      sum += d;
      square += d * d;
      m++;
    }
    if (m > 1) {
      play = Math.abs(sum / m);
      uPlay = Math.sqrt(Math.max(0, square / m - (sum / m) ** 2) / Math.min(m, Math.max(8, 24 * turns)));
    }
  }
  const middle = error.reduce((s, v) => s + v, 0) / cells;
  let [worst, square, top, bottom] = [0, 0, -Infinity, Infinity];
  for (let i = 0; i < cells; i++) {
    const e = (error[i] = error[i]! - middle);
    worst = Math.max(worst, Math.abs(e));
    square += e * e;
    if (e > top) top = e;
    if (e < bottom) bottom = e;
  }
  const other = a && b ? b.map((v) => v - middle) : undefined;
  return {
    slope,
    uSlope,
    play,
    uPlay,
    turns,
    angles,
    error,
    back: other,
    wholeTurns,
    worst,
    peakToPeak: top - bottom,
    rms: Math.sqrt(square / cells),
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
