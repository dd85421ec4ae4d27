import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roundTicks } from '../src/parts/ticks.ts';

describe('round values of an axis', () => {
  it('are steps of 1, 2 or 5, in order, between the ends, about as many as asked', () => {
    expect(roundTicks(-12.7, 171, 4)).toEqual([0, 50, 100, 150]);
    expect(roundTicks(0, 1, 5)).toEqual([0, 0.2, 0.4, 0.6, 0.8, 1]);
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: 1e-6, max: 1e6, noNaN: true }),
        fc.integer({ min: 2, max: 10 }),
        (low, span, about) => {
          fc.pre(span > 1e-6 * Math.abs(low));
          const ticks = roundTicks(low, low + span, about);
          expect(ticks.length).toBeGreaterThanOrEqual(Math.max(1, Math.floor(about / 2.5) - 1));
          expect(ticks.length).toBeLessThanOrEqual(about * 1.4 + 2);
          for (let i = 0; i < ticks.length; i++) {
            expect(ticks[i]!).toBeGreaterThanOrEqual(low - 1e-6 * span);
            expect(ticks[i]!).toBeLessThanOrEqual(low + span + 1e-6 * span);
            if (i > 0) {
              const step = ticks[i]! - ticks[i - 1]!;
              const lead = step / 10 ** Math.floor(Math.log10(step) + 1e-9);
              expect(Math.min(...[1, 2, 5, 10].map((m) => Math.abs(lead - m))), `${step}`).toBeLessThan(1e-3);
            }
          }
        },
      ),
    );
  });

  it('are none where there is no axis', () => {
    for (const [a, b] of [
      [1, 1],
      [2, 1],
      [NaN, 3],
      [0, Infinity],
      [-Infinity, 0],
    ] as const)
      expect(roundTicks(a, b, 4)).toEqual([]);
  });
});
