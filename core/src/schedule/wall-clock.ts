/**
 * Times of a plan are seconds since 1970 by the clock on the wall: a day has 86 400 of them whatever the country does
 * with its clocks, so that eight hours from nine o’clock end at five.
 */
export type WallTime = number;

export const DAY = 86400;
export const HOUR = 3600;

/** Days since 1970 of a day as ISO 8601 writes it; what stands behind the day is left aside. */
export const dayNumber = (text: string): number =>
  Math.round(Date.UTC(Number(text.slice(0, 4)), Number(text.slice(5, 7)) - 1, Number(text.slice(8, 10))) / (DAY * 1e3));

/**
 * Midnight at which a day begins.
 *
 * @example startOf('1970-01-03') // 172800
 */
export const startOf = (day: string): WallTime => dayNumber(day) * DAY;

/** The day that a time lies in, as ISO 8601 writes it. */
export const dayOf = (t: WallTime): string => new Date(Math.floor(t / DAY) * DAY * 1e3).toISOString().slice(0, 10);

/**
 * A day and time as ISO 8601 writes it, to the minute.
 *
 * @example atClock(startOf('2026-11-29') + 9.5 * 3600) // '2026-11-29T09:30'
 */
export const atClock = (t: WallTime): string => new Date(Math.round(t / 60) * 60e3).toISOString().slice(0, 16);

/**
 * A day or moment of a file by the clock on the wall; a moment that is told with its zone by the reader's own.
 *
 * @param offset minutes that the reader's clock is ahead of universal time, for a moment with a zone
 */
export function wallTime(text: string, offset = 0): WallTime {
  const bare = /T/.test(text) ? text : `${text}T00:00`;
  const zoned = /(Z|[+-]\d{2}:?\d{2})$/.test(bare);
  return Date.parse(zoned ? bare : `${bare}Z`) / 1e3 + (zoned ? offset * 60 : 0);
}

/**
 * Weekday of a day, Monday 0. 1970 began on a Thursday.
 *
 * @example weekday(dayNumber('2026-11-29')) // 6
 */
export const weekday = (day: number): number => (((day + 3) % 7) + 7) % 7;
