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

/** What parts a number's whole from its fraction. */
export type DecimalSign = '.' | ',';
let decimalSign: DecimalSign = '.';

/** Sets the sign that numbers are written with from now on, wherever this page writes one. Files keep the point. */
export function setDecimalSign(sign: DecimalSign): void {
  decimalSign = sign;
}

const group = (digits: string): string => {
  const [whole = '', fraction] = digits.split('.');
  const sign = whole.startsWith('-') ? '−' : '';
  const bare = whole.replace('-', '');
  const grouped = bare.length > 4 ? bare.replace(/\B(?=(\d{3})+$)/g, ' ') : bare;
  return sign + grouped + (fraction === undefined ? '' : `${decimalSign}${fraction}`);
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

/**
 * An end this many times away from the value is none: within its band something that the figure hangs on gives out
 * altogether, a mesh that friction locks, a motor that does not start. Bands are not felt out further than a thousandfold
 * (`figure/band.ts`).
 */
const NO_END = 999;

/**
 * Whether an end of a band is one: nearer than a thousandfold to a positive value.
 *
 * @example isEnd(10_800, 10.8) // false
 */
export const isEnd = (end: number, value: number): boolean =>
  !(value > 0) || (end <= NO_END * value && (end <= 0 || end * NO_END >= value));

/** What lies nearer to nought than this, in the unit shown, is what rounding leaves of it. */
const NOUGHT = 1e-12;

/** What a figure's numbers are not told beyond, in the unit shown: of a life neither a minute nor a century. */
interface Range {
  readonly least: number;
  readonly most: number;
}

function rangeOf(id: QuantityId, unit: Unit): Range {
  const { beneath, beyond } = QUANTITIES[id];
  return {
    least: beneath === undefined ? 1e-6 : fromSi(beneath, unit),
    most: beyond === undefined ? Infinity : fromSi(beyond, unit),
  };
}

/** A figure's number, never in powers of ten: what is too small to tell or beyond counting is said to be so. */
function tell(x: number, digits: number, { least, most }: Range): string {
  if (Math.abs(x) < NOUGHT) return '0';
  if (Math.abs(x) < least) return x < 0 ? `> −${plainNumber(least, 3)}` : `< ${plainNumber(least, 3)}`;
  if (x > most) return `> ${plainNumber(most, 3)}`;
  return Math.abs(x) < 1e8 ? plainNumber(x, digits) : group(Number(x.toPrecision(digits)).toFixed(0));
}

/** An end of a wide band: two digits and no more. */
const tellEnd = (x: number, range: Range): string => tell(Number(x.toPrecision(2)), 2, range);

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
  const range = rangeOf(id, unit);
  const v = fromSi(f.value, unit);
  if ((f.low ?? f.value) > (QUANTITIES[id].beyond ?? Infinity))
    return { value: tell(v, 4, range), band: '', unit: unit.symbol };
  if (f.low === undefined || f.high === undefined || !(f.high > f.low))
    return { value: tell(v, 4, range), band: '', unit: unit.symbol };
  const low = fromSi(f.low, unit);
  const high = fromSi(f.high, unit);
  if (low > 0 && (high > WIDE * low || high > range.most)) {
    return { value: tellEnd(v, range), band: `(${tellEnds(low, v, high, range)})`, unit: unit.symbol };
  }
  const half = (high - low) / 2;
  // A dash beside a minus reads as two of either.
  const dash = low < 0 ? ' to ' : '–';
  if (Math.abs(v) > 1e8 || half < 1e-6)
    return {
      value: tell(v, 4, range),
      band: `(${tell(low, 3, range)}${dash}${tell(high, 3, range)})`,
      unit: unit.symbol,
    };
  const places = decimalsFor(half);
  const write = (x: number) =>
    group(Object.is(Number(x.toFixed(places)), -0) ? (0).toFixed(places) : x.toFixed(places));
  return { value: write(v), band: `(${write(low)}${dash}${write(high)})`, unit: unit.symbol };
}

/** The ends of a wide band, of those that it has. */
function tellEnds(low: number, value: number, high: number, range: Range): string {
  const [a, b] = [tellEnd(low, range), tellEnd(high, range)];
  if (value > range.most) return `at least ${a}`;
  const [open, none] = [!isEnd(high, value) && high <= range.most, !isEnd(low, value)];
  if (open !== none) return open ? `at least ${a}` : `at most ${b}`;
  return `${a}${/[<>]/.test(a + b) ? ' to ' : '–'}${b}`;
}

/**
 * Two values that are compared, with as many digits as it takes to see which is the larger: three, and more where both
 * would read alike.
 *
 * @param first SI
 * @param second SI
 * @example formatAgainst(2.7996, 2.8, 'ratio') // ['2.7996 : 1', '2.8 : 1']
 */
export function formatAgainst(
  first: number,
  second: number,
  id: QuantityId,
  choice: UnitChoice = {},
): [string, string] {
  const unit = displayUnit(id, choice);
  const range = rangeOf(id, unit);
  const say = (si: number, digits: number) => `${tell(fromSi(si, unit), digits, range)}${unitGap(unit.symbol)}`;
  for (let digits = 3; digits < 12; digits++) {
    const both: [string, string] = [say(first, digits), say(second, digits)];
    if (both[0] !== both[1] || first === second) return both;
  }
  return [say(first, 12), say(second, 12)];
}

/** `4.1 ′ (3.2–5.6)` in one string. */
export function sayBanded(f: Banded, id: QuantityId, choice: UnitChoice = {}): string {
  const { value, band, unit } = formatBanded(f, id, choice);
  return `${value}${unitGap(unit)}${band ? ` ${band}` : ''}`;
}

/**
 * The quantity of a difference of two values, or of an uncertainty: a difference of temperatures has no zero of its own.
 *
 * @example differenceOf('temperature') // 'temperatureRise'
 */
export const differenceOf = (id: QuantityId): QuantityId => (id === 'temperature' ? 'temperatureRise' : id);

/** `4.7 ± 0.6 ′`: a measured value with its expanded uncertainty. */
export function sayUncertain(value: number, uncertainty: number, id: QuantityId, choice: UnitChoice = {}): string {
  const unit = displayUnit(id, choice);
  const v = fromSi(value, unit);
  const spread = uncertainty / unit.factor;
  if (!(spread > 0) || !Number.isFinite(spread)) return `${plainNumber(v, 4)}${unitGap(unit.symbol)}`;
  const places = decimalsFor(spread);
  return `${group(v.toFixed(places))} ± ${group(spread.toFixed(places))}${unitGap(unit.symbol)}`;
}
