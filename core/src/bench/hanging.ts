/**
 * How many neighbouring residuals say the same thing once: the integrated autocorrelation 1 + 2·Σρₖ, at least 1.
 * A variance computed as if all were independent is too small by as much.
 *
 * @param residuals in the order they were read
 * @param fitted how many numbers were fitted to them: each takes a little of what hangs together away
 * @returns 1 where neighbours are independent, and where there are too few to tell
 * Source: Sokal's window, the sum ends where it has gone five times its own length; a first correlation within what
 * chance gives (2/√n) counts as none.
 * @example hangingTogether(Float64Array.of(1, -1, 1, -1, 1, -1, 1, -1, 1, -1, 1, -1)) // 1
 */
export function hangingTogether(residuals: ArrayLike<number>, fitted = 0): number {
  const n = residuals.length;
  if (n < 12) return 1;
  let square = 0;
  for (let i = 0; i < n; i++) square += residuals[i]! * residuals[i]!;
  if (!(square > 0)) return 1;
  let length = 1;
  let longest = 1;
  let lags = 0;
  for (let lag = 1; lag < n / 3; lag++) {
    const rho = product(residuals, lag) / square;
    if (lag === 1 && rho < 2 / Math.sqrt(n)) return 1;
    length += 2 * rho;
    longest = Math.max(longest, length);
    lags = lag;
    if (lag >= 5 * Math.max(1, length)) break;
  }
  // Every lag has lost what the fit took away, length·fitted/n; never fewer than four independent ones are left.
  const kept = Math.max(0.5, 1 - (2 * lags * fitted) / n);
  return Math.max(1, Math.min(n / 4, longest / kept));
}

/**
 * Whether residuals go up and down in step, over more readings than one and fewer than an eighth of them: what sticks and
 * slips, and a motor that cogs, leave them so.
 *
 * @example swinging(Float64Array.from({ length: 400 }, (_, i) => Math.sin(i / 3))) // true
 */
export function swinging(residuals: ArrayLike<number>): boolean {
  const n = residuals.length;
  const square = product(residuals, 0);
  if (n < 60 || !(square > 0)) return false;
  // What chance gives far from nought goes with how far the near ones reach (Bartlett).
  let reach = 1;
  for (let lag = 1; lag < n / 8; lag++) {
    const rho = product(residuals, lag) / square;
    const chance = Math.sqrt(reach / n);
    if (lag === 1 && !(rho > 4 * chance)) return false;
    if (rho < -Math.max(0.1, 4.5 * chance)) return true;
    reach += 2 * rho * rho;
  }
  return false;
}

function product(a: ArrayLike<number>, lag: number): number {
  let sum = 0;
  for (let i = lag; i < a.length; i++) sum += a[i]! * a[i - lag]!;
  return sum;
}

/** Share of the span below which a distance is rounding of the numbers themselves, single precision's too. */
const ROUNDING = 3e-7;

/**
 * The step in which readings come: the largest of which all their distances are whole multiples; 0 where there is none.
 * The readings need not lie one step apart anywhere.
 *
 * Source: Euclid's algorithm with remainders to the nearest.
 * @example stepOf([0.2, 0.4, 0.4, 1]).toFixed(3) // '0.200'
 * @example stepOf([0, 6, 15]) // 3
 */
export function stepOf(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort();
  const first = sorted[0]!;
  const least = (sorted[sorted.length - 1]! - first) * ROUNDING;
  let step = 0;
  for (let i = 1; i < sorted.length; i++) {
    const d = sorted[i]! - first;
    if (d <= least) continue;
    let [a, b] = [d, step > 0 ? Math.abs(d - Math.round(d / step) * step) : 0];
    if (b > least) for (a = step; b > least;) [a, b] = [b, Math.abs(a - Math.round(a / b) * b)];
    else if (step > 0) a = step;
    // The farther apart two are, the better they tell the step.
    step = d / Math.max(1, Math.round(d / a));
  }
  if (!(step > 4 * least)) return 0;
  let off = 0;
  for (let i = 1; i < sorted.length; i++) {
    const d = (sorted[i]! - first) / step;
    off = Math.max(off, Math.abs(d - Math.round(d)) / Math.max(1, d * 1e-6));
  }
  return off < 0.02 ? step : 0;
}
