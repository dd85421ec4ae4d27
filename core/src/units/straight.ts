import type { QuantityId } from './quantity.ts';

/** What a quantity about an axis is of something that runs straight. */
export interface StraightQuantity {
  readonly quantity: QuantityId;
  /** SI value of the straight quantity for one of the turning one. */
  readonly by: number;
}

const POWERS: Partial<Record<QuantityId, readonly [QuantityId, power: number]>> = {
  torque: ['force', -1],
  angle: ['length', 1],
  smallAngle: ['smallLength', 1],
  speed: ['linearSpeed', 1],
  acceleration: ['linearAcceleration', 1],
  jerk: ['linearJerk', 1],
  stiffness: ['stiffnessPerLength', -2],
  inertia: ['mass', -2],
};

/**
 * A quantity at the output of a line that moves something straight: torque over the arm is force, angle times it is way.
 *
 * @param arm travel for a radian, m
 * @returns undefined for what is the same either way
 * @example straightQuantity('torque', 0.02) // { quantity: 'force', by: 50 }
 * @example straightQuantity('mass', 0.02) // undefined
 */
export function straightQuantity(quantity: QuantityId, arm: number): StraightQuantity | undefined {
  const found = POWERS[quantity];
  return found && { quantity: found[0], by: arm ** found[1] };
}

/**
 * What something is called along a straight axis: what was a torque is a force.
 *
 * @param arm travel for a radian, m; undefined where it turns
 * @example nameAlong('Torque, lifting', 0.02) // 'Force, lifting'
 */
export const nameAlong = (name: string, arm: number | undefined): string =>
  arm === undefined ? name : name.replace('Torque', 'Force');

/** A value with its band and what it is of. */
export interface StraightFigure {
  readonly quantity: QuantityId;
  readonly value: number;
  readonly low?: number;
  readonly high?: number;
}

/**
 * A figure of a line's output as it is told of one that runs straight.
 *
 * @param arm travel for a radian, m; undefined where it turns, and it is as it was
 * @example alongAxis({ quantity: 'torque', value: 1, low: 0.8 }, 0.02) // { quantity: 'force', value: 50, low: 40 }
 */
export function alongAxis<F extends StraightFigure>(f: F, arm: number | undefined): F {
  const told = arm === undefined ? undefined : straightQuantity(f.quantity, arm);
  if (!told) return f;
  return {
    ...f,
    quantity: told.quantity,
    value: f.value * told.by,
    ...(f.low !== undefined && { low: f.low * told.by }),
    ...(f.high !== undefined && { high: f.high * told.by }),
  };
}
