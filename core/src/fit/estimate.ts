import type { FitReading } from '../schema/process-schema.ts';
import { refuse, ok, type Result } from '../result.ts';
import { stated } from '../units/stated.ts';
import { addMeasured, ofPrior, solved, type Information, type Known } from './normal-equations.ts';
import { FIT_PARTS, gained, rowOf, slipIn, uncertaintyOf, type OddReading } from './reading.ts';

/** What is known of a process: parts of its fit, and how much made sizes scatter about it. */
export interface FitKnown {
  readonly known: Known;
  /** Standard deviation of a made size, m, and what it rests on, as a number of readings. */
  readonly spread: number;
  readonly weight: number;
}

/** What some readings say of a process. */
export interface Estimate extends FitKnown {
  /** What each counted reading is off the fit, m, by its id. */
  readonly left: ReadonlyMap<string, number>;
  /** Readings that look wrong: set aside, or only asked about. */
  readonly odd: readonly OddReading[];
  readonly counted: number;
}

/** A reading this many of its standard deviations off what the others say is set aside. */
const FAR = 4;
/** At most a quarter is set aside: beyond that the others are no yardstick. */
const ASIDE = 0.25;
/** Readings from which on a process is known well enough to doubt a single one. */
const WELL_KNOWN = 10;
/** Readings that the starting value of the scatter counts as. */
export const SPREAD_WEIGHT = 3;
/** Below this nothing scatters less: the last digit of a caliper, m. */
const LEAST = 2e-6;

const copy = (i: Information): Information => ({ matrix: i.matrix.slice(), vector: i.vector.slice() });

/** What is off the fit, and how far it could be off by chance, for a reading that the fit has not seen. */
function offFrom(f: FitKnown, r: FitReading, feature = r.feature): { off: number; u: number } {
  const row = rowOf(r, feature);
  const n = row.length;
  let [said, variance] = [0, 0];
  for (let i = 0; i < n; i++) {
    if (row[i] === 0) continue;
    said += row[i]! * f.known.values[i]!;
    for (let j = 0; j < n; j++) if (row[j] !== 0) variance += row[i]! * row[j]! * f.known.covariance[i * n + j]!;
  }
  return { off: gained(r) - said, u: Math.sqrt(Math.max(0, variance) + f.spread ** 2 + uncertaintyOf(r) ** 2) };
}

/**
 * Least squares of what sizes gained, with what is known already; the scatter of a made size follows from what is left.
 *
 * Source: weighted least squares, weights 1/(u² + σ²); σ² = (ν₀σ₀² + Σ(left² − u²) + what the fit took up)/(ν₀ + n), again
 * until it stands.
 */
function fitOf(
  readings: readonly FitReading[],
  before: Information,
  start: FitKnown | { readonly spread: number; readonly weight: number },
): FitKnown | undefined {
  let spread = start.spread;
  let known: Known | undefined;
  for (let round = 0; round < 6; round++) {
    const info = copy(before);
    for (const r of readings)
      addMeasured(info, rowOf(r), gained(r), Math.max(LEAST, Math.hypot(uncertaintyOf(r), spread)));
    known = solved(info);
    if (!known) return undefined;
    if (start.weight === 0 && start.spread === 0) break;
    let sum = start.weight * start.spread ** 2;
    for (const r of readings) {
      const { off } = offFrom({ known, spread: 0, weight: 0 }, r);
      // What the fit has taken up of this reading: its own share of the variance.
      const row = rowOf(r);
      let taken = 0;
      for (let i = 0; i < row.length; i++)
        for (let j = 0; j < row.length; j++)
          if (row[i] !== 0 && row[j] !== 0) taken += row[i]! * row[j]! * known.covariance[i * row.length + j]!;
      sum += off * off + Math.max(0, taken) - uncertaintyOf(r) ** 2;
    }
    const next = Math.sqrt(Math.max(LEAST ** 2, sum / (start.weight + readings.length)));
    if (Math.abs(next - spread) < 1e-9) break;
    spread = next;
  }
  return { known: known!, spread, weight: start.weight + readings.length };
}

