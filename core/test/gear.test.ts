import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  area,
  flatten,
  gear,
  gearOutline,
  gearSize,
  halfAt,
  inv,
  inverseInv,
  meshPair,
  spanOver,
  spanTeeth,
  toothSide,
  type Gear,
  type Outline,
  type Pair,
} from '../src/index.ts';

const deg = Math.PI / 180;

/** Signed distance to a gear's outline, positive outside: only the pieces near the point's own angle are looked at. */
class Near {
  private readonly p: Float64Array;
  private readonly buckets: number[][];
  constructor(
    o: Outline,
    chord: number,
    private readonly teeth: number,
  ) {
    this.p = flatten(o, chord);
    this.buckets = Array.from({ length: teeth }, () => []);
    for (let i = 0; i < this.p.length; i += 2) this.buckets[this.bucket(this.p[i]!, this.p[i + 1]!)]!.push(i);
  }
  private bucket(x: number, y: number): number {
    return ((Math.round((Math.atan2(y, x) / (2 * Math.PI)) * this.teeth) % this.teeth) + this.teeth) % this.teeth;
  }
  distance(x: number, y: number): number {
    const p = this.p;
    const at = this.bucket(x, y);
    let best = Infinity;
    let sign = 1;
    for (const b of [at - 1, at, at + 1]) {
      for (const i of this.buckets[(b + this.teeth) % this.teeth]!) {
        const j = (i + 2) % p.length;
        const [dx, dy] = [p[j]! - p[i]!, p[j + 1]! - p[i + 1]!];
        const t = Math.max(0, Math.min(1, ((x - p[i]!) * dx + (y - p[i + 1]!) * dy) / (dx * dx + dy * dy || 1)));
        const [ex, ey] = [x - p[i]! - t * dx, y - p[i + 1]! - t * dy];
        const d = ex * ex + ey * ey;
        // Counter-clockwise, the outside lies to the right of travel.
        if (d < best) [best, sign] = [d, ex * dy - ey * dx >= 0 ? 1 : -1];
      }
    }
    return sign * Math.sqrt(best);
  }
}

/**
 * How deep wheel 1's outline enters wheel 2's material at a turn of wheel 1, and how near it comes: the least signed
 * gap, m.
 */
function leastGap(p: Pair, turn: number, pts: Float64Array, other: Near, side: number): number {
  const u = p.g2.teeth / p.g1.teeth;
  // Wheel 1 at the origin with a tooth on the x axis; wheel 2's space (a ring's too) faces it.
  const turn2 = p.ring ? turn / u : Math.PI + Math.PI / p.g2.teeth - turn / u;
  const centre = p.ring ? -p.centre : p.centre;
  const [c1, s1] = [Math.cos(turn), Math.sin(turn)];
  const [c2, s2] = [Math.cos(-turn2), Math.sin(-turn2)];
  let least = Infinity;
  for (let i = 0; i < pts.length; i += 2) {
    const x = c1 * pts[i]! - s1 * pts[i + 1]! - centre;
    const y = s1 * pts[i]! + c1 * pts[i + 1]!;
    const radius = Math.hypot(x, y);
    if (p.ring ? radius < p.s2.ra * 0.995 : radius > p.s2.ra * 1.005) continue;
    least = Math.min(least, side * other.distance(c2 * x - s2 * y, s2 * x + c2 * y));
  }
  return least;
}

const pairOf = (g1: Gear, g2: Gear): Pair => {
  const made = meshPair(g1, g2);
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};

