import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circle, flatten, ORIGIN, place, rectangle } from '../src/index.ts';
import { boundsOf } from '../src/shape/bounds.ts';

describe('bounds of outlines', () => {
  it('are those of a circle, a rectangle, a quarter of a circle', () => {
    const c = boundsOf([{ outline: circle(1, 2, 3), at: ORIGIN }])!;
    for (const [got, want] of [
      [c.x0, -2],
      [c.x1, 4],
      [c.y0, -1],
      [c.y1, 5],
    ] as const)
      expect(got).toBeCloseTo(want, 12);
    const turned = boundsOf([{ outline: rectangle(-1, -1, 1, 1), at: { x: 0, y: 0, turn: Math.PI / 4 } }])!;
    expect(turned.x1).toBeCloseTo(Math.SQRT2, 12);
    // From (1, 0) to (0, 1) about the origin: nothing sticks out beyond its ends.
    const quarter = { points: Float64Array.of(1, 0, Math.tan(Math.PI / 8), 0, 1, 0), closed: true };
    const q = boundsOf([{ outline: quarter, at: ORIGIN }])!;
    for (const [got, want] of [
      [q.x0, 0],
      [q.x1, 1],
      [q.y0, 0],
      [q.y1, 1],
    ] as const)
      expect(got).toBeCloseTo(want, 12);
    expect(boundsOf([])).toBeUndefined();
  });

  it('are those of the same outline in many straight pieces, at any place', () => {
    const corner = fc.record({
      x: fc.integer({ min: -100, max: 100 }).map((n) => n / 100),
      y: fc.integer({ min: -100, max: 100 }).map((n) => n / 100),
      b: fc.oneof(
        fc.constant(0),
        fc.integer({ min: -2000, max: 2000 }).map((n) => n / 1000),
        fc.constantFrom(-0.02, 0.02, 1e-3, -1e-5),
      ),
    });
    const pose = fc.record({
      x: fc.double({ min: -5, max: 5, noNaN: true }),
      y: fc.double({ min: -5, max: 5, noNaN: true }),
      turn: fc.double({ min: -4, max: 4, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(corner, { minLength: 2, maxLength: 6 }), pose, (list, at) => {
        const outline = { points: Float64Array.from(list.flatMap(({ x, y, b }) => [x, y, b])), closed: true };
        const told = boundsOf([{ outline, at }])!;
        const p = flatten(place(outline, at), 1e-7);
        const xs = Array.from({ length: p.length / 2 }, (_, i) => p[2 * i]!);
        const ys = Array.from({ length: p.length / 2 }, (_, i) => p[2 * i + 1]!);
        expect(Math.abs(told.x0 - Math.min(...xs))).toBeLessThan(1e-6);
        expect(Math.abs(told.x1 - Math.max(...xs))).toBeLessThan(1e-6);
        expect(Math.abs(told.y0 - Math.min(...ys))).toBeLessThan(1e-6);
        expect(Math.abs(told.y1 - Math.max(...ys))).toBeLessThan(1e-6);
      }),
      { numRuns: 200 },
    );
  });
});
