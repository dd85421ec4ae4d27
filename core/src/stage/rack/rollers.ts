import { OutlinePen, type Outline } from '../../shape/outline.ts';
import type { RackParams } from './params.ts';

/**
 * Flanks that rollers of a pinion leave in its rack. With the rollers' circle rolling on the pitch line their centres run
 * along cycloids, R(θ − sin θ), R(1 − cos θ); a flank lies a roller's radius beside its cycloid.
 */
export interface RollerRack {
  /** Radius of the rollers' circle, m, and their pitch along the rack. */
  readonly radius: number;
  readonly pitch: number;
  /** Radius of a roller, m. */
  readonly roller: number;
  /** Height of the tips over the rollers' lowest centres, m. */
  readonly tip: number;
  /** Angle of the pinion over which a roller touches one flank, rad. */
  readonly reach: number;
  /** Rollers that carry at once on one side, on the average. */
  readonly carrying: number;
  /** Half of what is left of a tooth at its tip, m. */
  readonly land: number;
}

/** Share of the height to where two flanks would meet that a tooth is left high. */
const HIGH = 0.88;

/** A point of the right flank of the gap at the origin, m. */
export const flankAt = (radius: number, roller: number, theta: number): readonly [number, number] => [
  radius * (theta - Math.sin(theta)) + roller * Math.cos(theta / 2),
  radius * (1 - Math.cos(theta)) - roller * Math.sin(theta / 2),
];

/**
 * Radius of a flank's curve where a roller touches it, m: a cycloid's 4R·sin(θ/2), less a roller's.
 *
 * Below 4R·sin(θ/2) = ρ there is no flank: the roller lies in its seat.
 * @example flankRadius(12e-3, 1.5e-3, Math.PI / 3) // 0.0225
 */
export const flankRadius = (radius: number, roller: number, theta: number): number =>
  4 * radius * Math.sin(theta / 2) - roller;

/**
 * Angle at which a flank is as round as its roller, rad: nearer to its foot a roller lies in its seat as well, which is a
 * part of a contact's width away.
 * @example seatLeft(12e-3, 1.5e-3) // 0.1250815
 */
export const seatLeft = (radius: number, roller: number): number => 2 * Math.asin(Math.min(1, roller / (2 * radius)));

/** Angle up to which a flank rises, where x passes a limit or y a height. */
function angleWhere(radius: number, roller: number, beyond: (x: number, y: number) => boolean): number {
  let [low, high] = [0, Math.PI];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    const [x, y] = flankAt(radius, roller, middle);
    if (beyond(x, y)) high = middle;
    else low = middle;
  }
  return high;
}

/**
 * Sizes of a rack for rollers.
 *
 * Source: cycloid of a rolling circle and its parallel curve, exact.
 */
export function rollerRack(p: Pick<RackParams, 'module' | 'z' | 'roller'>): RollerRack {
  const radius = (p.module * p.z) / 2;
  const pitch = Math.PI * p.module;
  const roller = p.roller / 2;
  const meet = angleWhere(radius, roller, (x) => x >= pitch / 2);
  const top = flankAt(radius, roller, meet)[1];
  const tip = HIGH * top;
  const reach = angleWhere(radius, roller, (_x, y) => y >= tip);
  return {
    radius,
    pitch,
    roller,
    tip,
    reach,
    carrying: (reach * p.z) / (2 * Math.PI),
    land: pitch / 2 - flankAt(radius, roller, reach)[0],
  };
}

/**
 * Points of one gap from its left tip through the seat to its right tip, about the gap's middle, as x, y pairs; y is told
 * from the rollers' lowest centres.
 */
export function gapPoints(r: RollerRack, steps = 24): readonly (readonly [number, number])[] {
  const right = Array.from({ length: steps + 1 }, (_, i) => {
    // Even steps in the square root: near its foot the flank turns quickly.
    const theta = r.reach * (i / steps) ** 2;
    return flankAt(r.radius, r.roller, theta);
  });
  return [...right.map(([x, y]) => [-x, y] as const).reverse(), ...right];
}

/**
 * Area of one gap up to the tips, m²: half a roller, and what lies between the flanks over it.
 *
 * Source: sum over straight pieces of the flanks, to a thousandth.
 */
export function gapArea(r: RollerRack): number {
  const gap = gapPoints(r);
  let area = (Math.PI * r.roller ** 2) / 2;
  for (let i = gap.length / 2 + 1; i < gap.length; i++) {
    const [[x0, y0], [x1, y1]] = [gap[i - 1]!, gap[i]!];
    area += (x0 + x1) * (y1 - y0);
  }
  return area;
}

/** The toothed edge of a rack from its left end to its right one, its pitch line at y = 0, as a closed outline. */
export function rollerRackOutline(r: RollerRack, gaps: number, back: number): Outline {
  const pen = new OutlinePen();
  const gap = gapPoints(r);
  const half = gap.length / 2;
  const width = gaps * r.pitch;
  pen.to(-width / 2, -back);
  pen.to(width / 2, -back);
  // From the right to the left, so that the body lies on the left of the way.
  for (let k = gaps - 1; k >= 0; k--) {
    const middle = -width / 2 + (k + 0.5) * r.pitch;
    for (let i = gap.length - 1; i >= 0; i--) {
      const [x, y] = gap[i]!;
      // Below both flanks the roller itself leaves its arc: half a turn.
      pen.to(middle + x, y, i === half ? -1 : 0);
    }
  }
  return pen.close();
}
