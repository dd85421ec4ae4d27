import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  bare,
  adviceOf,
  AIMS,
  activeVariant,
  analyseFound,
  analyseLine,
  cannotFind,
  countSays,
  chanceMet,
  chanceOf,
  characterOf,
  composeBlocks,
  composeLines,
  demandOf,
  dominates,
  findInParts,
  foundOf,
  inOrderOf,
  inUnits,
  makeShelf,
  NonDominated,
  readJointFile,
  screenStages,
  spreadOut,
  stageKind,
  stopping,
  sumWhole,
  whyNotSays,
  worthAnalysing,
  worthComputing,
  type Analysed,
  type FindAsk,
  type FindResult,
  type FoundLine,
  type Screening,
} from '../src/index.ts';
import { Composer } from '../src/search/compose.ts';
import { driveOf, placeOf, RATIOS, windowOf } from '../src/search/drives.ts';
import { betterThan, fewBetter } from '../src/search/lines.ts';
import { whyNot } from '../src/search/why-not.ts';
import { Strongest } from '../src/search/dominance.ts';
import { dutyAt } from '../src/line/numbers.ts';
import type { Member } from '../src/search/members.ts';
import { motorTorque } from '../src/motor/available.ts';
import type { StageNumbers } from '../src/stage/contract.ts';

const read = (name: string) => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const joint = read('body-yaw');
const shelf = makeShelf();
const variant = activeVariant(joint);
const MOTORS = [variant.motor.id];
const ask: FindAsk = { joint, variant, shelf, kinds: ['unit', 'spur'], motors: MOTORS, stages: 2 };
const demand = demandOf(joint.brief, shelf);

function run<T>(g: Generator<unknown, T>): T {
  let s = g.next();
  while (!s.done) s = g.next();
  return s.value;
}

/** Across the output's axis, m, from the motor on: what stands beside a stage, or lies across the last that turns power aside. */
function wideness(drive: { frame: number; length: number; reach: number }, stages: readonly StageNumbers[]): number {
  let [most, beside, about] = [drive.frame, 0, drive.frame];
  for (const n of stages) {
    const far = n.before?.beside ?? 0;
    most = Math.max(most, n.outside);
    if (far > 0 && about > 0) beside = Math.max(beside, far + about / 2);
    about = far > 0 ? 0 : Math.max(about, n.outside);
  }
  const turns = stages.findLastIndex((n) => n.before?.across);
  if (turns < 0) return Math.max(most, beside);
  const coupled = stages.slice(0, turns + 1).map((n) => n.before?.off ?? 0);
  if (coupled[0]! > 0) coupled[0] = Math.max(coupled[0]!, drive.reach);
  const long = stages.slice(0, turns).reduce((s, n) => s + n.length, drive.length);
  return Math.max(most, beside, stages[turns]!.before!.across!.far + coupled.reduce((s, x) => s + x, long));
}

describe('those that few are better than', () => {
  const line = fc.record({
    of: fc.record({ stages: fc.array(fc.constant(0), { minLength: 1, maxLength: 3 }) }),
    // Few values, so that many tie.
    aims: fc.array(
      fc.integer({ min: 1, max: 4 }).map((x) => x * 1.04 ** x),
      { minLength: 3, maxLength: 3 },
    ),
  });
  it('are the same whatever order they are asked in', () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 40 }), fc.integer({ min: 1, max: 4 }), (list, several) => {
        const plain = list.filter((x) => list.filter((y) => y !== x && betterThan(y, x)).length < several);
        expect(fewBetter(list, several)).toEqual(plain);
      }),
    );
  });
});

