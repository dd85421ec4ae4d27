import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ringBending, ringWall, wallStress } from '../src/gear/index.ts';
import { examples } from './helpers.ts';

/**
 * Moments of a thin ring found another way: cut open at nought, what the cut carries is such that the ring closes, by
 * Castigliano's three conditions on bending alone; the moment is summed from the cut on.
 */
function byCutting(outward: readonly number[], round: readonly number[], radius: number): number {
  const places = outward.length;
  const steps = 720 * places;
  // Moment about a point at `a` of all pushes between the cut and it.
  const loose = (a: number): number =>
    outward.reduce((sum, out, k) => {
      const at = (2 * Math.PI * k) / places;
      if (at > a) return sum;
      const [c, s] = [Math.cos(at), Math.sin(at)];
      const [fx, fy] = [out * c - round[k]! * s, out * s + round[k]! * c];
      const [lx, ly] = [radius * (c - Math.cos(a)), radius * (s - Math.sin(a))];
      return sum + (lx * fy - ly * fx);
    }, 0);
  const angles = Array.from({ length: steps }, (_, i) => (2 * Math.PI * (i + 0.5)) / steps);
  const bare = angles.map(loose);
  const mean = (wave: (a: number) => number) => bare.reduce((s, m, i) => s + m * wave(angles[i]!), 0) / steps;
  // A constant, a cosine and a sine are what the cut can add: each is taken away whole.
  const [m0, mc, ms] = [mean(() => 1), 2 * mean(Math.cos), 2 * mean(Math.sin)];
  return Math.max(...bare.map((m, i) => Math.abs(m - m0 - mc * Math.cos(angles[i]!) - ms * Math.sin(angles[i]!))));
}

describe('a thin ring pushed from inside', () => {
  it('is bent by two opposite pushes as the books say: F·R/π', () => {
    expect(ringBending([80, 0, 80, 0], [0, 0, 0, 0], 0.05)).toBeCloseTo((80 * 0.05) / Math.PI, 12);
  });

  it('is bent by even pushes as by the closed form, whatever their number', () => {
    for (const loads of [2, 3, 4, 5, 8]) {
      const pushes = new Float64Array(loads).fill(120);
      const moment = ringBending(pushes, new Float64Array(loads), 0.04);
      expect(wallStress(moment, 3e-3, 8e-3)).toBeCloseTo(ringWall(120, 0.04, 3e-3, 8e-3, loads), 3);
    }
  });

  it('is bent as a ring cut open and closed again, by pushes outwards and round that balance', () => {
    // Opposite ones alike, and nought round it together: in balance by themselves, and no mirror of themselves.
    const outward = [100, 30, 0, 100, 30, 0];
    const round = [25, -40, 15, 25, -40, 15];
    const cut = byCutting(outward, round, 0.03);
    const found = ringBending(outward, round, 0.03);
    expect(
      byCutting(
        outward,
        round.map((f) => -f),
        0.03,
      ) / cut,
    ).not.toBeCloseTo(1, 1);
    // The largest lies at a push or near half way; the finer look may find a little more beside it.
    expect(found).toBeLessThanOrEqual(cut * 1.002);
    expect(found).toBeGreaterThan(0.97 * cut);
  });

  it('tells pushes round one way from the other', () => {
    const outward = [100, 40, 0, 0, 0, 0, 0, 40];
    const some = ringBending(outward, [0, 60, 0, 0, 0, 0, 0, -60], 0.03);
    const other = ringBending(outward, [0, -60, 0, 0, 0, 0, 0, 60], 0.03);
    // Pulled towards the pushed side the ring bulges there less than where it is pulled away from it.
    expect(Math.abs(some - other)).toBeGreaterThan(0.1 * some);
  });

  it('is not bent by a push alike all round, and is bent the same whichever place comes first', () => {
    const many = new Float64Array(60).fill(5);
    expect(ringBending(many, new Float64Array(60), 0.03)).toBeLessThan(2e-3 * 5 * 0.03 * 60);
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.double({ min: 0, max: 100, noNaN: true }), fc.double({ min: -50, max: 50, noNaN: true })),
          {
            minLength: 3,
            maxLength: 12,
          },
        ),
        fc.nat(11),
        (pushes, by) => {
          const turned = pushes.map((_, i) => pushes[(i + by) % pushes.length]!);
          const of = (list: typeof pushes) =>
            ringBending(
              list.map(([out]) => out),
              list.map(([, on]) => on),
              0.03,
            );
          expect(of(turned)).toBeCloseTo(of(pushes), 9);
        },
      ),
      { numRuns: examples(40) },
    );
  });
});
