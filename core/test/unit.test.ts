import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  boundsOf,
  readParams,
  stageKind,
  whatChanged,
  withFactor,
  type Duty,
  type Layer,
  type Variant,
  workingOf,
} from '../src/index.ts';
import type { UnitParams } from '../src/stage/unit/params.ts';
import { demo, shelf } from './helpers.ts';
import { analyseOf, assemblyOf, drawingOf, partsOf, screenOf } from './stage-bench.ts';

const unit = stageKind('unit')!;
const base = unit.defaults({ ratio: 10, torque: 5, size: Infinity, shelf }) as UnitParams;
const p = (change: Partial<UnitParams>): UnitParams => ({ ...base, ...change });
const at: Duty = { torque: 4, torqueRms: 2, speed: 3 };
const numbers = (params: UnitParams, duty = at, s = shelf) => {
  const r = screenOf(unit, params, duty, s);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const layers = (params: UnitParams, crank = 0): readonly Layer[] => {
  const r = drawingOf(unit, params, crank, { shelf, duty: at });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

describe('a bought unit', () => {
  it('may turn the other way round, but has a ratio', () => {
    expect(readParams('unit', { ...base, ratio: -12 }).ok).toBe(true);
    for (const ratio of [0, 0.009, -0.009]) expect(readParams('unit', { ...base, ratio }).ok, `${ratio}`).toBe(false);
  });

  it('is what its data sheet says, with the shop’s spread about it', () => {
    const n = numbers(p({ ratio: -12, efficiency: 0.8, drag: 0.02, stiffness: 500, play: 1e-3, playMost: 2e-3 }));
    expect(n).toMatchObject({ ratio: -12, etaForward: 0.8, drag: 0.02, stiffness: 500, play: [1e-3, 0, 2e-3] });
    expect(numbers(p({ stiffness: 500 }), at, withFactor(shelf, 'unit.stiffness', 1.2)).stiffness).toBeCloseTo(600, 9);
    // No spread lifts a stage above lossless.
    expect(numbers(p({ efficiency: 0.99 }), at, withFactor(shelf, 'unit.efficiency', 1.03)).etaForward).toBe(1);
  });

  it('has play that is exact where likely and most are the same', () => {
    expect(numbers(p({ play: 1e-3, playMost: 1e-3 })).play).toEqual([1e-3, 1e-3, 1e-3]);
  });

  it('has bands of its own where they are given, and carries them through a line as they are', () => {
    const minute = Math.PI / 10800;
    const own = p({
      bandBy: 'given',
      play: 10 * minute,
      playLeast: 7 * minute,
      playMost: 15 * minute,
      stiffness: 400,
      stiffnessLeast: 350,
      stiffnessMost: 420,
      efficiency: 0.9,
      efficiencyLeast: 0.85,
      efficiencyMost: 0.93,
    });
    const report = analyseOf(unit, own, at, shelf);
    if (!report.ok) throw new Error(report.problem.what);
    const band = (id: string) => {
      const f = report.value.figures.find((x) => x.id === id)!;
      return [f.low, f.value, f.high];
    };
    expect(band('play')).toEqual([7, 10, 15].map((x) => expect.closeTo(x * minute, 12)));
    expect(band('stiffness')).toEqual([350, 400, 420].map((x) => expect.closeTo(x, 9)));
    expect(band('efficiency')).toEqual([0.85, 0.9, 0.93].map((x) => expect.closeTo(x, 12)));
    // An end that is not given is the shop's.
    const open = analyseOf(unit, { ...own, stiffnessMost: 0 }, at, shelf);
    expect(open.ok && open.value.figures.find((f) => f.id === 'stiffness')!.high).toBeCloseTo(480, 9);
    // Behind three to one of a belt without play it is a third at the output.
    const joint = demo();
    const variant = joint.variants[0]!;
    const belt = { ...variant.stages[0]!, params: { ...variant.stages[0]!.params, z1: 20, z2: 60 } };
    variant.stages = [{ id: 'u', kind: 'unit', params: own as never }, belt as never];
    const alone = structuredClone(variant);
    alone.stages = [belt as never];
    const play = (v: Variant) => analyseLine(joint, v, shelf).figures.find((f) => f.id === 'play')!;
    variant.stages = [{ id: 'u', kind: 'unit', params: own as never }];
    const single = play(variant);
    expect([single.low, single.value, single.high]).toEqual([7, 10, 15].map((x) => expect.closeTo(x * minute, 9)));
    variant.stages = [{ id: 'u', kind: 'unit', params: own as never }, belt as never];
    // The median of its triangle, 10.5′, and of what the belt has.
    expect(Math.abs(play(variant).value - play(alone).value - (10.5 * minute) / 3)).toBeLessThan(0.2 * minute);
  });

  it('refuses bands that are not in order, in words, and loses nothing', () => {
    for (const [change, why] of [
      [{ playLeast: 1 }, /least play/],
      [{ stiffnessLeast: 1e6 }, /stiffness between/],
      [{ stiffnessMost: 1 }, /stiffness between/],
      [{ efficiencyMost: 0.02 }, /efficiency between/],
    ] as const) {
      const read = readParams('unit', { ...base, bandBy: 'given', ...change });
      expect(read.ok ? '' : JSON.stringify(read.problem)).toMatch(why);
      expect(readParams('unit', { ...base, ...change }).ok).toBe(true);
    }
  });

  it('of an earlier version keeps the shop’s spread, and takes a found figure with its uncertainty', () => {
    const added = ['bandBy', 'playLeast', 'stiffnessLeast', 'stiffnessMost', 'efficiencyLeast', 'efficiencyMost'];
    const old = Object.fromEntries(Object.entries(base).filter(([k]) => !added.includes(k)));
    const read = readParams('unit', old);
    expect(read).toMatchObject({ ok: true, value: { bandBy: 'shop' } });
    const taken = unit.takes!.play!({ value: 3e-3, low: 2.5e-3, high: 3.5e-3 });
    const next = readParams('unit', { ...old, ...taken });
    if (!next.ok) throw new Error(next.problem.why);
    expect(numbers(next.value as unknown as UnitParams).play).toEqual([3e-3, 2.5e-3, 3.5e-3]);
    const stiff = readParams('unit', { ...old, ...unit.takes!.stiffness!({ value: 300, low: 290, high: 310 }) });
    expect(
      stiff.ok && numbers(stiff.value as unknown as UnitParams, at, withFactor(shelf, 'unit.given', -1)).stiffness,
    ).toBeCloseTo(290, 9);
  });

  it('lives as long as rated at rated torque and speed, ten times less at twice the torque, for ever where nothing is rated', () => {
    const rated: Duty = {
      torque: 8,
      torqueRms: 5,
      speed: 1,
      equivalent: base.ratedTorque,
      meanSpeed: base.ratedSpeed / base.ratio,
    };
    expect(numbers(base, rated).life).toBeCloseTo(base.ratedLife, 0);
    expect(numbers(base, { ...rated, equivalent: 2 * base.ratedTorque }).life / base.ratedLife).toBeCloseTo(
      2 ** (-10 / 3),
      9,
    );
    expect(numbers(p({ ratedLife: 0 }), rated).life).toBe(Infinity);
  });

  it('fails its checks beyond its torques and speed, and each mend passes', () => {
    const heavy: Duty = {
      torque: base.peakTorque * 1.3,
      torqueRms: base.ratedTorque * 1.1,
      speed: (base.maxSpeed / base.ratio) * 1.2,
    };
    const report = analyseOf(unit, base, heavy, shelf);
    if (!report.ok) throw new Error();
    expect(report.value.checks.map((c) => [c.id, c.state])).toEqual([
      ['peak', 'fails'],
      ['rated', 'fails'],
      ['speed', 'fails'],
    ]);
    for (const c of report.value.checks) {
      if (!c.mend) continue;
      const mended = analyseOf(unit, { ...base, [c.mend.path]: c.mend.value }, heavy, shelf);
      expect(mended.ok && mended.value.checks.find((x) => x.id === c.id)!.state, c.id).not.toBe('fails');
    }
  });

  it('has a working behind every figure, and bands only where the shop spreads', () => {
    const report = analyseOf(unit, base, { ...at, equivalent: 2, meanSpeed: 1 }, shelf);
    if (!report.ok) throw new Error();
    for (const f of report.value.figures) {
      expect(workingOf(f)!.terms.length, f.id).toBeGreaterThan(0);
      expect(f.high > f.low, f.id).toBe(/^(efficiency.*|drag|play|stiffness)$/.test(f.id));
    }
  });

  it('is drawn to scale: round in line, a slab over both axes beside', () => {
    const curves = (l: readonly Layer[], key: string) =>
      l.flatMap((x) => x.items).filter((i) => i.kind === 'curve' && i.key === key) as never[];
    const round = boundsOf(curves(layers(p({ outside: 0.05, form: 'inline' })), 'housing'))!;
    expect([round.x1 - round.x0, round.y1 - round.y0].map((x) => Number(x.toFixed(9)))).toEqual([0.05, 0.05]);
    const slab = boundsOf(curves(layers(p({ outside: 0.05, form: 'beside', centre: 0.03 })), 'housing'))!;
    expect(slab.x1 - slab.x0).toBeCloseTo(0.08, 9);
    expect(slab.y1 - slab.y0).toBeCloseTo(0.05, 9);
    expect(numbers(p({ outside: 0.05, form: 'beside', centre: 0.03 })).outside).toBeCloseTo(0.08, 12);
  });

  it('turns its output by the crank over the ratio, against it where that is negative', () => {
    const turn = (ratio: number, key: string) => {
      const item = layers(p({ ratio }), 1.2)
        .flatMap((l) => l.items)
        .find((i) => i.kind === 'curve' && i.key === key);
      return item?.kind === 'curve' ? item.at.turn : NaN;
    };
    expect(turn(6, 'in')).toBeCloseTo(1.2, 12);
    expect(turn(6, 'out')).toBeCloseTo(0.2, 12);
    expect(turn(-6, 'out')).toBeCloseTo(-0.2, 12);
  });

  it('refuses parameters that contradict each other or are out of bounds', () => {
    const bad = (change: object) => readParams('unit', { ...base, ...change });
    expect(bad({ play: 2e-3, playMost: 1e-3 })).toMatchObject({ ok: false });
    expect(bad({ peakTorque: base.ratedTorque / 2 })).toMatchObject({ ok: false });
    expect(bad({ ratio: 0 })).toMatchObject({ ok: false });
    expect(bad({ efficiency: 1.2 })).toMatchObject({ ok: false });
    expect(bad({ stiffness: '12 N·m/°' })).toMatchObject({ ok: true });
    expect(bad({ stiffness: '12 mm' })).toMatchObject({ ok: false });
  });

  it('starts near any wish: a usual ratio, torque in hand, and efficiency that falls with the ratio', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 160, noNaN: true }),
        fc.double({ min: 0.05, max: 3000, noNaN: true }),
        (ratio, torque) => {
          const d = unit.defaults({ ratio, torque, size: Infinity, shelf }) as UnitParams;
          expect(readParams('unit', d)).toMatchObject({ ok: true });
          expect(d.peakTorque).toBeGreaterThanOrEqual(torque);
          if (ratio >= 2) expect(Math.abs(Math.log(d.ratio / ratio))).toBeLessThan(0.23);
        },
      ),
    );
    const small = [...unit.candidates({ ratio: 10, torque: 2, size: 0.06, shelf })] as UnitParams[];
    expect(small.length).toBeGreaterThan(0);
    for (const c of small) expect(c.outside).toBeLessThanOrEqual(0.06);
  });

  it('is bought whole: one part without outlines, at its price', () => {
    const parts = partsOf(unit, base, shelf);
    expect(parts).toMatchObject({
      ok: true,
      value: [{ made: 'bought', mass: base.mass, money: base.price, curves: [] }],
    });
    expect(assemblyOf(unit, base)[0]!.caution).toMatch(/fingers/);
  });
});

describe('what changed between variants', () => {
  it('names mount, shaft, microsteps and a stage’s numbers', () => {
    const a = demo().variants[0]!;
    const b = structuredClone(a) as Variant;
    b.mount = { ...shelf.materials.find((m) => m.id === 'pc')! };
    b.driver.microsteps = 32;
    b.output = {
      shaftDiameter: 0.01,
      shaftBore: 0,
      shaftLength: 0.05,
      shaftMaterial: shelf.materials[0]!,
      bearing: shelf.bearings.find((x) => x.id === '6000')!,
      span: 0.03,
      overhang: 0.02,
      load: 5,
    };
    b.stages[1] = { id: 's2', kind: 'unit', params: { ...base } };
    const said = whatChanged(a, b);
    expect(said).toContain('Microsteps: 16 → 32');
    expect(said).toContain('Motor mount: PETG, printed → Polycarbonate, printed');
    expect(said).toContain('Output: none → shaft ⌀ 10 mm, 6000');
    expect(said).toContain('Stage 2: belt → unit');
    expect(whatChanged(a, structuredClone(a))).toEqual([]);
  });
});
