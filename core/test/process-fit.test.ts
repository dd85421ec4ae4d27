import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { estimateFit, nothingKnown } from '../src/fit/estimate.ts';
import { furtherReading } from '../src/fit/further.ts';
import { addMeasured, grown, ofPrior, solved } from '../src/fit/normal-equations.ts';
import { fitHistory, madeSize } from '../src/fit/process-fit.ts';
import { rowOf, slipIn } from '../src/fit/reading.ts';
import type { FitEntry, FitReading, Process } from '../src/schema/process-schema.ts';
import { seeded } from '../src/math/random.ts';
import { normals } from '../src/math/normal.ts';
import cases from './cases/process-fit.json' with { type: 'json' };
import { inUnits } from '../src/units/stated.ts';

const mm = 1e-3;
const reading = (id: string, more: Partial<FitReading>): FitReading => ({
  id,
  feature: 'outside',
  axis: 'x',
  drawn: 20 * mm,
  made: 20 * mm,
  ...more,
});
const entry = (day: string, readings: readonly FitReading[]): FitEntry => ({
  id: day,
  day,
  from: 'coupon',
  note: '',
  readings: [...readings],
});
const process = (fits: FitEntry[] = [], type: Process['type'] = 'filament') => ({ type, fits, name: 'Bench printer' });
const historyOf = (p: ReturnType<typeof process>, day = '2026-11-01') => {
  const made = fitHistory(p, day);
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};

/** Readings of a process that is known, with what a hand adds. */
function measured(
  truth: { s: number; sy?: number; out: number; into: number; foot?: number },
  features: readonly Pick<FitReading, 'feature' | 'axis' | 'drawn'>[],
  sd: number,
  seed = 3,
): FitReading[] {
  const z = normals(seeded(seed));
  return features.map((f, i) => {
    const s = f.axis === 'x' ? truth.s : f.axis === 'y' ? (truth.sy ?? truth.s) : (truth.s + (truth.sy ?? truth.s)) / 2;
    const contour =
      f.feature === 'hole' ? -2 * truth.into : 2 * truth.out + (f.feature === 'foot' ? 2 * (truth.foot ?? 0) : 0);
    return reading(`r${i}`, { ...f, made: f.drawn * (1 + s) + contour + sd * z() });
  });
}
const ALL = [60, 40, 20].flatMap((d) =>
  (['x', 'y'] as const).flatMap((axis) => [
    { feature: 'outside' as const, axis, drawn: d * mm },
    { feature: 'hole' as const, axis, drawn: (d / 4) * mm },
  ]),
);

