import type { NeutralLine } from './neutral-line.ts';
import type { Side } from './tooth-form.ts';

/** A spline's teeth against a ring's spaces. */
export interface WaveMesh {
  readonly line: NeutralLine;
  readonly splineTeeth: number;
  readonly ringTeeth: number;
  /** One spline tooth; heights from the neutral line. */
  readonly tooth: Side;
  /** One space of the ring; heights from the ring's middle. */
  readonly space: Side;
  /** Radius of the ring's tips, m. */
  readonly ringTip: number;
}

/** How one tooth stands in its space. */
export interface PairState {
  /**
   * Normal clearance on the side that leads when the spline turns on (counter-clockwise), and on the other; Infinity
   * where it is out of the space. Below 0 they clash.
   */
  readonly ahead: number;
  readonly behind: number;
  /** How deep the tooth's tip is below the ring's tips, m; negative when out. */
  readonly depth: number;
  /** Height on the tooth where it is tightest, m from the neutral line. */
  readonly tightest: number;
}

const POINTS = 14;
const at = new Float64Array(4);

/**
 * One tooth in the space that belongs to it, at a place along the line.
 *
 * @param along angle of the tooth along the spline at rest, rad, from a lobe's top, in the generator's frame
 * @param pitch which space it is held against, counted from its own: 0 near the first lobe, 1 near the next, …
 * @param off how far the generator's middle lies from the ring's, m, in the generator's frame
 * @param slip how far the spline is turned on against the ring, rad
 *
 * Source: tooth on the normal of the neutral line, space on the radius of the ring; clearance across the side there,
 * times the cosine of its lean, which is exact where they touch; the ring's tip corner is held against
 * the tooth as well.
 */
export function pairState(
  m: WaveMesh,
  along: number,
  pitch = 0,
  off: readonly [number, number] = [0, 0],
  slip = 0,
): PairState {
  const { tooth, space } = m;
  m.line.at(along * m.line.form.radius, at);
  const [ox, oy] = [at[0]! + off[0], at[1]! + off[1]];
  const [nc, ns] = [Math.cos(at[2]!), Math.sin(at[2]!)];
  const psi = (along * m.splineTeeth) / m.ringTeeth + (2 * Math.PI * pitch) / m.ringTeeth;
  // The space's frame: its axis is the radius at psi, turned back by the slip as the spline is turned on.
  const [rc, rs] = [Math.cos(psi - slip), Math.sin(psi - slip)];
  const tipY = (ox + tooth.high * nc) * rc + (oy + tooth.high * ns) * rs;
  const depth = tipY - m.ringTip;
  if (depth <= 0) return { ahead: Infinity, behind: Infinity, depth, tightest: tooth.high };
  let [ahead, behind, tightest, least] = [Infinity, Infinity, tooth.high, Infinity];
  const low = Math.max(tooth.low, tooth.high - depth * 1.25);
  for (let i = 0; i <= POINTS; i++) {
    const y = low + ((tooth.high - low) * i) / POINTS;
    const half = tooth.half(y);
    for (const side of [-1, 1] as const) {
      // Counter-clockwise of the axis is minus x when +y points outwards along it.
      const [px, py] = [ox + y * nc - side * half * ns, oy + y * ns + side * half * nc];
      const [Y, X] = [px * rc + py * rs, -px * rs + py * rc];
      if (Y * Y + X * X < m.ringTip * m.ringTip || Y > space.high) continue;
      const gap = (space.half(Y) - side * X) * space.cosine(Y);
      if (side > 0) ahead = Math.min(ahead, gap);
      else behind = Math.min(behind, gap);
      if (gap < least) [least, tightest] = [gap, y];
    }
  }
  // The corners of the ring's teeth beside the space, seen from the tooth.
  const corner = space.half(m.ringTip);
  const up = Math.sqrt(Math.max(0, m.ringTip ** 2 - corner * corner));
  for (const side of [-1, 1] as const) {
    const [cx, cy] = [up * rc - side * corner * rs - ox, up * rs + side * corner * rc - oy];
    const [y, x] = [cx * nc + cy * ns, -cx * ns + cy * nc];
    if (y < tooth.low || y > tooth.high) continue;
    const gap = (side * x - tooth.half(y)) * tooth.cosine(y);
    if (side > 0) ahead = Math.min(ahead, gap);
    else behind = Math.min(behind, gap);
    if (gap < least) [least, tightest] = [gap, y];
  }
  return { ahead, behind, depth, tightest };
}

/** The space that a tooth is nearest to, counted from its own. */
export const nearestPitch = (m: WaveMesh, along: number): number =>
  Math.round((along * (m.ringTeeth - m.splineTeeth)) / (2 * Math.PI));

/**
 * Every tooth of one half lobe either side of its top, evenly stepped: what any tooth goes through as the wave passes.
 */
export interface WaveCourse {
  /** Angles along the spline, rad, from −π/n to π/n. */
  readonly angles: Float64Array;
  readonly ahead: Float64Array;
  readonly behind: Float64Array;
  readonly depth: Float64Array;
  readonly tightest: Float64Array;
}

/** The passage of one tooth through one lobe, in `steps` even steps. */
export function waveCourse(m: WaveMesh, steps: number, slip = 0): WaveCourse {
  const make = () => new Float64Array(steps + 1);
  const c = { angles: make(), ahead: make(), behind: make(), depth: make(), tightest: make() };
  const half = Math.PI / m.line.form.lobes;
  for (let i = 0; i <= steps; i++) {
    const u = -half + (2 * half * i) / steps;
    const s = pairState(m, u, 0, [0, 0], slip);
    c.angles[i] = u;
    c.ahead[i] = s.ahead;
    c.behind[i] = s.behind;
    c.depth[i] = s.depth;
    c.tightest[i] = s.tightest;
  }
  return c;
}

/** Clearance of every tooth through a turn of the generator. */
export interface ClearanceMap {
  readonly teeth: number;
  readonly steps: number;
  /** Least normal clearance by tooth, then by crank angle, m; Infinity where the tooth is out of its space. */
  readonly values: Float32Array;
  /** The worst of all, with its tooth and step. */
  readonly least: number;
  readonly tooth: number;
  readonly step: number;
}

/**
 * Every tooth at every angle of the generator.
 *
 * @param off how far the generator stands beside the ring's middle, m, along a fixed direction: what a motor off centre
 *   does
 */
export function clearanceMap(m: WaveMesh, steps: number, off = 0): ClearanceMap {
  const values = new Float32Array(m.splineTeeth * steps);
  let [least, tooth, step] = [Infinity, 0, 0];
  for (let k = 0; k < steps; k++) {
    const crank = (2 * Math.PI * k) / steps;
    const shift: readonly [number, number] = off === 0 ? [0, 0] : [off * Math.cos(crank), -off * Math.sin(crank)];
    for (let i = 0; i < m.splineTeeth; i++) {
      const along = (2 * Math.PI * i) / m.splineTeeth - crank;
      const s = pairState(m, along, nearestPitch(m, along), shift);
      const v = Math.min(s.ahead, s.behind);
      values[i * steps + k] = v;
      if (v < least) [least, tooth, step] = [v, i, k];
    }
  }
  return { teeth: m.splineTeeth, steps, values, least, tooth, step };
}
