import { normalSolver } from './regress.ts';

/** Sums over n even places about their middle, t = −(n − 1)/2 … (n − 1)/2 by ones. */
export interface WaveSums {
  /** Σ cos(xt). */
  readonly plain: number;
  /** Σ t·sin(xt). */
  readonly once: number;
  /** Σ t²·cos(xt). */
  readonly twice: number;
}

/**
 * Sums of a wave over n even places about their middle, without going through them.
 *
 * @param x angle from one place to the next, rad
 * @param n places
 * Source: Dirichlet's kernel D(x) = sin(nx/2)/sin(x/2) and its derivatives, once = −D′, twice = −D″. Where the whole
 * length holds less than a sixth of a wave these take nearly equal numbers from each other, and the sums are made.
 * @example waveSums(0, 3).twice // 2
 */
export function waveSums(x: number, n: number): WaveSums {
  if (x === 0) return { plain: n, once: 0, twice: (n * (n * n - 1)) / 12 };
  const around = x - 2 * Math.PI * Math.round(x / (2 * Math.PI));
  if (Math.abs(around) * n < 1) return addedUp(x, n);
  const s = Math.sin(x / 2);
  const c = Math.cos(x / 2);
  const S = Math.sin((n * x) / 2);
  const C = Math.cos((n * x) / 2);
  const plain = S / s;
  const first = ((n * C) / s - (c / s) * plain) / 2;
  const second = ((1 - n * n) * plain - (4 * c * first) / s) / 4;
  return { plain, once: -first, twice: -second };
}

function addedUp(x: number, n: number): WaveSums {
  let plain = 0;
  let once = 0;
  let twice = 0;
  for (let i = 0; i < n; i++) {
    const t = i - (n - 1) / 2;
    const c = Math.cos(x * t);
    plain += c;
    once += t * Math.sin(x * t);
    twice += t * t * c;
  }
  return { plain, once, twice };
}

/** Places after which a wave that is turned on from one to the next is worked out anew. */
const ANEW = 64;

/** Hears places `from` to `to` of a wave: cosine and sine of x·t at each. */
type Hears = (cos: Float64Array, sin: Float64Array, from: number, to: number) => void;

/** Goes through a wave in short stretches, turned on from one place to the next: twenty times as fast as asking for each. */
function through(x: number, n: number, hears: Hears): void {
  const c1 = Math.cos(x);
  const s1 = Math.sin(x);
  const cos = new Float64Array(ANEW);
  const sin = new Float64Array(ANEW);
  for (let from = 0; from < n; from += ANEW) {
    const to = Math.min(n, from + ANEW);
    let c = Math.cos(x * (from - (n - 1) / 2));
    let s = Math.sin(x * (from - (n - 1) / 2));
    for (let i = 0; i < to - from; i++) {
      cos[i] = c;
      sin[i] = s;
      const next = c * c1 - s * s1;
      s = s * c1 + c * s1;
      c = next;
    }
    hears(cos, sin, from, to);
  }
}

/** What belongs to a wave's cosine, and to its sine, about the middle of the places. */
export interface Parts {
  readonly cos: number;
  readonly sin: number;
}

function productsWith(values: Float64Array, x: number): Parts {
  let ofCos = 0;
  let ofSin = 0;
  through(x, values.length, (cos, sin, from, to) => {
    for (let i = from; i < to; i++) {
      ofCos += values[i]! * cos[i - from]!;
      ofSin += values[i]! * sin[i - from]!;
    }
  });
  return { cos: ofCos, sin: ofSin };
}

function takeWaveOut(values: Float64Array, x: number, { cos: a, sin: b }: Parts): void {
  through(x, values.length, (cos, sin, from, to) => {
    for (let i = from; i < to; i++) values[i]! -= a * cos[i - from]! + b * sin[i - from]!;
  });
}

/** A constant and waves fitted to values at even places. */
export interface WaveFit {
  /** Angle from one place to the next of each wave, rad. */
  readonly waves: readonly number[];
  readonly parts: readonly Parts[];
  /** What is left of the values. */
  readonly rest: Float64Array;
  /** Sum of its squares. */
  readonly rss: number;
}

