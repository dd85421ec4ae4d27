import { noiseFloor } from './noise-floor.ts';
import { fitColumns, takeOut } from './regress.ts';
import { amplitudes, leftOfWave } from './spectrum.ts';

/** A line of a spectrum over angle, found by least squares. */
export interface OrderLine {
  /** Events a turn. */
  readonly order: number;
  readonly amplitude: number;
  /** Standard uncertainty of the amplitude. */
  readonly u: number;
  /** Amplitude over the scatter of noise at that order, either part. */
  readonly significance: number;
  /** Whether it stands at an order that the line is known to have. */
  readonly known: boolean;
}

/** How far above the noise of either part a line must stand: chance does so once in thirty thousand bins. */
const SIGNIFICANT = 4.6;
/** A known order takes a line that lies within this share of a bin of it. */
const SNAP = 0.6;
/** Share of a bin below which an order need not move. */
const SEEN = 1e-4;
/** Known orders nearer to a line than this many bins stay as they are: no record tells them apart. */
const APART = 0.9;

interface Wave {
  order: number;
  known: boolean;
}

/** Samples after which a wave that is turned on sample by sample is worked out anew. */
const ANEW = 64;

/** Both parts of waves over even angles of `turns` turns. */
function columnsOf(waves: readonly Wave[], n: number, turns: number): Float64Array[] {
  return waves.flatMap(({ order }) => {
    const cos = new Float64Array(n);
    const sin = new Float64Array(n);
    wave((2 * Math.PI * order * turns) / n, cos, sin);
    return [cos, sin];
  });
}

/** Cosine and sine of (i + ½)·by, turned on from one to the next: twenty times as fast as asking for each. */
function wave(by: number, cos: Float64Array, sin: Float64Array): void {
  const c1 = Math.cos(by);
  const s1 = Math.sin(by);
  for (let from = 0; from < cos.length; from += ANEW) {
    let c = Math.cos(by * (from + 0.5));
    let s = Math.sin(by * (from + 0.5));
    const to = Math.min(cos.length, from + ANEW);
    for (let i = from; i < to; i++) {
      cos[i] = c;
      sin[i] = s;
      const next = c * c1 - s * s1;
      s = s * c1 + c * s1;
      c = next;
    }
  }
}

interface Fitted {
  readonly values: Float64Array;
  readonly rest: Float64Array;
  readonly rss: number;
  readonly columns: readonly Float64Array[];
}

function fitWaves(waves: readonly Wave[], error: Float64Array, turns: number): Fitted | undefined {
  const columns = [new Float64Array(error.length).fill(1), ...columnsOf(waves, error.length, turns)];
  const fit = fitColumns(columns, error);
  if (!fit) return undefined;
  const rest = error.slice();
  columns.forEach((c, k) => takeOut(rest, c, fit.values[k]!));
  return { values: fit.values, rest, rss: fit.rss, columns };
}

/** How an error changes with a wave's order: the angle times the wave a quarter on. */
function byOrder(cos: Float64Array, sin: Float64Array, a: number, b: number, by: number): Float64Array {
  const out = new Float64Array(cos.length);
  for (let i = 0; i < out.length; i++) out[i] = by * (i + 0.5) * (b * cos[i]! - a * sin[i]!);
  return out;
}

/** Moves the orders that are free by one step of Gauss and Newton; undefined where none moves by what could be seen. */
function refined(waves: readonly Wave[], fit: Fitted, turns: number): Wave[] | undefined {
  const n = fit.rest.length;
  const free = waves.flatMap((w, k) => (w.known ? [] : [k]));
  if (free.length === 0) return undefined;
  const { values, columns } = fit;
  const slopes = free.map((k) =>
    byOrder(
      columns[1 + 2 * k]!,
      columns[2 + 2 * k]!,
      values[1 + 2 * k]!,
      values[2 + 2 * k]!,
      (2 * Math.PI * turns) / n,
    ),
  );
  const step = fitColumns([...columns, ...slopes], fit.rest);
  if (!step) return undefined;
  const most = 0.4 / turns;
  const moves = free.map((_, at) => Math.max(-most, Math.min(most, step.values[1 + 2 * waves.length + at]!)));
  if (moves.every((by) => Math.abs(by) < SEEN / turns)) return undefined;
  return waves.map((w, k) => {
    const at = free.indexOf(k);
    return at < 0 ? w : { ...w, order: Math.max(0.2, w.order + moves[at]!) };
  });
}

