import { findUnit, fromSi } from './parse.ts';
import { QUANTITIES, type QuantityId, type Unit } from './quantity.ts';

/** The reader's unit per quantity; what is missing shows in the quantity's usual unit. */
export type UnitChoice = Partial<Record<QuantityId, string>>;

export function displayUnit(id: QuantityId, choice: UnitChoice = {}): Unit {
  const quantity = QUANTITIES[id];
  const wanted = choice[id] ?? quantity.shown;
  // Nearly always it stands there as it is written; every figure on a page asks.
  for (const unit of quantity.units) if (unit.symbol === wanted) return unit;
  return findUnit(quantity, wanted) ?? findUnit(quantity, quantity.shown) ?? quantity.units[0]!;
}

const group = (digits: string): string => {
  const [whole = '', fraction] = digits.split('.');
  const sign = whole.startsWith('-') ? '−' : '';
  const bare = whole.replace('-', '');
  const grouped = bare.length > 4 ? bare.replace(/\B(?=(\d{3})+$)/g, ' ') : bare;
  return sign + grouped + (fraction === undefined ? '' : `.${fraction}`);
};

/**
 * Decimal places that a half-width warrants: the last place written is worth about a tenth to a whole of it.
 * (GUM 7.2.6: one or two significant digits of the uncertainty.)
 */
export function decimalsFor(halfWidth: number): number {
  if (!(halfWidth > 0)) return 0;
  const lead = Math.floor(Math.log10(halfWidth));
  const leading = halfWidth / 10 ** lead;
  return Math.max(0, Math.min(9, -lead + (leading < 3 ? 1 : 0)));
}

/** A number to `digits` significant digits, grouped by thousands, with a true minus sign and no trailing noise. */
export function plainNumber(value: number, digits = 4): string {
  if (!Number.isFinite(value)) return '—';
  if (value === 0) return '0';
  const size = Math.floor(Math.log10(Math.abs(value)));
  if (size > 8 || size < -6)
    return value
      .toExponential(Math.max(0, digits - 1))
      .replace('-', '−')
      .replace('e+', 'e');
  const places = Math.max(0, Math.min(12, digits - 1 - size));
  const fixed = value.toFixed(places);
  return group(places > 0 ? fixed.replace(/\.?0+$/, '') : fixed);
}

/** What stands between a number and a unit: nothing before signs of angle, a space before other units. */
export const unitGap = (symbol: string): string =>
  symbol === '' || /^[°′″]($| a )/.test(symbol) ? symbol : ` ${symbol}`;

/** Value and unit to a fixed number of significant digits: for inputs and dimensions. */
export function formatQuantity(si: number, id: QuantityId, choice: UnitChoice = {}, digits = 5): string {
  const unit = displayUnit(id, choice);
  return `${plainNumber(fromSi(si, unit), digits)}${unitGap(unit.symbol)}`;
}

export interface Banded {
  readonly value: number;
  readonly low?: number;
  readonly high?: number;
}

/** A band whose ends lie further apart than this many times is told by two digits each, whatever their size. */
const WIDE = 20;

/** A value that is known within powers of ten only; what lies beyond counting is told by where counting ends. */
function wide(v: number, low: number, high: number, end: number): { value: string; band: string } {
  const two = (x: number) => plainNumber(Number(x.toPrecision(2)), 2);
  const last = `> ${plainNumber(end, 3)}`;
  if (v > end) return { value: last, band: `(at least ${two(low)})` };
  const [a, b] = [two(low), high > end ? last : two(high)];
  return { value: two(v), band: high > end ? `(${a} to ${b})` : `(${a}–${b})` };
}

/**
 * The parts of a figure as written: `value`, and its band as `(low–high)` in the same unit, to the digits the band
 * warrants.
 */
export function formatBanded(
  f: Banded,
  id: QuantityId,
  choice: UnitChoice = {},
): { value: string; band: string; unit: string } {
  const unit = displayUnit(id, choice);
  const v = fromSi(f.value, unit);
  const beyond = QUANTITIES[id].beyond;
  if (beyond !== undefined && (f.low ?? f.value) > beyond)
    return { value: `> ${plainNumber(fromSi(beyond, unit), 3)}`, band: '', unit: unit.symbol };
  if (f.low === undefined || f.high === undefined || !(f.high > f.low))
    return { value: plainNumber(v, 4), band: '', unit: unit.symbol };
  const low = fromSi(f.low, unit);
  const high = fromSi(f.high, unit);
  const half = (high - low) / 2;
  if (low > 0 && (high > WIDE * low || (beyond !== undefined && f.high > beyond)))
    return { ...wide(v, low, high, beyond === undefined ? Infinity : fromSi(beyond, unit)), unit: unit.symbol };
  // A dash beside a minus reads as two of either.
  const dash = low < 0 ? ' to ' : '–';
  if (Math.abs(v) > 1e8 || half < 1e-6)
    return {
      value: plainNumber(v, 4),
      band: `(${plainNumber(low, 3)}${dash}${plainNumber(high, 3)})`,
      unit: unit.symbol,
    };
  const places = decimalsFor(half);
  const write = (x: number) =>
    group(Object.is(Number(x.toFixed(places)), -0) ? (0).toFixed(places) : x.toFixed(places));
  return { value: write(v), band: `(${write(low)}${dash}${write(high)})`, unit: unit.symbol };
}

/** `4.1 ′ (3.2–5.6)` in one string. */
export function sayBanded(f: Banded, id: QuantityId, choice: UnitChoice = {}): string {
  const { value, band, unit } = formatBanded(f, id, choice);
  return `${value}${unitGap(unit)}${band ? ` ${band}` : ''}`;
}

/** `4.7 ± 0.6 ′`: a measured value with its expanded uncertainty. */
export function sayUncertain(value: number, uncertainty: number, id: QuantityId, choice: UnitChoice = {}): string {
  const unit = displayUnit(id, choice);
  const v = fromSi(value, unit);
  const spread = uncertainty / unit.factor;
  if (!(spread > 0) || !Number.isFinite(spread)) return `${plainNumber(v, 4)}${unitGap(unit.symbol)}`;
  const places = decimalsFor(spread);
  return `${group(v.toFixed(places))} ± ${group(spread.toFixed(places))}${unitGap(unit.symbol)}`;
}