describe('a set of which none dominates another', () => {
  const point = fc.array(fc.double({ min: 0.1, max: 10, noNaN: true }), { minLength: 3, maxLength: 3 });

  it('is the one that comparing all with all gives', () => {
    fc.assert(
      fc.property(fc.array(point, { maxLength: 40 }), (points) => {
        const set = new NonDominated<number>();
        points.forEach((p, i) => set.take(i, p));
        const all = points.filter((p) => !points.some((q) => dominates(q, p)));
        const kept = set.items.map((x) => [...x.aims].join());
        // Of several alike all are kept: none is better than another.
        expect(kept.sort()).toEqual(all.map((p) => p.join()).sort());
      }),
      { numRuns: 60 },
    );
  });

  it('with some slack leaves nothing out that is better than all it keeps by more than that', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 40 }), (points) => {
        const set = new NonDominated<number>(0.05);
        points.forEach((p, i) => set.take(i, p));
        for (const p of points)
          expect(set.items.some((x) => [...x.aims].every((v, k) => v <= p[k]! * 1.05 + 1e-12))).toBe(true);
      }),
      { numRuns: 30 },
    );
  });

  it('of at most so many lets more count as alike, and still keeps something near each', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 30, maxLength: 80 }), (points) => {
        const set = new NonDominated<number>(0.01, 10);
        points.forEach((p, i) => set.take(i, p));
        expect(set.items.length).toBeLessThanOrEqual(10);
        expect(set.items.length).toBeGreaterThan(0);
        for (const { of, aims } of set.items) expect([...aims]).toEqual(points[of]);
        // Of any two that are left none is worse in everything.
        for (const a of set.items)
          for (const b of set.items) if (a !== b) expect(dominates(a.aims, b.aims)).toBe(false);
      }),
      { numRuns: 30 },
    );
  });

  it('the strongest of many beat only what several are better than, by the margin that is asked', () => {
    const best = new Strongest([0, 0.1], 2);
    best.add([1, 0.9]);
    expect(best.beat([2, 2])).toBe(false);
    best.add([1.5, 0.45]);
    expect(best.beat([2, 2])).toBe(true);
    expect(best.beat([1.5, 1.001])).toBe(true);
    // A tenth of margin: 0.9 beats 1 and more.
    expect(best.beat([1.5, 0.999])).toBe(false);
    expect(best.beat([1.4, 5])).toBe(false);
    // However many come, those that beat most stay.
    for (let i = 0; i < 500; i++) best.add([100 + i, 100]);
    expect(best.beat([2, 2])).toBe(true);
    expect(best.beat([1.4, 5])).toBe(false);
  });

  it('is thinned to what stands apart, its ends kept', () => {
    const line = Array.from({ length: 50 }, (_, i) => [1 + i, 100 - i]);
    const kept = spreadOut(line, 8);
    expect(kept).toHaveLength(8);
    expect([kept[0], kept[7]]).toEqual([0, 49]);
    const gaps = kept.slice(1).map((k, i) => k - kept[i]!);
    expect(Math.max(...gaps)).toBeLessThan(20);
    expect(spreadOut(line.slice(0, 3), 8)).toEqual([0, 1, 2]);
  });
});

describe('a chance', () => {
  it('is a half at the limit, 97.5 % where the band ends there, and sure where nothing is uncertain', () => {
    const f = { value: 10, low: 8, high: 13 };
    expect(chanceMet(f, 10, 'min')).toBeCloseTo(0.5, 6);
    expect(chanceMet(f, 8, 'min')).toBeCloseTo(0.975, 3);
    expect(chanceMet(f, 13, 'max')).toBeCloseTo(0.975, 3);
    // Beyond the likely value the other half of the band counts: 1.5 above 10, of 3 for 1.96 σ.
    expect(chanceMet(f, 11.5, 'min')).toBeCloseTo(1 - 0.8365, 3);
    expect(chanceMet({ value: 5, low: 5, high: 5 }, 5, 'max')).toBe(1);
    expect(chanceMet({ value: 5, low: 5, high: 5 }, 4, 'max')).toBe(0);
  });

  it('of all musts is the product, wishes aside, the least of them at risk', () => {
    const figure = (value: number) => ({
      id: '',
      name: '',
      quantity: 'mass' as const,
      value,
      low: value - 2,
      high: value + 2,
    });
    const of = (need: 'must' | 'wish', value: number, id: 'mass' | 'money' | 'size') => ({
      id,
      asked: 10,
      sense: 'max' as const,
      need,
      figure: figure(value),
      state: 'holds' as const,
    });
    const c = chanceOf([of('must', 8, 'mass'), of('must', 10, 'money'), of('wish', 30, 'size')]);
    expect(c.all).toBeCloseTo(0.975 * 0.5, 3);
    expect(c.risk?.limit).toBe('money');
  });
});

