import { describe, expect, it } from 'vitest';
import {
  analyseLadder,
  analyseTest,
  blankTest,
  contextFor,
  fisher95,
  fitTelling,
  inOrderOfTime,
  makeShelf,
  positioningBands,
  roundBlock,
  roundMean,
  scatteredCapacity,
  swinging,
  testKind,
  trendBlock,
  type BenchTest,
  type Outcome,
} from '../src/index.ts';
import { Chance } from './specimens/chance.ts';
import { loopSpecimen, LOOPS } from './specimens/hysteresis.ts';
import { turnSpecimen, TURNS } from './specimens/transmission.ts';
import { stopSpecimen, STOPS } from './specimens/typed.ts';

const ARCMIN = Math.PI / 10800;
const TURN = 2 * Math.PI;

function typed(kindId: string, rows: readonly Record<string, number | string>[], rig: BenchTest['rig'] = {}) {
  const kind = testKind(kindId)!;
  const blank = blankTest(kind, { id: 't', buildId: '', date: '' });
  const r = analyseTest(
    {
      ...blank,
      rig: { ...blank.rig, ...rig },
      readings: rows.map((values, i) => ({ id: `r${i}`, text: '', values })),
    },
    contextFor(undefined, undefined, makeShelf()),
  );
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
}

describe('what readings ask for', () => {
  it.each([
    [1, 10, 4.965],
    [2, 10, 4.103],
    [3, 10, 3.708],
    [4, 8, 3.838],
    [5, 20, 2.711],
    [9, 60, 2.04],
  ])('F of %i and %i is %f, as tables have it', (a, b, value) => {
    expect(fisher95(a, b) / value).toBeCloseTo(1, 1.5);
    expect(Math.abs(fisher95(a, b) / value - 1)).toBeLessThan(0.02);
  });

  it('chance brings a block in in about five of a hundred', () => {
    let taken = 0;
    for (let seed = 1; seed <= 600; seed++) {
      const c = new Chance(seed);
      const angle = Float64Array.from({ length: 12 }, () => c.between(0, TURN));
      const y = angle.map(() => c.normal());
      if (fitTelling(y, [y.map(() => 1)], [roundBlock('once', 1, angle)])!.blocks.length) taken++;
    }
    expect(taken / 600).toBeGreaterThan(0.03);
    expect(taken / 600).toBeLessThan(0.075);
  });

  it('what is there comes in, with its own numbers, and nothing else', () => {
    const angle = Float64Array.from({ length: 9 }, (_, i) => 0.3 + i * i * 0.07);
    const y = angle.map((a, i) => 5 + 2 * Math.cos(a) - 3 * Math.sin(a) + 1e-6 * ((i * 7) % 3));
    const fit = fitTelling(y, [y.map(() => 1)], [trendBlock(9), roundBlock('once', 1, angle)])!;
    expect(fit.blocks.map((b) => b.id)).toEqual(['once']);
    expect([...fit.values].map((v) => Math.round(v * 1e4) / 1e4)).toEqual([5, 2, -3]);
    expect(fit.at('trend')).toBe(-1);
    expect(fit.dof).toBe(6);
  });

  it('residuals in step are told from those that hang together one way, and from noise', () => {
    const wave = Float64Array.from({ length: 400 }, (_, i) => Math.sin(i / 3));
    const c = new Chance(4);
    expect(swinging(wave)).toBe(true);
    expect(swinging(wave.map(() => c.normal()))).toBe(false);
    expect(swinging(new Float64Array(400))).toBe(false);
    expect(swinging(wave.subarray(0, 20))).toBe(false);
  });
});

