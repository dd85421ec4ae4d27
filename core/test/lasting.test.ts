import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  demandOf,
  editsFor,
  makeShelf,
  readJointFile,
  shopMoved,
  stageKind,
  takeShop,
  withFactor,
  type ArmCase,
  type Joint,
  type LineReport,
  type Variant,
} from '../src/index.ts';
import { passesIn, USUAL_LIFE } from '../src/gear/index.ts';
import { planetary } from './anchors/planetary.ts';

const shelf = makeShelf();
const read = (name: string): Joint => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const neck = read('neck-lift');
const wing = read('wing-root');
const named = (j: Joint, name: string): Variant => j.variants.find((v) => v.name === name)!;
const value = (r: LineReport, id: string) => r.figures.find((f) => f.id === id)!.value;
const asking = (j: Joint, hours: number): Joint => ({
  ...j,
  brief: {
    ...j.brief,
    limits: [
      ...j.brief.limits.filter((l) => l.id !== 'life'),
      { id: 'life', value: hours * 3600, sense: 'min', need: 'must' } as Joint['brief']['limits'][number],
    ],
  },
});

describe('limits have a time', () => {
  it('flanks that wear a hundred times as fast shorten a life and leave what is lifted alone', () => {
    const c = named(neck, 'C');
    const [slow, fast] = [8, 800].map((k) => analyseLine(neck, c, withFactor(shelf, 'wear.carbonOnMetal', k)));
    expect(value(fast!, 'torque')).toBe(value(slow!, 'torque'));
    expect(value(fast!, 'capacity')).toBe(value(slow!, 'capacity'));
    expect(value(fast!, 'life') / value(slow!, 'life')).toBeCloseTo(0.01, 6);
    expect(slow!.limitedBy).toMatch(/^motor/);
  });

  it('a life is asked of what tires and wears, five hundred hours where the brief asks none', () => {
    const c = named(wing, 'C');
    const of = (j: Joint) => {
      const r = analyseLine(j, c, shelf);
      return { r, flanks: r.stages[0]!.report!.checks.find((x) => x.id === 'pit-ring1')! };
    };
    const none = of({ ...wing, brief: { ...wing.brief, limits: wing.brief.limits.filter((l) => l.id !== 'life') } });
    expect(none.flanks).toMatchObject({ limit: USUAL_LIFE, sense: 'min', quantity: 'life', severity: 'warn' });
    const [little, much] = [of(asking(wing, 100)), of(asking(wing, 1e5))];
    expect([little.flanks.state, much.flanks.state]).toEqual(['holds', 'fails']);
    // How long it lasts does not depend on how long it is wanted.
    expect(much.flanks.figure / little.flanks.figure).toBeCloseTo(1, 9);
    expect(value(much.r, 'torque')).toBe(value(little.r, 'torque'));
    const verdict = (x: LineReport) => x.verdicts.find((v) => v.id === 'life')!.state;
    // Its low end is a fraction of it: what is likely reached is near.
    const likely = value(little.r, 'life') / 3600;
    expect([verdict(of(asking(wing, 0.9 * likely)).r), verdict(much.r)]).toEqual(['near', 'fails']);
  });

  it('a wider face lasts at the torque that it says it needs', () => {
    const c = named(wing, 'C');
    const joint = asking(wing, 1500);
    const report = (v: Variant) => analyseLine(joint, v, shelf).stages[0]!.report!.checks;
    for (const bad of report(c).filter((x) => x.state === 'fails' && x.mend?.path === 'width')) {
      const [stage] = c.stages;
      const mended = { ...c, stages: [{ ...stage!, params: { ...stage!.params, width: bad.mend!.value } }] } as Variant;
      expect(report(mended).find((x) => x.id === bad.id)!.state, bad.id).not.toBe('fails');
    }
  });

  it('a joint that keeps coefficients of an earlier version is analysed without those that are gone', () => {
    const kept = { value: 2e6, low: 1e6, high: 4e6, source: 'set in the shop' };
    const old: Joint = { ...wing, factors: { 'gear.cycles': kept, 'gear.plasticFlank': { ...kept, value: 0.5 } } };
    expect(shopMoved(old, shelf)).toEqual([]);
    expect(takeShop(old, shelf).factors).toEqual({});
    const life = (j: Joint) => value(analyseLine(j, named(wing, 'C'), makeShelf(editsFor(j, {}))), 'life');
    expect(life(old)).toBe(life(wing));
  });

  it('names what ends it first', () => {
    const r = analyseLine(wing, named(wing, 'C'), shelf);
    const least = Math.min(...r.stages[0]!.report!.checks.filter((x) => x.quantity === 'life').map((x) => x.figure));
    expect(value(r, 'life')).toBe(least);
  });
});

describe('how often a tooth is loaded', () => {
  const at = { torque: 1, torqueRms: 1, speed: 2, meanSpeed: 0.5, life: 3600 };

  it('once a turn for each mesh, where it turns on and on', () => {
    // 0.5 rad/s for an hour are 286.479 turns; three turns each, two meshes a turn.
    expect(passesIn(at, 3, 2)).toBeCloseTo((6 * 1800) / (2 * Math.PI), 9);
  });

  it('once a sweep, where it swings by less than from one mesh to the next', () => {
    // Sweeps of 0.1 rad: 18 000 in an hour, whatever they are of a turn.
    expect(passesIn({ ...at, swing: 0.1 }, 1, 1)).toBeCloseTo(18_000, 6);
    expect(passesIn({ ...at, swing: 0.1 }, 1, 3)).toBeCloseTo(18_000, 6);
    // Sweeps of more than a turn count as turns.
    expect(passesIn({ ...at, swing: 7 }, 1, 1)).toBeCloseTo(1800 / (2 * Math.PI), 9);
  });

  it('so that a short swing wears the ring of a planetary set more than a long one of the same mean speed', () => {
    const stage = stageKind('planetary')!.open(planetary.params, shelf);
    if (!stage.ok) throw new Error(stage.problem.what);
    const tires = (swing?: number) =>
      stage.value
        .load({ ...planetary.duty, ...(swing ? { swing } : {}) })
        .limits.find((l) => l.mode === 'root of the ring tires')!.life;
    // Three planets pass a place of the ring in a turn; a swing of a tenth of a third of one brings one to it once.
    expect(tires((2 * Math.PI) / 30) / tires()).toBeCloseTo(0.1, 6);
  });
});

describe('a load that pulls both ways', () => {
  it('is told by the case, and tires every tooth sooner', () => {
    const arm = { ...(neck.brief.cases[0] as ArmCase) };
    const over = (from: number, to: number) =>
      demandOf({ ...neck.brief, cases: [{ ...arm, angleFrom: from, angleTo: to }] }, shelf).reverses;
    const deg = Math.PI / 180;
    expect(over(0, 60 * deg)).toBe(false);
    // From 60° before upright to 60° behind it its weight pulls it on.
    expect(over(30 * deg, 150 * deg)).toBe(true);
    const stage = stageKind('planetary')!.open(planetary.params, shelf);
    if (!stage.ok) throw new Error(stage.problem.what);
    const life = (reverses: boolean, mode: string) =>
      stage.value.load({ ...planetary.duty, reverses }).limits.find((l) => l.mode === mode)!.life;
    // The ring's teeth are bent one way only else; the planets' both ways always.
    expect(life(true, 'root of the ring tires')).toBeLessThan(0.1 * life(false, 'root of the ring tires'));
    expect(life(true, 'root of the planets, at the sun tires')).toBe(
      life(false, 'root of the planets, at the sun tires'),
    );
  });
});
