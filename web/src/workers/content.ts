/** Contents that are remembered by their text; beyond them a content comes up under a new number. */
const MOST = 1500;

const byIdentity = new WeakMap<object, number>();
const byText = new Map<string, number>();
let counter = 0;

/**
 * A number that stands for what an object holds: the same for equal contents. The text of an object is made once, for
 * immer shares what did not change: keys of queries are compared at every render, and hashing hundreds of tests or
 * thirty variants each time would not pay.
 *
 * @example contentId({ a: 1 }) === contentId({ a: 1 }) // true
 */
export function contentId(o: object | undefined | null): number {
  if (!o) return 0;
  const known = byIdentity.get(o);
  if (known !== undefined) return known;
  const text = JSON.stringify(o);
  const id = byText.get(text) ?? ++counter;
  byText.delete(text);
  byText.set(text, id);
  if (byText.size > MOST) byText.delete(byText.keys().next().value!);
  byIdentity.set(o, id);
  return id;
}

const inOrder = new WeakMap<object, object>();

/**
 * The same object with its keys in order and nothing that is undefined: what was kept and read again has its keys in the
 * order of its schema.
 */
export function ordered<T extends object>(o: T): T {
  const known = inOrder.get(o);
  if (known) return known as T;
  const sort = (x: unknown): unknown =>
    Array.isArray(x)
      ? x.map(sort)
      : x && typeof x === 'object'
        ? Object.fromEntries(
            Object.entries(x)
              .filter(([, v]) => v !== undefined)
              .sort(([a], [b]) => (a < b ? -1 : 1))
              .map(([k, v]) => [k, sort(v)]),
          )
        : x;
  const made = sort(o) as T;
  inOrder.set(o, made);
  return made;
}