describe('a drive', () => {
  it('gives at a place of the grid what the motor gives at a ratio no smaller, two percent off at most', () => {
    const drive = driveOf(variant.motor, variant, demand, shelf);
    for (const ratio of [1, 3.3, 17, 80]) {
      const place = placeOf(ratio);
      const at = 1.02 ** place;
      expect(at).toBeGreaterThanOrEqual(ratio * (1 - 1e-9));
      expect(at).toBeLessThan(ratio * 1.0201);
      demand.points.forEach((p, k) =>
        expect(drive.gives[k * RATIOS + place]).toBeCloseTo(
          motorTorque(variant.motor, variant.driver, shelf, p.speed * at, p.time).torque,
          9,
        ),
      );
    }
  });

  it('has a window that the ends of hold and what lies outside does not', () => {
    const drive = driveOf(variant.motor, variant, demand, shelf);
    const [low, high] = windowOf(drive, demand, 1, false)!;
    const margin = (ratio: number) =>
      Math.min(
        ...demand.points
          .filter((p) => p.torque > 0)
          .map(
            (p) =>
              motorTorque(variant.motor, variant.driver, shelf, p.speed * ratio, p.time).torque /
              (p.torque / ratio + variant.motor.rotorInertia * ratio * (p.acceleration ?? 0)),
          ),
      );
    expect(margin(low)).toBeGreaterThanOrEqual(1);
    expect(margin(high)).toBeGreaterThanOrEqual(1);
    expect(Math.min(margin(low / 1.03), margin(high * 1.03))).toBeLessThan(1);
  });
});

const composeAll = (composer: Composer): Composer => {
  for (let k = 0; k < composer.steps; k++) composer.step(k);
  for (const pair of composer.pairs()) composer.stepOn(pair);
  return composer;
};

