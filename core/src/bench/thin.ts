/** Points a curve keeps for a plot. */
const SHOWN = 1500;

/**
 * Thins a curve for a plot: of each stretch its lowest and its highest point, in their order, so that no peak is lost.
 *
 * @param most points kept, about
 * @example thinned([0, 1, 2, 3], [0, 5, 1, 2], 2).y // [0, 5]
 */
export function thinned(x: ArrayLike<number>, y: ArrayLike<number>, most = SHOWN): { x: number[]; y: number[] } {
  const n = x.length;
  if (n <= most) return { x: Array.from(x), y: Array.from(y) };
  const out: { x: number[]; y: number[] } = { x: [], y: [] };
  const per = Math.ceil(n / (most / 2));
  for (let i = 0; i < n; i += per) {
    let lo = i;
    let hi = i;
    for (let k = i; k < Math.min(n, i + per); k++) {
      if (y[k]! < y[lo]!) lo = k;
      if (y[k]! > y[hi]!) hi = k;
    }
    for (const k of lo < hi ? [lo, hi] : lo > hi ? [hi, lo] : [lo]) {
      out.x.push(x[k]!);
      out.y.push(y[k]!);
    }
  }
  return out;
}
