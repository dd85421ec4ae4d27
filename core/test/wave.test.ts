import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  clearanceMap,
  fewRollers,
  involuteSide,
  manyRollers,
  nearestPitch,
  neutralLine,
  pairState,
  pressedBending,
  roundSide,
  seriesAt,
  straightSide,
  waveCourse,
  type NeutralLine,
  type WaveForm,
  type WaveMesh,
  type WaveShape,
} from '../src/index.ts';
import { examples } from './helpers.ts';

const form = (shape: WaveShape, over: Partial<WaveForm> = {}): WaveForm => ({
  shape,
  lobes: 2,
  radius: 35e-3,
  throw: 0.8e-3,
  spread: 0.44,
  rollers: 12,
  ...over,
});
const any = fc
  .record({
    shape: fc.constantFrom<WaveShape>('ellipse', 'cosine', 'two', 'four', 'many'),
    share: fc.double({ min: 0.003, max: 0.06, noNaN: true }),
    spread: fc.double({ min: 0.1, max: 0.7, noNaN: true }),
    rollers: fc.constantFrom(6, 8, 12, 16, 24),
  })
  .map((x) => form(x.shape, { throw: x.share * 35e-3, spread: x.spread, rollers: x.rollers }));

const out = new Float64Array(4);
const walk = (line: NeutralLine, n: number): [number, number, number, number][] =>
  Array.from({ length: n }, (_, i) => {
    line.at((2 * Math.PI * line.form.radius * i) / n, out);
    return [out[0]!, out[1]!, out[2]!, out[3]!];
  });

describe('the neutral line over a generator', () => {
  it('is as long as the ring at rest, reaches the throw at a lobe’s top, and closes', () => {
    fc.assert(
      fc.property(any, (f) => {
        const line = neutralLine(f);
        const n = 4000;
        const p = walk(line, n);
        let length = 0;
        // Chord and curvature give the arc: c·(1 + κ²c²/24).
        for (let i = 0; i < n; i++) {
          const [a, b] = [p[i]!, p[(i + 1) % n]!];
          const c = Math.hypot(b[0] - a[0], b[1] - a[1]);
          length += c * (1 + (a[3] * c) ** 2 / 24);
        }
        expect(Math.abs(length - 2 * Math.PI * f.radius)).toBeLessThan(2e-8);
        expect(Math.abs(p[0]![0] - f.radius - f.throw)).toBeLessThan(1e-10);
        expect(Math.abs(p[n / 2]![0] + f.radius + f.throw)).toBeLessThan(1e-10);
      }),
      { numRuns: 60 },
    );
  });

  it('has normals at right angles to itself and mirrors about its axes', () => {
    fc.assert(
      fc.property(any, fc.double({ min: -4, max: 4, noNaN: true }), (f, u) => {
        const line = neutralLine(f);
        const read = (s: number) => (line.at(s, out), [out[0]!, out[1]!, out[2]!] as const);
        const h = 1e-7;
        const [a, b] = [read(u * f.radius - h), read(u * f.radius + h)];
        const mid = read(u * f.radius);
        const heading = Math.atan2(b[1] - a[1], b[0] - a[0]) - Math.PI / 2;
        expect(Math.abs(Math.sin((heading - mid[2]) / 2))).toBeLessThan(2e-6);
        const other = read(-u * f.radius);
        expect(Math.abs(other[0] - mid[0]) + Math.abs(other[1] + mid[1])).toBeLessThan(1e-12);
      }),
      { numRuns: 120 },
    );
  });

  it('is the same over each of its lobes, turned on', () => {
    const line = neutralLine({ ...form('cosine'), lobes: 3 });
    const a = new Float64Array(4);
    const third = (2 * Math.PI * line.form.radius) / 3;
    for (const u of [0.1, 0.37, 0.8]) {
      line.at(u * third, a);
      for (const k of [1, 2, -1]) {
        line.at((u + k) * third, out);
        const [c, s] = [Math.cos((2 * Math.PI * k) / 3), Math.sin((2 * Math.PI * k) / 3)];
        expect(out[0]).toBeCloseTo(c * a[0]! - s * a[1]!, 12);
        expect(out[1]).toBeCloseTo(s * a[0]! + c * a[1]!, 12);
        expect(Math.sin((out[2]! - a[2]!) / 2 - (Math.PI * k) / 3)).toBeCloseTo(0, 9);
      }
    }
  });

  it('bends as rings do: 0.0744·P·r³/EI out under two forces, 1.426 times as sharply as a cosine wave', () => {
    const two = fewRollers(2, 0);
    // P in units of E·I·w0/r³ for one unit of throw: 1/0.0744.
    expect(1 / two.groups[0]!.force).toBeCloseTo((Math.PI ** 2 - 8) / (8 * Math.PI), 5);
    expect(pressedBending(2, two.groups).most).toBeCloseTo(1 / Math.PI / ((Math.PI ** 2 - 8) / (8 * Math.PI)) / 3, 3);
    const w = new Float64Array(3);
    seriesAt(two.series, Math.PI / 2, w);
    // Timoshenko: drawn in by 0.0683 where it is pushed out by 0.0744.
    expect(w[0]).toBeCloseTo(-(1 / Math.PI - 0.25) / ((Math.PI ** 2 - 8) / (8 * Math.PI)), 4);
    expect(neutralLine(form('cosine')).bend).toBe(1);
  });

  it('many rollers never pull, and those that do not press stand clear', () => {
    for (const [lobes, count] of [
      [2, 6],
      [2, 12],
      [2, 24],
      [3, 9],
      [3, 18],
    ] as const) {
      const p = manyRollers(lobes, count);
      expect(Math.min(...p.groups.map((g) => g.force))).toBeGreaterThanOrEqual(0);
      for (const g of p.groups) expect(g.force > 0 ? g.gap : g.force).toBe(0);
      const w = new Float64Array(3);
      for (const g of p.groups) {
        seriesAt(p.series, g.angle, w);
        expect(w[0]! - Math.cos(lobes * g.angle)).toBeGreaterThan(-1e-8);
      }
      expect(p.groups[0]!.force).toBeGreaterThan(0);
    }
  });

  it('comes near the ellipse with a bending near that of a cosine wave', () => {
    const e = neutralLine(form('ellipse'));
    expect(e.bend).toBeGreaterThan(0.9);
    expect(e.bend).toBeLessThan(1.15);
    const [a, b] = [35.8e-3, e.least];
    // Between its knots too, to a few picometres, with the ellipse’s own normal.
    for (const [x, y, normal] of walk(e, 777)) {
      expect(Math.abs((x / a) ** 2 + (y / b) ** 2 - 1)).toBeLessThan(5e-10);
      expect(Math.abs(Math.sin(normal - Math.atan2(y / b ** 2, x / a ** 2)))).toBeLessThan(1e-8);
    }
  });
});

