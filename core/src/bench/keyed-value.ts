import { parseQuantity } from '../units/parse.ts';
import { QUANTITIES, type QuantityId } from '../units/quantity.ts';
import { MOST_SAMPLE } from './recording.ts';

/** A name as it is compared: lower case, words apart. */
export const tidy = (s: string): string =>
  s
    .toLowerCase()
    .replace(/[_\-./]+/g, ' ')
    .trim();

const TAILS: Readonly<Record<string, string>> = {
  nm: 'N·m',
  mm: 'mm',
  um: 'µm',
  m: 'm',
  deg: '°',
  rad: 'rad',
  mrad: 'mrad',
  arcmin: '′',
  arcsec: '″',
  s: 's',
  ms: 'ms',
  min: 'min',
  kg: 'kg',
  g: 'g',
  n: 'N',
  a: 'A',
  w: 'W',
  rpm: 'rpm',
  hz: 'Hz',
  c: '°C',
  degc: '°C',
  k: 'K',
};

/** The value of a key that names a column, with the unit of its tail; bare numbers are SI. */
export function keyed(
  raw: Readonly<Record<string, unknown>>,
  words: readonly string[],
  id: string,
  quantity: QuantityId,
): { value: unknown; unit: string | undefined } | undefined {
  for (const [key, value] of Object.entries(raw)) {
    const parts = tidy(key).split(' ');
    const tail = parts.length > 1 ? TAILS[parts[parts.length - 1]!] : undefined;
    const name = tail ? parts.slice(0, -1).join(' ') : parts.join(' ');
    if (name !== tidy(id) && !words.includes(name)) continue;
    // Under the unit of something else a number is none of this quantity.
    if (tail && parts[parts.length - 1]!.length > 1 && !QUANTITIES[quantity].units.some((u) => u.symbol === tail))
      continue;
    return { value, unit: tail && QUANTITIES[quantity].units.some((u) => u.symbol === tail) ? tail : undefined };
  }
  return undefined;
}

/**
 * A value as text or number in SI; undefined where it is none of the quantity.
 *
 * @param unit unit a bare number stands in; then `fallback`, then SI
 * @example siOf('3 mm', 'length', undefined) // 0.003
 */
export function siOf(
  value: unknown,
  quantity: QuantityId,
  unit: string | undefined,
  fallback?: string,
): number | undefined {
  if (typeof value === 'string') {
    const read = parseQuantity(value, quantity, unit ?? fallback);
    return read.ok && Math.abs(read.value.si) <= MOST_SAMPLE ? read.value.si : undefined;
  }
  if (typeof value !== 'number' || !Number.isFinite(value)) return undefined;
  const q = QUANTITIES[quantity];
  const u = q.units.find((x) => x.symbol === (unit ?? fallback)) ?? q.units[0]!;
  const inSi = value * u.factor + (u.offset ?? 0);
  return Math.abs(inSi) <= MOST_SAMPLE ? inSi : undefined;
}