describe('what a process does to sizes', () => {
  it.each(cases.map((c, i) => [i + 1, c] as const))('agrees with the independent least squares of case %i', (_, c) => {
    const made = estimateFit(
      c.readings.map((r, i) =>
        reading(`${i}`, {
          feature: r.kind as 'outside' | 'hole',
          drawn: r.drawn_mm * mm,
          made: r.made_mm * mm,
          spread: r.standard_uncertainty_mm * mm,
        }),
      ),
      nothingKnown(),
      { spread: 0, weight: 0 },
    );
    if (!made.ok) throw new Error(made.problem.what);
    const { values, covariance } = made.value.known;
    const u = (i: number) => Math.sqrt(covariance[6 * i]!);
    expect(values[0]).toBeCloseTo(c.scale, 7);
    expect(values[2]! / mm).toBeCloseTo(c.contour_out_mm, 6);
    expect(values[3]! / mm).toBeCloseTo(c.hole_in_mm, 6);
    expect(u(0)).toBeCloseTo(c.se_scale, 8);
    expect(u(2) / mm).toBeCloseTo(c.se_contour_mm, 7);
    expect(u(3) / mm).toBeCloseTo(c.se_hole_mm, 7);
    expect(made.value.odd).toEqual([]);
  });

  it('is its type until something is measured, and says so', () => {
    const { now, notes } = historyOf(process());
    expect(now.out.value).toBe(5e-5);
    expect(now.out.u).toBeCloseTo(6e-5, 9);
    expect(now.into.value).toBeCloseTo(8e-5, 12);
    expect(now.spread.value).toBe(4e-5);
    expect(notes[0]).toMatch(/Nothing is measured yet/);
  });

  it('finds what readings were made from, within their uncertainty', () => {
    const truth = { s: -0.002, sy: 0.001, out: 9e-5, into: 1.4e-4 };
    const { now } = historyOf(process([entry('2026-11-01', measured(truth, [...ALL, ...ALL], 2e-5))]));
    for (const [id, value] of [
      ['scaleX', truth.s],
      ['scaleY', truth.sy],
      ['out', truth.out],
      ['into', truth.into],
    ] as const)
      expect(Math.abs(now[id].value - value)).toBeLessThan(2.6 * now[id].u);
    expect(now.out.u).toBeLessThan(1.5e-5);
  });

  it('covers the truth about as often as it says, over many coupons', () => {
    let inside = 0;
    const runs = 200;
    for (let seed = 1; seed <= runs; seed++) {
      const truth = { s: -0.001, out: 7e-5, into: 1e-4 };
      const { now } = historyOf(process([entry('2026-11-01', measured(truth, ALL, 3e-5, seed))]));
      if (Math.abs(now.out.value - truth.out) < 1.96 * now.out.u) inside++;
    }
    expect(inside / runs).toBeGreaterThan(0.9);
  });

  it('leaves a wide band after two readings, narrower than its type’s', () => {
    const start = historyOf(process()).now;
    const two = historyOf(
      process([entry('2026-11-01', measured({ s: 0, out: 9e-5, into: 1e-4 }, ALL.slice(0, 2), 0))]),
    ).now;
    expect(two.out.u).toBeLessThan(start.out.u);
    expect(two.scaleX.u).toBeGreaterThan(0.3 * start.scaleX.u);
    expect(two.out.u).toBeGreaterThan(1e-5);
  });

  it('leaves scale where it was if every size is the same, and loses nothing', () => {
    const same = Array.from({ length: 6 }, (_, i) => reading(`${i}`, { axis: 'x', made: 20.1 * mm }));
    const { now } = historyOf(process([entry('2026-11-01', same)]));
    expect(now.scaleY.u).toBeCloseTo(0.003, 4);
    expect(now.scaleX.u).toBeGreaterThan(0.002);
    // Together they still say what was read.
    expect(madeSize(now, { feature: 'outside', axis: 'x', drawn: 20 * mm }).mean).toBeCloseTo(20.1 * mm, 5);
  });

  it('gives the same, whatever order and grouping the readings come in', () => {
    const all = measured({ s: -0.001, out: 6e-5, into: 1e-4 }, ALL, 0);
    const once = estimateFit(
      all,
      ofPrior([
        [0, 0.003],
        [0, 0.003],
        [0, 1e-4],
        [0, 1e-4],
        [0, 1e-4],
      ]),
      { spread: 3e-5, weight: 1e6 },
    );
    const back = estimateFit(
      [...all].reverse(),
      ofPrior([
        [0, 0.003],
        [0, 0.003],
        [0, 1e-4],
        [0, 1e-4],
        [0, 1e-4],
      ]),
      { spread: 3e-5, weight: 1e6 },
    );
    if (!once.ok || !back.ok) throw new Error();
    for (let i = 0; i < 4; i++) expect(once.value.known.values[i]).toBeCloseTo(back.value.known.values[i]!, 9);
  });

  it('sets a slip aside and names it, and counts it once someone says so', () => {
    const good = measured({ s: -0.001, out: 6e-5, into: 1e-4 }, ALL, 1e-5);
    const bad = good.map((r, i) => (i === 4 ? { ...r, made: r.made + 0.4 * mm } : r));
    const first = historyOf(process([entry('2026-11-01', bad)]));
    expect(first.steps[0]!.odd.map((o) => o.id)).toEqual(['r4']);
    expect(inUnits(first.steps[0]!.odd[0]!.why, {})).toMatch(/0\.(3[7-9]|4[0-2])\d mm off/);
    expect(first.steps[0]!.counted).toBe(bad.length - 1);
    const counted = historyOf(
      process([
        entry(
          '2026-11-01',
          bad.map((r) => (r.id === 'r4' ? { ...r, counts: true } : r)),
        ),
      ]),
    );
    expect(counted.steps[0]!.odd).toEqual([]);
    expect(counted.now.spread.value).toBeGreaterThan(2 * first.now.spread.value);
  });

  it('doubts a single retry that contradicts all that is known, and moves nothing by it', () => {
    const coupon = entry('2026-11-01', measured({ s: 0, out: 5e-5, into: 1e-4 }, ALL, 1e-5));
    const retry = entry('2026-11-02', [
      reading('t', { feature: 'hole', axis: 'round', drawn: 28 * mm, made: 27.3 * mm, spread: 9e-5 }),
    ]);
    const before = historyOf(process([coupon]), '2026-11-02').now;
    const after = historyOf(process([coupon, retry]), '2026-11-02');
    expect(after.steps[1]!.odd[0]).toMatchObject({ id: 't', aside: true });
    expect(after.now.into.value).toBeCloseTo(before.into.value, 9);
    expect(after.now.spread.value).toBeCloseTo(before.spread.value, 6);
    // One that goes with it teaches it, a little.
    const fair = entry('2026-11-02', [
      reading('t', { feature: 'hole', axis: 'round', drawn: 28 * mm, made: 27.78 * mm, spread: 9e-5 }),
    ]);
    expect(historyOf(process([coupon, fair]), '2026-11-02').now.into.u).toBeLessThan(before.into.u);
  });

  it('notices a hole that was entered as an outside, and offers to turn it', () => {
    const good = measured({ s: -0.001, out: 8e-5, into: 1.5e-4 }, ALL, 5e-6);
    const swapped = good.map((r) => (r.id === 'r5' ? { ...r, feature: 'outside' as const } : r));
    const { odd } = historyOf(process([entry('2026-11-01', swapped)])).steps[0]!;
    expect(odd[0]).toMatchObject({ id: 'r5', meant: { change: { feature: 'hole' } } });
  });

  it('asks when all outsides are small and all holes wide', () => {
    const turned = measured({ s: 0, out: -1.5e-4, into: -1.8e-4 }, ALL, 0);
    expect(historyOf(process([entry('2026-11-01', turned)])).notes.join()).toMatch(/mistaken for each other/);
    // A beam does just that.
    expect(historyOf(process([entry('2026-11-01', turned)], 'cutter')).notes.join()).not.toMatch(/mistaken/);
  });

  it.each([
    [0.79 / 1000, 'inches'],
    [2.01 / 1000, 'centimetres'],
    [20.1, 'micrometres'],
    [510 / 1000, 'millimetres'],
  ])('takes %f for another unit of 20 mm', (made, name) => {
    const slip = slipIn(reading('a', { made }))!;
    expect(slip.meant?.label).toContain(name);
    expect(Math.abs(slip.meant!.change.made! - 20 * mm)).toBeLessThan(1.1 * mm);
  });

  it('refuses a shrinkage of a tenth in words, and keeps readings of another unit out', () => {
    const tenth = ALL.map((f, i) => reading(`${i}`, { ...f, made: 0.9 * f.drawn }));
    const made = fitHistory(process([entry('2026-11-01', tenth)]), '2026-11-01');
    expect(made.ok).toBe(false);
    if (!made.ok)
      expect(`${made.problem.what} ${made.problem.why}`).toMatch(/2026-11-01.*10 % off: no process does that/is);
    const six = ALL.map((f, i) => reading(`${i}`, { ...f, made: 0.93 * f.drawn }));
    expect(fitHistory(process([entry('2026-11-01', six)]), '2026-11-01').ok).toBe(false);
  });

  it('has nothing to say against what struck readings would have said', () => {
    const all = measured({ s: 0, out: 3e-4, into: 3e-4 }, ALL, 0).map((r) => ({ ...r, struck: 'seam' }));
    expect(historyOf(process([entry('2026-11-01', all)])).now.out.value).toBe(5e-5);
  });

  it('knows less as time goes by, and lets a new coupon outweigh an old one', () => {
    const old = entry('2025-11-01', measured({ s: 0, out: 5e-5, into: 1e-4 }, ALL, 1e-5));
    const fresh = historyOf(process([old]), '2025-11-01').now;
    const aged = historyOf(process([old]), '2026-11-01');
    // A year adds 0.03 mm by squares.
    expect(aged.now.out.u).toBeCloseTo(Math.hypot(fresh.out.u, 3e-5), 7);
    expect(aged.now.age).toBe(365);
    expect(aged.notes.join()).toMatch(/365 days old/);
    const anew = entry('2026-11-01', measured({ s: 0, out: 1.2e-4, into: 1e-4 }, ALL, 1e-5));
    expect(historyOf(process([old, anew])).now.out.value).toBeGreaterThan(1.05e-4);
    expect(historyOf(process([old, anew])).notes.join()).toMatch(/Outsides have moved/);
  });

  it('tells the foot from what stands out all the way up, and its height', () => {
    const truth = { s: 0, out: 5e-5, into: 1e-4, foot: 2.2e-4 };
    const at = [...ALL, ...[20, 20, 40].map((d) => ({ feature: 'foot' as const, axis: 'x' as const, drawn: d * mm }))];
    const { now } = historyOf(
      process([
        entry('2026-11-01', [
          ...measured(truth, at, 1e-5),
          reading('h', { feature: 'foot-height', drawn: 0, made: 2e-4 }),
        ]),
      ]),
    );
    expect(now.foot.value).toBeCloseTo(2.2e-4, 4);
    expect(now.footHigh.value).toBeGreaterThan(2e-4);
    expect(now.footHigh.value).toBeLessThan(2.6e-4);
    // 0.3 ± 0.15 and 0.2 ± 0.1: by their weights 0.231, ± 1/√(44.4 + 100).
    expect(now.footHigh.value).toBeCloseTo(2.308e-4, 7);
    expect(now.footHigh.u).toBeCloseTo(8.32e-5, 7);
  });

  it('reads a ladder as outsides and holes together', () => {
    const row = rowOf(reading('a', { feature: 'ladder', drawn: 10 * mm }));
    expect([...row]).toEqual([0, 0, 2, 2, 0]);
    const all = [
      ...measured(
        { s: 0, out: 8e-5, into: 0 },
        ALL.filter((f) => f.feature === 'outside'),
        0,
      ),
      reading('l', { feature: 'ladder', axis: 'round', drawn: 10 * mm, made: 10.4 * mm }),
    ];
    const { now } = historyOf(process([entry('2026-11-01', all)]));
    // 2·(0.08 + c) = 0.4 − 0.05: c = 0.095, drawn a little to what is usual.
    expect(now.into.value).toBeGreaterThan(0.088 * mm);
    expect(now.into.value).toBeLessThan(0.1 * mm);
  });

  it('says which reading halves what is known least, and is right about it', () => {
    const { now } = historyOf(process([entry('2026-11-01', measured({ s: 0, out: 5e-5, into: 1e-4 }, ALL, 2e-5))]));
    const next = furtherReading(now, true);
    expect(next.count).toBeGreaterThan(0);
    const more = Array.from({ length: next.count }, (_, i) =>
      reading(`n${i}`, { ...next.reading!, made: next.reading!.drawn + 1e-4 }),
    );
    const info = solved({ matrix: now.covariance, vector: new Float64Array(5) })!.covariance.slice();
    const after = { matrix: info, vector: new Float64Array(5) };
    for (const r of more) addMeasured(after, rowOf(r), 0, Math.hypot(2e-5, now.spread.value));
    const i = ['scaleX', 'scaleY', 'out', 'into', 'foot'].indexOf(next.part);
    expect(Math.sqrt(solved(after)!.covariance[6 * i]!)).toBeLessThanOrEqual(next.now / 2 + 1e-12);
  });
});

