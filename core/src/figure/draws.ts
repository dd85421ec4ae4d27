import { seeded } from '../math/random.ts';

/** Draws behind a sampled band, and the quantiles that are its ends. */
const DRAWS = 400;
const [LOW, HIGH] = [0.025, 0.975];
/** An end of a factor's range counts as 1.96 standard deviations, and nothing is drawn beyond half as much again. */
const END = 1.959964;
const FURTHEST = 1.5;

/**
 * Inverse of the standard normal distribution.
 * Source: P. J. Acklam’s rational approximation, relative error below 1.2e-9; its middle and tails.
 */
export function normalQuantile(p: number): number {
  const a = [
    -39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716, 2.506628277459239,
  ];
  const b = [-54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572, 1];
  const c = [
    -0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968,
    2.938163982698783,
  ];
  const d = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416, 1];
  const poly = (k: readonly number[], x: number) => k.reduce((sum, x1) => sum * x + x1, 0);
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(p));
    return poly(c, q) / poly(d, q);
  }
  if (p > 1 - 0.02425) return -normalQuantile(1 - p);
  const q = p - 0.5;
  return (poly(a, q * q) * q) / poly(b, q * q);
}

/**
 * Draws of factors as shares of the way to an end, −1 the low one: one row a factor, Latin hypercube, so that each factor
 * comes evenly from its whole range, seeded.
 */
function hypercube(factors: number): Float64Array {
  const out = new Float64Array(factors * DRAWS);
  const random = seeded(1);
  const strata = Float64Array.from({ length: DRAWS }, (_, i) => {
    const z = normalQuantile((i + 0.5) / DRAWS) / END;
    return Math.max(-FURTHEST, Math.min(FURTHEST, z));
  });
  for (let f = 0; f < factors; f++) {
    const row = out.subarray(f * DRAWS, (f + 1) * DRAWS);
    row.set(strata);
    for (let i = DRAWS - 1; i > 0; i--) {
      const k = Math.floor(random() * (i + 1));
      const x = row[i]!;
      row[i] = row[k]!;
      row[k] = x;
    }
  }
  return out;
}

let cube = hypercube(0);

/** Positive values with each factor at its low and at its high end; undefined where there is none so. */
export type Ends = readonly (readonly [readonly number[] | undefined, readonly number[] | undefined])[];

/** Steps of a value's logarithm as each factor goes to its low and to its high end. */
function steps(value: number, part: number, parts: number, ends: Ends): Float64Array {
  const out = new Float64Array(2 * ends.length);
  for (let f = 0; f < ends.length; f++)
    for (let side = 0; side < 2; side++) {
      const at = ends[f]![side as 0 | 1];
      const x = at?.length === parts ? at[part]! : NaN;
      if (x > 0 && x !== value && Number.isFinite(x)) out[2 * f + side] = Math.log(x / value);
    }
  return out;
}

/**
 * Draws of positive values whose logarithms follow each factor evenly, in as many draws as a sampled band takes.
 *
 * @param values as they are likely
 * @returns a row of logarithms of value over its likely value for each value, undefined for one that is not finite
 */
export function drawn(values: readonly number[], ends: Ends): (Float64Array | undefined)[] {
  if (cube.length < ends.length * DRAWS) cube = hypercube(ends.length);
  return values.map((value, p) => {
    if (!(value > 0 && Number.isFinite(value))) return undefined;
    const row = new Float64Array(DRAWS);
    const way = steps(value, p, values.length, ends);
    for (let f = 0; f < ends.length; f++) {
      const [low, high] = [way[2 * f]!, way[2 * f + 1]!];
      if (low !== 0 || high !== 0) follow(row, cube.subarray(f * DRAWS, (f + 1) * DRAWS), low, high);
    }
    return row;
  });
}

/** Adds what one factor does: straight to either end. */
function follow(row: Float64Array, z: Float64Array, low: number, high: number): void {
  for (let i = 0; i < DRAWS; i++) row[i]! += z[i]! < 0 ? -z[i]! * low : z[i]! * high;
}

/** The ends of a band from draws: quantiles, never on the wrong side of the likely value. */
export function quantiles(draws: Float64Array, value: number): { low: number; high: number } {
  const sorted = draws.slice().sort();
  const at = (q: number) => sorted[Math.min(sorted.length - 1, Math.max(0, Math.round(q * (sorted.length - 1))))]!;
  return { low: Math.min(value, at(LOW)), high: Math.max(value, at(HIGH)) };
}

/** How many times the least a value may be before nobody asks how far it scatters. */
const AWAY = 50;
/** How many ends' worth from its likely value a draw may lie: three standard deviations. */
const WITHIN = 1.6;

/** How far a value's logarithm goes down and up, root sum of squares over its factors' ends. */
function spread(value: number, part: number, parts: number, ends: Ends): readonly [down: number, up: number] {
  let [down, up] = [0, 0];
  for (let f = 0; f < ends.length; f++)
    for (let side = 0; side < 2; side++) {
      const at = ends[f]![side as 0 | 1];
      const x = at?.length === parts ? at[part]! : NaN;
      // Most factors leave most values as they are: no logarithm for them.
      if (x === value || !(x > 0 && x < Infinity)) continue;
      const way = Math.log(x / value);
      if (way < 0) down += way * way;
      else up += way * way;
    }
  return [Math.sqrt(down), Math.sqrt(up)];
}

/**
 * Whether a positive value falls below a limit in any draw that is made of it.
 *
 * @param value over the limit
 */
export function mayMiss(value: number, ends: Ends): boolean {
  const [down] = spread(value, 0, 1, ends);
  return Math.log(value) < WITHIN * down;
}

/**
 * Band of the least of several positive values, each with a band of its own: where another one becomes the least within the
 * factors' ranges, the least of all is lower than any of them alone.
 *
 * @param values as they are likely; what is not finite limits nothing
 * @param ends the same with each factor at its ends
 * @returns undefined where one of them alone can be the least: then nothing need be drawn
 */
export function leastBand(values: readonly number[], ends: Ends): { low: number; high: number } | undefined {
  const least = values.reduce((m, v) => (v < m ? v : m), Infinity);
  if (!(least > 0 && least < Infinity)) return undefined;
  const [, up] = spread(least, values.indexOf(least), values.length, ends);
  const close = values
    .map((v, p) => {
      if (!(v > 0 && v < AWAY * least)) return -1;
      const [down] = spread(v, p, values.length, ends);
      return v === least || Math.log(v / least) < WITHIN * Math.sqrt(down * down + up * up) ? p : -1;
    })
    .filter((p) => p >= 0);
  if (close.length < 2) return undefined;
  const pick = (all: readonly number[] | undefined) =>
    all?.length === values.length ? close.map((p) => all[p]!) : undefined;
  const some = close.map((p) => values[p]!);
  const rows = drawn(
    some,
    ends.map(([a, b]) => [pick(a), pick(b)] as const),
  );
  const out = new Float64Array(DRAWS).fill(Infinity);
  rows.forEach((row, k) => row && lower(out, row, Math.log(some[k]! / least)));
  const { low, high } = quantiles(out, 0);
  return { low: least * Math.exp(low), high: least * Math.exp(high) };
}

function lower(out: Float64Array, row: Float64Array, from: number): void {
  for (let i = 0; i < out.length; i++) if (row[i]! + from < out[i]!) out[i] = row[i]! + from;
}
