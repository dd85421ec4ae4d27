import type { ArmCase } from '../joint/joint.ts';

/** Moment of inertia of load and arm about the axis, both as points: m_load·L² + m_arm·c², kg·m². */
export const armInertia = (c: ArmCase): number => c.load * c.length ** 2 + c.armMass * c.armCentre ** 2;

/** Gravity torque at an angle from the horizontal: g·cos θ·(m_load·L + m_arm·c), N·m. */
export const armGravity = (c: ArmCase, angle: number, g: number): number => g * Math.cos(angle) * (c.load * c.length + c.armMass * c.armCentre);

/** Torque at an angle and acceleration: gravity + J·θ̈, N·m; the dynamic factor is not in it. */
export const armTorque = (c: ArmCase, angle: number, acceleration: number, g: number): number => armGravity(c, angle, g) + armInertia(c) * acceleration;

export interface MovePoint {
  readonly time: number;
  readonly angle: number;
  readonly speed: number;
  readonly acceleration: number;
}

/** A range below this (rad) is no move at all. */
const NO_RANGE = 1e-9;
/** Below this (rad/s²) no acceleration is asked for, and the speed is there at once. */
const NO_ACCELERATION = 1e-9;

/** Trapezoid (or triangle) from one end of the range to the other, as durations: speeding up, cruising, and the speed reached. */
export function trapezoid(range: number, speed: number, acceleration: number): { up: number; cruise: number; top: number } {
  if (!(range > NO_RANGE) || !(speed > 0)) return { up: 0, cruise: 0, top: 0 };
  if (!(acceleration > NO_ACCELERATION)) return { up: 0, cruise: range / speed, top: speed };
  const top = Math.min(speed, Math.sqrt(range * acceleration));
  const up = top / acceleration;
  return { up, cruise: Math.max(0, (range - top * up) / top), top };
}

/** Angle, speed and acceleration at a time of the move up. */
export function moveAt(c: ArmCase, t: number): MovePoint {
  const from = Math.min(c.angleFrom, c.angleTo);
  const range = Math.abs(c.angleTo - c.angleFrom);
  const { up, cruise, top } = trapezoid(range, c.speed, c.acceleration);
  const a = up > 0 ? top / up : 0;
  const end = 2 * up + cruise;
  if (t < up) return { time: t, angle: from + (a * t * t) / 2, speed: a * t, acceleration: a };
  if (t < up + cruise) return { time: t, angle: from + (a * up * up) / 2 + top * (t - up), speed: top, acceleration: 0 };
  const left = Math.max(0, end - t);
  return { time: t, angle: from + range - (a * left * left) / 2, speed: a * left, acceleration: up > 0 ? -a : 0 };
}

export interface ArmLoads {
  /** Largest |torque| of the range and move, times the dynamic factor, N·m. */
  readonly peak: number;
  /** Root mean square over the move up, the rest, the move down and the rest, N·m. */
  readonly rms: number;
  /** Largest |gravity torque| at which it rests (either end), N·m. */
  readonly hold: number;
  /** Angle at which the gravity torque is largest within the range, rad. */
  readonly worstAngle: number;
  readonly inertia: number;
  readonly moveTime: number;
  readonly topSpeed: number;
}

const STEPS = 400;

/**
 * Peak, RMS and hold of an arm against gravity: T(θ) = g·cos θ·(m_load·L + m_arm·c) + J·θ̈.
 *
 * @param g local gravity, m/s²
 */
export function armLoads(c: ArmCase, g: number): ArmLoads {
  const from = Math.min(c.angleFrom, c.angleTo);
  const to = Math.max(c.angleFrom, c.angleTo);
  const inertia = armInertia(c);
  // |cos θ| peaks at multiples of π; otherwise at an end.
  const inside = Math.ceil(from / Math.PI) * Math.PI || 0;
  const worstAngle = inside <= to ? inside : Math.abs(Math.cos(from)) > Math.abs(Math.cos(to)) ? from : to;
  const static_ = Math.abs(armGravity(c, worstAngle, g));
  const { up, cruise, top } = trapezoid(to - from, c.speed, c.acceleration);
  const moveTime = 2 * up + cruise;
  let moving = 0;
  let peakMoving = 0;
  if (moveTime > 0) {
    for (let i = 0; i < STEPS; i++) {
      const m = moveAt(c, ((i + 0.5) * moveTime) / STEPS);
      const upwards = armTorque(c, m.angle, m.acceleration, g);
      // Coming down is the same path backwards in time: same angle, same acceleration.
      moving += upwards * upwards;
      peakMoving = Math.max(peakMoving, Math.abs(upwards));
    }
    moving = (moving / STEPS) * moveTime;
    // Midpoints miss the ends of the ramps, where the extremes may lie.
    for (const t of [0, up * (1 - 1e-12), up + cruise, moveTime]) {
      const m = moveAt(c, t);
      peakMoving = Math.max(peakMoving, Math.abs(armTorque(c, m.angle, m.acceleration, g)));
    }
  }
  const restFrom = Math.abs(armGravity(c, from, g));
  const restTo = Math.abs(armGravity(c, to, g));
  const total = 2 * moveTime + 2 * c.rest;
  const rms = total > 0 ? Math.sqrt((2 * moving + c.rest * (restFrom ** 2 + restTo ** 2)) / total) : static_;
  return { peak: Math.max(static_, peakMoving) * c.dynamicFactor, rms, hold: Math.max(restFrom, restTo), worstAngle, inertia, moveTime, topSpeed: top };
}