describe('screened stages', () => {
  let screening: Screening;
  beforeAll(() => void (screening = run(screenStages(ask))));

  it('carry what they were screened at, near the ratio they say, and no check stops them', () => {
    expect(screening.members.length).toBeGreaterThan(100);
    for (const m of screening.members.filter((_, i) => i % 9 === 0)) {
      const opened = stageKind(m.kind)!.open(m.params, shelf);
      if (!opened.ok) throw new Error(opened.problem.what);
      const at = dutyAt(demand, m.at);
      const report = opened.value.report(at);
      expect(report.checks.filter((c) => c.severity === 'stop' && c.state === 'fails')).toEqual([]);
      expect(opened.value.stands(at)).toBe(true);
      expect(Math.abs(report.numbers.ratio)).toBeCloseTo(m.ratio, 9);
      for (const l of report.numbers.limits.filter((x) => x.time === 'static'))
        expect(l.torque).toBeGreaterThanOrEqual(m.at);
    }
  });

  it('of two halves are those of the whole', () => {
    const halves = [0, 1].map((k) => run(screenStages(ask, k, 2)));
    const names = (list: readonly Screening[]) =>
      list.flatMap((s) => s.members.map((m) => `${m.kind} ${m.at} ${JSON.stringify(m.params)}`)).sort();
    expect(names(halves)).toEqual(names([screening]));
    expect(halves[0]!.screened + halves[1]!.screened).toBe(screening.screened);
  });

  it('none of which carries what the output asks end no line', () => {
    const weak = screening.members.filter((m) => m.at < demand.peak);
    const drive = driveOf(variant.motor, variant, demand, shelf);
    expect(weak.length).toBeGreaterThan(10);
    expect(new Composer([drive], weak, demand, [], 2, false).steps).toBe(0);
  });

  it('put together give, for every line of a small world, one that is as good in everything', () => {
    const few = [
      ...screening.members.filter((m) => m.at === demand.peak).filter((_, i) => i % 7 === 0),
      ...screening.members.filter((m) => m.at < demand.peak).filter((_, i) => i % 11 === 0),
    ];
    const drive = driveOf(variant.motor, variant, demand, shelf);
    const composer = composeAll(new Composer([drive], few, demand, [], 2, false));
    const kept = [...composer.fronts].flatMap(([key, f]) => f.items.map((x) => ({ key, aims: [...x.aims] })));
    // Every pair, and every stage alone, by hand.
    const levels = [...new Set(few.map((m) => m.at))].sort((a, b) => a - b);
    let looked = 0;
    const check = (stages: typeof few) => {
      const ratio = stages.reduce((p, m) => p * m.ratio, 1);
      looked++;
      const enough = demand.points.every((p, k) => {
        if (!(p.torque > 0)) return true;
        let t = p.torque;
        for (const m of [...stages].reverse()) t = t / (m.ratio * m.numbers.etaForward) + m.numbers.drag;
        t += variant.motor.rotorInertia * ratio * (p.acceleration ?? 0);
        return drive.gives[k * RATIOS + placeOf(ratio)]! >= t;
      });
      if (!enough) return;
      const last = stages[stages.length - 1]!;
      const aims = [
        stages.reduce((s, m) => s + m.numbers.money, drive.money),
        stages.reduce((s, m) => s + m.numbers.mass, drive.mass),
        last.numbers.play[0] + (stages.length > 1 ? stages[0]!.numbers.play[0] / last.ratio : 0),
        1 / last.numbers.stiffness + (stages.length > 1 ? 1 / (stages[0]!.numbers.stiffness * last.ratio ** 2) : 0),
        wideness(
          drive,
          stages.map((m) => m.numbers),
        ),
        1 / stages.reduce((p, m) => p * m.numbers.etaForward, 1),
      ];
      const key = stages.map((m) => m.kind).join(' + ');
      const as = kept.some((x) => x.key === key && x.aims.every((v, i) => v <= Math.max(aims[i]!, 1e-5) * 1.0501));
      expect(as, `${key} ${aims.map((v) => v.toPrecision(4)).join(' ')}`).toBe(true);
    };
    for (const last of few.filter((m) => m.at === demand.peak)) {
      check([last]);
      const wanted = last.at / (last.ratio * last.numbers.etaForward) + last.numbers.drag;
      const level = levels.find((t) => t >= wanted);
      for (const before of few)
        if (
          before.at === level &&
          before.most >= wanted &&
          before.numbers.maxSpeed >= demand.speed * last.ratio * before.ratio
        )
          check([before, last]);
    }
    expect(looked).toBeGreaterThan(300);
    expect(kept.length).toBeGreaterThan(5);
  });

  /** Some drives and stages, and what the brief asks, so few that all lines of three stages can be looked at. */
  const small = () => {
    const drives = shelf.motors.filter((_, i) => i % 3 === 0).map((m) => driveOf(m, variant, demand, shelf));
    const few = [
      ...screening.members.filter((m) => m.at === demand.peak).filter((_, i) => i % 9 === 0),
      ...screening.members.filter((m) => m.at < demand.peak).filter((_, i) => i % 13 === 0),
    ];
    return { drives, few };
  };

  it('judged in blocks leave out nothing that is better than all they keep, by more than is alike', () => {
    const { drives, few } = small();
    const musts = [
      { id: 'turnBack' as const, sense: 'max' as const, value: 20, need: 'must' as const },
      { id: 'mass' as const, sense: 'max' as const, value: 1.5, need: 'must' as const },
    ];
    const told = (blocks: boolean) => {
      const c = composeAll(new Composer(drives, few, demand, musts, 3, false, blocks));
      const kept = [...c.fronts.values()].flatMap((f) => f.items.map((x) => x.aims));
      return { kept, looked: c.looked, pruned: c.pruned };
    };
    const [blocks, alone] = [told(true), told(false)];
    const behind = alone.kept.filter((a) => !blocks.kept.some((b) => b.every((v, i) => v <= a[i]! * 1.06)));
    expect(behind.length).toBe(0);
    expect(alone.kept.length).toBeGreaterThan(100);
    // Alone only those count as pruned that pairs make which are like others.
    expect(blocks.pruned).toBeGreaterThan(1.5 * alone.pruned);
    expect(Math.abs(blocks.looked / alone.looked - 1)).toBeLessThan(0.03);
  });

  it('put together by three leave out none that is better in something than all that are kept by more than a seventh', () => {
    const { drives, few } = small();
    const composer = composeAll(new Composer(drives, few, demand, [], 3, false));
    const kept = [...composer.fronts.values()].flatMap((f) => f.items.map((x) => x.aims));
    const levels = [...new Set(few.map((m) => m.at))].sort((a, b) => a - b);
    let [looked, does] = [0, 0];
    const before = (m: Member, ratio: number) => {
      const wanted = m.at / (m.ratio * m.numbers.etaForward) + m.numbers.drag;
      const level = levels.find((t) => t >= wanted);
      return few.filter(
        (b) => b.at === level && b.most >= wanted && b.numbers.maxSpeed >= demand.speed * ratio * b.ratio,
      );
    };
    for (const last of few.filter((m) => m.at === demand.peak))
      for (const middle of before(last, last.ratio))
        for (const first of before(middle, last.ratio * middle.ratio)) {
          const stages = [first, middle, last];
          const ratio = first.ratio * middle.ratio * last.ratio;
          for (const drive of drives) {
            looked++;
            const enough = demand.points.every((p, k) => {
              if (!(p.torque > 0)) return true;
              const t = [last, middle, first].reduce(
                (x, m) => x / (m.ratio * m.numbers.etaForward) + m.numbers.drag,
                p.torque,
              );
              const spin = drive.rotor * ratio * (p.acceleration ?? 0);
              return drive.gives[k * RATIOS + placeOf(ratio)]! >= t + spin;
            });
            if (!enough) continue;
            does++;
            const n = stages.map((m) => m.numbers);
            const [r2, r3] = [middle.ratio * last.ratio, last.ratio];
            const aims = [
              n.reduce((s, x) => s + x.money, drive.money),
              n.reduce((s, x) => s + x.mass, drive.mass),
              Math.max(1e-5, n[2]!.play[0] + n[1]!.play[0] / r3 + n[0]!.play[0] / r2),
              1 / n[2]!.stiffness + 1 / (n[1]!.stiffness * r3 * r3) + 1 / (n[0]!.stiffness * r2 * r2),
              wideness(drive, n),
              1 / n.reduce((p, x) => p * x.etaForward, 1),
            ];
            if (!kept.some((x) => x.every((v, i) => v <= aims[i]! * 1.14))) expect(aims).toEqual('kept by another');
          }
        }
    expect(looked).toBeGreaterThan(2000);
    expect(does).toBeGreaterThan(50);
  });
});