describe('conjugate action', () => {
  const anyPair = fc.record({
    z1: fc.integer({ min: 8, max: 30 }),
    u: fc.double({ min: 1.3, max: 3.5, noNaN: true }),
    x1: fc.double({ min: -0.1, max: 0.6, noNaN: true }),
    x2: fc.double({ min: -0.3, max: 0.5, noNaN: true }),
    pressure: fc.constantFrom(20, 22.5, 25),
    helix: fc.constantFrom(0, 15, 28),
    ring: fc.boolean(),
  });
  it('two wheels at their play-free centres never overlap and always touch, within 0.1 µm', () => {
    let tried = 0;
    fc.assert(
      fc.property(anyPair, (q) => {
        const z2 = Math.round(q.z1 * q.u) + (q.ring ? 16 : 0);
        const base = { module: 1e-3, pressure: q.pressure * deg };
        const g1 = gear({ ...base, teeth: q.z1, shift: q.x1, helix: q.helix * deg, short: 0.1e-3 });
        const g2 = gear({
          ...base,
          teeth: z2,
          shift: q.ring ? q.x1 + Math.abs(q.x2) / 3 : q.x2,
          helix: -q.helix * deg,
          ring: q.ring,
          short: 0.1e-3,
          cutter: q.z1,
        });
        const t1 = toothSide(g1);
        const t2 = toothSide(g2);
        const p = pairOf(g1, g2);
        // Only pairs that mesh cleanly: no undercut, contact on the involutes, clear of interference.
        const l1 = Math.sqrt(t1.form ** 2 - t1.size.rb ** 2);
        const l2 = Math.sqrt(t2.form ** 2 - t2.size.rb ** 2);
        const far2 = q.ring ? p.centre * Math.sin(p.working) + p.end : p.centre * Math.sin(p.working) - p.end;
        if (
          t1.undercut ||
          t2.undercut ||
          t1.pointed ||
          t2.pointed ||
          p.start < l1 ||
          p.contact < 1.05 ||
          (q.ring ? far2 > l2 || z2 - q.z1 < 14 || g2.shift - g1.shift > 0.3 || t2.size.ra < t2.size.rb : far2 < l2)
        )
          return;
        tried++;
        const o1 = flatten(gearOutline(g1, 2e-8, t1), 1e-8);
        const other = new Near(gearOutline(g2, 2e-8, t2), 2e-8, z2);
        const pitch = (2 * Math.PI) / q.z1;
        for (let k = 0; k < 5; k++) {
          const gap = leastGap(p, (pitch * k) / 5, o1, other, q.ring ? -1 : 1);
          expect(gap, `overlap at ${k}`).toBeGreaterThan(-1e-7);
          expect(gap, `touch at ${k}`).toBeLessThan(1e-7);
        }
      }),
      { numRuns: 20 },
    );
    expect(tried).toBeGreaterThan(5);
  });
});

it('a shaper’s cutter has twelve teeth less than the ring, ten at least and twenty-five at most', () => {
  expect([15, 30, 60].map((teeth) => gear({ module: 1e-3, teeth }).cutter)).toEqual([10, 18, 25]);
});

