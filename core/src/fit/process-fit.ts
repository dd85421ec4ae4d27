import type { FitEntry, FitReading, Process } from '../schema/process-schema.ts';
import { PROCESS_STARTS } from '../shop/processes.ts';
import { refuse, ok, type Result } from '../result.ts';
import { stated } from '../units/stated.ts';
import { estimateFit, SPREAD_WEIGHT, type Estimate, type FitKnown } from './estimate.ts';
import { grown, ofPrior, solved, type Information } from './normal-equations.ts';
import { FIT_PARTS, rowOf, type FitPart, type OddReading } from './reading.ts';

/** A number with its standard uncertainty. */
export interface Told {
  readonly value: number;
  readonly u: number;
}

/** What a process does to sizes, as it is known on a day. Lengths in m; u are standard uncertainties. */
export interface ProcessFit extends Readonly<Record<FitPart, Told>> {
  /** Height of the foot, m. */
  readonly footHigh: Told;
  /** Standard deviation of a made size about the fit, m, and of it, by how many readings it is known. */
  readonly spread: Told;
  /** Uncertainty of `out` and `into` together and the like: covariance of `FIT_PARTS`, row by row. */
  readonly covariance: Float64Array;
  /** Readings that count, of all entries. */
  readonly counted: number;
  /** Days since the last measurement; undefined where there is none. */
  readonly age: number | undefined;
}

/** How an entry left what is known. */
export interface FitStep {
  readonly entry: FitEntry;
  readonly fit: ProcessFit;
  readonly odd: readonly OddReading[];
  readonly left: Estimate['left'];
  readonly counted: number;
}

/** A process with all that its history says. */
export interface FitHistory {
  readonly now: ProcessFit;
  readonly steps: readonly FitStep[];
  readonly notes: readonly string[];
}

/**
 * Variance that a year adds: a machine is tightened, a nozzle wears, another spool is put on. Own choice: 0.03 mm of
 * contour, a part in a thousand of scale.
 */
const YEARLY: readonly number[] = [1e-3 ** 2, 1e-3 ** 2, 3e-5 ** 2, 3e-5 ** 2, 5e-5 ** 2];
const YEAR = 365.25;
/** Days after which it is said that a measurement is old. */
const OLD = 180;
/** A scale beyond this is no process, and a contour neither. */
const MOST_SCALE = 0.05;
const MOST_CONTOUR = 5e-4;

const dayNumber = (day: string): number => Date.parse(`${day.slice(0, 10)}T00:00:00Z`) / 86_400_000;

/** What is known of a process of a type before anything is measured. */
export function startOf(type: Process['type']): { info: Information; spread: number; weight: number; high: Told } {
  const s = PROCESS_STARTS[type];
  return {
    info: ofPrior([s.scale, s.scale, s.out, s.into, s.foot]),
    spread: s.spread,
    weight: SPREAD_WEIGHT,
    high: { value: s.footHigh[0], u: s.footHigh[1] },
  };
}

function fitFrom(f: FitKnown, high: Told, counted: number, age: number | undefined): ProcessFit {
  const n = FIT_PARTS.length;
  const told = Object.fromEntries(
    FIT_PARTS.map((id, i) => [id, { value: f.known.values[i]!, u: Math.sqrt(f.known.covariance[i * n + i]!) }]),
  ) as Record<FitPart, Told>;
  return {
    ...told,
    footHigh: high,
    // Standard deviation of a standard deviation of that many: σ/√(2ν).
    spread: { value: f.spread, u: f.spread / Math.sqrt(2 * Math.max(1, f.weight - 1)) },
    covariance: f.known.covariance,
    counted,
    age,
  };
}

/** The height of a foot with one more reading of it, each known to a layer or so. */
function higher(had: Told, readings: readonly FitReading[]): Told {
  return readings
    .filter((r) => r.feature === 'foot-height' && r.struck === undefined && r.made <= 2e-3)
    .reduce(({ value, u }, r) => {
      const own = r.spread ?? 1e-4;
      const weight = 1 / (u * u) + 1 / (own * own);
      return { value: (value / (u * u) + r.made / (own * own)) / weight, u: Math.sqrt(1 / weight) };
    }, had);
}

/** Why a fit cannot be a process's; undefined where it can. */
function impossible(fit: ProcessFit): ReturnType<typeof refuse> | undefined {
  for (const [id, name] of [
    ['scaleX', 'along x'],
    ['scaleY', 'along y'],
  ] as const)
    if (Math.abs(fit[id].value) > MOST_SCALE)
      return refuse(
        `A scale of ${(100 * fit[id].value).toFixed(1)} % ${name} is no process.`,
        'Plastics shrink by 0.2 to 3 %, and a machine’s steps are right to a few parts in a thousand.',
        'Look at the drawn sizes and at the unit that was read.',
      );
  for (const [id, name] of [
    ['out', 'Outsides'],
    ['into', 'Holes'],
  ] as const)
    if (Math.abs(fit[id].value) > MOST_CONTOUR + 2 * fit[id].u)
      return refuse(
        `${name} off by ${stated(Math.abs(fit[id].value), 'length', 3)} a side are no process.`,
        'A contour strays by a fraction of the nozzle or the kerf.',
        'Look at which size was drawn, and whether outsides and holes were mistaken for each other.',
      );
  return undefined;
}

