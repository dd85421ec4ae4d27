import type { LineReport } from '../line/analyse.ts';

/**
 * Least strength over load of each stage at its peak, by its place: what breaks, skips or crushes at once. NaN where nothing
 * loads it; to a tenth, since a finer figure would only say how finely it was reckoned.
 */
export const reservesOf = (report: Pick<LineReport, 'stages'> | undefined): number[] =>
  (report?.stages ?? []).map(({ report: own, duty }) => {
    if (!own || !duty || !(duty.torque > 0)) return NaN;
    const least = Math.min(...own.numbers.limits.filter((l) => l.time === 'static').map((l) => l.torque));
    return Number.isFinite(least) ? Math.round((10 * least) / duty.torque) / 10 : NaN;
  });
