import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  analyseTest,
  columnsOf,
  contextFor,
  inUnits,
  makeShelf,
  readJointFile,
  stepFigures,
  testKind,
  type BenchTest,
  type Recording,
} from '../src/index.ts';
import { clippedShare, inOrderOfTime } from '../src/bench/odd-readings.ts';
import { loopSpecimen } from './specimens/hysteresis.ts';

const shelf = makeShelf();
const demos = ['body-yaw', 'neck-lift', 'tide-dial', 'wing-root'].flatMap((name) => {
  const read = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(read.problem.what);
  return read.value.tests;
});
/** One test of each kind that is made of readings. */
const typed = [...new Map(demos.filter((t) => t.readings.length > 0).map((t) => [t.kind, t])).values()];
const analysed = (test: BenchTest, recording?: Recording) =>
  analyseTest(test, { ...contextFor(undefined, undefined, shelf, recording), torqueConstant: 0.05, ratio: 20 });
const changed = (test: BenchTest, id: string, by: (x: number) => number): BenchTest => ({
  ...test,
  readings: test.readings.map((r) => ({
    ...r,
    values: { ...r.values, ...(typeof r.values[id] === 'number' && { [id]: by(r.values[id]) }) },
  })),
});

describe('readings that no bench gives', () => {
  it('are refused below nought where a size is read, in every kind, with their row', () => {
    let tried = 0;
    for (const test of typed)
      for (const c of columnsOf(testKind(test.kind)!, test.rig)) {
        if (c.as !== 'quantity' || c.signed || c.quantity === 'temperature') continue;
        const at = test.readings.findIndex((r) => r.struck === undefined && Number(r.values[c.id]) > 0);
        if (at < 0) continue;
        tried++;
        const r = analysed(changed(test, c.id, (x) => -x));
        expect(r.ok ? 'taken' : inUnits(r.problem.what), `${test.kind} ${c.id}`).toMatch(/row \d+: −.* below nought/);
      }
    expect(tried).toBeGreaterThan(12);
  });

  it('come to nothing that is out of physical range, whichever column is a million times too large', () => {
    for (const test of typed)
      for (const c of columnsOf(testKind(test.kind)!, test.rig)) {
        if (c.as !== 'quantity') continue;
        const r = analysed(changed(test, c.id, (x) => 1e6 * x));
        if (!r.ok) continue;
        for (const f of [r.value.found, ...r.value.lands.map((l) => l.found)])
          if (f && ['torque', 'force', 'stiffness', 'smallAngle', 'length', 'temperature'].includes(f.quantity))
            expect(Math.abs(f.value), `${test.kind} ${c.id}`).toBeLessThan(f.quantity === 'stiffness' ? 1e8 : 1e5);
      }
  });

  it('one, or all at one place, where a course is needed', () => {
    for (const kind of ['hysteresis', 'temperature', 'efficiency', 'torque-cell', 'positioning', 'no-load', 'fit']) {
      const test = typed.find((t) => t.kind === kind)!;
      expect(analysed({ ...test, readings: test.readings.slice(0, 1) }).ok, kind).toBe(false);
    }
    const test = typed.find((t) => t.kind === 'positioning')!;
    const r = analysed(changed(test, 'target', () => 1));
    expect(r.ok ? '' : r.problem.what).toContain('one target');
  });
});

describe('the order of readings', () => {
  const values = (torque: Float64Array, angle: Float64Array): BenchTest['readings'] =>
    Array.from(torque, (t, i) => ({ id: `r${i}`, text: '', values: { torque: t, angle: angle[i]! } }));
  const loop = loopSpecimen({ slopes: 1, play: true, by: 'typed' }, 3);
  const base: BenchTest = { ...typed.find((t) => t.kind === 'hysteresis')!, readings: values(loop.torque, loop.angle) };

  it('of a loop read from the end, or shuffled, is refused in words', () => {
    expect(analysed(base).ok).toBe(true);
    const back = analysed({ ...base, readings: [...base.readings].reverse() });
    expect(back.ok ? '' : back.problem.what).toContain('wrong way round');
    const mixed = analysed({
      ...base,
      readings: base.readings.map((_, i) => base.readings[(i * 17 + 5) % base.readings.length]!),
    });
    expect(mixed.ok ? '' : mixed.problem.what).toContain('order of a loop');
  });

  it('follows the times where they go back, which is said', () => {
    const test = typed.find((t) => t.kind === 'torque-cell')!;
    const mixed = { ...test, readings: test.readings.map((_, i) => test.readings[(i * 7) % test.readings.length]!) };
    const [a, b] = [analysed(test), analysed(mixed)];
    if (!a.ok || !b.ok) throw new Error('refused');
    expect(b.value.found!.value).toBeCloseTo(a.value.found!.value, 12);
    expect(b.value.advice.join()).toContain('Times go back');
    expect(inOrderOfTime(test).says).toEqual([]);
  });
});

describe('single samples', () => {
  it('neither overshoot nor keep a step from having settled', () => {
    const t = Array.from({ length: 400 }, (_, i) => i * 0.01);
    const commanded = t.map((x) => (x < 1 ? 0 : 0.1));
    const measured = t.map((x) => (x < 1 ? 0 : 0.1 * (1 - Math.exp(-(x - 1) / 0.1))));
    const clean = stepFigures(t, commanded, measured, 0)!;
    measured[300] = 0.14;
    const spiked = stepFigures(t, commanded, measured, 0)!;
    // Within 2 % after 0.1·ln 50.
    expect(clean.settling).toBeCloseTo(0.1 * Math.log(50), 1);
    expect(spiked.settling).toBeCloseTo(clean.settling, 6);
    expect(spiked.overshoot).toBeCloseTo(clean.overshoot, 6);
  });

  it('at the end of a channel again and again are clipped, and are no chance in a clean one', () => {
    const wave = Float64Array.from({ length: 4000 }, (_, i) => Math.sin(i / 20));
    expect(clippedShare(wave)).toBe(0);
    // Above sin x = 0.6 there are (π − 2·asin 0.6)/2π of a turn.
    const share = (Math.PI - 2 * Math.asin(0.6)) / (2 * Math.PI);
    expect(clippedShare(wave.map((v) => Math.min(0.6, v)))).toBeCloseTo(share, 2);
    expect(clippedShare(new Float64Array(100).fill(3))).toBe(0);
  });
});
