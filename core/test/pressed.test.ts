import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  combined,
  fewRollers,
  manyRollers,
  neutralLine,
  pressedAtPoints,
  pressedBending,
  seriesAt,
  spreadApart,
  type CosineSeries,
  type WaveForm,
} from '../src/index.ts';
import { alongWave } from '../src/stage/strain-wave/outlines.ts';

const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const out = new Float64Array(3);
const value = (s: CosineSeries, angle: number): number => (seriesAt(s, angle, out), out[0]!);

/**
 * Deflection of a ring under two opposite forces, in P·r³/(E·I), by the angle from a force: ¼((π/2 − θ)·cos θ + sin θ)
 * − 1/π for a quarter, mirrored.
 *
 * Source: Timoshenko, Strength of Materials II, thin rings: π/8 − 1/π under the force, ¼ − 1/π a quarter turn on.
 */
function ringUnderTwo(angle: number): number {
  const a = Math.abs(Math.atan2(Math.sin(angle), Math.cos(angle)));
  const t = a > Math.PI / 2 ? Math.PI - a : a;
  return 0.25 * ((Math.PI / 2 - t) * Math.cos(t) + Math.sin(t)) - 1 / Math.PI;
}

describe('a ring pressed at points', () => {
  it('deflects as the closed form of two opposite forces', () => {
    const s = pressedAtPoints(2);
    for (let k = 0; k <= 48; k++) {
      const angle = (2 * Math.PI * k) / 48;
      expect(value(s, angle), `${k}`).toBeCloseTo(ringUnderTwo(angle), 6);
    }
    // 0.0744 out under the force and 0.0683 in between.
    expect(value(s, 0)).toBeCloseTo(0.0744, 4);
    expect(value(s, Math.PI / 2)).toBeCloseTo(-0.0683, 4);
  });

  it('has derivatives that are those of its value, and the same shape for every lobe', () => {
    fc.assert(
      fc.property(fc.constantFrom(2, 3, 4), d(0, 6.2), (lobes, angle) => {
        const s = pressedAtPoints(lobes);
        const h = 1e-5;
        const [before, after] = [value(s, angle - h), value(s, angle + h)];
        seriesAt(s, angle, out);
        const [w, w1] = [out[0]!, out[1]!];
        expect((after - before) / (2 * h)).toBeCloseTo(w1, 6);
        expect(value(s, angle + (2 * Math.PI) / lobes)).toBeCloseTo(w, 12);
        expect(value(s, -angle)).toBeCloseTo(w, 12);
      }),
    );
  });

  it('moved apart is the sum of both places, and sums are sums', () => {
    fc.assert(
      fc.property(fc.constantFrom(2, 3), d(0, 0.7), d(0, 6.2), d(-2, 2), (lobes, apart, angle, weight) => {
        const one = pressedAtPoints(lobes);
        expect(value(spreadApart(one, apart), angle)).toBeCloseTo(
          value(one, angle - apart) + value(one, angle + apart),
          10,
        );
        expect(
          value(
            combined([
              [one, 1],
              [spreadApart(one, apart), weight],
            ]),
            angle,
          ),
        ).toBeCloseTo(value(one, angle) + weight * value(spreadApart(one, apart), angle), 10);
      }),
    );
  });

  it('keeps its length to the first order: what goes out comes in', () => {
    fc.assert(
      fc.property(fc.constantFrom(2, 3), d(0, 0.7), (lobes, apart) => {
        const s = fewRollers(lobes, apart).series;
        let sum = 0;
        for (let k = 0; k < 720; k++) sum += value(s, (2 * Math.PI * k) / 720);
        expect(sum / 720).toBeCloseTo(0, 10);
        expect(value(s, 0)).toBeCloseTo(1, 12);
      }),
    );
  });
});

