import type { Body } from './body.ts';
import { circumcircle } from './circumcircle.ts';
import type { Frame, Vec } from './frame.ts';

/**
 * How a piece goes as the motor turns: its centre round a circle, itself about its own axis, both evenly. Plain data, so
 * that who draws it needs nothing else.
 */
export interface Motion {
  /** Where it stands and how it lies at rest. */
  readonly rest: Frame;
  /** Centre of the circle it is carried on, m, the axis of that circle, and turns of the motor's angle it goes at. */
  readonly about: Vec;
  readonly axis: Vec;
  readonly carried: number;
  /** Turns about its own axis for a turn of the motor. */
  readonly spin: number;
  /** How far it moves when the line is drawn apart, m. */
  readonly apart: Vec;
}

/** Angles of the motor that speeds are read between, rad: small enough that nothing goes half round. */
const SMALL = [0, 1e-3, 2e-3] as const;

const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const less = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

/** Angle from one direction to another about an axis, rad. */
const angle = (from: Vec, to: Vec, axis: Vec): number => Math.atan2(dot(cross(from, to), axis), dot(from, to));

/**
 * The motions of a body's pieces.
 *
 * Every kind turns and carries its parts evenly, so that three near angles tell the whole way: the circle through the
 * places, and the speeds on it.
 */
export function motionsOf(body: Pick<Body, 'places' | 'apart'>): Motion[] {
  const [a, b, c] = SMALL.map((crank) => body.places(crank)) as [readonly Frame[], readonly Frame[], readonly Frame[]];
  return a.map((rest, i): Motion => {
    const [second, third] = [b[i]!, c[i]!];
    // Everything is carried about an axis that its own lies along.
    const axis = rest.z;
    const flat = (f: Frame): [number, number] => [dot(f.at, rest.x), dot(f.at, rest.y)];
    const round = circumcircle(flat(rest), flat(second), flat(third));
    const along = dot(rest.at, axis);
    const about: Vec = [0, 1, 2].map(
      (k) => rest.x[k]! * round.x + rest.y[k]! * round.y + axis[k]! * along,
    ) as unknown as Vec;
    const step = SMALL[1];
    return {
      rest,
      about,
      axis,
      carried: round.r > 0 ? angle(less(rest.at, about), less(second.at, about), axis) / step : 0,
      spin: angle(rest.x, second.x, axis) / step,
      apart: body.apart[i] ?? [0, 0, 0],
    };
  });
}

/** A direction turned about a unit axis. Source: Rodrigues. */
function aboutAxis(v: Vec, axis: Vec, by: number): Vec {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  const k = cross(axis, v);
  const d = dot(axis, v) * (1 - c);
  return [v[0] * c + k[0] * s + axis[0] * d, v[1] * c + k[1] * s + axis[1] * d, v[2] * c + k[2] * s + axis[2] * d];
}

/** Where a piece stands when the motor has turned, drawn apart by a share of its way. */
export function placedAt(m: Motion, crank: number, share = 0): Frame {
  const off = aboutAxis(less(m.rest.at, m.about), m.axis, m.carried * crank);
  return {
    at: [0, 1, 2].map((k) => m.about[k]! + off[k]! + share * m.apart[k]!) as unknown as Vec,
    x: aboutAxis(m.rest.x, m.axis, m.spin * crank),
    y: aboutAxis(m.rest.y, m.axis, m.spin * crank),
    z: m.rest.z,
  };
}
