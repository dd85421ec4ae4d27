import { normalBelow } from '../math/normal.ts';
import type { Body } from '../reducer/body.ts';
import type { Correction, RoundChange } from '../solid/correction.ts';
import { isoLimits } from './iso286.ts';
import type { MadeBy } from './making-of.ts';
import type { MatingPair, PairSide } from './pairs.ts';
import { madeSize } from './process-fit.ts';
import { PURPOSES, purposeWindow } from './purposes.ts';

/** A diameter as it comes out: mean, and standard deviation, m. */
interface Size {
  readonly mean: number;
  readonly sd: number;
  /** What the size comes from, in a few words. */
  readonly by: string;
}

/** Clearance of a pair as made: mean and the ends of 95 %, m; chances that it is too tight or too loose for its purpose. */
export interface Clearance {
  readonly mean: number;
  readonly low: number;
  readonly high: number;
  readonly tight: number;
  readonly loose: number;
}

/** A pair with its fit. */
export interface PairFit {
  readonly pair: MatingPair;
  /** Clearance that serves its purpose, m. */
  readonly window: readonly [number, number];
  /** Tolerance classes of hole and shaft, where both are of metal. */
  readonly classes?: readonly [string, string];
  readonly hole: Size;
  readonly shaft: Size;
  readonly drawn: Clearance;
  /** Once the diameter is drawn as the fit asks for; the same where nothing can be drawn otherwise. */
  readonly fitted: Clearance;
  /** What is drawn otherwise for it. */
  readonly change?: RoundChange & { readonly body: string };
}

/** Deviations of a bearing's diameters in the normal class, m. Source: ISO 492, tables for bore and outside to 80 mm. */
function bearingLimits(d: number, outside: boolean): readonly [number, number] {
  const steps = outside
    ? [
        [18, 8],
        [30, 9],
        [50, 11],
        [80, 13],
        [120, 15],
      ]
    : [
        [18, 8],
        [30, 10],
        [50, 12],
        [80, 15],
      ];
  const um = (steps.find(([to]) => d * 1e3 <= to! + 1e-9) ?? steps.at(-1)!)[1]!;
  return [-um * 1e-6, 0];
}

const among = (d: number, [low, high]: readonly [number, number], by: string): Size => ({
  mean: d + (low + high) / 2,
  // The zone is ±3 standard deviations.
  sd: (high - low) / 6,
  by,
});

/** The size of one side as it comes out. */
function sizeOf(
  side: PairSide,
  hole: boolean,
  pair: MatingPair,
  body: Body | undefined,
  made: MadeBy | undefined,
): Size {
  const d = side.diameter;
  if (made) {
    const axis = 'round' as const;
    const feature = hole ? ('hole' as const) : ('outside' as const);
    const s = madeSize(made.fit, { feature, axis, drawn: d });
    const mean = made.process.compensates === 'none' ? s.mean : d;
    return { mean, sd: Math.hypot(s.unknown, s.spread), by: made.process.name };
  }
  const name = body?.part.name ?? side.name;
  if (/bearing/i.test(name)) return among(d, bearingLimits(d, !hole), 'ISO 492, normal class');
  if (/^(screw|threaded rod)/i.test(name)) return among(d, [-1.2e-4, -2e-5], 'ISO 965-1, 6g');
  if (/^nut/i.test(name)) return among(d, [-0.033 * d, 0], 'ISO 4032');
  // Printed by nobody known: a wide guess, as a filament printer's.
  if (body?.part.made === 'printed') return { mean: d + (hole ? -8e-5 : 5e-5), sd: 1.2e-4, by: 'no process chosen' };
  const kind = hole
    ? PURPOSES[pair.purpose].metal[0]
    : body?.id.startsWith('motor/')
      ? 'h6'
      : PURPOSES[pair.purpose].metal[1];
  const bought = body && /rod/i.test(body.part.material) ? 'h6' : kind;
  const limits = isoLimits(d, hole ? kind : bought) ?? { low: -2e-5, high: 2e-5 };
  return among(d, [limits.low, limits.high], `ISO 286, ${hole ? kind : bought}`);
}

function clearance(hole: Size, shaft: Size, by: number, [low, high]: readonly [number, number]): Clearance {
  const mean = hole.mean - shaft.mean + by;
  const sd = Math.max(1e-7, Math.hypot(hole.sd, shaft.sd));
  return {
    mean,
    low: mean - 1.96 * sd,
    high: mean + 1.96 * sd,
    tight: normalBelow((low - mean) / sd),
    loose: normalBelow((mean - high) / sd),
  };
}

/** Clearance of a bearing's bore on a shaft of metal, m: from a light press to a sliding seat, k5 to g6 on usual sizes. */
const ON_SHAFT = [-1.2e-5, 2.2e-5] as const;

/** Whether a side is printed or cut out of sheet; what is milled keeps the classes of metal. */
const isSoft = (body: Body | undefined, made: MadeBy | undefined): boolean =>
  body?.part.made === 'printed' || (made !== undefined && made.process.type !== 'mill');

/** Clearance that two classes leave between them, m. */
function zoneOf(diameter: number, [hole, shaft]: readonly [string, string]): readonly [number, number] {
  const [h, s] = [isoLimits(diameter, hole), isoLimits(diameter, shaft)];
  return h && s ? [h.low - s.high, h.high - s.low] : [-2e-5, 2e-5];
}

/**
 * Fits of all pairs of a reducer: the clearance that each comes to by the processes of its two sides, and what diameter to
 * draw so that it serves its purpose. The hole is drawn otherwise where it can be, else the shaft.
 *
 * @param madeBy the process of a body, by its id and whether it is printed
 */
