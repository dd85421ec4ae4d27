import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  inUnits,
  gear,
  gearSize,
  lossFactor,
  meanReach,
  meshPair,
  overPins,
  plainCentre,
  shiftSum,
  spanOver,
  spanTeeth,
  specificSliding,
  splitShift,
  steppedUp,
  trimTips,
  usualPin,
  workingAngle,
  worstSliding,
  type Gear,
  type Pair,
} from '../src/index.ts';

const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const M = 1e-3;
const pair = (g1: Gear, g2: Gear, at?: number): Pair => {
  const r = meshPair(g1, g2, at);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const wheels = fc.record({
  z1: fc.integer({ min: 14, max: 60 }),
  more: fc.integer({ min: 2, max: 80 }),
  x1: d(-0.2, 0.6),
  x2: d(-0.2, 0.6),
  helix: d(-0.5, 0.5),
  ring: fc.boolean(),
});
/** Wheels of a drawn case: a ring well larger than its pinion. */
const made = (
  c: { z1: number; more: number; x1: number; x2: number; helix: number; ring: boolean },
  over: Partial<Gear> = {},
): [Gear, Gear] => [
  gear({ module: M, teeth: c.z1, shift: c.x1, helix: c.helix, ...over }),
  gear({
    module: M,
    teeth: c.ring ? c.z1 + 12 + c.more : c.z1 + c.more,
    shift: c.ring ? c.x1 + 0.1 : c.x2,
    helix: c.helix,
    ring: c.ring,
    ...over,
  }),
];

describe('where two wheels run', () => {
  it('without shift it is on their reference circles', () => {
    const p = pair(gear({ module: M, teeth: 20 }), gear({ module: M, teeth: 50 }));
    expect(p.centre).toBeCloseTo(35e-3, 12);
    expect(p.working).toBeCloseTo(Math.PI / 9, 12);
    expect(workingAngle(20, 50, 0, 0, Math.PI / 9, 0, false)).toBeCloseTo(Math.PI / 9, 12);
    expect(plainCentre(M, 20, 50, 0, true)).toBeCloseTo(15e-3, 12);
  });

  it('shifts and centre distance undo each other, outside and in a ring', () => {
    fc.assert(
      fc.property(wheels, (c) => {
        const [g1, g2] = made(c);
        const p = pair(g1, g2);
        const sum = shiftSum(M, g1.teeth, g2.teeth, g1.pressure, c.helix, c.ring, p.centre);
        expect(sum.ok && sum.value).toBeCloseTo(c.ring ? g2.shift - g1.shift : g1.shift + g2.shift, 8);
        // Working circles roll on each other and touch at the pitch point.
        expect(p.rw1 / p.rw2).toBeCloseTo(g1.teeth / g2.teeth, 12);
        expect(c.ring ? p.rw2 - p.rw1 : p.rw1 + p.rw2).toBeCloseTo(p.centre, 12);
      }),
    );
  });

  it('a centre distance too small for the base circles is refused with the least that does', () => {
    const r = shiftSum(M, 20, 50, Math.PI / 9, 0, false, 32e-3);
    expect(!r.ok && inUnits(r.problem.why)).toContain('32.889 mm');
    expect(meshPair(gear({ module: M, teeth: 20 }), gear({ module: M, teeth: 50 }), 32e-3).ok).toBe(false);
  });

  it('moved apart, play grows by twice the move times the tangent of the working angle', () => {
    fc.assert(
      fc.property(wheels, d(1e-6, 2e-5), (c, move) => {
        const [g1, g2] = made(c);
        const p = pair(g1, g2);
        const at = c.ring ? p.centre - move : p.centre + move;
        const opened = pair(g1, g2, at).play;
        expect(opened / (2 * move * Math.tan(p.working))).toBeCloseTo(1, 1);
      }),
    );
  });
});

describe('along the line of action', () => {
  it('the wheels roll without sliding at the pitch point only, and each slides as the other’s ratio says', () => {
    fc.assert(
      fc.property(wheels, d(0.02, 0.98), (c, share) => {
        const p = pair(...made(c));
        fc.pre(p.start > 1e-6);
        expect(specificSliding(p, p.pitch)[0]).toBeCloseTo(0, 6);
        expect(specificSliding(p, p.pitch)[1]).toBeCloseTo(0, 6);
        const [a, b] = specificSliding(p, p.start + share * (p.end - p.start));
        expect((1 - a) * (1 - b)).toBeCloseTo(1, 6);
        const worst = worstSliding(p);
        expect(Math.abs(a)).toBeLessThanOrEqual(worst[0] + 1e-9);
        expect(Math.abs(b)).toBeLessThanOrEqual(worst[1] + 1e-9);
      }),
    );
  });

  it('the loss factor is the sliding averaged over a pitch, load shared evenly by the pairs in contact', () => {
    fc.assert(
      fc.property(
        fc.record({
          z1: fc.integer({ min: 17, max: 60 }),
          more: fc.integer({ min: 0, max: 60 }),
          x1: d(0, 0.3),
          x2: d(0, 0.3),
          helix: fc.constant(0),
          ring: fc.boolean(),
        }),
        (c) => {
          const p = pair(...made(c));
          fc.pre(p.contact > 1.05);
          const u = p.g2.teeth / p.g1.teeth;
          let mean = 0;
          const n = 4000;
          for (let k = 0; k < n; k++) {
            const places = [];
            for (let s = p.start + (p.basePitch * (k + 0.5)) / n; s < p.end; s += p.basePitch)
              places.push(Math.abs(s - p.pitch));
            mean += places.reduce((a, b) => a + b, 0) / places.length / n;
          }
          // Sliding speed is the distance from the pitch point times the sum (a ring: the difference) of the speeds.
          expect(lossFactor(p) / ((mean * (c.ring ? 1 - 1 / u : 1 + 1 / u)) / p.s1.rb)).toBeCloseTo(1, 3);
          if (p.contact < 2 && p.approach < 1 && p.recess < 1)
            expect(2 * meanReach(p.approach, p.recess)).toBeCloseTo(1 - p.contact + p.approach ** 2 + p.recess ** 2, 9);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('shift sums are shared as asked and stay what they were', () => {
    const make = (x1: number, x2: number) =>
      meshPair(gear({ module: M, teeth: 16, shift: x1 }), gear({ module: M, teeth: 47, shift: x2 }));
    for (const sum of [0.1, 0.5, 0.9]) {
      for (const way of ['even', 'sliding', 'undercut'] as const) {
        const [x1, x2] = splitShift(sum, false, way, 0.06, make);
        expect(x1 + x2).toBeCloseTo(sum, 9);
        if (way === 'even') expect(x1).toBe(sum / 2);
        if (way === 'undercut') expect(x1).toBeGreaterThanOrEqual(0.06);
        if (way === 'sliding') {
          const p = make(x1, x2);
          if (!p.ok) throw new Error('no pair');
          expect(Math.abs(specificSliding(p.value, p.value.start)[0])).toBeCloseTo(
            Math.abs(specificSliding(p.value, p.value.end)[1]),
            3,
          );
        }
      }
    }
    const [a, b] = splitShift(0.2, true, 'even', 0, make);
    expect(b - a).toBeCloseTo(0.2, 12);
  });
});

describe('tips', () => {
  it('once trimmed need no trimming again, and contact is the less for it', () => {
    fc.assert(
      fc.property(wheels, (c) => {
        const [g1, g2] = made(c);
        fc.pre(meshPair(g1, g2).ok);
        const [t1, t2] = trimTips(g1, g2);
        expect(Math.min(t1, t2)).toBeGreaterThanOrEqual(0);
        const [s1, s2] = [
          { ...g1, short: t1 },
          { ...g2, short: t2 },
        ];
        const [again1, again2] = trimTips(s1, s2);
        expect(again1 + again2).toBeLessThan(1e-9);
        if (t1 + t2 > 0) expect(pair(s1, s2).contact).toBeLessThan(pair(g1, g2).contact);
      }),
      { numRuns: 60 },
    );
  });
});

describe('measuring a wheel', () => {
  it('the span is base pitches and one base thickness', () => {
    fc.assert(
      fc.property(fc.integer({ min: 8, max: 120 }), d(-0.3, 0.8), d(0, 1e-4), (teeth, shift, allowance) => {
        const g = gear({ module: M, teeth, shift, allowance });
        const s = gearSize(g);
        const k = spanTeeth(g);
        const base = Math.PI * M * Math.cos(g.pressure);
        expect(spanOver(g, k)).toBeCloseTo((k - 1) * base + 2 * s.rb * s.halfBase, 9);
      }),
    );
  });

  it('a pin rests on both flanks of its space: its middle is a radius from the involute, measured on points of it', () => {
    for (const teeth of [12, 17, 24, 45]) {
      for (const shift of [-0.1, 0, 0.4]) {
        const g = gear({ module: M, teeth, shift });
        const s = gearSize(g);
        const pin = usualPin(g);
        const over = overPins(g, pin);
        const middle = (over - pin) / 2 / (teeth % 2 === 0 ? 1 : Math.cos(Math.PI / (2 * teeth)));
        // The flank of the tooth beside the space on the x axis, half a space away at the base circle.
        const space = Math.PI / teeth - s.halfBase;
        let least = Infinity;
        for (let k = 0; k <= 20_000; k++) {
          const t = (1.2 * k) / 20_000;
          const [a, c] = [space + t, s.rb];
          const [x, y] = [c * (Math.cos(a) + t * Math.sin(a)), c * (Math.sin(a) - t * Math.cos(a))];
          least = Math.min(least, Math.hypot(x - middle, y));
        }
        expect(least, `${teeth} teeth, x ${shift}`).toBeCloseTo(pin / 2, 9);
      }
    }
  });

  it('steps are taken up, without digits that floating point leaves', () => {
    expect(steppedUp(0.1234, 0.01)).toBe(0.13);
    expect(steppedUp(0.3, 0.1)).toBe(0.3);
    fc.assert(
      fc.property(d(1e-6, 10), fc.constantFrom(1e-5, 1e-4, 0.05, 0.5), (v, step) => {
        const up = steppedUp(v, step);
        expect(up).toBeGreaterThanOrEqual(v - 1e-8 * Math.max(1, v) - 1e-9 * step);
        expect(up - v).toBeLessThanOrEqual(step * (1 + 1e-6));
      }),
    );
  });
});
