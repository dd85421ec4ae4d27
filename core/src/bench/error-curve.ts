import FFT from 'fft.js';
import { seeded } from '../math/random.ts';
import { noiseFloor } from './noise-floor.ts';
import { amplitudes, leftOfWave } from './spectrum.ts';

/** A curve with the noise taken out, and what is known of its size. */
export interface CleanCurve {
  readonly curve: Float64Array;
  readonly peakToPeak: Sized;
  readonly worst: Sized;
  readonly rms: Sized;
}

/** A size with its standard uncertainty. */
export interface Sized {
  readonly value: number;
  readonly u: number;
}

/** How far above the noise of either part a bin must stand to belong to the curve. */
const KEPT = 3.6;
/** The same for a neighbour of one that does: what lies between bins spreads. */
const BESIDE = 1.8;
/** Times the noise is drawn anew; fewer where a whole recording is made again. */
const DRAWS = 48;
const STEPPED = 16;
const NONE = [0, 0] as const;

/**
 * A curve of an error over whole turns without its noise. The largest of many noisy values is too large: bins that do
 * not stand above the noise are left out, and what that does to the sizes is found by putting noise of the same floor on
 * the clean curve again and again.
 *
 * @param error means over even cells of angle, a power of two of them, mean nought; what that takes of a wave is given back
 * @param again the same curve as it would be recorded once more, given the deviation of the noise of its values: where a
 *   sensor's steps are coarse they make lines of their own, which no noise has
 * @param times how often it is recorded again
 * @returns value corrected for what noise does to it; u its scatter over the draws
 * Source: thresholding in the frequency domain; parametric bootstrap (Efron and Tibshirani, 1993).
 */
export function cleanCurve(
  error: Float64Array,
  again?: (curve: Float64Array, noise: number) => Float64Array,
  times = STEPPED,
): CleanCurve {
  const n = error.length;
  const fft = new FFT(n);
  const spectrum = fft.createComplexArray() as number[];
  fft.realTransform(spectrum, error as unknown as number[]);
  // The noise in either part of a bin, as the transform scales it.
  const floor = noiseFloor(amplitudes(error)).map((s) => (s * n) / 2);
  const noise = floor.subarray(1).reduce((sum, v) => sum + v, 0) / (n / 2 - 1) / Math.sqrt(n / 2);
  const first = keptBins(spectrum, floor, n / 2);
  // Recorded again it is read cell by cell, as means tell it.
  const meansOf = (keep: Uint8Array): Float64Array => backFrom(fft, spectrum, keep, n, new Float64Array(n / 2).fill(1));
  const made = again && levelAgain(fft, meansOf(first), (c) => again(c, noise), Math.ceil(times / 2));
  const level = made ? floor.map((f, k) => Math.max(f, made[k]!)) : floor;
  // What recording again does not bring with it: noise that hangs together. A third more is no chance.
  const missingNoise = made ? floor.map((f, k) => (f > 1.3 * made[k]! ? Math.sqrt(f * f - made[k]! ** 2) : 0)) : floor;
  const keep = again ? keptBins(spectrum, level, n / 2) : first;
  const back = Float64Array.from({ length: n / 2 }, (_, k) => 1 / leftOfWave(k / n));
  const curve = backFrom(fft, spectrum, keep, n, back);
  const sizes = sizesOf(curve);
  const means = again && meansOf(keep);
  const next = seeded(17);
  const draws = Array.from({ length: again ? times : DRAWS }, () => {
    const noisy = fft.createComplexArray() as number[];
    if (means) fft.realTransform(noisy, again(means, noise) as unknown as number[]);
    for (let k = 1; k < n / 2; k++) {
      const r = missingNoise[k]! * Math.sqrt(-2 * Math.log(1 - next()));
      const at = 2 * Math.PI * next();
      const [re, im] = means
        ? [noisy[2 * k]!, noisy[2 * k + 1]!]
        : keep[k]
          ? [spectrum[2 * k]!, spectrum[2 * k + 1]!]
          : NONE;
      noisy[2 * k] = re + r * Math.cos(at);
      noisy[2 * k + 1] = im + r * Math.sin(at);
    }
    return sizesOf(backFrom(fft, noisy, keptBins(noisy, level, n / 2), n, back));
  });
  // Beside each line, and once more for all others, one that lies just under what is kept may be missing.
  let groups = 1;
  for (let k = 1; k < n / 2; k++) if (keep[k] && !keep[k - 1]) groups++;
  const missing = KEPT * noise * Math.sqrt((2 * groups) / n);
  const sized = (of: (s: Sizes) => number, share: number): Sized => {
    const own = of(sizes);
    const mean = draws.reduce((s, d) => s + of(d), 0) / draws.length;
    const u = Math.sqrt(draws.reduce((s, d) => s + (of(d) - mean) ** 2, 0) / (draws.length - 1));
    return { value: Math.max(0, own - (mean - own)), u: Math.hypot(u, share * missing) };
  };
  return {
    curve,
    peakToPeak: sized((s) => s.peakToPeak, 0.9),
    worst: sized((s) => s.worst, 0.5),
    rms: sized((s) => s.rms, 0.06),
  };
}

