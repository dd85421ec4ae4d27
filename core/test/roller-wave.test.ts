import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatten, readParams, stageKind, type Duty } from '../src/index.ts';
import {
  leastHollow,
  pathCurvature,
  ringOutline,
  ringPoint,
  ringReach,
  rollerAt,
  rowState,
  type RollerWave,
} from '../src/stage/roller-wave/wave.ts';
import { lobesOf, rollerWaveRatio } from '../src/stage/roller-wave/params.ts';
import { cold, distanceTo } from './helpers.ts';
import { withFactor } from '../src/shop/shelf.ts';
import { analyseOf, drawingOf, partsOf, stageOf } from './stage-bench.ts';

interface WaveCase {
  eccentric_radius_mm: number;
  roller_radius_mm: number;
  eccentricity_mm: number;
  rollers: number;
  ring_lobes: number;
  ratio_ring_held_cage_out: number;
  ratio_cage_held_ring_out: number;
  ring_max_radius_mm: number;
  ring_min_radius_mm: number;
  least_radius_of_roller_path_concave_mm: number;
  undercut: boolean;
  ring_point_at_10_deg_of_polar_parameter_mm: [number, number];
}
const cases = JSON.parse(readFileSync(new URL('./cases/roller-wave.json', import.meta.url), 'utf8')) as WaveCase[];
const kind = stageKind('roller-wave')!;
const duty: Duty = { torque: 4, torqueRms: 2, speed: 2, meanSpeed: 1, equivalent: 2.5 };
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('roller-wave', { ...(kind.starts as object), ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const report = (over: Record<string, unknown>, at: Duty = duty) => {
  const r = analyseOf(kind, params(over), at, cold);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const waveOf = (c: WaveCase): RollerWave => ({
  eccentric: c.eccentric_radius_mm * 1e-3,
  roller: c.roller_radius_mm * 1e-3,
  throw: c.eccentricity_mm * 1e-3,
  rollers: c.rollers,
  lobes: c.ring_lobes,
});

describe('the profile of a roller wave', () => {
  const waves = cases.map(waveOf).filter((w) => leastHollow(w) > w.roller);

  it('bends as its points do, by finite differences', () => {
    for (const w of waves)
      for (const share of [0, 0.13, 0.31, 0.5, 0.77, 1]) {
        const theta = (share * Math.PI) / w.lobes;
        // Against rounding, four tenths of a degree of a lobe; five points, whose error goes with the fourth power.
        const h = 7e-3 / w.lobes;
        const at = (k: number) => ringPoint(w, theta + k * h, 0);
        const [a, b, c, d, e] = [-2, -1, 0, 1, 2].map(at);
        const first = (i: 0 | 1) => (a![i] - 8 * b![i] + 8 * d![i] - e![i]) / (12 * h);
        const second = (i: 0 | 1) => (-a![i] + 16 * b![i] - 30 * c![i] + 16 * d![i] - e![i]) / (12 * h * h);
        const [x1, y1, x2, y2] = [first(0), first(1), second(0), second(1)];
        const bend = (x1 * y2 - y1 * x2) / Math.hypot(x1, y1) ** 3;
        expect(Math.abs(pathCurvature(w, theta) - bend)).toBeLessThan(1e-4 * Math.abs(bend) + 1e-3);
      }
  });

  it('is hollow at least as its sharpest place, looked for at a hundred thousand', () => {
    for (const w of waves) {
      let most = 0;
      for (let i = 0; i <= 100_000; i++) most = Math.max(most, -pathCurvature(w, (Math.PI * i) / 1e5 / w.lobes));
      expect(leastHollow(w) * most).toBeCloseTo(1, 7);
    }
  });

  it('is drawn with chords that stray less than a tolerance, and hardly more of them than that takes', () => {
    for (const w of waves)
      for (const [offset, tolerance] of [
        [w.roller, 2e-6],
        [w.roller + 4e-5, 2e-7],
      ] as const) {
        const { points } = ringOutline(w, offset, tolerance);
        const n = points.length / 3;
        let most = 0;
        for (let i = 0; i < n; i++) {
          const [x0, y0] = [points[3 * i]!, points[3 * i + 1]!];
          const [x1, y1] = [points[(3 * i + 3) % (3 * n)]!, points[(3 * i + 4) % (3 * n)]!];
          const [x, y] = ringPoint(w, (2 * Math.PI * (i + 0.5)) / n, offset);
          most = Math.max(most, Math.abs((x1 - x0) * (y0 - y) - (x0 - x) * (y1 - y0)) / Math.hypot(x1 - x0, y1 - y0));
        }
        expect(most).toBeLessThan(tolerance);
        // Points are as dense everywhere as the sharpest place takes, by a bound: up to thirty times as near as asked.
        expect(n % w.lobes).toBe(0);
        expect(most).toBeGreaterThan(tolerance / 40);
      }
  });

  it('plays by gaps, slots and half of what the eccentric is off; at most by profile and places as well', () => {
    const numbers = (id?: string) => {
      const s = id ? withFactor(cold, id, 0) : cold;
      const r = stageOf(kind, params({}), s).load(duty);
      return r.play;
    };
    const [likely, least, most] = numbers();
    const still = numbers('lobe.crank');
    const half = likely - still[0];
    expect(half).toBeGreaterThan(0);
    expect(most - still[2]).toBeCloseTo(2 * half, 12);
    expect(still[1]).toBe(least);
    // Beyond the eccentric both together by squares; either alone says which.
    const wrong = (x: readonly number[]) => x[2]! - likely - half;
    const [place, profile] = [wrong(numbers('lobe.profile')), wrong(numbers('lobe.place'))];
    expect(Math.min(place, profile)).toBeGreaterThan(0);
    expect(wrong(numbers())).toBeCloseTo(Math.hypot(place, profile), 12);
    expect(least).toBeCloseTo(Math.max(0, likely - half - wrong(numbers())), 12);
  });
});

describe('roller waves against an independent calculation', () => {
  for (const c of cases)
    it(`${c.rollers} rollers in ${c.ring_lobes} lobes, eccentricity ${c.eccentricity_mm}`, () => {
      const w = waveOf(c);
      const more = c.ring_lobes - c.rollers;
      expect(rollerWaveRatio({ rollers: c.rollers, more, held: 'ring' })).toBe(c.ratio_ring_held_cage_out);
      expect(rollerWaveRatio({ rollers: c.rollers, more, held: 'cage' })).toBe(c.ratio_cage_held_ring_out);
      const [least, most] = ringReach(w);
      expect(most * 1e3).toBeCloseTo(c.ring_max_radius_mm, 6);
      // Undercut, the curve has a loop there, whose nearest point a coarse look misses by a third of a micrometre.
      expect(least * 1e3).toBeCloseTo(c.ring_min_radius_mm, c.undercut ? 3 : 4);
      expect(leastHollow(w) * 1e3).toBeCloseTo(c.least_radius_of_roller_path_concave_mm, 3);
      expect(leastHollow(w) < w.roller).toBe(c.undercut);
      const [x, y] = ringPoint(w, (10 * Math.PI) / 180);
      expect(x * 1e3).toBeCloseTo(c.ring_point_at_10_deg_of_polar_parameter_mm[0], 5);
      expect(y * 1e3).toBeCloseTo(c.ring_point_at_10_deg_of_polar_parameter_mm[1], 5);
      // The stage says the same, and refuses what is undercut.
      const r = analyseOf(
        kind,
        params({
          rollers: c.rollers,
          more,
          roller: 2 * c.roller_radius_mm * 1e-3,
          throw: c.eccentricity_mm * 1e-3,
          bearing: '61802',
          sleeve: (c.eccentric_radius_mm - 12) * 1e-3,
          gap: 0,
        }),
        duty,
        cold,
      );
      expect(r.ok).toBe(!c.undercut);
      if (r.ok) {
        const value = (id: string) => r.value.figures.find((f) => f.id === id)!.value;
        expect(value('deep') * 500).toBeCloseTo(c.ring_max_radius_mm, 6);
        expect(value('near') * 500).toBeCloseTo(c.ring_min_radius_mm, 4);
        expect(value('hollow') * 1e3).toBeCloseTo(c.least_radius_of_roller_path_concave_mm, 3);
      } else expect(r.problem).toMatchObject({ place: 'throw', fix: { path: 'throw' } });
    });
});

describe('rollers of a wave', () => {
  const some = cases.filter((c) => !c.undercut);

  it('touch eccentric and ring at every crank, within a tenth of a micrometre', () => {
    for (const c of some) {
      const w = waveOf(c);
      const ring = flatten(ringOutline(w, w.roller, 1e-9), 1e-9);
      const side = c.ring_lobes > c.rollers ? 1 : -1;
      for (const crank of [0, 0.3, 1.1, 2.9]) {
        // Cage held: the ring has turned by the crank over its lobes.
        const turned = crank / (side * c.ring_lobes);
        for (let k = 0; k < c.rollers; k++) {
          const a = (2 * Math.PI * k) / c.rollers;
          const rho = rollerAt(w, a - crank);
          const [x, y] = [rho * Math.cos(a), rho * Math.sin(a)];
          expect(
            Math.hypot(x - w.throw * Math.cos(crank), y - w.throw * Math.sin(crank)) - w.eccentric - w.roller,
          ).toBeCloseTo(0, 12);
          const [cs, sn] = [Math.cos(-turned), Math.sin(-turned)];
          expect(
            Math.abs(distanceTo(ring, cs * x - sn * y, sn * x + cs * y) - w.roller),
            `${c.rollers} at ${crank}`,
          ).toBeLessThan(1e-7);
        }
      }
    }
  });

  it('balance: what they push on ring, cage and eccentric has no moment left, and the crank’s is the ring’s over its ratio', () => {
    for (const c of some) {
      const w = waveOf(c);
      const side = c.ring_lobes > c.rollers ? 1 : -1;
      for (const crank of [0.2, 1.3]) {
        const s = rowState(w, crank, 0);
        // Any forces on those that the ring's turn presses.
        const forces = Array.from(s.arms, (arm, k) => (arm > 0 ? arm * (1 + (k % 3)) : 0));
        let [ring, cage, shaft] = [0, 0, 0];
        forces.forEach((f, k) => {
          // Levers are told as what the ring closes: it is pushed back by them.
          ring -= f * s.arms[k]!;
          cage += -f * s.wall[k]! * s.rho[k]!;
          shaft += w.throw * (Math.cos(crank) * f * s.ey[k]! - Math.sin(crank) * f * s.ex[k]!);
        });
        expect((ring + cage + shaft) / ring).toBeCloseTo(0, 9);
        // Without loss: ω_crank = ±W·ω_ring with the cage held.
        expect(-ring / shaft).toBeCloseTo(side * c.ring_lobes, 6);
      }
    }
  });

  it('have levers that are how their gap closes as the ring turns a little', () => {
    const w = waveOf(some[0]!);
    const ring = flatten(ringOutline(w, w.roller, 1e-10), 1e-10);
    const s = rowState(w, 0, 0);
    for (const k of [3, 5, 8, 14]) {
      const a = (2 * Math.PI * k) / w.rollers;
      const rho = rollerAt(w, a);
      const turn = 2e-4 * Math.sign(s.arms[k]!);
      // The ring turned on by a little is the roller turned back by it.
      const [x, y] = [rho * Math.cos(a - turn), rho * Math.sin(a - turn)];
      expect((w.roller - distanceTo(ring, x, y)) / turn / s.arms[k]!).toBeCloseTo(1, 2);
    }
  });

  it('stand between the walls of their cage and in the ring, as drawn', () => {
    for (const over of [{}, { held: 'cage' }, { more: -1 }, { more: -1, held: 'cage' }]) {
      const drawn = drawingOf(kind, params(over), 0.7, { shelf: cold, duty });
      if (!drawn.ok) throw new Error(drawn.problem.what);
      const items = drawn.value[0]!.items.flatMap((i) => (i.kind === 'curve' ? [i] : []));
      const ring = items.find((i) => i.key === 'ring')!;
      const own = flatten(ring.outline, 1e-7);
      for (const i of items.filter((x) => x.key.startsWith('roller'))) {
        const [c, s] = [Math.cos(-ring.at.turn), Math.sin(-ring.at.turn)];
        const d = distanceTo(own, c * i.at.x - s * i.at.y, s * i.at.x + c * i.at.y);
        // The gap of forty micrometres, drawn with chords.
        expect(d - 2e-3, `${JSON.stringify(over)} ${i.key}`).toBeGreaterThan(2.5e-5);
        expect(d - 2e-3).toBeLessThan(5e-5);
      }
    }
  });
});

describe('a roller wave stage', () => {
  it('turns its output as the four arrangements have it', () => {
    const ratio = (over: Record<string, unknown>) => report(over).numbers.ratio;
    expect([ratio({}), ratio({ more: -1 }), ratio({ held: 'cage' }), ratio({ held: 'cage', more: -1 })]).toEqual([
      -20, 20, 21, -19,
    ]);
    expect(lobesOf({ rollers: 20, more: -1 })).toBe(19);
  });

  it('has two rows that cancel the shaking of one, and share its load', () => {
    const [one, two] = [report({ rows: 1 }), report({ rows: 2 })];
    const shaking = (r: typeof one) => r.figures.find((f) => f.id === 'shaking')!.value;
    expect(shaking(one)).toBeGreaterThan(0);
    expect(shaking(two)).toBe(0);
    const force = (r: typeof one) => r.figures.find((f) => f.id === 'force')!.value;
    expect(force(two)).toBeLessThan(0.8 * force(one));
    // Rows of a part lie turned by half a lobe.
    const made = partsOf(kind, params({}), cold);
    if (!made.ok) throw new Error(made.problem.what);
    const [first, second] = [1, 2].map((row) => {
      const { points } = made.value
        .find((p) => p.id === `ring-${row}`)!
        .curves.find((c) => c.layer === 'profile')!.outline;
      return { radius: Math.hypot(points[0]!, points[1]!), at: Math.atan2(points[1]!, points[0]!) };
    });
    expect(second!.radius).toBeCloseTo(first!.radius, 12);
    const half = Math.PI / lobesOf(params({}) as unknown as { rollers: number; more: 1 | -1 });
    const apart = Math.abs(second!.at - first!.at) / half;
    expect(Math.abs(apart - Math.round(apart))).toBeLessThan(1e-9);
    expect(Math.round(apart) % 2).toBe(1);
  });

  it('has less play the smaller the gap and the steeper the wave, and none of a negative band', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1.5e-4, noNaN: true }),
        fc.double({ min: 2e-4, max: 4.2e-4, noNaN: true }),
        (gap, lift) => {
          const r = analyseOf(kind, params({ gap, throw: lift }), duty, cold);
          const wider = analyseOf(kind, params({ gap: gap + 2e-5, throw: lift }), duty, cold);
          const steeper = analyseOf(kind, params({ gap, throw: lift * 1.05 }), duty, cold);
          if (!r.ok || !wider.ok || !steeper.ok) return;
          expect(r.value.numbers.play[1]).toBeGreaterThanOrEqual(0);
          expect(wider.value.numbers.play[0]).toBeGreaterThan(r.value.numbers.play[0]);
          expect(steeper.value.numbers.play[0]).toBeLessThanOrEqual(r.value.numbers.play[0]);
          expect(r.value.numbers.etaForward).toBeLessThan(1);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('refuses in words what does not go together', () => {
    for (const [over, place] of [
      [{ throw: 1.2e-3 }, 'throw'],
      [{ rollers: 34, throw: 1.5e-4 }, 'rollers'],
      [{ shaft: 0.02 }, 'shaft'],
      [{ bearing: '9999' }, 'bearing'],
    ] as const) {
      const r = analyseOf(kind, params(over), duty, cold);
      expect(r.ok, place).toBe(false);
      if (!r.ok) expect(r.problem.place).toBe(place);
    }
  });

  it('holds its cage’s walls six times as well at both ends as at one', () => {
    const limit = (carriedBy: string) =>
      report({ carriedBy }).numbers.limits.find((l) => l.mode.includes('walls'))!.torque;
    expect(limit('both') / limit('plate')).toBeCloseTo(6, 6);
  });
});
