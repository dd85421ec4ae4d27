import { cutSlices, type Prism } from '../shape/solid.ts';
import type { Body } from './body.ts';
import { circumcircle } from './circumcircle.ts';
import { materialAlong, type Interval } from './cut-line.ts';
import type { Frame } from './frame.ts';
import { radiiOf } from './reach.ts';
import type { Reducer } from './reducer.ts';

/** A rectangle of the section: across the axis, then along it, m. */
export interface Rect {
  readonly u0: number;
  readonly u1: number;
  readonly z0: number;
  readonly z1: number;
}

/** What is cut of one body. */
export interface Region {
  readonly body: Body;
  readonly rects: readonly Rect[];
  /** Edges round all of them together: u, z to u, z, m. */
  readonly edges: Float64Array;
  /** Where teeth end: u, z to u, z, m. */
  readonly roots: Float64Array;
  /** It stands beside the plane and is shown turned into it. */
  readonly turnedIn: boolean;
}

/** A section along the output's axis. */
export interface Section {
  readonly regions: readonly Region[];
  /** The way the plane lies across the axis, rad. */
  readonly angle: number;
  readonly bounds: Rect;
}

/** An axis nearer to the plane than this lies in it, m. */
const IN_PLANE = 1e-7;
/** An outline of more pieces than this has teeth: it is shown to its tips, as drawings of gears have it. */
const TOOTHED = 40;

const vertices = (p: Prism): number => p.outer.points.length / 3;
const isToothed = (p: Prism): boolean => vertices(p) > TOOTHED || p.holes.some((h) => h.points.length / 3 > TOOTHED);

/** The hole of a prism that its axis goes through, if any. */
const axisHole = (p: Prism) => p.holes.find((h) => radiiOf(h).least > 0 && surrounds(h.points));

/** Whether an outline goes round the origin. */
function surrounds(points: Float64Array): boolean {
  let turn = 0;
  const n = points.length / 3;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [a, b] = [Math.atan2(points[3 * i + 1]!, points[3 * i]!), Math.atan2(points[3 * j + 1]!, points[3 * j]!)];
    // A half turn is told by the way it bows.
    let step = b - a;
    if (Math.abs(Math.abs(step) - Math.PI) < 1e-9) step = Math.PI * Math.sign(points[3 * i + 2]! || 1);
    else step -= 2 * Math.PI * Math.round(step / (2 * Math.PI));
    turn += step;
  }
  return Math.abs(turn) > Math.PI;
}

/** The intervals of a toothed prism on a line through its axis, to its tips, and where its teeth end. */
function toTips(p: Prism): { spans: Interval[]; roots: number[] } {
  const outer = radiiOf(p.outer);
  const hole = axisHole(p);
  const inner = hole ? radiiOf(hole) : { least: 0, most: 0 };
  const roots = [
    ...(vertices(p) > TOOTHED ? [outer.least] : []),
    ...(hole && hole.points.length / 3 > TOOTHED ? [inner.most] : []),
  ];
  return {
    spans:
      inner.least > 0
        ? [
            [-outer.most, -inner.least],
            [inner.least, outer.most],
          ]
        : [[-outer.most, outer.most]],
    roots: roots.flatMap((r) => [-r, r]),
  };
}

/** What of a prism lies on a line of its body's frame. */
function along(p: Prism, [px, py, dx, dy]: readonly [number, number, number, number]): Interval[] {
  const turn = (p.turn ?? 0) + p.twist / 2;
  const [c, s] = [Math.cos(-turn), Math.sin(-turn)];
  // What leans is cut where it stands half way.
  const [x, y] = [px - (p.leans ? (p.leans[0] + p.leans[1]) / 2 : 0), py];
  return materialAlong(p, c * x - s * y, s * x + c * y, c * dx - s * dy, s * dx + c * dy);
}

/** Intervals without what others take of them. */
const without = (list: readonly Interval[], taken: readonly Interval[]): Interval[] =>
  taken.reduce<Interval[]>(
    (left, [a, b]) =>
      left.flatMap(([from, to]): Interval[] =>
        b <= from || a >= to
          ? [[from, to]]
          : [...(a > from ? [[from, a] as const] : []), ...(b < to ? [[b, to] as const] : [])],
      ),
    [...list],
  );

