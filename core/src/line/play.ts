import { seeded, triangular } from './random.ts';
import { playAtOutput, ratiosAfter } from './sum.ts';

export interface PlayBand {
  readonly likely: number;
  readonly low: number;
  readonly high: number;
  /** Everything loose at once, Σ b_j/|D_j| of the highest. */
  readonly worst: number;
}

/**
 * Play of the line at its output, by sampling each stage's play from a triangle between its ends.
 *
 * @param links stages with their signed ratios
 * @param play likely, least and most of each stage at its own output, rad
 * @param samples how many draws; the band is the 2.5 % and 97.5 % quantile, `likely` the median
 */
export function samplePlay(links: readonly { readonly ratio: number }[], play: readonly (readonly [number, number, number])[], samples = 600, seed = 1): PlayBand {
  const worst = playAtOutput(links, play.map((p) => p[2]));
  const likely = playAtOutput(links, play.map((p) => p[0]));
  if (play.every((p) => !(p[2] > p[1]))) return { likely, low: likely, high: likely, worst };
  const after = ratiosAfter(links);
  const draw = seeded(seed);
  const sums = new Float64Array(samples);
  for (let i = 0; i < samples; i++) {
    let sum = 0;
    for (let j = 0; j < play.length; j++) {
      const [mid, low, high] = play[j]!;
      sum += triangular(draw(), low, mid, high) / Math.abs(after[j]!);
    }
    sums[i] = sum;
  }
  sums.sort();
  const at = (q: number) => sums[Math.min(samples - 1, Math.max(0, Math.round(q * (samples - 1))))]!;
  return { likely: at(0.5), low: at(0.025), high: at(0.975), worst };
}
