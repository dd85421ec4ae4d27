import { mean, sampleStandardDeviation } from 'simple-statistics';
import { seeded } from '../math/random.ts';

/** Deviations at one target, approached from below and from above. */
export interface TargetRuns {
  readonly target: number;
  readonly up: readonly number[];
  readonly down: readonly number[];
}

export interface TargetResult {
  readonly target: number;
  readonly meanUp: number;
  readonly meanDown: number;
  readonly sUp: number;
  readonly sDown: number;
  /** Both directions together. */
  readonly mean: number;
  readonly reversal: number;
  readonly repeatability: number;
}

export interface PositioningResult {
  readonly targets: readonly TargetResult[];
  readonly reversal: number;
  readonly meanReversal: number;
  readonly repeatabilityUp: number;
  readonly repeatabilityDown: number;
  readonly repeatability: number;
  readonly systematic: number;
  readonly meanDeviation: number;
  readonly accuracy: number;
}

const spread = (list: readonly number[]): number => (list.length > 1 ? sampleStandardDeviation([...list]) : 0);

/** Mean and spread of the stops at a target from one side; NaN and 0 where it was not approached from there. */
interface Side {
  readonly mean: number;
  readonly s: number;
  readonly n: number;
}
interface Stops {
  readonly target: number;
  readonly up: Side;
  readonly down: Side;
}

const sideOf = (list: readonly number[]): Side => ({
  mean: list.length ? mean([...list]) : NaN,
  s: spread(list),
  n: list.length,
});
const stopsOf = (runs: readonly TargetRuns[]): Stops[] =>
  runs.map(({ target, up, down }) => ({ target, up: sideOf(up), down: sideOf(down) }));

/** The figures of the standard from means and spreads. */
function figuresOf(stops: readonly Stops[]): PositioningResult {
  const targets = stops.map(({ target, up, down }): TargetResult => {
    const both = Number.isFinite(up.mean) && Number.isFinite(down.mean);
    const reversal = both ? up.mean - down.mean : 0;
    return {
      target,
      meanUp: up.mean,
      meanDown: down.mean,
      sUp: up.s,
      sDown: down.s,
      mean: both ? (up.mean + down.mean) / 2 : Number.isFinite(up.mean) ? up.mean : down.mean,
      reversal,
      repeatability: both
        ? Math.max(2 * up.s + 2 * down.s + Math.abs(reversal), 4 * up.s, 4 * down.s)
        : 4 * Math.max(up.s, down.s),
    };
  });
  const known = (pick: (t: TargetResult) => number) => targets.map(pick).filter(Number.isFinite);
  const most = (list: readonly number[]) => (list.length ? Math.max(...list) : 0);
  const range = (high: readonly number[], low: readonly number[]) => Math.max(...high) - Math.min(...low);
  const means = [...known((t) => t.meanUp), ...known((t) => t.meanDown)];
  return {
    targets,
    reversal: most(targets.map((t) => Math.abs(t.reversal))),
    meanReversal: targets.reduce((s, t) => s + t.reversal, 0) / targets.length,
    repeatabilityUp: 4 * most(targets.map((t) => t.sUp)),
    repeatabilityDown: 4 * most(targets.map((t) => t.sDown)),
    repeatability: most(targets.map((t) => t.repeatability)),
    systematic: range(means, means),
    meanDeviation: range(
      targets.map((t) => t.mean),
      targets.map((t) => t.mean),
    ),
    accuracy: range(
      [...known((t) => t.meanUp + 2 * t.sUp), ...known((t) => t.meanDown + 2 * t.sDown)],
      [...known((t) => t.meanUp - 2 * t.sUp), ...known((t) => t.meanDown - 2 * t.sDown)],
    ),
  };
}

/**
 * Accuracy and repeatability of positioning.
 *
 * Source: ISO 230-2:2014: x̄ᵢ↑, x̄ᵢ↓, sᵢ; Bᵢ = x̄ᵢ↑ − x̄ᵢ↓; Rᵢ = max(2sᵢ↑ + 2sᵢ↓ + |Bᵢ|, 4sᵢ↑, 4sᵢ↓); E, M and A over
 * all targets.
 */
export const positioningIso = (runs: readonly TargetRuns[]): PositioningResult => figuresOf(stopsOf(runs));

/** Figures of the standard that are known to so much, 95 %. */
export type PositioningBands = Readonly<Record<Exclude<keyof PositioningResult, 'targets'>, Band>>;

/** What a figure is known to. */
export interface Band {
  /** Half of what holds the axis’s own figure in 95 of 100, about the one that was read. */
  readonly U: number;
  /** How much more is read of so few runs than the axis has, on average. */
  readonly high: number;
}

/** Times the stops are drawn anew: fewer where there are hundreds of targets, which would take a second. */
const drawsFor = (targets: number): number => Math.max(100, Math.min(400, Math.round(20_000 / targets)));

/**
 * How well so few runs tell the figures. The largest of several targets' spreads is larger than the axis's own, and the
 * more so the fewer runs and the more targets: axes that could have made these stops are drawn, stops on them as well,
 * and what is read of those is held against what each axis has.
 *
 * Source: parametric bootstrap (Efron and Tibshirani, 1993); means, reversals and spreads of single targets lie about
 * those of all by what they show beyond chance (James and Stein).
 */
