import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  blankTest,
  stageKind,
  TEST_KINDS,
  writeWav,
  type BenchTest,
  type Driver,
  type Motor,
  type StageNumbers,
} from '../src/index.ts';
import { amplitudes } from '../src/bench/spectrum.ts';
import { legPose } from '../src/brief/leg.ts';
import { pointsLoads } from '../src/brief/points.ts';
import { uncertainSize, type ProcessFit } from '../src/fit/process-fit.ts';
import { askedPlay } from '../src/fit/line-jam.ts';
import { FIT_PARTS } from '../src/fit/reading.ts';
import { seatHoldsOut, seatsHold } from '../src/gear/index.ts';
import { inputDuty } from '../src/line/numbers.ts';
import { currentFor } from '../src/motor/available.ts';
import { slot } from '../src/reducer/drawn.ts';
import { alongOf } from '../src/reducer/reach.ts';
import { NonDominated } from '../src/search/dominance.ts';
import { placeOf, RATIOS } from '../src/search/drives.ts';
import type { PointsCase } from '../src/schema/joint.ts';
import { faceOf } from '../src/shop/motor-face.ts';
import { boundsOf } from '../src/shape/bounds.ts';
import { area, ORIGIN } from '../src/shape/outline.ts';
import { flankOf, type Cone } from '../src/stage/bevel/geometry.ts';
import { pressedInAll } from '../src/stage/compound-planetary/pins.ts';
import { aboutArm } from '../src/stage/straight.ts';
import { bevel } from './anchors/bevel.ts';
import { rack } from './anchors/rack.ts';
import { rollerWave } from './anchors/roller-wave.ts';
import { unit } from './anchors/unit.ts';
import { examples, shelf } from './helpers.ts';
import { active, DEMOS, made, ofKind } from './reducer-bench.ts';
import { stageOf } from './stage-bench.ts';

const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('loads', () => {
  it('of a leg: its knee is a thigh from the hip and a shank from the foot, at the angle asked between them', () => {
    fc.assert(
      fc.property(d(0.1, 0.3), d(0.1, 0.3), d(0.5, 3), d(-0.02, 0.02), (thigh, shank, angle, footOffset) => {
        const { knee, foot, reach, kneeLever, hipLever } = legPose({ thigh, shank, footOffset }, angle);
        const [u, v] = [
          [-knee[0], -knee[1]],
          [foot[0] - knee[0], foot[1] - knee[1]],
        ] as const;
        expect(Math.hypot(...u)).toBeCloseTo(thigh, 9);
        expect(Math.hypot(...v)).toBeCloseTo(shank, 9);
        expect(Math.hypot(...foot)).toBeCloseTo(reach, 9);
        expect((u[0] * v[0] + u[1] * v[1]) / thigh / shank).toBeCloseTo(Math.cos(angle), 6);
        // Levers, about knee and hip, of a weight that stands over the foot.
        expect([kneeLever, hipLever]).toEqual([knee[0] - foot[0], -foot[0]]);
      }),
    );
  });

  it('that are listed go on from where the row before ended', () => {
    const rows = [
      [2, 3, 1],
      [-1, 4, 2],
      [0.5, 2, 0],
    ].map(([speed, seconds, torque]) => ({ speed, seconds, torque }));
    const l = pointsLoads({ rows, dynamicFactor: 1.5, inertia: 0, radius: 0.1 } as unknown as PointsCase);
    expect([...l.trace.position]).toEqual([0, 6, 6, 2, 2, 3]);
    expect(l.swing).toBe(6);
    expect([l.peak, l.speed]).toEqual([3, 2]);
  });

  it('pass a stage over its ratio and efficiency, with its drag besides; speeds times its ratio', () => {
    const s = { ratio: -4, etaForward: 0.8, drag: 0.01 } as StageNumbers;
    const at = { torque: 8, torqueRms: 4, speed: 2, equivalent: 3.2, meanSpeed: 1.5, swing: 0.5, reverses: true };
    const before = inputDuty(at, s);
    expect(before.torque).toBeCloseTo(2.51, 12);
    expect(before.torqueRms).toBeCloseTo(1.26, 12);
    expect(before.equivalent).toBeCloseTo(1.01, 12);
    expect([before.speed, before.meanSpeed, before.swing, before.reverses]).toEqual([8, 6, 2, true]);
  });
});

