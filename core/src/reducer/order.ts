import type { CrossSection, ManifoldToplevel } from 'manifold-3d';
import { flatten } from '../shape/flatten.ts';
import { place, type Outline } from '../shape/outline.ts';
import { cutSlices, type Prism } from '../shape/solid.ts';
import type { Body } from './body.ts';

/** The way a part comes out, seen from the motor: on towards the output, or back. */
export type Way = 'up' | 'down';

/** Pieces of one body that stand at one height, and so are put in together. */
export interface Unit {
  readonly id: string;
  readonly body: string;
  readonly count: number;
  /** Where they lie along the axis, m. */
  readonly from: number;
  readonly to: number;
}

/** One move of putting a reducer together. */
export interface Move {
  readonly unit: Unit;
  /** The way it is put in: down onto what is there, or up from below. */
  readonly way: Way;
  /** Bodies that are brought into mesh with it and put in at once, or whether it is one of those. */
  readonly meshed?: readonly string[] | 'with the last';
  /** It is bent, or slipped over a flange, to get there. */
  readonly springs: boolean;
  /** How deep below what stands there already it ends, m: what a key must reach. */
  readonly deep: number;
  /** For a bearing, an insert or an idler’s pin: what it is pressed into, and whether that stands yet. */
  readonly seat?: { readonly in: string; readonly stands: boolean };
}

/** What keeps a unit from coming out, either way. */
export interface Held {
  readonly unit: Unit;
  readonly up: readonly string[];
  readonly down: readonly string[];
}

/** An order of putting a reducer together, or what cannot be taken out of it. */
export interface Order {
  readonly moves: readonly Move[];
  /** What no move takes out; empty where all comes apart. */
  readonly held: readonly Held[];
}

const MM = 1000;
/** Outlines are flattened to this, and taken back by twice as much: what fits slides, m. */
const CHORD = 1e-5;
/** Least area that two parts share seen along the axis, mm². */
const SHARED = 2e-3;
/** Heights nearer to each other than this are one, m. */
const SAME = 1e-6;

/** A slice of a unit seen along the axis: where it is, and its outline at a height, worked out once. */
interface Slice {
  readonly from: number;
  readonly to: number;
  readonly at: (height: number) => CrossSection;
  readonly end: () => void;
}

interface Part extends Unit {
  readonly of: Body;
  readonly slices: readonly Slice[];
}

const polygon = (o: Outline): [number, number][] => {
  const p = flatten(o, CHORD);
  return Array.from({ length: p.length / 2 }, (_, i) => [p[2 * i]! * MM, p[2 * i + 1]! * MM]);
};

/**
 * Slices of the pieces of a body that stand at one height, taken back so that what fits slides. A helix is told by its
 * outline at one height: what meshes there screws out.
 */
function slicesOf(kernel: ManifoldToplevel, body: Body, pieces: readonly number[]): Slice[] {
  const frames = body.places(0);
  const at = frames[pieces[0]!]!;
  const up = at.z[2];
  const rings = (p: Prism, turn: number) =>
    pieces.flatMap((i) => {
      const f = frames[i]!;
      const pose = { x: f.at[0], y: f.at[1], turn: Math.atan2(f.x[1], f.x[0]) + turn };
      return [p.outer, ...p.holes].map((o) => polygon(place(o, pose)));
    });
  return cutSlices(body.solid()).map(({ p, cuts }): Slice => {
    const sectionAt = (turn: number): CrossSection => {
      let whole = new kernel.CrossSection(rings(p, turn), 'EvenOdd');
      for (const c of cuts) {
        const [more, cutter] = [whole, new kernel.CrossSection(rings(c, c.turn ?? 0), 'EvenOdd')];
        whole = more.subtract(cutter);
        more.delete();
        cutter.delete();
      }
      const section = whole.offset(-2 * CHORD * MM, 'Miter', 2);
      whole.delete();
      return section;
    };
    const made = new Map<number, CrossSection>();
    const [a, b] = [at.at[2] + up * p.from, at.at[2] + up * p.to];
    return {
      from: Math.min(a, b),
      to: Math.max(a, b),
      at: (height) => {
        // How far its teeth have turned on there, in its own way along the axis.
        const turn = (p.turn ?? 0) + (p.twist === 0 ? 0 : (p.twist * up * (height - a)) / (p.to - p.from));
        const found = made.get(turn) ?? sectionAt(turn);
        made.set(turn, found);
        return found;
      },
      end: () => {
        for (const section of made.values()) section.delete();
      },
    };
  });
}

