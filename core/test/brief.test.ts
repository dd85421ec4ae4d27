import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  armLoads,
  armTorque,
  askedValue,
  blankCase,
  demandOf,
  judge,
  moveAt,
  planMove,
  trapezoid,
  type ArmCase,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

const G = 9.80665;
const c = (change: Partial<ArmCase>): ArmCase => ({ ...blankCase('c'), ...change });

describe('arm against gravity', () => {
  it('is g·cos θ·(m·L + mₐ·c) at rest', () => {
    const level = c({ load: 2, length: 0.5, armMass: 0.4, armCentre: 0.25, acceleration: 0, dynamicFactor: 1 });
    expect(armTorque(level, 0, 0, G)).toBeCloseTo(G * (2 * 0.5 + 0.4 * 0.25), 12);
    expect(armTorque(level, Math.PI / 3, 0, G)).toBeCloseTo((G * 1.1) / 2, 12);
    expect(armLoads(level, G).peak).toBeCloseTo(G * 1.1, 9);
  });

  it('finds the worst angle whether level lies in the range or not', () => {
    expect(armLoads(c({ angleFrom: -0.3, angleTo: 0.8 }), G).values['worstAngle']).toBe(0);
    expect(armLoads(c({ angleFrom: 0.4, angleTo: 1.2 }), G).values['worstAngle']).toBe(0.4);
    expect(armLoads(c({ angleFrom: 2, angleTo: 3.5 }), G).values['worstAngle']).toBeCloseTo(Math.PI, 12);
  });

  it('peak, RMS and hold are in order, and heavier asks for more', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 20, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        fc.double({ min: -1.5, max: 1.5, noNaN: true }),
        fc.double({ min: -1.5, max: 1.5, noNaN: true }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        (load, length, angleFrom, angleTo, acceleration) => {
          const a = armLoads(c({ load, length, angleFrom, angleTo, acceleration }), G);
          expect(a.peak).toBeGreaterThanOrEqual(a.hold * 1.3 - 1e-9);
          expect(a.peak).toBeGreaterThanOrEqual(a.rms - 1e-9);
          expect(armLoads(c({ load: load * 1.1, length, angleFrom, angleTo, acceleration }), G).peak).toBeGreaterThan(
            a.peak,
          );
          for (const x of Object.values(a).filter((v) => typeof v === 'number')) expect(Number.isFinite(x)).toBe(true);
        },
      ),
    );
  });

  it('moves from end to end without a jump, at the speed asked', () => {
    const move = planMove(1.3, { ...c({}), speed: 1.5, acceleration: 6 });
    const { up, cruise, top } = trapezoid(1.3, 1.5, 6);
    const end = 2 * up + cruise;
    expect(top).toBe(1.5);
    expect(move.duration).toBeCloseTo(end, 12);
    expect(moveAt(move, end).position).toBeCloseTo(1.3, 12);
    for (let i = 1; i <= 500; i++) {
      const [a, b] = [moveAt(move, ((i - 1) * end) / 500), moveAt(move, (i * end) / 500)];
      expect(Math.abs(b.position - a.position)).toBeLessThanOrEqual((1.5 * end) / 500 + 1e-9);
      expect(b.speed).toBeLessThanOrEqual(1.5 + 1e-9);
    }
    expect(trapezoid(0.1, 10, 4).cruise).toBe(0);
    expect(trapezoid(0, 10, 4)).toEqual({ up: 0, cruise: 0, top: 0 });
  });

  it('asks with the load cases where a limit follows them', () => {
    const d = demandOf(demo().brief, shelf);
    expect(askedValue({ id: 'torque', value: null }, d)).toBe(d.peak);
    expect(askedValue({ id: 'torque', value: 3 }, d)).toBe(3);
    expect(askedValue({ id: 'mass', value: null }, d)).toBeNaN();
  });

  it('judges by the likely value, and by the band for near', () => {
    expect(judge(5, 'min', { value: 6, low: 5.5, high: 7 })).toBe('holds');
    expect(judge(5, 'min', { value: 6, low: 4, high: 7 })).toBe('near');
    expect(judge(5, 'min', { value: 4.9, low: 4, high: 7 })).toBe('fails');
    expect(judge(5, 'max', { value: 4.9, low: 4, high: 7 })).toBe('near');
    expect(judge(5, 'min', { value: 4.9999, low: 4, high: 7 })).toBe('fails');
    expect(judge(5, 'max', { value: 5.0001, low: 4, high: 7 })).toBe('fails');
    expect(judge(NaN, 'max', { value: 1, low: 1, high: 1 })).toBe('unknown');
    expect(judge(5, 'max', undefined)).toBe('unknown');
  });
});