/**
 * What a process does to sizes: scale along x and y, contours out, holes in, the foot. A reading that the others
 * contradict is set aside and named; one that would fit as the other kind of feature is asked about.
 *
 * made − drawn = drawn·s + 2·c_out for outsides, drawn·s − 2·c_in for holes, and 2·f more at the foot.
 *
 * @param before what is known already, as information in the order of `FIT_PARTS`; zeros for nothing
 * @param start scatter to begin from and its weight; both 0 to take the readings' own uncertainties alone
 * @returns refuses in words where nothing is left that counts, and what no process does
 */
export function estimateFit(
  readings: readonly FitReading[],
  before: Information,
  start: { readonly spread: number; readonly weight: number },
): Result<Estimate> {
  const live = readings.filter((r) => r.struck === undefined);
  const slips = live.flatMap((r) => (r.counts ? [] : (slipIn(r) ?? [])));
  const slipped = new Set(slips.map((s) => s.id));
  let counted = live.filter((r) => !slipped.has(r.id) && r.feature !== 'foot-height');
  if (slips.length > live.length / 2 || (slips.length > 2 && slips.length > ASIDE * live.length))
    return refuse(
      live.length === 1
        ? 'This reading cannot be of that drawing.'
        : `${slips.length} of ${live.length} readings cannot be of that drawing.`,
      slips[0]!.why,
      'Measure again, and mind the unit and which feature it is; or strike out what is wrong.',
    );
  let fit = fitOf(counted, before, start);
  if (!fit)
    return refuse(
      'These sizes do not tell the parts of the fit apart.',
      'Scale and contour change them alike.',
      'Add features of other sizes, outsides as well as holes.',
    );
  const odd: OddReading[] = [...slips];
  // A retry or two against all that is known already: there the history is the yardstick.
  const alone = counted.length <= 2 && start.weight >= WELL_KNOWN;
  const most = alone ? counted.length : counted.length > 4 ? Math.floor(ASIDE * counted.length) : 0;
  for (let n = 0; n < most; n++) {
    const judged = counted
      .filter((r) => !r.counts)
      .flatMap((r) => {
        const others = fitOf(
          counted.filter((x) => x !== r),
          before,
          start,
        );
        if (!others) return [];
        const { off, u } = offFrom(others, r);
        return [{ r, others, off, far: Math.abs(off) / u }];
      })
      .sort((a, b) => b.far - a.far);
    const worst = judged[0];
    if (!worst || !(worst.far > FAR)) break;
    const { r, others, off } = worst;
    const turned = r.feature === 'hole' ? 'outside' : r.feature === 'outside' ? 'hole' : undefined;
    const other = turned && offFrom(others, r, turned);
    const swapped = other !== undefined && Math.abs(other.off) < 2 * other.u;
    odd.push({
      id: r.id,
      aside: true,
      why: swapped
        ? `As ${turned === 'hole' ? 'a hole' : 'an outside'} it would fit the others: were the two mistaken for each other?`
        : `It lies ${stated(off, 'length', 3)} off what the others say: a seam, a blob, the foot, or a slip of the caliper. Measure it again.`,
      ...(swapped && {
        meant: { label: turned === 'hole' ? 'It is a hole' : 'It is an outside', change: { feature: turned! } },
      }),
    });
    counted = counted.filter((x) => x !== r);
    fit = others;
  }
  const left = new Map(counted.map((r) => [r.id, offFrom({ known: fit.known, spread: 0, weight: 0 }, r).off] as const));
  return ok({ ...fit, left, odd, counted: counted.length });
}

/** Nothing known beforehand, for the parts of a fit. */
export const nothingKnown = (): Information => ofPrior(FIT_PARTS.map(() => [0, Infinity]));
