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
  private readonly list: T[] = [];
  /** Aims of each, one after the other. */
  private flat = new Float64Array(0);
  private width = 0;

  /**
   * @param slack share within which two count as alike
   * @param most how many there may be: beyond that slack grows by half until there are fewer
   */
  constructor(
    private slack = 0,
    private readonly most = Infinity,
  ) {}

  /** What is in it, with its aims. */
  get items(): readonly { readonly of: T; readonly aims: Float64Array }[] {
    const { flat, width } = this;
    return this.list.map((of, i) => ({ of, aims: flat.slice(i * width, (i + 1) * width) }));
  }

  /** Whether one with these aims would come in. */
  welcomes(aims: ArrayLike<number>): boolean {
    const { flat, width, slack } = this;
    for (let i = 0, at = 0; i < this.list.length; i++, at += width) {
      let better = slack > 0;
      let k = 0;
      for (; k < width; k++) {
        const x = flat[at + k]!;
        const y = aims[k]!;
        if (x > y + slack * (y < 0 ? -y : y)) break;
        if (x < y) better = true;
      }
      if (k < width || !better) continue;
      // What throws one out will throw out the next as well: it is asked first.
      if (i > 0) this.swap(i, 0);
      return false;
    }
    return true;
  }

  /** Takes one in, if nothing dominates it. */
  take(of: T, aims: ArrayLike<number>): boolean {
    if (!this.welcomes(aims)) return false;
    this.width = aims.length;
    let kept = 0;
    for (let i = 0; i < this.list.length; i++) {
      if (this.worse(i, aims)) continue;
      if (kept < i) {
        this.list[kept] = this.list[i]!;
        this.flat.copyWithin(kept * this.width, i * this.width, (i + 1) * this.width);
      }
      kept++;
    }
    this.list.length = kept;
    this.put(of, aims);
    while (this.list.length > this.most && this.slack > 0) this.thin();
    return true;
  }

  private put(of: T, aims: ArrayLike<number>): void {
    const from = this.list.length * this.width;
    if (from + this.width > this.flat.length) {
      const wider = new Float64Array(2 * from + 8 * this.width);
      wider.set(this.flat);
      this.flat = wider;
    }
    this.flat.set(aims, from);
    this.list.push(of);
  }

  private thin(): void {
    const { items } = this;
    this.slack *= 1.5;
    this.list.length = 0;
    for (const { of, aims } of items) if (this.welcomes(aims)) this.put(of, aims);
  }

  /** Whether one in it is worse than these aims in something and better in nothing. */
  private worse(i: number, aims: ArrayLike<number>): boolean {
    const { flat, width } = this;
    let worse = false;
    for (let k = 0, at = i * width; k < width; k++, at++) {
      const y = flat[at]!;
      if (aims[k]! > y) return false;
      if (aims[k]! < y) worse = true;
    }
    return worse;
  }

  private swap(i: number, j: number): void {
    const { list, flat, width } = this;
    [list[i], list[j]] = [list[j]!, list[i]!];
    for (let k = 0; k < width; k++) {
      const v = flat[i * width + k]!;
      flat[i * width + k] = flat[j * width + k]!;
      flat[j * width + k] = v;
    }
  }
}

/** How many are kept to beat others, and how many once those that beat least have gone. */
const [MOST, LEFT] = [96, 48];

/**
 * The strongest of a growing set: who is beaten by several of them need not be looked at, even if some of those turn out
 * to be less than they seem. Some hundred are kept, those that beat most.
 */
export class Strongest {
  /** Aims of each, one after the other, as large as one must be that it beats. */
  private readonly beats: Float64Array;
  /** How often each has beaten one. */
  private readonly often = new Float64Array(MOST);
  private count = 0;

  /**
   * @param margins share by which each objective must be smaller
   * @param several how many it takes to beat one
   */
  constructor(
    private readonly margins: readonly number[],
    private readonly several: number,
  ) {
    this.beats = new Float64Array(MOST * margins.length);
  }

  /** Whether several of them beat one with these aims, all to be small. */
  beat(aims: ArrayLike<number>): boolean {
    const { beats, often, count, several } = this;
    const width = this.margins.length;
    let found = 0;
    for (let i = 0, at = 0; i < count; i++, at += width) {
      let k = 0;
      while (k < width && beats[at + k]! <= aims[k]!) k++;
      if (k < width) continue;
      often[i]!++;
      if (++found === several) return true;
    }
    return false;
  }

  /** Takes one in that is not beaten. */
  add(aims: ArrayLike<number>): void {
    if (this.count === MOST) this.thin();
    const at = this.count * this.margins.length;
    this.margins.forEach((m, k) => (this.beats[at + k] = aims[k]! / (1 - m)));
    this.often[this.count++] = 0;
  }

  /** Lets go those that beat least, and puts first those that beat most. */
  private thin(): void {
    const width = this.margins.length;
    const order = Array.from(this.often, (_, i) => i).sort((a, b) => this.often[b]! - this.often[a]! || a - b);
    const [beats, often] = [this.beats.slice(), this.often.slice()];
    for (let n = 0; n < LEFT; n++) {
      const i = order[n]!;
      this.beats.set(beats.subarray(i * width, (i + 1) * width), n * width);
      this.often[n] = often[i]! / 2;
    }
    this.count = LEFT;
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
