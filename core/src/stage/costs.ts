import { term, type Term } from '../figure/index.ts';

/** What one piece of a part weighs, kg, and costs, in the reader's money, and how many of it a stage has. */
export interface Cost {
  readonly quantity: number;
  readonly mass: number;
  readonly money: number;
}

/**
 * What parts weigh and cost together: a stage's own mass and money are those of its list of parts.
 * @example sumCosts([{ quantity: 2, mass: 0.1, money: 3 }, { quantity: 1, mass: 0.5, money: 1 }]) // { mass: 0.7, money: 7 }
 */
export function sumCosts(costs: Iterable<Cost>): { readonly mass: number; readonly money: number } {
  let mass = 0;
  let money = 0;
  for (const c of costs) {
    mass += c.quantity * c.mass;
    money += c.quantity * c.money;
  }
  return { mass, money };
}

/** A rod of a diameter and length, m, of a density, kg/m³: its mass, kg. */
export const rodMass = (diameter: number, length: number, density: number): number =>
  (Math.PI / 4) * diameter ** 2 * length * density;

/** Price of a ground pin or a piece of rod. */
export const PIN_PRICE = 0.2;

/**
 * What each kind of piece weighs together, as terms of a working; what weighs nothing is left out.
 *
 * @param named pieces by what they are called, in the plural
 */
export const massTerms = (named: Readonly<Record<string, Cost>>): Term[] =>
  Object.entries(named)
    .filter(([, c]) => c.quantity * c.mass > 0)
    .map(([name, c]) =>
      term(name, c.quantity === 1 ? 'one' : `${c.quantity} together`, c.quantity * c.mass, 'mass', 'computed'),
    );
