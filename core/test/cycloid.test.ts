import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  carry,
  contactSet,
  discOutline,
  discPlay,
  flatten,
  lobeCurve,
  pinGap,
  place,
  sampledError,
  stopContacts,
  smallestConvex,
  type Cycloid,
  type LobedPair,
} from '../src/index.ts';

const read = <T>(name: string): T =>
  JSON.parse(readFileSync(new URL(`./cases/${name}.json`, import.meta.url), 'utf8')) as T;
interface Shape {
  pin_circle_radius_mm: number;
  pin_radius_mm: number;
  eccentricity_mm: number;
  pins: number;
  smallest_convex_pin_path_radius_mm: number;
  undercut: boolean;
  max_radius_mm: number;
  min_radius_mm: number;
}
interface Play {
  pin_circle_radius_mm: number;
  pin_radius_mm: number;
  eccentricity_mm: number;
  pins: number;
  profile_allowance_mm: number;
  crank_deg: number;
  play_arcmin_output_holes_exact: number;
}
const of = (
  c: { pin_circle_radius_mm: number; pin_radius_mm: number; eccentricity_mm: number; pins: number },
  gap = 0,
): LobedPair => ({
  profile: {
    pins: c.pins,
    circle: c.pin_circle_radius_mm * 1e-3,
    pin: c.pin_radius_mm * 1e-3 + gap,
    throw: c.eccentricity_mm * 1e-3,
  },
  circle: c.pin_circle_radius_mm * 1e-3,
  pin: c.pin_radius_mm * 1e-3,
});

const any = fc
  .record({
    pins: fc.integer({ min: 5, max: 50 }),
    k: fc.double({ min: 0.15, max: 0.85, noNaN: true }),
    share: fc.double({ min: 0.1, max: 0.8, noNaN: true }),
    crank: fc.double({ min: -10, max: 10, noNaN: true }),
  })
  .map(({ pins, k, share, crank }) => {
    const circle = 0.03;
    const e = (k * circle) / pins;
    const most = Math.min(smallestConvex({ pins, circle, pin: 0, throw: e }), circle * Math.sin(Math.PI / pins));
    return { c: { pins, circle, pin: share * most, throw: e } as Cycloid, crank };
  });

describe('a cycloidal disc against worked figures', () => {
  it.each(read<Shape[]>('cycloidal'))('$pins pins on $pin_circle_radius_mm', (x) => {
    const { profile } = of(x);
    expect(smallestConvex(profile) * 1e3).toBeCloseTo(x.smallest_convex_pin_path_radius_mm, 4);
    expect(profile.pin >= smallestConvex(profile)).toBe(x.undercut);
    const p = flatten(discOutline(profile), 1e-8);
    let [low, high] = [Infinity, 0];
    for (let i = 0; i < p.length; i += 2)
      [low, high] = [Math.min(low, Math.hypot(p[i]!, p[i + 1]!)), Math.max(high, Math.hypot(p[i]!, p[i + 1]!))];
    expect(high * 1e3).toBeCloseTo(x.max_radius_mm, 4);
    expect(low * 1e3).toBeCloseTo(x.min_radius_mm, 4);
  });

  it.each(read<Play[]>('cycloidal-play'))(
    'play of $pins pins, $profile_allowance_mm off, crank at $crank_deg°',
    (x) => {
      const [a, b] = discPlay(of(x, x.profile_allowance_mm * 1e-3), (x.crank_deg * Math.PI) / 180);
      // The oracle is told to be good to 0.05′.
      expect(Math.abs(((b - a) * 10800) / Math.PI - x.play_arcmin_output_holes_exact)).toBeLessThan(0.06);
    },
  );
});

