import { describe, expect, it } from 'vitest';
import { blankTest, fromBounds, testKind, type BenchTest } from '../src/index.ts';
import { analysed, context } from './typed-bench.ts';

// What a budget says of a rig's field is what the result changes by when the field does: each part is held against a
// difference of the whole analysis, at a rig whose every field matters.

type Rig = Record<string, number | string>;
interface Case {
  readonly kind: BenchTest['kind'];
  readonly readings: readonly Rig[];
  readonly rig: Rig;
  /** Part of the budget, the field it is about, the field with its error, and whether that is a share of it. */
  readonly parts: readonly (readonly [part: string, field: string, error: string, share?: 'share'])[];
}

const CASES: readonly Case[] = [
  {
    kind: 'play-spot',
    readings: [{ shift: 6e-3 }, { shift: 6.4e-3 }],
    rig: { distance: 3, distanceError: 0.01, beam: 'mirror' },
    parts: [['distance', 'distance', 'distanceError']],
  },
  {
    kind: 'pluck',
    readings: [{ frequency: 88 }, { frequency: 91 }, { frequency: 90 }],
    rig: { span: 0.15, spanError: 0.002, massPerLength: 8.4, massError: 0.05 },
    parts: [
      ['span', 'span', 'spanError'],
      ['mass', 'massPerLength', 'massError', 'share'],
    ],
  },
  {
    kind: 'turn-back',
    readings: [
      { way: 'with', mass: 1, outcome: 'held' },
      { way: 'with', mass: 1.2, outcome: 'turned' },
      { way: 'against', mass: 0.9, outcome: 'held' },
      { way: 'against', mass: 1.1, outcome: 'turned' },
    ],
    rig: { lever: 0.2, leverError: 1e-3, leverMass: 0.2, leverCentre: 0.1, basket: 0.05 },
    parts: [['lever', 'lever', 'leverError']],
  },
  {
    kind: 'torque-ladder',
    readings: [
      { mass: 1, outcome: 'lifted' },
      { mass: 1.5, outcome: 'lifted' },
      { mass: 2, outcome: 'skipped' },
    ],
    rig: { lever: 0.2, leverError: 1e-3, leverMass: 0.2, leverCentre: 0.1, basket: 0.05, angle: 0.3, angleError: 0.02 },
    parts: [
      ['lever', 'lever', 'leverError'],
      ['angle', 'angle', 'angleError'],
    ],
  },
  {
    kind: 'play-lever',
    readings: [
      { angle: 0, difference: 1e-3 },
      { angle: 1, difference: 1.1e-3 },
      { angle: 2, difference: 0.9e-3 },
    ],
    rig: { lever: 0.18, leverError: 1e-3, push: 0, correctWindUp: 'no' },
    parts: [['lever', 'lever', 'leverError']],
  },
  {
    kind: 'torque-cell',
    readings: [100, 300, 600, 900, 880].map((counts, i) => ({ time: i * 0.5, counts })),
    rig: { lever: 0.2, leverError: 1e-3, zeroCounts: 20, knownMass: 1, knownCounts: 220, massError: 0.01, hold: 1 },
    parts: [
      ['lever', 'lever', 'leverError'],
      ['calibration', 'knownMass', 'massError', 'share'],
    ],
  },
  {
    kind: 'no-load',
    readings: [20, 60, 100, 150].map((speed) => ({ speed, current: 0.1 + 2e-4 * speed })),
    rig: { torqueConstant: 0.05, constantError: 0.08 },
    parts: [['constant', 'torqueConstant', 'constantError', 'share']],
  },
  {
    kind: 'efficiency',
    readings: [1, 2, 3, 4].map((torque) => ({ torque, current: 0.12 + torque / 0.82 })),
    rig: { torqueConstant: 0.05, constantError: 0.08 },
    parts: [['constant', 'torqueConstant', 'constantError', 'share']],
  },
];

