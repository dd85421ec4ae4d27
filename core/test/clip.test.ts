import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { area, circle, rectangle } from '../src/shape/outline.ts';
import { clipTo } from '../src/shape/clip.ts';
import { bumpedHull, hullArcs } from '../src/shape/hull.ts';

const size = (o: ReturnType<typeof circle>) => (o.points.length ? Math.abs(area(o)) : 0);

describe('an outline cut off straight', () => {
  it('leaves of a circle the segment that Archimedes has', () => {
    // r²·acos(d/r) − d·√(r² − d²)
    const [r, d] = [0.02, 0.007];
    const segment = r * r * Math.acos(d / r) - d * Math.sqrt(r * r - d * d);
    expect(size(clipTo(circle(0, 0, r), { nx: 1, ny: 0, from: d }))).toBeCloseTo(segment, 12);
    expect(size(clipTo(circle(0.1, 0, r), { nx: -1, ny: 0, from: -0.1 + d }))).toBeCloseTo(segment, 12);
    expect(clipTo(circle(0, 0, r), { nx: 0, ny: 1, from: -0.03 }).points).toEqual(circle(0, 0, r).points);
    expect(clipTo(circle(0, 0, r), { nx: 0, ny: 1, from: 0.03 }).points).toHaveLength(0);
  });

  it('goes straight through a rectangle, along its slanted edge', () => {
    // A corner of legs 3 and 3 is cut off a square of 10.
    const s = Math.SQRT1_2;
    const cut = clipTo(rectangle(0, 0, 10, 10), { nx: s, ny: s, from: 3 * s });
    expect(size(cut)).toBeCloseTo(100 - 4.5, 9);
    expect(cut.points).toHaveLength(15);
    // An edge that it lies on stays.
    expect(size(clipTo(rectangle(0, 0, 10, 10), { nx: 1, ny: 0, from: 0 }))).toBeCloseTo(100, 9);
  });

  it('parts any hull with bumps into two that make up the whole', () => {
    const round = fc.record({
      x: fc.double({ min: -0.05, max: 0.05, noNaN: true }),
      y: fc.double({ min: -0.05, max: 0.05, noNaN: true }),
      r: fc.double({ min: 1e-3, max: 0.03, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(round, { minLength: 1, maxLength: 6 }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: -0.04, max: 0.04, noNaN: true }),
        (rounds, way, from) => {
          const { outline } = bumpedHull(hullArcs(rounds, 4e-3), 4, { r: 4e-3, beyond: 2e-3 });
          const [nx, ny] = [Math.cos(way), Math.sin(way)];
          const parts = [clipTo(outline, { nx, ny, from }), clipTo(outline, { nx: -nx, ny: -ny, from: -from })].map(
            size,
          );
          expect(parts[0]! + parts[1]!).toBeCloseTo(size(outline), 10);
        },
      ),
      { numRuns: 200 },
    );
  });
});
