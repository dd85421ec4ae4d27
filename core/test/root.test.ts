import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rootBetween } from '../src/index.ts';

/** A root and how often the function was asked. */
const counted = (f: (x: number) => number, low: number, high: number) => {
  let calls = 0;
  const root = rootBetween((x) => (calls++, f(x)), low, high);
  return { root, calls };
};

describe('a root between two ends', () => {
  it('is where the function passes through nought, to the last digits', () => {
    expect(rootBetween((x) => x * x - 2, 0, 2)).toBeCloseTo(Math.SQRT2, 15);
    expect(rootBetween((x) => Math.cos(x) - x, 0, 1)).toBeCloseTo(0.7390851332151607, 15);
    expect(rootBetween((x) => Math.exp(x) - 1e-3, -50, 3)).toBeCloseTo(Math.log(1e-3), 13);
    // Given the other way round, and where an end is it.
    expect(rootBetween((x) => 3 - x, 10, -10)).toBeCloseTo(3, 15);
    expect(rootBetween((x) => x - 1, 1, 2)).toBe(1);
    expect(rootBetween((x) => x - 2, 1, 2)).toBe(2);
  });

  it('of a jump is where it jumps; there is none where both ends are of one sign', () => {
    expect(rootBetween((x) => (x > 0.3 ? 1 : -1), 0, 1)).toBeCloseTo(0.3, 14);
    expect(rootBetween((x) => x * x + 1, -1, 1)).toBeNaN();
    expect(rootBetween(() => NaN, 0, 1)).toBeNaN();
  });

  it('takes a dozen calls on what is smooth, where halving takes fifty, and never more than twice halving', () => {
    for (const f of [(x: number) => x * x - 2, (x: number) => Math.tan(x) - 1, (x: number) => Math.log(x + 0.1)])
      expect(counted(f, 0, 1.5).calls).toBeLessThan(14);
    for (const f of [(x: number) => (x - 1 / 3) ** 9, (x: number) => Math.sign(x - 0.7), (x: number) => 1 / (x - 0.61)])
      expect(counted(f, 0, 1).calls).toBeLessThan(106);
  });

  it('of any rising cubic has the function change its sign there', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.double({ min: 0.01, max: 50, noNaN: true }),
        (at, bend, slope) => {
          const f = (x: number) => bend * (x - at) ** 3 + slope * (x - at);
          const { root } = counted(f, -6, 7);
          expect(Math.abs(root - at)).toBeLessThan(1e-14 * (1 + Math.abs(at)));
        },
      ),
    );
  });
});
