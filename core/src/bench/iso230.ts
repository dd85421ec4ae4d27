import { mean, sampleStandardDeviation } from 'simple-statistics';

/** Deviations at one target, approached from below and from above. */
export interface TargetRuns {
  readonly target: number;
  readonly up: readonly number[];
  readonly down: readonly number[];
}

export interface TargetResult {
  readonly target: number;
  readonly meanUp: number;
  readonly meanDown: number;
  readonly sUp: number;
  readonly sDown: number;
  /** Both directions together. */
  readonly mean: number;
  readonly reversal: number;
  readonly repeatability: number;
}

export interface PositioningResult {
  readonly targets: readonly TargetResult[];
  readonly reversal: number;
  readonly meanReversal: number;
  readonly repeatabilityUp: number;
  readonly repeatabilityDown: number;
  readonly repeatability: number;
  readonly systematic: number;
  readonly meanDeviation: number;
  readonly accuracy: number;
}

const spread = (list: readonly number[]): number => (list.length > 1 ? sampleStandardDeviation([...list]) : 0);

/**
 * Accuracy and repeatability of positioning.
 *
 * Source: ISO 230-2:2014: x̄ᵢ↑, x̄ᵢ↓, sᵢ; Bᵢ = x̄ᵢ↑ − x̄ᵢ↓; Rᵢ = max(2sᵢ↑ + 2sᵢ↓ + |Bᵢ|, 4sᵢ↑, 4sᵢ↓); E, M and A over
 * all targets.
 */
export function positioningIso(runs: readonly TargetRuns[]): PositioningResult {
  const targets = runs.map((r): TargetResult => {
    const [meanUp, meanDown] = [r.up.length ? mean([...r.up]) : NaN, r.down.length ? mean([...r.down]) : NaN];
    const [sUp, sDown] = [spread(r.up), spread(r.down)];
    const both = Number.isFinite(meanUp) && Number.isFinite(meanDown);
    const reversal = both ? meanUp - meanDown : 0;
    return {
      target: r.target,
      meanUp,
      meanDown,
      sUp,
      sDown,
      mean: both ? (meanUp + meanDown) / 2 : Number.isFinite(meanUp) ? meanUp : meanDown,
      reversal,
      repeatability: both
        ? Math.max(2 * sUp + 2 * sDown + Math.abs(reversal), 4 * sUp, 4 * sDown)
        : 4 * Math.max(sUp, sDown),
    };
  });
  const known = (pick: (t: TargetResult) => number) => targets.map(pick).filter(Number.isFinite);
  const most = (list: readonly number[]) => (list.length ? Math.max(...list) : 0);
  const range = (high: readonly number[], low: readonly number[]) => Math.max(...high) - Math.min(...low);
  const means = [...known((t) => t.meanUp), ...known((t) => t.meanDown)];
  return {
    targets,
    reversal: most(targets.map((t) => Math.abs(t.reversal))),
    meanReversal: targets.reduce((s, t) => s + t.reversal, 0) / targets.length,
    repeatabilityUp: 4 * most(targets.map((t) => t.sUp)),
    repeatabilityDown: 4 * most(targets.map((t) => t.sDown)),
    repeatability: most(targets.map((t) => t.repeatability)),
    systematic: range(means, means),
    meanDeviation: range(
      targets.map((t) => t.mean),
      targets.map((t) => t.mean),
    ),
    accuracy: range(
      [...known((t) => t.meanUp + 2 * t.sUp), ...known((t) => t.meanDown + 2 * t.sDown)],
      [...known((t) => t.meanUp - 2 * t.sUp), ...known((t) => t.meanDown - 2 * t.sDown)],
    ),
  };
}
