import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitColumns, normalSolver } from '../src/bench/regress.ts';
import { EvenValues, stepOfWaves, waveSums } from '../src/bench/wave-fit.ts';

const places = (n: number): number[] => Array.from({ length: n }, (_, i) => i - (n - 1) / 2);
const column = (n: number, of: (t: number) => number): Float64Array => Float64Array.from(places(n), of);
const added = (n: number, of: (t: number) => number): number => places(n).reduce((s, t) => s + of(t), 0);

describe('sums of a wave over even places', () => {
  it('are those that adding them up gives, at any angle and near whole turns', () => {
    const angle = fc.oneof(
      fc.double({ min: -7, max: 7, noNaN: true }),
      fc.constantFrom(0, 1e-9, -1e-4, Math.PI, 2 * Math.PI, 2 * Math.PI - 1e-4),
    );
    fc.assert(
      fc.property(angle, fc.integer({ min: 1, max: 300 }), (x, n) => {
        const { plain, once, twice } = waveSums(x, n);
        expect(Math.abs(plain - added(n, (t) => Math.cos(x * t)))).toBeLessThan(1e-9 * n);
        expect(Math.abs(once - added(n, (t) => t * Math.sin(x * t)))).toBeLessThan(1e-9 * n * n);
        expect(Math.abs(twice - added(n, (t) => t * t * Math.cos(x * t)))).toBeLessThan(1e-9 * n ** 3);
      }),
    );
  });

  it('by hand: three places, a third of a turn apart', () => {
    // cos 0 + 2 cos 120° = 0; 2 sin 120°; 2 cos 120°.
    const { plain, once, twice } = waveSums((2 * Math.PI) / 3, 3);
    expect(plain).toBeCloseTo(0, 12);
    expect(once).toBeCloseTo(Math.sqrt(3), 12);
    expect(twice).toBeCloseTo(-1, 12);
  });
});

describe('waves fitted to even values', () => {
  const n = 501;
  const waves = [0.21, 0.8, 2.4];
  const noise = column(n, (t) => Math.sin(t * t * 1.7) / 5);
  const values = column(n, (t) => 3 + 2 * Math.cos(0.2102 * t) - Math.sin(0.8 * t + 1) + noise[t + 250]!);
  const both = (x: number) => [column(n, (t) => Math.cos(x * t)), column(n, (t) => Math.sin(x * t))];
  const columns = [column(n, () => 1), ...waves.flatMap(both)];

  it('are what the columns give when they are written out', () => {
    const fit = new EvenValues(values).fit(waves)!;
    const written = fitColumns(columns, values)!;
    fit.parts.forEach(({ cos, sin }, k) => {
      expect(cos).toBeCloseTo(written.values[1 + 2 * k]!, 10);
      expect(sin).toBeCloseTo(written.values[2 + 2 * k]!, 10);
    });
    expect(fit.rss).toBeCloseTo(written.rss, 9);
    expect(fit.rest.reduce((s, v) => s + v * v, 0)).toBeCloseTo(fit.rss, 9);
  });

  it('step as the columns and slopes do when they are written out, those that stay held still', () => {
    const fit = new EvenValues(values).fit(waves)!;
    for (const free of [[0], [0, 2], [2, 1, 0]]) {
      const slopes = free.map((k) => {
        const { cos: a, sin: b } = fit.parts[k]!;
        return column(n, (t) => t * (b * Math.cos(waves[k]! * t) - a * Math.sin(waves[k]! * t)));
      });
      const written = fitColumns([...columns, ...slopes], fit.rest)!.values.slice(columns.length);
      const step = stepOfWaves(fit, free)!;
      expect(step).toHaveLength(free.length);
      step.forEach((by, i) => expect(by / written[i]! - 1).toBeCloseTo(0, 7));
    }
  });

  it('of unknown length are brought home by a few steps', () => {
    const clean = column(n, (t) => 1 + 2 * Math.cos(0.2102 * t + 0.4) + 0.5 * Math.cos(0.2302 * t));
    const all = new EvenValues(clean);
    let at = [0.208, 0.2325];
    for (let i = 0; i < 6; i++) {
      const by = stepOfWaves(all.fit(at)!, [0, 1])!;
      at = at.map((x, k) => x + by[k]!);
    }
    expect(at[0]).toBeCloseTo(0.2102, 10);
    expect(at[1]).toBeCloseTo(0.2302, 10);
    expect(all.fit(at)!.rss).toBeLessThan(1e-15);
    expect(Math.hypot(all.fit(at)!.parts[0]!.cos, all.fit(at)!.parts[0]!.sin)).toBeCloseTo(2, 9);
  });

  it('that are alike are refused', () => {
    expect(new EvenValues(values).fit([0.3, 0.3])).toBeUndefined();
    expect(normalSolver([Float64Array.of(0)])).toBeUndefined();
    expect(normalSolver([Float64Array.of(1, 1), Float64Array.of(1, 1)])).toBeUndefined();
  });
});
