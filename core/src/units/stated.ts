import type { Problem } from '../result.ts';
import { formatQuantity, type UnitChoice } from './format.ts';
import { QUANTITIES, type QuantityId } from './quantity.ts';

/*
 * A sentence of the core carries its values as data, so that each reader sees them in units of their own. The marks are
 * two characters for private use, which nobody types and no file holds.
 */
const OPEN = '\uE000';
const CLOSE = '\uE001';
const STATED = /\uE000([^|\uE001]*)\|(\w+)\|(\d+)\uE001/g;

/**
 * A value within a sentence, to be written in the reader's unit by {@link inUnits}.
 * @param si value in the quantity's SI unit
 * @param digits significant digits that are shown
 * @example inUnits(`It is ${stated(0.0125, 'length')} long.`) // 'It is 12.5 mm long.'
 */
export const stated = (si: number, id: QuantityId, digits = 4): string => `${OPEN}${si}|${id}|${digits}${CLOSE}`;

/** Hundredths of a millimetre and more read well in millimetres; what is finer is said in micrometres. */
const FINE = 1e-5;

function written(si: number, id: QuantityId, choice: UnitChoice, digits: number): string {
  const fine = id === 'length' && si !== 0 && Math.abs(si) < FINE && (choice.length ?? 'mm') === 'mm';
  return formatQuantity(si, id, fine ? { length: 'µm' } : choice, digits);
}

/**
 * A sentence as it is read: every stated value in the reader's unit, or the usual one.
 * @param choice the reader's units
 * @example inUnits(`${stated(0.0254, 'length')} of wall`, { length: 'in' }) // '1 in of wall'
 */
export const inUnits = (text: string, choice: UnitChoice = {}): string =>
  text.includes(OPEN)
    ? text.replace(STATED, (all, si: string, id: string, digits: string) =>
        id in QUANTITIES ? written(Number(si), id as QuantityId, choice, Number(digits)) : all,
      )
    : text;

/** A refusal in one line as it is read, for terminals, notices and logs. */
export const sayProblem = (p: Problem, choice: UnitChoice = {}): string =>
  inUnits(`${p.place ? `${p.place}: ` : ''}${p.what} ${p.why} ${p.mend}`, choice);