describe('found lines', () => {
  let found: FindResult;
  beforeAll(() => void (found = run(composeLines(ask, [run(screenStages(ask))]))));

  it('meet every must, are stopped by no check, and are what analysing them says', () => {
    expect(found.lines.length).toBeGreaterThan(3);
    expect(new Set(found.lines.map((l) => JSON.stringify([l.motor.id, l.stages]))).size).toBe(found.lines.length);
    for (const l of found.lines) {
      // Found lines are told without a housing: each would have another.
      const line = bare({ ...variant, motor: l.motor, driver: l.driver, stages: [...l.stages] });
      const report = analyseLine(joint, line, shelf);
      expect(report.problem).toBeUndefined();
      expect(stopping(report)).toEqual([]);
      expect(report.verdicts.filter((v) => v.need === 'must' && v.state === 'fails')).toEqual([]);
      for (const aim of AIMS) expect(l.aims[aim]).toBeCloseTo(report.figures.find((f) => f.id === aim)!.value, 9);
      expect(l.chance.all).toBeGreaterThanOrEqual(0);
      expect(l.chance.all).toBeLessThanOrEqual(1);
    }
  });

  it('hold unpowered where that is a must, and turn back where that is', () => {
    const torqueBack = (l: FoundLine) =>
      analyseLine(joint, { ...variant, motor: l.motor, driver: l.driver, stages: [...l.stages] }, shelf).figures.find(
        (f) => f.id === 'turnBack',
      )!.value;
    const backs = found.lines.map(torqueBack).sort((a, b) => a - b);
    const middle = backs[backs.length >> 1]!;
    // Were it left to chance which of the many lines are computed whole, hardly any of those found would do it.
    for (const [sense, value] of [
      ['min', middle * 1.3],
      ['max', middle / 1.3],
    ] as const) {
      const must = structuredClone(joint);
      must.brief.limits = must.brief.limits.filter((l) => l.id !== 'turnBack');
      must.brief.limits.push({ id: 'turnBack', sense, value, need: 'must' });
      const asked = { ...ask, joint: must };
      const r = run(composeLines(asked, [run(screenStages(asked))]));
      expect(r.lines.length, sense).toBeGreaterThan(3);
      for (const l of r.lines)
        if (sense === 'min') expect(torqueBack(l)).toBeGreaterThanOrEqual(value * (1 - 1e-9));
        else expect(torqueBack(l)).toBeLessThanOrEqual(value * (1 + 1e-9));
    }
  });

  it('leave as wide a passage as must be, and a kind that cannot says how wide its nearest is', () => {
    const must = structuredClone(joint);
    must.brief.limits = must.brief.limits.filter((l) => l.id !== 'bore');
    must.brief.limits.push({ id: 'bore', sense: 'min', value: 0.016, need: 'must' });
    const hollow = { ...ask, joint: must };
    const r = run(composeLines(hollow, [run(screenStages(hollow))]));
    expect(r.lines.length).toBeGreaterThan(10);
    for (const l of r.lines) {
      const report = analyseLine(must, { ...variant, motor: l.motor, driver: l.driver, stages: [...l.stages] }, shelf);
      expect(report.figures.find((f) => f.id === 'bore')!.value).toBeGreaterThanOrEqual(0.016 * (1 - 1e-9));
    }
    // In line with the motor none is clear: a pair of wheels turns the line aside.
    expect(r.lines.every((l) => l.stages.some((s) => s.kind === 'spur'))).toBe(true);
    const alone = { ...hollow, kinds: ['unit'] };
    const [unit] = run(composeLines(alone, [run(screenStages(alone))])).whyNot;
    expect(inUnits(whyNotSays(unit!))).toBe(
      'Bought unit: the nearest line has hollow bore 0 mm; at least 16 mm is asked.',
    );
  });

  it('are the same each time, and the same by several workers', async () => {
    const now = <T>(search: Generator<unknown, T>) => Promise.resolve(run(search));
    for (const workers of [1, 3]) {
      const again = await findInParts(workers, {
        screen: (k, n) => now(screenStages(ask, k, n)),
        compose: (s, k, n) => now(composeBlocks(ask, s, k, n)),
        worth: (s, composed) => Promise.resolve(worthComputing(ask, s, composed)),
        sum: (s, worth, k, n) => now(sumWhole(ask, s, worth, k, n)),
        chosen: (worth, sums) => Promise.resolve(worthAnalysing(ask, worth, sums)),
        analyse: (s, worth, chosen, k, n) => now(analyseFound(ask, s, worth, chosen, k, n)),
        found: (s, worth, lines) => Promise.resolve(foundOf(ask, s, worth, lines)),
      });
      expect(again).toEqual(found);
    }
  });

  it('are told by what they are first in and what they give up', () => {
    const cheapest = found.lines.reduce((a, b) => (b.aims.money < a.aims.money ? b : a));
    expect(characterOf(cheapest, found.lines)).toMatch(/^The cheapest/);
    for (const l of found.lines) expect(characterOf(l, found.lines)).not.toMatch(/best|NaN|undefined/);
    expect(characterOf(cheapest, [cheapest])).toBe('The only one that was found.');
  });

  it('follow priorities in their order, none lost', () => {
    const by = (aim: keyof FoundLine['aims']) => inOrderOf(found.lines, { [aim]: 1 });
    const money = by('money').map((l) => l.aims.money);
    const stiff = by('stiffness').map((l) => l.aims.stiffness);
    for (let i = 1; i < money.length; i++) {
      expect(money[i]!).toBeGreaterThanOrEqual(money[i - 1]!);
      expect(stiff[i]!).toBeLessThanOrEqual(stiff[i - 1]!);
    }
    expect(new Set(by('mass'))).toEqual(new Set(found.lines));
    const sure = inOrderOf(found.lines, { chance: 1 });
    expect(sure[0]!.chance.all).toBeGreaterThan(Math.max(...found.lines.map((l) => l.chance.all)) - 0.006);
  });
});

