/** Digits of a double near 1. */
const EPSILON = 2.220446049250313e-16;
const MOST_ROUNDS = 100;

/**
 * Where a continuous function passes through nought between two ends at which its signs differ, to the last digits.
 * Halving's safety at a fraction of its calls: as many as it takes at worst, a dozen on anything smooth.
 *
 * @returns NaN where the function has the same sign at both ends
 * Source: Chandrupatla, Advances in Engineering Software 28 (1997): inverse quadratic interpolation where the last three
 * points allow it, halving where they do not.
 * @example rootBetween((x) => x * x - 2, 0, 2) // 1.4142135623730951
 */
export function rootBetween(f: (x: number) => number, low: number, high: number): number {
  let a = high;
  let b = low;
  let fa = f(a);
  let fb = f(b);
  if (fa === 0) return a;
  if (fb === 0) return b;
  if (!(Math.sign(fa) * Math.sign(fb) < 0)) return NaN;
  let t = 0.5;
  for (let k = 0; ; k++) {
    const x = a + t * (b - a);
    const fx = f(x);
    let c = b;
    let fc = fb;
    if (fx > 0 === fa > 0) {
      c = a;
      fc = fa;
    } else {
      b = a;
      fb = fa;
    }
    a = x;
    fa = fx;
    const best = Math.abs(fa) < Math.abs(fb) ? a : b;
    const least = (EPSILON * Math.abs(best) + Number.MIN_VALUE) / Math.abs(b - c);
    if (fa === 0 || least > 0.5 || !(Math.abs(b - a) > 2 * EPSILON * Math.abs(best)) || k === MOST_ROUNDS) return best;
    const xi = (a - b) / (c - b);
    const phi = (fa - fb) / (fc - fb);
    t =
      phi * phi < xi && (1 - phi) * (1 - phi) < 1 - xi
        ? (fa / (fb - fa)) * (fc / (fb - fc)) + ((c - a) / (b - a)) * (fa / (fc - fa)) * (fb / (fc - fb))
        : 0.5;
    t = Math.min(1 - least, Math.max(least, t));
  }
}