/** The units of some bodies: pieces of one body at one height. */
function unitsOf(kernel: ManifoldToplevel, bodies: readonly Body[]): Part[] {
  return bodies.flatMap((of): Part[] => {
    const levels: number[][] = [];
    const frames = of.places(0);
    frames.forEach((f, i) => {
      const level = levels.find((l) => Math.abs(frames[l[0]!]!.at[2] - f.at[2]) < SAME);
      if (level) level.push(i);
      else levels.push([i]);
    });
    return levels.map((pieces, n): Part => {
      const slices = slicesOf(kernel, of, pieces);
      return {
        of,
        id: levels.length > 1 ? `${of.id}@${n + 1}` : of.id,
        body: of.id,
        count: pieces.length,
        from: Math.min(...slices.map((s) => s.from)),
        to: Math.max(...slices.map((s) => s.to)),
        slices,
      };
    });
  });
}

/** Whether two parts may pass through one another as they are drawn: keyed, or one of them springs. */
const gives = (a: Part, b: Part): boolean =>
  (a.of.joins?.includes(b.body) ?? false) ||
  (b.of.joins?.includes(a.body) ?? false) ||
  ((a.of.flexes || b.of.flexes) && a.of.stage === b.of.stage && a.of.of === 'stage');

/** Whether one part must be out before another can be, whichever way that goes: a wheel before its key, a key before its shaft. */
const covers = (a: Part, b: Part): boolean =>
  b.of.lies?.under === a.body || a.of.lies?.on === b.body || (a.body === MOTOR_SCREWS && b.body === 'motor/body');

/** Whether two sections share more than a touch. */
function meet(a: CrossSection, b: CrossSection): boolean {
  const [p, q] = [a.bounds(), b.bounds()];
  if (p.min[0]! > q.max[0]! || q.min[0]! > p.max[0]! || p.min[1]! > q.max[1]! || q.min[1]! > p.max[1]!) return false;
  const both = a.intersect(b);
  const area = both.area();
  both.delete();
  return area > SHARED;
}

/**
 * Whether a part that goes up meets another: something of that one lies above something of it, and in its way. Teeth that lie
 * at one height are looked at there, else each where it begins.
 */
const meetsAbove = (mover: Part, other: Part): boolean =>
  mover.slices.some((s) =>
    other.slices.some((o) => {
      if (!(o.to > s.from + SAME)) return false;
      const both = Math.max(s.from, o.from);
      const beside = both < Math.min(s.to, o.to) - SAME;
      return meet(s.at(beside ? both : s.from), o.at(beside ? both : o.from));
    }),
  );

/** How an order is looked for, step by step. */
export interface OrderProgress {
  readonly share: number;
}

/**
 * What comes out first: nuts, then washers, then screws, before what they hold. The motor's own come last, so that they are
 * put in while nothing is in the way.
 */
const screwed = (p: Part): number => {
  if (p.body === MOTOR_SCREWS) return -1;
  return /\/nut/.test(p.body) ? 3 : /\/washer/.test(p.body) ? 2 : /\/(tie|screw)/.test(p.body) ? 1 : 0;
};
const MOTOR_SCREWS = 'case/screw-motor';

/**
 * What a part of the housing is pressed into, among some parts: a bearing or an insert into the plate that reaches over most
 * of it, an idler’s pin into its slide.
 */
function seatOf(part: Part, parts: readonly Part[]): number | undefined {
  const over = (p: Part) => Math.min(p.to, part.to) - Math.max(p.from, part.from);
  const plate = (p: Part) => /^case\/(plate|cover)/.test(p.body) && over(p) > (part.to - part.from) / 2;
  const slide = /^case\/(.*)-pin-(\d+)$/.exec(part.body);
  const found = /^case\/(bearing|insert)/.test(part.body)
    ? parts.findIndex(plate)
    : slide
      ? parts.findIndex((p) => p.body === `case/slide-${slide[1]}-${slide[2]}`)
      : -1;
  return found < 0 ? undefined : found;
}

/**
 * What would be set down before what it is pressed into is pressed into that first, and goes on with it: just before it,
 * unless what comes between stands in its way.
 *
 * @param put parts in the order in which they are put in
 */
function pressedFirst(
  put: readonly { readonly i: number; readonly way: Way }[],
  seats: ReadonlyMap<number, number>,
  above: readonly Uint8Array[],
): { i: number; way: Way }[] {
  const list = [...put];
  for (const [pressed, seat] of seats) {
    const from = list.findIndex((x) => x.i === pressed);
    const to = list.findIndex((x) => x.i === seat);
    const moved = list[from];
    // Taken out upwards, both are put in downwards.
    if (!moved || to < from || moved.way !== 'up' || list[to]!.way !== 'up') continue;
    if (list.slice(from + 1, to).some((x) => above[pressed]![x.i])) continue;
    list.splice(to, 0, moved);
    list.splice(from, 1);
  }
  return list;
}