describe('advice', () => {
  const line = (kinds: readonly string[], aims: Partial<FoundLine['aims']>, more: Partial<FoundLine> = {}) =>
    ({
      id: `${kinds.join()} ${JSON.stringify(aims)}`,
      stages: kinds.map((kind, i) => ({ id: `${i}`, kind, params: {} })),
      aims: { money: 100, mass: 1, play: 1e-3, stiffness: 1e3, size: 0.1, efficiency: 0.8, ...aims },
      verdicts: [],
      ratio: 20,
      ...more,
    }) as unknown as FoundLine;
  const minute = Math.PI / 10800;
  const lines = [
    ...[0.9, 0.92, 0.94].map((efficiency) => line(['belt'], { efficiency, play: 1 * minute, money: 150 })),
    ...[0.5, 0.6, 0.7].map((efficiency) => line(['spur', 'planetary'], { efficiency, play: 8 * minute, money: 90 })),
  ];

  it('is told by the middles of what was found', () => {
    const says = inUnits(adviceOf(lines).join(' '));
    expect(says).toContain('lines of one stage pass on 92 %');
    expect(says).toContain('of 2 stages 60 %');
    expect(says).toMatch(/behind a belt .* behind a planetary/);
    expect(says).toContain('costs 60 € more: 150 € at 1′ beside 90 € at 8′');
    expect(says).not.toMatch(/best|NaN|Infinity/);
  });

  it('on turning back counts those that do, and names the most ratio of them', () => {
    const verdict = (state: 'holds' | 'fails', sense: 'min' | 'max', says?: string) =>
      [
        { id: 'turnBack', asked: 2, sense, need: 'wish', state, ...(says !== undefined && { says }) },
      ] as FoundLine['verdicts'];
    const back = lines.map((l, i) => ({
      ...l,
      ratio: 10 * (i + 1),
      verdicts: verdict(i < 4 ? 'holds' : 'fails', 'max'),
    }));
    expect(inUnits(adviceOf(back)[0]!)).toMatch(
      /^4 of 6 turn back at 2 N·m or less, none of them of more ratio than 40/,
    );
    const held = lines.map((l, i) => ({ ...l, verdicts: verdict('holds', 'min', i < 2 ? 'self-locking' : undefined) }));
    expect(inUnits(adviceOf(held)[0]!)).toMatch(/^6 of 6 hold 2 N·m unpowered, 2 of them by a stage/);
  });

  it('is none of a handful', () => {
    expect(adviceOf(lines.slice(0, 4))).toEqual([]);
    expect(adviceOf([])).toEqual([]);
  });
});

