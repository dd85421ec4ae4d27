import { student95 } from './student.ts';

/** A straight line through points with what is known of it. */
export interface LineFit {
  readonly slope: number;
  readonly intercept: number;
  /** Standard uncertainties and covariance. */
  readonly uSlope: number;
  readonly uIntercept: number;
  readonly covariance: number;
  readonly dof: number;
  /** Standard deviation of the residuals. */
  readonly residual: number;
  readonly r2: number;
  /** Coverage factor for 95 %. */
  readonly k: number;
}

/**
 * Ordinary least squares of y on x; undefined where all x are the same or there are fewer than two points.
 *
 * Source: JCGM 100:2008, H.3.
 */
export function fitLine(x: ArrayLike<number>, y: ArrayLike<number>): LineFit | undefined {
  const n = x.length;
  if (n < 2) return undefined;
  let [mx, my] = [0, 0];
  for (let i = 0; i < n; i++) {
    mx += x[i]! / n;
    my += y[i]! / n;
  }
  let [sxx, sxy, syy] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const [dx, dy] = [x[i]! - mx, y[i]! - my];
    sxx += dx * dx;
    sxy += dx * dy;
    syy += dy * dy;
  }
  if (!(sxx > 1e-24 * (mx * mx + 1e-12))) return undefined;
  const slope = sxy / sxx;
  const intercept = my - slope * mx;
  const rss = Math.max(0, syy - slope * sxy);
  const dof = n - 2;
  const s = dof > 0 ? Math.sqrt(rss / dof) : 0;
  const uSlope = s / Math.sqrt(sxx);
  return {
    slope,
    intercept,
    uSlope,
    uIntercept: s * Math.sqrt(1 / n + (mx * mx) / sxx),
    covariance: (-mx * s * s) / sxx,
    dof,
    residual: s,
    r2: syy > 0 ? 1 - rss / syy : 1,
    k: dof > 0 ? student95(dof) : 12.706,
  };
}

/** Sum of a·b, each product times its weight where there are weights. */
function dot(a: Float64Array, b: Float64Array, weights: Float64Array | undefined): number {
  if (!weights) return plainDot(a, b);
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]! * weights[i]!;
  return sum;
}

/** Sum of a·b in four sums of their own: none waits for the one before. */
function plainDot(a: Float64Array, b: Float64Array): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  const whole = a.length & ~3;
  for (let i = 0; i < whole; i += 4) {
    s0 += a[i]! * b[i]!;
    s1 += a[i + 1]! * b[i + 1]!;
    s2 += a[i + 2]! * b[i + 2]!;
    s3 += a[i + 3]! * b[i + 3]!;
  }
  for (let i = whole; i < a.length; i++) s0 += a[i]! * b[i]!;
  return s0 + s1 + (s2 + s3);
}

/** a·b and a·c, in two sums each. */
function twoDots(a: Float64Array, b: Float64Array, c: Float64Array, out: Float64Array): void {
  let b0 = 0;
  let b1 = 0;
  let c0 = 0;
  let c1 = 0;
  const whole = a.length & ~1;
  for (let i = 0; i < whole; i += 2) {
    const x = a[i]!;
    const y = a[i + 1]!;
    b0 += x * b[i]!;
    c0 += x * c[i]!;
    b1 += y * b[i + 1]!;
    c1 += y * c[i + 1]!;
  }
  for (let i = whole; i < a.length; i++) {
    b0 += a[i]! * b[i]!;
    c0 += a[i]! * c[i]!;
  }
  out[0] = b0 + b1;
  out[1] = c0 + c1;
}

/** Takes `by` times a column out of a. */
function takeOut(a: Float64Array, column: Float64Array, by: number): void {
  for (let i = 0; i < a.length; i++) a[i]! -= by * column[i]!;
}

/**
 * Solves normal equations.
 *
 * @param A products of the columns with each other, symmetric
 * @returns coefficients from the columns' products with what they should tell; undefined where the columns do not
 * determine them
 * Source: Cholesky, columns scaled to unit length first.
 * @example normalSolver([Float64Array.of(2, 0), Float64Array.of(0, 4)])(Float64Array.of(2, 2))[1] // 0.5
 */
export function normalSolver(A: readonly Float64Array[]): ((right: Float64Array) => Float64Array) | undefined {
  const p = A.length;
  const scale = A.map((row, i) => Math.sqrt(row[i]!));
  if (scale.some((s) => !(s > 0))) return undefined;
  const L = A.map(() => new Float64Array(p));
  for (let i = 0; i < p; i++)
    for (let j = 0; j <= i; j++) {
      let s = A[i]![j]! / scale[i]! / scale[j]!;
      for (let k = 0; k < j; k++) s -= L[i]![k]! * L[j]![k]!;
      if (i === j) {
        if (!(s > 1e-12)) return undefined;
        L[i]![i] = Math.sqrt(s);
      } else L[i]![j] = s / L[j]![j]!;
    }
  return (right) => {
    const z = right.map((v, i) => v / scale[i]!);
    for (let i = 0; i < p; i++) {
      for (let k = 0; k < i; k++) z[i]! -= L[i]![k]! * z[k]!;
      z[i]! /= L[i]![i]!;
    }
    for (let i = p - 1; i >= 0; i--) {
      for (let k = i + 1; k < p; k++) z[i]! -= L[k]![i]! * z[k]!;
      z[i]! /= L[i]![i]!;
    }
    return z.map((v, i) => v / scale[i]!);
  };
}

/**
 * Linear least squares with any few columns: coefficients and their covariance (already times the residual variance).
 *
 * @param columns one array a coefficient
 * @returns undefined where the columns do not determine the coefficients
 * Source: normal equations (`normalSolver`).
 */
export function fitColumns(
  columns: readonly Float64Array[],
  y: Float64Array,
  weights?: Float64Array,
): { values: Float64Array; covariance: Float64Array[]; rss: number } | undefined {
  const [p, n] = [columns.length, y.length];
  const A = Array.from({ length: p }, () => new Float64Array(p));
  const b = new Float64Array(p);
  const two = new Float64Array(2);
  for (let a = 0; a < p; a++) {
    let c = a;
    // Two products with one column at a time: each of its samples is fetched once for both.
    for (; !weights && c + 1 < p; c += 2) {
      twoDots(columns[a]!, columns[c]!, columns[c + 1]!, two);
      A[a]![c] = A[c]![a] = two[0]!;
      A[a]![c + 1] = A[c + 1]![a] = two[1]!;
    }
    for (; c < p; c++) A[a]![c] = A[c]![a] = dot(columns[a]!, columns[c]!, weights);
    b[a] = dot(columns[a]!, y, weights);
  }
  const solve = normalSolver(A);
  if (!solve) return undefined;
  const values = solve(b);
  const rest = y.slice();
  columns.forEach((c, a) => takeOut(rest, c, values[a]!));
  const rss = dot(rest, rest, weights);
  const s2 = n > p ? rss / (n - p) : 0;
  const covariance = Array.from({ length: p }, (_, i) => {
    const unit = new Float64Array(p);
    unit[i] = 1;
    return solve(unit).map((v) => v * s2);
  });
  return { values, covariance, rss };
}
