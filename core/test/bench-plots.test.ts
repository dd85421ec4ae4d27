import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  blankTest,
  contextFor,
  makeShelf,
  readJointFile,
  testKind,
  type BenchTest,
  type Recording,
  type TestContext,
  type TestPlot,
  type TestResult,
} from '../src/index.ts';

// What a test's plots show is what was read and what was fitted to it: on its own axes, all of it, in its own units.

const shelf = makeShelf();
const context: TestContext = {
  instruments: shelf.instruments,
  gravity: 9.80665,
  orders: [],
  materials: [],
  torqueConstant: 0.05,
  ratio: 20,
};
type Rows = Record<string, number | string>[];
const analysed = (
  id: string,
  rows: Rows,
  rig: Record<string, number | string> = {},
  over: Partial<TestContext> = {},
): TestResult => {
  const kind = testKind(id)!;
  const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
  const r = kind.analyse(
    {
      ...blank,
      rig: { ...blank.rig, ...rig },
      readings: rows.map((values, i) => ({ id: `r${i}`, text: '', values })),
    } as BenchTest,
    { ...context, ...over },
  );
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const recording = (channels: Record<string, Float64Array>, rate: number): Recording => ({
  channels: Object.keys(channels).map((id) => ({ id, name: id, quantity: 'angle' })),
  data: Object.values(channels),
  rate,
  malformed: 0,
  gaps: 0,
  notes: [],
});
const series = (plot: TestPlot, key: string) => {
  const s = plot.series.find((q) => q.key === key)!;
  return { x: Array.from(s.x), y: Array.from(s.y) };
};
const figure = (r: TestResult, id: string) => r.figures.find((f) => f.id === id)!.value;
/** A polyline's height over a place on it. */
const heightOf = ({ x, y }: { x: number[]; y: number[] }, at: number): number => {
  const k = Math.max(
    1,
    x.findIndex((v, i) => i > 0 && v >= at - 1e-12),
  );
  const t = (at - x[k - 1]!) / (x[k]! - x[k - 1]!);
  return y[k - 1]! + t * (y[k]! - y[k - 1]!);
};
const wave = (i: number) => Math.sin(7.3 * i * i + 0.4);

describe('every plot of the demo’s tests', () => {
  for (const name of ['neck-lift', 'body-yaw', 'wing-root', 'tide-dial']) {
    const read = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
    if (!read.ok) throw new Error(read.problem.what);
    const joint = read.value;
    for (const test of joint.tests) {
      const variant = joint.variants.find((v) => v.id === joint.builds.find((b) => b.id === test.buildId)!.variantId)!;
      const made = testKind(test.kind)!.analyse(test, contextFor(variant, analyseLine(joint, variant, shelf), shelf));
      if (!made.ok || made.value.plots.length === 0) continue;
      it(`${name}, ${test.kind}: shows the readings as they are, and what is fitted among them`, () => {
        for (const plot of made.value.plots) {
          for (const s of plot.series) {
            expect(s.x.length, s.key).toBe(s.y.length);
            expect([...Array.from(s.x), ...Array.from(s.y)].every(Number.isFinite), s.key).toBe(true);
          }
          const raw = series(plot, plot.series[0]!.key);
          // One of the columns is what is drawn up, in the order of the readings or sorted, unless it is reckoned with.
          const column = (id: string) => test.readings.map((r) => r.values[id]).filter((v) => typeof v === 'number');
          const columns = testKind(test.kind)!.columns.map((c) => column(c.id).sort((a, b) => a - b));
          const alike = (a: number[]) => columns.some((c) => a.every((v) => c.includes(v)));
          if (['hysteresis', 'runout', 'temperature', 'efficiency', 'no-load', 'fit'].includes(test.kind))
            expect(alike(raw.x), plot.name).toBe(true);
          if (['hysteresis', 'runout', 'temperature'].includes(test.kind)) expect(alike(raw.y), plot.name).toBe(true);
          const fitted = plot.series.find((s) => s.role === 'fit' && s.as === 'line');
          if (!fitted) continue;
          // A fit runs over all that was read, and what was read lies about it.
          expect(Math.min(...Array.from(fitted.x))).toBeLessThanOrEqual(Math.min(...raw.x) + 1e-12);
          expect(Math.max(...Array.from(fitted.x))).toBeGreaterThanOrEqual(Math.max(...raw.x) - 1e-12);
          // A loop's goes there and back, and targets have one each way: those stand in tests of their own.
          if (['hysteresis', 'positioning'].includes(test.kind)) continue;
          const line = { x: Array.from(fitted.x), y: Array.from(fitted.y) };
          const off = raw.x.map((x, i) => raw.y[i]! - heightOf(line, x));
          const middle = raw.y.reduce((s, v) => s + v, 0) / raw.y.length;
          const spread = Math.hypot(...raw.y.map((v) => v - middle));
          expect(Math.hypot(...off) / spread, plot.name).toBeLessThan(0.3);
        }
      });
    }
  }
});

describe('the plot of', () => {
  it('a loop: the fitted angle stands at each reading’s own torque', () => {
    const torque = Array.from({ length: 48 }, (_, i) => 3 * Math.sin((2 * Math.PI * i) / 24));
    const rows = torque.map((t, i) => ({
      torque: t,
      angle: t / 900 + 8e-4 * Math.sign(t - 0.1 * Math.sign(Math.cos((2 * Math.PI * i) / 24))),
    }));
    const plot = analysed('hysteresis', rows).plots[0]!;
    const [raw, fit] = [series(plot, 'raw'), series(plot, 'fit')];
    expect(raw).toEqual({ x: torque, y: rows.map((r) => r.angle) });
    // Readings inside the dead zone tell no angle; there are three of them, at nought.
    expect(fit.x).toEqual(torque.filter((t) => Math.abs(t) > 1e-9));
    const off = fit.x.map((t, i) => Math.abs(fit.y[i]! - rows[torque.indexOf(t)]!.angle)).filter((v) => v > 1e-4);
    expect(off.length).toBeLessThan(5);
  });

  it('run-out: the circle that was fitted, where it is high', () => {
    const at = (a: number) => 4e-4 + 2e-5 * Math.cos(a - 1.1) + 6e-6 * Math.cos(2 * a - 0.6);
    const rows = Array.from({ length: 10 }, (_, i) => ({ angle: 0.6 * i, reading: at(0.6 * i) }));
    const fit = series(analysed('runout', rows).plots[0]!, 'fit');
    expect(fit.x[0]).toBe(0);
    expect(fit.x.at(-1)).toBeCloseTo(2 * Math.PI, 12);
    fit.x.forEach((a, i) => expect(fit.y[i]!).toBeCloseTo(at(a), 12));
  });

  it('wear: the trend and its band, which meet the limit where the figures say', () => {
    const rows = [1e4, 2e4, 4e4, 6e4, 9e4].map((cycles, i) => ({
      cycles,
      play: 1e-3 + 4e-9 * cycles + 1e-5 * wave(i),
    }));
    const r = analysed('endurance', rows, { limit: 1.6e-3 });
    const plot = r.plots[0]!;
    const [fit, up, down] = [series(plot, 'fit'), series(plot, 'up'), series(plot, 'down')];
    const worn = figure(r, 'cyclesToLimit');
    expect(fit.x[0]).toBe(1e4);
    expect(fit.x.at(-1)!).toBeCloseTo(worn, 3);
    expect(fit.x[1]! - fit.x[0]!).toBeCloseTo((worn - 1e4) / 24, 4);
    expect(fit.y.at(-1)!).toBeCloseTo(1.6e-3, 9);
    expect(heightOf(up, figure(r, 'cyclesEarliest')) / 1.6e-3).toBeCloseTo(1, 4);
    fit.y.forEach((v, i) => {
      expect(up.y[i]! - v).toBeGreaterThan(0);
      expect(up.y[i]! - v).toBeCloseTo(v - down.y[i]!, 12);
    });
    expect(plot.level!.y).toBe(1.6e-3);
    // As late as the lower edge gets there, beyond what is drawn.
    const slope = (down.y.at(-1)! - down.y.at(-2)!) / (down.x.at(-1)! - down.x.at(-2)!);
    const late = down.x.at(-1)! + (1.6e-3 - down.y.at(-1)!) / slope;
    expect(figure(r, 'cyclesLatest') / late).toBeCloseTo(1, 1);
  });

  it('a drag that grows with speed, and of torque over current: the line that was fitted, from nought', () => {
    const drag = analysed(
      'no-load',
      [20, 60, 100, 140].map((speed) => ({ speed, current: (0.004 + 2e-5 * speed) / 0.05 })),
      { torqueConstant: 0.05 },
    );
    const fit = series(drag.plots[0]!, 'fit');
    expect(fit.x).toEqual([0, 140]);
    expect(fit.y[0]).toBeCloseTo(0.004, 12);
    expect(fit.y[1]).toBeCloseTo(0.0068, 12);
    const raw = series(drag.plots[0]!, 'raw');
    expect(raw.y[1]).toBeCloseTo(0.0052, 12);
  });

  it('a temperature: the curve that settles where the figure says, by its time', () => {
    const at = (t: number) => 293.15 + 25 * (1 - Math.exp(-t / 1000));
    const rows = Array.from({ length: 16 }, (_, i) => ({ time: i * 250, temperature: at(i * 250) }));
    const fit = series(analysed('temperature', rows, { torque: 2, surroundings: 293.15 }).plots[0]!, 'fit');
    fit.x.forEach((t, i) => expect(fit.y[i]!).toBeCloseTo(at(t), 6));
    expect(fit.x.at(-1)!).toBeGreaterThan(3750);
  });

  it('orders: its height is where the part is that errs, as high as it errs', () => {
    const n = 60_000;
    const [input, output] = [new Float64Array(n), new Float64Array(n)];
    for (let i = 0; i < n; i++) {
      const out = (6.2 * 2 * Math.PI * (i < n / 2 ? i : n - i)) / (n / 2);
      input[i] = 20 * out;
      output[i] = out + 8e-4 * Math.sin(4 * out) + 3e-4 * Math.sin(11 * out) + (i < n / 2 ? -5e-4 : 5e-4);
    }
    const r = analysed('transmission', [], {}, { recording: recording({ input, output }, 0) });
    expect(figure(r, 'turns')).toBeCloseTo(6.2, 1);
    const orders = series(
      r.plots.find((p) => p.name === 'Orders')!,
      'orders',
    );
    expect(orders.x[0]).toBe(0);
    const high = (from: number, to: number) =>
      orders.x.reduce((best, x, i) => (x >= from && x < to && orders.y[i]! > orders.y[best]! ? i : best), 1);
    expect(orders.x[high(2, 8)]!).toBeCloseTo(4, 0);
    expect(orders.y[high(2, 8)]! / 8e-4).toBeCloseTo(1, 1);
    expect(orders.x[high(8, 15)]!).toBeCloseTo(11, 0);
    const curve = r.plots[0]!;
    const [there, back] = [series(curve, 'there'), series(curve, 'back')];
    expect(there.x.at(-1)! - there.x[0]!).toBeCloseTo(2 * Math.PI * 6, 0);
    // There and back lie the play apart, as the curve is drawn.
    const gap = there.x.reduce((s, x, i) => s + (heightOf(back, x) - there.y[i]!) / there.x.length, 0);
    expect(Math.abs(gap) / 1e-3).toBeCloseTo(1, 1);
  });

  it('a sound: its tone stands at its order', () => {
    const rate = 8000;
    const sound = Float64Array.from(
      { length: rate * 6 },
      (_, i) => 0.3 * Math.sin((2 * Math.PI * 30 * i) / rate) + 0.01 * wave(i),
    );
    const r = analysed('noise', [], { speed: Math.PI }, { recording: recording({ sound }, rate) });
    const plot = series(r.plots[0]!, 'raw');
    const high = plot.y.reduce((best, v, i) => (v > plot.y[best]! ? i : best), 0);
    // 30 a second at half a turn a second.
    expect(plot.x[high]!).toBeCloseTo(60, 0);
    expect(r.figures.find((f) => f.id === 'peak1')!.value).toBeCloseTo(30, 1);
  });

  it('targets: every stop, their means each way and a spread of two about them', () => {
    const targets = [0, 1, 2, 3];
    const rows = targets.flatMap((target, k) =>
      Array.from({ length: 5 }, (_, i) =>
        ['up', 'down'].map((way) => ({
          target,
          way,
          deviation: 1e-4 * k + (way === 'up' ? -2e-4 : 2e-4) + 3e-5 * wave(i + 5 * k + (way === 'up' ? 0 : 100)),
        })),
      ).flat(),
    );
    const plot = analysed('positioning', rows).plots[0]!;
    const raw = series(plot, 'raw');
    expect(raw.x).toHaveLength(40);
    for (const way of ['up', 'down']) {
      const mean = series(plot, way);
      expect(mean.x).toEqual(targets);
      mean.y.forEach((v, k) => {
        const mine = rows.filter((x) => x.target === k && x.way === way).map((x) => x.deviation);
        expect(v).toBeCloseTo(
          mine.reduce((s, q) => s + q / 5, 0),
          12,
        );
      });
    }
    const [up, high] = [series(plot, 'up'), series(plot, 'upHigh')];
    up.x.forEach((_, k) => {
      const mine = rows.filter((x) => x.target === k && x.way === 'up').map((x) => x.deviation);
      const s = Math.sqrt(mine.reduce((q, v) => q + (v - up.y[k]!) ** 2, 0) / 4);
      expect((high.y[k]! - up.y[k]!) / (2 * s)).toBeCloseTo(1, 9);
    });
  });
});
