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
    const [x, y] = [a[i]!, b[i]!];
    if (x > y + slack * Math.abs(y)) return false;
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
  const left = aims.map((_, i) => i);
  while (left.length > most) {
    const apart = crowding(left.map((i) => aims[i]!));
    // A tenth at a time while there are many: what one leaves behind stands further apart.
    const go = Math.max(1, Math.floor((left.length - most) / 10));
    const limit = Float64Array.from(apart).sort()[go - 1]!;
    for (let k = left.length - 1, gone = 0; k >= 0 && gone < go; k--)
      if (apart[k]! <= limit) {
        left.splice(k, 1);
        gone++;
      }
  }
  return left;
}

function crowding(aims: readonly ArrayLike<number>[]): Float64Array {
  const out = new Float64Array(aims.length);
  const count = aims[0]?.length ?? 0;
  for (let d = 0; d < count; d++) {
    const at = aims.map((a) => Math.log(Math.max(a[d]!, 1e-12)));
    const order = at.map((_, i) => i).sort((p, q) => at[p]! - at[q]!);
    const span = at[order[order.length - 1]!]! - at[order[0]!]!;
    if (!(span > 0)) continue;
    out[order[0]!] = out[order[order.length - 1]!] = Infinity;
    for (let k = 1; k + 1 < order.length; k++) out[order[k]!]! += (at[order[k + 1]!]! - at[order[k - 1]!]!) / span;
  }
  return out;
}
