import { term, type Figure, type FigureMaker, type Term } from '../figure/index.ts';
import type { StageNumbers } from './contract.ts';

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

/** A piece that there is once. */
export const one = (mass: number, money: number): Cost => ({ quantity: 1, mass, money });

/** A rod of a diameter and length, m, of a density, kg/m³: its mass, kg. */
export const rodMass = (diameter: number, length: number, density: number): number =>
  (Math.PI / 4) * diameter ** 2 * length * density;

/** Price of a ground pin or a piece of rod. */
export const PIN_PRICE = 0.2;

/** What each kind of piece brings together, as terms of a working; what brings nothing is left out. */
const pieceTerms = (named: Readonly<Record<string, Cost>>, of: 'mass' | 'money'): Term[] =>
  Object.entries(named)
    .filter(([, c]) => c.quantity * c[of] > 0)
    .map(([name, c]) =>
      term(name, c.quantity === 1 ? 'one' : `${c.quantity} together`, c.quantity * c[of], of, 'computed'),
    );

/** Terms by their symbols, one added to the other. */
export const added = (terms: readonly Term[]): { readonly formula: string; readonly terms: readonly Term[] } => ({
  formula: terms.map((t) => t.symbol).join(' + ') || '0',
  terms,
});

/**
 * Mass and money of a stage as the sum of its pieces.
 *
 * @param named all pieces by what they are called, in the plural
 * @param mass and `money`: who says what a piece weighs and costs
 */
export function pieceFigures<M extends { readonly numbers: StageNumbers }>(
  make: FigureMaker<M>,
  named: Readonly<Record<string, Cost>>,
  { mass, money }: { readonly mass: string; readonly money: string },
): Figure[] {
  return [
    make.figure(
      'mass',
      'Mass',
      'mass',
      (m) => m.numbers.mass,
      () => ({ ...added(pieceTerms(named, 'mass')), source: mass }),
    ),
    make.figure(
      'money',
      'Money',
      'money',
      (m) => m.numbers.money,
      () => ({ ...added(pieceTerms(named, 'money')), source: `prices of the shop; ${money}` }),
    ),
  ];
}