describe('a cycloidal disc', () => {
  it('touches every pin within a nanometre at any crank angle, and keeps an equidistant gap exactly', () => {
    fc.assert(
      fc.property(any, fc.double({ min: 0, max: 2e-4, noNaN: true }), ({ c, crank }, gap) => {
        const pair = { profile: { ...c, pin: c.pin + gap }, circle: c.circle, pin: c.pin };
        for (let j = 0; j < c.pins; j++) expect(Math.abs(pinGap(pair, j, crank) - gap)).toBeLessThan(1e-9);
      }),
      { numRuns: 200 },
    );
  });

  it('has its smallest convex radius where calculus puts it', () => {
    // ρ = (A − Bx)^1.5/(C − Dx) over x = cos((Z − 1)t); ρ′ = 0 at x = (1.5·BC − AD)/(0.5·BD).
    const c: Cycloid = { pins: 14, circle: 40e-3, throw: 1.4e-3, pin: 3e-3 };
    const [R, e, Z] = [40, 1.4, 14];
    const [A, B] = [R * R + (e * Z) ** 2, 2 * R * e * Z];
    const [C, D] = [R * R + e * e * Z ** 3, R * e * Z * (Z + 1)];
    const x = (1.5 * B * C - A * D) / (0.5 * B * D);
    expect(x).toBeCloseTo(-0.7507, 4);
    expect(smallestConvex(c) * 1e3).toBeCloseTo((A - B * x) ** 1.5 / (C - D * x), 9);
  });

  it('drawn as arcs, never stands in a pin and comes within 0.1 µm of each', () => {
    fc.assert(
      fc.property(any, ({ c, crank }) => {
        const o = flatten(
          place(discOutline(c, 2e-8), {
            x: c.throw * Math.cos(crank),
            y: c.throw * Math.sin(crank),
            turn: -crank / (c.pins - 1),
          }),
          2e-8,
        );
        for (let j = 0; j < c.pins; j += 3) {
          const [x, y] = [
            c.circle * Math.cos((2 * Math.PI * j) / c.pins),
            c.circle * Math.sin((2 * Math.PI * j) / c.pins),
          ];
          let least = Infinity;
          for (let i = 0; i < o.length; i += 2) {
            const n = (i + 2) % o.length;
            const [ax, ay, bx, by] = [o[i]!, o[i + 1]!, o[n]! - o[i]!, o[n + 1]! - o[i + 1]!];
            if (Math.abs(ax - x) > 2 * c.pin + 2e-3) continue;
            const u = Math.max(0, Math.min(1, ((x - ax) * bx + (y - ay) * by) / (bx * bx + by * by)));
            least = Math.min(least, Math.hypot(x - ax - u * bx, y - ay - u * by));
          }
          expect(Math.abs(least - c.pin)).toBeLessThan(1e-7);
        }
      }),
      { numRuns: 12 },
    );
  });

  it('is the curve of the usual formula', () => {
    const c = { pins: 12, circle: 40e-3, pin: 3e-3, throw: 1.2e-3 };
    const curve = lobeCurve(c);
    const out = new Float64Array(3);
    for (let i = 0; i <= 20; i++) {
      curve(i / 20, out);
      const t = (2 * Math.PI * i) / 20 / 11;
      const psi = Math.atan2(Math.sin(-11 * t), 40 / (1.2 * 12) - Math.cos(-11 * t));
      expect(out[0]! * 1e3).toBeCloseTo(40 * Math.cos(t) - 3 * Math.cos(t + psi) - 1.2 * Math.cos(12 * t), 9);
      expect(-out[1]! * 1e3).toBeCloseTo(-40 * Math.sin(t) + 3 * Math.sin(t + psi) + 1.2 * Math.sin(12 * t), 9);
    }
  });

  it('plays by about 2δ/((Z − 1)e), less with a larger eccentricity', () => {
    const at = (e: number) => {
      const [a, b] = discPlay(
        { profile: { pins: 16, circle: 0.03, pin: 2.04e-3, throw: e }, circle: 0.03, pin: 2e-3 },
        0.3,
      );
      return b - a;
    };
    expect(at(0.8e-3) / (8e-5 / (15 * 0.8e-3))).toBeCloseTo(1, 1);
    expect(at(1.2e-3)).toBeLessThan(at(0.8e-3));
  });

  it('carries a torque by the pins on one side; their moments make it up; more torque brings more pins in', () => {
    const tight: LobedPair = {
      profile: { pins: 14, circle: 0.04, pin: 3.02e-3, throw: 1.4e-3 },
      circle: 0.04,
      pin: 3e-3,
    };
    const set = contactSet(tight, 0.4);
    const sum = (t: number) => {
      const c = carry([set], 5e7, t);
      return { c, moment: c.forces.reduce((s, f, j) => s + f * set.arms[j]!, 0) };
    };
    for (const t of [0.1, 5, -5]) expect(sum(t).moment).toBeCloseTo(t, 6);
    expect(sum(20).c.carrying).toBeGreaterThan(sum(0.2).c.carrying);
    const exact = contactSet({ ...tight, profile: { ...tight.profile, pin: 3e-3 } }, 0.4);
    expect(carry([exact], 5e7, 5).carrying).toBeGreaterThanOrEqual(6);
    // A second disc opposite is stiffer together, though each brings fewer pins in.
    const other = contactSet(tight, 0.4 + Math.PI);
    expect(carry([set, other], 5e7, 10).stiffness).toBeGreaterThan(1.1 * carry([set], 5e7, 10).stiffness);
  });

  it('is off by what the ring’s circle is off, seen along each contact’s normal', () => {
    const pair: LobedPair = { profile: { pins: 11, circle: 0.02995, pin: 2e-3, throw: 1e-3 }, circle: 0.03, pin: 2e-3 };
    const set = contactSet(pair, 0);
    for (let j = 0; j < 11; j++) {
      const a = (2 * Math.PI * j) / 11;
      expect(Math.abs(set.gaps[j]! + 5e-5 * (Math.cos(a) * set.nx[j]! + Math.sin(a) * set.ny[j]!))).toBeLessThan(
        1.5e-6,
      );
    }
  });

  it('errs over a turn by what pins and lobes are off, by sampling: none without, in proportion with, the same for a seed', () => {
    const pair: LobedPair = {
      profile: { pins: 14, circle: 0.04, pin: 3.05e-3, throw: 1.4e-3 },
      circle: 0.04,
      pin: 3e-3,
    };
    const none = sampledError(stopContacts(pair), 0, 0);
    const one = sampledError(stopContacts(pair), 2e-5, 0);
    expect(sampledError(stopContacts(pair), 2e-5, 0)).toEqual(one);
    // What is left without errors is the ripple of the gap itself.
    expect(one.likely).toBeGreaterThan(1.5 * none.likely);
    const two = sampledError(stopContacts(pair), 4e-5, 0);
    expect((two.likely - none.likely) / (one.likely - none.likely)).toBeGreaterThan(1.4);
    expect((two.likely - none.likely) / (one.likely - none.likely)).toBeLessThan(2.8);
    expect(one.low).toBeLessThanOrEqual(one.likely);
    expect(one.high).toBeGreaterThan(one.likely);
    // Of the order of the error over the levers' arm, (Z − 1)·e.
    expect(two.likely).toBeGreaterThan(4e-5 / (14 * 1.4e-3) / 4);
    expect(two.likely).toBeLessThan((4 * 4e-5) / (13 * 1.4e-3));
  });
});
