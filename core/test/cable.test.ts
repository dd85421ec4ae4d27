import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readParams, stageKind, type Duty, type Factor } from '../src/index.ts';
import { cold } from './helpers.ts';
import { analyseOf, drawingOf } from './stage-bench.ts';

interface CableCase {
  drum_radius_1_mm: number;
  drum_radius_2_mm: number;
  cable_diameter_mm: number;
  EA_N: number;
  free_run_a_mm: number;
  free_run_b_mm: number;
  wraps: number;
  friction: number;
  torque_at_2_Nm: number;
  preload_N: number;
  ratio: number;
  stiffness_at_2_Nm_per_rad: number;
  tight_N: number;
  slack_N: number;
  least_preload_to_stay_taut_N: number;
  holds_by_friction_alone: boolean;
  bend_ratio_D_over_d: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/cable.json', import.meta.url), 'utf8')) as CableCase[];
const kind = stageKind('cable')!;
const LONG = 1e9;
const duty: Duty = { torque: 4, torqueRms: 2, speed: 2, meanSpeed: 1, equivalent: 2.5, swing: 2 };
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('cable', { ...(kind.starts as object), ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const report = (over: Record<string, unknown>, at: Duty = duty, shelf = cold) => {
  const { runA, runB, ...rest } = over;
  const runs = { ...(runA ? { runA } : {}), ...(runB ? { runB } : {}) };
  const r = analyseOf(kind, { ...params(rest), ...runs }, at, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const value = (r: ReturnType<typeof report>, id: string): number => r.figures.find((f) => f.id === id)!.value;
const limit = (r: ReturnType<typeof report>, mode: string): number =>
  r.numbers.limits.find((l) => l.mode.includes(mode))!.torque;

describe('cable drives against an independent calculation', () => {
  for (const c of cases)
    it(`${c.drum_radius_1_mm} and ${c.drum_radius_2_mm} mm, cable of ${c.cable_diameter_mm}`, () => {
      const friction: Factor = { ...cold.factors['cable.frictionSteel']!, value: c.friction };
      const r = report(
        {
          radius1: c.drum_radius_1_mm * 1e-3,
          radius2: c.drum_radius_2_mm * 1e-3,
          cable: c.cable_diameter_mm * 1e-3,
          rigidity: c.EA_N,
          runsBy: 'given',
          // So long that what lies on the drums and in the clamps, which the calculation leaves out, is nothing beside it.
          runA: c.free_run_a_mm * LONG * 1e-3,
          runB: c.free_run_b_mm * LONG * 1e-3,
          wraps: c.wraps,
          preload: c.preload_N,
          path: 'open',
          bore1: 4e-3,
        },
        { ...duty, torque: c.torque_at_2_Nm },
        { ...cold, factors: { ...cold.factors, 'cable.frictionSteel': friction } },
      );
      expect(value(r, 'ratio')).toBeCloseTo(c.ratio, 7);
      expect(value(r, 'runs') * LONG).toBeCloseTo(c.stiffness_at_2_Nm_per_rad, 3);
      expect(value(r, 'tight')).toBeCloseTo(c.tight_N, 3);
      expect(value(r, 'slack')).toBeCloseTo(c.slack_N, 3);
      expect(value(r, 'needs')).toBeCloseTo(c.least_preload_to_stay_taut_N, 3);
      expect(value(r, 'bend')).toBeCloseTo(c.bend_ratio_D_over_d, 9);
      expect(limit(r, 'slips') >= c.torque_at_2_Nm).toBe(c.holds_by_friction_alone);
    });
});

describe('a cable drive', () => {
  it('slips just where tight over slack is what friction holds', () => {
    const at = limit(report({ wraps: 1 }), 'slips');
    const r = report({ wraps: 1 }, { ...duty, torque: at });
    expect(value(r, 'tight') / value(r, 'slack')).toBeCloseTo(value(r, 'grip'), 6);
    expect(value(r, 'grip')).toBeCloseTo(Math.exp(0.15 * 2 * Math.PI), 9);
  });

  it('breaks where the pulling run reaches what its clamp bears, both runs taut or one hanging', () => {
    const force = 0.7 * 560;
    for (const preload of [60, 180]) {
      const at = limit(report({ preload }), 'breaks');
      expect(value(report({ preload }, { ...duty, torque: at }), 'tight')).toBeCloseTo(force, 6);
    }
  });

  it('is half as stiff once a run hangs, but for its drums on their shafts', () => {
    const { numbers: n } = report({});
    const drums = n.springs.filter((s) => s.name.endsWith('on its shaft'));
    expect(drums).toHaveLength(2);
    const give = drums.reduce((sum, s) => sum + 1 / s.stiffness, 0);
    expect((1 / n.stiffness - give) / (1 / n.stiffnessBeyond - give)).toBeCloseTo(0.5, 9);
    expect(n.bendTorque).toBeCloseTo((60 / 0.5) * 0.0505, 9);
  });

  it('turns the direction round in a figure of eight, and runs free lengths as tangents are', () => {
    expect(report({ path: 'eight' }).numbers.ratio).toBeCloseTo(-50.5 / 10.5, 9);
    expect(report({ path: 'open' }).numbers.ratio).toBeCloseTo(50.5 / 10.5, 9);
    expect(value(report({ path: 'eight' }), 'run')).toBeCloseTo(Math.sqrt(90 ** 2 - 61 ** 2) * 1e-3, 12);
    expect(value(report({ path: 'open' }), 'run')).toBeCloseTo(Math.sqrt(90 ** 2 - 40 ** 2) * 1e-3, 12);
    // The drawn runs leave the drums square to their radii.
    for (const path of ['eight', 'open']) {
      const drawn = drawingOf(kind, params({ path }), 0.3, { shelf: cold, duty });
      if (!drawn.ok) throw new Error(drawn.problem.what);
      const run = drawn.value.flatMap((l) => l.items).find((i) => i.key === 'run0');
      if (run?.kind !== 'curve') throw new Error('no run');
      const [x1, y1, , x2, y2] = run.outline.points as unknown as number[];
      expect(x1! * (x2! - x1!) + y1! * (y2! - y1!)).toBeCloseTo(0, 9);
      expect(Math.hypot(x2! - x1!, y2! - y1!)).toBeCloseTo(value(report({ path }), 'run'), 9);
    }
  });

  it('bounds its range by what a clamped drum stores, and says how many turns it takes', () => {
    const r = report({ hold: 'clamped', wraps: 3 });
    expect(value(r, 'stores')).toBeCloseTo((2 * Math.PI * 2 * 10.5) / 50.5, 9);
    const wide = report({ hold: 'clamped', wraps: 1 });
    const c = wide.checks.find((x) => x.id === 'range')!;
    expect(c.state).toBe('fails');
    expect(c.mend?.path).toBe('wraps');
    expect(r.numbers.limits.some((l) => l.mode.includes('slips'))).toBe(false);
  });

  it('of fibres bends round smaller drums, and is told to creep', () => {
    const steel = report({ radius1: 7e-3, bore1: 3e-3 }).checks.find((c) => c.id === 'bend')!;
    const fibre = report({ radius1: 7e-3, bore1: 3e-3, sort: 'aramid' }).checks.find((c) => c.id === 'bend')!;
    expect(steel.state).toBe('fails');
    expect(fibre.state).toBe('holds');
    expect(report({ sort: 'uhmwpe' }).checks.find((c) => c.id === 'creeps')).toMatchObject({
      state: 'fails',
      severity: 'note',
    });
  });

  it('refuses in words drums that touch and bores that cut through', () => {
    for (const [over, place] of [
      [{ centre: 0.05 }, 'centre'],
      [{ bore1: 0.02 }, 'bore1'],
      [{ bore2: 0.1 }, 'bore2'],
    ] as const) {
      const r = analyseOf(kind, params(over), duty, cold);
      expect(r.ok).toBe(false);
      if (!r.ok) expect(r.problem.place).toBe(place);
    }
  });

  it('lets drums stand no nearer than their rims, half a millimetre apart', () => {
    const { radius1, radius2, cable: wire } = params({}) as unknown as Record<string, number>;
    const least = radius1! + radius2! + 2 * 1.5 * wire! + 5e-4;
    const at = (centre: number) => analyseOf(kind, params({ runsBy: 'centre', centre }), duty, cold).ok;
    expect([at(least - 1e-6), at(least + 1e-6)]).toEqual([false, true]);
  });

  it('holds more the more turns it has, and never more than its clamps', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        fc.double({ min: 5, max: 150, noNaN: true }),
        (wraps, preload) => {
          const [less, more] = [report({ wraps, preload }), report({ wraps: wraps + 0.5, preload })];
          expect(limit(more, 'slips')).toBeGreaterThan(limit(less, 'slips'));
          // Whatever the turns, a run that hangs cannot hold.
          expect(limit(more, 'slips')).toBeLessThanOrEqual(more.numbers.bendTorque);
        },
      ),
      { numRuns: 30 },
    );
  });
});
