import { descend } from '../math/descend.ts';
import { hangingTogether } from './hanging.ts';
import { fitColumns } from './regress.ts';

/** A course of warming towards where it settles. */
export interface WarmingFit {
  /** Where it settles, with its standard uncertainty. */
  readonly settles: number;
  readonly uSettles: number;
  /** Time constants, the slowest first, s; the first with its standard uncertainty. */
  readonly times: readonly number[];
  readonly uTime: number;
  /** Temperature by the fit at a time. */
  at(t: number): number;
  readonly dof: number;
  readonly residuals: Float64Array;
  /** How many neighbouring residuals say the same thing once. */
  readonly hangs: number;
}

/** Rates over the whole record that are tried: from one that has hardly begun to one that is over at once. */
const SLOWEST = 0.05;
const FASTEST = 150;

/** A second body counts where the record is at least this many slow times long: else anything bends so. */
const SEEN = 0.8;

interface Solved {
  readonly values: Float64Array;
  readonly rss: number;
}

/** Best linear part for some rates: where it settles, and how much of each exponential. */
function solved(u: Float64Array, y: Float64Array, rates: readonly number[]): Solved | undefined {
  const columns = [new Float64Array(u.length).fill(1), ...rates.map((r) => u.map((x) => Math.exp(-r * x)))];
  const fit = fitColumns(columns, y);
  return fit && { values: fit.values, rss: fit.rss };
}

/** The best rates from a grid, brought home. */
function bestRates(u: Float64Array, y: Float64Array, bodies: 1 | 2): number[] | undefined {
  const cost = (logs: readonly number[]): number => {
    const rates = logs.map(Math.exp).sort((a, b) => a - b);
    if (rates.some((r) => !(r >= SLOWEST && r <= FASTEST))) return Infinity;
    // Two bodies whose times are nearly the same are one.
    if (bodies === 2 && (rates[1]! < 2 * rates[0]! || rates[0]! < SEEN)) return Infinity;
    return solved(u, y, rates)?.rss ?? Infinity;
  };
  let best: { p: number[]; value: number } = { p: [], value: Infinity };
  const grid = Array.from(
    { length: 9 },
    (_, i) => Math.log(SLOWEST * 1.01) + (i * Math.log(FASTEST / SLOWEST / 1.03)) / 8,
  );
  const starts = bodies === 1 ? grid.map((g) => [g]) : grid.flatMap((g, i) => grid.slice(i + 1).map((h) => [g, h]));
  for (const p of starts) {
    const value = cost(p);
    if (value < best.value) best = { p, value };
  }
  if (!Number.isFinite(best.value)) return undefined;
  return descend(
    cost,
    best.p,
    best.p.map(() => 0.3),
    120,
  )
    .p.map(Math.exp)
    .sort((a, b) => a - b);
}

/** Derivatives of the course by where it settles, by each part and by each rate. */
const slopes = (u: Float64Array, rates: readonly number[], parts: readonly number[]): Float64Array[] => [
  new Float64Array(u.length).fill(1),
  ...rates.map((r) => u.map((x) => Math.exp(-r * x))),
  ...rates.map((r, k) => u.map((x) => -parts[k]! * x * Math.exp(-r * x))),
];

/** Rates brought home by Gauss and Newton, as long as each step makes the rest smaller. */
function polished(u: Float64Array, y: Float64Array, start: readonly number[]): number[] {
  let rates = [...start];
  for (let round = 0; round < 5; round++) {
    const fit = solved(u, y, rates);
    if (!fit) break;
    const [settles, ...parts] = fit.values as unknown as [number, ...number[]];
    const left = y.map((v, i) => v - settles - rates.reduce((s, r, k) => s + parts[k]! * Math.exp(-r * u[i]!), 0));
    const step = fitColumns(slopes(u, rates, parts), left)?.values;
    const moved = rates.map((r, k) => r + (step?.[1 + rates.length + k] ?? 0));
    const again = moved.every((r) => r > 0) ? solved(u, y, moved) : undefined;
    if (!again || !(again.rss < fit.rss)) break;
    rates = moved;
  }
  return rates;
}

function fitBodies(t: ArrayLike<number>, y: ArrayLike<number>, bodies: 1 | 2): WarmingFit | undefined {
  const n = t.length;
  const t0 = Math.min(...Array.from(t));
  const span = Math.max(...Array.from(t)) - t0;
  const u = Float64Array.from(t, (v) => (v - t0) / span);
  const temperature = Float64Array.from(y);
  const near = bestRates(u, temperature, bodies);
  const rates = near && polished(u, temperature, near);
  const fit = rates && solved(u, temperature, rates);
  if (!rates || !fit) return undefined;
  const [settles, ...parts] = fit.values as unknown as [number, ...number[]];
  const at = (x: number): number =>
    settles + rates.reduce((s, r, k) => s + parts[k]! * Math.exp(-r * ((x - t0) / span)), 0);
  const residuals = Float64Array.from(t, (x, i) => y[i]! - at(x));
  const covariance = fitColumns(slopes(u, rates, parts), residuals)?.covariance;
  const unknowns = 1 + 2 * bodies;
  const hangs = hangingTogether(residuals, unknowns);
  const u2 = (i: number): number => (covariance ? Math.sqrt(Math.max(0, covariance[i]![i]! * hangs)) : Infinity);
  return {
    settles,
    uSettles: u2(0),
    times: rates.map((r) => span / r),
    uTime: (u2(1 + bodies) * span) / rates[0]! ** 2,
    at,
    dof: Math.max(1, (n - unknowns) / hangs),
    residuals,
    hangs,
  };
}

/**
 * Fits a course of warming: one body, or two where the readings bear it (a motor in a housing warms fast, then slowly).
 *
 * @param t times, s
 * @param y temperatures, K or any scale
 * @returns undefined where the readings do not determine one
 * Source: θ = θ∞ + Σ aₖ·e^(−t/τₖ), linear in all but the times, which are searched (variable projection); two bodies
 * where the Bayesian criterion wants them; widened by how far residuals hang together.
 */
export function fitWarming(t: ArrayLike<number>, y: ArrayLike<number>): WarmingFit | undefined {
  const one = fitBodies(t, y, 1);
  const two = t.length >= 14 ? fitBodies(t, y, 2) : undefined;
  if (!one || !two) return one ?? two;
  const n = t.length;
  const free = Math.max(6, n / two.hangs);
  const rss = (f: WarmingFit) => f.residuals.reduce((s, r) => s + r * r, 0);
  // A millionth of the rise is arithmetic: nothing is to be gained below it.
  const floor = n * (1e-6 * (Math.max(...Array.from(y)) - Math.min(...Array.from(y)))) ** 2;
  const gain = free * Math.log((rss(one) + floor) / (rss(two) + floor));
  return gain > 3.5 * Math.log(free) && Number.isFinite(two.uSettles) ? two : one;
}