describe('why not', () => {
  it('names the limit that stops the nearest miss, with both numbers', () => {
    const tight = structuredClone(joint);
    tight.brief.limits.push({ id: 'mass', sense: 'max', value: 0.05, need: 'must' });
    tight.brief.limits = tight.brief.limits.filter((l, i, all) => all.findLastIndex((x) => x.id === l.id) === i);
    const r = run(composeLines({ ...ask, joint: tight }, [run(screenStages({ ...ask, joint: tight }))]));
    expect(r.lines).toEqual([]);
    expect(r.whyNot.map((w) => w.kind).sort()).toEqual(['spur', 'unit']);
    const spur = r.whyNot.find((w) => w.kind === 'spur')!;
    expect(spur.limit).toBe('mass');
    expect(spur.value).toBeGreaterThan(0.05);
    expect(spur.line!.stages.some((s) => s.kind === 'spur')).toBe(true);
    expect(whyNotSays(spur)).toMatch(/^Spur.*: the nearest line has mass .*; at most .* is asked\.$/);
  });

  const found = (kinds: readonly string[], aims: Partial<FoundLine['aims']>) =>
    ({
      motor: variant.motor,
      driver: variant.driver,
      stages: kinds.map((kind, i) => ({ id: `s${i}`, kind, params: {} })),
      aims: { money: 50, mass: 0.4, play: 1e-3, stiffness: 1e3, size: 0.08, efficiency: 0.9, ...aims },
    }) as unknown as FoundLine;
  const why = (analysed: readonly Analysed[], shown: readonly FoundLine[]) =>
    whyNot('worm', analysed, shown, undefined, [], variant, 0, 5);

  it('is that a line of a kind is beaten, by which, and in what most, where it does what is asked', () => {
    const worm = found(['worm'], { money: 90, mass: 0.5, efficiency: 0.5 });
    const other = found(['belt'], {});
    const said = why([{ line: worm }], [found(['spur'], { size: 0.2 }), other]);
    expect(said.line!.stages[0]!.kind).toBe('worm');
    expect(said.beaten).toEqual({
      by: ['belt'],
      behind: [
        { aim: 'money', own: 90, other: 50 },
        { aim: 'efficiency', own: 0.5, other: 0.9 },
      ],
    });
    expect(inUnits(whyNotSays(said))).toBe(
      'Worm: a line of it does what is asked, but belt is as good or better in everything: money 90 € beside 50 €, efficiency 50 % beside 90 %.',
    );
    // Better in something by more than columns are near: not beaten.
    expect(why([{ line: found(['worm'], { money: 47 }) }], [other]).beaten).toBeUndefined();
    // More stages must be better by more.
    expect(why([{ line: found(['worm', 'spur'], { money: 49 }) }], [other]).beaten?.by).toEqual(['belt']);
  });

  it('is the must that its nearest line misses when it is computed whole, or the check that stops it', () => {
    const line = found(['worm'], {});
    const must = why([{ line, out: { limit: 'mass', value: 0.4, asked: 0.3 } }], []);
    expect(inUnits(whyNotSays(must))).toBe('Worm: the nearest line has mass 0.4 kg; at most 0.3 kg is asked.');
    const check = why([{ line, out: { check: 'Motor speed (line)' } }], []);
    expect(whyNotSays(check)).toBe('Worm: the nearest line is stopped by a check, Motor speed (line).');
  });

  it('is known of every kind: what is not shown was computed, and is behind what is', () => {
    const all = { ...ask, kinds: ['unit', 'spur', 'strain-wave'] };
    const r = run(composeLines(all, [run(screenStages(all))]));
    const shown = new Set(r.lines.flatMap((l) => l.stages.map((s) => s.kind)));
    expect([...shown, ...r.whyNot.map((w) => w.kind)].sort()).toEqual(['spur', 'strain-wave', 'unit']);
    for (const w of r.whyNot) {
      expect(whyNotSays(w)).not.toMatch(/NaN|undefined/);
      for (const { own, other } of w.beaten?.behind ?? []) expect(own).not.toBe(other);
    }
    expect(r.pruned).toBeLessThan(r.looked);
  });

  it('is not told by a first look of a kind that could do it', () => {
    const first = { ...ask, kinds: ['unit', 'spur', 'strain-wave'], first: true };
    const screening = [run(screenStages(first))];
    const worth = worthComputing(first, screening, run(composeBlocks(first, screening)));
    expect(worth.met.length).toBeGreaterThan(0);
    const whole = worthComputing(ask, [screening[0]!], run(composeBlocks(ask, screening)));
    const lines = whole.lines.map((l) => `${l.drive} ${l.stages.join()}`);
    expect(new Set(lines).size).toBe(lines.length);
    for (const w of run(composeLines(first, screening)).whyNot) expect(worth.met).not.toContain(w.kind);
    // Were there no lines at all, those kinds would be left out all the same.
    expect(foundOf(first, screening, worth, []).whyNot.map((w) => w.kind)).not.toContain(worth.met[0]);
    expect(foundOf({ ...first, first: false }, screening, worth, []).whyNot).toHaveLength(3);
  });

  it('says how large a kind would have to be, where what fits in is too weak', () => {
    const tight = structuredClone(joint);
    tight.brief.limits = tight.brief.limits.filter((l) => l.id !== 'size');
    tight.brief.limits.push({ id: 'size', sense: 'max', value: 0.045, need: 'must' });
    const small = { ...ask, joint: tight, kinds: ['spur', 'unit'] };
    const spur = run(composeLines(small, [run(screenStages(small))])).whyNot.find((w) => w.kind === 'spur')!;
    expect(spur.across!.allowed).toBe(0.045);
    expect(inUnits(whyNotSays(spur))).toMatch(
      /^Spur: it would have to be [\d.]+ mm across to carry [\d.]+ N·m; you allow 45 mm\.$/,
    );
    // Allowed that much, there are some that end a line.
    const larger = structuredClone(tight);
    larger.brief.limits[larger.brief.limits.length - 1]!.value = spur.across!.needs * 1.001;
    const last = run(screenStages({ ...small, joint: larger, kinds: ['spur'] })).members;
    expect(last.some((m) => m.at === demand.peak)).toBe(true);
    expect(run(screenStages({ ...small, kinds: ['spur'] })).members.some((m) => m.at === demand.peak)).toBe(false);
  });

  it('says how many lines were looked at, and how', () => {
    expect(countSays(812)).toBe('812');
    expect(countSays(24_300_000, 12_200_000)).toBe('24 million, 50 % judged many at a time by what bounds them');
  });

  it('says where a kind carries too little, or none can be had', () => {
    const none = { kind: 'worm', value: 0, asked: 5, line: undefined };
    expect(whyNotSays({ ...none, limit: undefined })).toContain('none can be had');
    expect(whyNotSays({ ...none, limit: 'turnBack', value: Infinity })).toContain('the nearest line holds by itself');
    expect(whyNotSays({ ...none, limit: 'torque', value: 3 })).toContain('the strongest that was tried carries');
  });
});

