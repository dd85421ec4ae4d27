import type { QuantityId } from '../units/quantity.ts';
import type { Figure, Working } from './figure.ts';

/** A figure that knows how it came about. The working is no property: it stays behind where the figure is sent away. */
class Worked implements Figure {
  readonly #working: () => Working;

  constructor(
    readonly id: string,
    readonly name: string,
    readonly quantity: QuantityId,
    readonly value: number,
    readonly low: number,
    readonly high: number,
    working: () => Working,
  ) {
    this.#working = working;
  }

  /** Written down as text it takes its working along. */
  toJSON(): Figure & { readonly working: Working } {
    return { ...this, working: this.#working() };
  }

  static of(figure: Figure): Working | undefined {
    return figure instanceof Worked ? figure.#working() : undefined;
  }
}

/**
 * A figure with its working, which is put into words when it is looked at: figures are made at every change, and read
 * seldom.
 */
export const worked = (figure: Figure, working: () => Working): Figure =>
  new Worked(figure.id, figure.name, figure.quantity, figure.value, figure.low, figure.high, working);

/** A figure about which nothing is uncertain. */
export const exact = (id: string, name: string, quantity: QuantityId, value: number, working: () => Working): Figure =>
  new Worked(id, name, quantity, value, value, value, working);

/** How a figure came about; undefined where it was sent from where it was made, or put together without a working. */
export const workingOf = (figure: Figure): Working | undefined => Worked.of(figure);
