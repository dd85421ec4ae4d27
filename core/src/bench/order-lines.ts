import { noiseFloor } from './noise-floor.ts';
import { amplitudes, leftOfWave } from './spectrum.ts';
import { EvenValues, stepOfWaves, type WaveFit } from './wave-fit.ts';

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

/** An error over even angles of some turns of the output. */
class EvenError {
  private readonly values: EvenValues;
  /** Angle of a wave of order one from one value to the next, rad. */
  private readonly by: number;

  constructor(
    error: Float64Array,
    private readonly turns: number,
  ) {
    this.values = new EvenValues(error);
    this.by = (2 * Math.PI * turns) / error.length;
  }

  /** Waves with their orders brought home; undefined where the record does not tell them apart. */
  settle(start: readonly Wave[]): { waves: readonly Wave[]; fit: WaveFit } | undefined {
    let waves = start;
    let fit = this.fit(waves);
    for (let i = 0; fit && i < 3 && waves.some((w) => !w.known); i++) {
      const moved = this.refined(waves, fit);
      if (!moved) break;
      const again = this.fit(moved);
      if (!again || again.rss > fit.rss) break;
      waves = moved;
      fit = again;
    }
    return fit && { waves, fit };
  }

  private fit(waves: readonly Wave[]): WaveFit | undefined {
    return this.values.fit(waves.map((w) => w.order * this.by));
  }

  /** Moves the orders that are free by one step; undefined where none moves by what could be seen. */
  private refined(waves: readonly Wave[], fit: WaveFit): Wave[] | undefined {
    const free = waves.flatMap((w, k) => (w.known ? [] : [k]));
    const step = stepOfWaves(fit, free);
    if (!step) return undefined;
    const most = 0.4 / this.turns;
    const moves = step.map((x) => Math.max(-most, Math.min(most, x / this.by)));
    if (moves.every((by) => Math.abs(by) < SEEN / this.turns)) return undefined;
    return waves.map((w, k) => {
      const at = free.indexOf(k);
      return at < 0 ? w : { ...w, order: Math.max(0.2, w.order + moves[at]!) };
    });
  }
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
  const values = new EvenError(error, turns);
  let waves: readonly Wave[] = [];
  let fit: WaveFit = { waves: [], parts: [], rest: error, rss: 0 };
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
      const moved = values.settle(waves);
      if (!moved || moved.fit.rss > 0.999 * fit.rss) break;
      ({ waves, fit } = moved);
      continue;
    }
    const next = values.settle([...waves, { order, known: snapped !== undefined }]);
    if (!next) break;
    ({ waves, fit } = next);
  }
  const floor = noiseFloor(amplitudes(fit.rest));
  return waves
    .map(({ order, known: at }, k): OrderLine => {
      const amplitude = Math.hypot(fit.parts[k]!.cos, fit.parts[k]!.sin);
      const noise = floor[Math.min(floor.length - 1, Math.max(1, Math.round(order * turns)))]!;
      const left = leftOfWave((order * turns) / error.length);
      return { order, amplitude: amplitude / left, u: noise / left, significance: amplitude / noise, known: at };
    })
    .filter((l) => l.significance > SIGNIFICANT)
    .sort((a, b) => b.amplitude - a.amplitude);
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