/** Material of a piece on the plane: its axis along the line's, cut through (px, py) in its own frame along (dx, dy). */
function upright(
  body: Body,
  z: number,
  up: number,
  u0: number,
  local: readonly [number, number, number, number],
  through: boolean,
): { rects: Rect[]; roots: number[] } {
  const rects: Rect[] = [];
  const roots: number[] = [];
  for (const { p, cuts } of cutSlices(body.solid())) {
    const [a, b] = [z + up * p.from, z + up * p.to];
    const [z0, z1] = [Math.min(a, b), Math.max(a, b)];
    if (through && !body.flexes && isToothed(p)) {
      const teeth = toTips({ ...p, holes: [...p.holes, ...cuts.map((c) => c.outer)] });
      for (const [s, e] of teeth.spans) rects.push({ u0: u0 + s, u1: u0 + e, z0, z1 });
      for (const r of teeth.roots) roots.push(u0 + r, z0, u0 + r, z1);
      continue;
    }
    const spans = cuts.reduce((left, c) => without(left, along(c, local)), along(p, local));
    for (const [from, to] of spans) rects.push({ u0: from, u1: to, z0, z1 });
  }
  return { rects, roots };
}

/** The edges that rectangles have together: those that two share, or that lie in one, are left out. */
export function edgesOf(rects: readonly Rect[]): Float64Array {
  const sorted = (list: number[]) =>
    list.sort((a, b) => a - b).filter((x, i, all) => i === 0 || x - all[i - 1]! > 1e-9);
  const us = sorted(rects.flatMap((r) => [r.u0, r.u1]));
  const zs = sorted(rects.flatMap((r) => [r.z0, r.z1]));
  const filled = (i: number, j: number): boolean => {
    if (i < 0 || j < 0 || i >= us.length - 1 || j >= zs.length - 1) return false;
    const [u, z] = [(us[i]! + us[i + 1]!) / 2, (zs[j]! + zs[j + 1]!) / 2];
    return rects.some((r) => r.u0 < u && u < r.u1 && r.z0 < z && z < r.z1);
  };
  const grid = us.map((_, i) => zs.map((__, j) => filled(i, j)));
  const at = (i: number, j: number) => grid[i]?.[j] ?? false;
  const out: number[] = [];
  for (let i = 0; i < us.length; i++)
    for (let j = 0; j < zs.length - 1; j++)
      if (at(i - 1, j) !== at(i, j)) {
        let end = j;
        while (end + 1 < zs.length - 1 && at(i - 1, end + 1) !== at(i, end + 1)) end++;
        out.push(us[i]!, zs[j]!, us[i]!, zs[end + 1]!);
        j = end;
      }
  for (let j = 0; j < zs.length; j++)
    for (let i = 0; i < us.length - 1; i++)
      if (at(i, j - 1) !== at(i, j)) {
        let end = i;
        while (end + 1 < us.length - 1 && at(end + 1, j - 1) !== at(end + 1, j)) end++;
        out.push(us[i]!, zs[j]!, us[end + 1]!, zs[j]!);
        i = end;
      }
  return Float64Array.from(out);
}

/** The way a section shows most: through the motor's axis and the output's. */
export function bestAngle({ layout }: Reducer): number {
  const { at, z } = layout.input;
  // A motor that stands across: along its axis where that meets the output's, else across it.
  if (Math.abs(z[2]) < 0.5)
    return Math.atan2(z[1], z[0]) + (Math.abs(at[0] * z[1] - at[1] * z[0]) < 1e-6 ? 0 : Math.PI / 2);
  const outs = layout.stages.map((s) => s.frame.at);
  const far = [at, ...outs].reduce((a, b) => (Math.hypot(b[0], b[1]) > Math.hypot(a[0], a[1]) + 1e-9 ? b : a));
  return Math.hypot(far[0], far[1]) > 1e-9 ? Math.atan2(far[1], far[0]) : 0;
}

