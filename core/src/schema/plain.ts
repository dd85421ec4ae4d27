import { refuse, type Problem } from '../result.ts';

/**
 * How deep a record may be nested. A joint needs ten; unknown fields of other programs are kept, so there is room for
 * theirs.
 */
export const MAX_DEPTH = 64;

/**
 * What JSON could not carry in a record, or no reader could follow: numbers that are not finite, values that are no
 * data, nesting without end.
 *
 * Walks without recursion, since what is too deep for a file is too deep for a stack.
 *
 * @param at the record's own place, put before the places within it
 * @returns the first problem with its place; undefined where the record is plain data
 */
export function notPlain(raw: unknown, at = ''): Problem | undefined {
  const todo: { value: unknown; place: string; depth: number }[] = [{ value: raw, place: at, depth: 0 }];
  for (let next = todo.pop(); next; next = todo.pop()) {
    const { value, place, depth } = next;
    if (typeof value === 'number') {
      if (!Number.isFinite(value))
        return refuse(
          `The value at ${place || 'its start'} is not a finite number.`,
          'It is too large to hold, or the result of a division by zero.',
          'Give an ordinary number.',
          place,
        ).problem;
      continue;
    }
    if (value === null || value === undefined || typeof value === 'string' || typeof value === 'boolean') continue;
    if (typeof value !== 'object')
      return refuse(
        `The value at ${place || 'its start'} is no data.`,
        'A file holds text, numbers, lists and records.',
        'Leave it out.',
        place,
      ).problem;
    if (depth >= MAX_DEPTH)
      return refuse(
        `It is nested more than ${MAX_DEPTH} deep.`,
        `Lists and records lie within one another without end at ${place.split('.').slice(0, 4).join('.')}.`,
        'Flatten that field, or leave it out.',
        place.split('.').slice(0, 4).join('.'),
      ).problem;
    const under = (key: string | number) => (place === '' ? String(key) : `${place}.${String(key).slice(0, 40)}`);
    if (Array.isArray(value))
      for (let i = value.length - 1; i >= 0; i--) todo.push({ value: value[i], place: under(i), depth: depth + 1 });
    else
      for (const key of Object.keys(value).reverse())
        todo.push({ value: (value as Record<string, unknown>)[key], place: under(key), depth: depth + 1 });
  }
  return undefined;
}