/**
 * What is known of a process on a day: from the starting values of its type, entry by entry. What was measured long ago
 * counts less, so that a new coupon outweighs it.
 *
 * @param day ISO 8601
 * @returns refuses in words where an entry cannot be of a process, and names its day
 */
export function fitHistory(process: Pick<Process, 'type' | 'fits' | 'name'>, day: string): Result<FitHistory> {
  const start = startOf(process.type);
  const entries = [...process.fits].sort((a, b) => dayNumber(a.day) - dayNumber(b.day));
  let info = start.info;
  let state: FitKnown = { known: solved(info)!, spread: start.spread, weight: start.weight };
  let high = start.high;
  let counted = 0;
  let last: number | undefined;
  const steps: FitStep[] = [];
  for (const entry of entries) {
    const at = dayNumber(entry.day);
    if (last !== undefined) info = grown(state.known, growth(at - last));
    const made = estimateFit(entry.readings, info, { spread: state.spread, weight: Math.min(state.weight, 20) });
    if (!made.ok)
      return refuse(`Readings of ${entry.day}: ${made.problem.what}`, made.problem.why, made.problem.mend, entry.id);
    state = made.value;
    high = higher(high, entry.readings);
    counted += made.value.counted;
    const fit = fitFrom(state, high, counted, 0);
    const wrong = impossible(fit);
    if (wrong)
      return refuse(`Readings of ${entry.day}: ${wrong.problem.what}`, wrong.problem.why, wrong.problem.mend, entry.id);
    steps.push({ entry, fit, odd: made.value.odd, left: made.value.left, counted: made.value.counted });
    info = grown(state.known, growth(0));
    last = at;
  }
  const age = last === undefined ? undefined : Math.max(0, Math.floor(dayNumber(day) - last));
  if (age) state = { ...state, known: solved(grown(state.known, growth(age)))! };
  const now = fitFrom(state, high, counted, age);
  return ok({ now, steps, notes: notesOf(process, now, steps) });
}

const growth = (days: number): number[] => YEARLY.map((v) => (v * Math.max(0, days)) / YEAR);

function notesOf(process: Pick<Process, 'type'>, now: ProcessFit, steps: readonly FitStep[]): string[] {
  const notes: string[] = [];
  if (now.age === undefined)
    notes.push(
      'Nothing is measured yet: these are starting values of its type. A coupon takes three minutes to measure.',
    );
  else if (now.age > OLD)
    notes.push(
      `The last measurement is ${now.age} days old: its uncertainty has grown since. A new spool, nozzle or belt is reason enough to measure again.`,
    );
  const printed = PROCESS_STARTS[process.type].prints;
  const small = (t: Told) => t.value < -2.5 * t.u;
  if (printed && steps.length > 0 && small(now.out) && small(now.into))
    notes.push(
      'Outsides came out small and holes wide: printers do the opposite. Were the two mistaken for each other, or did the slicer correct them already?',
    );
  const [before, latest] = [steps.at(-2)?.fit, steps.at(-1)?.fit];
  if (before && latest)
    for (const [id, name] of [
      ['out', 'Outsides'],
      ['into', 'Holes'],
    ] as const) {
      const moved = latest[id].value - before[id].value;
      if (Math.abs(moved) > 3 * Math.hypot(before[id].u, latest[id].u))
        notes.push(
          `${name} have moved by ${stated(Math.abs(moved), 'length', 2)} a side since ${steps.at(-2)!.entry.day}: has something of the machine or the plastic changed?`,
        );
    }
  return notes;
}

/** Standard uncertainty with which a process's mean is known for a size, m: of what `rowOf` says of it. */
export function uncertainSize(fit: ProcessFit, row: ArrayLike<number>): number {
  const n = FIT_PARTS.length;
  let variance = 0;
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) variance += row[i]! * row[j]! * fit.covariance[i * n + j]!;
  return Math.sqrt(Math.max(0, variance));
}

/** What a drawn size comes out as by a process, m, and how it scatters from one part to the next and by what is not known. */
export function madeSize(
  fit: ProcessFit,
  reading: Pick<FitReading, 'feature' | 'axis' | 'drawn'>,
): { readonly mean: number; readonly unknown: number; readonly spread: number } {
  const row = rowOf({ ...reading, id: '', made: 0 });
  const gained = FIT_PARTS.reduce((s, id, i) => s + row[i]! * fit[id].value, 0);
  return { mean: reading.drawn + gained, unknown: uncertainSize(fit, row), spread: fit.spread.value };
}
