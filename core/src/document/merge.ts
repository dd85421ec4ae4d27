type Raw = Readonly<Record<string, unknown>>;
const isRecord = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);

/** Two sets of changes as one, or the place at which they contradict each other. */
export type Merged<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly place: string };

/** Whether two values say the same, as JSON would. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((x, i) => same(x, b[i]));
  if (!isRecord(a) || !isRecord(b)) return false;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].every((k) => same(a[k], b[k]));
}

/** The entries of a list by identifier; undefined where it is no such list. */
function byId(list: unknown): Map<string, unknown> | undefined {
  if (!Array.isArray(list)) return undefined;
  const out = new Map<string, unknown>();
  for (const x of list) {
    const id: unknown = isRecord(x) ? x['id'] : undefined;
    if (typeof id !== 'string' || out.has(id)) return undefined;
    out.set(id, x);
  }
  return out;
}

/** How a contradiction at a place is settled: `undefined` leaves it to a person. */
export type Settle = (place: string, mine: unknown, theirs: unknown) => 'mine' | 'theirs' | undefined;

/**
 * Merges what two sides made of the same beginning, key by key and, in lists of things with an `id`, thing by thing.
 * What only one side touched is taken from it; what both made alike is taken once.
 *
 * @param settle decides where both changed the same value; without it, or where it does not decide, the merge ends with
 *   that place
 * @example mergeThree({ a: 1, b: 1 }, { a: 2, b: 1 }, { a: 1, b: 3 }) // { ok: true, value: { a: 2, b: 3 } }
 */
export function mergeThree<T>(base: T, mine: T, theirs: T, settle: Settle = () => undefined, place = ''): Merged<T> {
  if (same(mine, theirs) || same(base, theirs)) return { ok: true, value: mine };
  if (same(base, mine)) return { ok: true, value: theirs };
  const under = (key: string) => (place ? `${place}.${key}` : key);
  const lists = [base ?? [], mine, theirs].map(byId);
  if (lists.every((l) => l !== undefined) && lists[1] && lists[2]) {
    const [was, own, other] = lists as [Map<string, unknown>, Map<string, unknown>, Map<string, unknown>];
    const out: unknown[] = [];
    for (const id of new Set([...other.keys(), ...own.keys()])) {
      const merged = mergeThree<unknown>(was.get(id), own.get(id), other.get(id), settle, under(id));
      if (!merged.ok) return merged;
      if (merged.value !== undefined) out.push(merged.value);
    }
    // An order that this side alone changed stands; entries of the other side follow.
    const order = (keys: Iterable<string>, among: ReadonlyMap<string, unknown>) =>
      [...keys].filter((k) => among.has(k)).join('\n');
    if (order(own.keys(), was) !== order(was.keys(), own)) out.sort((a, b) => rank(a, own) - rank(b, own));
    return { ok: true, value: out as T };
  }
  if (isRecord(mine) && isRecord(theirs)) {
    const was: Raw = isRecord(base) ? base : {};
    const out: Record<string, unknown> = {};
    for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
      const merged = mergeThree<unknown>(was[key], mine[key], theirs[key], settle, under(key));
      if (!merged.ok) return merged;
      if (merged.value !== undefined) out[key] = merged.value;
    }
    return { ok: true, value: out as T };
  }
  const which = settle(place, mine, theirs);
  return which === 'mine'
    ? { ok: true, value: mine }
    : which === 'theirs'
      ? { ok: true, value: theirs }
      : { ok: false, place };
}

const rank = (x: unknown, order: ReadonlyMap<string, unknown>): number => {
  const at = [...order.keys()].indexOf((x as { id: string }).id);
  return at < 0 ? order.size : at;
};

/**
 * What of a joint says nothing that could contradict: when it was changed (the later counts), and which variant is open
 * (one's own).
 */
export const settleJoint: Settle = (place, mine, theirs) =>
  place === 'changed'
    ? String(mine) >= String(theirs)
      ? 'mine'
      : 'theirs'
    : place === 'activeVariant'
      ? 'mine'
      : undefined;
