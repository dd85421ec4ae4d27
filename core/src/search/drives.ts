import type { Demand } from '../brief/demand.ts';
import type { Variant } from '../schema/joint.ts';
import { motorTorque } from '../motor/available.ts';
import { driverFor } from '../motor/drive.ts';
import { sensing } from '../line/sensing.ts';
import { driveMass, driveMoney } from '../motor/driver.ts';
import type { Motor } from '../motor/motor.ts';
import { faceOf } from '../shop/motor-face.ts';
import type { Shelf } from '../shop/shelf.ts';

/** A motor with its driver, and what it brings at every total ratio. */
export interface Drive {
  readonly motor: Variant['motor'];
  readonly driver: Variant['driver'];
  readonly mass: number;
  readonly money: number;
  /** What of that is there already, and left out of it. */
  readonly saves: number;
  readonly frame: number;
  readonly length: number;
  /** How far its shaft stands out of its face, m. */
  readonly reach: number;
  readonly rotor: number;
  /** Torque that turns it unpowered, N·m. */
  readonly idle: number;
  /** Torque at the shaft over the grid of ratios, point after point of the demand, N·m. */
  readonly gives: Float64Array;
}

/** Total ratios at which drives are known: from 1, two percent apart. */
const STEP = Math.log(1.02);
export const RATIOS = 400;
/** Place of a total ratio on the grid, rounded up: more ratio never gives more torque at the shaft. */
export const placeOf = (ratio: number): number =>
  Math.max(0, Math.min(RATIOS - 1, Math.ceil(Math.log(ratio) / STEP - 1e-9)));

/**
 * A motor of the shop or the variant's own, with a driver that runs it.
 * @param there whether it lies in the drawer: then it costs nothing more
 */
export function driveOf(motor: Motor, base: Variant, demand: Demand, shelf: Shelf, there = false): Drive {
  const own = motor.id === base.motor.id;
  const driver = (own ? base.driver : driverFor(motor, base.motor, base.driver, shelf)) as Variant['driver'];
  const senses = sensing({ sensor: base.sensor, motor: motor as Variant['motor'] }, shelf);
  const { points } = demand;
  const gives = new Float64Array(points.length * RATIOS);
  points.forEach((p, k) => {
    for (let i = 0; i < RATIOS; i++)
      gives[k * RATIOS + i] = motorTorque(motor, driver, shelf, p.speed * Math.exp(STEP * i), p.time).torque;
  });
  return {
    motor: motor as Variant['motor'],
    driver,
    mass: motor.mass + driveMass(driver) + senses.mass,
    money: (there ? 0 : motor.price) + driveMoney(driver) + senses.money,
    saves: there ? motor.price : 0,
    frame: motor.frame,
    length: motor.length,
    reach: faceOf(motor).reach,
    rotor: motor.rotorInertia,
    idle: motor.detentTorque,
    gives,
  };
}

/** The total ratios between which a drive meets every point of the demand with a share of its work arriving; none: empty. */
export function windowOf(
  drive: Drive,
  demand: Demand,
  arrives: number,
  holds: boolean,
): readonly [number, number] | undefined {
  let [low, high] = [Infinity, 0];
  for (let i = 0; i < RATIOS; i++) {
    const ratio = Math.exp(STEP * i);
    const meets = demand.points.every((p, k) => {
      if (!(p.torque > 0) || (holds && p.speed === 0)) return true;
      const spin = drive.rotor * ratio * (p.acceleration ?? 0);
      return drive.gives[k * RATIOS + i]! >= p.torque / (ratio * arrives) + spin;
    });
    if (!meets) continue;
    low = Math.min(low, ratio);
    high = Math.max(high, ratio);
  }
  return high > 0 ? [low, high] : undefined;
}

/** The best of everything that any drive has, as a drive; what idles in it is large where a line is to hold. */
export function bestDriveOf(drives: readonly Drive[], holds: boolean): Drive {
  const least = (of: (d: Drive) => number) => drives.reduce((b, d) => Math.min(b, of(d)), Infinity);
  const [one] = drives;
  return {
    ...one!,
    money: least((d) => d.money),
    mass: least((d) => d.mass),
    frame: least((d) => d.frame),
    length: least((d) => d.length),
    reach: least((d) => d.reach),
    rotor: least((d) => d.rotor),
    idle: holds ? -least((d) => -d.idle) : least((d) => d.idle),
    gives: Float64Array.from(one?.gives ?? [], (_, i) => drives.reduce((b, d) => Math.max(b, d.gives[i]!), 0)),
  };
}
