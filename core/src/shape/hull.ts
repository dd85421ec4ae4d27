import { circle, OutlinePen, type Outline } from './outline.ts';

/** A round reach in the plane: centre and radius, m; a point where the radius is 0. */
export interface Round {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** A piece of the hull of circles: an arc of one of them, followed by a straight line to the next piece. */
export interface HullArc extends Round {
  /** Where the arc begins, rad, and how far it goes counter-clockwise. */
  readonly from: number;
  readonly sweep: number;
}

const TURN = 2 * Math.PI;
/** Angles nearer to each other than this are one. */
const SAME = 1e-9;

/** Those that do not lie within another. */
function outermost(rounds: readonly Round[]): Round[] {
  const sorted = [...rounds].sort((a, b) => b.r - a.r);
  const out: Round[] = [];
  for (const c of sorted) if (!out.some((o) => Math.hypot(o.x - c.x, o.y - c.y) + c.r <= o.r + 1e-12)) out.push(c);
  return out;
}

/** The angles at which two circles reach equally far: c·u + r = c'·u + r'. */
function evenAngles(a: Round, b: Round): number[] {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const share = (a.r - b.r) / Math.hypot(dx, dy);
  if (Math.abs(share) >= 1) return [];
  const [way, off] = [Math.atan2(dy, dx), Math.acos(share)];
  return [way + off, way - off];
}

/**
 * The smallest convex shape that holds circles, as arcs of them counter-clockwise with straight lines between.
 *
 * Source: the support function of the hull is the largest of the circles' c·u + r; where two are equal the outline goes
 * over from one to the other.
 * @param rounds at least one
 * @param out how far the shape is grown all round, m
 */
export function hullArcs(rounds: readonly Round[], out = 0): HullArc[] {
  const list = outermost(rounds).map((c) => ({ ...c, r: c.r + out }));
  if (list.length === 1) return [{ ...list[0]!, from: 0, sweep: TURN }];
  const angles: number[] = [];
  list.forEach((a, i) => list.slice(i + 1).forEach((b) => angles.push(...evenAngles(a, b))));
  const breaks = angles.map((a) => ((a % TURN) + TURN) % TURN).sort((a, b) => a - b);
  const distinct = breaks.filter((a, i) => i === 0 || a - breaks[i - 1]! > SAME);
  const farthest = (angle: number): Round => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const reach = (o: Round) => o.x * c + o.y * s + o.r;
    return list.reduce((best, o) => (reach(o) > reach(best) ? o : best));
  };
  const arcs: { of: Round; from: number; sweep: number }[] = [];
  distinct.forEach((from, i) => {
    const to = i + 1 < distinct.length ? distinct[i + 1]! : distinct[0]! + TURN;
    const of = farthest((from + to) / 2);
    const last = arcs.at(-1);
    if (last?.of === of) last.sweep += to - from;
    else arcs.push({ of, from, sweep: to - from });
  });
  // The last arc may go on where the first begins.
  if (arcs.length > 1 && arcs[0]!.of === arcs.at(-1)!.of) {
    const end = arcs.pop()!;
    arcs[0] = { of: end.of, from: end.from, sweep: end.sweep + arcs[0]!.sweep };
  }
  return arcs.map(({ of, from, sweep }) => ({ ...of, from, sweep }));
}

/** A bump on an outline: a circle whose centre stands a little beyond it. */
export interface Bump {
  readonly x: number;
  readonly y: number;
}

/** What a bump is like: its radius, and how far its centre stands beyond the outline, m; the second less than the first. */
export interface BumpSize {
  readonly r: number;
  readonly beyond: number;
  /** Whether one may stand with its centre there; anywhere where left out. */
  readonly free?: (x: number, y: number) => boolean;
}

/** Half the angle of an arc that a bump covers, rad. */
const coveredAngle = (radius: number, { r, beyond }: BumpSize): number =>
  Math.acos(Math.min(1, (radius ** 2 + (radius + beyond) ** 2 - r ** 2) / (2 * radius * (radius + beyond))));

/** One stretch of the outline that bumps may stand on: an arc, or a line between two. */
interface Stretch {
  readonly arc: HullArc | undefined;
  readonly length: number;
  at(along: number): { readonly x: number; readonly y: number; readonly nx: number; readonly ny: number };
}

