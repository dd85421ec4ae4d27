import type { QuantityId } from '../units/quantity.ts';
import { BandSum, PositiveBandSum } from './band.ts';
import { drawn, leastBand, mayMiss, quantiles } from './draws.ts';
import type { Figure, Origin, Term, Working } from './figure.ts';
import { worked } from './worked.ts';

/**
 * A term of a working, in the order people read it: symbol, name, value, quantity, origin, and the field or factor it
 * came from.
 */
export const term = (
  symbol: string,
  name: string,
  value: number,
  quantity: QuantityId,
  origin: Origin,
  from?: string,
): Term =>
  from === undefined ? { symbol, name, value, quantity, origin } : { symbol, name, value, quantity, origin, from };

/** Quantities that are never negative, and scatter by a share of themselves. */
const POSITIVE: ReadonlySet<QuantityId> = new Set<QuantityId>([
  'torque',
  'stiffness',
  'force',
  'stress',
  'life',
  'mass',
  'money',
  'inertia',
  'frequency',
  'power',
  'speed',
]);

/** Makes figures of one computed model and its versions with each uncertain input at its ends. */
export class FigureMaker<M> {
  constructor(
    private readonly model: M,
    private readonly ends: readonly (readonly [M | undefined, M | undefined])[],
  ) {}

  /** A figure picked out of the model, its band felt out over the versions. */
  figure(id: string, name: string, quantity: QuantityId, pick: (m: M) => number, working: () => Working): Figure {
    const value = pick(this.model);
    // What is lost is what scatters: an efficiency's band is that of its loss, and stays below one.
    if (quantity === 'efficiency' && value < 1) {
      const band = new PositiveBandSum(1 - value);
      for (const [a, b] of this.ends) band.add(a ? 1 - pick(a) : NaN, b ? 1 - pick(b) : NaN);
      // What nothing moves comes out of it as it went in, whatever 1 − (1 − η) rounds to.
      const end = (lost: number) => (lost === 1 - value ? value : 1 - lost);
      const [low, high] = [Math.min(value, end(band.high)), Math.max(value, end(band.low))];
      return worked({ id, name, quantity, value, low, high }, working);
    }
    const band = POSITIVE.has(quantity) && value > 0 ? new PositiveBandSum(value) : new BandSum(value);
    for (const [a, b] of this.ends) band.add(a ? pick(a) : NaN, b ? pick(b) : NaN);
    return worked({ id, name, quantity, value, low: band.low, high: band.high }, working);
  }

  /**
   * A figure that is the least of several: sampled where another of them becomes the least within the factors' ranges, and
   * felt out as any other where one alone can be.
   */
  least(
    id: string,
    name: string,
    quantity: QuantityId,
    pick: (m: M) => number,
    parts: (m: M) => readonly number[],
    working: () => Working,
  ): Figure {
    const value = pick(this.model);
    const band =
      value > 0
        ? leastBand(
            parts(this.model),
            this.ends.map(([a, b]) => [a && parts(a), b && parts(b)] as const),
          )
        : undefined;
    if (!band) return this.figure(id, name, quantity, pick, working);
    return worked(
      { id, name, quantity, value, low: Math.min(value, band.low), high: Math.max(value, band.high) },
      working,
    );
  }

  /**
   * A figure that there is only where something else is reached: drawn together with it, and told of the draws that reach
   * it.
   *
   * @param has what is there, over what it takes: reached from one on
   * @returns the figure, and the share of draws that do not reach it
   */
  reached(
    id: string,
    name: string,
    quantity: QuantityId,
    pick: (m: M) => number,
    has: (m: M) => number,
    working: (missed: number) => Working,
  ): { readonly figure: Figure; readonly missed: number } {
    const value = pick(this.model);
    const there = this.ends.map(([a, b]) => [a && [has(a)], b && [has(b)]] as const);
    const parts = (m: M) => [pick(m), has(m)];
    const now = parts(this.model);
    const rows =
      value > 0 && mayMiss(now[1]!, there)
        ? drawn(
            now,
            this.ends.map(([a, b]) => [a && parts(a), b && parts(b)] as const),
          )
        : [];
    const [row, gate] = rows;
    if (!row || !gate) return { figure: this.figure(id, name, quantity, pick, () => working(0)), missed: 0 };
    const from = Math.log(now[1]!);
    const kept = row.filter((_, i) => gate[i]! + from >= 0);
    const missed = 1 - kept.length / row.length;
    if (missed === 0) return { figure: this.figure(id, name, quantity, pick, () => working(0)), missed };
    const { low, high } = quantiles(kept.length ? kept : new Float64Array(1), 0);
    const figure = worked({ id, name, quantity, value, low: value * Math.exp(low), high: value * Math.exp(high) }, () =>
      working(missed),
    );
    return { figure, missed };
  }
}