/**
 * An order of putting a reducer together, found by taking it apart: at each step what can leave along the axis through
 * what is still there. Its axes must all run along the output's.
 *
 * @param base body that all is put on, and that stays to the last
 */
export function* orderOf(
  kernel: ManifoldToplevel,
  bodies: readonly Body[],
  base: string,
): Generator<OrderProgress, Order> {
  // A motor's shaft comes with its body.
  const parts = unitsOf(
    kernel,
    bodies.filter((b) => b.id !== 'motor/shaft'),
  );
  const n = parts.length;
  // above[i][j]: going up, i meets j; going down, i meets those that going up meet i.
  const above = parts.map(() => new Uint8Array(n));
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++)
      if (i !== j && !gives(parts[i]!, parts[j]!) && meetsAbove(parts[i]!, parts[j]!)) above[i]![j] = 1;
    yield { share: (0.9 * (i + 1)) / n };
  }
  const there = new Set(parts.map((_, i) => i));
  const out: { i: number; way: Way }[] = [];
  // What is in mesh as it is put in comes out at once.
  const meshed = parts.map((p, i) =>
    p.of.together === undefined ? [i] : parts.flatMap((q, j) => (q.of.together === p.of.together ? [j] : [])),
  );
  const blocks = (j: number, i: number, way: Way): boolean =>
    (way === 'up' ? above[i]![j] : above[j]![i]) === 1 || covers(parts[j]!, parts[i]!);
  const blockers = (i: number, way: Way): number[] =>
    [...there].filter((j) => !meshed[i]!.includes(j) && meshed[i]!.some((own) => blocks(j, own, way)));
  while (there.size > 1) {
    const free = [...there]
      .filter((i) => parts[i]!.body !== base && meshed[i]![0] === i)
      .flatMap((i) =>
        (['up', 'down'] as const).filter((way) => blockers(i, way).length === 0).map((way) => ({ i, way })),
      );
    if (free.length === 0) break;
    // From the output's end down; what comes out below, the motor above all, is left for the end.
    const best = free.reduce((a, b) => {
      const [p, q] = [parts[a.i]!, parts[b.i]!];
      if (screwed(p) !== screwed(q)) return screwed(p) > screwed(q) ? a : b;
      if (a.way !== b.way) return a.way === 'up' ? a : b;
      return a.way === 'up' ? (q.to > p.to + SAME ? b : a) : q.from < p.from - SAME ? b : a;
    });
    out.push(best);
    for (const i of meshed[best.i]!) there.delete(i);
  }
  const plain = ({ id, body, count, from, to }: Part): Unit => ({ id, body, count, from, to });
  const held = there.size > 1 ? [...there].filter((i) => parts[i]!.body !== base) : [];
  const last = [...there].filter((i) => parts[i]!.body === base);
  // Put in the other way round, what stands there already is what was taken out later.
  const standing: number[] = [...(held.length ? there : last)];
  const moves: Move[] = last.map((i) => ({ unit: plain(parts[i]!), way: 'down', springs: false, deep: 0 }));
  const seats = new Map(
    parts.flatMap((p, i): [number, number][] => {
      const seat = seatOf(p, parts);
      return seat === undefined ? [] : [[i, seat]];
    }),
  );
  for (const { i, way } of pressedFirst([...out].reverse(), seats, above)) {
    const group = meshed[i]!;
    const seat = seats.get(i);
    const top = standing.reduce((most, j) => Math.max(most, parts[j]!.to), -Infinity);
    const foot = standing.reduce((least, j) => Math.min(least, parts[j]!.from), Infinity);
    for (const own of group) {
      const p = parts[own]!;
      const springs =
        p.of.flexes ||
        standing.some((j) => parts[j]!.of.flexes && parts[j]!.of.stage === p.of.stage && p.of.of === 'stage');
      moves.push({
        unit: plain(p),
        way: way === 'up' ? 'down' : 'up',
        ...(group.length > 1 && {
          meshed: own === i ? group.filter((j) => j !== i).map((j) => parts[j]!.body) : ('with the last' as const),
        }),
        springs,
        deep: Math.max(0, way === 'up' ? top - p.to : p.from - foot),
        ...(seat !== undefined && { seat: { in: parts[seat]!.body, stands: standing.includes(seat) } }),
      });
    }
    standing.push(...group);
  }
  for (const p of parts) for (const s of p.slices) s.end();
  return {
    moves,
    held: held.map((i) => ({
      unit: plain(parts[i]!),
      up: [...new Set(blockers(i, 'up').map((j) => parts[j]!.body))],
      down: [...new Set(blockers(i, 'down').map((j) => parts[j]!.body))],
    })),
  };
}
