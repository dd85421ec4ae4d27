import { describe, expect, it } from 'vitest';
import {
  balanced,
  chanceCurves,
  chanceJams,
  chanceLoose,
  drawSpecimens,
  playAsMade,
  type Drawn,
  type JamStage,
} from '../src/fit/jam.ts';
import { lineJam, widened } from '../src/fit/line-jam.ts';
import { normalBelow } from '../src/math/normal.ts';
import { analyseLine, makeShelf, openStage, readJointFile, readParams, stageKind } from '../src/index.ts';
import type { Freedom, Gap } from '../src/stage/freedom.ts';
import { readFileSync } from 'node:fs';
import { demo, shelf } from './helpers.ts';
import { madeBy } from './made-by.ts';
import cases from './cases/jam.json' with { type: 'json' };

const mm = 1e-3;
const STILL = { mean: 0, sd: 0, plastic: [8e-5, 0], metal: [1.4e-5, 0], frame: true } as const;
const done = <T>(steps: Generator<number, T>): T => {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
};
const gap = (more: Partial<Gap>): Gap => ({
  name: 'gap',
  drawn: 0.1 * mm,
  turn: 10,
  sides: [],
  wobble: 0,
  place: 0,
  centre: 0,
  perCentre: 0,
  ...more,
});
const stage = (gaps: readonly Gap[], more: Partial<JamStage> = {}, paths = 1, apart = 0): JamStage => ({
  name: 'stage',
  freedom: {
    chains: [{ name: 'chain', paths, gaps, apart, extra: 0 }],
    wider: () => ({}),
  } satisfies Freedom,
  after: 1,
  play: [0, 0, 0],
  madeBy: () => undefined,
  plastic: () => true,
  moves: true,
  ...more,
});
const draw = (
  stages: readonly JamStage[],
  asked: number,
  n = 100_000,
  warmth: Parameters<typeof drawSpecimens>[2] = STILL,
): Drawn => done(drawSpecimens(stages, asked, warmth, n));