const straight = (over: { thin?: number; throw?: number; addendum?: number } = {}): WaveMesh => {
  const [m, z, angle, r] = [0.8e-3, 90, Math.PI / 6, 35e-3];
  const [Rf, Rc] = [(m * z) / 2, (m * (z + 2)) / 2];
  const a = over.addendum ?? 0.5;
  const half = (Math.PI * m) / 4;
  return {
    line: neutralLine(form('cosine', { throw: over.throw ?? m })),
    splineTeeth: z,
    ringTeeth: z + 2,
    tooth: straightSide(Rf - 0.6 * m - r, Rf + a * m - r, Rf - r, half - (over.thin ?? 0) / 2, angle),
    space: straightSide(Rc - a * m, Rc + 0.6 * m, Rc, half, angle),
    ringTip: Rc - a * m,
  };
};

describe('teeth in a wave', () => {
  it('at no allowance all but touch at a lobe’s top; thinner teeth gain half the allowance times the cosine', () => {
    const [a, b] = [pairState(straight(), 0), pairState(straight({ thin: 6e-5 }), 0)];
    expect(Math.abs(a.ahead)).toBeLessThan(8e-6);
    expect(b.ahead - a.ahead).toBeCloseTo(3e-5 * Math.cos(Math.PI / 6), 7);
    expect(a.depth).toBeCloseTo(0.8e-3, 9);
  });

  it('are symmetrical: ahead of the top is behind it mirrored', () => {
    const c = waveCourse(straight(), 120);
    for (let i = 0; i <= 120; i++) {
      if (Number.isFinite(c.ahead[i]!)) expect(Math.abs(c.ahead[i]! - c.behind[120 - i]!)).toBeLessThan(1e-12);
      expect(Math.abs(c.depth[i]! - c.depth[120 - i]!)).toBeLessThan(1e-12);
    }
    // Out of the ring between the lobes.
    expect(c.depth[0]).toBeLessThan(0);
  });

  it('turning the spline on closes what is ahead and opens what is behind, by the radius', () => {
    const m = straight({ thin: 1e-4 });
    const [a, b] = [pairState(m, 0), pairState(m, 0, 0, [0, 0], 1e-4)];
    const R = 36.8e-3;
    expect((a.ahead - b.ahead) / (1e-4 * R * Math.cos(Math.PI / 6))).toBeCloseTo(1, 1);
    expect((b.behind - a.behind) / (1e-4 * R * Math.cos(Math.PI / 6))).toBeCloseTo(1, 1);
  });

  it('every lobe meshes alike, each tooth against the space that has come to it', () => {
    const m = straight();
    const z = m.splineTeeth;
    const map = clearanceMap(m, 180);
    // Tooth 0 at a lobe’s top and, half a turn on, at the other lobe’s.
    expect(Math.abs(map.values[0]! - map.values[90]!)).toBeLessThan(1e-9);
    for (let k = 0; k < 180; k += 2)
      expect(Math.abs(map.values[k]! - map.values[(z / 2) * 180 + ((k + 90) % 180)]!) || 0).toBeLessThan(1e-7);
    expect(map.least).toBeGreaterThan(-1e-5);
  });

  it('a generator off the middle makes one lobe tighter; more throw brings clashes, less opens', () => {
    expect(clearanceMap(straight(), 90, 5e-5).least).toBeLessThan(clearanceMap(straight(), 90).least - 2e-5);
    // What is fixed goes round as the generator sees it: at the start it stands along the lobe, a quarter on across it.
    const m = straight();
    const map = clearanceMap(m, 4, 5e-5);
    const of = (tooth: number, crank: number, shift: readonly [number, number]): number => {
      const along = (2 * Math.PI * tooth) / m.splineTeeth - crank;
      const s = pairState(m, along, nearestPitch(m, along), shift);
      return Math.min(s.ahead, s.behind);
    };
    expect(map.values[0]! / of(0, 0, [5e-5, 0])).toBeCloseTo(1, 6);
    const quarter = Math.round(m.splineTeeth / 4);
    expect(map.values[quarter * 4 + 1]! / of(quarter, Math.PI / 2, [0, -5e-5])).toBeCloseTo(1, 6);
    expect(Math.abs(map.values[quarter * 4 + 1]! / of(quarter, Math.PI / 2, [0, 5e-5]) - 1)).toBeGreaterThan(1e-3);
    expect(clearanceMap(straight({ throw: 0.95e-3 }), 90).least).toBeLessThan(-5e-5);
    expect(clearanceMap(straight({ throw: 0.7e-3 }), 90).least).toBeGreaterThan(3e-5);
  });

  it('never sees a clearance where polygons of tooth and ring cross, nor a clash where they do not', () => {
    // Tooth and ring tooth as polygons; crossing found by corner-in-polygon both ways.
    const inside = (px: number, py: number, poly: readonly (readonly [number, number])[]) => {
      let c = false;
      for (let i = 0, j = poly.length - 1; i < poly.length; j = i++) {
        const [a, b] = [poly[i]!, poly[j]!];
        if (a[1] > py !== b[1] > py && px < ((b[0] - a[0]) * (py - a[1])) / (b[1] - a[1]) + a[0]) c = !c;
      }
      return c;
    };
    fc.assert(
      fc.property(
        fc.double({ min: -0.9, max: 0.9, noNaN: true }),
        fc.double({ min: 0.7e-3, max: 0.95e-3, noNaN: true }),
        fc.double({ min: 0, max: 1e-4, noNaN: true }),
        (u, w, thin) => {
          const m = straight({ throw: w, thin });
          const s = pairState(m, u);
          if (s.depth <= 2e-6) return;
          m.line.at(u * 35e-3, out);
          const [x0, y0, n] = [out[0]!, out[1]!, out[2]!];
          const put = (x: number, y: number): [number, number] => [
            x0 + y * Math.cos(n) - x * Math.sin(n),
            y0 + y * Math.sin(n) + x * Math.cos(n),
          ];
          const tooth: [number, number][] = [];
          for (let i = 0; i <= 60; i++) {
            const y = m.tooth.low + ((m.tooth.high - m.tooth.low) * i) / 60;
            tooth.push(put(-m.tooth.half(y), y));
          }
          for (let i = 60; i >= 0; i--) {
            const y = m.tooth.low + ((m.tooth.high - m.tooth.low) * i) / 60;
            tooth.push(put(m.tooth.half(y), y));
          }
          const psi = (u * 90) / 92;
          const flank = (side: number, k: number): [number, number] => {
            const y = m.ringTip + ((m.space.high - m.ringTip) * k) / 60;
            const x = side * m.space.half(y);
            return [y * Math.cos(psi) - x * Math.sin(psi), y * Math.sin(psi) + x * Math.cos(psi)];
          };
          let crosses = false;
          for (const side of [-1, 1]) for (let k = 1; k <= 60; k++) crosses ||= inside(...flank(side, k), tooth);
          const least = Math.min(s.ahead, s.behind);
          if (crosses) expect(least).toBeLessThan(3e-6);
          if (least < -8e-6) expect(crosses).toBe(true);
        },
      ),
      { numRuns: examples(150) },
    );
  });
});

