import { describe, expect, it } from 'vitest';
import { calibratedReading, INSTRUMENTS, MOTORS, twoPoint } from '../src/index.ts';

describe('a calibration by two points', () => {
  it('gives back both known values, and what lies between in proportion', () => {
    const c = twoPoint([2, 7], [120, 1120])!;
    expect(c.factor).toBeCloseTo(0.005, 12);
    expect(calibratedReading(c, 120)).toBeCloseTo(2, 12);
    expect(calibratedReading(c, 1120)).toBeCloseTo(7, 12);
    expect(calibratedReading(c, 620)).toBeCloseTo(4.5, 12);
    expect(twoPoint([0, 1], [5, 5])).toBeUndefined();
    expect(calibratedReading(undefined, 3)).toBe(3);
  });
});

describe('what is told in other units than it is kept in', () => {
  it('an encoder of ten thousand counts reads 0.036°', () => {
    const degrees = (INSTRUMENTS.find((i) => i.id === 'optical')!.resolution * 180) / Math.PI;
    expect(degrees).toBeCloseTo(0.036, 12);
    // And is sure of a minute of arc.
    expect((INSTRUMENTS.find((i) => i.id === 'optical')!.error * 10800) / Math.PI).toBeCloseTo(1, 12);
  });

  it('servos run as fast as their sheets say, in whole turns a minute', () => {
    const servos = MOTORS.filter((m) => m.type === 'servo');
    expect(servos.length).toBeGreaterThan(0);
    for (const s of servos)
      for (const speed of [s.ratedSpeed, s.maxSpeed]) {
        const rpm = (speed * 60) / (2 * Math.PI);
        expect(rpm / 100, s.id).toBeCloseTo(Math.round(rpm / 100), 9);
        expect(rpm, s.id).toBeLessThan(10_000);
      }
  });
});