describe('play over a turn', () => {
  const noise = [0.02, -0.03, 0.01, 0.04, -0.02, -0.01, 0.03, -0.04];

  it('that goes once round has the mean of the turn, not of the angles that were handy', () => {
    const angles = [0, 0.4, 0.8, 1.2, 1.6, 2, 3.5, 5];
    const plays = angles.map((a, i) => (6 + 2 * Math.cos(a - 0.8) + noise[i]!) * ARCMIN);
    const { mean, says } = roundMean(angles, plays, 'play');
    expect(mean / ARCMIN).toBeCloseTo(6, 1);
    // The plain mean of these angles is most of an arc minute off.
    expect(Math.abs(plays.reduce((s, v) => s + v, 0) / 8 / ARCMIN - 6)).toBeGreaterThan(0.5);
    expect(says[0]).toMatch(/once round.*most at/);
  });

  it('that differs between angles otherwise counts angles: √(Σ(x̄ᵢ − x̄)²/(k − 1)/k)', () => {
    // Means 5, 7, 5, 7 over four angles a quarter apart go twice round, which no once-round wave takes.
    const angles = [0, 0, 1, 1, 2, 2, 3, 3].map((q) => (q * Math.PI) / 2);
    const plays = [5, 5, 7, 7, 5, 5, 7, 7].map((p, i) => p + noise[i]! / 10);
    const { budget, says } = roundMean(angles, plays, 'play');
    const means = [0, 1, 2, 3].map((k) => (plays[2 * k]! + plays[2 * k + 1]!) / 2);
    const middle = means.reduce((s, m) => s + m, 0) / 4;
    expect(budget[0]!.u).toBeCloseTo(Math.sqrt(means.reduce((s, m) => s + (m - middle) ** 2, 0) / 3 / 4), 9);
    expect(budget[0]!.dof).toBe(3);
    expect(says[0]).toContain('4 angles');
  });

  it('that creeps says by how much, and is known no better than half of that', () => {
    const angles = noise.map((_, i) => (i % 2) * Math.PI);
    const plays = noise.map((e, i) => (6 + (2 * i) / 7 + e) * ARCMIN);
    const { budget, says } = roundMean(angles, plays, 'play');
    const creep = budget.find((b) => b.id === 'creep')!;
    expect(creep.u / ARCMIN).toBeCloseTo(1 / Math.sqrt(3), 1);
    expect(says[0]).toMatch(/^From the first reading to the last the play grows by/);
  });

  it('read a few times is their mean and s/√n', () => {
    const { mean, budget, says } = roundMean([0, 1, 2], [4, 6, 5], 'play');
    expect([mean, budget[0]!.u, budget[0]!.dof, says.length]).toEqual([5, 1 / Math.sqrt(3), 2, 0]);
    expect(roundMean([0], [4], 'play')).toMatchObject({ mean: 4, says: [] });
  });
});

describe('a ladder whose rungs contradict each other', () => {
  const rungs: { torque: number; outcome: Outcome }[] = [
    { torque: 8, outcome: 'held' },
    { torque: 9, outcome: 'held' },
    { torque: 10, outcome: 'skipped' },
    { torque: 9.5, outcome: 'skipped' },
    { torque: 10.2, outcome: 'held' },
    { torque: 9.8, outcome: 'lifted' },
    { torque: 11, outcome: 'stalled' },
  ];

  it('has a mean that agrees with capacities drawn at random and weighed by what they would have done', () => {
    const c = new Chance(12);
    let [w, first, second] = [0, 0, 0];
    for (let k = 0; k < 400_000; k++) {
      const mean = c.over(4, 22);
      const share = c.over(0.005, 0.16);
      // Φ by its logistic stand-in, good to 1 %; one rung in a hundred is noted by the toss of a coin.
      const likely = rungs.reduce((p, r) => {
        const z = (1 - r.torque / mean) / share;
        const held = 1 / (1 + Math.exp(-z * (1.5976 + 0.070566 * z * z)));
        return p * (0.005 + 0.99 * (r.outcome === 'held' || r.outcome === 'lifted' ? held : 1 - held));
      }, 1);
      w += likely;
      first += likely * mean;
      second += likely * mean * mean;
    }
    const mean = first / w;
    const found = scatteredCapacity(rungs);
    expect(found.mean / mean).toBeCloseTo(1, 1.7);
    expect(found.u / Math.sqrt(second / w - mean * mean)).toBeCloseTo(1, 0.7);
  });

  const ladder = (list: readonly [number, Outcome][]) =>
    analyseLadder(
      {
        rig: {
          lever: 0.2,
          leverError: 0,
          leverMass: 0.1,
          leverCentre: 0.1,
          basket: 0.1,
          angle: 0,
          angleError: 0,
        },
        readings: list.map(([mass, outcome], i) => ({ id: `${i}`, mass, outcome })),
      },
      undefined,
      9.80665,
    );

  it('says whether it got weaker or scatters, and asks for a second try of a bracket', () => {
    const weaker = ladder([
      [4, 'held'],
      [5, 'held'],
      [4.5, 'skipped'],
    ]);
    const scatters = ladder([
      [4, 'held'],
      [4.5, 'skipped'],
      [5, 'held'],
    ]);
    const once = ladder([
      [4, 'held'],
      [5, 'skipped'],
    ]);
    const twice = ladder([
      [4, 'held'],
      [5, 'skipped'],
      [4, 'held'],
      [5, 'skipped'],
    ]);
    if (!(weaker.ok && scatters.ok && once.ok && twice.ok)) throw new Error('refused');
    expect(weaker.value.advice.join()).toMatch(/got weaker.*cool/);
    expect(scatters.value.advice.join()).toContain('scatters, or a rung was noted wrongly');
    expect(once.value.advice.join()).toContain('tried once');
    expect(twice.value.advice.join()).not.toContain('tried once');
    // All that is known of a bracket is that it lies in it: the middle and half of it over √3.
    expect(once.value.found.value).toBeCloseTo(9.80665 * (4.6 * 0.2 + 0.01), 9);
    expect(once.value.found.budget[0]!.u).toBeCloseTo((9.80665 * 0.2 * 0.5) / Math.sqrt(3), 9);
  });
});

