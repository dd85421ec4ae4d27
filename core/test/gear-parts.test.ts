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

describe('a side of a tooth', () => {
  it('is in finite numbers however far it is shifted, pointed at its base and cut by a cutter without thickness too', () => {
    let pointed = 0;
    for (const ring of [false, true])
      for (const teeth of [10, 24, 60, 90])
        for (let shift = -4; shift <= 4; shift += 0.25) {
          const g = gear({ module: 1e-3, teeth, shift, ring, cutter: 12 });
          // Beyond its own middle nothing is left of a wheel.
          if (gearSize(g).rf <= 0 || gearSize(g).ra <= 0) continue;
          const side = toothSide(g);
          if (side.pointed) pointed++;
          for (const x of [side.form, side.tipForm, side.root, side.fillet])
            expect(Number.isFinite(x), `${ring} ${teeth} ${shift}`).toBe(true);
        }
    expect(pointed).toBeGreaterThan(5);
  });
});

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

describe('a pinion in its ring', () => {
  it('has room to pass with its tips and to go in along the radius as the handbook’s equations say', () => {
    // Unshifted: tips at z/2 ± 1 modules, base circles z/2·cos 20°, centres (z₂ − z₁)/2 apart; in Python.
    for (const [z2, entry, tips] of [
      [50, 0.021968381547589066, 0.015676805417916106],
      [32, -0.014684675851622031, 0.008084485418604404],
    ] as const) {
      const [g1, g2] = [gear({ module: 1e-3, teeth: 20 }), gear({ module: 1e-3, teeth: z2, ring: true })];
      const made = meshPair(g1, g2);
      if (!made.ok) throw new Error(made.problem.what);
      const x = interference(made.value, toothSide(g1), toothSide(g2));
      expect(x.entry).toBeCloseTo(entry, 9);
      expect(x.tips).toBeCloseTo(tips, 9);
    }
  });
});

describe('the clearance of tips over roots', () => {
  it('is a quarter of the module on either side of an unshifted pair, outside and in a ring', () => {
    for (const ring of [false, true]) {
      const [g1, g2] = [gear({ module: 2e-3, teeth: 20 }), gear({ module: 2e-3, teeth: 60, ring })];
      const made = meshPair(g1, g2);
      if (!made.ok) throw new Error(made.problem.what);
      const x = interference(made.value, toothSide(g1), toothSide(g2));
      expect(x.clear21).toBeCloseTo(0.5e-3, 9);
      // A ring's roots are cut by a shaper of its own, within a few hundredths of as deep.
      expect(Math.abs(x.clear12 - 0.5e-3)).toBeLessThan(ring ? 0.1e-3 : 1e-9);
    }
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
  it('are those of the equations of ISO 6336-3, clause 6.2, solved by themselves', () => {
    const [alpha, hf, rho] = [Math.PI / 9, 1.25, 0.38];
    for (const [z, x] of [
      [17, 0],
      [20, 0.3],
      [32, -0.1],
      [100, 0.5],
    ] as const) {
      const E = Math.PI / 4 - hf * Math.tan(alpha) - ((1 - Math.sin(alpha)) * rho) / Math.cos(alpha);
      const G = rho - hf + x;
      const H = (2 / z) * (Math.PI / 2 - E) - Math.PI / 3;
      let theta = Math.PI / 6;
      for (let i = 0; i < 100; i++) theta = ((2 * G) / z) * Math.tan(theta) - H;
      const s = z * Math.sin(Math.PI / 3 - theta) + Math.sqrt(3) * (G / Math.cos(theta) - rho);
      const r = rho + (2 * G * G) / (Math.cos(theta) * (z * Math.cos(theta) ** 2 - 2 * G));
      const da = z + 2 + 2 * x;
      const at = Math.acos((z * Math.cos(alpha)) / da);
      const inv = (a: number) => Math.tan(a) - a;
      const half = (Math.PI / 2 + 2 * x * Math.tan(alpha)) / z + inv(alpha) - inv(at);
      const lean = at - half;
      const arm = (Math.cos(half) - Math.sin(half) * Math.tan(lean)) * da;
      const h = (arm - z * Math.cos(Math.PI / 3 - theta) - G / Math.cos(theta) + rho) / 2;
      const found = rootSection(gear({ module: 1e-3, teeth: z, shift: x }));
      expect(found.chord / s).toBeCloseTo(1, 5);
      expect(found.height / h).toBeCloseTo(1, 5);
      expect(found.radius / r).toBeCloseTo(1, 3);
      expect(found.form / ((6 * h * Math.cos(lean)) / (s * s * Math.cos(alpha)))).toBeCloseTo(1, 5);
      // Clause 7, by logarithms: ln Y_S = ln(1.2 + 0.13·L) + ln q/(1.21 + 2.3/L).
      const [L, q] = [s / h, s / (2 * r)];
      expect(Math.log(found.stress)).toBeCloseTo(Math.log(1.2 + 0.13 * L) + Math.log(q) / (1.21 + 2.3 / L), 3);
    }
    // Read off the standard's chart for the basic rack.
    for (const [teeth, stress] of [
      [17, 1.52],
      [20, 1.55],
      [30, 1.62],
      [100, 1.79],
    ] as const)
      expect(rootSection(gear({ module: 1e-3, teeth })).stress).toBeCloseTo(stress, 2);
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
