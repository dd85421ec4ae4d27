import { normals } from '../math/normal.ts';
import { seeded, triangular } from '../math/random.ts';
import type { Freedom, Gap, GapSide } from '../stage/freedom.ts';
import { standsOut, type MadeBy } from './making-of.ts';

/** A stage as it is drawn many times over: what its freedom comes from, and how much of its play the output sees. */
export interface JamStage {
  readonly name: string;
  readonly freedom: Freedom | undefined;
  /** Turns of the stage's output for one of the joint's: its play is divided by it. */
  readonly after: number;
  /** Play at its own output where nothing more is known of it: likely, least and most, rad. */
  readonly play: readonly [number, number, number];
  /** Which process makes a part of it; undefined for what is bought. */
  readonly madeBy: (part: string) => MadeBy | undefined;
  /** Which process makes what holds its axes: housing or carrier; undefined where that is not known. */
  readonly frame?: MadeBy | undefined;
  /** Whether it is of plastic, which grows with warmth more than metal does. */
  readonly plastic: (part: string) => boolean;
  /** The allowance is moved in it. */
  readonly moves: boolean;
}

/** How warm it gets above where it was measured: likely, and standard deviation, K. */
export interface Warmth {
  readonly mean: number;
  readonly sd: number;
  /** Expansion of plastic and of metal, 1/K, each likely and standard deviation. */
  readonly plastic: readonly [number, number];
  readonly metal: readonly [number, number];
  /** What holds the axes is of plastic. */
  readonly frame: boolean;
}

/** What each of many imagined specimens needs: the allowance beyond which it turns, and up to which its play is allowed, m. */
export interface Drawn {
  /** Sorted. */
  readonly turnsFrom: Float64Array;
  readonly allowedTo: Float64Array;
  /** Play at the output as it is drawn now, rad, sorted; below 0 by what is lacking where it binds. */
  readonly play: Float64Array;
  /** Play that a metre of allowance adds at the output, rad/m. */
  readonly perAllowance: number;
}

/** A side with what is known of whoever makes it. */
interface Source {
  readonly mean: number;
  readonly each: number;
  /** Which piece it is of, among those of all stages; a path's own stand behind each other from there on. */
  readonly piece: number;
  /** Place among what all parts of a process share; −1 for none. */
  readonly shared: number;
  readonly sharedBy: number;
}

/**
 * Draws specimens of a line as its processes scatter: how far contours stand out, run-out, places of axes, warmth. One
 * draw is two numbers: the allowance it needs to turn, and the allowance at which its play is too much. Since every gap
 * grows by the allowance, the chances at any allowance are counted from them and nothing is drawn again.
 *
 * Play of paths beside each other is the overlap of what they leave: min(o + w/2) − max(o − w/2).
 *
 * @param asked most play at the output, rad; Infinity where nobody asks
 * @param samples how many
 * @returns yields the share that is done from time to time
 */
