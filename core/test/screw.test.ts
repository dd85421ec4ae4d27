import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readParams, stageKind, workingOf, type Duty, type Factor } from '../src/index.ts';
import { addedUp } from './adds-up.ts';
import { cold } from './helpers.ts';
import { analyseOf } from './stage-bench.ts';
import { forceOn, nutLoad } from '../src/stage/screw/nuts.ts';
import { eulerLoad, ENDS, frictionAngleOf, screwWork, threadOf, whirlSpeed } from '../src/stage/screw/thread.ts';

interface ScrewCase {
  pitch_diameter_mm: number;
  lead_mm: number;
  half_flank_angle_deg: number;
  friction: number;
  force_N: number;
  collar_friction: number;
  collar_diameter_mm: number;
  lead_angle_deg: number;
  torque_raise_Nmm: number;
  torque_lower_Nmm: number;
  efficiency: number;
  thread_efficiency_backward: number;
  thread_holds: boolean;
}
interface Rod {
  E_GPa: number;
  density: number;
  core_mm: number;
  free_length_mm: number;
  ends: keyof typeof ENDS;
  buckling_load_N: number;
  first_whirl_rpm: number;
}
const { screws, rods } = JSON.parse(readFileSync(new URL('./cases/screw.json', import.meta.url), 'utf8')) as {
  screws: ScrewCase[];
  rods: Rod[];
};
const kind = stageKind('screw')!;
const deg = Math.PI / 180;
const duty: Duty = { torque: 200, torqueRms: 80, speed: 0.02, meanSpeed: 0.01, equivalent: 100, swing: 0.2 };
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('screw', { ...(kind.starts as object), ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const report = (over: Record<string, unknown>, at: Duty = duty, shelf = cold) => {
  const r = analyseOf(kind, params(over), at, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const value = (r: ReturnType<typeof report>, id: string): number => r.figures.find((f) => f.id === id)!.value;

describe('threads against an independent calculation', () => {
  for (const c of screws)
    it(`⌀ ${c.pitch_diameter_mm}, lead ${c.lead_mm}, friction ${c.friction}`, () => {
      const d2 = c.pitch_diameter_mm * 1e-3;
      const lead = c.lead_mm * 1e-3;
      const angle = Math.atan(lead / (Math.PI * d2));
      expect(angle / deg).toBeCloseTo(c.lead_angle_deg, 6);
      const rho = frictionAngleOf(c.friction, c.half_flank_angle_deg * deg, angle);
      const collar = (c.collar_friction * c.collar_diameter_mm * 1e-3) / 2;
      const work = screwWork({ pitchDiameter: d2, lead, angle }, rho, collar);
      expect(work.raise * c.force_N * 1e3).toBeCloseTo(c.torque_raise_Nmm, 4);
      expect(work.lower * c.force_N * 1e3).toBeCloseTo(c.torque_lower_Nmm, 4);
      expect(work.forward).toBeCloseTo(c.efficiency, 7);
      expect(screwWork({ pitchDiameter: d2, lead, angle }, rho, 0).backward).toBeCloseTo(
        c.thread_efficiency_backward,
        7,
      );
      expect(rho >= angle).toBe(c.thread_holds);
    });

  it('are what the stage computes with: the first and the third, their friction set in the shop', () => {
    for (const [c, diameter, collar] of [
      [screws[0]!, 8e-3, false],
      [screws[2]!, 12e-3, true],
    ] as const) {
      const factors: Record<string, Factor> = {
        ...cold.factors,
        'screw.friction': { ...cold.factors['screw.friction']!, value: c.friction },
      };
      if (collar) factors['screw.collar'] = { ...cold.factors['screw.collar']!, value: c.collar_friction };
      const shelf = { ...cold, factors };
      const r = report(
        {
          diameter,
          pitch: c.lead_mm * 1e-3,
          nutDiameter: 2.5 * diameter,
          collar: collar ? 'plain' : 'bearing',
          collarDiameter: Math.max(1e-3, c.collar_diameter_mm * 1e-3),
        },
        { ...duty, torque: c.force_N },
        shelf,
      );
      expect(value(r, 'torque') * 1e3).toBeCloseTo(c.torque_raise_Nmm, 4);
      expect(value(r, 'efficiency')).toBeCloseTo(c.efficiency, 7);
      expect(value(r, 'lower') * 1e3).toBeCloseTo(c.torque_lower_Nmm, 4);
      // A thread that holds by itself turns back for no force.
      expect(r.numbers.etaBackward).toBeLessThan(0);
    }
  });
});

describe('bars against an independent calculation', () => {
  for (const c of rods)
    it(`⌀ ${c.core_mm}, ${c.free_length_mm} mm, ${c.ends}`, () => {
      const [e, d, l] = [c.E_GPa * 1e9, c.core_mm * 1e-3, c.free_length_mm * 1e-3];
      expect(eulerLoad(e, d, l, ENDS[c.ends].buckles)).toBeCloseTo(c.buckling_load_N, 3);
      expect((whirlSpeed(e, c.density, d, l, ENDS[c.ends].whirls) * 30) / Math.PI).toBeCloseTo(c.first_whirl_rpm, 3);
    });
});

describe('a screw', () => {
  it('has the sizes of ISO 2901: Tr 8 × 2 has a core of 5.5 mm and touches on 7', () => {
    const t = threadOf({ type: 'trapezoidal', diameter: 8e-3, pitch: 2e-3, starts: 1 });
    expect(t.core).toBeCloseTo(5.5e-3, 12);
    expect(t.pitchDiameter).toBeCloseTo(7e-3, 12);
  });

  it('gives out no more than goes in, either way', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5e-3, max: 2e-3, noNaN: true }),
        fc.integer({ min: 1, max: 8 }),
        fc.double({ min: 0.05, max: 0.3, noNaN: true }),
        (pitch, starts, friction) => {
          const t = threadOf({ type: 'trapezoidal', diameter: 8e-3, pitch, starts });
          const w = screwWork(t, frictionAngleOf(friction, 15 * deg, t.angle), 0);
          expect(w.forward).toBeGreaterThan(0);
          expect(w.forward).toBeLessThan(1);
          expect(w.backward).toBeLessThan(1);
          // Up and back down again loses on both ways.
          if (w.backward > 0) expect(w.forward * w.backward).toBeLessThan(w.forward);
        },
      ),
    );
  });

  it('turns by the sign of its hand', () => {
    expect(report({ hand: 'right' }).numbers.ratio).toBeCloseTo((2 * Math.PI) / 2e-3, 6);
    expect(report({ hand: 'left' }).numbers.ratio).toBeCloseTo((-2 * Math.PI) / 2e-3, 6);
  });

  it('holds by itself with one start and turns back with four; a ball screw never holds', () => {
    expect(report({}).numbers.etaBackward).toBeLessThanOrEqual(0);
    expect(report({ starts: 4 }).numbers.etaBackward).toBeGreaterThan(0);
    expect(report({ type: 'ball' }).numbers.etaBackward).toBeCloseTo(0.8, 12);
    expect(report({}).checks.find((c) => c.id === 'holds')).toMatchObject({ severity: 'note', limit: 1.5 });
  });

  it('lasts an eighth as long under twice the load on its balls, (C/F)³', () => {
    const life = (torque: number) =>
      report({ type: 'ball' }, { ...duty, torque, equivalent: torque }).numbers.limits.find(
        (l) => l.mode === 'ball nut wears out',
      )!.life;
    expect(life(200) / life(400)).toBeCloseTo(8, 9);
    // 4 kN over 200 N: 8000 million turns of 2 mm at 10 mm/s.
    expect(life(200)).toBeCloseTo((20 ** 3 * 1e6 * 2e-3) / 0.01, 0);
  });

  it('of two nuts has no play of theirs, rubs all the time, and lets one go beyond twice the preload', () => {
    const [one, two] = [report({ play: 8e-5 }), report({ nut: 'double', preload: 50 })];
    expect(one.numbers.play[0]).toBeGreaterThan(8e-5);
    expect(two.numbers.play[0]).toBeLessThan(1e-5);
    expect(value(two, 'opens')).toBeCloseTo(100, 9);
    expect(two.checks.find((c) => c.id === 'opens')).toMatchObject({
      state: 'fails',
      mend: { path: 'preload', value: 105 },
    });
    const t = threadOf({ type: 'trapezoidal', diameter: 8e-3, pitch: 2e-3, starts: 1 });
    const rho = frictionAngleOf(0.11, 15 * deg, t.angle);
    const rubs = 50 * 3.5e-3 * (Math.tan(t.angle + rho) + Math.tan(rho - t.angle));
    expect(two.numbers.drag - one.numbers.drag).toBeCloseTo(rubs, 9);
  });

  it('has nuts that carry what two springs against one another do, of threads exactly, of balls within a fortieth', () => {
    // Solved as k·(d₀ + x)^n − k·max(0, d₀ − x)^n = F.
    for (const [balls, preload, force, load] of [
      [false, 20, 10, 25],
      [false, 20, 30, 35],
      [false, 300, 500, 550],
      [true, 20, 10, 25.20918649],
      [true, 20, 30, 36.95103639],
      [true, 300, 500, 586.5106555],
      [true, 20, 100, 100],
      [false, 0, 70, 70],
    ] as const)
      expect(Math.abs(nutLoad({ preload, balls }, force) / load - 1)).toBeLessThan(balls ? 0.025 : 1e-9);
  });

  it('bears through its nuts just what loads them as far as they stand', () => {
    const force = fc.double({ min: 0.1, max: 1e4, noNaN: true });
    fc.assert(
      fc.property(fc.boolean(), force, force, (balls, preload, asked) => {
        const nuts = { preload, balls };
        expect(forceOn(nuts, nutLoad(nuts, asked)) / asked).toBeCloseTo(1, 6);
        expect(nutLoad(nuts, asked)).toBeGreaterThanOrEqual(asked);
      }),
    );
  });

  it('is told to press its nuts less where the preload takes what the load needs, and still presses both', () => {
    // A nut of 300 N static; two under 250 N bear no more than 91.
    const r = report({ type: 'ball', nut: 'double', preload: 250, static: 300 });
    const dents = r.checks.find((c) => c.id === 'dents')!;
    expect(dents.state).toBe('fails');
    expect(dents.mend).toMatchObject({ path: 'preload', value: Math.ceil(200 / 2 ** 1.5) });
    const mended = report({ type: 'ball', nut: 'double', preload: 71, static: 300 }).checks;
    expect(mended.find((c) => c.id === 'dents')!.state).not.toBe('fails');
    expect(mended.find((c) => c.id === 'opens')!.state).not.toBe('fails');
    // One nut alone would not bear it either: less preload is no mend.
    const weak = report({ type: 'ball', nut: 'double', preload: 250, static: 150 });
    expect(weak.checks.find((c) => c.id === 'dents')!.mend).toBeUndefined();
  });

  it('tells what the preload leaves of a nut in a working that comes to it', () => {
    const of = (over: Record<string, unknown>, id: string) => {
      const figure = report({ nut: 'double', ...over }).figures.find((f) => f.id === id)!;
      return { ...workingOf(figure)!, value: figure.value };
    };
    for (const [over, id, preload] of [
      [{ type: 'ball', preload: 250, static: 300 }, 'dents', 250],
      [{ preload: 6000 }, 'strips', 6000],
      [{ preload: 8000 }, 'crushes', 8000],
    ] as const) {
      const w = of(over, id);
      expect(w.terms.find((t) => t.symbol === 'F_v')?.value).toBe(preload);
      expect(addedUp(w)! / w.value).toBeCloseTo(1, 9);
    }
    // 300 N of 250 at rest: 707.1·((300/250)^⅔ − 1).
    expect(value(report({ type: 'ball', nut: 'double', preload: 250, static: 300 }), 'dents')).toBeCloseTo(
      91.3887676,
      6,
    );
    expect(of({ type: 'ball', preload: 20, static: 300 }, 'dents').terms.map((t) => t.symbol)).toEqual(['C₀']);
  });

  it('turns its twist into way: G·I_p/L·(2π/P)²', () => {
    const twist = report({}).numbers.springs.find((s) => s.name === 'screw twists')!.stiffness;
    expect(twist).toBeCloseTo((((210e9 / 2.6) * Math.PI * 0.0055 ** 4) / 32 / 0.24) * (Math.PI / 1e-3) ** 2, -3);
  });

  it('refuses in words a core that is cut away, and a nut that does not go round', () => {
    for (const [over, place] of [
      [{ pitch: 6e-3 }, 'pitch'],
      [{ nutDiameter: 8e-3 }, 'nutDiameter'],
      [{ bearing: 'none' }, 'bearing'],
    ] as const) {
      const r = analyseOf(kind, params(over), duty, cold);
      expect(r.ok).toBe(false);
      if (!r.ok) expect(r.problem.place).toBe(place);
    }
  });

  it('whirls before it turns too fast, and says what helps', () => {
    const c = report({ free: 0.9, stroke: 0.85 }, { ...duty, speed: 0.3 }).checks.find((x) => x.id === 'whirl')!;
    expect(c.state).toBe('fails');
    expect(c.mend ?? c.advice).toBeTruthy();
  });
});
