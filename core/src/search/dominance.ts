/**
 * Whether one is at least as good as another in everything, all objectives to be small, and better by more than a share
 * in something.
 *
 * @param slack share by which a worse one still counts as as good: 0.03 thins a set to what differs by 3 %
 * @example dominates([1, 2], [1, 3]) // true
 */
export function dominates(a: ArrayLike<number>, b: ArrayLike<number>, slack = 0): boolean {
  let better = slack > 0;
  for (let i = 0; i < a.length; i++) {
    const x = a[i]!;
    const y = b[i]!;
    if (x > y + slack * (y < 0 ? -y : y)) return false;
    if (x < y) better = true;
  }
  return better;
}

/** A set of which none dominates another; what comes in throws out what it dominates. */
export class NonDominated<T> {
  readonly items: { readonly of: T; readonly aims: Float64Array }[] = [];

  /** @param slack share within which two count as alike */
  constructor(private readonly slack = 0) {}

  /** Whether one with these aims would come in. */
  welcomes(aims: ArrayLike<number>): boolean {
    const { items } = this;
    for (let i = 0; i < items.length; i++) {
      if (!dominates(items[i]!.aims, aims, this.slack)) continue;
      // What throws one out will throw out the next as well: it is asked first.
      if (i > 0) [items[0], items[i]] = [items[i]!, items[0]!];
      return false;
    }
    return true;
  }

  /** Takes one in, if nothing dominates it. */
  take(of: T, aims: ArrayLike<number>): boolean {
    if (!this.welcomes(aims)) return false;
    const own = Float64Array.from(aims);
    let kept = 0;
    for (const x of this.items) if (!dominates(own, x.aims)) this.items[kept++] = x;
    this.items.length = kept;
    this.items.push({ of, aims: own });
    return true;
  }
}

/**
 * Picks as many as asked, the ends of every objective first, then what stands most apart.
 *
 * Source: crowding distance over the logarithm of each objective (Deb et al., NSGA-II, 2002).
 *
 * @param aims objectives of each, all positive
 * @returns places of those picked, in the order they stood
 */
export function spreadOut(aims: readonly ArrayLike<number>[], most: number): number[] {
  const count = aims.length;
  if (count <= most) return aims.map((_, i) => i);
  const objectives = Array.from({ length: aims[0]!.length }, (_, d) => inOrder(aims, d));
  const there = new Uint8Array(count).fill(1);
  const apart = new Float64Array(count);
  for (let left = count; left > most;) {
    apart.fill(0);
    for (const o of objectives) addCrowding(o, left, apart);
    // A tenth at a time while there are many: what one leaves behind stands further apart.
    const go = Math.max(1, Math.floor((left - most) / 10));
    const limit = leastOf(apart, there, left, go);
    for (let i = count - 1, gone = 0; i >= 0 && gone < go; i--) {
      if (there[i] === 0 || !(apart[i]! <= limit)) continue;
      there[i] = 0;
      gone++;
    }
    left -= go;
    for (const { order } of objectives) leaveOut(order, left + go, there);
  }
  return aims.flatMap((_, i) => (there[i] === 1 ? [i] : []));
}

/** One objective of all: its logarithms, and the places of those left in their order. */
interface InOrder {
  readonly at: Float64Array;
  readonly order: Uint32Array;
}

function inOrder(aims: readonly ArrayLike<number>[], objective: number): InOrder {
  const at = Float64Array.from(aims, (a) => Math.log(Math.max(a[objective]!, 1e-12)));
  const order = Uint32Array.from(at, (_, i) => i).sort((p, q) => at[p]! - at[q]! || p - q);
  return { at, order };
}

/** Adds how far the neighbours of each lie apart in one objective, as a share of all; the ends stand for themselves. */
function addCrowding({ at, order }: InOrder, left: number, apart: Float64Array): void {
  const first = order[0]!;
  const last = order[left - 1]!;
  const span = at[last]! - at[first]!;
  if (!(span > 0)) return;
  apart[first] = Infinity;
  apart[last] = Infinity;
  for (let k = 1; k + 1 < left; k++) apart[order[k]!]! += (at[order[k + 1]!]! - at[order[k - 1]!]!) / span;
}

/** The n-th least distance of those that are left. */
function leastOf(apart: Float64Array, there: Uint8Array, left: number, n: number): number {
  const some = new Float64Array(left);
  for (let i = 0, k = 0; i < apart.length; i++) if (there[i] === 1) some[k++] = apart[i]!;
  return some.sort()[n - 1]!;
}

/** Closes the gaps that those leave who are gone. */
function leaveOut(order: Uint32Array, before: number, there: Uint8Array): void {
  let kept = 0;
  for (let k = 0; k < before; k++) if (there[order[k]!] === 1) order[kept++] = order[k]!;
}