/** Along a stretch, how much a bump covers either way, m. */
const coversOf = ({ arc }: Stretch, size: BumpSize): number =>
  arc ? arc.r * coveredAngle(arc.r, size) : Math.sqrt(Math.max(0, size.r ** 2 - size.beyond ** 2));

/** The stretches of a hull: each arc, and the line after it. */
function stretchesOf(arcs: readonly HullArc[]): Stretch[] {
  return arcs.flatMap((a, i): Stretch[] => {
    const end = a.from + a.sweep;
    const next = arcs[(i + 1) % arcs.length]!;
    const [x0, y0] = [a.x + a.r * Math.cos(end), a.y + a.r * Math.sin(end)];
    const [x1, y1] = [next.x + next.r * Math.cos(next.from), next.y + next.r * Math.sin(next.from)];
    const long = Math.hypot(x1 - x0, y1 - y0);
    const arc: Stretch = {
      arc: a,
      length: a.r * a.sweep,
      at: (s) => {
        const t = a.from + s / a.r;
        return { x: a.x + a.r * Math.cos(t), y: a.y + a.r * Math.sin(t), nx: Math.cos(t), ny: Math.sin(t) };
      },
    };
    if (arcs.length === 1) return [arc];
    const line: Stretch = {
      arc: undefined,
      length: long,
      at: (s) => ({
        x: x0 + ((x1 - x0) * s) / long,
        y: y0 + ((y1 - y0) * s) / long,
        nx: Math.cos(end),
        ny: Math.sin(end),
      }),
    };
    return [arc, line];
  });
}

/** A bump where it stands along its stretch, m. */
interface Standing {
  readonly at: number;
  readonly covers: number;
  readonly size: BumpSize;
}

/** Room between bumps, over what they cover. */
const CLEAR = 1.05;

/** The centre of a bump, so far along its stretch, m. */
function centreOf(s: Stretch, along: number, { beyond }: BumpSize): Bump {
  const { x, y, nx, ny } = s.at(along);
  return { x: x + nx * beyond, y: y + ny * beyond };
}

/** A bump at the nearest place with room, on its own stretch or on one beside it; beside others where it may move. */
function nearestRoom(
  stretches: readonly Stretch[],
  standing: readonly (readonly Standing[])[],
  wish: number,
  size: BumpSize,
  moves: boolean,
): { readonly i: number; readonly bump: Standing } | undefined {
  let best: { i: number; bump: Standing; off: number } | undefined;
  let start = 0;
  for (const [i, s] of stretches.entries()) {
    const covers = coversOf(s, size);
    const room = CLEAR * covers;
    const others = standing[i]!;
    const beside = moves
      ? others.flatMap((o) => [o.at - CLEAR * (o.covers + covers), o.at + CLEAR * (o.covers + covers)])
      : [];
    for (const wanted of [wish - start, ...beside]) {
      if (s.length < 2 * room) continue;
      const at = Math.min(s.length - room, Math.max(room, wanted));
      const off = Math.abs(start + at - wish);
      const { x, y } = centreOf(s, at, size);
      if (size.free?.(x, y) === false) continue;
      if (others.some((o) => Math.abs(o.at - at) < CLEAR * (o.covers + covers) - 1e-9)) continue;
      if (!best || off < best.off) best = { i, bump: { at, covers, size }, off };
    }
    start += s.length;
  }
  return best;
}

/** Places that are looked at round a circle for one where a bump may stand. */
const ROUND_PLACES = 360;

/** A bump at the nearest place of a whole circle where it may stand clear of others; at its own where any place will do. */
function roundRoom(s: Stretch, others: readonly Standing[], wish: number, size: BumpSize): Standing | undefined {
  const covers = coversOf(s, size);
  if (!size.free) return { at: wish, covers, size };
  const apart = (a: number, b: number) => {
    const d = Math.abs(a - b) % s.length;
    return Math.min(d, s.length - d);
  };
  for (let k = 0; k <= ROUND_PLACES; k++) {
    // On and back by turns.
    const off = (k % 2 === 0 ? k / 2 : -(k + 1) / 2) * (s.length / ROUND_PLACES);
    const at = (((wish + off) % s.length) + s.length) % s.length;
    const { x, y } = centreOf(s, at, size);
    if (!size.free(x, y) || others.some((o) => apart(o.at, at) < CLEAR * (o.covers + covers))) continue;
    return { at, covers, size };
  }
  return undefined;
}

