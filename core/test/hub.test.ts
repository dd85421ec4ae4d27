import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  area,
  boltPlaces,
  boreOutline,
  boreReach,
  flatDepth,
  flatten,
  hexagon,
  hubCurves,
  hubHoles,
  hubTraps,
  keyFor,
  nutFor,
  PLAIN_HUB,
  type Hub,
  type Outline,
} from '../src/index.ts';

const hub = (over: Partial<Hub>): Hub => ({ ...PLAIN_HUB, ...over });
const bores = fc.double({ min: 2e-3, max: 60e-3, noNaN: true });
const reach = (o: Outline): number => {
  const p = flatten(o, 1e-7);
  let most = 0;
  for (let i = 0; i + 1 < p.length; i += 2) most = Math.max(most, Math.hypot(p[i]!, p[i + 1]!));
  return most;
};

describe('the middle of a wheel', () => {
  it('a round bore is its circle, a flat takes its segment off, a keyway adds its slot', () => {
    fc.assert(
      fc.property(bores, (bore) => {
        const r = bore / 2;
        const round = area(boreOutline(hub({ bore })));
        expect(round / (Math.PI * r * r)).toBeCloseTo(1, 9);
        const h = flatDepth(bore);
        const segment = r * r * Math.acos((r - h) / r) - (r - h) * Math.sqrt(2 * r * h - h * h);
        expect((round - area(boreOutline(hub({ bore, shape: 'flat' })))) / segment).toBeCloseTo(1, 6);
        const { width, depth } = keyFor(bore);
        const a = Math.asin(width / 2 / r);
        // From the circle to the bottom of the slot, over its width.
        const slot = width * (r + depth) - (r * r * a + (width / 2) * r * Math.cos(a));
        expect((area(boreOutline(hub({ bore, shape: 'keyway' }))) - round) / slot).toBeCloseTo(1, 5);
      }),
    );
  });

  it('reaches as far as it says, so that the wall over it can be told', () => {
    fc.assert(
      fc.property(bores, fc.constantFrom('round', 'flat', 'keyway') as fc.Arbitrary<Hub['shape']>, (bore, shape) => {
        const h = hub({ bore, shape });
        expect(reach(boreOutline(h))).toBeCloseTo(boreReach(h), 6);
      }),
    );
    expect(boreReach(hub({ bore: 0, shape: 'keyway' }))).toBe(0);
  });

  it('keys are those of the standard from 6 mm up, and never wider than half their shaft', () => {
    expect([8, 10, 17, 22, 30].map((d) => keyFor(d * 1e-3).width * 1e3)).toEqual(
      [2, 3, 5, 6, 8].map((x) => expect.closeTo(x, 9)),
    );
    fc.assert(
      fc.property(bores, (bore) => {
        expect(keyFor(bore).width).toBeLessThanOrEqual(0.5 * bore + 1e-12);
        expect(flatDepth(bore)).toBeGreaterThan(0);
        expect(flatDepth(bore)).toBeLessThan(0.2 * bore);
      }),
    );
  });

  it('bolts stand evenly on their circle, with a trap for each nut where there are nuts', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.double({ min: 10e-3, max: 80e-3, noNaN: true }),
        fc.boolean(),
        (bolts, boltCircle, nuts) => {
          const h = hub({ bore: 5e-3, bolts, boltCircle, nuts });
          const places = boltPlaces(h);
          expect(places).toHaveLength(bolts);
          for (const [x, y] of places) expect(Math.hypot(x, y)).toBeCloseTo(boltCircle / 2, 12);
          const sum = places.reduce(([a, b], [x, y]) => [a + x, b + y], [0, 0]);
          if (bolts > 1) expect(Math.hypot(...(sum as [number, number]))).toBeLessThan(1e-12);
          expect(hubHoles(h)).toHaveLength(bolts + 1);
          expect(hubTraps(h)).toHaveLength(nuts ? bolts : 0);
          expect(hubCurves(h).map((c) => c.layer)).toEqual([
            'bore',
            ...Array<string>(bolts).fill('bolts'),
            ...(nuts ? Array<string>(bolts).fill('nut-traps') : []),
          ]);
        },
      ),
    );
    expect(hubHoles(hub({}))).toEqual([]);
  });

  it('a nut’s hexagon is as wide across its flats as the standard says, a corner outwards', () => {
    expect(nutFor(3.2e-3)).toEqual({ across: 5.5e-3, height: 2.4e-3 });
    fc.assert(
      fc.property(
        fc.double({ min: -0.05, max: 0.05, noNaN: true }),
        fc.double({ min: 0.01, max: 0.05, noNaN: true }),
        fc.constantFrom(2.2e-3, 3.2e-3, 4.3e-3, 5.3e-3),
        (x, y, hole) => {
          const { across, height } = nutFor(hole);
          expect(across).toBeGreaterThan(hole);
          expect(height).toBeLessThan(across);
          const o = hexagon(x, y, across);
          expect(area(o) / ((Math.sqrt(3) / 2) * across * across)).toBeCloseTo(1, 9);
          expect(reach(o)).toBeCloseTo(Math.hypot(x, y) + across / Math.sqrt(3), 9);
        },
      ),
    );
  });
});