describe('chances of jamming and of too much play', () => {
  it.each(cases.map((c, i) => [i + 1, c] as const))('agree with the normal case %i', (_, c) => {
    const d = draw([stage([gap({ drawn: c.mean_gap_mm * mm, place: c.sd_mm * mm, turn: 1 })])], c.most_gap_mm * mm);
    // Three standard deviations of a share of 10⁵.
    const within = (p: number) => 3.5 * Math.sqrt((p * (1 - p)) / 1e5) + 1e-5;
    expect(Math.abs(chanceJams(d, 0) - c.chance_jams)).toBeLessThan(within(c.chance_jams));
    expect(Math.abs(chanceLoose(d, 0) - c.chance_too_loose)).toBeLessThan(within(c.chance_too_loose));
    const by = balanced(d);
    expect(by / mm).toBeCloseTo(c.extra_gap_that_balances_both_mm, 2);
    expect(Math.abs(chanceJams(d, by) - c.chance_of_each_then)).toBeLessThan(within(c.chance_of_each_then));
    expect(Math.abs(chanceLoose(d, by) - chanceJams(d, by))).toBeLessThan(3e-5);
    // By hand, from the same tables.
    expect(normalBelow(-c.mean_gap_mm / c.sd_mm)).toBeCloseTo(c.chance_jams, 6);
  });

  it('moves the balance to where jamming is as much rarer as it is worse', () => {
    const d = draw([stage([gap({ drawn: 0.05 * mm, place: 0.04 * mm, turn: 1 })])], 0.15 * mm);
    const by = balanced(d, 10);
    expect(by).toBeGreaterThan(balanced(d));
    expect(10 * chanceJams(d, by)).toBeCloseTo(chanceLoose(d, by), 3);
  });

  it('fall and rise with the allowance, and nothing is drawn twice for it', () => {
    const d = draw([stage([gap({ place: 0.03 * mm, turn: 1 })])], 0.2 * mm, 20_000);
    // Play grows by what a metre of every gap turns the output by: here as much.
    expect(playAsMade(d, 0.05 * mm)[1]).toBeCloseTo(playAsMade(d)[1] + 0.05 * mm, 12);
    // What binds now has the play of what is left of the allowance, and not all of it.
    const tight = draw([stage([gap({ drawn: -0.02 * mm, turn: 1 })])], 0.2 * mm, 10);
    expect(playAsMade(tight)[0]).toBe(0);
    expect(playAsMade(tight, 0.05 * mm)[0] / mm).toBeCloseTo(0.03, 9);
    const { jams, loose } = chanceCurves(d, -0.1 * mm, 0.2 * mm);
    for (let i = 1; i < jams.length; i++) {
      expect(jams[i]!).toBeLessThanOrEqual(jams[i - 1]!);
      expect(loose[i]!).toBeGreaterThanOrEqual(loose[i - 1]!);
    }
    // The same shift drawn into the gap itself gives the same chances.
    const moved = draw([stage([gap({ drawn: 0.13 * mm, place: 0.03 * mm, turn: 1 })])], 0.2 * mm, 20_000);
    expect(chanceJams(moved, 0)).toBeCloseTo(chanceJams(d, 0.03 * mm), 12);
    expect(chanceLoose(moved, 0)).toBeCloseTo(chanceLoose(d, 0.03 * mm), 12);
  });

  it('take what a process stands out by off the gap, both contours', () => {
    const sides: Gap['sides'] = [
      { part: 'a', name: 'a', contour: 'outside', share: 2, each: false, usual: 0, radius: 0, perGrowth: 0 },
      { part: 'b', name: 'b', contour: 'hole', share: 2, each: false, usual: 0, radius: 0, perGrowth: 0 },
    ];
    const raw = madeBy(0.03 * mm, 0.05 * mm, { compensates: 'none' }, 0);
    const d = draw([stage([gap({ drawn: 0.2 * mm, sides, turn: 1 })], { madeBy: () => raw })], Infinity, 100);
    // 0.2 − 2·0.03 − 2·0.05, by hand.
    expect(playAsMade(d)[0] / mm).toBeCloseTo(0.04, 9);
    const corrected = madeBy(0.03 * mm, 0.05 * mm, { compensates: 'outline' }, 0);
    const full = draw([stage([gap({ drawn: 0.2 * mm, sides, turn: 1 })], { madeBy: () => corrected })], Infinity, 100);
    expect(playAsMade(full)[0] / mm).toBeCloseTo(0.2, 9);
  });

  it('scatter with the parts: both sides of a gap by squares', () => {
    const side = (part: string): Gap['sides'][number] => ({
      part,
      name: part,
      contour: 'outside',
      share: 2,
      each: false,
      usual: 0,
      radius: 0,
      perGrowth: 0,
    });
    const made = madeBy(0, 0, {}, 0.04 * mm);
    const d = draw(
      [stage([gap({ drawn: 1 * mm, sides: [side('a'), side('b')], turn: 1 })], { madeBy: () => made })],
      Infinity,
    );
    // Each contour scatters by half of a size: 2·0.02, twice by squares.
    const [, low, high] = playAsMade(d);
    expect((high - low) / 2 / 1.96 / mm).toBeCloseTo(0.04 * Math.SQRT2, 3);
  });

  it('scatter with the places of axes: both ends of a distance, and how well the scale is known', () => {
    const g = gap({ drawn: 1 * mm, turn: 1, centre: 40 * mm, perCentre: 0.728 });
    const frame = madeBy(0, 0, {}, 0.04 * mm);
    const sd = (d: Drawn) => (playAsMade(d)[2] - playAsMade(d)[1]) / 2 / 1.96 / mm;
    // 0.728·√2·0.02 by hand.
    expect(sd(draw([stage([g], { frame })], Infinity))).toBeCloseTo(0.728 * Math.SQRT2 * 0.02, 3);
    const loose = { ...frame, fit: { ...frame.fit, scaleX: { value: 0, u: 1e-3 }, scaleY: { value: 0, u: 1e-3 } } };
    // The mean of both scales is known to 10⁻³/√2: 0.728·40·that more, by squares.
    const both = Math.hypot(0.728 * Math.SQRT2 * 0.02, 0.728 * 40 * 1e-3 * Math.SQRT1_2);
    expect(sd(draw([stage([g], { frame: loose })], Infinity))).toBeCloseTo(both, 3);
    // A planet too far out opens one gap by what it closes the other: alone it moves nothing of the play.
    const ring = gap({ drawn: 1 * mm, turn: 1, centre: 40 * mm, perCentre: -0.728 });
    expect(sd(draw([stage([g, ring], { frame }, 2)], Infinity, 20_000))).toBeLessThan(1e-6);
  });

  it('leave several paths less than one, by the range of their places', () => {
    const one = draw([stage([gap({ turn: 1 })], {}, 1, 0.01 * mm)], Infinity);
    const three = draw([stage([gap({ turn: 1 })], {}, 3, 0.01 * mm)], Infinity);
    expect(playAsMade(one)[0] / mm).toBeCloseTo(0.1, 6);
    // Expected range of three normal draws, d₂ = 1.693 (its median a little below).
    const mean = three.play.reduce((s, x) => s + x / three.play.length, 0);
    expect(mean / mm).toBeCloseTo(0.1 - 0.01693, 4);
  });

  it('close when wheels grow in a frame that does not, and stay when all grows alike', () => {
    const wheels: Gap['sides'] = [30, 60].map((r, i) => ({
      part: `w${i}`,
      name: 'wheel',
      contour: 'outside',
      share: 2,
      each: false,
      usual: 0,
      radius: r * mm,
      perGrowth: -2 * 0.364,
    }));
    const g = gap({ drawn: 0.2 * mm, sides: wheels, centre: 90 * mm, perCentre: 2 * 0.364, turn: 1 });
    const warm = { ...STILL, mean: 40 };
    expect(playAsMade(draw([stage([g])], Infinity, 50, warm))[0] / mm).toBeCloseTo(0.2, 9);
    // 90 mm·(80 − 14)·10⁻⁶/K·40 K·2·0.364 by hand.
    const metalFrame = draw([stage([g])], Infinity, 50, { ...warm, frame: false });
    expect(playAsMade(metalFrame)[0] / mm).toBeCloseTo(0.2 - 90 * 66e-6 * 40 * 0.728, 6);
  });

  it('know no allowance where nothing can be moved or nobody asks', () => {
    expect(balanced(draw([stage([gap({})], { moves: false })], 0.001, 100))).toBeNaN();
    expect(balanced(draw([stage([gap({})])], Infinity, 100))).toBeNaN();
    const stuck = draw([stage([gap({ drawn: -0.1 * mm })], { moves: false }), stage([gap({})])], 0.001, 100);
    expect(chanceJams(stuck, 1)).toBe(1);
  });
});