/** Bins to either side over which what steps make is evened out. */
const EVENED = 3;

/**
 * Deviation in either part of each bin of what recording a curve again puts on it: noise, and a sensor's steps, which
 * beat with the samples and stand in bins of their own.
 *
 * @param curve as means over cells tell it
 * @param again the same curve recorded once more
 */
function levelAgain(
  fft: FFT,
  curve: Float64Array,
  again: (curve: Float64Array) => Float64Array,
  times: number,
): Float64Array {
  const n = curve.length;
  const power = new Float64Array(n / 2);
  for (let t = 0; t < times; t++) {
    const off = again(curve);
    for (let i = 0; i < n; i++) off[i] = off[i]! - curve[i]!;
    const out = fft.createComplexArray() as number[];
    fft.realTransform(out, off as unknown as number[]);
    for (let k = 1; k < n / 2; k++) power[k] = power[k]! + (out[2 * k]! ** 2 + out[2 * k + 1]! ** 2) / 2 / times;
  }
  return power.map((_, k) => {
    const [from, to] = [Math.max(1, k - EVENED), Math.min(n / 2 - 1, k + EVENED)];
    let sum = 0;
    for (let j = from; j <= to; j++) sum += power[j]!;
    return Math.sqrt(sum / Math.max(1, to - from + 1));
  });
}

/** Bins that stand above the noise, and their neighbours that do a little. */
function keptBins(spectrum: ArrayLike<number>, floor: Float64Array, bins: number): Uint8Array {
  const keep = new Uint8Array(bins);
  const height = (k: number): number => {
    const [re, im] = [spectrum[2 * k]!, spectrum[2 * k + 1]!];
    return Math.sqrt(re * re + im * im) / floor[k]!;
  };
  for (let k = 1; k < bins; k++) {
    if (!(height(k) > KEPT)) continue;
    keep[k] = 1;
    for (let j = k - 1; j > 0 && j > k - 8 && height(j) > BESIDE; j--) keep[j] = 1;
    for (let j = k + 1; j < bins && j < k + 8 && height(j) > BESIDE; j++) keep[j] = 1;
  }
  return keep;
}

/**
 * The signal that the kept bins make.
 *
 * @param gives what each bin's wave is times: more than 1 gives back what means over cells took of it
 */
function backFrom(
  fft: FFT,
  spectrum: ArrayLike<number>,
  keep: Uint8Array,
  n: number,
  gives: Float64Array,
): Float64Array {
  const whole = fft.createComplexArray() as number[];
  whole.fill(0);
  for (let k = 1; k < n / 2; k++) {
    if (keep[k] === 0) continue;
    const re = spectrum[2 * k]! * gives[k]!;
    const im = spectrum[2 * k + 1]! * gives[k]!;
    whole[2 * k] = re;
    whole[2 * k + 1] = im;
    whole[2 * (n - k)] = re;
    whole[2 * (n - k) + 1] = -im;
  }
  const back = fft.createComplexArray() as number[];
  fft.inverseTransform(back, whole);
  return Float64Array.from({ length: n }, (_, i) => back[2 * i]!);
}

interface Sizes {
  readonly peakToPeak: number;
  readonly worst: number;
  readonly rms: number;
}

function sizesOf(curve: Float64Array): Sizes {
  let low = 0;
  let high = 0;
  let square = 0;
  for (let i = 0; i < curve.length; i++) {
    const v = curve[i]!;
    if (v < low) low = v;
    if (v > high) high = v;
    square += v * v;
  }
  return { peakToPeak: high - low, worst: Math.max(high, -low), rms: Math.sqrt(square / curve.length) };
}
