import FFT from 'fft.js';

/** One-sided amplitudes of a real signal whose length is a power of two; the first is its mean. */
export function amplitudes(signal: Float64Array): Float64Array {
  const n = signal.length;
  const fft = new FFT(n);
  const out = fft.createComplexArray();
  fft.realTransform(out, signal as unknown as number[]);
  const a = new Float64Array(n / 2);
  for (let k = 0; k < n / 2; k++) a[k] = (Math.hypot(out[2 * k]!, out[2 * k + 1]!) * (k === 0 ? 1 : 2)) / n;
  return a;
}

/**
 * Share of a wave's amplitude that is left where it is told by its means over cells.
 *
 * @param perCell waves a cell, 0 to 0.5
 * @returns sin(πx)/(πx)
 * @example leftOfWave(0.5) // 0.6366
 */
export const leftOfWave = (perCell: number): number =>
  perCell > 0 ? Math.sin(Math.PI * perCell) / (Math.PI * perCell) : 1;

/** The largest power of two not above n. */
export const powerBelow = (n: number): number => 2 ** Math.floor(Math.log2(Math.max(2, n)));

/**
 * Peaks above their surroundings: bins that are the largest of five and stand `factor` times over the local median,
 * largest first.
 */
export function peaksOf(a: Float64Array, first: number, factor: number, most: number): number[] {
  const found: number[] = [];
  const window = 24;
  for (let k = Math.max(1, first); k < a.length - 2; k++) {
    if (!(a[k]! > a[k - 1]! && a[k]! >= a[k + 1]! && a[k]! > (a[k - 2] ?? 0) && a[k]! >= a[k + 2]!)) continue;
    const near: number[] = [];
    for (let j = Math.max(1, k - window); j <= Math.min(a.length - 1, k + window); j++)
      if (Math.abs(j - k) > 1) near.push(a[j]!);
    near.sort((x, y) => x - y);
    if (a[k]! > factor * near[near.length >> 1]!) found.push(k);
  }
  return found.sort((x, y) => a[y]! - a[x]!).slice(0, most);
}

/**
 * Frequency of a peak between bins, in bins; exact for one tone under a Hann window.
 *
 * @param a amplitudes of a record under a Hann window
 * @param k the highest bin
 * Source: ratio of the two highest bins, r = a(k ± 1)/a(k) = (1 + |δ|)/(2 − |δ|), from the window's response.
 * @example betweenBins([0, 0.5, 1, 0.5, 0], 2) // 2
 */
export function betweenBins(a: ArrayLike<number>, k: number): number {
  const side = a[k + 1]! >= a[k - 1]! ? 1 : -1;
  if (!(a[k]! > 0)) return k;
  const r = a[k + side]! / a[k]!;
  return k + side * Math.max(0, Math.min(0.5, (2 * r - 1) / (1 + r)));
}

/**
 * Amplitude of a tone whose frequency lies between bins: the highest of them shows up to 15 % too little.
 *
 * @param a amplitudes of a record under a Hann window
 * @param k the highest bin
 * Source: response of the Hann window off its middle, sin(πδ)/(πδ(1 − δ²)).
 * @example amplitudeBetween([0, 0, 1, 0, 0], 2) // 1
 */
export function amplitudeBetween(a: ArrayLike<number>, k: number): number {
  const off = betweenBins(a, k) - k;
  return Math.abs(off) < 1e-6 ? a[k]! : (a[k]! * Math.PI * off * (1 - off * off)) / Math.sin(Math.PI * off);
}

/** Multiplies by a Hann window, gain one half. */
export const hann = (x: Float64Array): Float64Array =>
  x.map((v, i) => v * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / x.length)));
