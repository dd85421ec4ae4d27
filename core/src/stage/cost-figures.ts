import { term, type Figure, type FigureMaker } from '../figure/index.ts';
import type { StageNumbers } from './contract.ts';

/** A part in the working of mass and money. */
export interface CostTerm {
  /** What tells its symbols from the others': m₁ and C₁ of ₁. */
  readonly index: string;
  readonly name: string;
  /** kg, and money of the shop; money is left out where it is bought with another. */
  readonly mass: number;
  readonly money?: number;
}

/**
 * Mass and money of a stage as figures.
 *
 * @param says how mass and money are put together, and where the mass comes from
 */
export function costFigures<M extends { readonly numbers: Pick<StageNumbers, 'mass' | 'money'> }>(
  make: FigureMaker<M>,
  parts: readonly CostTerm[],
  says: { readonly mass: string; readonly money: string; readonly source: string },
): Figure[] {
  return [
    make.figure(
      'mass',
      'Mass',
      'mass',
      (m) => m.numbers.mass,
      () => ({
        formula: says.mass,
        terms: parts.map((x) => term(`m${x.index}`, x.name, x.mass, 'mass', 'computed')),
        source: says.source,
      }),
    ),
    make.figure(
      'money',
      'Money',
      'money',
      (m) => m.numbers.money,
      () => ({
        formula: says.money,
        terms: parts.flatMap(({ index, name, money }) =>
          money === undefined ? [] : [term(`C${index}`, name, money, 'money', 'computed')],
        ),
        source: 'prices of the shop',
      }),
    ),
  ];
}
