import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bandFrom } from '../src/index.ts';
import { seeded, triangular } from '../src/math/random.ts';
import { bentWindUp } from '../src/math/springs.ts';
import {
  forward,
  needed,
  playAtOutput,
  ratiosAfter,
  stiffnessAtOutput,
  totalRatio,
  turnBack,
  type Link,
} from '../src/line/sum.ts';

const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const link: fc.Arbitrary<Link> = fc.record({
  ratio: fc.tuple(d(1.2, 60), fc.boolean()).map(([i, back]) => (back ? -i : i)),
  etaForward: d(0.3, 1),
  etaBackward: d(0.2, 1),
  drag: d(0, 0.02),
  stiffness: d(1, 5000),
});
const chain = fc.array(link, { minLength: 1, maxLength: 5 });

describe('a chain of stages', () => {
  it('has ratios after each stage whose first times its own is the whole, and signs multiply', () => {
    fc.assert(
      fc.property(chain, (links) => {
        const after = ratiosAfter(links);
        expect(after.at(-1)).toBe(1);
        expect((after[0]! * links[0]!.ratio) / totalRatio(links)).toBeCloseTo(1, 12);
        expect(Math.sign(totalRatio(links))).toBe(links.filter((l) => l.ratio < 0).length % 2 === 0 ? 1 : -1);
      }),
    );
  });

  it('cut anywhere gives the same in two pieces as in one', () => {
    fc.assert(
      fc.property(chain, d(0.05, 5), fc.nat(), (links, torque, at) => {
        const cut = at % (links.length + 1);
        const [a, b] = [links.slice(0, cut), links.slice(cut)];
        expect(forward(b, forward(a, torque))).toBeCloseTo(forward(links, torque), 9);
        expect(needed(a, needed(b, torque)) / needed(links, torque)).toBeCloseTo(1, 9);
        // Compliance of the front counts over the square of what follows, that of the back as it is.
        const D = totalRatio(b);
        const compliance = (x: readonly Link[]) => (x.length ? 1 / stiffnessAtOutput(x) : 0);
        expect(compliance(links) / (compliance(a) / D ** 2 + compliance(b))).toBeCloseTo(1, 9);
      }),
    );
  });

  it('gives less than no loss would, never less than nought, and needs at least what no loss would', () => {
    fc.assert(
      fc.property(chain, d(0, 2), (links, torque) => {
        const i = Math.abs(totalRatio(links));
        const out = forward(links, torque);
        expect(out).toBeGreaterThanOrEqual(0);
        expect(out).toBeLessThanOrEqual(torque * i * (1 + 1e-12));
        expect(needed(links, torque)).toBeGreaterThanOrEqual((torque / i) * (1 - 1e-12));
        if (out > 0) expect(needed(links, out)).toBeCloseTo(torque, 9);
      }),
    );
  });

  it('turned back takes the more the more drag there is, and holds at the first stage that holds', () => {
    fc.assert(
      fc.property(chain, d(0, 0.1), fc.nat(), (links, idle, at) => {
        const back = turnBack(links, idle);
        expect(back.holder).toBe(-1);
        expect(back.torque).toBeGreaterThanOrEqual(idle * Math.abs(totalRatio(links)) * (1 - 1e-12));
        const k = at % links.length;
        const held = links.map((l, j) => (j >= k ? { ...l, etaBackward: -0.1 } : l));
        expect(turnBack(held, idle)).toEqual({ torque: Infinity, holder: k });
        expect(
          turnBack(
            links.map((l) => ({ ...l, drag: l.drag + 0.01 })),
            idle,
          ).torque,
        ).toBeGreaterThan(back.torque);
      }),
    );
  });

  it('is softer than any stage of it, and its play is no less than its last stage’s', () => {
    fc.assert(
      fc.property(chain, fc.array(d(0, 0.02), { minLength: 5, maxLength: 5 }), (links, plays) => {
        const after = ratiosAfter(links);
        links.forEach((l, j) =>
          expect(stiffnessAtOutput(links)).toBeLessThanOrEqual(l.stiffness * after[j]! ** 2 * (1 + 1e-12)),
        );
        const own = plays.slice(0, links.length);
        expect(playAtOutput(links, own)).toBeGreaterThanOrEqual(own.at(-1)!);
        expect(
          playAtOutput(
            links,
            own.map((b) => 2 * b),
          ),
        ).toBeCloseTo(2 * playAtOutput(links, own), 12);
      }),
    );
    expect(stiffnessAtOutput([])).toBe(Infinity);
  });

  it('a spring with a bend is one curve: alike both ways, without a step at the bend, steeper before it than after', () => {
    fc.assert(
      fc.property(d(1, 900), d(1, 900), d(0.1, 5), d(-20, 20), (k1, k2, bend, torque) => {
        expect(bentWindUp(torque, k1, bend, k2)).toBe(bentWindUp(-torque, k1, bend, k2));
        expect(bentWindUp(bend * (1 + 1e-9), k1, bend, k2)).toBeCloseTo(bentWindUp(bend, k1, bend, k2), 7);
        const slope = (t: number) => (bentWindUp(t * 1.001, k1, bend, k2) - bentWindUp(t, k1, bend, k2)) / (t * 0.001);
        expect(slope(bend * 0.5) * k1).toBeCloseTo(1, 6);
        expect(slope(bend * 3) * k2).toBeCloseTo(1, 6);
        expect(bentWindUp(torque, k1, Infinity, k2)).toBeCloseTo(Math.abs(torque) / k1, 12);
      }),
    );
  });
});

