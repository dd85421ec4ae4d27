import { stated } from '../units/stated.ts';
import * as v from 'valibot';
import { parseQuantity } from '../units/parse.ts';
import { displayUnit } from '../units/format.ts';
import { QUANTITIES, type QuantityId } from '../units/quantity.ts';

/**
 * A quantity in a file: a number in SI units, or text with a unit ("62 ozf·in") for files written by hand. Bounded,
 * finite;
 * refusals name the bound in the usual unit.
 */
export function quantity(id: QuantityId, min = -Infinity, max = Infinity) {
  const say = (x: number) => `${stated(x, id, 5)} (${x} in SI units)`;
  return v.pipe(
    v.union([v.number(), v.string()], 'must be a number in SI units or text with a unit'),
    // Before the transformation, so that a schema made from this knows what is taken.
    v.metadata({ quantity: id, unit: displayUnit(id).symbol, least: min, most: max }),
    v.rawTransform<number | string, number>(({ dataset, addIssue, NEVER }) => {
      let value: number;
      if (typeof dataset.value === 'string') {
        if (/^[\d\s.,+\-−eE/]*$/.test(dataset.value) && QUANTITIES[id].units.some((u) => u.symbol !== '')) {
          addIssue({ message: `must be a number in SI units or text with a unit, and is text without one` });
          return NEVER;
        }
        const parsed = parseQuantity(dataset.value, id);
        if (!parsed.ok) {
          addIssue({ message: `${parsed.problem.what} ${parsed.problem.why} ${parsed.problem.mend}` });
          return NEVER;
        }
        value = parsed.value.si;
      } else value = dataset.value;
      if (!Number.isFinite(value)) addIssue({ message: 'must be a finite number' });
      else if (value < min) addIssue({ message: `must be at least ${say(min)}` });
      else if (value > max) addIssue({ message: `must be at most ${say(max)}` });
      else return value;
      return NEVER;
    }),
  );
}

/** A whole number within bounds, for teeth, steps and counts. */
export const wholeNumber = (min: number, max: number) =>
  v.pipe(
    v.number('must be a whole number'),
    v.integer('must be a whole number'),
    v.minValue(min, `must be at least ${min}`),
    v.maxValue(max, `must be at most ${max}`),
  );