export function positioningBands(runs: readonly TargetRuns[]): PositioningBands {
  const stops = stopsOf(runs);
  const read = figuresOf(stops);
  const next = seeded(41);
  const normal = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  const { axis, turns } = axesBehind(stops, normal);
  const draws = Array.from({ length: drawsFor(stops.length) }, () => {
    const own = axis();
    const again = own.map(({ target, up, down }) => ({
      target,
      up: stoppedAgain(up, normal),
      down: stoppedAgain(down, normal),
    }));
    return { own: figuresOf(own), read: figuresOf(again) };
  });
  const ids = Object.keys(draws[0]!.own).filter((id): id is keyof PositioningBands => id !== 'targets');
  return Object.fromEntries(
    ids.map((id) => {
      const off = draws.map((d) => d.read[id] - d.own[id]);
      const sizes = off.map(Math.abs).sort((a, b) => a - b);
      const U = sizes[Math.ceil(0.95 * sizes.length) - 1]!;
      // Where nothing tells that it turns at all, it may be none.
      return [id, { U: id === 'reversal' && !turns ? Math.max(U, read.reversal) : U, high: mean(off) }];
    }),
  ) as PositioningBands;
}

/** Mean and spread of as many stops again. */
const stoppedAgain = ({ mean: middle, s, n }: Side, normal: () => number): Side => ({
  mean: middle + (n > 0 ? (s * normal()) / Math.sqrt(n) : 0),
  s: n > 1 ? s * Math.sqrt(chiSquare(n - 1, normal) / (n - 1)) : 0,
  n,
});

/**
 * Draws of the true values behind some that were each read with a variance of `own`: about their mean, which is not
 * known exactly, by what they show beyond chance.
 *
 * @param aboutNought whether their mean may well be nought
 * @returns what gives one set of them at each call, and whether they may be none
 */
function truthsBehind(
  values: readonly number[],
  own: number,
  normal: () => number,
  aboutNought = false,
): { readonly draw: () => number[]; readonly none: boolean } {
  const n = values.length;
  if (n === 0) return { draw: () => [], none: true };
  const middle = mean([...values]);
  const seen = n > 1 ? sampleStandardDeviation([...values]) ** 2 : 0;
  const keep = seen > own * chance95(n - 1) ? 1 - own / seen : 0;
  const common = Math.sqrt(Math.max(own, keep * seen) / n);
  // A mean that cannot be told from none may be none.
  const none = aboutNought && Math.abs(middle) < 1.96 * common;
  const draw = () => {
    const shift = none ? -middle : common * normal();
    return values.map((v) => middle + keep * (v - middle) + shift);
  };
  return { draw, none };
}

/**
 * What a variance of so many degrees of freedom exceeds by chance in five of a hundred, as a share of its own.
 * Source: Wilson and Hilferty, 1931; χ² of ten at 95 % is 18.307, which this misses by a part in a thousand.
 * @example chance95(10) // 1.8293
 */
export const chance95 = (dof: number): number => (1 - 2 / (9 * dof) + 1.645 * Math.sqrt(2 / (9 * dof))) ** 3;

/**
 * Variance of the logarithm of a variance with so many degrees of freedom: the trigamma function of half of them.
 * Its series; ψ₁(2) is π²/6 − 1 = 0.6449.
 * @example logVariance(4) // 0.6458
 */
export const logVariance = (dof: number): number => 2 / dof + 2 / dof ** 2 + 4 / (3 * dof ** 3);

/** Draws axes that could have made these stops, and says whether they show any reversal. */
function axesBehind(
  stops: readonly Stops[],
  normal: () => number,
): { readonly axis: () => Stops[]; readonly turns: boolean } {
  const sides = stops.flatMap((t) => [t.up, t.down]).filter((q) => q.n > 1);
  const dof = sides.reduce((s, q) => s + q.n - 1, 0);
  const pooled = sides.reduce((s, q) => s + (q.n - 1) * q.s ** 2, 0) / dof;
  const runs = sides.reduce((s, q) => s + q.n, 0) / sides.length;
  // Spreads of nothing have no logarithm: all sides are taken to be alike then.
  const spreads = truthsBehind(
    sides.map((q) => (sides.every((w) => w.s > 0) ? Math.log(q.s ** 2) : 0)),
    logVariance(runs - 1),
    normal,
  );
  const both = stops.filter((t) => t.up.n > 0 && t.down.n > 0);
  const reversals = truthsBehind(
    both.map((t) => t.up.mean - t.down.mean),
    (2 * pooled) / runs,
    normal,
    true,
  );
  const middles = truthsBehind(
    stops.map((t) => figuresOf([t]).targets[0]!.mean),
    pooled / runs / (both.length ? 2 : 1),
    normal,
  );
  const numbered = new Map(sides.map((q, i) => [q, i]));
  const pairs = new Map(both.map((t, i) => [t, i]));
  const axis = (): Stops[] => {
    const v = spreads.draw().map(Math.exp);
    const level = v.reduce((s, x) => s + x, 0) / v.length;
    const chi = chiSquare(dof, normal);
    const b = reversals.draw();
    const m = middles.draw();
    return stops.map((t, i) => {
      const pair = pairs.get(t);
      const half = pair === undefined ? 0 : b[pair]! / 2;
      const side = (q: Side, sign: 1 | -1): Side => {
        if (q.n === 0) return q;
        const k = numbered.get(q);
        const share = k === undefined ? 1 : v[k]! / level;
        return { mean: m[i]! + sign * half, s: Math.sqrt((share * pooled * dof) / chi), n: q.n };
      };
      return { target: t.target, up: side(t.up, 1), down: side(t.down, -1) };
    });
  };
  return { axis, turns: !reversals.none };
}

/** A draw of χ². Source: Wilson and Hilferty's cube from thirty degrees of freedom, where it is good to a per mille. */
function chiSquare(dof: number, normal: () => number): number {
  if (dof >= 30) return dof * (1 - 2 / (9 * dof) + normal() * Math.sqrt(2 / (9 * dof))) ** 3;
  let sum = 0;
  for (let k = 0; k < dof; k++) sum += normal() ** 2;
  return sum;
}
