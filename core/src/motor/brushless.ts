import { factor, type Shelf } from '../shop/shelf.ts';
import type { BrushlessMotor, Driver } from './motor.ts';

/** k_t = 1/K_V with K_V in rad/s/V, which is 60/(2π·K_V) with K_V in rpm/V; N·m/A per the line-current convention. */
export const torqueConstant = (m: BrushlessMotor): number => 1 / m.speedConstant;

/** Winding current the motor carries for ever: I²·R·R_th = allowed rise, with R at the hot winding, A. */
export function continuousCurrent(m: BrushlessMotor, shelf: Shelf): number {
  const hot = m.resistance * (1 + factor(shelf, 'motor.copper') * m.allowedRise);
  return Math.sqrt(m.allowedRise / (hot * m.thermalResistance));
}

/** The current available at a speed (rad/s) and what bounds it, with the winding held to `thermal` amperes. */
export function brushlessCurrent(m: BrushlessMotor, d: Driver, shelf: Shelf, speed: number, thermal: number): { current: number; bound: string } {
  const w = Math.abs(speed);
  const volts = d.supplyVoltage * factor(shelf, 'motor.duty');
  const noLoad = volts * m.speedConstant;
  if (!m.sensored && w < factor(shelf, 'motor.sensorless') * noLoad) return { current: 0, bound: 'sensorless start' };
  const e = w * torqueConstant(m);
  const byVoltage = (volts - e) / m.resistance;
  const power = d.supplyVoltage * d.supplyCurrent;
  const bySupply = (-e + Math.sqrt(e * e + 4 * m.resistance * power)) / (2 * m.resistance);
  const bounds: [number, string][] = [[d.currentLimit, 'driver current'], [thermal, 'winding'], [byVoltage, 'voltage'], [bySupply, 'supply current']];
  const [current, bound] = bounds.reduce((a, b) => (b[0] < a[0] ? b : a));
  return { current: Math.max(0, current), bound };
}

/** T = k_t·(I − I_0), N·m; zero where the current does not cover the idle current. */
export const brushlessTorque = (m: BrushlessMotor, current: number): number => Math.max(0, torqueConstant(m) * (current - m.idleCurrent));