describe('a pin’s seat', () => {
  it('gives way where a stiff rod finds no point to lean about: by bisecting moments', () => {
    fc.assert(
      fc.property(d(1e-3, 0.01), d(2e-3, 0.02), d(0, 0.05), (diameter, depth, out) => {
        const p = 30e6;
        // Walls push one way before the point at z, the other way behind it.
        const force = (z: number) => diameter * p * (2 * z - depth);
        const moment = (z: number) => (diameter * p * (2 * z * z - depth * depth)) / 2;
        let [lo, hi] = [depth / 2, depth];
        for (let k = 0; k < 80; k++) {
          const z = (lo + hi) / 2;
          if (force(z) * out + moment(z) > 0) hi = z;
          else lo = z;
        }
        const found = seatHoldsOut({ diameter, depth }, out, p);
        expect(Math.abs(found / force(lo) - 1)).toBeLessThan(1e-6);
        // Whatever stands out is held by less than a pin between two plates.
        expect(found).toBeLessThan(seatsHold({ diameter, depth }, p) / 4);
      }),
    );
  });
});

describe('shapes', () => {
  it('a slot is as long as it slides and a hole', () => {
    const o = slot(0.02, -0.01, 2e-3, 3e-3);
    expect(Math.abs(area(o))).toBeCloseTo(2 * 2e-3 * 6e-3 + Math.PI * 4e-6, 12);
    const b = boundsOf([{ outline: o, at: ORIGIN }])!;
    [b.x0, b.x1, b.y0, b.y1].forEach((x, i) => expect(x).toBeCloseTo([0.015, 0.025, -0.012, -0.008][i]!, 12));
    expect(Math.abs(area(slot(0, 0, 2e-3, 0)))).toBeCloseTo(Math.PI * 4e-6, 12);
  });

  it('a bevel’s flank goes from root to tip in so many steps', () => {
    const cone = { teeth: 20, pitch: 0.46, root: 0.4, tip: 0.5, half: Math.PI / 40 } as Cone;
    const flank = flankOf(cone, 0.35, 10);
    expect(flank.map(([at]) => Number(at.toFixed(9)))).toEqual(
      Array.from({ length: 11 }, (_, i) => Number((0.4 + i / 100).toFixed(9))),
    );
    expect(flank[6]![1]).toBeCloseTo(Math.PI / 40, 12);
  });

  it('bearings of a housing lie flush with a face of the plate that bears them', () => {
    for (const v of DEMOS.map(active).filter((x) => x.housing)) {
      const { bodies, housing } = made(v);
      const bearings = bodies.filter((b) => /^case\/bearing/.test(b.id));
      for (const b of bearings)
        for (const f of b.places(0)) {
          const [low, high] = alongOf(b.solid()).map((z) => f.at[2] + z) as [number, number];
          const flush = housing!.plates.some((p) => Math.abs(low - p.from) < 1e-9 || Math.abs(high - p.to) < 1e-9);
          if (!/output/.test(b.id)) expect(flush, `${v.name}: ${b.id} at ${low}`).toBe(true);
        }
    }
  });
});

describe('the bench', () => {
  it('knows an efficiency by the slope’s own spread over ratio and torque constant', () => {
    const kind = TEST_KINDS.find((k) => k.id === 'efficiency')!;
    const test = {
      ...blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' }),
      readings: [
        [1, 0.5],
        [2, 0.92],
        [3, 1.38],
        [4, 1.9],
      ].map(([torque, current], i) => ({ id: `r${i}`, text: '', values: { torque, current } })),
    } as unknown as BenchTest;
    const context = { instruments: [], gravity: 9.81, orders: [], materials: [], ratio: 20, torqueConstant: 0.05 };
    const r = kind.analyse(test, context);
    if (!r.ok) throw new Error(r.problem.what);
    // Least squares by hand: slope S_xy/S_xx, its spread √(Σ e²/(n − 2)/S_xx).
    const [x, y] = [
      [0.5, 0.92, 1.38, 1.9],
      [1, 2, 3, 4],
    ];
    const mean = (l: number[]) => l.reduce((s, v) => s + v, 0) / l.length;
    const sxx = x!.reduce((s, v) => s + (v - mean(x!)) ** 2, 0);
    const slope = x!.reduce((s, v, i) => s + (v - mean(x!)) * (y![i]! - 2.5), 0) / sxx;
    const rest = x!.reduce((s, v, i) => s + (y![i]! - 2.5 - slope * (v - mean(x!))) ** 2, 0);
    const found = r.value.found!;
    expect(found.value).toBeCloseTo(slope, 9);
    const scatter = found.budget.find((c) => c.id === 'scatter')!;
    expect(scatter.u).toBeCloseTo(Math.sqrt(rest / 2 / sxx), 9);
  });

  it('that turned back at the first mass tell half of it, by as much as they do not know', () => {
    const kind = TEST_KINDS.find((k) => k.id === 'turn-back')!;
    const test = {
      ...blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' }),
      rig: { lever: 0.2, leverMass: 0, leverCentre: 0, basket: 0, leverError: 5e-4 },
      readings: [{ id: 'r', text: '', values: { way: 'with', mass: 0.4, outcome: 'turned' } }],
    } as unknown as BenchTest;
    const r = kind.analyse(test, { instruments: [], gravity: 10, orders: [], materials: [] });
    if (!r.ok) throw new Error(r.problem.what);
    const found = r.value.found!;
    const u = (id: string) => found.budget.find((c) => c.id === id)!.u;
    expect(found.value).toBeCloseTo((0.2 * 0.4 * 10) / 2, 12);
    expect(u('bracket')).toBeCloseTo((0.2 * 0.4 * 10) / 2 / Math.sqrt(3), 12);
    expect(u('lever')).toBeCloseTo((5e-4 / Math.sqrt(3)) * 0.2 * 10, 12);
  });

  it('writes a sound’s length into its header', () => {
    const bytes = writeWav([0, 0.5, -1], 8000);
    expect(new DataView(bytes.buffer, bytes.byteOffset).getUint32(4, true)).toBe(bytes.length - 8);
  });
});

