import { factor, type Shelf } from '../shop/shelf.ts';
import { linePerAmpere } from './driver.ts';
import type { DcMotor, Driver } from './motor.ts';

/** 20 °C, at which data sheets state resistance. */
export const ROOM = 293.15;

/** k_t = 1/K_V with K_V in rad/s/V, which is 60/(2π·K_V) with K_V in rpm/V; N·m/A per the line-current convention. */
export const torqueConstant = (m: DcMotor): number => 1 / m.speedConstant;

/** Resistance with the winding at a temperature: R·(1 + α·(T − 20 °C)), Ω. */
export const resistanceAt = (m: { readonly resistance: number }, temperature: number, shelf: Shelf): number =>
  m.resistance * (1 + factor(shelf, 'motor.copper') * (temperature - ROOM));

/** Winding current the motor carries for ever: I²·R·R_th = allowed rise, with R at the hot winding, A. */
export function continuousCurrent(m: DcMotor, shelf: Shelf): number {
  const hot = m.resistance * (1 + factor(shelf, 'motor.copper') * m.allowedRise);
  return Math.sqrt(m.allowedRise / (hot * m.thermalResistance));
}

/** The line current available at a speed (rad/s) and what bounds it, with the winding held to `thermal` amperes. */
export function brushlessCurrent(
  m: DcMotor,
  d: Driver,
  shelf: Shelf,
  speed: number,
  thermal: number,
): { current: number; bound: string } {
  const w = Math.abs(speed);
  const volts = d.supplyVoltage * factor(shelf, 'motor.duty');
  const e = w * torqueConstant(m);
  const resistance = d.winding === undefined ? m.resistance : resistanceAt(m, d.winding, shelf);
  const byVoltage = (volts - e) / resistance;
  const power = d.supplyVoltage * d.supplyCurrent;
  const bySupply = (-e + Math.sqrt(e * e + 4 * resistance * power)) / (2 * resistance);
  const bounds: [number, string][] = [
    [d.currentLimit * linePerAmpere(m, d), 'driver current'],
    [thermal, 'winding'],
    [byVoltage, 'voltage'],
    [bySupply, 'supply current'],
  ];
  const [current, bound] = bounds.reduce((a, b) => (b[0] < a[0] ? b : a));
  return { current: Math.max(0, current), bound };
}

/**
 * Share of its torque that a sensorless drive brings at a speed: little while it starts in open loop below the speed at
 * which it sees the rotor, rising to all of it at twice that speed. It holds no place: at standstill nothing is carried
 * continuously.
 *
 * @returns 1 for a motor that knows its rotor's angle
 */
export function sensorlessShare(
  m: DcMotor,
  d: Driver,
  shelf: Shelf,
  speed: number,
  time: 'peak' | 'continuous',
): number {
  if (m.type !== 'brushless' || m.sensored) return 1;
  const w = Math.abs(speed);
  if (time === 'continuous' && w === 0) return 0;
  const sees = factor(shelf, 'motor.sensorless') * d.supplyVoltage * factor(shelf, 'motor.duty') * m.speedConstant;
  const start = factor(shelf, 'motor.sensorlessTorque');
  const u = w / sees;
  return u <= 1 ? start : u >= 2 ? 1 : start + (1 - start) * (u - 1);
}

/** T = k_t·(I − I_0), N·m; zero where the current does not cover the idle current. */
export const brushlessTorque = (m: DcMotor, current: number): number =>
  Math.max(0, torqueConstant(m) * (current - m.idleCurrent));
