import type { Bearing } from '../schema/joint.ts';
import { circle } from '../shape/outline.ts';
import type { Round } from '../shape/hull.ts';
import type { Body } from './body.ts';
import { at, bodyOf, ring, size } from './drawn.ts';
import type { Frame } from './frame.ts';
import { outAxis, type Setting } from './setting.ts';
import { goesOn, LIP, SLIDE } from './plan.ts';
import type { Link } from './shafts.ts';
import type { Hole } from './sliced.ts';

/** A plate of the housing: where it lies along the axis, m. */
export interface Plate {
  readonly from: number;
  readonly to: number;
}

/** Diameter of the hole in the lip behind a bearing: clear of its inner ring, under its outer one, m. */
export const lipHole = (b: Pick<Bearing, 'outside' | 'bore'>): number => b.outside - (b.outside - b.bore) / 4;

/** A bearing in a plate, its face flush with one side of it. */
export interface Seat {
  readonly plate: number;
  readonly side: 'below' | 'above';
  readonly x: number;
  readonly y: number;
  readonly bearing: Bearing | undefined;
  readonly diameter: number;
  readonly of: Link | 'output' | 'axle';
}

/** A round that stands out of a plate to hold a bearing. */
export interface Boss extends Round {
  readonly from: number;
  readonly to: number;
  readonly holes: readonly Hole[];
}

export const clipped = (o: Hole, from: number, to: number): Hole => ({
  ...o,
  from: Math.max(o.from, from),
  to: Math.min(o.to, to),
});

/**
 * What a bearing takes out of its plate, and the boss it needs where it is wider than that.
 *
 * @param span to a second row in the same boss, m; 0 for none
 */
export function seatIn(p: Plate, s: Seat, span: number, wall: number): { holes: Hole[]; boss?: Boss } {
  const b = s.bearing;
  if (!b) return { holes: [{ outline: circle(s.x, s.y, s.diameter / 2 + SLIDE), from: p.from, to: p.to }] };
  const seat = circle(s.x, s.y, b.outside / 2);
  const lip = circle(s.x, s.y, lipHole(b) / 2);
  const round = { x: s.x, y: s.y, r: b.outside / 2 + wall };
  if (s.side === 'below') {
    const second = span > 0 ? p.from + span : Infinity;
    const end = span > 0 ? second + b.width : Math.max(p.to, p.from + b.width + LIP);
    const holes: Hole[] = [
      { outline: seat, from: p.from, to: p.from + b.width },
      { outline: lip, from: p.from + b.width, to: Math.min(second, end) },
      ...(span > 0 ? [{ outline: seat, from: second, to: end }] : []),
    ];
    return { holes, ...(end > p.to + 1e-9 && { boss: { ...round, from: p.to, to: end, holes } }) };
  }
  const start = Math.min(p.from, p.to - b.width - LIP);
  const holes: Hole[] = [
    { outline: lip, from: start, to: p.to - b.width },
    { outline: seat, from: p.to - b.width, to: p.to },
  ];
  return { holes, ...(start < p.from - 1e-9 && { boss: { ...round, from: start, to: p.from, holes } }) };
}

/** Bearings of the run in their plates: of each shaft between stages, and of the output. */
export function seatsOf({ plan, stages, axles, output, own }: Setting): Seat[] {
  const last = stages.length - 1;
  const seats: Seat[] = [];
  plan.links.forEach((link, k) => {
    if (k === last && output) return;
    const [x, y] = outAxis(stages[k]!);
    const common = { x, y, bearing: link.bearing, diameter: link.diameter, of: link };
    if (link.beside) seats.push({ ...common, plate: k, side: 'above' });
    if (!link.hub || goesOn(plan, k)) seats.push({ ...common, plate: k + 1, side: 'below' });
  });
  for (const { k, axle, x, y, bearing } of axles) {
    const common = { x, y, bearing, diameter: axle.diameter, of: 'axle' } as const;
    seats.push({ ...common, plate: k, side: 'above' }, { ...common, plate: k + 1, side: 'below' });
  }
  if (output) {
    const diameter = output.shaftDiameter;
    seats.push({ plate: last + 1, side: 'below', x: 0, y: 0, bearing: own, diameter, of: 'output' });
  }
  return seats;
}

/**
 * Least wall between two bearings that sit in a plate at one height, m: below 0 where one stands in the other, Infinity where no
 * two do.
 */
export function leastWall(seats: readonly Seat[], plates: readonly Plate[]): number {
  const round = (s: Seat) => (s.bearing?.outside ?? s.diameter) / 2;
  const along = (s: Seat): readonly [number, number] => {
    const { from, to } = plates[s.plate]!;
    const wide = s.bearing?.width ?? to - from;
    return s.side === 'below' ? [from, from + wide] : [to - wide, to];
  };
  let least = Infinity;
  seats.forEach((a, i) => {
    for (const b of seats.slice(i + 1)) {
      if (a.plate !== b.plate) continue;
      const [p, q] = [along(a), along(b)];
      if (Math.min(p[1], q[1]) <= Math.max(p[0], q[0])) continue;
      least = Math.min(least, Math.hypot(a.x - b.x, a.y - b.y) - round(a) - round(b));
    }
  });
  return least;
}

/** The bearings as bodies; a stage may have paid for some, and the output counts its own. */
export function bearingBodies(
  { output, pair, step }: Setting,
  seats: readonly Seat[],
  plates: readonly Plate[],
): Body[] {
  const kinds = new Map<string, { seat: Seat; frames: Frame[]; paid: number }>();
  for (const s of seats) {
    const b = s.bearing;
    if (!b) continue;
    const p = plates[s.plate]!;
    const z = s.side === 'below' ? p.from : p.to - b.width;
    const key = `${b.id}${s.of === 'output' ? '-output' : ''}`;
    const had = kinds.get(key) ?? { seat: s, frames: [], paid: 0 };
    had.frames.push(at(s.x, s.y, z));
    if (s.of === 'output' && pair) had.frames.push(at(s.x, s.y, z + output!.span));
    if (typeof s.of === 'object' && s.of.paid) had.paid++;
    kinds.set(key, had);
  }
  return [...kinds].map(([key, { seat, frames, paid }]) => {
    const b = seat.bearing!;
    const ofOutput = seat.of === 'output';
    const due = ofOutput ? 0 : (b.price * (frames.length - paid)) / frames.length;
    return bodyOf(
      {
        id: `bearing-${key}`,
        name: `Bearing ${b.name}`,
        note:
          `${size(b.bore)} × ${size(b.outside)} × ${size(b.width)}` +
          (ofOutput ? '; counted with the output' : paid > 0 ? `; ${paid} of them paid for with their stage` : ''),
        solid: { prisms: [ring(b.outside, b.bore, 0, b.width)] },
        frames,
        apart: 0.2 * step,
      },
      {
        made: 'bought',
        material: 'as supplied',
        mass: ofOutput ? 0 : b.mass,
        money: due,
        stocked: { shelf: 'bearings', id: b.id },
      },
    );
  });
}
