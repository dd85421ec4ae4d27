import { boundsOf } from '../shape/bounds.ts';
import { ORIGIN, place, rectangle } from '../shape/outline.ts';
import { prism, type Prism, type Solid } from '../shape/solid.ts';
import type { Body } from './body.ts';
import { HOME, turnedBy, type Frame, type Vec } from './frame.ts';
import { radiiOf } from './reach.ts';

/** What is put together across the output's axis, and goes in as one. */
export const CARRIAGE = 'case/carriage';

/** Whether a body lies across the output's axis. */
export const liesAcross = (b: Body): boolean => Math.abs(b.places(0)[0]?.z[2] ?? 1) < 0.5;

/** Slabs that a round thing which lies is told by. */
const SLABS = 12;

/** What of an outline is as wide all round is told as a circle. */
const ROUND = 1.02;

/** A prism that lies, as upright ones: a box that holds it, slabs where it is round. */
function slabsOf(p: Prism, f: Frame): Prism[] {
  const turn = Math.atan2(f.z[1], f.z[0]);
  const { x0, x1, y0, y1 } = boundsOf([{ outline: p.outer, at: ORIGIN }])!;
  const slab = (low: number, high: number, from: number, to: number, [x, y]: Vec): Prism =>
    prism(place(rectangle(p.from, low, p.to, high), { x, y, turn }), from, to);
  const { most, least } = radiiOf(p.outer);
  // Of teeth their roots: between the tips goes what they mesh with.
  if (most < ROUND * Math.max(x1, y1, -x0, -y0))
    return Array.from({ length: SLABS }, (_, k) => {
      const [a, b] = [k, k + 1].map((i) => least * ((2 * i) / SLABS - 1)) as [number, number];
      const near = Math.max(0, a, -b);
      const half = Math.sqrt(least * least - near * near);
      return slab(-half, half, f.at[2] + a, f.at[2] + b, f.at);
    });
  // The box round it, by the corners of its outline.
  const across: Vec = [-Math.sin(turn), Math.cos(turn), 0];
  const corners = [x0, x1].flatMap((x) => [y0, y1].map((y) => turnedBy(f, [x, y, 0])));
  const sides = corners.map((c) => c[0] * across[0] + c[1] * across[1]);
  const heights = corners.map((c) => f.at[2] + c[2]);
  return [slab(Math.min(...sides), Math.max(...sides), Math.min(...heights), Math.max(...heights), f.at)];
}

/**
 * Bodies that lie across as one that stands, of upright boxes, in the frame that they are told in.
 */
export function carriageOf(bodies: readonly Body[]): Body {
  const solid: Solid = {
    prisms: bodies.flatMap((b) =>
      b.places(0).flatMap((f) => b.solid().prisms.flatMap((p) => (p.cut ? [] : slabsOf(p, f)))),
    ),
  };
  return {
    id: CARRIAGE,
    of: 'case',
    stage: -1,
    part: { name: 'Driving side', material: '', made: 'bought', mass: 0, money: 0, note: '', quantity: 1 },
    turns: 'fixed',
    speed: 0,
    flexes: false,
    solid: () => solid,
    places: () => [HOME],
    apart: [[0, 0, 0]],
  };
}
