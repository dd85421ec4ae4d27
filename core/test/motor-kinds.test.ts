import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  curveTorque,
  fullCurrent,
  monotoneSlopes,
  motorConstants,
  motorEfficiency,
  motorHeat,
  MOTORS,
  motorTorque,
  readDriver,
  readMotor,
  servoTorque,
  withFactor,
  type BrushedMotor,
  type BrushlessMotor,
  type Driver,
  type ServoMotor,
  type StepperMotor,
} from '../src/index.ts';
import { shelf } from './helpers.ts';

const find = <T>(id: string) => MOTORS.find((m) => m.id === id) as T;
const brushed = find<BrushedMotor>('br42-180');
const servo = find<ServoMotor>('sv60-200');
const stepper = find<StepperMotor>('st42-48');
const brushless = find<BrushlessMotor>('bl42-340');
const d: Driver = { supplyVoltage: 24, currentLimit: 50, supplyCurrent: 50, microsteps: 16 };

describe('the motor shelf', () => {
  it('has at least fourteen, of every type, each within its own schema', () => {
    expect(MOTORS.length).toBeGreaterThanOrEqual(14);
    expect(new Set(MOTORS.map((m) => m.type))).toEqual(new Set(['stepper', 'brushless', 'brushed', 'servo']));
    for (const m of MOTORS) {
      expect(readMotor(m)).toMatchObject({ ok: true });
      expect(
        motorTorque(
          m,
          { ...d, currentLimit: fullCurrent(m) },
          shelf,
          m.type === 'brushless' && !m.sensored ? 400 : 0,
          'peak',
        ).torque,
        m.id,
      ).toBeGreaterThan(0);
    }
    expect(new Set(MOTORS.map((m) => m.id)).size).toBe(MOTORS.length);
  });
});

describe('brushed motors', () => {
  it('follow ω = (V·d − I·R)/k_t and T = k_t·(I − I₀) where the voltage bounds them', () => {
    const kt = 1 / brushed.speedConstant;
    const w = 350;
    const at = motorTorque(brushed, d, shelf, w, 'peak');
    expect(at.bound).toBe('voltage');
    expect(at.torque).toBeCloseTo(kt * ((24 * 0.95 - kt * w) / brushed.resistance - brushed.idleCurrent), 9);
  });

  it('start from rest without a sensor, and lose torque as the winding warms', () => {
    expect(motorTorque(brushed, d, shelf, 0, 'peak').torque).toBeGreaterThan(0);
    const hot = { ...d, winding: 293.15 + 80 };
    expect(motorTorque(brushed, hot, shelf, 350, 'peak').torque).toBeLessThan(
      motorTorque(brushed, d, shelf, 350, 'peak').torque,
    );
    expect(motorTorque(brushed, { ...d, winding: 293.15 }, shelf, 350, 'peak').torque).toBeCloseTo(
      motorTorque(brushed, d, shelf, 350, 'peak').torque,
      12,
    );
  });
});

describe('servos by data sheet', () => {
  it('give peak to the rated speed, fall to the rated torque at the highest, and nothing above', () => {
    expect(servoTorque(servo, 0, 'peak')).toBe(servo.peakTorque);
    expect(servoTorque(servo, servo.maxSpeed, 'peak')).toBeCloseTo(servo.ratedTorque, 12);
    expect(servoTorque(servo, (servo.ratedSpeed + servo.maxSpeed) / 2, 'peak')).toBeCloseTo(
      (servo.peakTorque + servo.ratedTorque) / 2,
      12,
    );
    expect(servoTorque(servo, servo.maxSpeed * 1.001, 'peak')).toBe(0);
    expect(motorTorque(servo, { ...d, currentLimit: servo.ratedCurrent / 2 }, shelf, 0, 'continuous')).toMatchObject({
      bound: 'driver current',
      torque: servo.ratedTorque / 2,
    });
  });

  it('have the stated efficiency at the rated point, and heat by the square of torque', () => {
    expect(motorEfficiency(servo, d, servo.ratedTorque, servo.ratedSpeed, shelf).efficiency).toBeCloseTo(
      servo.efficiency,
      9,
    );
    expect(motorHeat(servo, d, shelf, servo.ratedTorque * 2).rise).toBeCloseTo(4 * servo.allowedRise, 9);
  });
});

describe('the constants of a motor', () => {
  it('turns unloaded as fast as what the supply leaves after its idle current', () => {
    const c = motorConstants(brushless, d, shelf);
    const { idleCurrent, resistance, speedConstant } = brushless;
    expect(idleCurrent * resistance).toBeGreaterThan(0);
    expect(c.noLoadSpeed).toBeCloseTo(24 * speedConstant - idleCurrent * resistance * speedConstant, 9);
    // Torque for the line current, whatever the driver's ampere is: a watt is a watt.
    expect(c.motorConstant ** 2 * resistance).toBeCloseTo((1 / speedConstant) ** 2, 12);
  });

  it('gives half of its curve at half its current, as a stepper', () => {
    const own = { ...stepper, curve: { speed: [0, 100], torque: [0.5, 0.2] } };
    const at = (share: number) =>
      motorTorque(own, { ...d, currentLimit: share * stepper.ratedCurrent }, shelf, 50, 'peak').torque;
    expect(at(0.5) / at(1)).toBeCloseTo(0.5, 9);
    expect(at(2)).toBeCloseTo(at(1), 12);
  });
});

