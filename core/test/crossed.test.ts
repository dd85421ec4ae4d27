import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  completeElliptic,
  contactPlace,
  contactRises,
  crossedCylinders,
  crossedMesh,
  gear,
  halfAt,
  reducedModulus,
} from '../src/index.ts';

const alpha = Math.PI / 9;

/** A worm and its wheel with the wheel's shift in axial modules. */
function pairOf(m: number, starts: number, teeth: number, q: number, shift: number, left = false, addendum = 1) {
  const lead = Math.atan(starts / q);
  const c = Math.cos(lead);
  const common = { module: m * c, pressure: alpha, addendum: addendum / c, dedendum: 1.25 / c, fillet: 0.3 };
  const hand = left ? -1 : 1;
  return crossedMesh(
    gear({ ...common, teeth: starts, helix: hand * (Math.PI / 2 - lead) }),
    gear({ ...common, teeth, helix: hand * lead, shift: shift / c }),
    (m * (q + teeth + 2 * shift)) / 2,
  );
}

describe('a worm and a cylindrical wheel', () => {
  it('has the sizes of its axial module', () => {
    const m = pairOf(1e-3, 2, 40, 10, 0);
    expect(m.s1.r * 2e3).toBeCloseTo(10, 9);
    expect(m.s2.r * 2e3).toBeCloseTo(40, 9);
    expect(m.s1.ra * 2e3).toBeCloseTo(12, 9);
    expect(m.lead).toBeCloseTo(Math.atan(0.2), 12);
    // Lead of the helicoid: 2π·r·tan γ is starts times axial pitch.
    expect((2 * Math.PI * m.s1.r) / Math.tan(m.worm.helix)).toBeCloseTo(2 * Math.PI * 1e-3, 12);
  });

  it('touches on both flanks surfaces within a nanometre all along its line, shifted wheels and either hand included', () => {
    const any = fc.record({
      starts: fc.integer({ min: 1, max: 5 }),
      teeth: fc.integer({ min: 20, max: 90 }),
      q: fc.double({ min: 7, max: 20, noNaN: true }),
      shift: fc.double({ min: -0.3, max: 0.6, noNaN: true }),
      turn: fc.double({ min: -3, max: 3, noNaN: true }),
      left: fc.boolean(),
      side: fc.constantFrom<1 | -1>(1, -1),
    });
    let touched = 0;
    fc.assert(
      fc.property(any, ({ starts, teeth, q, shift, turn, left, side }) => {
        const mod = 1e-3;
        const m = pairOf(mod, starts, teeth, q, shift, left);
        const hand = left ? -1 : 1;
        for (const rise of contactRises(m, turn, side)) {
          const [x, y, z] = contactPlace(m, rise, side);
          // The wheel's involute, turned on by its helix at this height; angles from the top, counter-clockwise.
          const R2 = Math.hypot(x, y);
          const pitch2 = (2 * Math.PI) / teeth;
          const off2 = Math.atan2(-x, y) - turn - (hand * z * Math.tan(m.lead)) / m.s2.r + side * halfAt(m.s2, R2);
          const gap2 = (off2 - pitch2 * Math.round(off2 / pitch2)) * m.s2.rb;
          // The worm's thread beside that tooth, as its section shifts along the axis.
          const R1 = Math.hypot(m.centre - y, z);
          const perTurn = (mod * starts) / 2;
          const psi = hand * Math.atan2(-z, m.centre - y);
          const thread = -m.s2.r * turn + (Math.PI * mod) / 2 + perTurn * psi - side * perTurn * halfAt(m.s1, R1);
          const off1 = x - thread;
          const gap1 = off1 - Math.PI * mod * Math.round(off1 / (Math.PI * mod));
          expect(Math.abs(gap2)).toBeLessThan(1e-9);
          expect(Math.abs(gap1)).toBeLessThan(1e-9);
          touched++;
        }
      }),
      { numRuns: 200 },
    );
    expect(touched).toBeGreaterThan(200);
  });

  it('touches no lower than the wheel’s involute, though a worm’s crest reaches on', () => {
    // A wheel of 20 teeth shifted by a quarter of a module towards its middle is cut away at the root.
    const m = pairOf(1e-3, 1, 20, 7, -0.25);
    const [, y, z] = contactPlace(m, m.low, 1);
    const [x] = contactPlace(m, m.low, 1);
    expect(m.sides[1].undercut).toBe(true);
    expect(Math.hypot(x, y)).toBeCloseTo(m.sides[1].form, 12);
    expect(Math.hypot(m.centre - y, z)).toBeLessThan(m.s1.ra);
    expect(m.reach2).toBeLessThan(m.sides[1].form);
    // As long as the line of action between its ends, over the base pitch of the normal plane.
    const ends = [m.low, m.high].map((rise) => contactPlace(m, rise, 1));
    const long = Math.hypot(...[0, 1, 2].map((k) => ends[1]![k]! - ends[0]![k]!));
    expect(m.contact).toBeCloseTo(long / (Math.PI * m.worm.module * Math.cos(alpha)), 9);
  });

  it('keeps as many pairs in touch as its contact ratio says', () => {
    const m = pairOf(1e-3, 1, 40, 12, 0);
    let sum = 0;
    const n = 400;
    for (let k = 0; k < n; k++) sum += contactRises(m, (k * 2 * Math.PI) / 40 / n, 1).length;
    expect(sum / n).toBeCloseTo(m.contact, 2);
    expect(m.contact).toBeGreaterThan(1.5);
  });
});

describe('point contact', () => {
  it('gives the sphere’s closed form for equal cylinders at a right angle', () => {
    const [F, R, E] = [50, 4e-3, 1e11];
    const c = crossedCylinders(F, R, R, Math.PI / 2, E);
    const a = Math.cbrt((3 * F * R) / (4 * E));
    expect(c.a / a).toBeCloseTo(1, 4);
    expect(c.b / a).toBeCloseTo(1, 4);
    expect(c.pressure / ((3 * F) / (2 * Math.PI * a * a))).toBeCloseTo(1, 4);
  });

  it('grows with the cube root of the force, and long as the cylinders come to lie along one another', () => {
    const at = (f: number, angle: number) => crossedCylinders(f, 3e-3, 12e-3, angle, 2e9);
    expect(at(80, 1).pressure / at(10, 1).pressure).toBeCloseTo(2, 9);
    expect(at(10, 0.2).a / at(10, 0.2).b).toBeGreaterThan(at(10, 1).a / at(10, 1).b);
    expect(() => at(10, 0)).toThrow(RangeError);
  });

  it('keeps Legendre’s relation of the complete integrals', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), (e) => {
        const [a, b] = [completeElliptic(e), completeElliptic(Math.sqrt(1 - e * e))];
        expect(a.E * b.K + b.E * a.K - a.K * b.K).toBeCloseTo(Math.PI / 2, 10);
      }),
    );
    expect(reducedModulus(206e9, 0.3, 206e9, 0.3)).toBeCloseTo(113.19e9, -8);
  });
});
