import { describe, expect, it } from 'vitest';
import { CELL_COUNTS, CELL_LEVER, CELL_ZERO, LineReader, Specimen, type RigProgram, type Truth } from '../src/index.ts';

// The stand-in of the rig makes what its truth says: its readings are held against sums by hand.

const TRUTH: Truth = {
  ratio: 20,
  play: 2e-3,
  stiffness: [300, 900],
  bend: 1,
  friction: 0.05,
  torque: 6,
  efficiency: 0.8,
  drag: 0.01,
  torqueConstant: 0.05,
  errors: [],
  sensorError: 0,
  counts: 1e9,
  noise: 0,
  viscous: 0,
  heating: { torque: 2, ambient: 293.15, rise: 30, time: 600 },
};
const made = (program: RigProgram, over: Partial<Truth> = {}, rate?: number) => {
  const s = new Specimen({ ...TRUTH, ...over }, program, rate, 3);
  const reader = new LineReader();
  reader.line(s.header());
  while (!s.done) reader.line(s.line());
  return (name: string) => reader.column(name)!;
};
const mean = (a: ArrayLike<number>) => Array.from(a).reduce((s, v) => s + v, 0) / a.length;
const spread = (a: ArrayLike<number>) => {
  const m = mean(a);
  return Math.sqrt(Array.from(a).reduce((s, v) => s + (v - m) ** 2, 0) / (a.length - 1));
};

describe('what the simulated specimen gives', () => {
  it('its sensor is as noisy as said, evenly to both sides', () => {
    const still = made('transmission', { play: 0, stiffness: [1e12, 1e12] });
    const noisy = made('transmission', { play: 0, stiffness: [1e12, 1e12], noise: 1e-4 });
    const off = noisy('output').map((v, i) => v - still('output')[i]!);
    expect(spread(off) / 1e-4).toBeCloseTo(1, 1);
    expect(Math.abs(mean(off))).toBeLessThan((4 * 1e-4) / Math.sqrt(off.length));
    // Of so many a three in a thousand lie beyond three times that.
    const far = off.filter((v) => Math.abs(v) > 3e-4).length / off.length;
    expect(far).toBeGreaterThan(0.0015);
    expect(far).toBeLessThan(0.004);
  });

  it('turning, it is behind by half its play and what its drag winds up, one way and the other', () => {
    const of = made('transmission');
    const behind = of('output').map((v, i) => of('input')[i]! / 20 - v);
    const n = behind.length;
    const wound = (0.02 * 6) / 300;
    expect(mean(behind.subarray(10, n / 2 - 10))).toBeCloseTo(1e-3 + wound, 7);
    expect(mean(behind.subarray(n / 2 + 10, n - 10))).toBeCloseTo(-1e-3 - wound, 7);
  });

  it('pulled, it gives by its two springs and half its play, friction holding some back', () => {
    const of = made('hysteresis');
    const torque = of('torque');
    // At the top of the first rise the spring has all but the friction.
    let top = 0;
    for (let i = 0; i < torque.length / 2; i++) if (torque[i]! > torque[top]!) top = i;
    const spring = 0.6 * 6 - 0.05;
    expect(of('output')[top]! / (1e-3 + 1 / 300 + (spring - 1) / 900)).toBeCloseTo(1, 3);
  });

  it('driven, its cell counts the torque, its current is that over ratio and efficiency with the drag', () => {
    const of = made('torque');
    const [load, current, torque] = [of('counts'), of('current'), of('torque')];
    const most = torque.reduce((m, v) => Math.max(m, v), 0);
    expect(most).toBeLessThanOrEqual(6);
    expect(most).toBeGreaterThan(0.99 * 6);
    // Once it slips it gives between 97 and 100 in 100 of what it stands.
    const slips = torque.subarray(torque.length - 200);
    expect(Math.min(...slips)).toBeGreaterThan(0.969 * 6);
    expect(mean(slips) / 6).toBeCloseTo(0.985, 2);
    for (let i = 500; i < torque.length; i += 700) {
      expect(Math.abs(current[i]! - (torque[i]! / (20 * 0.8) + 0.01) / 0.05)).toBeLessThan(0.03);
      expect(Math.abs(load[i]! - CELL_ZERO - (torque[i]! / CELL_LEVER) * CELL_COUNTS)).toBeLessThan(40);
    }
    // It rises evenly until then.
    const tenth = Math.round(torque.length / 10);
    expect(torque[tenth]! / (6 * 1.02 * 1.35 * 0.1)).toBeCloseTo(1, 2);
  });

  it('loaded on, it warms by the exponential it is given', () => {
    const of = made('warming');
    const [time, warm] = [of('time'), of('temperature')];
    const at = time.findIndex((t) => t >= 600);
    expect(mean(warm.subarray(at - 20, at + 20)) / (293.15 + 30 * (1 - Math.exp(-1)))).toBeCloseTo(1, 3);
    expect(mean(warm.subarray(warm.length - 40)) - 293.15).toBeCloseTo(30 * (1 - Math.exp(-5)), 0);
  });
});
