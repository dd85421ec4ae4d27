import { errorFunction } from 'simple-statistics';
import type { LimitId } from '../schema/joint.ts';
import type { Verdict } from '../line/analyse.ts';

/** How likely a line meets all that it must, by its bands. */
export interface Chance {
  readonly all: number;
  /** The must that is most at risk, and how likely it is met; undefined where none can be told. */
  readonly risk: { readonly limit: LimitId; readonly met: number } | undefined;
}

/**
 * Chance that a figure meets a limit: the half of its band towards the limit taken as 1.96 standard deviations of a
 * normal.
 *
 * @example chanceMet({ value: 10, low: 8, high: 12 }, 8, 'min').toFixed(3) // '0.975'
 */
export function chanceMet(
  figure: { readonly value: number; readonly low: number; readonly high: number },
  asked: number,
  sense: 'min' | 'max',
): number {
  const room = sense === 'min' ? figure.value - asked : asked - figure.value;
  const towards = room > 0 === (sense === 'min') ? figure.value - figure.low : figure.high - figure.value;
  const sigma = towards / 1.96;
  if (!(sigma > 0)) return room >= 0 ? 1 : 0;
  return (1 + errorFunction(room / sigma / Math.SQRT2)) / 2;
}

/** The chance that every must is met, each told by its own band as if no other were: a lower bound where bands share causes. */
export function chanceOf(verdicts: readonly Verdict[]): Chance {
  let all = 1;
  let risk: { limit: LimitId; met: number } | undefined;
  for (const v of verdicts) {
    if (v.need !== 'must' || v.state === 'unknown' || v.sense === 'either' || !v.figure || !Number.isFinite(v.asked))
      continue;
    // What holds by itself has no figure that matters.
    const met = v.says !== undefined ? (v.state === 'fails' ? 0 : 1) : chanceMet(v.figure, v.asked, v.sense);
    all *= met;
    if (!risk || met < risk.met) risk = { limit: v.id, met };
  }
  return { all, risk };
}
