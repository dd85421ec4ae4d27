import { describe, expect, it } from 'vitest';
import { readParams, stageKind, stageKinds, withFactor, type Check } from '../src/index.ts';
import type { Anchor } from './anchors/anchor.ts';
import { cold } from './helpers.ts';
import { ANCHORED } from './worked-stages.ts';

// One value for every figure of a kind that was worked out apart from the code: by hand, by numeric integration, by a second
// formula. A formula without one is not finished.

/** Life asked of a stage where no brief says another, s: 500 h. */
const LIFE = 1.8e6;

describe('worked values', () => {
  it('are there for every kind', () => {
    expect(
      ANCHORED.filter((a) => !a.further)
        .map((a) => a.kind)
        .sort(),
    ).toEqual(
      stageKinds()
        .map((k) => k.id)
        .sort(),
    );
  });

  it('are there for what a line is put together with, of every kind', () => {
    const needed = ['inertiaIn', 'inertiaOut', 'maxSpeed', 'length'];
    const lacking = [...new Set(ANCHORED.map((a) => a.kind))].flatMap((kind) => {
      const own = ANCHORED.filter((a) => a.kind === kind).flatMap((a) => Object.keys(a.numbers ?? {}));
      return needed.filter((n) => !own.includes(n)).map((n) => `${kind}: ${n}`);
    });
    expect(lacking).toEqual([]);
  });

  for (const {
    kind,
    further,
    params,
    duty,
    factors = {},
    worked,
    numbers = {},
    limits = {},
    checks = {},
  } of ANCHORED) {
    const read = readParams(kind, params);
    if (!read.ok) throw new Error(read.problem.what);
    const shop = Object.entries(factors).reduce((s, [id, value]) => withFactor(s, id, value), cold);
    const opened = stageKind(kind)!.open(read.value, shop);
    if (!opened.ok) throw new Error(opened.problem.what);
    const figures = new Map(opened.value.report(duty).figures.map((f) => [f.id, f.value]));

    if (!further)
      it(`${kind}: every figure has one`, () => {
        expect(Object.keys(worked).sort()).toEqual([...figures.keys()].sort());
      });

    for (const [id, [value, how, within = 2e-6]] of Object.entries(worked))
      it(`${kind}, ${id}: ${how}`, () => {
        expect(Math.abs(figures.get(id)! - value)).toBeLessThanOrEqual(within * Math.abs(value) + 1e-15);
      });

    const sums = opened.value.load(duty);
    for (const [mode, [value, how]] of Object.entries(limits))
      it(`${kind}, ${mode}: ${how}`, () => {
        const limit = sums.limits.find((l) => l.mode === mode)!;
        expect(Math.abs(limit.torque - value)).toBeLessThanOrEqual(2e-6 * Math.abs(value));
      });
    const told = opened.value.report(duty).checks;
    if (!further)
      it(`${kind}: both sides of every check have one`, () => {
        const same = (x: number, anchor?: Anchor) => anchor && Math.abs(x - anchor[0]) <= 2e-6 * Math.abs(anchor[0]);
        const known = (c: Check) => {
          const own = worked[c.of ?? c.id] ?? limits[c.id];
          const asked = [duty.torque, duty.torqueRms, duty.equivalent].includes(c.figure);
          return (asked && same(c.limit, own)) || (same(c.figure, own) && c.limit === LIFE);
        };
        expect(
          told.filter((c) => !(c.id in checks) && !known(c)).map((c) => `${c.id}: ${c.figure}, ${c.limit}`),
        ).toEqual([]);
      });
    for (const [id, [figure, limit, how, within = 2e-6]] of Object.entries(checks))
      it(`${kind}, check ${id}: ${how}`, () => {
        const found = told.find((c) => c.id === id)!;
        expect(Math.abs(found.figure - figure)).toBeLessThanOrEqual(within * Math.abs(figure) + 1e-12);
        expect(Math.abs(found.limit - limit)).toBeLessThanOrEqual(2e-6 * Math.abs(limit) + 1e-12);
      });
    for (const [id, [value, how]] of Object.entries(numbers))
      it(`${kind}, number ${id}: ${how}`, () => {
        expect(Math.abs((sums[id as 'mass'] as number) - value)).toBeLessThanOrEqual(2e-6 * Math.abs(value));
      });
  }
});
