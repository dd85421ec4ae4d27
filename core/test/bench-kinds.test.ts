import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  inUnits,
  TEST_KINDS,
  blankTest,
  importFile,
  nearestFraction,
  packRecording,
  positioningIso,
  stepFigures,
  suspectsFor,
  testKind,
  tone,
  transmissionRun,
  unpackRecording,
  unwrapped,
  writeWav,
  type LineOrder,
  type Recording,
  type Result,
  type TestContext,
  type TestKind,
  type TestResult,
} from '../src/index.ts';
import { readWav } from '../src/bench/read-wav.ts';
import { loop } from './loop.ts';
import { context } from './typed-bench.ts';

const arcmin = Math.PI / 10800;
const noise = (seed: number) => {
  let s = seed >>> 0 || 1;
  const random = () => ((s = (Math.imul(s, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
  return () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
};

function tried(
  id: string,
  readings: Record<string, number | string>[],
  rig: Record<string, number | string> = {},
  over: Partial<TestContext> = {},
): Result<TestResult> {
  const kind = testKind(id)!;
  const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
  return kind.analyse(
    {
      ...blank,
      rig: { ...blank.rig, ...rig },
      readings: readings.map((values, i) => ({ id: `r${i}`, text: '', values })),
    },
    { ...context, ...over },
  );
}
function run(...of: Parameters<typeof tried>): TestResult {
  const r = tried(...of);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
}
const figure = (r: TestResult, id: string) => r.figures.find((f) => f.id === id)!;
const record = (channels: Record<string, Float64Array>, rate = 0): Recording => ({
  channels: Object.keys(channels).map((id) => ({ id, name: id, quantity: 'angle' })),
  data: Object.values(channels),
  rate,
  malformed: 0,
  gaps: 0,
  notes: [],
});

describe('every kind of test', () => {
  it('refuses in words without readings, and has rig, steps and caution', () => {
    for (const kind of TEST_KINDS) {
      const r = kind.analyse(blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' }), context);
      expect(r.ok, kind.id).toBe(false);
      if (!r.ok) expect(r.problem.mend.length, kind.id).toBeGreaterThan(8);
      expect(kind.caution.length, kind.id).toBeGreaterThan(20);
      expect(kind.steps.length, kind.id).toBeGreaterThan(1);
    }
  });

  it('one reading, all readings alike or absurd ones: numbers or words, never NaN', () => {
    for (const kind of TEST_KINDS) {
      const row = (v: number) =>
        Object.fromEntries(kind.columns.map((c) => [c.id, c.as === 'choice' ? c.options[0]!.value : v]));
      for (const rows of [
        [row(1)],
        Array.from({ length: 12 }, () => row(0.3)),
        Array.from({ length: 12 }, () => row(0)),
        [row(1e300), row(-1e300), row(5)],
        Array.from({ length: 9 }, (_, i) => row(-i)),
      ]) {
        const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
        const r = kind.analyse(
          { ...blank, readings: rows.map((values, i) => ({ id: `${i}`, text: '', values })) },
          context,
        );
        if (!r.ok) continue;
        expect(
          r.value.found === undefined || Number.isFinite(r.value.found.value),
          `${kind.id} ${JSON.stringify(rows[0])}`,
        ).toBe(true);
        for (const f of r.value.figures)
          expect(
            Number.isFinite(f.value) || Math.abs(rows[0]![kind.columns[0]?.id ?? ''] as number) > 1e200,
            `${kind.id} ${f.id}`,
          ).toBe(true);
      }
    }
  });

  it('readings struck out count for nothing', () => {
    const kind = testKind('play-spot')!;
    const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
    const rows = [
      { id: 'a', text: '', values: { shift: 6e-3 } },
      { id: 'b', text: '', values: { shift: 90e-3 }, struck: 'bumped' },
    ];
    const r = kind.analyse({ ...blank, readings: rows }, context);
    expect(r.ok && r.value.found!.value).toBeCloseTo(2e-3, 8);
    expect(r.ok && r.value.struck).toBe(1);
  });
});

/** Standard uncertainty of a value known to even bounds, as the rig of a kind starts with. */
const fromBoundsOf = (kind: string, field: string): number =>
  (testKind(kind)!.rig.find((f) => f.id === field)!.start as number) / Math.sqrt(3);

describe('the arithmetic of each', () => {
  it('positioning by ISO 230-2 as worked out', () => {
    const c = JSON.parse(readFileSync(new URL('./cases/positioning.json', import.meta.url), 'utf8')) as {
      targets: number[];
      deviations_up: number[][];
      deviations_down: number[][];
    } & Record<string, number>;
    const r = positioningIso(
      c.targets.map((target, i) => ({ target, up: c.deviations_up[i]!, down: c.deviations_down[i]! })),
    );
    for (const [key, value] of [
      ['reversal_B', r.reversal],
      ['mean_reversal', r.meanReversal],
      ['repeatability_up', r.repeatabilityUp],
      ['repeatability_down', r.repeatabilityDown],
      ['repeatability', r.repeatability],
      ['systematic_E', r.systematic],
      ['mean_deviation_M', r.meanDeviation],
      ['accuracy_A', r.accuracy],
    ] as const)
      expect(Math.abs(value - c[key]!), key).toBeLessThan(1e-8);
  });

  it('a spot on a wall, a mirror halving it', () => {
    expect(run('play-spot', [{ shift: 6e-3 }], { distance: 3 }).found!.value).toBeCloseTo(2e-3, 8);
    expect(run('play-spot', [{ shift: 6e-3 }], { distance: 3, beam: 'mirror' }).found!.value).toBeCloseTo(1e-3, 8);
  });

  it('efficiency and drag from a known motor, inside their uncertainty', () => {
    const g = noise(4);
    const rows = [1, 2, 3, 4, 5, 6].map((t) => ({ torque: t, current: 0.12 + t / (20 * 0.05 * 0.82) + 0.004 * g() }));
    const r = run('efficiency', rows);
    expect(Math.abs(r.found!.value - 0.82)).toBeLessThan(r.found!.U);
    expect(Math.abs(figure(r, 'noLoadCurrent').value - 0.12)).toBeLessThan(figure(r, 'noLoadCurrent').U! + 1e-4);
    expect(Math.abs(figure(r, 'drag').value - 0.006)).toBeLessThan(figure(r, 'drag').U!);
    // Where a line crosses nought, from its residuals: s/b·√(1/n + (x₀ − x̄)²/Sxx); Student's 2.776 for four degrees.
    const x = rows.map((q) => q.current);
    const middle = x.reduce((a, b) => a + b) / 6;
    const wide = x.reduce((sum, v) => sum + (v - middle) ** 2, 0);
    const { value, U } = figure(r, 'noLoadCurrent');
    const scatter = figure(r, 'residual').value;
    const off = Math.sqrt(1 / 6 + (value - middle) ** 2 / wide);
    expect(U).toBeCloseTo((2.776 * scatter * off) / figure(r, 'slope').value, 6);
    // Efficiency: the slope's own scatter, and 5 % bounds of the constant over √3.
    const [a, b] = [scatter / Math.sqrt(wide) / figure(r, 'slope').value, fromBoundsOf('efficiency', 'constantError')];
    expect(r.found!.u / r.found!.value).toBeCloseTo(Math.sqrt(a * a + b * b), 9);
  });

  it('drag and viscous part, from current or power', () => {
    const rows = [20, 60, 100, 150].map((speed) => ({ speed, current: (0.004 + 2e-5 * speed) / 0.05 }));
    const r = run('no-load', [...rows, { speed: 0, current: 0.14 }]);
    expect(r.found!.value).toBeCloseTo(0.004, 9);
    expect(figure(r, 'viscous').value).toBeCloseTo(2e-5, 9);
    expect(figure(r, 'startingTorque').value).toBeCloseTo(0.007, 9);
    const p = run(
      'no-load',
      [20, 60, 100].map((speed) => ({ speed, power: 1.5 + speed * (0.004 + 2e-5 * speed) })),
      { by: 'power', idlePower: 1.5 },
    );
    expect(p.found!.value).toBeCloseTo(0.004, 9);
  });

  it('turn-back as a bracket each way, or that it holds', () => {
    const rows = [
      { way: 'with', mass: 0.2, outcome: 'held' },
      { way: 'with', mass: 0.3, outcome: 'turned' },
      { way: 'against', mass: 0.3, outcome: 'held' },
      { way: 'against', mass: 0.35, outcome: 'turned' },
    ];
    const r = run('turn-back', rows, { lever: 0.2, leverMass: 0, leverCentre: 0, basket: 0 });
    expect(r.found!.value).toBeCloseTo((9.80665 * 0.2 * (0.25 + 0.325)) / 2, 9);
    const holds = run(
      'turn-back',
      rows.map((x) => ({ ...x, outcome: 'held' })),
      { lever: 0.2, leverMass: 0, basket: 0 },
    );
    expect(holds.bound).toBe('atLeast');
  });

  it('run-out: off centre with its angle, oval, total', () => {
    const rows = Array.from({ length: 12 }, (_, i) => ({
      angle: (i * Math.PI) / 6,
      reading: 1e-4 + 3e-5 * Math.cos((i * Math.PI) / 6 - 0.7) + 1e-5 * Math.cos((i * Math.PI) / 3),
    }));
    const r = run('runout', rows);
    expect(r.found!.value).toBeCloseTo(3e-5, 10);
    expect(figure(r, 'angle').value).toBeCloseTo(0.7, 6);
    expect(figure(r, 'ovality').value).toBeCloseTo(1e-5, 10);
    expect(run('runout', rows.slice(0, 3)).advice.join()).toContain('cannot be told apart');
  });

  it('run-out: at uneven angles its scatter is what readings that scatter alike make of it', () => {
    // Four angles leave one reading over the three of circle and offset. By hand: what is left over runs along the one
    // vector at right angles to 1, cos and sin; each reading moves e by its slope, found by moving it.
    const angles = [0, 0.7, 1.5, 3.9];
    const y = [1.2e-4, 1.05e-4, 1.31e-4, 0.6e-4];
    const at = (list: number[]) =>
      run(
        'runout',
        list.map((reading, i) => ({ angle: angles[i]!, reading })),
      );
    const [c, s] = [angles.map(Math.cos), angles.map(Math.sin)];
    const minor = (skip: number) => {
      const [i, j, k] = [0, 1, 2, 3].filter((n) => n !== skip) as [number, number, number];
      return c[j]! * s[k]! - c[k]! * s[j]! - (c[i]! * s[k]! - c[k]! * s[i]!) + (c[i]! * s[j]! - c[j]! * s[i]!);
    };
    const across = [minor(0), -minor(1), minor(2), -minor(3)];
    const left = across.reduce((sum, w, i) => sum + w * y[i]!, 0) / Math.hypot(...across);
    const slopes = y.map((_, i) => {
      const moved = (by: number) => at(y.map((v, k) => (k === i ? v + by : v))).found!.value;
      return (moved(1e-9) - moved(-1e-9)) / 2e-9;
    });
    const scatter = at(y).found!.budget.find((b) => b.name.startsWith('scatter'))!.u;
    expect(scatter / (Math.abs(left) * Math.hypot(...slopes))).toBeCloseTo(1, 5);
  });

  it('made against drawn: scale, contours out and holes in, told apart', () => {
    const rows = [5, 10, 20, 40, 60].flatMap((d) => [
      { feature: 'outside', axis: 'x', drawn: d * 1e-3, measured: d * 1.002e-3 + 0.12e-3 },
      { feature: 'outside', axis: 'y', drawn: d * 1e-3, measured: d * 0.999e-3 + 0.12e-3 },
      { feature: 'hole', axis: 'x', drawn: d * 1e-3, measured: d * 1.002e-3 - 0.2e-3 },
    ]);
    const r = run('fit', rows);
    expect(r.found!.value).toBeCloseTo(6e-5, 9);
    expect(figure(r, 'in').value).toBeCloseTo(1e-4, 9);
    expect(figure(r, 'scaleX').value).toBeCloseTo(0.002, 9);
    expect(figure(r, 'scaleY').value).toBeCloseTo(-0.001, 9);
    expect(
      run(
        'fit',
        rows
          .slice(0, 2)
          .map((x) => ({ ...x, axis: 'x' }))
          .concat({ feature: 'outside', axis: 'x', drawn: 5e-3, measured: 5.13e-3 }),
      ).advice.join(),
    ).toContain('too much alike');
  });

  it('a leg’s torque by its pose', () => {
    const r = run('leg-press', [{ angle: Math.PI / 2, mass: 6.2 }], { thigh: 0.2, shank: 0.15, legMass: 0.2 });
    expect(r.found!.value).toBeCloseTo((6 * 9.80665 * 0.2 * 0.15) / 0.25, 6);
    expect(() => run('leg-press', [{ angle: Math.PI, mass: 6 }])).toThrow('straight');
  });

  it('a warming motor: where it settles and how fast, within its uncertainty, and the torque each limit allows', () => {
    const g = noise(8);
    const rows = Array.from({ length: 20 }, (_, i) => ({
      time: i * 180,
      temperature: 293.15 + 31 * (1 - Math.exp((-i * 180) / 900)) + 0.15 * g(),
    }));
    const r = run('temperature', rows, { torque: 2, ambient: 293.15, limit: 293.15 + 31 * 1.44 });
    expect(Math.abs(r.found!.value - 324.15)).toBeLessThan(r.found!.U);
    expect(Math.abs(figure(r, 'timeConstant').value - 900)).toBeLessThan(figure(r, 'timeConstant').U!);
    expect(figure(r, 'torque0').value).toBeCloseTo(2.4, 1);
    expect(run('temperature', rows.slice(0, 5)).advice.join()).toContain('still rising');
  });

  it('wear as a trend with its band and cycles to the limit', () => {
    const g = noise(6);
    const rows = [0, 2e4, 4e4, 6e4, 8e4].map((cycles) => ({ cycles, play: (5 + cycles * 2e-5 + 0.05 * g()) * arcmin }));
    const r = run('endurance', rows, { limit: 10 * arcmin });
    expect(Math.abs(r.found!.value / arcmin - 20)).toBeLessThan(r.found!.U / arcmin);
    expect(figure(r, 'cyclesToLimit').value / 250_000).toBeCloseTo(1, 0);
    expect(figure(r, 'cyclesEarliest').value).toBeLessThan(250_000);
  });

  it('of wear, errors of the readings count by how the cycles lie: as the slope moves when each reading does', () => {
    const cycles = [0, 1e4, 2e4, 5e4, 8e4, 9e4];
    const play = cycles.map((c, i) => (5 + c * 3e-5 + (i % 2 ? 0.04 : -0.05)) * arcmin);
    const slope = (of: number[]) =>
      run(
        'endurance',
        cycles.map((c, i) => ({ cycles: c, play: of[i]! })),
        { playError: 0.3 * arcmin },
      ).found!.value;
    const u0 = (0.3 * arcmin) / Math.sqrt(3);
    const moved = play.map((_, i) => slope(play.map((v, j) => (i === j ? v + u0 : v))) - slope(play));
    const found = run(
      'endurance',
      cycles.map((c, i) => ({ cycles: c, play: play[i]! })),
      { playError: 0.3 * arcmin },
    );
    const part = found.found!.budget.find((b) => b.id === 'play')!;
    expect(part.u / Math.hypot(...moved)).toBeCloseTo(1, 9);
  });

  it('of a fit, sizes scatter by what is left over the readings beyond its parts', () => {
    // A tenth of a millimetre too large all over, and ±10 µm in turn: what is left is 10 µm but for one degree of freedom.
    const sizes = [0.01, 0.02, 0.03, 0.04, 0.05, 0.06, 0.07, 0.08];
    const rows = sizes.map((drawn, i) => ({
      feature: 'outside',
      way: 'across',
      drawn,
      measured: drawn + 1e-4 + [1, -1, -1, 1][i % 4]! * 1e-5,
    }));
    const r = run('fit', rows, { scale: 'no' });
    const left = figure(r, 'spread').value;
    const parts = r.figures.filter((f) => f.U !== undefined).length;
    expect(left / (1e-5 * Math.sqrt(8 / (8 - parts)))).toBeCloseTo(1, 2);
  });

  it('of run-out, the band of every size is what noise on each reading makes of it', () => {
    const angles = Array.from({ length: 12 }, (_, i) => (i * Math.PI) / 6 + (i % 3) * 0.06);
    const noisy = angles.map(
      (a, i) => 3e-5 * Math.cos(a - 2) + 8e-6 * Math.cos(2 * a - 1) + 1e-6 * Math.sin(17 * i * i),
    );
    const of = (y: readonly number[]) =>
      run(
        'runout',
        angles.map((angle, i) => ({ angle, reading: y[i]! })),
      );
    const base = of(noisy);
    const d = 1e-9;
    for (const id of ['eccentricity', 'ovality', 'angle']) {
      const moved = noisy.map(
        (_, i) => (figure(of(noisy.map((v, j) => (i === j ? v + d : v))), id).value - figure(base, id).value) / d,
      );
      // All are the scatter carried on by the derivatives, with one factor for 95 %.
      const per = figure(base, id).U! / Math.hypot(...moved);
      const first =
        figure(base, 'eccentricity').U! /
        Math.hypot(
          ...noisy.map(
            (_, i) =>
              (figure(of(noisy.map((v, j) => (i === j ? v + d : v))), 'eccentricity').value -
                figure(base, 'eccentricity').value) /
              d,
          ),
        );
      expect(per / first, id).toBeCloseTo(1, 3);
    }
  });

  it('a loop may turn round a few times for its length, and no more', () => {
    const turning = (times: number, steps: number) =>
      Array.from({ length: steps }, (_, i) => {
        const t = Math.sin((2 * Math.PI * times * i) / steps);
        return { torque: 2 * t, angle: 1e-3 * t + 3e-4 * Math.sign(Math.cos((2 * Math.PI * times * i) / steps)) };
      });
    const said = (times: number, steps: number) => {
      const r = tried('hysteresis', turning(times, steps));
      return r.ok ? '' : r.problem.what;
    };
    // Twelve turns in 60 rows are no loop; in 240 they may be half a dozen.
    expect(said(6, 60)).toContain('do not stand in the order');
    expect(said(6, 240)).not.toContain('do not stand in the order');
  });

  it('what a loop says of play, lost motion and friction follows from its fit, by hand', () => {
    const { torque, angle } = loop(3, {
      play: 5 * arcmin,
      slopes: [500],
      bends: [],
      friction: 0.3,
      most: 6,
      steps: 30,
      noise: 2e-5,
    });
    const readings = Array.from(torque, (t, i) => ({ torque: t, angle: angle[i]! }));
    const r = run('hysteresis', readings, { rated: 10, torqueError: 0.03, angleError: 0.02 });
    const value = (id: string) => figure(r, id).value;
    expect(value('frictionWidth')).toBeCloseTo(2 * value('friction'), 12);
    expect(figure(r, 'frictionWidth').U! / figure(r, 'friction').U!).toBeCloseTo(2, 12);
    // Play and twice the wind-up under 3 % of 10 N·m.
    expect(value('lostMotion')).toBeCloseTo(value('play') + 0.6 / value('stiffness1'), 12);
    const part = (id: string) => r.found!.budget.find((c) => c.id === id)!;
    expect(part('scale').u).toBeCloseTo((Math.hypot(0.03, 0.02) / Math.sqrt(3)) * r.found!.value, 6);
    // Both are of a fit of noise alone; its own U is more than either.
    const k1 = part('fit').u;
    const play = r.lands!.find((l) => l.row === 'play')!.found;
    const U = figure(r, 'lostMotion').U!;
    expect(U / Math.hypot(play.u, (2 * 0.3 * k1) / value('stiffness1') ** 2)).toBeGreaterThan(1.9);
    expect(U / Math.hypot(play.u, (2 * 0.3 * k1) / value('stiffness1') ** 2)).toBeLessThan(2.1);
  });

  it('efficiency is the slope over the motor’s current by ratio and torque constant, neither of them one', () => {
    const readings = [1, 2, 3, 4].map((torque) => ({ torque, current: 0.3 + torque / (0.8 * 24 * 0.04) }));
    const r = run('efficiency', readings, { torqueConstant: 0.04, constantError: 0.08 }, { ratio: 24 });
    expect(r.found!.value).toBeCloseTo(0.8, 9);
  });

  it('a lever is planned as long as its dial asks: 1.96·√(r²/6 + e²/3) over what is wanted, in whole centimetres', () => {
    const dial = context.instruments.find((i) => i.id === 'dial')!;
    const plan = (wanted: number) =>
      testKind('play-lever')!
        .answers!.find((a) => a.row === 'play')!
        .plan({ instrument: dial, wanted } as never);
    const u = 1.96 * Math.sqrt(1e-10 / 6 + 4e-10 / 3);
    expect(u / 1e-4).toBeGreaterThan(0.24);
    expect(plan(1e-4)).toMatchObject({ enough: true, values: { lever: 0.25, instrument: 'dial' } });
    // Nobody takes a lever of two centimetres, or of two metres.
    expect(plan(1e-3).values).toMatchObject({ lever: 0.12 });
    expect(plan(1e-5)).toMatchObject({ enough: false, values: { lever: 0.6 } });
  });

  it('the band of a trend of wear meets the limit where the quadratic says', () => {
    const x = [0, 1e4, 2e4, 3e4];
    const y = [5, 5.3, 5.5, 5.9];
    const r = run(
      'endurance',
      x.map((cycles, i) => ({ cycles, play: y[i]! * arcmin })),
      { limit: 10 * arcmin },
    );
    // Least squares by hand, two degrees of freedom: t = 4.303.
    const [mx, my] = [1.5e4, y.reduce((s, v) => s + v, 0) / 4];
    const sxx = x.reduce((s, v) => s + (v - mx) ** 2, 0);
    const b = x.reduce((s, v, i) => s + (v - mx) * (y[i]! - my), 0) / sxx;
    const s2 = x.reduce((s, v, i) => s + (y[i]! - my - b * (v - mx)) ** 2, 0) / 2;
    const gap = (n: number) => my + b * (n - mx) + 4.3027 * Math.sqrt(s2 * (1 / 4 + (n - mx) ** 2 / sxx)) - 10;
    expect(figure(r, 'cyclesToLimit').value).toBeCloseTo(mx + (10 - my) / b, 3);
    expect(gap(figure(r, 'cyclesEarliest').value)).toBeCloseTo(0, 3);
  });

  it('a load cell: calibrated, peak without spikes, what was held', () => {
    const rows = Array.from({ length: 60 }, (_, i) => ({
      time: i * 0.1,
      counts: 1000 + (i < 20 ? i * 500 : i < 45 ? 10_000 : 2000) + (i === 10 ? 90_000 : 0),
    }));
    const r = run('torque-cell', rows, {
      lever: 0.2,
      zeroCounts: 1000,
      knownMass: 1,
      knownCounts: 11_000,
      hold: 1,
      checkMass: 2,
      checkCounts: 21_100,
    });
    expect(figure(r, 'peak').value).toBeCloseTo(9.80665 * 0.2, 4);
    expect(figure(r, 'sustained').value).toBeCloseTo(9.80665 * 0.2, 4);
    expect(figure(r, 'residual').value).toBeCloseTo(0.01, 6);
    // A hundredth of a kilogram off at two: that share of the found torque, within even bounds.
    expect(r.found!.budget.find((c) => c.id === 'linearity')!.u).toBeCloseTo(
      (0.01 * r.found!.value) / 2 / Math.sqrt(3),
      9,
    );
  });

  it('a load cell’s peak is the largest median of three samples, a dip between two high ones left out', () => {
    // Of 0, 3, 9, 6, 9, 3, 0 kg the medians are 0, 3, 6, 9, 6, 3, 0; one 9 alone would count as 6.
    const peakOf = (...kg: number[]) =>
      figure(
        run(
          'torque-cell',
          [...kg, ...Array.from({ length: 20 }, () => 0)].map((m, i) => ({ time: i * 0.1, counts: 1000 + 1000 * m })),
          { lever: 0.1, zeroCounts: 1000, knownMass: 1, knownCounts: 2000, hold: 1 },
        ),
        'peak',
      ).value;
    expect(peakOf(0, 3, 9, 6, 9, 3, 0)).toBeCloseTo(9 * 0.980665, 6);
    expect(peakOf(0, 3, 9, 6, 5, 3, 0)).toBeCloseTo(6 * 0.980665, 6);
  });

  it('a load cell the wrong way round, that rests a little beyond nought, is turned', () => {
    const rows = Array.from({ length: 60 }, (_, i) => ({
      time: i * 0.1,
      counts: 1000 - (i < 20 ? i * 500 : 10_000) + (i < 2 ? 300 : 0),
    }));
    const r = run('torque-cell', rows, { lever: 0.2, zeroCounts: 1000, knownMass: 1, knownCounts: 11_000, hold: 1 });
    expect(figure(r, 'peak').value).toBeCloseTo(9.80665 * 0.2, 4);
    // And the right way round with a dip below it is left as it is.
    const right = rows.map((x) => ({ ...x, counts: 2000 - x.counts }));
    expect(
      figure(
        run('torque-cell', right, { lever: 0.2, zeroCounts: 1000, knownMass: 1, knownCounts: 11_000, hold: 1 }),
        'peak',
      ).value,
    ).toBeCloseTo(9.80665 * 0.2, 4);
  });

  it('a step: rise, overshoot, settling, steady error; hunting with its period', () => {
    const [wn, z] = [20, 0.3];
    const wd = wn * Math.sqrt(1 - z * z);
    const t = Float64Array.from({ length: 3000 }, (_, i) => i * 0.001);
    const commanded = t.map((x) => (x >= 0.1 ? 0.1 : 0));
    const y = t.map((x) =>
      x < 0.1
        ? 0
        : 0.099 *
          (1 -
            Math.exp(-z * wn * (x - 0.1)) *
              (Math.cos(wd * (x - 0.1)) + (z / Math.sqrt(1 - z * z)) * Math.sin(wd * (x - 0.1)))),
    );
    const s = stepFigures(t, commanded, y, 0)!;
    expect(s.overshoot).toBeCloseTo(0.99 * Math.exp((-Math.PI * z) / Math.sqrt(1 - z * z)), 2);
    expect(s.steady).toBeCloseTo(0.001, 5);
    expect(s.rise).toBeCloseTo(0.066, 2);
    const hunting = stepFigures(
      t,
      commanded,
      t.map((x) => (x < 0.1 ? 0 : 0.1 + 0.002 * Math.sin(2 * Math.PI * 5 * x))),
      0,
    )!;
    expect(hunting.huntAmplitude).toBeCloseTo(0.002, 4);
    expect(hunting.huntPeriod).toBeCloseTo(0.2, 2);
    expect(Number.isNaN(hunting.settling)).toBe(false);
    // What it comes to is what the last quarter after the step shows: the last ten of forty samples here.
    const short = Float64Array.from({ length: 100 }, (_, i) => i * 0.01);
    const late = stepFigures(
      short,
      short.map((x) => (x >= 0.6 ? 0.1 : 0)),
      short.map((x) => (x < 0.6 ? 0 : x < 0.9 ? 0.05 : 0.08)),
      0,
    )!;
    expect(late.steady).toBeCloseTo(0.02, 12);
    // A swing of 2 mrad spreads by its amplitude over √2.
    const swings = Array.from(t, (x, i) => ({
      time: x,
      commanded: commanded[i]!,
      measured: x < 0.1 ? 0 : 0.09 + 0.002 * Math.sin(2 * Math.PI * 5 * x),
    }));
    const told = run('step', swings, {});
    expect(told.found!.u).toBeCloseTo(0.002 / Math.SQRT2, 4);
    expect(told.advice.join(' ')).toMatch(/goes on swinging.*stops short/s);
    const mirrored = run(
      'step',
      swings.map((r) => ({ ...r, commanded: -r.commanded, measured: -r.measured })),
      {},
    );
    expect(mirrored.advice).toHaveLength(told.advice.length);
    expect(mirrored.found!.value).toBeCloseTo(-told.found!.value, 12);
  });
});

describe('a step that does not end where it should', () => {
  const t = Float64Array.from({ length: 400 }, (_, i) => i * 0.01);
  /** A record of a step of 0.1 rad at 1 s, or of its mirror, that goes as told after it. */
  const told = (after: (s: number) => number, way = 1, scatter = 0) => {
    const g = noise(8);
    const rows = Array.from(t, (x) => ({
      time: x,
      commanded: x < 1 ? 0 : way * 0.1,
      measured: (x < 1 ? 0 : way * after(x - 1)) + scatter * g(),
    }));
    return run('step', rows, {});
  };
  const rises = (s: number) => 1 - Math.exp(-s / 0.1);

  for (const way of [1, -1]) {
    it(`${way > 0 ? 'up' : 'down'}: runs away where senses are opposed`, () => {
      const r = told((s) => -0.04 * s, way, 1e-5);
      expect(r.says).toContain('went the other way');
      expect(r.advice.join(' ')).toMatch(/runs away from its target.*opposite senses/);
      expect(r.advice.join(' ')).not.toMatch(/stops short|creeps/);
    });

    it(`${way > 0 ? 'up' : 'down'}: stops short by friction, or comes to rest beyond`, () => {
      expect(told((s) => 0.09 * rises(s), way).advice.join(' ')).toMatch(/stops short of its target by .*error/);
      expect(told((s) => 0.09 * rises(s), way).advice.join(' ')).not.toMatch(/beyond|creeps/);
      expect(told((s) => 0.11 * rises(s), way).advice.join(' ')).toMatch(/beyond its target/);
    });

    it(`${way > 0 ? 'up' : 'down'}: creeps on by a slow integral, or away by warmth`, () => {
      expect(told((s) => 0.096 * rises(s) + 1e-3 * s, way, 1e-5).advice.join(' ')).toMatch(/creeps towards .*integral/);
      expect(told((s) => 0.099 * rises(s) - 1e-3 * s, way, 1e-5).advice.join(' ')).toMatch(/creeps away .*warmth/);
    });

    it(`${way > 0 ? 'up' : 'down'}: says nothing of the kind where it comes to rest at its target`, () => {
      const said = told((s) => 0.1 * rises(s), way, 2e-5).advice.join(' ');
      expect(said).not.toMatch(/runs away|stops short|beyond|creeps/);
    });
  }
});

describe('recordings', () => {
  const made = (o: {
    ratio: number;
    play: number;
    turns: number;
    n: number;
    errors?: [number, number][];
    count?: number;
  }) => {
    const half = Math.floor(o.n / 2);
    const input = new Float64Array(2 * half);
    const output = new Float64Array(2 * half);
    const span = o.turns * 2 * Math.PI * Math.abs(o.ratio);
    for (let i = 0; i < 2 * half; i++) {
      input[i] = i < half ? (span * i) / half : span * (2 - i / half);
      const lag = ((i < half ? -1 : 1) * o.play * Math.sign(o.ratio)) / 2;
      const ideal = input[i]! / o.ratio;
      output[i] = ideal + lag + (o.errors ?? []).reduce((s, [order, a]) => s + a * Math.sin(order * ideal + 0.4), 0);
      if (o.count) output[i] = (Math.round((output[i]! / (2 * Math.PI)) * o.count) / o.count) * 2 * Math.PI;
    }
    return { input, output };
  };

  it('give ratio, play and error curve', () => {
    for (const ratio of [20, -45, 3.6]) {
      const { input, output } = made({
        ratio,
        play: 4 * arcmin,
        turns: 2.2,
        n: 40_000,
        errors: [
          [1, 2 * arcmin],
          [17, 0.5 * arcmin],
        ],
        count: 65536,
      });
      const r = transmissionRun(input, output)!;
      expect(1 / r.slope / ratio).toBeCloseTo(1, 3);
      expect(Math.abs(r.play / arcmin - 4)).toBeLessThan(0.1);
      expect(r.peakToPeak / arcmin).toBeGreaterThan(4.2);
      expect(r.peakToPeak / arcmin).toBeLessThan(5.6);
    }
  });

  it('know play that is the same all round to a hair, and errors that come twice as they come once', () => {
    const o = { ratio: 20, play: 4 * arcmin, n: 40_000, errors: [[3, 2 * arcmin]] as [number, number][] };
    const [once, twice] = [1.1, 2.2].map((turns) => {
      const { input, output } = made({ ...o, turns });
      return transmissionRun(input, output)!;
    });
    for (const r of [once!, twice!]) {
      expect(r.play / arcmin).toBeCloseTo(4, 2);
      expect(r.uPlay / arcmin).toBeLessThan(0.02);
      expect(Math.abs(r.peakToPeak / arcmin - 4)).toBeLessThan(0.2);
    }
  });

  it('tell that the ratio is another one, and which fits', () => {
    const { input, output } = made({ ratio: 46, play: 1 * arcmin, turns: 1.2, n: 30_000 });
    const r = run('transmission', [], { ratio: 45 }, { recording: record({ input, output }) });
    expect(r.says).toContain('46 : 1 fits');
    expect(figure(r, 'slip').value).toBeCloseTo(45 / 46 - 1, 3);
    expect(run('transmission', [], { ratio: -46 }, { recording: record({ input, output }) }).advice.join()).toContain(
      'other way',
    );
    expect(nearestFraction(3.6, 1e-3)).toEqual({ p: 18, q: 5 });
  });

  it('match orders to the parts of the line and say what it means in the hand', () => {
    const orders: LineOrder[] = [
      { name: 'input pulley, stage 2', order: 4, lever: 0.08 },
      { name: 'belt, stage 1', order: 6.2, lever: 0 },
    ];
    const { input, output } = made({ ratio: 20, play: 2 * arcmin, turns: 5.1, n: 80_000, errors: [[4, 3 * arcmin]] });
    const r = run('transmission', [], {}, { recording: record({ input, output }), orders });
    expect(r.peaks![0]!.order).toBeCloseTo(4, 1);
    expect(r.peaks![0]!.suspects[0]!.name).toBe('input pulley, stage 2');
    // 3′ at 80 mm is 0.07 mm.
    expect(inUnits(r.peaks![0]!.suspects[0]!.means)).toContain('0.07 mm');
    expect(r.peaks![0]!.amplitude / arcmin).toBeCloseTo(3, 1);
    expect(suspectsFor(9, 1, 'count', orders, 0.2, false).next).toContain('Nothing in the line');
  });

  it('leaves out samples that jump off their neighbours by more than four times what samples usually do', () => {
    const n = 8000;
    const input = Float64Array.from({ length: n }, (_, i) => (i / n) * 40 * Math.PI);
    // Noise that stands off its neighbours by a fixed amount, and a handful that jump by far more.
    const output = input.map((x, i) => x / 10 + (i % 2 ? 1 : -1) * 1e-5);
    const clean = transmissionRun(input, output)!;
    const jumped = output.slice();
    for (const i of [900, 2300, 4100, 6200, 7100]) jumped[i]! += 3e-3;
    const run = transmissionRun(input, jumped)!;
    expect(clean.glitches).toBe(0);
    // Each with what stands beside it, whose neighbours' middle is off by half.
    expect(run.glitches).toBeGreaterThanOrEqual(5);
    expect(run.glitches).toBeLessThanOrEqual(15);
    expect(run.slope).toBeCloseTo(clean.slope, 6);
  });

  it('wrapped encoders are joined up; standing still gives words', () => {
    const a = Float64Array.from({ length: 200 }, (_, i) => (i * 0.2) % (2 * Math.PI));
    const u = unwrapped(a);
    expect(u.angles[199]).toBeCloseTo(39.8, 9);
    expect(u.wraps).toBe(6);
    expect(transmissionRun(new Float64Array(100), new Float64Array(100))).toBeUndefined();
  });

  it('tell how far they are, never backwards, often enough for a bar, and are the same for it', () => {
    const { input, output } = made({ ratio: 12, play: 2 * arcmin, turns: 1.5, n: 110_000 });
    const shares: number[] = [];
    const told = transmissionRun(input, output, (share) => shares.push(share))!;
    expect(told).toEqual(transmissionRun(input, output));
    expect(shares.length).toBeGreaterThan(20);
    for (let k = 1; k < shares.length; k++) expect(shares[k]!).toBeGreaterThan(shares[k - 1]!);
    expect(shares[0]).toBe(0);
    expect(shares.at(-1)).toBeLessThan(1);
    const heard: number[] = [];
    run(
      'transmission',
      [],
      { ratio: 12 },
      { recording: record({ input, output }), told: (share) => heard.push(share) },
    );
    expect(heard).toEqual(shares);
  });

  it('survive packing to what single precision keeps', () => {
    const r = record({ input: Float64Array.from({ length: 1000 }, (_, i) => 1000 + i * 1e-3) });
    const back = unpackRecording(packRecording(r));
    expect(back.ok && back.value.data[0]!.every((v, i) => Math.abs(v - r.data[0]![i]!) < 1e-7)).toBe(true);
    const wave = (k: number) => Float64Array.from({ length: 300 }, (_, i) => k + Math.sin(i / (k + 5)));
    const three = record({ input: wave(0), output: wave(7), time: wave(400) });
    const all = unpackRecording(packRecording(three));
    if (!all.ok) throw new Error(all.problem.what);
    all.value.data.forEach((d, c) => d.forEach((v, i) => expect(Math.abs(v - three.data[c]![i]!)).toBeLessThan(1e-6)));
    expect(unpackRecording({ ...packRecording(r), data: 'xx;yy' }).ok).toBe(false);
    expect(unpackRecording({ ...packRecording(r), data: undefined }).ok).toBe(false);
  });

  it('a WAV file says what it holds, and is read in whatever depth it was written', () => {
    const written = writeWav([0, 0.5, -1, 0.25], 8000);
    const view = new DataView(written.buffer, written.byteOffset);
    // Rate, bytes a second, bytes a frame, bits a sample, bytes of samples.
    expect([view.getUint32(24, true), view.getUint32(28, true)]).toEqual([8000, 16000]);
    expect([view.getUint16(32, true), view.getUint16(34, true), view.getUint32(40, true)]).toEqual([2, 16, 8]);
    const wide = new Uint8Array(44 + 16);
    wide.set(written.subarray(0, 44));
    const deep = new DataView(wide.buffer);
    deep.setUint32(4, 52, true);
    deep.setUint32(28, 32000, true);
    deep.setUint16(32, 4, true);
    deep.setUint16(34, 32, true);
    deep.setUint32(40, 16, true);
    [0, 0.5, -1, 0.25].forEach((x, i) => deep.setInt32(44 + 4 * i, x * 2 ** 31, true));
    for (const file of [written, wide]) {
      const read = readWav(file);
      if (!read.ok) throw new Error(read.problem.what);
      [0, 0.5, -1, 0.25].forEach((x, i) => expect(read.value.data[0]![i]).toBeCloseTo(x, 4));
    }
  });

  it('a plucked span: tone and tension from sound, through a WAV file', () => {
    const rate = 22050;
    const g = noise(2);
    const sound = Float64Array.from(
      { length: rate },
      (_, i) =>
        Math.exp(-i / rate / 0.3) *
          (0.5 * Math.sin(2 * Math.PI * 91.3 * (i / rate)) + 0.3 * Math.sin(2 * Math.PI * 182.6 * (i / rate))) +
        0.01 * g(),
    );
    expect(tone(sound, rate)).toBeCloseTo(91.3, 0);
    const read = importFile(testKind('pluck')!, writeWav(sound, rate));
    if (!read.ok) throw new Error(read.problem.what);
    const r = run('pluck', [], { span: 0.15, massPerLength: 8.4 }, { recording: read.value.recording! });
    expect(r.found!.value / (4 * 8.4e-3 * (0.15 * 91.3) ** 2)).toBeCloseTo(1, 2);
    const clipped = importFile(
      testKind('noise')!,
      writeWav(
        sound.map((v) => Math.max(-1, Math.min(1, 9 * v))),
        rate,
      ),
    );
    expect(clipped.ok && clipped.value.notes.join()).toContain('clipped');
  });

  it('a noise at its orders', () => {
    const rate = 16000;
    const sound = Float64Array.from(
      { length: rate * 8 },
      (_, i) => 0.2 * Math.sin((2 * Math.PI * 54 * 0.5 * i) / rate) + 0.02 * noise(i + 1)(),
    );
    const r = run(
      'noise',
      [],
      { speed: Math.PI },
      { recording: { ...record({ sound }, rate), rate }, orders: [{ name: 'teeth, stage 1', order: 54, lever: 0.05 }] },
    );
    expect(r.peaks![0]!.order).toBeCloseTo(54, 1);
    expect(r.peaks![0]!.suspects[0]!.name).toBe('teeth, stage 1');
    expect(Math.abs(r.peaks![0]!.amplitude / 0.2 - 1)).toBeLessThan(0.01);
    // An order 1.5 % off is meant where the speed is known to 2 %, and is not where it is known to 0.1 %.
    const off = (speedError: number) =>
      run(
        'noise',
        [],
        { speed: Math.PI, speedError },
        { recording: { ...record({ sound }, rate), rate }, orders: [{ name: 'teeth', order: 54.8, lever: 0.05 }] },
      ).peaks![0]!.suspects.map((s) => s.name);
    expect(off(0.02)).toContain('teeth');
    expect(off(0.001)).not.toContain('teeth');
  });
});

describe('files', () => {
  const read = (id: string, text: string) =>
    importFile(TEST_KINDS.find((k) => k.id === id) as TestKind, new TextEncoder().encode(text));
  const values = (id: string, text: string) => {
    const r = read(id, text);
    if (!r.ok) throw new Error(`${r.problem.what} ${r.problem.why}`);
    return r.value.readings.map((x) => x.values);
  };

  it('are read with any separator, units, order and decimal commas', () => {
    const want = [
      { torque: 1.5, angle: 2 * arcmin },
      { torque: -1.5, angle: -2.5 * arcmin },
    ];
    for (const text of [
      'torque (N·m),angle (′)\n1.5,2\n-1.5,-2.5',
      'angle_arcmin;torque_Nm\n2;1,5\n-2,5;-1,5',
      'torque\tangle [arcmin]\n1,5\t2,0\n-1,5\t-2,5',
      '1.5 2\n-1.5 -2.5',
      'Torque / N·m,Angle / arcmin,remark\n1.5,2,a\n-1.5,-2.5,b',
      '# operator: nobody\ntorque,angle\n1.5 N·m,2′\n-1.5,-2.5',
    ]) {
      const got = values('hysteresis', text);
      got.forEach((v, i) => {
        expect(v['torque'], text).toBeCloseTo(want[i]!.torque, 9);
        expect(v['angle'], text).toBeCloseTo(want[i]!.angle, 9);
      });
    }
  });

  it('straight axes by their units, directions and outcomes as signs or words, newtons on a scale', () => {
    const p = read('positioning', 'target_mm,direction,deviation_um\n50,1,4\n50,-1,-3');
    expect(p.ok && p.value.rig['axis']).toBe('straight');
    expect(p.ok && p.value.readings.map((r) => [r.values['way'], r.values['deviation'], r.values['target']])).toEqual([
      ['up', 4e-6, 0.05],
      ['down', -3e-6, 0.05],
    ]);
    const t = read('turn-back', '# lever: 200 mm\ndirection,force_N,turned\n1,2,0\n-1,3,true');
    expect(t.ok && t.value.readings.map((r) => [r.values['way'], r.values['outcome']])).toEqual([
      ['with', 'held'],
      ['against', 'turned'],
    ]);
    expect(t.ok && t.value.readings[0]!.values['mass']).toBeCloseTo(2 / 9.80665, 9);
    expect(t.ok && t.value.notes.join()).toContain('divided by standard gravity');
  });

  it('rows that cannot be read are counted, the rest kept; missing columns and empty files are told', () => {
    const r = read('hysteresis', 'torque,angle\n1,2\noops,3\n4,\n5,6 mm\n7,8');
    expect(r.ok && r.value.readings).toHaveLength(2);
    expect(r.ok && r.value.notes.join()).toContain('3 rows could not be read');
    for (const [text, word] of [
      ['torque,foo\n1,2', 'missing'],
      ['', 'empty'],
      ['\n\n', 'nothing'],
      ['torque,angle\n', 'heading'],
      ['torque,angle\nx,y\n', 'No row'],
    ] as const) {
      const bad = read('hysteresis', text);
      expect(!bad.ok && `${bad.problem.what} ${bad.problem.why}`, text).toContain(word);
    }
    expect(importFile(testKind('runout')!, Uint8Array.from([1, 0, 0, 2, 0, 9])).ok).toBe(false);
    expect(importFile(testKind('runout')!, writeWav([0, 0.1], 8000)).ok).toBe(false);
  });

  it('time that runs backwards is left out and said, gaps are counted', () => {
    const text = `time,commanded,measured\n${Array.from({ length: 600 }, (_, i) => `${i === 300 ? 1 : i * 0.01 + (i > 400 ? 2 : 0)},5,${i}`).join('\n')}`;
    const r = read('step', text);
    expect(r.ok && r.value.recording!.gaps).toBe(1);
    expect(r.ok && r.value.recording!.notes.join()).toContain('backwards');
    expect(r.ok && r.value.recording!.data[0]).toHaveLength(599);
  });

  it('rig values above a table or in JSON find their fields', () => {
    const r = read('play-spot', '# distance: 2.5 m\n# beam: mirror\nshift (mm)\n4\n5');
    expect(r.ok && [r.value.rig['distance'], r.value.rig['beam']]).toEqual([2.5, 'mirror']);
    const j = read(
      'torque-ladder',
      '{"lever_mm":150,"basket_kg":0.115,"readings":[{"mass_kg":4.381,"outcome":"lifted"},{"mass":"5 kg","outcome":"skipped"}]}',
    );
    expect(j.ok && [j.value.rig['lever'], j.value.rig['basket'], j.value.readings[1]!.values['mass']]).toEqual([
      0.15, 0.115, 5,
    ]);
    expect(read('runout', '{"angle_deg":[0,90,180],"reading_mm":[0.01,0.02,0.03]}').ok).toBe(true);
    expect(read('runout', '{"a":').ok).toBe(false);
    expect(read('runout', '[]').ok).toBe(false);
  });
});

describe('worked apart from the code', () => {
  it('a kilogram on the specimen’s load cell is its weight in counts', () => {
    // 4200 counts a newton over a zero of 812: 9.80665 N are 41 188 counts, 42 000 are read.
    const rig = testKind('torque-cell')!.rigOfSpecimen!({} as never);
    expect([rig['zeroCounts'], rig['knownCounts'], rig['knownMass']]).toEqual([812, 42_000, 1]);
  });

  it('the curve of a run-out goes through readings that have no scatter', () => {
    const at = (t: number) =>
      1e-4 + 3e-5 * Math.cos(t) - 2e-5 * Math.sin(t) + 8e-6 * Math.cos(2 * t) + 1.3e-5 * Math.sin(2 * t);
    const r = run(
      'runout',
      Array.from({ length: 16 }, (_, i) => ({ angle: (i * Math.PI) / 8, reading: at((i * Math.PI) / 8) })),
    );
    const fitted = r.plots.flatMap((p) => p.series).find((s) => s.name === 'fitted')!;
    expect(fitted.x.length).toBe(73);
    for (let i = 0; i < fitted.x.length; i++) expect(fitted.y[i]).toBeCloseTo(at(fitted.x[i]!), 9);
  });

  it('a step that is a ramp rises for as long as the ramp’s middle, either way', () => {
    const t = Float64Array.from({ length: 400 }, (_, i) => i * 0.01);
    const of = (way: number) =>
      stepFigures(
        t,
        t.map((x) => (x < 1 ? 0 : way * 0.1)),
        t.map((x) => way * 0.1 * Math.max(0, Math.min(1, (x - 1.005) / 0.37))),
        0,
      )!;
    // From a tenth to nine tenths: eight tenths of 0.37 s, though neither falls on a sample.
    for (const way of [1, -1]) expect(of(way).rise).toBeCloseTo(0.8 * 0.37, 9);
  });

  it('a tone read off three times is as sure as its scatter and the hertz it is read to', () => {
    const r = run(
      'pluck',
      [91, 92, 93].map((frequency) => ({ frequency })),
    );
    const f = figure(r, 'frequency');
    expect(f.value).toBeCloseTo(92, 12);
    // 1 Hz of scatter over √3, and half a hertz of reading as a rectangle: 0.577 and 0.289.
    expect(f.U! / 1.96).toBeCloseTo(Math.hypot(1 / Math.sqrt(3), 0.5 / Math.sqrt(3)), 2);
  });
});
