import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  brushlessTorque,
  continuousCurrent,
  currentFor,
  microstepTorque,
  motorEfficiency,
  motorTorque,
  MOTORS,
  copperLoss,
  cornerSpeed,
  driverFor,
  fullCurrent,
  linePerAmpere,
  motorHeat,
  pullOut,
  stepperHold,
  topSpeed,
  usableShare,
  torqueConstant,
  withFactor,
  type BrushlessMotor,
  type Driver,
  type StepperMotor,
} from '../src/index.ts';
import { shelf } from './helpers.ts';
import physics from './cases/physics.json' with { type: 'json' };

const stepper = MOTORS.find((m) => m.id === 'st42-48') as StepperMotor;
const brushless = MOTORS.find((m) => m.id === 'bl42-340') as BrushlessMotor;
const d: Driver = { supplyVoltage: 24, currentLimit: 1.7, supplyCurrent: 10, microsteps: 16 };

describe('stepper', () => {
  const of = (c: (typeof physics.stepper)[number]): { m: StepperMotor; d: Driver } => ({
    m: {
      ...stepper,
      holdTorque: c.hold_Nm,
      ratedCurrent: c.rated_A,
      resistance: c.ohm,
      inductance: c.henry,
      stepsPerTurn: c.steps,
    },
    d: { ...d, supplyVoltage: c.volt, currentLimit: c.rated_A, supplyCurrent: 99, sets: c.setting as 'peak' | 'rms' },
  });

  it('pulls out where an independent calculation has it', () => {
    for (const c of physics.stepper) {
      const { m, d: on } = of(c);
      expect(pullOut(m, on, (c.rpm * Math.PI) / 30).torque / c.pull_out_Nm).toBeCloseTo(1, 6);
    }
  });

  it('holds 1/√2 of its holding torque with its rated current as amplitude, all of it as RMS at twice the heat', () => {
    const set = (sets: 'peak' | 'rms') => ({ ...d, sets });
    expect(stepperHold(stepper, set('peak'))).toBeCloseTo(0.55 / Math.SQRT2, 12);
    expect(stepperHold(stepper, set('rms'))).toBeCloseTo(0.55, 12);
    const heat = (sets: 'peak' | 'rms') => motorHeat(stepper, set(sets), shelf, 0.1).rise;
    expect(heat('rms') / heat('peak')).toBeCloseTo(2, 12);
    expect(heat('rms')).toBeCloseTo(65, 9);
    const loss = (sets: 'peak' | 'rms') => copperLoss(stepper, set(sets), 0.1, stepper.resistance);
    // Both phases at the rated current: 2·I²·R.
    expect(loss('rms')).toBeCloseTo(2 * 1.7 ** 2 * stepper.resistance, 9);
  });

  it('keeps step to nine tenths of it at a crawl, to seven beyond its corner, evenly between', () => {
    const corner = cornerSpeed(stepper, d);
    const { torque } = pullOut(stepper, d, corner);
    // There the voltage just drives the current.
    expect(torque).toBeCloseTo(stepperHold(stepper, d), 3);
    expect(pullOut(stepper, d, 1.02 * corner).bound).toBe('voltage and inductance');
    expect(pullOut(stepper, d, 0.98 * corner).bound).toBe('rated current');
    expect([0, 0.5, 0.75, 1, 3].map((u) => usableShare(stepper, d, shelf, u * corner))).toEqual(
      [0.9, 0.9, 0.8, 0.7, 0.7].map((x) => expect.closeTo(x, 12)),
    );
    expect(motorTorque(stepper, d, shelf, 0, 'peak').torque).toBeCloseTo((0.9 * 0.55) / Math.SQRT2, 12);
  });

  it('falls as it runs, without a wall; a third is left where it counts as ended', () => {
    let last = Infinity;
    for (let w = 0; w < 600; w += 5) {
      const t = motorTorque(stepper, d, shelf, w, 'peak').torque;
      expect(t).toBeLessThanOrEqual(last + 1e-12);
      expect(t).toBeGreaterThan(0);
      last = t;
    }
    const left = pullOut(stepper, d, topSpeed(stepper, d)).torque / stepperHold(stepper, d);
    expect(left).toBeGreaterThan(0.25);
    expect(left).toBeLessThan(0.34);
  });

  it('runs further on a higher supply, and gives less on a lower current limit', () => {
    const fast = (v: number) => motorTorque(stepper, { ...d, supplyVoltage: v }, shelf, 100, 'peak').torque;
    expect(fast(36)).toBeGreaterThan(fast(24));
    const half = motorTorque(stepper, { ...d, currentLimit: 0.85 }, shelf, 0, 'peak').torque;
    expect(half / motorTorque(stepper, d, shelf, 0, 'peak').torque).toBeCloseTo(0.5, 12);
  });

  it('has microsteps that hold T·sin(π/2/n)', () => {
    expect(microstepTorque(0.55, 1)).toBeCloseTo(0.55, 12);
    expect(microstepTorque(0.55, 16)).toBeCloseTo(0.55 * Math.sin(Math.PI / 32), 12);
  });
});

