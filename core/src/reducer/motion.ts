import type { Body } from './body.ts';
import { circumcircle } from './circumcircle.ts';
import type { Frame, Vec } from './frame.ts';

/**
 * How a piece goes as the motor turns: its centre round a circle or straight on, itself about its own axis, all evenly;
 * what sways beside that, by a table. Plain data, so that who draws it needs nothing else.
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
  /** How far it runs straight for a radian of the motor, m. */
  readonly run?: Vec;
  /**
   * How it sways in the frame that carries it: the motor's angle after which it does so again, rad, and its way from
   * where it stands at rest, m, x y z by turns of `count` even steps.
   */
  readonly sway?: { readonly period: number; readonly count: number; readonly off: Float64Array };
  /** How far it moves when the line is drawn apart, m. */
  readonly apart: Vec;
}

/** Steps of a sway's table: with the straight way between them a sway of 2 mm is told to a micrometre. */
const SWAY_STEPS = 96;

/** A circle of more than this is a straight way, m. */
const STRAIGHT = 1e3;
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

const scaled = (v: Vec, by: number): Vec => [v[0] * by, v[1] * by, v[2] * by];
const plus = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** What a piece that sways does beside being carried about a point evenly, through a period. */
function swayOf(
  body: Pick<Body, 'places'>,
  i: number,
  period: number,
  of: { readonly rest: Frame; readonly about: Vec; readonly spin: number },
): NonNullable<Motion['sway']> {
  const { rest, about, spin } = of;
  const off = new Float64Array(3 * SWAY_STEPS);
  for (let s = 0; s < SWAY_STEPS; s++) {
    const crank = (period * s) / SWAY_STEPS;
    const stands = less(body.places(crank)[i]!.at, about);
    off.set(less(aboutAxis(stands, rest.z, -spin * crank), less(rest.at, about)), 3 * s);
  }
  return { period, count: SWAY_STEPS, off };
}

/**
 * The motions of a body's pieces.
 *
 * Nearly every part turns and is carried evenly, so that three near angles tell the whole way: the circle through the
 * places, and the speeds on it. Of what sways three periods do so, and a table tells the way between.
 */
export function motionsOf(body: Pick<Body, 'places' | 'apart' | 'sways'>): Motion[] {
  const [a, b, c] = SMALL.map((crank) => body.places(crank)) as [readonly Frame[], readonly Frame[], readonly Frame[]];
  const far = body.sways === undefined ? [b, c] : [body.places(body.sways), body.places(2 * body.sways)];
  return a.map((rest, i): Motion => {
    const second = b[i]!;
    // Everything is carried about an axis that its own lies along.
    const axis = rest.z;
    const flat = (f: Frame): [number, number] => [dot(f.at, rest.x), dot(f.at, rest.y)];
    const round = circumcircle(flat(rest), flat(far[0]![i]!), flat(far[1]![i]!));
    const along = dot(rest.at, axis);
    const step = SMALL[1];
    const moved = less(second.at, rest.at);
    const straight = round.r === 0 || !Number.isFinite(round.r) || round.r > STRAIGHT;
    if (straight && body.sways === undefined)
      return {
        rest,
        about: rest.at,
        axis,
        carried: 0,
        spin: angle(rest.x, second.x, axis) / step,
        ...(dot(moved, moved) > 0 && { run: scaled(moved, 1 / step) }),
        apart: body.apart[i] ?? [0, 0, 0],
      };
    const about: Vec = straight
      ? rest.at
      : ([0, 1, 2].map((k) => rest.x[k]! * round.x + rest.y[k]! * round.y + axis[k]! * along) as unknown as Vec);
    if (body.sways !== undefined) {
      const spin = angle(rest.x, second.x, axis) / step;
      const sway = swayOf(body, i, body.sways, { rest, about, spin });
      return { rest, about, axis, carried: spin, spin, sway, apart: body.apart[i] ?? [0, 0, 0] };
    }
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

/** A sway when the motor has turned, between the steps of its table. */
function swayed({ period, count, off }: NonNullable<Motion['sway']>, crank: number): Vec {
  const turns = crank / period;
  const at = (turns - Math.floor(turns)) * count;
  const from = Math.floor(at) % count;
  const [i, j, part] = [3 * from, 3 * ((from + 1) % count), at - Math.floor(at)];
  return [0, 1, 2].map((k) => off[i + k]! + part * (off[j + k]! - off[i + k]!)) as unknown as Vec;
}

/** Where a piece stands when the motor has turned, drawn apart by a share of its way. */
export function placedAt(m: Motion, crank: number, share = 0): Frame {
  const own = less(m.rest.at, m.about);
  const off = aboutAxis(m.sway ? plus(own, swayed(m.sway, crank)) : own, m.axis, m.carried * crank);
  return {
    at: [0, 1, 2].map((k) => m.about[k]! + off[k]! + crank * (m.run?.[k] ?? 0) + share * m.apart[k]!) as unknown as Vec,
    x: aboutAxis(m.rest.x, m.axis, m.spin * crank),
    y: aboutAxis(m.rest.y, m.axis, m.spin * crank),
    z: m.rest.z,
  };
}