export function* drawSpecimens(
  stages: readonly JamStage[],
  asked: number,
  warmth: Warmth,
  samples: number,
  seed = 1,
): Generator<number, Drawn> {
  const z = normals(seeded(seed));
  const uniform = seeded(seed + 7919);
  const sharedIds: string[] = [];
  const sharedOf = (made: MadeBy, contour: GapSide['contour']): number => {
    const id = `${made.process.id}/${contour}`;
    const at = sharedIds.indexOf(id);
    return at >= 0 ? at : sharedIds.push(id) - 1;
  };
  // A wheel is met in every gap of its path, off by the same: a slot for each piece, filled when it is first met.
  const slots = new Map<string, number>();
  let slotCount = 0;
  const slotOf = (stage: number, side: GapSide, paths: number): number => {
    const id = `${stage}/${side.part}/${side.contour}/${side.each}`;
    const had = slots.get(id);
    if (had !== undefined) return had;
    slots.set(id, slotCount);
    slotCount += side.each ? paths : 1;
    return slotCount - (side.each ? paths : 1);
  };
  const source = (stage: JamStage, side: GapSide, piece: number): Source => {
    const made = stage.madeBy(side.part);
    if (!made) return { piece, mean: 0, each: side.usual, shared: -1, sharedBy: 0 };
    const out = standsOut(made, side.contour);
    return {
      piece,
      mean: side.share * out.mean,
      each: side.share * out.each,
      shared: sharedOf(made, side.contour),
      sharedBy: side.share * out.shared,
    };
  };
  const made = stages.map((stage, k) => ({
    stage,
    // Either end of a distance strays by half of a size, and all distances by how well the scale is known.
    strays: stage.frame ? (stage.frame.fit.spread.value / 2) * Math.SQRT2 : 0,
    scaleBy: stage.frame ? Math.hypot(stage.frame.fit.scaleX.u, stage.frame.fit.scaleY.u) / 2 : 0,
    chains: (stage.freedom?.chains ?? []).map((chain) => ({
      chain,
      turn: chain.gaps.reduce((s, g) => s + g.turn, 0),
      // What springs take out is room that parts need and play that nobody feels.
      loose: chain.gaps.reduce((s, g) => s + (g.taken ? 0 : g.turn), 0),
      gaps: chain.gaps.map((gap) => ({
        gap,
        common: gap.sides.filter((s) => !s.each).map((s) => source(stage, s, slotOf(k, s, chain.paths))),
        own: gap.sides.filter((s) => s.each).map((s) => source(stage, s, slotOf(k, s, chain.paths))),
        grows: grown(gap, stage.plastic, warmth.frame),
      })),
    })),
  }));
  const perAllowance = made.reduce(
    (s, { stage, chains }) =>
      s + (stage.moves ? chains.reduce((t, c) => t + (c.chain.paths > 0 ? c.loose : 0), 0) / Math.abs(stage.after) : 0),
    0,
  );
  const turnsFrom = new Float64Array(samples);
  const allowedTo = new Float64Array(samples);
  const play = new Float64Array(samples);
  const shared = new Float64Array(sharedIds.length);
  const pieces = new Float64Array(slotCount);
  for (let n = 0; n < samples; n++) {
    if (n % 4096 === 0 && n > 0) yield n / samples;
    for (let i = 0; i < shared.length; i++) shared[i] = z();
    const warm = warmth.mean + warmth.sd * z();
    const plastic = (warmth.plastic[0] + warmth.plastic[1] * z()) * warm;
    const metal = (warmth.metal[0] + warmth.metal[1] * z()) * warm;
    pieces.fill(NaN);
    let needs = -Infinity;
    let total = 0;
    for (const { stage, chains, strays, scaleBy } of made) {
      const scale = scaleBy > 0 ? scaleBy * z() : 0;
      if (chains.length === 0) {
        const [likely, low, high] = stage.play;
        total += triangular(uniform(), low, likely, high) / Math.abs(stage.after);
        continue;
      }
      for (const { chain, turn, loose, gaps } of chains) {
        const room = gaps.map(
          ({ gap, common, grows }) =>
            gap.drawn +
            grows[0] * plastic +
            grows[1] * metal +
            gap.perCentre * (gap.centre * scale + (chain.paths === 1 && strays > 0 ? strays * z() : 0)) +
            gap.place * z() -
            taken(common, z, shared, pieces, 0),
        );
        const wobble = gaps.map(({ gap }) => gap.wobble * Math.abs(z()));
        let [low, high, tightLow, tightHigh] = [-Infinity, Infinity, -Infinity, Infinity];
        for (let path = 0; path < chain.paths; path++) {
          let [wide, tight] = [0, 0];
          // A planet that stands too far out leaves the sun and comes upon the ring.
          const beyond = chain.paths > 1 && strays > 0 ? strays * z() : 0;
          for (let g = 0; g < gaps.length; g++) {
            const free = room[g]! + gaps[g]!.gap.perCentre * beyond - taken(gaps[g]!.own, z, shared, pieces, path);
            if (!gaps[g]!.gap.taken) wide += gaps[g]!.gap.turn * free;
            tight += gaps[g]!.gap.turn * (free - wobble[g]!);
            const need = wobble[g]! - free;
            if (stage.moves) needs = Math.max(needs, need);
            else if (need > 0) needs = Infinity;
          }
          const off = chain.apart * z();
          // Paths that are all pressed stand where they are pressed, however they lie.
          high = Math.min(high, (loose > 0 ? off : 0) + wide / 2);
          low = Math.max(low, (loose > 0 ? off : 0) - wide / 2);
          tightHigh = Math.min(tightHigh, off + tight / 2);
          tightLow = Math.max(tightLow, off - tight / 2);
        }
        if (gaps.length > 0) {
          const least = tightHigh - tightLow;
          if (stage.moves) needs = Math.max(needs, -least / turn);
          else if (least < 0) needs = Infinity;
          total += (high - low) / Math.abs(stage.after);
        }
        total += (chain.extra * uniform()) / Math.abs(stage.after);
      }
    }
    turnsFrom[n] = needs;
    play[n] = total;
    allowedTo[n] = perAllowance > 0 ? (asked - total) / perAllowance : total > asked ? -Infinity : Infinity;
  }
  return { turnsFrom: turnsFrom.sort(), allowedTo: allowedTo.sort(), play: play.sort(), perAllowance };
}

