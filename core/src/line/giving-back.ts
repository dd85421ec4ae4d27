import type { Demand } from '../brief/demand.ts';
import { netBack } from '../motor/giving-back.ts';
import type { Driver, Motor } from '../motor/motor.ts';
import { backward, type Link } from './sum.ts';

/** What the joint gives back through its motor while it is lowered and stopped; at most. */
export interface GivenBack {
  /** Largest power, W. */
  readonly power: number;
  /** Energy of one lowering with its stop, J. */
  readonly energy: number;
}

/**
 * Power and energy that come back when the load that is held goes down through the widest move at the highest speed and is
 * stopped there. While it stops at an even rate, the power falls evenly from its most.
 *
 * @param inertia of rotor and stages at the output, kg·m²
 * @param size total ratio without its sign
 * Source: balance of energy; the largest holding torque is taken all the way, which is more than a beam gives.
 */
export function givenBack(
  motor: Motor,
  driver: Driver,
  links: readonly Link[],
  demand: Demand,
  inertia: number,
  size: number,
): GivenBack {
  const speed = demand.speed * size;
  if (!(speed > 0)) return { power: 0, energy: 0 };
  const lowering = Math.max(0, netBack(motor, driver, backward(links, demand.hold), speed));
  let [power, energy] = [lowering, (lowering * demand.swing) / demand.speed];
  const rate = demand.points.reduce((most, p) => Math.max(most, p.acceleration ?? 0), 0);
  if (rate > 0) {
    const torque = backward(links, demand.hold + demand.inertia * rate) + (inertia / size) * rate;
    const first = netBack(motor, driver, torque, speed);
    if (first > 0) {
      // Falling evenly with the speed from `first` to −`still`, of which only what is above nought comes back.
      const still = -netBack(motor, driver, torque, 0);
      power = Math.max(power, first);
      energy += ((first / (first + still)) * first * (demand.speed / rate)) / 2;
    }
  }
  return { power, energy };
}