describe('a data sheet’s curve', () => {
  const curve = { speed: [0, 50, 120, 200, 320], torque: [1, 0.95, 0.7, 0.3, 0.05] };

  it('is met at its points, stays between them, and is not made up beyond', () => {
    curve.speed.forEach((w, i) => expect(curveTorque(curve, w)).toBeCloseTo(curve.torque[i]!, 12));
    fc.assert(
      fc.property(fc.double({ min: 0, max: 319.9, noNaN: true }), (w) => {
        const k = curve.speed.findLastIndex((x) => x <= w);
        const t = curveTorque(curve, w);
        expect(t).toBeLessThanOrEqual(curve.torque[k]! + 1e-12);
        expect(t).toBeGreaterThanOrEqual(curve.torque[k + 1]! - 1e-12);
      }),
    );
    expect(curveTorque(curve, 321)).toBeNaN();
    expect(curveTorque(curve, -1)).toBeNaN();
  });

  it('has the weighted harmonic mean of the differences as slope inside, nought at a turn, and is straight for two points', () => {
    // h 50 and 70, differences −0.001 and −1/280: w1 = 2·70 + 50, w2 = 70 + 2·50.
    expect(monotoneSlopes(curve.speed, curve.torque)[1]).toBeCloseTo(
      (190 + 170) / (190 / -0.001 + 170 / (-0.25 / 70)),
      12,
    );
    expect(monotoneSlopes([0, 1, 2], [0, 1, 0])[1]).toBe(0);
    // By hand: three points say ((2 + 1)·0.1 + 1.1)/2 = 0.7 at the start, held to three times the difference there; at
    // the end (−3·1.1 − 0.1)/2.
    expect([...monotoneSlopes([0, 1, 2], [0, 0.1, -1])].map((m) => m.toFixed(9))).toEqual(
      [0.3, 0, -1.7].map((m) => m.toFixed(9)),
    );
    expect(curveTorque({ speed: [0, 100], torque: [1, 0.5] }, 30)).toBeCloseTo(0.85, 12);
  });

  it('stands in place of the constants, and a stepper keeps its holding torque at rest', () => {
    const own = { ...stepper, curve: { speed: [10, 100], torque: [0.5, 0.2] } };
    expect(motorTorque(own, { ...d, currentLimit: 1.7 }, shelf, 55, 'peak')).toMatchObject({
      known: true,
      bound: 'data sheet',
    });
    expect(motorTorque(own, { ...d, currentLimit: 1.7 }, shelf, 55, 'peak').torque).toBeCloseTo(0.35, 12);
    expect(motorTorque(own, { ...d, currentLimit: 1.7 }, shelf, 0, 'peak').torque).toBe(0.55);
    expect(motorTorque(own, d, shelf, 5, 'peak').known).toBe(false);
    expect(motorTorque(own, d, shelf, 101, 'peak')).toMatchObject({ known: false, torque: 0 });
  });
});

describe('heat', () => {
  it('solves ΔT = I²·R(T)·R_th, and runs away where the loop gain reaches one', () => {
    const kt = 1 / brushless.speedConstant;
    const torque = kt * (10 - brushless.idleCurrent);
    const { rise } = motorHeat(brushless, d, shelf, torque);
    expect(rise).toBeCloseTo(100 * brushless.resistance * (1 + 0.00393 * rise) * brushless.thermalResistance, 9);
    expect(motorHeat(brushless, d, shelf, kt * 60).rise).toBe(Infinity);
  });

  it('of a stepper follows its set current, and the mount takes a share of it', () => {
    const full = motorHeat(stepper, { ...d, currentLimit: 1.7 }, shelf, 0.1);
    const half = motorHeat(stepper, { ...d, currentLimit: 0.85 }, shelf, 0.4);
    expect(half.rise).toBeCloseTo(full.rise / 4, 9);
    expect(full.mount - 293.15).toBeCloseTo(0.6 * full.rise, 9);
    expect(
      motorHeat(stepper, d, withFactor(shelf, 'ambient', 303.15), 0.1).winding -
        motorHeat(stepper, d, shelf, 0.1).winding,
    ).toBeCloseTo(10, 9);
  });
});

describe('constants and reading', () => {
  it('k_t, k_t/√R, the microstep and the stiffness at rest', () => {
    const c = motorConstants(brushless, d, shelf);
    const kt = 60 / (2 * Math.PI * 340);
    expect(c.torqueConstant).toBeCloseTo((kt * Math.sqrt(3)) / 2, 9);
    expect(c.motorConstant).toBeCloseTo(kt / Math.sqrt(0.13), 9);
    const s = motorConstants(stepper, { ...d, currentLimit: 1.7, sets: 'rms' }, shelf);
    expect(s.stepStiffness).toBeCloseTo(0.55 * 50, 9);
    expect(s.microstepTorque).toBeCloseTo(0.55 * Math.sin(Math.PI / 32), 12);
  });

  it('take text with units, and refuse by place', () => {
    expect(
      readMotor({
        type: 'stepper',
        holdTorque: '62 ozf·in',
        ratedCurrent: 1.7,
        resistance: 1.5,
        inductance: '2.8 mH',
        stepsPerTurn: 200,
      }),
    ).toMatchObject({ ok: true, value: { inductance: 0.0028 } });
    expect(readMotor({ type: 'stepper', holdTorque: -1 })).toMatchObject({
      ok: false,
      problem: { place: 'holdTorque' },
    });
    expect(readMotor({ type: 'windmill' })).toMatchObject({ ok: false });
    expect(readMotor(7)).toMatchObject({ ok: false });
    expect(readMotor({ ...stepper, curve: { speed: [5, 3], torque: [1, 1] } })).toMatchObject({ ok: false });
    expect(readDriver({ supplyVoltage: 0 })).toMatchObject({ ok: false });
  });
});