describe('a tooth', () => {
  const anyGear = fc
    .record({
      teeth: fc.integer({ min: 6, max: 120 }),
      shift: fc.double({ min: -0.5, max: 0.8, noNaN: true }),
      pressure: fc.constantFrom(14.5, 20, 22.5, 25),
      helix: fc.constantFrom(0, 10, 30),
      ring: fc.boolean(),
      allowance: fc.double({ min: 0, max: 1e-4, noNaN: true }),
      fillet: fc.constantFrom(0, 0.2, 0.38),
      chamfer: fc.constantFrom(0, 1e-4),
    })
    .map((q) =>
      gear({
        module: 1e-3,
        teeth: q.ring ? q.teeth + 20 : q.teeth,
        shift: q.shift,
        pressure: q.pressure * deg,
        helix: q.helix * deg,
        ring: q.ring,
        allowance: q.allowance,
        fillet: q.fillet,
        chamfer: q.chamfer,
      }),
    );

  it('of a ring has its tip broken by 45° where it is chamfered, and no further than to the middle of the tooth', () => {
    const ends = (chamfer: number) => {
      const { pieces } = toothSide(gear({ module: 1e-3, teeth: 60, ring: true, chamfer }));
      const { curve } = pieces.find((p) => p.kind === 'chamfer')!;
      const p = new Float64Array(3);
      return [0, 1].map((u) => (curve(u, p), [Math.hypot(p[0]!, p[1]!), Math.atan2(p[1]!, p[0]!)] as const));
    };
    const [[flank, from], [tip, to]] = ends(1e-4) as [readonly [number, number], readonly [number, number]];
    // Radii of a ring of 60: tips at 29 mm.
    expect(tip).toBeCloseTo(0.029, 9);
    expect(flank).toBeCloseTo(0.0291, 9);
    expect((to - from) * tip).toBeCloseTo(1e-4, 9);
    expect(ends(1.5e-3)[1]![1]).toBeLessThanOrEqual(Math.PI / 60 + 1e-12);
  });

  it('has a side without steps, kinks between flank and root, or turns back', () => {
    fc.assert(
      fc.property(anyGear, (g) => {
        const side = toothSide(g);
        const p = new Float64Array(3);
        let last: [number, number, number] | undefined;
        for (const { kind, curve } of side.pieces) {
          curve(0, p);
          if (last) expect(Math.hypot(p[0]! - last[0], p[1]! - last[1]), `step before ${kind}`).toBeLessThan(1e-8);
          // Flank and root share their tangent unless the cutter has bitten into the flank.
          if (
            last &&
            (kind === 'fillet' || kind === 'flank') &&
            !side.undercut &&
            g.chamfer === 0 &&
            !(kind === 'flank' && !g.ring) &&
            side.form > side.size.rb * 1.000001
          )
            expect(Math.abs(Math.sin(p[2]! - last[2])), `kink before ${kind}`).toBeLessThan(1e-5);
          curve(1, p);
          last = [p[0]!, p[1]!, p[2]!];
        }
        expect(Math.atan2(last![1], last![0])).toBeCloseTo(Math.PI / g.teeth, 9);
        for (const { kind, curve } of side.pieces) {
          // The heading is the direction of travel.
          const q = new Float64Array(3);
          curve(0.5, p);
          curve(0.5001, q);
          const d = Math.atan2(q[1]! - p[1]!, q[0]! - p[0]!);
          if (Math.hypot(q[0]! - p[0]!, q[1]! - p[1]!) > 1e-12)
            expect(Math.cos(d - p[2]!), `heading of ${kind}`).toBeGreaterThan(0.999);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('its outline is whole: symmetrical, once round, and as fine as asked', () => {
    fc.assert(
      fc.property(anyGear, (g) => {
        const fine = gearOutline(g, 5e-8);
        const coarse = gearOutline(g, 2e-6);
        expect(Math.abs(area(coarse) - area(fine))).toBeLessThan(2e-6 * 2 * Math.PI * gearSize(g).r * 4);
        expect(area(fine)).toBeGreaterThan(0);
        const up = Float64Array.from(flatten(fine, 1e-7));
        let sx = 0;
        let sy = 0;
        for (let i = 0; i < up.length; i += 2) [sx, sy] = [sx + up[i]!, sy + up[i + 1]!];
        expect(Math.hypot(sx, sy) / (up.length / 2)).toBeLessThan(1e-7);
        expect(fine.points.every(Number.isFinite)).toBe(true);
      }),
      { numRuns: 30 },
    );
  });

  it('the caliper finds on the outline the span it is told: flanks k teeth apart along a base tangent', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 12, max: 90 }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0, max: 8e-5, noNaN: true }),
        (teeth, shift, allowance) => {
          const g = gear({ module: 1e-3, teeth, shift, allowance });
          const k = spanTeeth(g);
          const p = flatten(gearOutline(g, 1e-8), 1e-8);
          // The largest and smallest coordinate along a direction, over k teeth only: jaws are parallel planes.
          const mid = ((k - 1) * Math.PI) / teeth;
          const [c, s] = [Math.cos(mid + Math.PI / 2), Math.sin(mid + Math.PI / 2)];
          let [lo, hi] = [Infinity, -Infinity];
          const jaw = Math.hypot(gearSize(g).rb, spanOver(g, k) / 2);
          for (let i = 0; i < p.length; i += 2) {
            const a = Math.atan2(p[i + 1]!, p[i]!);
            let d = a - mid;
            d -= 2 * Math.PI * Math.round(d / (2 * Math.PI));
            if (Math.abs(d) > (k * Math.PI) / teeth || Math.abs(Math.hypot(p[i]!, p[i + 1]!) - jaw) > 1e-4) continue;
            const along = c * p[i]! + s * p[i + 1]!;
            [lo, hi] = [Math.min(lo, along), Math.max(hi, along)];
          }
          expect(Math.abs(hi - lo - spanOver(g, k))).toBeLessThan(2e-7);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('base pitches of a pair are alike, and a ring is the wheel that fills its spaces', () => {
    const g = gear({ module: 2e-3, teeth: 40, shift: 0.3 });
    const r = gear({ module: 2e-3, teeth: 40, shift: 0.3, ring: true });
    for (const radius of [38.5e-3, 40e-3, 41e-3])
      expect(halfAt(gearSize(g), radius)).toBeCloseTo(halfAt(gearSize(r), radius), 14);
  });

  it('inverts the involute function from end to end', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 1.5, noNaN: true }),
        (a) => void expect(inverseInv(inv(a))).toBeCloseTo(a, 9),
      ),
    );
  });
});
