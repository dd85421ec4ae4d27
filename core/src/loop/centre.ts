/**
 * Length of an open (not crossed) belt or chain over two wheels: 2C·cos α + π(d1+d2)/2 + α(d2−d1), sin α = (d2−d1)/(2C).
 *
 * @param c centre distance, m, at least |d2−d1|/2
 * @param d1 pitch diameter of one wheel, m
 * @param d2 pitch diameter of the other, m
 * @returns m
 * Source: plane geometry of the open belt, as in ISO 5296 annex.
 */
export function openLength(c: number, d1: number, d2: number): number {
  const a = Math.asin((d2 - d1) / (2 * c));
  return 2 * c * Math.cos(a) + (Math.PI * (d1 + d2)) / 2 + a * (d2 - d1);
}

/**
 * Solves a growing length function for the centre distance, to a tenth of a nanometre, by bisection.
 *
 * @param lengthAt of the loop at a centre distance, undefined where it has no path
 * @param low a centre distance that is too short or impossible
 * @returns undefined when the length is reached nowhere up to the loop's own length
 */
export function solveCentre(
  lengthAt: (c: number) => number | undefined,
  length: number,
  low: number,
): number | undefined {
  let a = low;
  let b = Math.max(length, low * 2);
  const top = lengthAt(b);
  const bottom = lengthAt(a);
  if (top === undefined || top < length) return undefined;
  if (bottom !== undefined && bottom > length) return undefined;
  for (let i = 0; i < 200 && b - a > 1e-13; i++) {
    const m = (a + b) / 2;
    const at = lengthAt(m);
    if (at === undefined || at < length) a = m;
    else b = m;
  }
  return (a + b) / 2;
}

/**
 * Newton from the series estimate for two bare wheels; dL/dC = 2·cos α exactly. Undefined when the loop is too short.
 */
export function openCentre(length: number, d1: number, d2: number): number | undefined {
  const least = Math.abs(d2 - d1) / 2;
  // With the centres that close the loop wraps only the larger wheel.
  if (length <= Math.PI * Math.max(d1, d2)) return undefined;
  const b = length - (Math.PI * (d1 + d2)) / 2;
  let c = Math.max((b + Math.sqrt(Math.max(0, b * b - 2 * (d2 - d1) ** 2))) / 4, least * (1 + 1e-9), 1e-9);
  for (let i = 0; i < 60; i++) {
    const s = (d2 - d1) / (2 * c);
    const error = openLength(c, d1, d2) - length;
    const step = error / (2 * Math.sqrt(1 - s * s));
    c = Math.max(c - step, least + (c - least) * 0.1);
    if (Math.abs(step) < 1e-14) break;
  }
  return c;
}
