import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  area,
  boreOutline,
  carrier,
  central,
  gear,
  gearSize,
  hexagon,
  interference,
  leastShift,
  meshPair,
  nutFor,
  PLAIN_HUB,
  pushSense,
  rootSection,
  toothSide,
  trimTips,
  type Gear,
  type Train,
} from '../src/index.ts';

describe('trimmed tips', () => {
  const any = fc.record({
    z1: fc.integer({ min: 10, max: 40 }),
    more: fc.integer({ min: 14, max: 60 }),
    x1: fc.double({ min: 0, max: 0.6, noNaN: true }),
    x2: fc.double({ min: 0, max: 0.6, noNaN: true }),
    ring: fc.boolean(),
  });
  it('neither ride on a root nor come nearer to it than 0.15 module', () => {
    fc.assert(
      fc.property(any, (q) => {
        const g1 = gear({ module: 1e-3, teeth: q.z1, shift: q.x1 });
        const g2 = gear({ module: 1e-3, teeth: q.z1 + q.more, shift: q.x2, ring: q.ring, cutter: q.z1 });
        const [a, b] = trimTips(g1, g2);
        const [t1, t2] = [
          { ...g1, short: a },
          { ...g2, short: b },
        ];
        const made = meshPair(t1, t2);
        if (!made.ok) return;
        const x = interference(made.value, toothSide(t1), toothSide(t2));
        expect(a).toBeGreaterThanOrEqual(0);
        expect(b).toBeGreaterThanOrEqual(0);
        expect(Math.min(x.clear12, x.clear21)).toBeGreaterThan(0.15e-3 - 2e-6);
        // A base circle cannot be passed, however short the tips are.
        if (made.value.s2.ra > made.value.s2.rb && made.value.start > 0)
          expect(Math.min(x.root1, x.root2)).toBeGreaterThan(-1e-9);
      }),
      { numRuns: 150 },
    );
  });
});

describe('undercut', () => {
  it('begins just below the least shift', () => {
    for (const teeth of [8, 10, 12, 15, 17]) {
      const g: Gear = gear({ module: 1e-3, teeth });
      const least = leastShift(g);
      expect(toothSide({ ...g, shift: least + 0.01 }).undercut).toBe(false);
      expect(toothSide({ ...g, shift: least - 0.01 }).undercut).toBe(true);
    }
    // Seventeen teeth is where a rack of addendum one starts to bite at 20°.
    expect(leastShift(gear({ module: 1e-3, teeth: 17 }))).toBeCloseTo(0.0057, 3);
  });
});

describe('root sections', () => {
  it('have the form factors of the usual chart for the basic rack', () => {
    for (const [teeth, form] of [
      [12, 3.46],
      [17, 2.96],
      [20, 2.8],
      [30, 2.53],
      [60, 2.28],
      [200, 2.13],
    ] as const)
      expect(rootSection(gear({ module: 2e-3, teeth })).form).toBeCloseTo(form, 1);
  });
  it('do not depend on the module', () => {
    const one = rootSection(gear({ module: 1e-3, teeth: 23, shift: 0.2 }));
    const two = rootSection(gear({ module: 3e-3, teeth: 23, shift: 0.2 }));
    expect(two.form).toBeCloseTo(one.form, 6);
    expect(two.stress).toBeCloseTo(one.stress, 4);
  });
});

describe('hubs', () => {
  it('a flat leaves less of the hole, a keyway takes more, a nut is as wide as its standard says', () => {
    const hole = (shape: 'round' | 'flat' | 'keyway') => area(boreOutline({ ...PLAIN_HUB, bore: 8e-3, shape }));
    expect(hole('round')).toBeCloseTo(Math.PI * 16e-6, 12);
    expect(hole('flat')).toBeLessThan(hole('round'));
    // The key of an 8 mm bore is 2 mm wide and stands 1 mm into the hub.
    expect(hole('keyway') - hole('round')).toBeGreaterThan(2e-6);
    expect(hole('keyway') - hole('round')).toBeLessThan(2.2e-6);
    expect(nutFor(3.2e-3).across).toBeCloseTo(5.5e-3, 12);
    expect(area(hexagon(0.01, 0, 5.5e-3))).toBeCloseTo((Math.sqrt(3) / 2) * 5.5e-3 ** 2, 10);
  });
});

describe('which way teeth push', () => {
  it('a driving sun pushes its planets, and they push the held ring', () => {
    const t: Train = { input: central(18, 27, false), output: carrier, held: central(72, 27, true) };
    // Forwards the planets turn against the sun: what the sun pushes, and what they push at the ring, lie on their own
    // trailing side.
    expect(pushSense(t, 'input')).toBe(-pushSense(t, 'held'));
  });
});

describe('a ring', () => {
  it('has its tips inside and its roots outside the reference circle', () => {
    const s = gearSize(gear({ module: 1e-3, teeth: 60, ring: true }));
    expect(s.ra).toBeCloseTo(29e-3, 12);
    expect(s.rf).toBeCloseTo(31.25e-3, 12);
  });
});
