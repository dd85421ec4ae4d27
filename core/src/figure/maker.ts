import type { QuantityId } from '../units/quantity.ts';
import { BandSum, PositiveBandSum } from './band.ts';
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
}