describe('of single formulas', () => {
  it('about an arm ways become angles, forces torques, and what turns keeps its energy', () => {
    const r = 0.04;
    const opened = stageKind('unit')!.open(unit.params, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    const straight = opened.value.load(unit.duty);
    const about = aboutArm(straight, r);
    expect(about.play).toEqual(straight.play.map((p) => p / r));
    expect(about.ratio).toBe(straight.ratio * r);
    expect(about.stiffness).toBe(straight.stiffness * r * r);
    expect(about.springs.map((s) => s.stiffness)).toEqual(straight.springs.map((s) => s.stiffness * r * r));
    expect(about.limits.map((l) => l.torque)).toEqual(straight.limits.map((l) => l.torque * r));
    expect(about.inertiaOut).toBeCloseTo(straight.inertiaOut * r * r, 15);
  });

  it('amplitudes of a wave over a mean, one-sided', () => {
    const n = 64;
    const found = amplitudes(Float64Array.from({ length: n }, (_, i) => 3 - 0.7 * Math.sin((2 * Math.PI * 5 * i) / n)));
    expect(found.length).toBe(n / 2);
    expect(found[0]).toBeCloseTo(3, 12);
    expect(found[5]).toBeCloseTo(0.7, 12);
    expect(found.reduce((s, v) => s + v, 0)).toBeCloseTo(3.7, 9);
  });

  it('places of ratios two percent apart: the next one up', () => {
    expect([1, 1.02, 1.0201, 1.02 ** 7, 1e9, 0.5].map(placeOf)).toEqual([0, 1, 2, 7, RATIOS - 1, 0]);
  });

  it('a made size is known by its row through the covariance', () => {
    const n = FIT_PARTS.length;
    const covariance = new Float64Array(n * n);
    [covariance[0], covariance[n + 1], covariance[1], covariance[n]] = [4e-10, 9e-10, -2e-10, -2e-10];
    const row = Float64Array.from({ length: n }, (_, i) => [2, 1][i] ?? 0);
    expect(uncertainSize({ covariance } as ProcessFit, row)).toBeCloseTo(Math.sqrt(4 * 4e-10 + 9e-10 - 8e-10), 15);
  });

  it('what is not dominated keeps its own aims', () => {
    const kept = new NonDominated<string>();
    for (const [of, ...aims] of [
      ['a', 1, 5],
      ['b', 2, 3],
      ['c', 4, 1],
    ] as const)
      kept.take(of, aims);
    expect(kept.items.map((x) => [x.of, ...x.aims])).toEqual([
      ['a', 1, 5],
      ['b', 2, 3],
      ['c', 4, 1],
    ]);
  });

  it('current of a motor with magnets in the measure of its driver: line, amplitude, root mean square', () => {
    const motor = { type: 'brushless', speedConstant: 20, idleCurrent: 0.3 } as Motor;
    const at = (sets: Driver['sets']) => currentFor(motor, { sets } as Driver, 0.2);
    const line = 0.2 * 20 + 0.3;
    expect(at('line')).toBeCloseTo(line, 12);
    expect(at('peak')).toBeCloseTo(line / (Math.sqrt(3) / 2), 12);
    expect(at('rms')).toBeCloseTo(line / (Math.sqrt(3) / 2) / Math.SQRT2, 12);
  });
});

describe('a bore pressed on its pin', () => {
  it('sums the size of its load along it as a fine grid does, whatever leans it', () => {
    fc.assert(
      fc.property(d(-50, 50), d(-1, 1), d(-50, 50), d(-1, 1), d(0.005, 0.05), (a, b, c, e, long) => {
        const n = 20001;
        let sum = 0;
        for (let i = 0; i < n; i++) {
          const x = (long * i) / (n - 1) - long / 2;
          const at = Math.hypot(a / long + (12 * b * x) / long ** 3, c / long + (12 * e * x) / long ** 3);
          sum += (i === 0 || i === n - 1 ? 0.5 : 1) * at;
        }
        const found = pressedInAll({ along: [a, b], across: [c, e] }, long);
        expect(Math.abs(found - (sum * long) / (n - 1))).toBeLessThanOrEqual(1e-5 * found + 1e-9);
      }),
      { numRuns: examples(60) },
    );
    expect(pressedInAll({ along: [0, 0], across: [0, 0] }, 0.02)).toBe(0);
  });
});

describe('ends of a play', () => {
  const tan = Math.tan(Math.PI / 9);
  // Thicknesses within 30 µm and run-outs of 30 µm of two wheels, seen along their circle.
  const mesh = Math.SQRT2 * Math.hypot(3e-5, 3e-5 * tan);

  it('of bevel wheels: what is made wrong, and mounted wrong by 50 µm along either cone', () => {
    const r = (20 * 0.84347524157501) / 1000;
    const place = 2 * 5e-5 * tan;
    const spread = Math.hypot(mesh, place * Math.sin(Math.atan(0.5)), place * Math.sin(Math.atan(2))) / r;
    const drawn = (80e-6 * 0.84347524157501) / r;
    const { play } = stageOf(stageKind('bevel')!, bevel.params).load(bevel.duty);
    expect(play[0]).toBeCloseTo(drawn + 7.5e-6 / r, 12);
    expect(play[1]).toBeCloseTo(drawn - spread, 12);
    expect(play[2]).toBeCloseTo(drawn + spread + 15e-6 / r, 12);
  });

  it('of a rack: what is made wrong, and how straight it lies', () => {
    const spread = Math.hypot(mesh, 2 * 3e-5 * tan);
    const { play } = stageOf(stageKind('rack')!, rack.params).load(rack.duty);
    expect(play[1]).toBe(0);
    expect(play[2]).toBeCloseTo(40e-6 + spread + 15e-6, 12);
    const wide = { ...rack.params, allowance1: 6e-5, allowance2: 6e-5 };
    expect(stageOf(stageKind('rack')!, wide).load(rack.duty).play[1]).toBeCloseTo(120e-6 - spread, 12);
  });

  it('asked of a line: the narrower of two limits, and none where none is a most', () => {
    const { brief } = DEMOS[0]!;
    const limit = (value: number, sense: 'max' | 'min') =>
      ({ id: 'play', sense, value, need: 'must' }) as (typeof brief.limits)[number];
    expect(askedPlay({ ...brief, limits: [limit(0.01, 'max'), limit(0.004, 'max'), limit(0.02, 'max')] })).toBe(0.004);
    expect(askedPlay({ ...brief, limits: [limit(0.004, 'min')] })).toBe(Infinity);
  });
});

describe('what shakes, what is held, what stands out', () => {
  it('one row of a roller wave throws bearing, sleeve and half of its rollers', () => {
    const stage = stageOf(stageKind('roller-wave')!, { ...rollerWave.params, rows: 1 });
    const steel = 7850;
    const rollers = 20 * (Math.PI / 4) * 0.004 ** 2 * 0.008 * steel;
    const sleeve = Math.PI * (0.02 ** 2 - 0.016 ** 2) * 0.008 * steel;
    const mass = shelf.bearings.find((b) => b.id === '61804')!.mass + sleeve + rollers / 2;
    const shaking = stage.report(rollerWave.duty).figures.find((f) => f.id === 'shaking')!.value;
    expect(shaking).toBeCloseTo(mass * 0.4e-3 * (2 * 20) ** 2, 9);
  });

  it('a housing holds of a ring what the output has more than the input', () => {
    const v = ofKind('planetary', 5);
    const report = analyseLine(DEMOS[0]!, v, shelf);
    const { ratio, etaForward } = report.stages[0]!.report!.numbers;
    const peak = report.demand.peak;
    expect(report.checks.find((c) => c.id === 'ring-1')!.figure).toBeCloseTo(peak * (1 - 1 / (ratio * etaForward)), 9);
  });

  it('a round motor’s shaft stands out by nine twentieths of its frame, in millimetres, and twelve at least', () => {
    const reach = (frame: number) => faceOf({ type: 'brushless', frame }).reach;
    expect(reach(0.06)).toBeCloseTo(0.027, 12);
    expect(reach(0.08)).toBeCloseTo(0.036, 12);
    expect(reach(0.02)).toBeCloseTo(0.012, 12);
  });
});