describe('run-out', () => {
  const read = (f: (a: number, i: number) => number, count = 16) =>
    Array.from({ length: count }, (_, i) => {
      const angle = ((i % 8) * TURN) / 8 + 0.1 * Math.sin(i % 8);
      return { angle, reading: f(angle, i) };
    });

  it('with three lobes and a zero that drifts still has its own middle', () => {
    const r = typed(
      'runout',
      read((a, i) => 3e-5 * Math.cos(a - 1) + 8e-6 * Math.cos(2 * a) + 1e-5 * Math.cos(3 * a - 2) + (4e-5 * i) / 15),
    );
    expect(r.found!.value * 1e6).toBeCloseTo(30, 6);
    expect(r.figures.find((f) => f.id === 'ovality')!.value * 1e6).toBeCloseTo(8, 6);
    expect(r.advice.join()).toMatch(/three lobes/);
    expect(r.advice.join()).toMatch(/dial climbs/);
  });

  it('read once round says that a drift would look the same', () => {
    const c = new Chance(3);
    const r = typed(
      'runout',
      read((a) => 3e-5 * Math.cos(a) + 1e-6 * c.normal(), 8),
    );
    expect(r.advice.join()).toContain('Each angle was read once');
  });
});

describe('positioning', () => {
  /** 95 % of how far R of two targets from one side, `n` runs each, lies off 4σ: by trying it. */
  function tried(n: number): number {
    const c = new Chance(n);
    const off = Array.from({ length: 4000 }, () => {
      const s = [0, 1].map(() => {
        const x = Array.from({ length: n }, () => c.normal());
        const m = x.reduce((a, b) => a + b, 0) / n;
        return Math.sqrt(x.reduce((a, b) => a + (b - m) ** 2, 0) / (n - 1));
      });
      return Math.abs(4 * Math.max(...s) - 4);
    }).sort((a, b) => a - b);
    return off[Math.ceil(0.95 * off.length) - 1]!;
  }

  it('knows R as well as trying it again and again does, and reads high of few runs', () => {
    for (const n of [5, 40]) {
      const bands = Array.from({ length: 40 }, (_, seed) => {
        const c = new Chance(seed + 100);
        return positioningBands(
          [0, 1].map((target) => ({ target, up: Array.from({ length: n }, () => c.normal()), down: [] })),
        ).repeatability;
      });
      const mean = (of: (b: (typeof bands)[number]) => number) => bands.reduce((s, b) => s + of(b), 0) / bands.length;
      expect(mean((b) => b.U) / tried(n), `${n} runs`).toBeGreaterThan(0.8);
      expect(mean((b) => b.U) / tried(n), `${n} runs`).toBeLessThan(1.35);
      expect(mean((b) => b.high)).toBeGreaterThan(0);
    }
  });

  it('is the same each time it is asked', () => {
    const runs = [{ target: 0, up: [1, 2, 3], down: [2, 4, 3] }];
    expect(positioningBands(runs)).toEqual(positioningBands(runs));
  });

  it('says that stops climb from run to run', () => {
    const c = new Chance(8);
    const rows = Array.from({ length: 50 }, (_, i) => ({
      target: i % 5,
      way: i % 10 < 5 ? 'up' : 'down',
      deviation: (0.2 * c.normal() + (3 * i) / 49) * ARCMIN,
    }));
    expect(typed('positioning', rows).advice.join()).toMatch(/climb by .* warms/);
    const still = rows.map((r, i) => ({ ...r, deviation: r.deviation - ((3 * i) / 49) * ARCMIN }));
    expect(typed('positioning', still).advice.join()).not.toContain('warms');
  });
});