/** What {@link bumpedHull} puts on an outline, and where. */
export interface BumpedHull {
  readonly outline: Outline;
  readonly centres: readonly Bump[];
  /** Of the further bumps. */
  readonly further: readonly Bump[];
}

/**
 * A hull with round bumps on it for screws, spread as evenly as its arcs and lines let them stand clear of corners.
 *
 * @param count how many are wanted
 * @param more further bumps of another size, put between these, which stand as they would without
 * @returns the outline, and where the bumps' centres are; fewer than wanted where there is no room for so many
 */
export function bumpedHull(
  arcs: readonly HullArc[],
  count: number,
  size: BumpSize,
  more?: { readonly count: number; readonly size: BumpSize },
): BumpedHull {
  const stretches = stretchesOf(arcs);
  const whole = stretches.reduce((s, x) => s + x.length, 0);
  const closed = stretches.length === 1;
  const standing = stretches.map((): Standing[] => []);
  for (let k = 0; k < count; k++) {
    const wish = (whole * (k + 0.5)) / count;
    if (closed) {
      const bump = roundRoom(stretches[0]!, standing[0]!, wish, size);
      if (bump) standing[0]!.push(bump);
    } else {
      const found = nearestRoom(stretches, standing, wish, size, false);
      if (found) standing[found.i]!.push(found.bump);
    }
  }
  for (let k = 0; more && k < more.count; k++) {
    // In the middle between two of the first where there are as many.
    const found = nearestRoom(stretches, standing, (whole * k) / more.count, more.size, true);
    if (found) standing[found.i]!.push(found.bump);
  }
  const centres: Bump[] = [];
  const further: Bump[] = [];
  const pen = new OutlinePen();
  const arcTo = (a: HullArc, from: number, to: number) =>
    pen.arc(a.x, a.y, a.r, a.from + from / a.r, (to - from) / a.r);
  stretches.forEach((s, i) => {
    const stops = standing[i]!.sort((p, q) => p.at - q.at);
    // Round, it begins behind its last bump and ends there.
    let at = closed && stops.length ? stops.at(-1)!.at + stops.at(-1)!.covers - whole : 0;
    for (const stop of stops) {
      if (s.arc) arcTo(s.arc, at, stop.at - stop.covers);
      else pen.to(s.at(at).x, s.at(at).y);
      const c = centreOf(s, stop.at, stop.size);
      (stop.size === more?.size ? further : centres).push(c);
      const into = s.at(stop.at - stop.covers);
      const out = s.at(stop.at + stop.covers);
      const a0 = Math.atan2(into.y - c.y, into.x - c.x);
      const a1 = Math.atan2(out.y - c.y, out.x - c.x);
      const sweep = (((a1 - a0) % TURN) + TURN) % TURN;
      // Two halves: one arc of more than half a turn is written badly by some readers.
      pen.arc(c.x, c.y, stop.size.r, a0, sweep / 2).arc(c.x, c.y, stop.size.r, a0 + sweep / 2, sweep / 2);
      at = stop.at + stop.covers;
    }
    if (closed) return;
    if (!s.arc) pen.to(s.at(at).x, s.at(at).y);
    else arcTo(s.arc, at, s.length);
  });
  if (closed && standing[0]!.length === 0)
    return { outline: circle(arcs[0]!.x, arcs[0]!.y, arcs[0]!.r), centres, further };
  return { outline: pen.close(), centres, further };
}

/** The plain outline of a hull. */
export function hullOutline(arcs: readonly HullArc[]): Outline {
  if (arcs.length === 1) return circle(arcs[0]!.x, arcs[0]!.y, arcs[0]!.r);
  const pen = new OutlinePen();
  for (const a of arcs) {
    pen.arc(a.x, a.y, a.r, a.from, a.sweep);
    const end = a.from + a.sweep;
    pen.to(a.x + a.r * Math.cos(end), a.y + a.r * Math.sin(end));
  }
  return pen.close();
}
