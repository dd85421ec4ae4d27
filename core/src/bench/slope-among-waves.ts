import type { Sized } from './error-curve.ts';
import { hangingTogether } from './hanging.ts';
import { student95 } from './student.ts';

/** Means of a stretch of the run: input and output, which way, and how many samples. */
export interface Stretch {
  readonly input: number;
  readonly output: number;
  readonly way: number;
  readonly count: number;
}

/** Harmonics of the output that may be in an error. */
const HARMONICS = 8;

/**
 * Amplitude once round as joints and their sensors usually have it, rad: 1.5 arc minutes, two of three within a factor
 * of three. It counts where the record is too short to tell.
 */
const USUAL = (1.5 * Math.PI) / 10800;
const WITHIN = Math.log(3);

/** How fast waves get smaller with their order: as its root, its inverse, or powers of it. */
const FALLS = [0.5, 1, 2, 4];

/** No mean of angles is known better, rad: a tenth of a step of 24 bits. */
const FINEST = 4e-8;

/** Faster waves that are taken out before: teeth, a motor's own turn. */
const FAST = 4;

/**
 * Slope of output on input where an error goes round with the output. Over whole turns waves and a slope do not look
 * alike; over a part of one they nearly do, and how much of either there is follows only from how large such errors
 * are: waves are let in with a size that falls with their order, each size weighed by how likely it makes the readings.
 *
 * @param stretches means along the input, a few hundred
 * @param pace the slope, roughly
 * @returns slope and its standard uncertainty; undefined where the stretches do not determine one
 * Source: Gaussian process regression with a periodic kernel, its size averaged over by the marginal likelihood (Rasmussen and
 * Williams, 2006, 5.4.1); the slope and one offset a way without any size of their own.
 */
export function slopeAmongWaves(stretches: readonly Stretch[], pace: number): Sized | undefined {
  const n = stretches.length;
  const both = stretches.some((s) => s.way > 0) && stretches.some((s) => s.way < 0);
  const free = both ? 3 : 2;
  if (n < free + 4) return undefined;
  const middle = stretches.reduce((s, q) => s + q.input, 0) / n;
  const reach = Math.max(...stretches.map((s) => Math.abs(s.input - middle)));
  const turned = stretches.map((s) => pace * (s.input - middle));
  const y = stretches.map((s, i) => s.output - turned[i]!);
  const turns = (Math.abs(pace) * reach) / Math.PI;
  const slow = stretches.map((s, i) => {
    const row = [(s.input - middle) / reach, 1];
    if (both) row.push(s.way);
    for (let h = 1; h <= HARMONICS; h++) row.push(Math.cos(h * turned[i]!), Math.sin(h * turned[i]!));
    // Play that is not the same all round.
    if (both) row.push(s.way * Math.cos(turned[i]!), s.way * Math.sin(turned[i]!));
    return row;
  });
  const fast = fastWaves(slow, y, turned, free, turns);
  const rows = slow.map((row, i) => [
    ...row.slice(0, free),
    ...fast.flatMap((o) => [Math.cos(o * turned[i]!), Math.sin(o * turned[i]!)]),
    ...row.slice(free),
  ]);
  return amongSlow(rows, y, free, free + 2 * fast.length, pace, reach, turns);
}

/** Orders above those of the slow waves that stand out of what these leave, the strongest first. */
function fastWaves(
  slow: readonly (readonly number[])[],
  y: readonly number[],
  turned: readonly number[],
  free: number,
  turns: number,
): number[] {
  const found: number[] = [];
  const top = (0.35 * slow.length) / (slow.some((r) => r.length > 2 && r[2]! < 0) ? 2 : 1) / turns;
  let left = restOf(slow, y, free, 30);
  for (let k = 0; k < FAST; k++) {
    let [best, power] = [0, 0];
    let all = 0;
    for (const r of left) all += r * r;
    for (let o = Math.max(HARMONICS + 0.5, 2 / turns); o < top; o += 0.2 / turns) {
      const now = powerAt(left, turned, o);
      if (now > power && found.every((f) => Math.abs(f - o) * turns > 0.8)) [best, power] = [o, now];
    }
    for (let step = 0.1 / turns; step > 2e-3 / turns; step /= 2)
      for (const o of [best - step, best + step]) {
        const now = powerAt(left, turned, o);
        if (now > power) [best, power] = [o, now];
      }
    // Its share of what is left, against what chance gives one among a few hundred.
    if (!(2 * power > (18 * all) / left.length)) break;
    found.push(best);
    const wider = slow.map((row, i) => [
      ...row,
      ...found.flatMap((o) => [Math.cos(o * turned[i]!), Math.sin(o * turned[i]!)]),
    ]);
    left = restOf(wider, y, free, 30);
  }
  return found;
}

/** How much of what is left goes with an order: sum of squares that it explains, halved. */
function powerAt(left: readonly number[], turned: readonly number[], order: number): number {
  let [c, s] = [0, 0];
  for (let i = 0; i < left.length; i++) {
    c += left[i]! * Math.cos(order * turned[i]!);
    s += left[i]! * Math.sin(order * turned[i]!);
  }
  return (c * c + s * s) / left.length;
}