describe('nothing can be looked for', () => {
  it('without a load, a kind or a motor, and the reason is said', () => {
    expect(cannotFind(ask)).toBeUndefined();
    expect(cannotFind({ ...ask, kinds: [] })?.what).toBe('No kind of stage is allowed.');
    expect(cannotFind({ ...ask, motors: [] })?.what).toContain('No motor that is allowed');
    const musts = (...limits: FindAsk['joint']['brief']['limits']) =>
      cannotFind({ ...ask, joint: { brief: { ...joint.brief, limits } } });
    const must = { need: 'must' as const };
    expect(
      musts({ id: 'bore', sense: 'min', value: 0.2, ...must }, { id: 'size', sense: 'max', value: 0.15, ...must })?.why,
    ).toMatch(/A hollow bore of .* does not fit into an outside size of/);
    expect(
      musts({ id: 'turnBack', sense: 'min', value: 5, ...must }, { id: 'turnBack', sense: 'max', value: 2, ...must })
        ?.why,
    ).toMatch(/It must hold .* unpowered, and be turned back by/);
    expect(musts({ id: 'mass', sense: 'max', value: 0, ...must })?.what).toBe('The brief allows no mass at all.');
    expect(musts({ id: 'mass', sense: 'max', value: 0, need: 'wish' })).toBeUndefined();
    const idle = { brief: { ...joint.brief, cases: [] } };
    expect(cannotFind({ ...ask, joint: idle })?.what).toBe('The brief asks for no torque.');
  });
});
