import { describe, expect, it } from 'vitest';
import { currentFor, hangingTogether, roundMean, scatteredCapacity, type Outcome } from '../src/index.ts';
import { MOTORS } from '../src/shop/motors.ts';
import { analysed } from './typed-bench.ts';

// Sums of the bench against the same worked with numpy and scipy, on grids a hundred times as fine.

describe('capacity that scatters from try to try', () => {
  const rungs = (list: readonly (readonly [number, Outcome])[]) =>
    list.map(([torque, outcome]) => ({ torque, outcome }));

  it('is the mean over all capacities and scatters of what seven rungs let be', () => {
    const found = scatteredCapacity(
      rungs([
        [2, 'lifted'],
        [3, 'lifted'],
        [3.5, 'skipped'],
        [3.2, 'held'],
        [3.4, 'stalled'],
        [3.3, 'lifted'],
        [3.35, 'crept'],
      ]),
    );
    expect(found.mean / 3.314394944).toBeCloseTo(1, 6);
    expect(found.u / 0.11265705).toBeCloseTo(1, 4);
  });

  it('is wide where two rungs lie far apart', () => {
    const found = scatteredCapacity(
      rungs([
        [1, 'lifted'],
        [2, 'skipped'],
      ]),
    );
    expect(found.mean / 1.452747485).toBeCloseTo(1, 4);
    expect(found.u / 0.328553615).toBeCloseTo(1, 2.9);
  });
});

describe('readings that hang together', () => {
  // x = 0.8·x + a chance between −½ and ½.
  const course = (): Float64Array => {
    let seed = 7;
    const x = new Float64Array(300);
    for (let i = 1; i < x.length; i++) {
      seed = Number((1103515245n * BigInt(seed) + 12345n) % 2n ** 31n);
      x[i] = 0.8 * x[i - 1]! + seed / 2 ** 31 - 0.5;
    }
    return x;
  };

  it('say once what eight of them say, by the sum of their correlations up to Sokal’s window', () => {
    expect(hangingTogether(course())).toBeCloseTo(8.284384349, 8);
  });

  it('hang together more where numbers were fitted to them, which takes a little away', () => {
    expect(hangingTogether(course(), 1)).toBeCloseTo(8.284384349 / (1 - 78 / 300), 8);
    expect(hangingTogether(course(), 3)).toBeCloseTo(2 * 8.284384349, 8);
  });

  it('count each where chance could give as much', () => {
    expect(hangingTogether(Float64Array.from({ length: 100 }, (_, i) => (i % 2 ? 1 : -1)))).toBe(1);
    expect(hangingTogether(new Float64Array(100))).toBe(1);
    expect(hangingTogether(course().subarray(0, 11))).toBe(1);
  });
});

describe('a mean over the turn', () => {
  const TAU = 2 * Math.PI;
  // Three readings each at five angles, whose means stray by no wave once round.
  const [angles, values] = [
    [0, 1, 2, 3, 4].flatMap((k) => [k, k, k].map((a) => (a * TAU) / 5)),
    [3, -3, 2, -4, 2].flatMap((m, k) => [-0.1, 0, 0.1].map((d) => 10 + m + d * (k % 2 ? -1 : 1))),
  ];

  it('counts angles, not readings, where they differ by more than repeats do', () => {
    const r = roundMean(angles, values, 'play');
    expect(r.mean).toBeCloseTo(10, 12);
    // Means of +3, −3, +2, −4 and +2: √(42/4/5).
    const scatter = r.budget.find((b) => b.id === 'scatter')!;
    expect(scatter.u).toBeCloseTo(Math.sqrt(42 / 4 / 5), 9);
    expect(scatter.dof).toBe(4);
    expect(scatter.halve).toContain('about 20 angles');
    expect(r.says.join()).toContain('it is the 5 angles that count');
  });

  it('takes a wave once round out of it, and tells where it is highest', () => {
    const at = Array.from({ length: 24 }, (_, k) => (k * TAU) / 24);
    const r = roundMean(
      at,
      at.map((a, k) => 0.01 + 0.002 * Math.cos(a - 1) + 1e-5 * (k % 2 ? 1 : -1)),
      'play',
    );
    expect(r.mean).toBeCloseTo(0.01, 12);
    const [size, high] = [...r.says.join().matchAll(/([\d.]+)\|/g)].map((m) => Number(m[1]));
    expect(size).toBeCloseTo(0.002, 9);
    expect(high).toBeCloseTo(1, 6);
  });
});

describe('what a line heated at a torque may be held at', () => {
  it('is as uncertain as half of the rise is, in its share', () => {
    // 40 K over the surroundings in the long run; 62.5 K are allowed: 2 N·m·1.25.
    const readings = Array.from({ length: 40 }, (_, i) => ({
      time: 120 * i,
      temperature: 293.15 + 40 * (1 - Math.exp(-(120 * i) / 900)) + 0.3 * Math.sin(1.7 * i),
    }));
    const r = analysed('temperature', readings, { torque: 2, ambient: 293.15, limit: 293.15 + 62.5 });
    const rise = r.figures.find((f) => f.id === 'rise')!;
    const torque = r.figures.find((f) => f.id === 'torque0')!;
    expect(rise.value).toBeCloseTo(40, 0);
    expect(torque.value).toBeCloseTo(2 * Math.sqrt(62.5 / rise.value), 9);
    // √ of a rise that is U more or less, on either side.
    const away = (by: number) => 2 * Math.sqrt(62.5 / (rise.value + by));
    expect(torque.U! / ((away(-rise.U!) - away(rise.U!)) / 2)).toBeCloseTo(1, 2);
  });
});

it('a servo takes its rated current in the share of its rated torque', () => {
  const servo = MOTORS.find((m) => m.type === 'servo')!;
  const driver = { currentLimit: 20, supplyVoltage: 48, microsteps: 1 } as Parameters<typeof currentFor>[1];
  for (const share of [0.25, -0.5, 2])
    expect(currentFor(servo, driver, share * servo.ratedTorque)).toBeCloseTo(Math.abs(share) * servo.ratedCurrent, 12);
});