/** What a fit leaves whose waves are held by one size. */
function restOf(rows: readonly (readonly number[])[], y: readonly number[], free: number, size: number): number[] {
  const sums = normal(rows, y);
  const solved = withPrior(sums.A, sums.b, free, size);
  return solved ? rows.map((row, i) => y[i]! - row.reduce((s, v, j) => s + v * solved.values[j]!, 0)) : [...y];
}

/** Sums of products of the columns with each other and with the readings. */
function normal(
  rows: readonly (readonly number[])[],
  y: readonly number[],
): { A: Float64Array[]; b: Float64Array; yy: number } {
  const p = rows[0]!.length;
  const A = Array.from({ length: p }, () => new Float64Array(p));
  const b = new Float64Array(p);
  let yy = 0;
  rows.forEach((row, i) => {
    yy += y[i]! * y[i]!;
    for (let j = 0; j < p; j++) {
      b[j]! += row[j]! * y[i]!;
      for (let k = 0; k <= j; k++) A[j]![k]! += row[j]! * row[k]!;
    }
  });
  return { A, b, yy };
}

/** The slope where the columns after the free ones are waves of the output, held by a size that falls with their order. */
function amongSlow(
  rows: readonly (readonly number[])[],
  y: readonly number[],
  intercepts: number,
  free: number,
  pace: number,
  reach: number,
  turns: number,
): Sized | undefined {
  const n = rows.length;
  const { A, b, yy } = normal(rows, y);
  const tried: Tried[] = [];
  // Size of the first wave over the scatter of a stretch.
  for (const fall of FALLS)
    for (let size = 0.05; size < 3e4; size *= 1.8) {
      const solved = withPrior(A, b, free, size, fall);
      if (!solved) break;
      const { values, variance, explained, logDet } = solved;
      const scatter = Math.max(FINEST ** 2, (yy - explained) / (n - free));
      let waves = 0;
      for (let k = 0; 2 * k < A.length - free; k++) waves += 4 * Math.log(size / orderOf(k) ** fall);
      const usual = Math.log((size * Math.sqrt(scatter)) / USUAL) / WITHIN;
      const likely = -0.5 * ((n - free) * Math.log(scatter) + logDet + waves + usual * usual);
      tried.push({ likely, values, slope: values[0]! / reach, u: Math.sqrt(variance * scatter) / reach });
    }
  if (tried.length === 0) return undefined;
  const best = tried.reduce((x, q) => (q.likely > x.likely ? q : x));
  const weights = tried.map((q) => Math.exp(q.likely - best.likely));
  const whole = weights.reduce((s, w) => s + w, 0);
  const mean = tried.reduce((s, q, i) => s + weights[i]! * q.slope, 0) / whole;
  // What goes faster than the waves hangs together too: teeth, steps of the sensor.
  const left = rows.map((row, i) => y[i]! - row.reduce((s, v, j) => s + v * best.values[j]!, 0));
  const hangs = hangingTogether(left, intercepts);
  const square = tried.reduce((s, q, i) => s + weights[i]! * (hangs * q.u ** 2 + (q.slope - mean) ** 2), 0) / whole;
  // Over a part of a turn a handful of waves tells how large waves are: Student’s factor for as few.
  const few = turns < 0.9 ? student95(4) / 1.96 : 1;
  return { value: pace + mean, u: few * Math.sqrt(square) };
}

/** What comes out with one size of the waves. */
interface Tried {
  readonly likely: number;
  readonly values: Float64Array;
  readonly slope: number;
  readonly u: number;
}

/** Order of the k-th pair of waves: those of the output, then play that goes once round. */
const orderOf = (k: number): number => (k < HARMONICS ? k + 1 : 1);

/** All unknowns and the variance of the first (times the scatter's), waves held by their size. */
function withPrior(
  A: readonly Float64Array[],
  b: Float64Array,
  free: number,
  size: number,
  fall = 1,
): { values: Float64Array; variance: number; explained: number; logDet: number } | undefined {
  const p = b.length;
  const L = A.map((row, j) => {
    const copy = row.slice();
    if (j >= free) copy[j]! += (orderOf((j - free) >> 1) ** fall / size) ** 2;
    return copy;
  });
  let logDet = 0;
  for (let j = 0; j < p; j++)
    for (let k = 0; k <= j; k++) {
      let s = L[j]![k]!;
      for (let m = 0; m < k; m++) s -= L[j]![m]! * L[k]![m]!;
      if (j === k) {
        if (!(s > 1e-12 * A[j]![j]!)) return undefined;
        L[j]![j] = Math.sqrt(s);
        logDet += Math.log(s);
      } else L[j]![k] = s / L[k]![k]!;
    }
  const half = (v: Float64Array): Float64Array => {
    const z = v.slice();
    for (let j = 0; j < p; j++) {
      for (let m = 0; m < j; m++) z[j]! -= L[j]![m]! * z[m]!;
      z[j]! /= L[j]![j]!;
    }
    return z;
  };
  const z = half(b);
  const first = new Float64Array(p);
  first[0] = 1;
  const e = half(first);
  let variance = 0;
  let explained = 0;
  for (let j = 0; j < p; j++) {
    variance += e[j]! * e[j]!;
    explained += z[j]! * z[j]!;
  }
  for (let j = p - 1; j >= 0; j--) {
    for (let m = j + 1; m < p; m++) z[j]! -= L[m]![j]! * z[m]!;
    z[j]! /= L[j]![j]!;
  }
  return { values: z, variance, explained, logDet };
}
