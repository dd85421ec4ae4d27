import { FigureMaker, type Check, type Figure } from '../figure/index.ts';
import { ok, type Result } from '../result.ts';
import { atEnds, type Shelf } from '../shop/shelf.ts';
import type { StageNumbers, StageReport } from './contract.ts';

/**
 * A stage's report out of its model: numbers, figures with bands, checks.
 *
 * @param compute the model at a shelf; what cannot be is refused in words
 * @param factors ids of the shop's factors the model uses, whose ends give the bands
 */
export function reportOf<M extends { readonly numbers: StageNumbers }>(
  shelf: Shelf,
  compute: (shelf: Shelf) => Result<M>,
  factors: Iterable<string>,
  figures: (m: M, make: FigureMaker<M>) => readonly Figure[],
  checks: (m: M) => readonly Check[],
): Result<StageReport> {
  const made = compute(shelf);
  if (!made.ok) return made;
  const make = new FigureMaker(made.value, atEnds(shelf, factors, compute));
  return ok({ numbers: made.value.numbers, figures: figures(made.value, make), checks: checks(made.value) });
}
