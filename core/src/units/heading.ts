import type { Problem } from '../result.ts';
import { findUnit, parseQuantity } from './parse.ts';
import { MASS_TIMES_LENGTH, QUANTITIES, type QuantityId } from './quantity.ts';
import { tidyUnit } from './tidy.ts';

/** What a heading says: the column's name, its unit where it is known, and why not where one is given and is not. */
export interface Heading {
  readonly name: string;
  /** Symbol of the unit. */
  readonly unit: string | undefined;
  /** Why the unit that is given cannot be taken. */
  readonly doubt: Problem | undefined;
}

/** Units as people put them behind an underscore. */
const SUFFIXES: Readonly<Record<string, string>> = {
  nm: 'N·m',
  mm: 'mm',
  um: 'µm',
  m: 'm',
  cm: 'cm',
  in: 'in',
  deg: '°',
  rad: 'rad',
  mrad: 'mrad',
  arcmin: '′',
  arcsec: '″',
  rev: 'rev',
  turns: 'rev',
  s: 's',
  ms: 'ms',
  min: 'min',
  h: 'h',
  a: 'A',
  ma: 'mA',
  v: 'V',
  w: 'W',
  kg: 'kg',
  g: 'g',
  lb: 'lb',
  n: 'N',
  kn: 'kN',
  rpm: 'rpm',
  rads: 'rad/s',
  hz: 'Hz',
  c: '°C',
  degc: '°C',
  k: 'K',
  f: '°F',
  kgfcm: 'kgf·cm',
  ozfin: 'ozf·in',
  mnm: 'mN·m',
};

/** A name as headings are compared: lower case, words apart. */
export const tidyName = (s: string): string =>
  s
    .toLowerCase()
    .replace(/[_\-./]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

const ofAnother = (text: string, id: QuantityId): boolean =>
  MASS_TIMES_LENGTH[tidyUnit(text)] !== undefined ||
  MASS_TIMES_LENGTH[tidyUnit(text).toLowerCase()] !== undefined ||
  Object.values(QUANTITIES).some((q) => q.id !== id && text !== '' && findUnit(q, text) !== undefined);

/** Why a unit is none of a quantity, with the mend that a typed field gives; undefined where it is one. */
function doubtOf(heading: string, said: string, id: QuantityId): Problem | undefined {
  const read = parseQuantity(`1 ${said}`, id);
  if (read.ok) return undefined;
  const { what, why, mend } = read.problem;
  return { what: `The heading “${heading.trim().slice(0, 60)}” cannot be taken: ${what}`, why, mend };
}

/**
 * The name and the unit in a heading: `torque (N·m)`, `angle [deg]`, `angle_arcmin`, `time / s`.
 *
 * A unit in brackets that is none of the quantity is a doubt, never passed over: the numbers under it would be read in
 * another one. Behind a stroke, a comma or an underscore it is a doubt only where it is the unit of something else.
 *
 * @example headingIn('torque (kgf·cm)', 'torque').unit // 'kgf·cm'
 */
export function headingIn(text: string, id: QuantityId): Heading {
  const quantity = QUANTITIES[id];
  // What is counted has no unit that could be wrong: counts, a cell’s own numbers.
  const doubted = quantity.units.some((u) => u.symbol !== '');
  const symbolOf = (said: string) =>
    (findUnit(quantity, said) ?? findUnit(quantity, SUFFIXES[said.toLowerCase()] ?? said))?.symbol;
  const bracketed = /^(.*?)[([{]\s*([^)\]}]+?)\s*[)\]}]\s*$/.exec(text);
  if (bracketed) {
    const unit = symbolOf(bracketed[2]!);
    return {
      name: tidyName(bracketed[1]!),
      unit,
      doubt: unit || !doubted ? undefined : doubtOf(text, bracketed[2]!, id),
    };
  }
  const behind =
    /^(.*?)\s*,\s*([^,]+)\s*$/.exec(text) ??
    /^(.*?)\s*\/\s*(\S+)\s*$/.exec(text) ??
    /^(.*)[_\s]([A-Za-zµ°·*]+)$/.exec(text.trim());
  if (behind?.[2]) {
    const said = SUFFIXES[behind[2].toLowerCase()] ?? behind[2];
    const unit = symbolOf(said);
    if (unit) return { name: tidyName(behind[1]!), unit, doubt: undefined };
    // One letter behind an underscore is more often a name than a unit.
    if (doubted && behind[2].length > 1 && ofAnother(said, id))
      return { name: tidyName(behind[1]!), unit: undefined, doubt: doubtOf(text, behind[2], id) };
  }
  return { name: tidyName(text), unit: undefined, doubt: undefined };
}
