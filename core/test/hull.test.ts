import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { area, bumpedHull, flatten, hullArcs, hullOutline, type Round } from '../src/index.ts';

const coordinate = fc.integer({ min: -60, max: 60 }).map((x) => x * 1e-3);
const round: fc.Arbitrary<Round> = fc.record({
  x: coordinate,
  y: coordinate,
  r: fc.integer({ min: 0, max: 30 }).map((x) => x * 1e-3),
});

/** How far a hull reaches in a direction, by its flattened outline, m. */
function reach(points: Float64Array, angle: number): number {
  let most = -Infinity;
  for (let i = 0; i < points.length; i += 2)
    most = Math.max(most, points[i]! * Math.cos(angle) + points[i + 1]! * Math.sin(angle));
  return most;
}

describe('the hull of circles', () => {
  it('of one circle is that circle, grown by what is asked', () => {
    expect(area(hullOutline(hullArcs([{ x: 0.01, y: 0, r: 0.02 }], 0.005)))).toBeCloseTo(Math.PI * 0.025 ** 2, 12);
  });

  it('of two like circles is a slot: πr² + 2r·a', () => {
    const slot = hullArcs([
      { x: 0, y: 0, r: 0.02 },
      { x: 0.07, y: 0, r: 0.02 },
    ]);
    expect(area(hullOutline(slot))).toBeCloseTo(Math.PI * 0.02 ** 2 + 0.04 * 0.07, 12);
  });

  it('of pulleys of 30 and 10 at 50 has the tangents that a belt has', () => {
    // Open belt: tangents 2√(a² − Δ²) of length and wraps π ± 2·asin(Δ/a); area by sectors and trapezia.
    const [a, R, r] = [0.05, 0.03, 0.01];
    const lean = Math.asin((R - r) / a);
    const tangent = Math.sqrt(a * a - (R - r) ** 2);
    const by = ((Math.PI + 2 * lean) / 2) * R * R + ((Math.PI - 2 * lean) / 2) * r * r + tangent * (R + r);
    const found = area(
      hullOutline(
        hullArcs([
          { x: 0, y: 0, r: R },
          { x: a, y: 0, r },
        ]),
      ),
    );
    expect(found).toBeCloseTo(by, 12);
  });

  it('reaches in every direction just as far as the farthest circle', () => {
    fc.assert(
      fc.property(fc.array(round, { minLength: 1, maxLength: 9 }), (rounds) => {
        const out = 2e-3;
        const points = flatten(hullOutline(hullArcs(rounds, out)), 1e-8);
        for (let k = 0; k < 24; k++) {
          const angle = (k * Math.PI) / 12 + 0.1;
          const farthest = Math.max(...rounds.map((c) => c.x * Math.cos(angle) + c.y * Math.sin(angle) + c.r)) + out;
          expect(reach(points, angle)).toBeCloseTo(farthest, 6);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('a hull with bumps for screws', () => {
  const size = { r: 4e-3, beyond: 1e-3 };

  it('adds to a round one just what the bumps stand out by', () => {
    const arcs = hullArcs([{ x: 0, y: 0, r: 0.03 }]);
    const { outline, centres } = bumpedHull(arcs, 4, size);
    expect(centres).toHaveLength(4);
    for (const c of centres) expect(Math.hypot(c.x, c.y)).toBeCloseTo(0.031, 12);
    // A lens apart: the bump's circle less what two circles share.
    const [R, r, d] = [0.03, size.r, 0.031];
    const shared =
      r * r * Math.acos((d * d + r * r - R * R) / (2 * d * r)) +
      R * R * Math.acos((d * d + R * R - r * r) / (2 * d * R)) -
      0.5 * Math.sqrt((-d + r + R) * (d + r - R) * (d - r + R) * (d + r + R));
    expect(area(outline)).toBeCloseTo(Math.PI * R * R + 4 * (Math.PI * r * r - shared), 12);
  });

  it('keeps bumps clear of one another and of corners, and closes round all of them', () => {
    fc.assert(
      fc.property(fc.array(round, { minLength: 1, maxLength: 5 }), fc.integer({ min: 3, max: 12 }), (rounds, count) => {
        const arcs = hullArcs(rounds, 8e-3);
        const plain = area(hullOutline(arcs));
        const { outline, centres } = bumpedHull(arcs, count, size);
        expect(centres.length).toBeLessThanOrEqual(count);
        for (const [i, a] of centres.entries())
          for (const b of centres.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(2e-3);
        // Each bump adds between a third of its circle and the whole of it.
        const each = Math.PI * size.r ** 2;
        expect(area(outline) - plain).toBeGreaterThanOrEqual(centres.length * each * 0.3 - 1e-12);
        expect(area(outline) - plain).toBeLessThanOrEqual(centres.length * each + 1e-12);
      }),
      { numRuns: 200 },
    );
  });

  it('puts further ones of another size between, clear of the first, which stand as they would without', () => {
    fc.assert(
      fc.property(fc.array(round, { minLength: 1, maxLength: 5 }), fc.integer({ min: 3, max: 8 }), (rounds, count) => {
        const arcs = hullArcs(rounds, 8e-3);
        const large = { r: 6e-3, beyond: 4.5e-3 };
        const alone = bumpedHull(arcs, count, size);
        const both = bumpedHull(arcs, count, size, { count: 4, size: large });
        expect(both.centres).toEqual(alone.centres);
        expect(both.further.length).toBeLessThanOrEqual(4);
        for (const a of both.further)
          for (const b of both.centres) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(2e-3);
        const grown = Math.abs(area(both.outline)) - Math.abs(area(alone.outline));
        expect(grown).toBeGreaterThanOrEqual(both.further.length * Math.PI * large.r ** 2 * 0.5 - 1e-12);
        expect(grown).toBeLessThanOrEqual(both.further.length * Math.PI * large.r ** 2 + 1e-12);
      }),
      { numRuns: 200 },
    );
    // Round a motor, where four stand already, four more find room between them.
    const motor = hullArcs([{ x: 0, y: 0, r: 0.03 }]);
    const { further, centres } = bumpedHull(motor, 4, size, { count: 4, size: { r: 6e-3, beyond: 4.5e-3 } });
    expect(further).toHaveLength(4);
    for (const f of further)
      expect(Math.min(...centres.map((c) => Math.hypot(f.x - c.x, f.y - c.y)))).toBeGreaterThan(0.02);
  });

  it('finds room for at least three round anything that is as large as a motor', () => {
    expect(bumpedHull(hullArcs([{ x: 0, y: 0, r: 0.015 }]), 3, size).centres).toHaveLength(3);
  });
});