describe('freedom of stages', () => {
  const RATIOS = { spur: 3, bevel: 2, rack: 100, 'compound-planetary': 60, worm: 40 };
  const REST = { torque: 0, torqueRms: 0, speed: 0 };
  it.each([
    ['spur', {}],
    ['planetary', {}],
    ['compound-planetary', {}],
    ['cycloidal', {}],
    ['ring-plate', {}],
    ['worm', {}],
    ['strain-wave', {}],
    ['bevel', {}],
    ['rack', {}],
    ['roller-wave', {}],
    ['planetary', { takenOut: 'sun' }],
    ['planetary', { takenOut: 'ring', sets: 1 }],
    ['compound-planetary', { takenOut: 'driven' }],
    ['spur', { takenOut: 'split', idlers: 1 }],
  ] as const)('gives %s %o the play that its model expects, drawn twenty thousand times or added up', (id, over) => {
    const kind = stageKind(id)!;
    const params = readParams(
      id,
      kind.defaults({
        ratio: RATIOS[id as 'spur'] ?? 20,
        torque: id === 'rack' ? 50 : 2,
        size: Infinity,
        shelf,
      }),
    );
    if (params.ok) Object.assign(params.value as object, over);
    if (!params.ok) throw new Error();
    const opened = openStage({ id: 's', kind: id, params: params.value as Record<string, unknown> }, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    const { play } = opened.value.load(REST);
    const d = draw([{ ...stage([]), freedom: opened.value.freedom(), play }], Infinity, 20_000);
    const [likely, low, high] = playAsMade(d);
    const scale = Math.max(play[2], 1e-5);
    expect(Math.abs(likely - play[0]) / scale).toBeLessThan(0.08);
    expect(low).toBeGreaterThan(play[1] - 0.15 * scale);
    expect(high).toBeLessThan(1.12 * play[2]);
    // Wider gaps make more play, as much as they say.
    const wider = opened.value.freedom()!.wider(0.05 * mm);
    const next = openStage({ id: 's', kind: id, params: { ...(params.value as object), ...wider } }, shelf);
    if (!next.ok) throw new Error(next.problem.what);
    const more = next.value.load(REST).play[0] - play[0];
    expect(more).toBeGreaterThan(0.6 * 0.05 * mm * d.perAllowance);
    expect(more).toBeLessThan(1.5 * 0.05 * mm * d.perAllowance);
  });

  it.each([
    ['spur', { takenOut: 'split' }],
    ['planetary', { takenOut: 'pairs' }],
    ['strain-wave', { tension: 20 }],
    ['rack', { takenOut: 'split' }],
  ] as const)('of %s %o has no play and can jam all the same', (id, over) => {
    const kind = stageKind(id)!;
    const start = kind.defaults({ ratio: RATIOS[id as 'spur'] ?? 20, torque: 2, size: Infinity, shelf });
    const opened = openStage({ id: 's', kind: id, params: { ...(start as object), ...over } }, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    const freedom = opened.value.freedom()!;
    const d = draw([{ ...stage([]), freedom }], Infinity, 2000);
    for (const x of playAsMade(d)) expect(x).toBeCloseTo(0, 12);
    expect(chanceJams(d, -0.5 * mm)).toBe(1);
    expect(chanceJams(d, 0.5 * mm)).toBe(0);
  });

  it('tells a straight axis about its arm: ways over the arm, as the limit is', () => {
    const read = readJointFile(readFileSync(new URL('../../demo/reed-lift.json', import.meta.url), 'utf8'));
    if (!read.ok) throw new Error(read.problem.what);
    const { brief } = read.value;
    const travel = (brief.cases[0] as unknown as { radius: number }).radius;
    for (const variant of read.value.variants.slice(0, 2)) {
      const made = done(lineJam({ variant, brief, day: '2026-11-29', rise: 0, samples: 4000 }, makeShelf()));
      if (!made.ok) throw new Error(made.problem.what);
      const expected = analyseLine({ brief }, variant, makeShelf()).figures.find((f) => f.id === 'play')!;
      const [likely] = playAsMade(made.value.drawn);
      // No process made it: what is drawn is what the line expects, to the fifth that bands allow.
      expect(likely / expected.value).toBeGreaterThan(0.5);
      expect(likely / expected.value).toBeLessThan(1.5);
      expect(made.value.asked * travel).toBeCloseTo(150e-6, 9);
    }
  });

  it('is told of a whole line, and its allowance taken over changes what it says', () => {
    const joint = demo();
    const variant = { ...joint.variants[0]!, making: { process: 'filament-04' } };
    const made = done(lineJam({ variant, brief: joint.brief, day: '2026-11-01', rise: 0, samples: 2000 }, makeShelf()));
    expect(made.ok && made.value.asked).toBeGreaterThan(0);
    expect(widened(variant.stages, 1e-5, undefined, shelf).size).toBe(0);
  });

  it('is taken over stage by stage, to a micrometre, and moves the chances as it said it would', () => {
    const read = readJointFile(readFileSync(new URL('../../demo/wing-root.json', import.meta.url), 'utf8'));
    if (!read.ok) throw new Error(read.problem.what);
    const variant = read.value.variants.find((v) => v.id === 'b')!;
    const next = widened(variant.stages, 3.04e-5, undefined, shelf);
    // The belt has no gap; of the planets every tooth gives half.
    expect([...next.keys()]).toEqual([0]);
    const was = variant.stages[0]!.params as { allowanceS: number; allowanceP: number; allowanceR: number };
    expect(next.get(0)!['allowanceS']).toBeCloseTo(was.allowanceS + 1.5e-5, 9);
    expect(next.get(0)!['allowanceR']).toBeCloseTo(was.allowanceR + 1.5e-5, 9);
    expect(widened(variant.stages, 3e-5, 1, shelf).size).toBe(0);
    const draw1 = (stages: typeof variant.stages) => {
      const wish = {
        variant: { ...variant, stages },
        brief: read.value.brief,
        day: '2026-11-29',
        rise: 0,
        samples: 20_000,
      };
      const made = done(lineJam(wish, makeShelf()));
      if (!made.ok) throw new Error(made.problem.what);
      return made.value;
    };
    const before = draw1(variant.stages);
    expect(before.asked * (180 / Math.PI) * 60).toBeCloseTo(4.5, 6);
    expect(before.stages.map((s) => s.movable)).toEqual([true, false]);
    const moved = draw1(variant.stages.map((s, k) => ({ ...s, params: { ...s.params, ...next.get(k) } })));
    expect(chanceJams(moved.drawn, 0)).toBeCloseTo(chanceJams(before.drawn, 3e-5), 1);
    expect(chanceLoose(moved.drawn, 0)).toBeCloseTo(chanceLoose(before.drawn, 3e-5), 1);
  });
});