/** Products of a constant and both parts of each wave with each other: 1, cos, sin, cos, sin …, with room for more. */
function products(waves: readonly number[], n: number, more = 0): Float64Array[] {
  const size = 1 + 2 * waves.length + more;
  const A = Array.from({ length: size }, () => new Float64Array(size));
  A[0]![0] = n;
  waves.forEach((x, k) => {
    const at = 1 + 2 * k;
    A[0]![at] = A[at]![0] = waveSums(x, n).plain;
    for (let j = 0; j <= k; j++) {
      const to = 1 + 2 * j;
      const less = waveSums(x - waves[j]!, n).plain;
      const sum = waveSums(x + waves[j]!, n).plain;
      A[at]![to] = A[to]![at] = (less + sum) / 2;
      A[at + 1]![to + 1] = A[to + 1]![at + 1] = (less - sum) / 2;
    }
  });
  return A;
}

/**
 * Values at even places, to be told by a constant and a few waves. Products of waves with each other are known without
 * going through the places, and those with the values are made once a wave.
 */
export class EvenValues {
  private readonly kept = new Map<number, Parts>();
  private readonly sum: number;

  constructor(private readonly values: Float64Array) {
    this.sum = values.reduce((s, v) => s + v, 0);
  }

  /**
   * Least squares of a constant and waves of given lengths.
   *
   * @param waves angle from one place to the next of each, rad, above 0 and below π
   * @returns undefined where the places do not tell the waves apart
   * @example new EvenValues(Float64Array.of(1, 3, 1, -1, 1, 3, 1, -1)).fit([Math.PI / 2]).rss // 0
   */
  fit(waves: readonly number[]): WaveFit | undefined {
    const solve = normalSolver(products(waves, this.values.length));
    if (!solve) return undefined;
    const right = waves.flatMap((x) => [this.productsWith(x).cos, this.productsWith(x).sin]);
    const all = solve(Float64Array.of(this.sum, ...right));
    const parts = waves.map((_, k): Parts => ({ cos: all[1 + 2 * k]!, sin: all[2 + 2 * k]! }));
    const rest = this.values.map((v) => v - all[0]!);
    waves.forEach((x, k) => takeWaveOut(rest, x, parts[k]!));
    return { waves, parts, rest, rss: rest.reduce((s, v) => s + v * v, 0) };
  }

  private productsWith(x: number): Parts {
    const before = this.kept.get(x);
    if (before) return before;
    const now = productsWith(this.values, x);
    this.kept.set(x, now);
    return now;
  }
}

/**
 * How far each of some waves of a fit would move by one step of Gauss and Newton, all parts moving along.
 *
 * @param free places in `fit.waves` of those that may move
 * @returns changes of angle from one place to the next, rad; undefined where the places do not tell them
 * Source: a wave a·cos(xt) + b·sin(xt) changes with x by t·(b·cos(xt) − a·sin(xt)); what is left of a fit is square to
 * its constant and waves, so that only its products with these are made.
 */
export function stepOfWaves(fit: WaveFit, free: readonly number[]): number[] | undefined {
  const { waves, parts, rest } = fit;
  const n = rest.length;
  const first = 1 + 2 * waves.length;
  const A = products(waves, n, free.length);
  const right = new Float64Array(A.length);
  const moment = rest.map((v, i) => v * (i - (n - 1) / 2));
  free.forEach((k, f) => {
    const x = waves[k]!;
    const { cos: a, sin: b } = parts[k]!;
    const row = first + f;
    A[row]![0] = A[0]![row] = -a * waveSums(x, n).once;
    waves.forEach((y, j) => {
      const less = waveSums(x - y, n).once;
      const sum = waveSums(x + y, n).once;
      A[row]![1 + 2 * j] = A[1 + 2 * j]![row] = (-a * (sum + less)) / 2;
      A[row]![2 + 2 * j] = A[2 + 2 * j]![row] = (b * (sum - less)) / 2;
    });
    free.slice(0, f + 1).forEach((l, g) => {
      const other = parts[l]!;
      const less = waveSums(x - waves[l]!, n).twice;
      const sum = waveSums(x + waves[l]!, n).twice;
      A[row]![first + g] = A[first + g]![row] = (b * other.sin * (less + sum) + a * other.cos * (less - sum)) / 2;
    });
    const left = productsWith(moment, x);
    right[row] = b * left.cos - a * left.sin;
  });
  const all = normalSolver(A)?.(right);
  return all && Array.from(all.subarray(first));
}