describe('two loads alone', () => {
  it('give a slope and nothing that it is worth', () => {
    const r = typed(
      'efficiency',
      [
        { torque: 1, current: 0.5 },
        { torque: 3, current: 1.1 },
      ],
      { ratio: 20, torqueConstant: 0.2 },
    );
    expect(r.found).toBeUndefined();
    // (3 − 1)/(1.1 − 0.5)/(20·0.2)
    expect(r.figures.find((f) => f.id === 'efficiency')!.value).toBeCloseTo(2 / 0.6 / 4, 9);
    expect(r.figures.every((f) => f.U === undefined)).toBe(true);
    expect(r.advice.join()).toContain('Read a third');
    const speeds = typed(
      'no-load',
      [
        { speed: 10, current: 0.2 },
        { speed: 90, current: 0.3 },
      ],
      { torqueConstant: 0.1, by: 'current' },
    );
    expect(speeds.found).toBeUndefined();
    expect(speeds.figures.every((f) => f.U === undefined)).toBe(true);
  });

  it('of several starts the hardest counts', () => {
    const rows = [
      { speed: 0, current: 0.31 },
      { speed: 0, current: 0.4 },
      { speed: 30, current: 0.2 },
      { speed: 60, current: 0.22 },
      { speed: 90, current: 0.24 },
    ];
    const r = typed('no-load', rows, { torqueConstant: 0.1, by: 'current' });
    expect(r.figures.find((f) => f.id === 'startingCurrent')!.value).toBe(0.4);
    expect(r.figures.find((f) => f.id === 'startingTorque')!.value).toBeCloseTo(0.04, 12);
  });

  it('the scatter of an efficiency is that of its slope, over ratio and torque constant', () => {
    const current = [0.5, 0.8, 1.1, 1.4];
    const off = [0.03, -0.03, -0.03, 0.03];
    const rows = current.map((c, k) => ({ torque: 3.2 * (c - 0.1) + off[k]!, current: c }));
    const r = typed('efficiency', rows, { ratio: 20, torqueConstant: 0.2 });
    expect(r.found!.value).toBeCloseTo(3.2 / 4, 9);
    // √(Σ e²/(n − 2)/Σ(x − x̄)²) = √(4·9e-4/2/0.45).
    const scatter = r.found!.budget.find((b) => b.id === 'scatter')!;
    expect(scatter.u).toBeCloseTo(Math.sqrt((4 * 9e-4) / 2 / 0.45) / 4, 9);
  });

  it('three say what drag is worth, the torque constant’s own error in it', () => {
    const rows = [1, 2, 3].map((torque) => ({ torque, current: torque / 4 + 0.2 }));
    const r = typed('efficiency', rows, { ratio: 20, torqueConstant: 0.2, constantError: 0.1 });
    const drag = r.figures.find((f) => f.id === 'drag')!;
    expect(drag.value).toBeCloseTo(0.04, 9);
    expect(drag.U).toBeCloseTo((1.96 * 0.1 * 0.04) / Math.sqrt(3), 9);
  });
});

it('a block that sticks and slips is told for what it is, one that slides is not', () => {
  const told = (sticks: number | undefined) => {
    let count = 0;
    for (let seed = 1; seed <= 12; seed++) {
      const { sticks: _, ...plain } = LOOPS['stick and slip']!;
      const { torque, angle } = loopSpecimen({ ...plain, ...(sticks !== undefined && { sticks }) }, seed);
      const kind = testKind('hysteresis')!;
      const channel = (id: string, quantity: 'torque' | 'smallAngle') => ({ id, name: id, quantity });
      const r = analyseTest(
        blankTest(kind, { id: 't', buildId: '', date: '' }),
        contextFor(undefined, undefined, makeShelf(), {
          channels: [channel('torque', 'torque'), channel('angle', 'smallAngle')],
          data: [torque, angle],
          rate: 0,
          malformed: 0,
          gaps: 0,
          notes: [],
        }),
      );
      if (r.ok && r.value.advice.join().includes('sticks and slips')) count++;
    }
    return count;
  };
  expect(told(0)).toBeGreaterThan(4);
  expect(told(undefined)).toBe(0);
});