export function fitsOf(
  pairs: readonly MatingPair[],
  bodies: readonly Body[],
  madeBy: (key: string, printed: boolean) => MadeBy | undefined,
): PairFit[] {
  const byId = new Map(bodies.map((b) => [b.id, b] as const));
  return pairs.map((pair): PairFit => {
    const [hb, sb] = [byId.get(pair.hole.body), byId.get(pair.shaft.body)];
    const [hm, sm] = [hb, sb].map((b) => b && madeBy(b.id, b.part.made === 'printed'));
    const [hole, shaft] = [sizeOf(pair.hole, true, pair, hb, hm), sizeOf(pair.shaft, false, pair, sb, sm)];
    const { diameter } = pair.hole;
    const plastic = isSoft(hb, hm) || isSoft(sb, sm);
    const standard = /bearing|screw|threaded|nut/i.test(`${pair.hole.name} ${pair.shaft.name}`);
    const own = PURPOSES[pair.purpose].metal;
    const window =
      plastic || pair.purpose === 'screw' || pair.purpose === 'nut'
        ? purposeWindow(pair.purpose, diameter)
        : standard
          ? ON_SHAFT
          : zoneOf(diameter, own);
    const drawn = clearance(hole, shaft, 0, window);
    const base = { pair, window, hole, shaft, drawn, ...(!plastic && !standard && { classes: own }) };
    if (!hm && !sm) return { ...base, fitted: drawn };
    // A micrometre is finer than any printer draws.
    const by = Math.round(((window[0] + window[1]) / 2 - drawn.mean) * 1e6) / 1e6;
    // What is wide enough stays: screws pass a hole that is drawn for them.
    if ((pair.purpose === 'screw' || pair.purpose === 'nut') && drawn.tight < 0.01 && drawn.loose < 0.01)
      return { ...base, fitted: drawn };
    const holeDraws = hm !== undefined;
    const side = holeDraws ? pair.hole : pair.shaft;
    return {
      ...base,
      fitted: clearance(hole, shaft, by, window),
      change: { body: side.body, hole: holeDraws, diameter: side.diameter, by: holeDraws ? by : -by },
    };
  });
}

/** A chance of going wrong that is worth minding. */
export const MUCH = 0.05;

/**
 * What to do about a pair that is likely to go wrong; nothing where it is not.
 *
 * @param fitted whether round faces are drawn as their fits ask for
 */
export function pairMend(fit: PairFit, fitted: boolean): string | undefined {
  const c = fitted ? fit.fitted : fit.drawn;
  if (c.tight <= MUCH && c.loose <= MUCH) return undefined;
  if (!fitted && fit.change && fit.fitted.tight + fit.fitted.loose < c.tight + c.loose)
    return 'Draw round faces as their fits ask for.';
  if (!fit.change) return 'Choose a process for its printed side, or have that side made to the class.';
  // Drawn in the middle already: what is left is scatter, and how well the process is known.
  return fit.pair.purpose === 'press' || fit.pair.purpose === 'seat' || fit.pair.purpose === 'hub'
    ? 'Ream it to size and bond what turns out loose, or measure the process further.'
    : 'Ream it to size, or measure the process further.';
}

/** Changes of round faces by body; where several things go through one hole, the middle of what they ask for. */
export function changesByBody(fits: readonly PairFit[]): ReadonlyMap<string, readonly RoundChange[]> {
  const asked = new Map<string, Map<string, { change: RoundChange; sum: number; count: number }>>();
  for (const { change, pair } of fits) {
    if (!change) continue;
    const of = asked.get(change.body) ?? new Map();
    asked.set(change.body, of);
    const key = `${change.hole}/${Math.round(change.diameter * 1e6)}`;
    const had = of.get(key);
    // What runs or is pressed in weighs by how often it is there.
    if (had) {
      had.sum += change.by * pair.count;
      had.count += pair.count;
    } else of.set(key, { change, sum: change.by * pair.count, count: pair.count });
  }
  return new Map(
    [...asked].map(([body, of]) => [
      body,
      [...of.values()].map(({ change, sum, count }): RoundChange => ({
        hole: change.hole,
        diameter: change.diameter,
        by: sum / count,
      })),
    ]),
  );
}

/**
 * How a part is drawn for its process: what the process adds, taken off where the outline is what corrects it, and its
 * fits.
 *
 * @param rounds changes of its round faces; none to leave its fits as drawn
 * @param drawnIn how far its outer contour is drawn in already, m: given back where outline or slicer correct, never both
 */
export function correctionFor(made: MadeBy | undefined, rounds: readonly RoundChange[], drawnIn = 0): Correction {
  if (!made) return { out: 0, into: 0, scale: 0, rounds: [] };
  const { process, fit } = made;
  const own = process.compensates === 'outline';
  const mean = (fit.scaleX.value + fit.scaleY.value) / 2;
  return {
    out: (own ? fit.out.value : 0) - (process.compensates === 'none' ? 0 : drawnIn),
    into: own ? fit.into.value : 0,
    scale: own ? mean : 0,
    rounds,
    ...(process.foot === 'chamfer' && { foot: { by: Math.max(0, fit.foot.value), high: fit.footHigh.value } }),
  };
}

/** What to type in the slicer where it corrects: contour settings as slicers take them, m, and a scale as a share. */
export function slicerNumbers(made: MadeBy): {
  readonly outer: number;
  readonly holes: number;
  readonly scale: number;
  readonly foot: number;
} {
  const { fit } = made;
  return {
    outer: -fit.out.value,
    holes: fit.into.value,
    scale: 1 / (1 + (fit.scaleX.value + fit.scaleY.value) / 2),
    foot: fit.foot.value,
  };
}
