import { ok, refuse, type Result } from '../result.ts';
import { QUANTITIES, MASS_TIMES_LENGTH, type Quantity, type QuantityId, type Unit } from './quantity.ts';
import { twoWays, type Comma } from './comma.ts';
import { stated } from './stated.ts';
import { tidyUnit } from './tidy.ts';

export interface Parsed {
  /** Value in SI units. */
  readonly si: number;
  /** The unit it was read in. */
  readonly unit: string;
}

const NUMBER =
  /^([+\-−]?)\s*(?:(\d+)\s+(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|((?:\d{1,3}(?:[\s_'](?=\d{3}(?!\d))\d{3})+|\d+)?(?:[.,]\d*)?(?:[eE][+\-−]?\d+)?))/;

/** Finds a unit of a quantity by any of its spellings; exact case first, since mN·m and MN·m differ. */
export function findUnit(quantity: Quantity, text: string): Unit | undefined {
  const tidy = tidyUnit(text);
  const spelled = (unit: Unit) => [unit.symbol, ...(unit.also ?? [])].map(tidyUnit);
  const exact = quantity.units.find((unit) => spelled(unit).includes(tidy));
  if (exact) return exact;
  const loose = quantity.units.filter((unit) => spelled(unit).some((s) => s.toLowerCase() === tidy.toLowerCase()));
  return loose.length === 1 ? loose[0] : undefined;
}

/** SI value of `value` in `unit`. */
export const toSi = (value: number, unit: Unit): number => value * unit.factor + (unit.offset ?? 0);

/** Value in `unit` of the SI value `si`. */
export const fromSi = (si: number, unit: Unit): number => (si - (unit.offset ?? 0)) / unit.factor;

function readNumber(text: string, comma: Comma): Result<{ value: number; rest: string }> {
  const found = NUMBER.exec(text);
  if (!found || found[0].replace(/[+\-−\s]/g, '') === '' || !/\d/.test(found[0])) {
    return refuse(
      `“${text.slice(0, 40)}” is not a number.`,
      'A value starts with digits.',
      'Type a number and, if you like, a unit: 12.5 mm.',
    );
  }
  const [whole, sign, mixed, num, den, num2, den2, plain] = found;
  const s = sign === '-' || sign === '−' ? -1 : 1;
  let value: number;
  if (mixed !== undefined) value = Number(mixed) + Number(num) / Number(den);
  else if (num2 !== undefined) value = Number(num2) / Number(den2);
  else {
    const bare = (plain ?? '').replace(/[\s_']/g, '').replace('−', '-');
    if (twoWays(bare) && comma === 'ask') {
      return refuse(
        `“${bare}” can be read two ways.`,
        `The comma could part thousands (${bare.replace(',', '')}) or decimals (${bare.replace(',', '.')}).`,
        'Write it with a point, or with a space for thousands.',
      );
    }
    value = Number(bare.replace(',', twoWays(bare) && comma === 'thousands' ? '' : '.'));
  }
  if (!Number.isFinite(value))
    return refuse(
      `“${text.slice(0, 40)}” is not a finite number.`,
      'It divides by zero or is too large to hold.',
      'Type an ordinary number.',
    );
  return ok({ value: s * value, rest: text.slice(whole.length).trim() });
}

/** Money is written with its sign before the number as often as after: $12 is 12 $. */
const signLast = (text: string): string => text.replace(/^([^\d.,+\-−\s]{1,3})\s*(?=[\d.,])(.+)$/u, '$2 $1');

function explainWrongUnit(quantity: Quantity, rest: string): Result<never> {
  const tidy = tidyUnit(rest);
  const units = quantity.units
    .map((x) => x.symbol)
    .filter(Boolean)
    .join(', ');
  const meant = MASS_TIMES_LENGTH[tidy] ?? MASS_TIMES_LENGTH[tidy.toLowerCase()];
  if (meant && quantity.id === 'torque') {
    return refuse(
      `${rest} has a mass in it, and a torque is a force at a distance.`,
      'A mass has a weight only under gravity.',
      `If its weight was meant, write ${meant}.`,
    );
  }
  for (const other of Object.values(QUANTITIES)) {
    if (other.id === quantity.id || !findUnit(other, rest)) continue;
    if (other.id === 'mass' && (quantity.id === 'torque' || quantity.id === 'force')) {
      const advice =
        quantity.id === 'torque'
          ? `Write its weight at a distance, such as 3 kgf·cm, or enter the mass and the lever where they are asked for.`
          : `If its weight was meant, write ${rest === 'g' ? 'gf' : rest === 'lb' ? 'lbf' : rest === 'oz' ? 'ozf' : 'kgf'}.`;
      return refuse(
        `${rest} is a unit of mass, and this is a ${quantity.name}.`,
        'Mass and force differ by gravity.',
        advice,
      );
    }
    return refuse(
      `${rest} is a unit of ${other.name}, and this is a ${quantity.name}.`,
      'The two cannot be converted.',
      units ? `Use one of ${units}.` : 'Type a plain number.',
    );
  }
  return refuse(
    `“${rest.slice(0, 30)}” is not a unit of ${quantity.name} known here.`,
    'It was not found under any spelling.',
    units ? `Use one of ${units}.` : 'Type a plain number.',
  );
}

/**
 * Reads what a person typed into a quantity field.
 *
 * @param text a number with or without a unit of the field's kind; fractions (`1 1/8 in`) and, for angles, a lever
 *   reading
 *   (`0.4 mm @ 180 mm` = 2·asin(d/2L)) are understood
 * @param id the field's kind
 * @param bare the unit that a bare number is in; the quantity's usual unit when left out
 * @param comma what a comma before three digits stands for
 * @returns the SI value and the unit it was read in, or a problem in plain words
 */
export function parseQuantity(text: string, id: QuantityId, bare?: string, comma: Comma = 'ask'): Result<Parsed> {
  const quantity = QUANTITIES[id];
  const trimmed = text.trim();
  if (trimmed === '')
    return refuse(
      'Nothing is typed here.',
      `A ${quantity.name} is needed.`,
      'Type a number, or press Escape to go back to the last one.',
    );
  if (trimmed.length > 80)
    return refuse('That is too long for a number.', 'A value with its unit is a few characters.', 'Type one value.');
  if ((id === 'angle' || id === 'smallAngle') && trimmed.includes('@')) return parseLever(trimmed, comma);
  const number = readNumber(id === 'money' ? signLast(trimmed) : trimmed, comma);
  if (!number.ok) return number;
  const { value, rest } = number.value;
  const usual = findUnit(quantity, bare ?? quantity.shown) ?? quantity.units[0]!;
  const unit = rest === '' ? usual : findUnit(quantity, rest);
  if (!unit) return explainWrongUnit(quantity, rest);
  const si = toSi(value, unit);
  if (!Number.isFinite(si))
    return refuse('That number is too large.', 'It cannot be held in SI units.', 'Type a smaller one.');
  return ok({ si, unit: unit.symbol });
}

function parseLever(text: string, comma: Comma): Result<Parsed> {
  const [reading, lever, more] = text.split('@');
  if (more !== undefined)
    return refuse(
      'There is more than one @ here.',
      'A lever reading has one difference and one radius.',
      'Write it like 0.4 mm @ 180 mm.',
    );
  const d = parseQuantity(reading ?? '', 'length', undefined, comma);
  if (!d.ok) return d;
  const l = parseQuantity(lever ?? '', 'length', undefined, comma);
  if (!l.ok) return l;
  if (!(l.value.si > 0))
    return refuse(
      'The lever has no length.',
      'An angle is the difference over the radius.',
      'Give the radius after the @, such as 180 mm.',
    );
  const half = d.value.si / (2 * l.value.si);
  if (Math.abs(half) > 1)
    return refuse(
      'The reading is longer than the lever can swing.',
      `A point at that radius moves at most ${stated(2 * l.value.si, 'length')}.`,
      'Check which number is the reading and which the radius.',
    );
  return ok({ si: 2 * Math.asin(half), unit: '°' });
}
