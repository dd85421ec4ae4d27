import fc from 'fast-check';
import { linearRegression, linearRegressionLine, mean, sampleStandardDeviation } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import {
  amplitudes,
  betweenBins,
  fitColumns,
  fitLine,
  hann,
  nearestFraction,
  peaksOf,
  powerBelow,
} from '../src/index.ts';

const points = fc.array(
  fc.record({ x: fc.double({ min: -50, max: 50, noNaN: true }), y: fc.double({ min: -50, max: 50, noNaN: true }) }),
  { minLength: 3, maxLength: 40 },
);
const normal = (seed: number) => {
  let s = seed >>> 0 || 1;
  const u = () => ((s = (Math.imul(s, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
  return () => Math.sqrt(-2 * Math.log(u())) * Math.cos(2 * Math.PI * u());
};

describe('a line through points', () => {
  it('is that of JCGM 100:2008, table H.6: a thermometer against its corrections', () => {
    const t = [21.521, 22.012, 22.512, 23.003, 23.507, 23.999, 24.513, 25.002, 25.503, 26.01, 26.511];
    const b = [-0.171, -0.169, -0.166, -0.159, -0.164, -0.165, -0.156, -0.157, -0.159, -0.161, -0.16];
    const f = fitLine(
      t.map((x) => x - 20),
      b,
    )!;
    expect(f.intercept).toBeCloseTo(-0.1712, 4);
    expect(f.uIntercept).toBeCloseTo(0.0029, 4);
    expect(f.slope).toBeCloseTo(0.00218, 5);
    expect(f.uSlope).toBeCloseTo(0.00067, 5);
    expect(f.residual).toBeCloseTo(0.0035, 4);
    expect(f.covariance / (f.uSlope * f.uIntercept)).toBeCloseTo(-0.93, 3);
    expect(f.dof).toBe(9);
  });

  it('is the one of the textbook', () => {
    fc.assert(
      fc.property(points, (list) => {
        const f = fitLine(
          list.map((p) => p.x),
          list.map((p) => p.y),
        );
        const xs = list.map((p) => p.x);
        if (sampleStandardDeviation(xs) < 1e-3) return;
        const { m, b } = linearRegression(list.map((p) => [p.x, p.y]));
        expect(f!.slope).toBeCloseTo(m, 6);
        expect(f!.intercept).toBeCloseTo(b, 5);
        const line = linearRegressionLine({ m, b });
        const rss = list.reduce((s, p) => s + (p.y - line(p.x)) ** 2, 0);
        expect(f!.residual ** 2 * Math.max(1, f!.dof)).toBeCloseTo(f!.dof > 0 ? rss : 0, 4);
      }),
    );
  });

  it('does not exist where all x are the same or there is one point', () => {
    expect(fitLine([1], [2])).toBeUndefined();
    expect(fitLine([3, 3, 3], [1, 2, 3])).toBeUndefined();
    expect(fitLine([], [])).toBeUndefined();
    expect(fitLine([0, 1], [1, 3])!.slope).toBe(2);
  });

  it('tells its slope’s uncertainty as it scatters over repeats', () => {
    const x = Array.from({ length: 12 }, (_, i) => i);
    const slopes: number[] = [];
    const told: number[] = [];
    for (let k = 1; k <= 600; k++) {
      const g = normal(k * 31);
      const f = fitLine(
        x,
        x.map((v) => 2 * v + 1 + 0.3 * g()),
      )!;
      slopes.push(f.slope);
      told.push(f.uSlope);
    }
    expect(mean(slopes)).toBeCloseTo(2, 2);
    expect(mean(told) / sampleStandardDeviation(slopes)).toBeGreaterThan(0.9);
    expect(mean(told) / sampleStandardDeviation(slopes)).toBeLessThan(1.1);
  });
});

describe('least squares on columns', () => {
  it('agrees with the line, covariance and all', () => {
    fc.assert(
      fc.property(points, (list) => {
        const x = Float64Array.from(list, (p) => p.x);
        const y = Float64Array.from(list, (p) => p.y);
        if (sampleStandardDeviation([...x]) < 0.5) return;
        const a = fitLine(x, y)!;
        const b = fitColumns([x, x.map(() => 1)], y)!;
        expect(b.values[0]).toBeCloseTo(a.slope, 6);
        expect(b.values[1]).toBeCloseTo(a.intercept, 5);
        if (a.dof > 0) {
          expect(Math.sqrt(b.covariance[0]![0]!)).toBeCloseTo(a.uSlope, 6);
          expect(Math.sqrt(b.covariance[1]![1]!)).toBeCloseTo(a.uIntercept, 5);
          expect(b.covariance[0]![1]!).toBeCloseTo(a.covariance, 5);
        }
      }),
    );
  });

  it('says so where columns do not tell coefficients apart', () => {
    const x = Float64Array.from({ length: 10 }, (_, i) => i);
    expect(fitColumns([x, x.map((v) => 2 * v)], x)).toBeUndefined();
    expect(fitColumns([x.map(() => 0), x], x)).toBeUndefined();
  });

  it('a weight of nought takes a reading out', () => {
    const x = Float64Array.of(0, 1, 2, 3, 4);
    const y = Float64Array.of(1, 3, 5, 7, 100);
    const f = fitColumns([x, x.map(() => 1)], y, Float64Array.of(1, 1, 1, 1, 0))!;
    expect(f.values[0]).toBeCloseTo(2, 9);
    expect(f.rss).toBeCloseTo(0, 9);
  });

  it('finds what was put in, for any coefficients', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 4, maxLength: 4 }), (c) => {
        const t = Float64Array.from({ length: 60 }, (_, i) => i / 9);
        const columns = [t.map(() => 1), t, t.map(Math.cos), t.map(Math.sin)];
        const f = fitColumns(
          columns,
          t.map((_, i) => columns.reduce((s, k, j) => s + k[i]! * c[j]!, 0)),
        )!;
        f.values.forEach((v, j) => expect(v).toBeCloseTo(c[j]!, 7));
      }),
    );
  });
});