it('readings out of the order of their times are put into it, rows whole', () => {
  const test = {
    ...blankTest(testKind('temperature')!, { id: 't', buildId: '', date: '' }),
    readings: [30, 0, 20].map((time) => ({ id: `${time}`, text: '', values: { time, temperature: 290 + time } })),
  };
  const { test: sorted, says } = inOrderOfTime(test);
  expect(sorted.readings.map((r) => r.id)).toEqual(['0', '20', '30']);
  expect(sorted.readings.every((r) => r.values['temperature'] === 290 + Number(r.values['time']))).toBe(true);
  expect(says[0]).toContain('1 time');
  expect(inOrderOfTime(sorted).says).toEqual([]);
});

it('a feature far off what the others say is named by its row, scatter alone is not', () => {
  const drawn = [4, 6, 8, 10, 12, 16, 20, 25, 30, 40];
  const rows = (slip: number) =>
    drawn.map((d, i) => ({
      drawn: d * 1e-3,
      measured: (d + 0.12 + 0.004 * Math.sin(i * 5) + (i === 6 ? slip : 0)) * 1e-3,
      feature: 'outside',
      axis: i % 2 ? 'y' : 'x',
    }));
  expect(typed('fit', rows(0.25)).advice[0]).toMatch(/^Row 7 .* off what the others say/);
  expect(typed('fit', rows(0)).advice.join()).not.toContain('off what the others say');
});

describe('an uncertainty that holds more often than it says', () => {
  const how = (r: ReturnType<typeof typed>, id: string) => r.figures.find((f) => f.id === id)!.how;

  it('is called a bound where the largest of few spreads is told, and not where there are many', () => {
    const told = (name: string) => how(typed('positioning', stopSpecimen(STOPS[name]!, 3).rows), 'repeatability');
    expect(told('five targets, five runs')).toMatch(/U is a bound/);
    expect(told('twelve targets, five runs')).not.toMatch(/bound/);
  });

  it('is called a bound where a reversal lies within its own scatter, and not where it stands out of it', () => {
    const told = (name: string) => how(typed('positioning', stopSpecimen(STOPS[name]!, 3).rows), 'reversal');
    expect(told('without reversal')).toMatch(/U is a bound/);
    expect(told('twelve targets, five runs')).not.toMatch(/bound/);
  });

  it('is called a bound for waves that a sensor’s own error may make alone', () => {
    const s = turnSpecimen(TURNS['a sensor with an error of its own']!, 3);
    const kind = testKind('transmission')!;
    const blank = blankTest(kind, { id: 't', buildId: '', date: '' });
    const recording = {
      channels: ['input', 'output'].map((id) => ({ id, name: id, quantity: 'angle' as const })),
      data: [s.input, s.output],
      rate: 0,
      malformed: 0,
      gaps: 0,
      notes: [],
    };
    const told = (sensorError: number) => {
      const context = contextFor(undefined, undefined, makeShelf(), recording);
      const r = analyseTest({ ...blank, rig: { ...blank.rig, sensorError } }, context);
      if (!r.ok) throw new Error(r.problem.what);
      return r.value.peaks!.filter((p) => p.order < 2.5).map((p) => p.next);
    };
    const slow = told(1);
    expect(slow.length).toBeGreaterThan(0);
    for (const next of slow) expect(next).toMatch(/^Less than the sensor’s own error may be.*a bound/);
    for (const next of told(0)) expect(next).not.toMatch(/bound/);
  });

  it('is called a bound where neighbouring readings of a loop err alike, and not where each errs by itself', () => {
    const told = (name: string) => {
      const { torque, angle } = loopSpecimen(LOOPS[name]!, 3);
      const rows = Array.from(torque, (t, i) => ({ torque: t, angle: angle[i]! }));
      const r = typed('hysteresis', rows);
      return [how(r, 'play'), how(r, 'stiffness1')];
    };
    for (const said of told('a motor that cogs')) expect(said).toMatch(/err alike.*a bound/);
    for (const said of told('one slope, typed')) expect(said).not.toMatch(/err alike/);
  });
});
