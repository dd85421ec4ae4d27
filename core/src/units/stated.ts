import type { Problem } from '../result.ts';
import { formatQuantity, type UnitChoice } from './format.ts';
import { QUANTITIES, type QuantityId } from './quantity.ts';
import { straightQuantity } from './straight.ts';

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
 * @param arm of a sentence about something that runs straight: travel for a radian of what it says, m
 * @example inUnits(`${stated(0.0254, 'length')} of wall`, { length: 'in' }) // '1 in of wall'
 * @example inUnits(`It carries ${stated(4, 'torque')}.`, {}, 0.02) // 'It carries 200 N.'
 */
export function inUnits(text: string, choice: UnitChoice = {}, arm?: number): string {
  if (!text.includes(OPEN)) return text;
  return text.replace(STATED, (all, si: string, id: string, digits: string) => {
    if (!(id in QUANTITIES)) return all;
    const straight = arm === undefined ? undefined : straightQuantity(id as QuantityId, arm);
    return written(Number(si) * (straight?.by ?? 1), straight?.quantity ?? (id as QuantityId), choice, Number(digits));
  });
}

/** A refusal in one line as it is read, for terminals, notices and logs. */
export const sayProblem = (p: Problem, choice: UnitChoice = {}): string =>
  inUnits(`${p.place ? `${p.place}: ` : ''}${p.what} ${p.why} ${p.mend}`, choice);