describe('draws', () => {
  it('are the same for a seed, others for others, and even over their range', () => {
    const take = (seed: number, n: number) => {
      const next = seeded(seed);
      return Array.from({ length: n }, next);
    };
    expect(take(7, 20)).toEqual(take(7, 20));
    expect(take(8, 20)).not.toEqual(take(7, 20));
    const many = take(3, 40_000);
    const bins = new Float64Array(20);
    expect(many.every((v) => v >= 0 && v < 1)).toBe(true);
    for (const v of many) bins[Math.floor(v * 20)]! += 1;
    // χ² of twenty bins: 99.9 % lie below 43.8.
    expect(bins.reduce((s, b) => s + (b - 2000) ** 2 / 2000, 0)).toBeLessThan(43.8);
    // No two neighbours go together.
    const mean = many.reduce((a, b) => a + b, 0) / many.length;
    const together = many.slice(1).reduce((s, v, i) => s + (v - mean) * (many[i]! - mean), 0) / many.length;
    expect(Math.abs(together * 12)).toBeLessThan(0.02);
  });

  it('from a triangle lie within it, rise with the draw, and have its mean and its peak', () => {
    fc.assert(
      fc.property(d(-5, 5), d(0.01, 3), d(0, 1), (low, width, share) => {
        const [likely, high] = [low + share * width, low + width];
        let [sum, before, wrong] = [0, low - 1e-12, 0];
        const n = 2000;
        for (let k = 0; k < n; k++) {
          const v = triangular((k + 0.5) / n, low, likely, high);
          if (!(v >= before && v <= high + 1e-12)) wrong++;
          sum += v;
          before = v;
        }
        expect(wrong).toBe(0);
        expect(sum / n).toBeCloseTo((low + likely + high) / 3, 3);
        // As much lies below the peak as its share of the width.
        expect(triangular(share, low, likely, high)).toBeCloseTo(likely, 6);
      }),
      { numRuns: 30 },
    );
    expect(triangular(0.3, 4, 4, 4)).toBe(4);
  });
});

describe('bands', () => {
  it('add as root sum of squares, never on the wrong side, and wider with every input that moves', () => {
    expect(
      bandFrom(10, [
        [9, 11.5],
        [10.2, 9.9],
      ]),
    ).toEqual([10 - Math.sqrt(1.01), 10 + Math.sqrt(1.5 ** 2 + 0.2 ** 2)].map((x) => expect.closeTo(x, 10)));
    fc.assert(
      fc.property(d(-5, 5), fc.array(fc.tuple(d(-9, 9), d(-9, 9)), { maxLength: 8 }), (value, ends) => {
        const [low, high] = bandFrom(value, ends);
        expect(low).toBeLessThanOrEqual(value);
        expect(high).toBeGreaterThanOrEqual(value);
        for (const [a, b] of ends) {
          expect(low).toBeLessThanOrEqual(Math.min(value, a, b) + 1e-9);
          expect(high).toBeGreaterThanOrEqual(Math.max(value, a, b) - 1e-9);
        }
        expect(bandFrom(value, [...ends, [NaN, Infinity]])).toEqual([low, high]);
      }),
    );
  });
});
