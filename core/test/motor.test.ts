import { describe, expect, it } from 'vitest';
import {
  brushlessTorque,
  continuousCurrent,
  currentFor,
  microstepTorque,
  motorEfficiency,
  motorTorque,
  MOTORS,
  stepperCurrent,
  torqueConstant,
  withFactor,
  type BrushlessMotor,
  type Driver,
  type StepperMotor,
} from '../src/index.ts';
import { shelf } from './helpers.ts';

const stepper = MOTORS.find((m) => m.id === 'st42-48') as StepperMotor;
const brushless = MOTORS.find((m) => m.id === 'bl42-340') as BrushlessMotor;
const d: Driver = { supplyVoltage: 24, currentLimit: 1.7, supplyCurrent: 10, microsteps: 16 };

describe('stepper', () => {
  it('holds its holding torque at standstill, and less as it runs', () => {
    expect(motorTorque(stepper, d, shelf, 0, 'peak').torque).toBeCloseTo(0.55, 12);
    let last = Infinity;
    for (let w = 0; w < 400; w += 5) {
      const t = motorTorque(stepper, d, shelf, w, 'peak').torque;
      expect(t).toBeLessThanOrEqual(last + 1e-12);
      last = t;
    }
    expect(last).toBeLessThan(0.01);
  });

  it('meets the voltage balance where the supply bounds it', () => {
    const w = 80;
    const i = stepperCurrent(stepper, d, w);
    const k = stepper.holdTorque / (Math.SQRT2 * stepper.ratedCurrent);
    const x = ((w * 200) / 4) * stepper.inductance;
    expect(i).toBeLessThan(1.7);
    expect((k * w + stepper.resistance * i) ** 2 + (x * i) ** 2).toBeCloseTo(24 ** 2, 6);
  });

  it('runs further on a higher supply, and gives less on a lower current limit', () => {
    const fast = (v: number) => motorTorque(stepper, { ...d, supplyVoltage: v }, shelf, 100, 'peak').torque;
    expect(fast(36)).toBeGreaterThan(fast(24));
    expect(motorTorque(stepper, { ...d, currentLimit: 0.85 }, shelf, 0, 'peak').torque).toBeCloseTo(0.275, 12);
  });

  it('has microsteps that hold T·sin(π/2/n)', () => {
    expect(microstepTorque(stepper, 1)).toBeCloseTo(0.55, 12);
    expect(microstepTorque(stepper, 16)).toBeCloseTo(0.55 * Math.sin(Math.PI / 32), 12);
  });
});

describe('brushless', () => {
  it('has k_t = 60/(2π·K_V)', () => {
    expect(torqueConstant(brushless)).toBeCloseTo(60 / (2 * Math.PI * 340), 12);
    expect(brushlessTorque(brushless, 0.3)).toBe(0);
  });

  it('carries for ever what heats it by its allowed rise', () => {
    const i = continuousCurrent(brushless, shelf);
    expect(i * i * brushless.resistance * (1 + 0.00393 * 80) * brushless.thermalResistance).toBeCloseTo(80, 9);
    expect(motorTorque(brushless, { ...d, currentLimit: 99 }, shelf, 10, 'continuous').torque).toBeLessThan(
      motorTorque(brushless, { ...d, currentLimit: 99 }, shelf, 10, 'peak').torque,
    );
  });

  it('names what bounds it', () => {
    const at = (w: number, change: Partial<Driver>, m = brushless) =>
      motorTorque(m, { ...d, currentLimit: 99, supplyCurrent: 999, ...change }, shelf, w, 'peak').bound;
    expect(at(10, { currentLimit: 3 })).toBe('driver current');
    expect(at(10, {})).toBe('winding');
    expect(at(800, {})).toBe('voltage');
    expect(at(300, { supplyCurrent: 1 })).toBe('supply current');
    expect(at(0, {}, { ...brushless, sensored: false })).toBe('sensorless start');
  });

  it('balances power: what goes in is shaft, copper and idling', () => {
    const e = motorEfficiency(brushless, d, 0.2, 200);
    expect(currentFor(brushless, d, 0.2)).toBeCloseTo(0.2 / torqueConstant(brushless) + brushless.idleCurrent, 12);
    expect(e.efficiency).toBeGreaterThan(0.3);
    expect(e.efficiency).toBeLessThan(1);
    expect(motorEfficiency(brushless, d, 0.2, 0).efficiency).toBe(0);
  });

  it('follows the torque factor of the shop', () => {
    expect(
      motorTorque(brushless, d, withFactor(shelf, 'motor.spread', 0.9), 10, 'peak').torque /
        motorTorque(brushless, d, shelf, 10, 'peak').torque,
    ).toBeCloseTo(0.9, 12);
  });
});
