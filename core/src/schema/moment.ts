import * as v from 'valibot';

const ISO = /^(\d{4})-(\d{2})-(\d{2})(T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:?\d{2})?)?$/;

/**
 * Whether a text is a day or a moment as ISO 8601 writes them and the calendar has: `2026-11-27`,
 * `2026-11-27T09:30:00Z`; not 30 February.
 */
export function isMoment(text: string): boolean {
  const found = ISO.exec(text);
  if (!found) return false;
  const [year, month, day] = [Number(found[1]), Number(found[2]), Number(found[3])];
  const date = new Date(Date.UTC(year, month - 1, day));
  // Years below 100 are counted from 1900 by the constructor, and nothing was measured then.
  return (
    year >= 100 && date.getUTCMonth() === month - 1 && date.getUTCDate() === day && Number.isFinite(Date.parse(text))
  );
}

/**
 * A date as people write it, as ISO 8601; undefined where it cannot be told.
 *
 * @example tidyMoment('27.11.2026') // '2026-11-27'
 */
export function tidyMoment(text: string): string | undefined {
  const bare = text.trim();
  if (isMoment(bare)) return bare;
  const pad = (x: string) => x.padStart(2, '0');
  const dayFirst = /^(\d{1,2})\.\s*(\d{1,2})\.\s*(\d{4})$/.exec(bare);
  const yearFirst = /^(\d{4})[./-](\d{1,2})[./-](\d{1,2})\b/.exec(bare);
  const told = dayFirst
    ? `${dayFirst[3]}-${pad(dayFirst[2]!)}-${pad(dayFirst[1]!)}`
    : yearFirst
      ? `${yearFirst[1]}-${pad(yearFirst[2]!)}-${pad(yearFirst[3]!)}`
      : undefined;
  return told && isMoment(told) ? told : undefined;
}

/** A day or moment in a file. */
export const moment = v.pipe(
  v.string('must be text'),
  v.check(isMoment, 'must be a date such as 2026-11-27, as ISO 8601 writes it'),
);

/** A day in a file, without a time. */
export const day = v.pipe(
  v.string('must be text'),
  v.check((text) => text.length === 10 && isMoment(text), 'must be a day such as 2026-11-27, as ISO 8601 writes it'),
);
