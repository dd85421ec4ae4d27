import { seeded, triangular } from '../math/random.ts';
import { playAtOutput, ratiosAfter } from './sum.ts';

export interface PlayBand {
  readonly likely: number;
  readonly low: number;
  readonly high: number;
  /** Everything loose at once, Σ b_j/|D_j| of the highest. */
  readonly worst: number;
}

/**
 * Play of the line at its output, by sampling each stage's play from a triangle between its ends. Where one stage alone
 * varies the line shows exactly what that stage does.
 *
 * @param links stages with their signed ratios
 * @param play likely, least and most of each stage at its own output, rad
 * @param samples how many draws; the band is the 2.5 % and 97.5 % quantile, `likely` the median
 */
export function samplePlay(
  links: readonly { readonly ratio: number }[],
  play: readonly (readonly [number, number, number])[],
  samples = 600,
  seed = 1,
): PlayBand {
  const worst = playAtOutput(
    links,
    play.map((p) => p[2]),
  );
  const likely = playAtOutput(
    links,
    play.map((p) => p[0]),
  );
  const vary = play.filter((p) => p[2] > p[1]).length;
  if (vary === 0) return { likely, low: likely, high: likely, worst };
  if (vary === 1) return { likely, low: least(links, play), high: worst, worst };
  return { ...quantiles(drawPlay(links, play, samples, seed)), worst };
}

/** Play with everything as tight as it can be, rad. */
const least = (
  links: readonly { readonly ratio: number }[],
  play: readonly (readonly [number, number, number])[],
): number =>
  playAtOutput(
    links,
    play.map((p) => p[1]),
  );

/** Median and the ends of 95 % of sorted samples. */
function quantiles(sums: Float64Array): { likely: number; low: number; high: number } {
  const at = (q: number) => sums[Math.min(sums.length - 1, Math.max(0, Math.round(q * (sums.length - 1))))]!;
  return { likely: at(0.5), low: at(0.025), high: at(0.975) };
}

/** Sampled play at the output, sorted. */
function drawPlay(
  links: readonly { readonly ratio: number }[],
  play: readonly (readonly [number, number, number])[],
  samples: number,
  seed: number,
): Float64Array {
  const after = ratiosAfter(links);
  const draw = seeded(seed);
  const sums = new Float64Array(samples);
  // Stage by stage, and only those that vary: the others add the same to every sample.
  for (let j = 0; j < play.length; j++) {
    const [mid, low, high] = play[j]!;
    const d = Math.abs(after[j]!);
    if (!(high > low)) for (let i = 0; i < samples; i++) sums[i]! += mid / d;
    else for (let i = 0; i < samples; i++) sums[i]! += triangular(draw(), low, mid, high) / d;
  }
  return sums.sort();
}

/** Play of the line from many samples, counted into classes of equal width from nothing to the worst case. */
export interface PlaySpread extends PlayBand {
  readonly samples: number;
  readonly width: number;
  readonly counts: Float64Array;
}

/** The spread of play by sampling, for a histogram; the same seed gives the same answer. */
export function playSpread(
  links: readonly { readonly ratio: number }[],
  play: readonly (readonly [number, number, number])[],
  samples = 100_000,
  seed = 1,
  classes = 48,
): PlaySpread {
  const worst = playAtOutput(
    links,
    play.map((p) => p[2]),
  );
  const counts = new Float64Array(classes);
  const width = worst > 0 ? worst / classes : 0;
  if (play.every((p) => !(p[2] > p[1]))) return { ...samplePlay(links, play, samples, seed), samples, width, counts };
  const sums = drawPlay(links, play, samples, seed);
  for (const x of sums) counts[Math.min(classes - 1, Math.floor(x / width))]!++;
  return { ...quantiles(sums), worst, samples, width, counts };
}