describe('every motor', () => {
  it('gives no more power than its supply does', () => {
    for (const m of MOTORS)
      fc.assert(
        fc.property(
          fc.double({ min: 5, max: 60, noNaN: true }),
          fc.double({ min: 0.2, max: 40, noNaN: true }),
          fc.double({ min: 0.2, max: 40, noNaN: true }),
          fc.constantFrom('peak' as const, 'rms' as const, 'line' as const),
          fc.double({ min: 0, max: 1.2, noNaN: true }),
          (supplyVoltage, currentLimit, supplyCurrent, sets, u) => {
            const on: Driver = { supplyVoltage, currentLimit, supplyCurrent, microsteps: 16, sets };
            const w = u * topSpeed(m, on);
            const { torque } = motorTorque(m, on, shelf, w, 'peak');
            // A servo's drive is its own, and a curve is the sheet's.
            if (m.type !== 'servo' && !m.curve)
              expect(torque * w).toBeLessThanOrEqual(supplyVoltage * supplyCurrent * (1 + 1e-9));
            if (torque > 0) expect(motorEfficiency(m, on, torque, w, shelf).efficiency).toBeLessThan(1);
          },
        ),
        { numRuns: 60 },
      );
  });

  it('is picked with a driver and a supply that suit it: none keeps the supply of a stepper', () => {
    for (const before of MOTORS)
      for (const m of MOTORS) {
        const on = driverFor(m, before, { ...d, supplyCurrent: 4, sets: 'rms' }, shelf);
        expect(on.currentLimit).toBeLessThanOrEqual(fullCurrent(m, on) + 1e-12);
        expect(motorTorque(m, on, shelf, 0.3 * topSpeed(m, on), 'peak').bound, m.id).not.toBe('supply current');
        if (m.type !== before.type) expect(on.sets).toBeUndefined();
      }
    const larger: StepperMotor = { ...stepper, ratedCurrent: 2.8 };
    const lower = driverFor(larger, stepper, { ...d, currentLimit: 0.6, sets: 'rms' }, shelf);
    expect(lower).toMatchObject({ currentLimit: 0.6, sets: 'rms' });
    // All that the motor before stood was no choice of less.
    expect(driverFor(larger, stepper, { ...d, currentLimit: 1.7 }, shelf).currentLimit).toBe(2.8);
  });
});

describe('brushless', () => {
  it('has k_t = 60/(2π·K_V)', () => {
    expect(torqueConstant(brushless)).toBeCloseTo(60 / (2 * Math.PI * 340), 12);
    for (const c of physics.torque_constant) {
      const m = { ...brushless, speedConstant: (c.kv_rpm_per_V * 2 * Math.PI) / 60 };
      const sets = c.convention === 'trapezoidal' ? 'line' : 'peak';
      expect(torqueConstant(m) * linePerAmpere(m, { sets })).toBeCloseTo(c.Nm_per_A, 8);
    }
    // A root mean square is √2 less than its amplitude for the same torque.
    expect(linePerAmpere(brushless, { sets: 'rms' }) / linePerAmpere(brushless, {})).toBeCloseTo(Math.SQRT2, 12);
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

  it('without a sensor starts with three tenths of its torque, has all of it at twice the speed it sees, and holds nothing', () => {
    const blind = { ...brushless, sensored: false };
    const on = { ...d, currentLimit: 5 };
    const sees = 0.1 * 24 * 0.95 * brushless.speedConstant;
    const share = (u: number, time: 'peak' | 'continuous' = 'peak') =>
      motorTorque(blind, on, shelf, u * sees, time).torque / motorTorque(brushless, on, shelf, u * sees, time).torque;
    expect([0, 0.5, 1, 1.5, 2].map((u) => share(u))).toEqual([0.3, 0.3, 0.3, 0.65, 1].map((x) => expect.closeTo(x, 9)));
    expect(share(0, 'continuous')).toBe(0);
  });

  it('balances power: what goes in is shaft, copper and idling', () => {
    const e = motorEfficiency(brushless, d, 0.2, 200, shelf);
    expect(currentFor(brushless, d, 0.2)).toBeCloseTo(
      (0.2 / torqueConstant(brushless) + brushless.idleCurrent) / (Math.sqrt(3) / 2),
      12,
    );
    // Three phases of an amplitude lose 3/2·I²·R/2 with R between two terminals.
    expect(e.copperLoss).toBeCloseTo(0.75 * e.current ** 2 * brushless.resistance, 12);
    expect(e.efficiency).toBeGreaterThan(0.3);
    expect(e.efficiency).toBeLessThan(1);
    expect(motorEfficiency(brushless, d, 0.2, 0, shelf).efficiency).toBe(0);
  });

  it('follows the torque factor of the shop', () => {
    expect(
      motorTorque(brushless, d, withFactor(shelf, 'motor.spread', 0.9), 10, 'peak').torque /
        motorTorque(brushless, d, shelf, 10, 'peak').torque,
    ).toBeCloseTo(0.9, 12);
  });
});