/** What a gap gains for a unit of expansion of plastic and of metal, m: of wheels that grow, and of what holds them. */
function grown(gap: Gap, plastic: JamStage['plastic'], frame: boolean): readonly [number, number] {
  const out: [number, number] = [0, 0];
  for (const x of gap.sides) out[plastic(x.part) ? 0 : 1] += x.perGrowth * x.radius;
  out[frame ? 0 : 1] += gap.perCentre * gap.centre;
  return out;
}

function taken(
  sources: readonly Source[],
  z: () => number,
  shared: Float64Array,
  pieces: Float64Array,
  path: number,
): number {
  let sum = 0;
  for (let i = 0; i < sources.length; i++) {
    const s = sources[i]!;
    const slot = s.piece + path;
    let off = pieces[slot]!;
    if (Number.isNaN(off)) pieces[slot] = off = z();
    sum += s.mean + s.each * off;
    if (s.shared >= 0) sum += s.sharedBy * shared[s.shared]!;
  }
  return sum;
}

/** How many of a sorted list lie below a number, by halving. */
function below(list: Float64Array, x: number): number {
  let [a, b] = [0, list.length];
  while (a < b) {
    const m = (a + b) >> 1;
    if (list[m]! < x) a = m + 1;
    else b = m;
  }
  return a;
}

/** Chance that a specimen jams with the gaps wider by so much, m. */
export const chanceJams = (d: Drawn, by: number): number => 1 - below(d.turnsFrom, by + 1e-15) / d.turnsFrom.length;

/** Chance that its play is over what is asked. */
export const chanceLoose = (d: Drawn, by: number): number => below(d.allowedTo, by) / d.allowedTo.length;

/**
 * The allowance at which jamming, so many times as bad as too much play, is as likely as it: below it more jam, above it
 * more are loose.
 *
 * @param weight how much worse a specimen that jams is than one with too much play
 * @returns m; NaN where no allowance changes anything, or nobody asks how much play there may be
 */
export function balanced(d: Drawn, weight = 1): number {
  const finite = (list: Float64Array) => [list.find(Number.isFinite), list.findLast(Number.isFinite)];
  const ends = [...finite(d.turnsFrom), ...finite(d.allowedTo)];
  if (!(d.perAllowance > 0) || ends.some((x) => x === undefined)) return NaN;
  const [low, high] = [Math.min(...(ends as number[])), Math.max(...(ends as number[]))];
  let [a, b] = [low - 1e-5, high + 1e-5];
  for (let i = 0; i < 60; i++) {
    const m = (a + b) / 2;
    if (weight * chanceJams(d, m) > chanceLoose(d, m)) a = m;
    else b = m;
  }
  return (a + b) / 2;
}

/** Quantile of a sorted list. */
const at = (list: Float64Array, q: number): number =>
  list[Math.min(list.length - 1, Math.max(0, Math.round(q * (list.length - 1))))]!;

/** Play as made: median and the ends of 95 %, rad. */
export const playAsMade = (d: Drawn, by = 0): readonly [number, number, number] =>
  [0.5, 0.025, 0.975].map((q) => Math.max(0, at(d.play, q) + by * d.perAllowance)) as [number, number, number];

/** Both chances over the allowance, for drawing. */
export function chanceCurves(
  d: Drawn,
  from: number,
  to: number,
  points = 81,
): { readonly by: Float64Array; readonly jams: Float64Array; readonly loose: Float64Array } {
  const by = Float64Array.from({ length: points }, (_, i) => from + ((to - from) * i) / (points - 1));
  return { by, jams: by.map((x) => chanceJams(d, x)), loose: by.map((x) => chanceLoose(d, x)) };
}