/** What one piece of a body shows in the plane along (ux, uy). */
function pieceIn(body: Body, frame: Frame, ux: number, uy: number): { rects: Rect[]; roots: number[] } | undefined {
  const [x, y, z] = frame.at;
  const off = -uy * x + ux * y;
  const u0 = ux * x + uy * y;
  if (Math.abs(frame.z[2]) > 0.5) {
    // The line of the plane in the piece's own frame.
    const own = (vx: number, vy: number): [number, number] => [
      frame.x[0] * vx + frame.x[1] * vy,
      frame.y[0] * vx + frame.y[1] * vy,
    ];
    const [px, py] = own(-x, -y);
    const [dx, dy] = own(ux, uy);
    return upright(body, z, frame.z[2], u0, [px, py, dx, dy], Math.abs(off) < IN_PLANE);
  }
  const lies = Math.abs(-uy * frame.z[0] + ux * frame.z[1]);
  if (lies < 1e-6) {
    // Its axis lies in the plane or beside it, and the line across is the line's own axis: cut as what stands is, laid down.
    const [nx, ny] = [uy * off, -ux * off];
    const foot = (v: Frame['x']) => nx * v[0] + ny * v[1];
    const local = [foot(frame.x), foot(frame.y), frame.x[2], frame.y[2]] as const;
    const stood = upright(body, 0, 1, 0, local, Math.abs(off) < IN_PLANE);
    const way = ux * frame.z[0] + uy * frame.z[1];
    const along = (v: number) => u0 + way * v;
    const roots: number[] = [];
    for (let i = 0; i < stood.roots.length; i += 2) roots.push(along(stood.roots[i + 1]!), z + stood.roots[i]!);
    return {
      rects: stood.rects.map((r) => ({
        u0: Math.min(along(r.z0), along(r.z1)),
        u1: Math.max(along(r.z0), along(r.z1)),
        z0: z + r.u0,
        z1: z + r.u1,
      })),
      roots,
    };
  }
  const rects: Rect[] = [];
  for (const p of body.solid().prisms) {
    if (p.cut) continue;
    const { most } = radiiOf(p.outer);
    const hole = axisHole(p);
    const inner = hole ? radiiOf(hole).least : 0;
    if (lies > 0.5) {
      // Cut across its own axis: a round thing, told by the square it is as wide as.
      const [a, b] = [off + lies * p.from, off + lies * p.to];
      const s = (-uy * frame.z[0] + ux * frame.z[1]) / lies;
      const [from, to] = s > 0 ? [a, b] : [off - lies * p.to, off - lies * p.from];
      if (from > 0 || to < 0) continue;
      rects.push({ u0: u0 - most, u1: u0 + most, z0: z - most, z1: z + most });
      continue;
    }
    if (Math.abs(off) >= most) continue;
    const way = ux * frame.z[0] + uy * frame.z[1];
    const [a, b] = [u0 + way * p.from, u0 + way * p.to];
    const h = Math.sqrt(most * most - off * off);
    const hollow = Math.abs(off) < inner ? Math.sqrt(inner * inner - off * off) : 0;
    const span = { u0: Math.min(a, b), u1: Math.max(a, b) };
    if (hollow > 0) rects.push({ ...span, z0: z + hollow, z1: z + h }, { ...span, z0: z - h, z1: z - hollow });
    else rects.push({ ...span, z0: z - h, z1: z + h });
  }
  return { rects, roots: [] };
}

/** A piece that is carried round, turned about the circle it goes on until it stands in the plane. */
function turnedIn(body: Body, ux: number, uy: number, crank: number): Frame | undefined {
  const [a, b, c] = [crank, crank + 0.9, crank + 1.7].map((at) => body.places(at)[0]!) as [Frame, Frame, Frame];
  if (Math.abs(a.z[2]) < 0.5) return undefined;
  const ring = circumcircle([a.at[0], a.at[1]], [b.at[0], b.at[1]], [c.at[0], c.at[1]]);
  const places = body.places(crank);
  const whole =
    ring.r > 0
      ? ring
      : places.length > 2
        ? circumcircle(
            [places[0]!.at[0], places[0]!.at[1]],
            [places[1]!.at[0], places[1]!.at[1]],
            [places[2]!.at[0], places[2]!.at[1]],
          )
        : undefined;
  if (!whole || !(whole.r > 0) || places.length < 2) return undefined;
  // Only about an axis that lies in the plane itself.
  if (Math.abs(-uy * whole.x + ux * whole.y) > IN_PLANE) return undefined;
  const by = Math.atan2(uy, ux) - Math.atan2(a.at[1] - whole.y, a.at[0] - whole.x);
  const [cs, sn] = [Math.cos(by), Math.sin(by)];
  const spin = ([x, y, z]: Frame['x']): Frame['x'] => [cs * x - sn * y, sn * x + cs * y, z];
  return { at: [whole.x + ux * whole.r, whole.y + uy * whole.r, a.at[2]], x: spin(a.x), y: spin(a.y), z: a.z };
}

