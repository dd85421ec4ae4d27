import type { TorqueCurve } from './curve.ts';
import type { ServoMotor } from './motor.ts';

const made = new WeakMap<ServoMotor, { peak: TorqueCurve; ever: TorqueCurve }>();

/**
 * The straight lines of a plain data sheet: peak torque up to the rated speed and down to the rated torque at the
 * highest; rated torque throughout.
 */
function lines(m: ServoMotor): { peak: TorqueCurve; ever: TorqueCurve } {
  let found = made.get(m);
  if (!found) {
    const speed = m.maxSpeed > m.ratedSpeed ? [0, m.ratedSpeed, m.maxSpeed] : [0, m.maxSpeed];
    const last = speed.length === 3 ? [m.peakTorque, m.peakTorque, m.ratedTorque] : [m.peakTorque, m.peakTorque];
    found = { peak: { speed, torque: last }, ever: { speed, torque: speed.map(() => m.ratedTorque) } };
    made.set(m, found);
  }
  return found;
}

/** Torque of a servo at a speed by its plain data, straight between the points; 0 above its highest speed, N·m. */
export function servoTorque(m: ServoMotor, speed: number, time: 'peak' | 'continuous'): number {
  const { speed: x, torque: y } = lines(m)[time === 'peak' ? 'peak' : 'ever'];
  const w = Math.abs(speed);
  if (w > x[x.length - 1]!) return 0;
  const k = x.length === 3 && w > x[1]! ? 1 : 0;
  return y[k]! + ((y[k + 1]! - y[k]!) * (w - x[k]!)) / (x[k + 1]! - x[k]!);
}

/** Losses at a torque: those of the rated point, of which the winding's grow with the square of torque, W. */
export const servoLoss = (m: ServoMotor, torque: number): number =>
  m.ratedTorque * m.ratedSpeed * (1 / m.efficiency - 1) * (torque / m.ratedTorque) ** 2;