/** The order that is known within reach of a bin; undefined where none is, or two are. */
const knownAt = (order: number, known: readonly number[], turns: number): number | undefined => {
  const near = known.filter((o) => Math.abs(o - order) * turns < SNAP);
  if (near.length === 0) return undefined;
  return near.reduce((a, b) => (Math.abs(b - order) < Math.abs(a - order) ? b : a));
};

/**
 * Lines of an error over angle, one after the other: the one that stands highest above the noise of what is left is
 * fitted together with those before it, and taken out. So a line two bins beside a larger one is seen once that is gone.
 *
 * @param error means over even cells of angle over `turns` turns; what that takes of a wave is given back
 * @param turns a whole number of turns of the output
 * @param known orders that the line is known to have: a peak within reach of one is fitted there
 * @param most lines at most
 * @returns largest first
 * Source: matching pursuit with a joint least-squares fit; amplitude uncertain by the noise floor about it.
 */
export function orderLines(error: Float64Array, turns: number, known: readonly number[], most = 10): OrderLine[] {
  let waves: Wave[] = [];
  let fit: Fitted = { values: new Float64Array(1), rest: error, rss: 0, columns: [] };
  for (let round = 0; round < most; round++) {
    const a = amplitudes(fit.rest);
    const floor = noiseFloor(a);
    let at = 0;
    let best = 0;
    for (let k = 1; k < a.length; k++) {
      const height = a[k]! / floor[k]!;
      if (height > best) [at, best] = [k, height];
    }
    if (!(best > SIGNIFICANT)) break;
    const exact = at / turns;
    const snapped = knownAt(exact, known, turns);
    const order = snapped ?? exact;
    // What is left beside a line that was fitted is its own shape, not another line.
    if (waves.some((w) => Math.abs(w.order - order) * turns < APART)) {
      waves = waves.map((w) => (Math.abs(w.order - order) * turns < APART ? { ...w, known: false } : w));
      const moved = settle(waves, error, turns);
      if (!moved || moved.fit.rss > 0.999 * fit.rss) break;
      ({ waves, fit } = moved);
      continue;
    }
    const next = settle([...waves, { order, known: snapped !== undefined }], error, turns);
    if (!next) break;
    ({ waves, fit } = next);
  }
  const floor = noiseFloor(amplitudes(fit.rest));
  return waves
    .map(({ order, known: at }, k): OrderLine => {
      const amplitude = Math.hypot(fit.values[1 + 2 * k]!, fit.values[2 + 2 * k]!);
      const noise = floor[Math.min(floor.length - 1, Math.max(1, Math.round(order * turns)))]!;
      const left = leftOfWave((order * turns) / error.length);
      return { order, amplitude: amplitude / left, u: noise / left, significance: amplitude / noise, known: at };
    })
    .filter((l) => l.significance > SIGNIFICANT)
    .sort((a, b) => b.amplitude - a.amplitude);
}

/** Waves with their orders brought home. */
function settle(
  start: readonly Wave[],
  error: Float64Array,
  turns: number,
): { waves: Wave[]; fit: Fitted } | undefined {
  let waves = [...start];
  let fit = fitWaves(waves, error, turns);
  for (let i = 0; fit && i < 3 && waves.some((w) => !w.known); i++) {
    const moved = refined(waves, fit, turns);
    if (!moved) break;
    const again = fitWaves(moved, error, turns);
    if (!again || again.rss > fit.rss) break;
    waves = moved;
    fit = again;
  }
  return fit && { waves, fit };
}

/** Two orders that a record is too short to tell apart, and the turns that would do it. */
export interface Inseparable {
  readonly between: readonly [number, number];
  readonly turns: number;
}

/**
 * The known order that lies so near a line that the record does not tell them apart; undefined where none does.
 *
 * @example inseparable(16, [16, 16.2], 2).turns // 8
 */
export function inseparable(order: number, known: readonly number[], turns: number): Inseparable | undefined {
  const near = known.filter((o) => Math.abs(o - order) * turns < APART).sort((a, b) => a - b);
  for (let k = 1; k < near.length; k++) {
    const gap = near[k]! - near[k - 1]!;
    if (gap > 1e-6 * order) return { between: [near[k - 1]!, near[k]!], turns: Math.ceil(1.5 / gap - 1e-9) };
  }
  return undefined;
}