/**
 * The reducer cut along its output's axis: every body true to scale, teeth shown to their tips; of planets and pins that go
 * round one is turned into the plane where none stands in it.
 *
 * @param crank turn of the motor, rad
 */
export function sectionOf(reducer: Reducer, crank = 0, angle = bestAngle(reducer)): Section {
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const regions: Region[] = [];
  for (const body of reducer.bodies) {
    const rects: Rect[] = [];
    const roots: number[] = [];
    for (const frame of body.places(crank)) {
      const seen = pieceIn(body, frame, ux, uy);
      if (!seen) continue;
      rects.push(...seen.rects);
      roots.push(...seen.roots);
    }
    let brought = false;
    // What carries round off the plane is shown where it would stand in it.
    const inPlane = body.places(crank).some((f) => Math.abs(-uy * f.at[0] + ux * f.at[1]) < IN_PLANE);
    if (!inPlane && body.of === 'stage') {
      const frame = turnedIn(body, ux, uy, crank);
      if (frame) {
        rects.length = roots.length = 0;
        const seen = pieceIn(body, frame, ux, uy)!;
        rects.push(...seen.rects);
        roots.push(...seen.roots);
        brought = true;
      }
    }
    if (rects.length === 0) continue;
    regions.push({ body, rects, edges: edgesOf(rects), roots: Float64Array.from(roots), turnedIn: brought });
  }
  const all = regions.flatMap((r) => r.rects);
  const bounds: Rect = {
    u0: Math.min(...all.map((r) => r.u0)),
    u1: Math.max(...all.map((r) => r.u1)),
    z0: Math.min(...all.map((r) => r.z0)),
    z1: Math.max(...all.map((r) => r.z1)),
  };
  return { regions, angle, bounds };
}

/** Room between two bodies that turn unlike, where they come nearest in the section. */
export interface Room {
  readonly a: Body;
  readonly b: Body;
  /** m. */
  readonly distance: number;
  /** Where: u, z of either side, m. */
  readonly at: readonly [number, number, number, number];
}

/** How far two rectangles stand apart, and between which points; undefined where they meet. */
function between(p: Rect, q: Rect): { distance: number; at: [number, number, number, number] } | undefined {
  const du = Math.max(p.u0 - q.u1, q.u0 - p.u1);
  const dz = Math.max(p.z0 - q.z1, q.z0 - p.z1);
  if (du <= 1e-9 && dz <= 1e-9) return undefined;
  const middle = (a0: number, a1: number, b0: number, b1: number) => (Math.max(a0, b0) + Math.min(a1, b1)) / 2;
  const sides = (a0: number, a1: number, b0: number, b1: number): [number, number] =>
    a0 > b1 ? [a0, b1] : b0 > a1 ? [a1, b0] : [middle(a0, a1, b0, b1), middle(a0, a1, b0, b1)];
  const [pu, qu] = sides(p.u0, p.u1, q.u0, q.u1);
  const [pz, qz] = sides(p.z0, p.z1, q.z0, q.z1);
  return { distance: Math.hypot(Math.max(0, du), Math.max(0, dz)), at: [pu, pz, qu, qz] };
}

/**
 * The least rooms between bodies that turn unlike, nearest first: pairs that mesh or sit in one another are left out.
 *
 * @param within rooms that count, m
 */
export function roomsIn(section: Section, within: number): Room[] {
  const out: Room[] = [];
  const { regions } = section;
  regions.forEach((p, i) => {
    for (const q of regions.slice(i + 1)) {
      if (p.body.speed === q.body.speed || p.body.joins?.includes(q.body.id) || q.body.joins?.includes(p.body.id))
        continue;
      if (p.body.flexes || q.body.flexes) continue;
      let least: Room | undefined;
      let meet = false;
      for (const r of p.rects)
        for (const s of q.rects) {
          const apart = between(r, s);
          if (!apart) meet = true;
          else if (!least || apart.distance < least.distance) least = { a: p.body, b: q.body, ...apart };
        }
      if (!meet && least && least.distance <= within) out.push(least);
    }
  });
  return out.sort((a, b) => a.distance - b.distance);
}
