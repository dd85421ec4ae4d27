import { torqueConstant } from './brushless.ts';
import { driverHeat, pathCurrent } from './drive.ts';
import { copperLoss } from './available.ts';
import type { Driver, Motor } from './motor.ts';

/**
 * Electrical power that a motor gives back when it is driven, W: what comes in at the shaft less its friction, I²·R of the
 * cold winding, which leaves the most, and the driver's heat. Below zero where it draws all the same; it is linear in speed.
 *
 * A stepper draws its set current whatever happens; friction at no load brakes along and needs no current.
 *
 * @param torque that drives the shaft, N·m
 * @param speed rad/s
 * Source: balance of power at the motor's terminals.
 */
export function netBack(m: Motor, d: Driver, torque: number, speed: number): number {
  const magnets = m.type === 'brushless' || m.type === 'brushed';
  const friction = magnets ? m.idleCurrent * torqueConstant(m) : 0;
  const held = Math.max(0, torque - friction);
  const current = magnets ? held / torqueConstant(m) : pathCurrent(m, d, held);
  const copper = magnets
    ? current * current * m.resistance
    : copperLoss(m, d, held, m.type === 'servo' ? 0 : m.resistance);
  return held * speed - copper - (d.unit ? driverHeat(d.unit, current) : 0);
}
