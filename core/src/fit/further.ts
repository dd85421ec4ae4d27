import type { FitReading } from '../schema/process-schema.ts';
import { stated } from '../units/stated.ts';
import { addMeasured, ofPrior, solved } from './normal-equations.ts';
import type { ProcessFit } from './process-fit.ts';
import { CALIPER, FIT_PARTS, rowOf, type FitPart } from './reading.ts';

/** What to measure next. */
export interface Further {
  readonly part: FitPart;
  readonly says: string;
  /** How many of which feature; 0 where a caliper cannot halve it. */
  readonly count: number;
  readonly reading?: Pick<FitReading, 'feature' | 'axis' | 'drawn'>;
  /** Its standard uncertainty now and then, in the unit of the part. */
  readonly now: number;
  readonly then: number;
}

/** Size at which uncertainties of scale and of contour are held against each other, m. */
const TYPICAL = 0.04;
/** More than this nobody measures. */
const MOST = 24;

const NAMES: Readonly<Record<FitPart, string>> = {
  scaleX: 'the scale along x',
  scaleY: 'the scale along y',
  out: 'how far outsides stand out',
  into: 'how far holes close in',
  foot: 'how far the foot spreads',
};

const CANDIDATES: readonly Pick<FitReading, 'feature' | 'axis' | 'drawn'>[] = [
  { feature: 'outside', axis: 'x', drawn: 0.02 },
  { feature: 'outside', axis: 'y', drawn: 0.02 },
  { feature: 'outside', axis: 'x', drawn: 0.06 },
  { feature: 'outside', axis: 'y', drawn: 0.06 },
  { feature: 'outside', axis: 'x', drawn: 0.1 },
  { feature: 'outside', axis: 'y', drawn: 0.1 },
  { feature: 'hole', axis: 'round', drawn: 0.008 },
  { feature: 'hole', axis: 'round', drawn: 0.016 },
  { feature: 'foot', axis: 'x', drawn: 0.02 },
];

const WORDS: Readonly<Record<FitReading['feature'], readonly [string, string]>> = {
  outside: ['outside', 'outsides'],
  hole: ['hole', 'holes'],
  foot: ['foot', 'feet'],
  'foot-height': ['height of a foot', 'heights of feet'],
  ladder: ['ladder', 'ladders'],
};

/**
 * Which readings would halve the largest uncertainty of a fit: the fewest of one feature, by trying.
 *
 * @param printed whether there is a foot
 */
export function furtherReading(fit: ProcessFit, printed: boolean): Further {
  const n = FIT_PARTS.length;
  const weight = (part: FitPart) => (part === 'scaleX' || part === 'scaleY' ? TYPICAL : 2);
  const part = FIT_PARTS.filter((id) => printed || id !== 'foot').reduce((a, b) =>
    // A foot is cut or filed away; it counts half.
    fit[b].u * weight(b) * (b === 'foot' ? 0.5 : 1) > fit[a].u * weight(a) * (a === 'foot' ? 0.5 : 1) ? b : a,
  );
  const index = FIT_PARTS.indexOf(part);
  const info = () => {
    const back = solved({ matrix: fit.covariance, vector: new Float64Array(n) });
    return back
      ? { matrix: back.covariance, vector: new Float64Array(n) }
      : ofPrior(FIT_PARTS.map((id) => [0, Math.max(1e-9, fit[id].u)]));
  };
  const u = Math.hypot(CALIPER, fit.spread.value);
  let best: { count: number; reading: (typeof CANDIDATES)[number]; then: number } | undefined;
  for (const reading of CANDIDATES) {
    if (!printed && reading.feature === 'foot') continue;
    const row = rowOf({ id: '', made: 0, ...reading });
    if (row[index] === 0) continue;
    const more = info();
    for (let count = 1; count <= MOST; count++) {
      addMeasured(more, row, 0, u);
      const known = solved(more);
      const then = known ? Math.sqrt(known.covariance[index * n + index]!) : Infinity;
      if (then <= fit[part].u / 2) {
        if (!best || count < best.count) best = { count, reading, then };
        break;
      }
    }
  }
  const now = fit[part].u;
  const told = (x: number) =>
    part === 'scaleX' || part === 'scaleY' ? `${(x * 100).toPrecision(2)} %` : stated(x, 'length', 2);
  if (!best)
    return {
      part,
      count: 0,
      now,
      then: now,
      says: `Least is known of ${NAMES[part]} (± ${told(1.96 * now)}); more readings of a caliper hardly help, since parts scatter by ${stated(fit.spread.value, 'length', 2)}.`,
    };
  const { count, reading, then } = best;
  const [one, many] = WORDS[reading.feature];
  const along = reading.axis === 'round' ? '' : ` along ${reading.axis}`;
  return {
    part,
    count,
    reading,
    now,
    then,
    says: `Least is known of ${NAMES[part]} (± ${told(1.96 * now)}). ${count === 1 ? `One more ${one}` : `${count} more ${many}`} of ${stated(reading.drawn, 'length', 3)}${along} would halve that.`,
  };
}