describe('rollers', () => {
  it('two of a lobe share what one bears, and bend the wall less the better they are placed', () => {
    const one = pressedBending(2, fewRollers(2, 0).groups);
    const bends = [0.1, 0.25, 0.44, 0.6].map((a) => pressedBending(2, fewRollers(2, a).groups).most);
    for (const b of bends) expect(b).toBeLessThan(one.most);
    expect(Math.min(...bends)).toBeGreaterThan(0.6);
  });

  it('one a lobe: mean square and greatest of the bending in closed form', () => {
    for (const lobes of [2, 3]) {
      const { groups } = fewRollers(lobes, 0);
      const a = Math.PI / lobes;
      const k = a / (2 * Math.sin(a));
      // ½ − k·cos(a − θ) between two rollers, its mean square −¼ + k²(½ + sin 2a/4a), greatest under a roller.
      const unit = (lobes / Math.PI) * groups[0]!.force;
      const plain = lobes ** 2 - 1;
      const square = unit ** 2 * (k * k * (0.5 + Math.sin(2 * a) / (4 * a)) - 0.25);
      const got = pressedBending(lobes, groups);
      expect(got.square).toBeCloseTo((2 * square) / plain ** 2, 4);
      expect(got.most).toBeCloseTo((unit * Math.max(k - 0.5, 0.5 - k * Math.cos(a))) / plain, 9);
    }
  });

  it('more of them come nearer to the contour they stand on, as do bending and its square to one', () => {
    for (const lobes of [2, 3]) {
      const worst = [4, 8, 16].map((per) => {
        const p = manyRollers(lobes, per * lobes);
        let most = 0;
        for (let k = 0; k < 360; k++) {
          const angle = (2 * Math.PI * k) / 360;
          // Where the ring is pushed out; drawn in, it lies as it likes.
          if (Math.cos(lobes * angle) > 0.5)
            most = Math.max(most, Math.abs(value(p.series, angle) - Math.cos(lobes * angle)));
        }
        return most;
      });
      expect(worst[1]!).toBeLessThan(worst[0]!);
      expect(worst[2]!).toBeLessThan(worst[1]!);
    }
  });

  it('of any number push and never pull; each either presses or stands clear', () => {
    fc.assert(
      fc.property(fc.constantFrom(2, 3), fc.integer({ min: 3, max: 14 }), (lobes, per) => {
        const p = manyRollers(lobes, per * lobes);
        for (const g of p.groups) {
          expect(g.force).toBeGreaterThanOrEqual(0);
          expect(g.gap).toBeGreaterThanOrEqual(0);
          expect(g.force * g.gap).toBe(0);
        }
        expect(value(p.series, 0)).toBeCloseTo(1, 6);
      }),
    );
  });
});

describe('a line along the wave', () => {
  it('at a distance is longer by 2π of it, whatever the generator: the wall’s outside and inside', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<WaveForm['shape']>('ellipse', 'cosine', 'two', 'four', 'many'),
        d(0.2e-3, 1.2e-3),
        d(-1.5e-3, 1.5e-3),
        (shape, out, distance) => {
          const line = neutralLine({ shape, lobes: 2, radius: 35e-3, throw: out, spread: 0.44, rollers: 12 });
          const o = alongWave(line, distance, 480);
          let length = 0;
          const n = o.points.length / 3;
          for (let i = 0; i < n; i++) {
            const j = (i + 1) % n;
            const chord = Math.hypot(o.points[3 * j]! - o.points[3 * i]!, o.points[3 * j + 1]! - o.points[3 * i + 1]!);
            // An arc of bulge b over its chord: four times the angle whose tangent b is.
            const angle = 4 * Math.atan(o.points[3 * i + 2]!);
            length += Math.abs(angle) < 1e-9 ? chord : (chord * angle) / 2 / Math.sin(angle / 2);
          }
          expect(Math.abs(length - 2 * Math.PI * (35e-3 + distance))).toBeLessThan(2e-7);
        },
      ),
      { numRuns: 40 },
    );
  });
});
