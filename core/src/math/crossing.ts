/** Most steps: those of plain halving to a ten-millionth, and some to spare. */
const MOST = 40;

/**
 * Where a falling function crosses nought, from the side on which it has not yet: by the straight line between both ends
 * (false position, the standing end's value halved: Illinois), and by halving where that does not narrow the range enough.
 *
 * @param f not below nought at `low`, below it at `high`; jumps are found as well
 * @param tolerance of the place
 * @returns a place with `f` ≥ 0, no further than `tolerance` from one with `f` < 0
 * Source: Dowell and Jarratt, A modified regula falsi method, BIT 11 (1971).
 * @example Number(lastNotBelow((x) => 2 - x * x, 0, 2, 1e-9).toFixed(6)) // 1.414214
 */
export function lastNotBelow(f: (x: number) => number, low: number, high: number, tolerance: number): number {
  let [lo, hi, flo, fhi] = [low, high, f(low), f(high)];
  let side = 0;
  for (let i = 0; i < MOST && hi - lo > tolerance; i++) {
    const width = hi - lo;
    const straight = Number.isFinite(flo) && Number.isFinite(fhi) ? (lo * fhi - hi * flo) / (fhi - flo) : NaN;
    // A step off either end: where the line meets the end itself, the place lies within the tolerance of it.
    const x = Math.min(
      hi - tolerance / 2,
      Math.max(lo + tolerance / 2, i % 3 === 2 || Number.isNaN(straight) ? lo + width / 2 : straight),
    );
    const y = f(x);
    if (y >= 0) {
      [lo, flo] = [x, y];
      if (side > 0) fhi /= 2;
      side = 1;
    } else {
      [hi, fhi] = [x, y];
      if (side < 0) flo /= 2;
      side = -1;
    }
  }
  return lo;
}
