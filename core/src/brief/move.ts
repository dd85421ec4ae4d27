/** One stretch of a move with constant jerk; position, speed and acceleration at its start. */
interface Segment {
  readonly start: number;
  readonly duration: number;
  readonly position: number;
  readonly speed: number;
  readonly acceleration: number;
  readonly jerk: number;
}

export interface MovePoint {
  readonly time: number;
  readonly position: number;
  readonly speed: number;
  readonly acceleration: number;
}

/** A move from rest to rest along one coordinate (rad or m). */
export interface Move {
  readonly duration: number;
  /** Highest speed reached; below the one asked where the way is too short for it. */
  readonly top: number;
  readonly peakAcceleration: number;
  readonly segments: readonly Segment[];
}

export interface MoveWish {
  readonly given: 'limits' | 'time';
  readonly profile: 'trapezoid' | 's-curve';
  readonly speed: number;
  readonly acceleration: number;
  readonly jerk: number;
  readonly moveTime: number;
  readonly rampShare: number;
}

/** A way below this (rad or m) is no move at all. */
const NO_WAY = 1e-9;
/** Below this (per s) nothing moves: a way over it would take longer than the numbers can hold. */
const NO_SPEED = 1e-9;
/** Below this (per s²) no acceleration is asked for, and the speed is there at once. */
const NO_ACCELERATION = 1e-9;

/** Strings stretches of [duration, jerk, jump of acceleration at the start] together. */
function assemble(steps: readonly (readonly [number, number, number])[], startSpeed = 0): Segment[] {
  const out: Segment[] = [];
  let [start, position, speed, acceleration] = [0, 0, startSpeed, 0];
  for (const [duration, jerk, jump] of steps) {
    acceleration += jump;
    if (!(duration > 0)) continue;
    out.push({ start, duration, position, speed, acceleration, jerk });
    position += speed * duration + (acceleration * duration ** 2) / 2 + (jerk * duration ** 3) / 6;
    speed += acceleration * duration + (jerk * duration ** 2) / 2;
    acceleration += jerk * duration;
    start += duration;
  }
  return out;
}

/** Trapezoid (or triangle) over a way, as durations: speeding up, cruising, and the speed reached. */
export function trapezoid(
  way: number,
  speed: number,
  acceleration: number,
): { up: number; cruise: number; top: number } {
  if (!(way > NO_WAY) || !(speed > NO_SPEED)) return { up: 0, cruise: 0, top: 0 };
  if (!(acceleration > NO_ACCELERATION)) return { up: 0, cruise: way / speed, top: speed };
  const top = Math.min(speed, Math.sqrt(way * acceleration));
  const up = top / acceleration;
  return { up, cruise: Math.max(0, (way - top * up) / top), top };
}

/**
 * Duration of a jerk-limited ramp from rest to a speed: v/a + a/j, or 2√(v/j) where the acceleration is never reached.
 */
const rampTime = (v: number, a: number, j: number): number => (v >= (a * a) / j ? v / a + a / j : 2 * Math.sqrt(v / j));

/**
 * S-curve over a way within speed, acceleration and jerk: the top speed reached and the times of one ramp (jerk up,
 * constant, jerk down).
 *
 * Source: seven-stretch rest-to-rest profile; with both ramps alike the way is v·t_ramp + v·t_cruise, solved in closed
 * form.
 */
export function sCurve(
  way: number,
  speed: number,
  acceleration: number,
  jerk: number,
): { top: number; jerkTime: number; flat: number; cruise: number } {
  let top = speed;
  if (top * rampTime(top, acceleration, jerk) > way) {
    const t = acceleration / jerk;
    top = (acceleration / 2) * (-t + Math.sqrt(t * t + (4 * way) / acceleration));
    if (top < acceleration * t) top = Math.cbrt((way * way * jerk) / 4);
  }
  const full = top >= (acceleration * acceleration) / jerk;
  const jerkTime = full ? acceleration / jerk : Math.sqrt(top / jerk);
  const flat = full ? top / acceleration - jerkTime : 0;
  return { top, jerkTime, flat, cruise: Math.max(0, (way - top * (2 * jerkTime + flat)) / top) };
}

/** Plans a move from rest to rest over a way, by limits or by time. No way or no speed gives a move of no duration. */
export function planMove(way: number, wish: MoveWish): Move {
  const none: Move = { duration: 0, top: 0, peakAcceleration: 0, segments: [] };
  if (!(way > NO_WAY)) return none;
  let [speed, acceleration, jerk] = [wish.speed, wish.acceleration, wish.jerk];
  if (wish.given === 'time') {
    const ramp = wish.moveTime * wish.rampShare;
    speed = way / (wish.moveTime - ramp);
    // A ramp in a given time: constant acceleration, or the smooth one with twice its peak.
    acceleration = wish.profile === 's-curve' ? (2 * speed) / ramp : speed / ramp;
    jerk = acceleration / (ramp / 2);
  }
  if (!(speed > NO_SPEED)) return none;
  if (!(acceleration > NO_ACCELERATION))
    return { duration: way / speed, top: speed, peakAcceleration: 0, segments: assemble([[way / speed, 0, 0]], speed) };
  if (wish.profile === 's-curve') {
    const { top, jerkTime: t, flat, cruise } = sCurve(way, speed, acceleration, jerk);
    const j = t > 0 ? top / (t * (t + flat)) : 0;
    const steps = [
      [t, j, 0],
      [flat, 0, 0],
      [t, -j, 0],
      [cruise, 0, 0],
      [t, -j, 0],
      [flat, 0, 0],
      [t, j, 0],
    ] as const;
    return { duration: 4 * t + 2 * flat + cruise, top, peakAcceleration: j * t, segments: assemble(steps) };
  }
  const { up, cruise, top } = trapezoid(way, speed, acceleration);
  const a = top / up;
  return {
    duration: 2 * up + cruise,
    top,
    peakAcceleration: a,
    segments: assemble([
      [up, 0, a],
      [cruise, 0, -a],
      [up, 0, -a],
    ]),
  };
}

/** Where a move is at a time; held at its ends before and after. */
export function moveAt(m: Move, time: number): MovePoint {
  const first = m.segments[0];
  if (!first || time < 0) return { time, position: 0, speed: 0, acceleration: 0 };
  const s = m.segments.find((x) => time < x.start + x.duration) ?? m.segments[m.segments.length - 1]!;
  return within(s, Math.min(time - s.start, s.duration));
}

/**
 * The smooth stretches of a move, each asked by the time from its own start, both of its ends belonging to it.
 *
 * @param back the same way backwards in time: positions and accelerations as they were, speeds reversed
 * @param load what a stretch of a load cycle says at a point of the move
 */
export function stretchesOf<T>(
  m: Move,
  back: boolean,
  load: (p: MovePoint) => T,
): { readonly duration: number; readonly at: (t: number) => T }[] {
  const list = m.segments.map((s) => ({
    duration: s.duration,
    at: (t: number) => {
      const p = within(s, back ? s.duration - t : t);
      return load(back ? { ...p, speed: -p.speed } : p);
    },
  }));
  return back ? list.reverse() : list;
}

/** A point of one stretch at a time from its start. */
function within(s: Segment, t: number): MovePoint {
  return {
    time: s.start + t,
    position: s.position + s.speed * t + (s.acceleration * t * t) / 2 + (s.jerk * t ** 3) / 6,
    speed: s.speed + s.acceleration * t + (s.jerk * t * t) / 2,
    acceleration: s.acceleration + s.jerk * t,
  };
}