describe('a budget', () => {
  it('pluck: a tension goes with the square of the note, so twice the share that repeats of it scatter by', () => {
    const kind = testKind('pluck')!;
    const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
    const notes = [88, 91, 90, 93];
    const r = kind.analyse(
      { ...blank, readings: notes.map((frequency, i) => ({ id: `${i}`, text: '', values: { frequency } })) },
      context,
    );
    if (!r.ok) throw new Error(r.problem.what);
    const { value, budget } = r.value.found!;
    // Mean 90.5, deviations −2.5, 0.5, −0.5, 2.5: s² = 13/3, of the mean of four s/2.
    expect(budget.find((c) => c.id === 'scatter')!.u / value).toBeCloseTo((2 * Math.sqrt(13 / 3)) / 2 / 90.5, 9);
  });

  it('turn-back: half of what both ways differ by, and half of the widest gap over the root of two, each an even spread', () => {
    const { readings, rig } = CASES.find((c) => c.kind === 'turn-back')!;
    const { found } = analysed('turn-back', readings, rig);
    const told = (id: string) => found!.budget.find((c) => c.id === id)!.u;
    // 1.1 kg and 1.0 kg at 200 mm; held and turned 0.2 kg apart either way.
    expect(told('ways')).toBeCloseTo((9.80665 * 0.2 * 0.1) / 2 / Math.sqrt(3), 9);
    expect(told('bracket')).toBeCloseTo((9.80665 * 0.2 * 0.1) / Math.sqrt(3) / Math.SQRT2, 9);
  });

  it('positioning: what few runs leave of a repeatability is told as its U', () => {
    const stops = [1, -2, 2, 0, -1];
    const readings = [0, 1, 2, 3, 4].flatMap((target) =>
      stops.flatMap((d) =>
        (['up', 'down'] as const).map((way) => ({
          ...{ target, way },
          deviation: 1e-5 * d * (1 + 0.1 * target) + (way === 'up' ? 0 : 2e-5),
        })),
      ),
    );
    const { found, figures } = analysed('positioning', readings, { axis: 'turning' });
    // Largest spread, at the last target: 4·1.4e-5·√2.5, and both sides 2e-5 apart.
    const s = 1.4e-5 * Math.sqrt(2.5);
    expect(figures.find((f) => f.id === 'repeatability')!.value).toBeCloseTo(4 * s + 2e-5, 9);
    expect(figures.find((f) => f.id === 'repeatabilityUp')!.value).toBeCloseTo(4 * s, 9);
    expect(found!.U).toBeCloseTo(1.96 * found!.budget.find((c) => c.id === 'runs')!.u, 12);
    expect(found!.U / found!.value).toBeGreaterThan(0.1);
    expect(found!.U / found!.value).toBeLessThan(1);
  });

  for (const { kind: id, readings, rig, parts } of CASES) {
    const found = (over: Rig = {}) => analysed(id, readings, { ...rig, ...over }).found!;
    for (const [part, field, error, share] of parts)
      it(`${id}: ${part} is what a change of ${field} makes`, () => {
        const at = rig[field] as number;
        const h = 1e-5 * at;
        const slope = (found({ [field]: at + h }).value - found({ [field]: at - h }).value) / (2 * h);
        const bound = (rig[error] as number) * (share ? at : 1);
        const told = found().budget.find((c) => c.id === part)!.u;
        expect(told / fromBounds(Math.abs(slope) * bound)).toBeCloseTo(1, 3);
      });
  }

  it('leg press: the angle is what a change of the reading makes, since it stands among the readings', () => {
    const kind = testKind('leg-press')!;
    const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
    const rig = { thigh: 0.18, shank: 0.22, lengthError: 1e-3, angleError: 0.02, legMass: 0.3, driven: 'knee' };
    const at = (angle: number) => {
      const r = kind.analyse(
        {
          ...blank,
          rig: { ...blank.rig, ...rig },
          readings: [{ id: 'r', text: '', values: { angle, mass: 6.4 } }],
        } as BenchTest,
        context,
      );
      if (!r.ok) throw new Error(r.problem.what);
      return r.value.found!;
    };
    // Virtual work, the shin's end under the hip: F·a·b·sin κ/r.
    const knee = 2;
    const r = Math.sqrt(0.18 ** 2 + 0.22 ** 2 - 2 * 0.18 * 0.22 * Math.cos(knee));
    expect(at(knee).value).toBeCloseTo(((6.4 - 0.3) * 9.80665 * 0.18 * 0.22 * Math.sin(knee)) / r, 9);
    const slope = (at(knee + 1e-5).value - at(knee - 1e-5).value) / 2e-5;
    const told = at(knee).budget.find((c) => c.id === 'angle')!.u;
    expect(told / fromBounds(Math.abs(slope) * 0.02)).toBeCloseTo(1, 4);
  });

  it('leg press: lengths are what a change of each makes, and of the hip’s own lever the distance ahead', () => {
    const kind = testKind('leg-press')!;
    const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
    const of = (over: Rig, values: Rig = { angle: 2, mass: 6.4 }) => {
      const rig = { thigh: 0.18, shank: 0.22, lengthError: 1e-3, legMass: 0.3, driven: 'knee', ...over };
      const r = kind.analyse(
        { ...blank, rig: { ...blank.rig, ...rig }, readings: [{ id: 'r', text: '', values }] } as BenchTest,
        context,
      );
      if (!r.ok) throw new Error(r.problem.what);
      return r.value.found!;
    };
    const by = (field: string, at: number) =>
      (of({ [field]: at + 1e-6 }).value - of({ [field]: at - 1e-6 }).value) / 2e-6;
    const told = of({}).budget.find((c) => c.id === 'length')!.u;
    expect(told / fromBounds(1e-3 * Math.hypot(by('thigh', 0.18), by('shank', 0.22)))).toBeCloseTo(1, 5);
    const hip = of({ driven: 'hip' }, { angle: 2, ahead: 0.05, mass: 6.4 });
    expect(hip.value).toBeCloseTo(6.1 * 9.80665 * 0.05, 9);
    expect(hip.budget.find((c) => c.id === 'length')!.u).toBeCloseTo(fromBounds(1e-3) * 6.1 * 9.80665, 9);
  });
});