describe('spectra', () => {
  it('are what the definition of the transform gives', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 32, maxLength: 32 }), (list) => {
        const a = amplitudes(Float64Array.from(list));
        for (let k = 0; k < 16; k++) {
          let [re, im] = [0, 0];
          list.forEach((v, i) => {
            re += v * Math.cos((2 * Math.PI * k * i) / 32);
            im -= v * Math.sin((2 * Math.PI * k * i) / 32);
          });
          expect(a[k]).toBeCloseTo((Math.hypot(re, im) * (k === 0 ? 1 : 2)) / 32, 9);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('a tone between bins is found to a fiftieth of one', () => {
    fc.assert(
      fc.property(fc.double({ min: 20, max: 200, noNaN: true }), (f) => {
        const x = Float64Array.from({ length: 1024 }, (_, i) => Math.sin((2 * Math.PI * f * i) / 1024 + 0.3));
        const a = amplitudes(hann(x));
        const k = a.indexOf(Math.max(...a));
        expect(Math.abs(betweenBins(a, k) - f)).toBeLessThan(0.02);
      }),
    );
  });

  it('peaks stand over their surroundings, largest first; noise alone has none to speak of', () => {
    const g = normal(9);
    const x = Float64Array.from(
      { length: 4096 },
      (_, i) => 3 * Math.sin((2 * Math.PI * 50 * i) / 4096) + Math.sin((2 * Math.PI * 211 * i) / 4096) + 0.2 * g(),
    );
    expect(peaksOf(amplitudes(x), 1, 8, 5).slice(0, 2)).toEqual([50, 211]);
    expect(peaksOf(amplitudes(Float64Array.from({ length: 4096 }, () => g())), 1, 8, 5).length).toBeLessThan(2);
  });

  it('powers of two from below', () => {
    for (const [n, p] of [
      [1, 2],
      [2, 2],
      [3, 2],
      [1023, 512],
      [1024, 1024],
      [1e6, 524288],
    ] as const)
      expect(powerBelow(n)).toBe(p);
  });
});

describe('the simplest fraction', () => {
  it('is within the tolerance, and none simpler is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 1, max: 30 }), (p, q) => {
        const f = nearestFraction(p / q, 1e-6)!;
        expect(f.p / f.q).toBeCloseTo(p / q, 6);
        expect(f.q).toBeLessThanOrEqual(q);
        expect(nearestFraction(-p / q, 1e-6)!.p).toBe(-f.p);
      }),
    );
    expect(nearestFraction(Math.PI, 1e-9, 50)).toBeUndefined();
  });
});
