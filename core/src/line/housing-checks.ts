import type { Check } from '../figure/index.ts';
import { aroundOf } from '../reducer/around.ts';
import { reducerChecks } from '../reducer/checks.ts';
import type { Reducer } from '../reducer/reducer.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Stage } from '../stage/contract.ts';
import { provenMend } from '../stage/mend.ts';
import { mendedBy } from './mend.ts';

/**
 * What decides whether a line's housing goes together, with mends that do what they say: each is tried, and left out where
 * it does not help.
 */
export function housingChecks(
  reducer: Reducer,
  variant: Variant,
  stages: readonly Stage[],
  shelf: Shelf,
): readonly Check[] {
  const checks = reducerChecks(reducer, variant);
  return checks.map((c) =>
    c.state === 'fails' && c.mend
      ? provenMend(c, c.mend, checks, (change) => {
          const next = mendedBy(variant, change, shelf);
          const around = aroundOf(next, stages, shelf);
          return around && reducerChecks(around.reducer, next);
        })
      : c,
  );
}