describe('sides of teeth', () => {
  it('involute half widths lie on the involute', () => {
    const base = 30e-3;
    const side = involuteSide(0, 3e-3, 31e-3, base, 0.05);
    for (const y of [0, 1e-3, 2.2e-3]) {
      const x = side.half(y);
      const rho = Math.hypot(x, 31e-3 + y);
      const a = Math.acos(base / rho);
      // Between tabled heights it is straight: within ten nanometres.
      expect(Math.abs(Math.atan2(x, 31e-3 + y) - 0.05 + (Math.tan(a) - a)) * rho).toBeLessThan(1.2e-8);
    }
  });
  it('round ones end in a point at their top', () => {
    const s = roundSide(0, 0.5e-3, 1e-3);
    expect([s.half(0.2e-3), s.half(0.5e-3), s.half(1.5e-3)]).toEqual([1e-3, 1e-3, 0]);
    expect(s.high).toBeCloseTo(1.5e-3, 12);
    // A circle about 0.5 mm: three fifths up it is four fifths wide, and stands as steep.
    expect(s.half(1.1e-3)).toBeCloseTo(0.8e-3, 12);
    expect([s.cosine(0.2e-3), s.cosine(1.1e-3)]).toEqual([1, expect.closeTo(0.8, 12)]);
  });
});