describe('information', () => {
  it('is what a prior says, with nothing measured', () => {
    const k = solved(
      ofPrior([
        [2, 0.5],
        [3, Infinity],
      ]),
    )!;
    expect([...k.values]).toEqual([2, 0]);
    expect(k.covariance[0]).toBeCloseTo(0.25, 12);
    expect(k.covariance[3]).toBe(Infinity);
  });

  it('grows by the variance that is added, and keeps its values', () => {
    const info = ofPrior([
      [2, 0.5],
      [3, 0.1],
    ]);
    addMeasured(info, [1, 1], 5.2, 0.2);
    const before = solved(info)!;
    const after = solved(grown(before, [0.01, 0.04]))!;
    expect(after.values[0]).toBeCloseTo(before.values[0]!, 9);
    expect(after.covariance[0]).toBeCloseTo(before.covariance[0]! + 0.01, 9);
    expect(after.covariance[3]).toBeCloseTo(before.covariance[3]! + 0.04, 9);
    expect(after.covariance[1]).toBeCloseTo(before.covariance[1]!, 9);
  });

  it('cannot tell apart what always comes together', () => {
    const info = ofPrior([
      [0, Infinity],
      [0, Infinity],
    ]);
    addMeasured(info, [1, 1], 5, 0.2);
    addMeasured(info, [2, 2], 10, 0.2);
    expect(solved(info)).toBeUndefined();
  });

  it('never makes anything known less well by a reading', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.float({ min: -3, max: 3, noNaN: true }), fc.float({ min: -3, max: 3, noNaN: true })), {
          minLength: 1,
          maxLength: 8,
        }),
        (rows) => {
          const info = ofPrior([
            [0, 1],
            [0, 1],
          ]);
          let last = solved(info)!;
          for (const row of rows) {
            addMeasured(info, row, 1, 0.3);
            const now = solved(info)!;
            expect(now.covariance[0]!).toBeLessThanOrEqual(last.covariance[0]! + 1e-12);
            last = now;
          }
        },
      ),
    );
  });
});
