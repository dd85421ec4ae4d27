import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lastNotBelow } from '../src/math/crossing.ts';

const unit = fc.double({ min: 0.01, max: 0.99, noNaN: true });

describe('where a falling function crosses nought', () => {
  it('is found for powers, bends and jumps, from the side before it, in fewer steps than halving takes', () => {
    let [most, all, runs] = [0, 0, 0];
    fc.assert(
      fc.property(unit, fc.double({ min: 0.2, max: 6, noNaN: true }), fc.constantFrom(0, 1, 2), (at, power, sort) => {
        let asked = 0;
        const smooth = (x: number) => at ** power - x ** power;
        const f = (x: number) => {
          asked++;
          if (sort === 0) return smooth(x);
          // Flat, then steep; and nothing known beyond it.
          return sort === 1 ? (x <= at ? 1e-3 * (at - x) : 50 * (at - x)) : x <= at ? 1 : -1;
        };
        const found = lastNotBelow(f, 0, 1, 1e-7);
        expect(f(found)).toBeGreaterThanOrEqual(0);
        expect(at - found).toBeLessThanOrEqual(1.01e-7);
        most = Math.max(most, asked);
        if (sort < 2) [all, runs] = [all + asked, runs + 1];
      }),
      { numRuns: 300 },
    );
    expect(most).toBeLessThanOrEqual(45);
    expect(all / runs).toBeLessThan(20);
  });
});
