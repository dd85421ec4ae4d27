import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  createJoint,
  demandOf,
  lackingRatio,
  leastRatio,
  makeShelf,
  mustSize,
  outputDuty,
  resizedStage,
  sizeLine,
  stageFor,
  stageKind,
  stageKinds,
  type Joint,
  type StageRecord,
  type Variant,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

const stage = (kind: string, params: StageRecord['params']): StageRecord => ({ id: kind, kind, params }) as StageRecord;
const stageOf = (kind: string, params: StageRecord['params'], on = shelf) => {
  const opened = stageKind(kind)!.open(params, on);
  if (!opened.ok) throw new Error(opened.problem.what);
  return opened.value.load({ torque: 1, torqueRms: 0.5, speed: 1 });
};
const first = (j: Joint): Variant => j.variants[0]!;

/** Ratios that a kind is made for. */
const USUAL: Readonly<Record<string, readonly number[]>> = {
  belt: [3, 5],
  chain: [2, 4],
  cable: [3, 6],
  bevel: [2, 4],
  'roller-wave': [12, 25],
  spur: [3, 5],
  planetary: [4, 8],
  'compound-planetary': [30, 60],
  'strain-wave': [30, 50],
  worm: [20, 40],
  cycloidal: [12, 25],
  'ring-plate': [12, 25],
};

describe('a stage that is added', () => {
  it('is asked to bring what the line still lacks: with it the motor lifts the peak with a fifth in hand', () => {
    const joint = demo();
    const bare: Variant = { ...first(joint), stages: [] };
    const all = leastRatio(bare, demandOf(joint.brief, shelf), 1, shelf);
    expect(lackingRatio(joint, bare, shelf) / all).toBeCloseTo(1, 2);
    // Behind a belt of 3 : 1 there is a third of it left, but for what a second stage loses.
    const belt = first(joint).stages.find((s) => s.kind === 'belt')!;
    const three = { ...belt, params: { ...belt.params, z1: 20, z2: 60 } } as StageRecord;
    const behind = lackingRatio(joint, { ...bare, stages: [three] }, shelf);
    expect((behind * 3) / leastRatio(bare, demandOf(joint.brief, shelf), 2, shelf)).toBeCloseTo(1, 2);
    // A line that has enough is never asked for nothing.
    const sheet = stageKind('unit')!.defaults({
      ratio: 60,
      torque: 20,
      size: Infinity,
      shelf,
    }) as StageRecord['params'];
    const enough = stage('unit', { ...sheet, ratio: 60 });
    expect(lackingRatio(joint, { ...bare, stages: [enough] }, shelf)).toBe(1.2);
  });

  it('is bored as wide as the brief asks, and made of what the drawer allows', () => {
    const joint = demo();
    const hollow: Joint = {
      ...joint,
      brief: {
        ...joint.brief,
        limits: [
          ...joint.brief.limits.filter((l) => l.id !== 'bore' && l.id !== 'size'),
          { id: 'bore', sense: 'min', need: 'must', value: 0.016 },
        ],
      },
    };
    const pla = makeShelf({ drawer: { materials: ['pla'] } });
    for (const [kindId, ratio] of [
      ['planetary', 4],
      ['strain-wave', 40],
      ['spur', 3],
    ] as const) {
      const boreOf = (of: Joint) => stageOf(kindId, stageFor(of, kindId, ratio, shelf)!).bore;
      expect(boreOf(hollow), kindId).toBeGreaterThanOrEqual(0.016);
      expect(boreOf(joint), kindId).toBeLessThan(0.016);
      const printed = stageFor(hollow, kindId, ratio, pla)!;
      const materials = Object.entries(printed).filter(([path]) => path.startsWith('material'));
      expect(materials.length).toBeGreaterThan(0);
      for (const [path, id] of materials)
        if (pla.materials.find((m) => m.id === id)!.made !== 'bought') expect(id, path).toBe('pla');
      expect(stageOf(kindId, printed, pla).bore).toBeGreaterThanOrEqual(0.016);
    }
  });

  it('before a belt needs no passage: what goes through the joint goes past it', () => {
    const joint = demo();
    const bore = { id: 'bore', sense: 'min', need: 'must', value: 0.03 } as const;
    const hollow: Joint = { ...joint, brief: { ...joint.brief, limits: [bore] } };
    const spur = stageKind('spur')!;
    const line = (last: string): Variant => ({
      ...first(joint),
      stages: [stage('spur', spur.starts), { ...stage(last, stageKind(last)!.starts), id: 'last' }],
    });
    const boreOf = (last: string) => stageOf('spur', sizeLine(hollow, line(last), shelf)[0]!.params).bore;
    expect(boreOf('belt')).toBeLessThan(0.03);
    expect(boreOf('planetary')).toBeGreaterThanOrEqual(0.03);
  });

  it('of whatever kind holds every check that would stop it, at a blank joint and at the demo’s', () => {
    for (const joint of [createJoint('Jib', { id: 'j', now: '2026-11-23T00:00:00.000Z' }), demo()]) {
      const at = outputDuty(demandOf(joint.brief, shelf));
      // What runs straight is for another brief.
      for (const kind of stageKinds().filter((k) => !k.straight))
        for (const ratio of USUAL[kind.id] ?? [4, 12]) {
          const params = stageFor(joint, kind.id, ratio, shelf)!;
          const opened = kind.open(params, shelf);
          if (!opened.ok) throw new Error(`${kind.id}: ${opened.problem.what}`);
          const report = opened.value.report(at);
          expect(
            report.checks.filter((c) => c.state === 'fails' && c.severity === 'stop').map((c) => c.id),
            `${kind.id} ${ratio} at ${at.torque.toFixed(1)} N·m`,
          ).toEqual([]);
          expect(Math.abs(Math.abs(report.numbers.ratio) / ratio - 1), kind.id).toBeLessThan(0.35);
        }
    }
  });

  it('is of no kind that nobody knows', () => {
    expect(stageFor(demo(), 'levers', 3, shelf)).toBeUndefined();
  });
});

describe('what a blank joint limits', () => {
  const blank = createJoint('Jib', { id: 'j', now: '2026-11-23T00:00:00.000Z' });
  it('is only suggested where nobody has asked for it', () => {
    expect(blank.brief.limits.map((l) => [l.id, l.need, l.suggested ?? false])).toEqual([
      ['torque', 'must', false],
      ['speed', 'must', false],
      ['play', 'wish', true],
      ['tip', 'wish', true],
      ['size', 'wish', true],
      ['mass', 'wish', true],
      ['money', 'wish', true],
    ]);
    const kind = stageKind('belt')!;
    const params = kind.defaults({ ratio: 3, torque: 2, size: Infinity, shelf }) as StageRecord['params'];
    const line = analyseLine(blank, { ...first(blank), stages: [stage('belt', params)] }, shelf);
    expect(line.verdicts.filter((v) => v.suggested).map((v) => v.id)).toEqual(['play', 'tip', 'size', 'mass', 'money']);
  });

  it('binds no size; one that is a must does', () => {
    expect(mustSize(blank)).toBe(Infinity);
    const limits = blank.brief.limits.map((l) => (l.id === 'size' ? { ...l, need: 'must' as const, value: 0.09 } : l));
    expect(mustSize({ brief: { ...blank.brief, limits: limits as never } })).toBe(0.09);
  });

  it('is entered by ratio and outside later as well: all moves along, and what it is made of stays', () => {
    const at = { torque: 3, torqueRms: 1.5, speed: 2, equivalent: 1.5, meanSpeed: 1 };
    for (const kind of stageKinds().filter((k) => USUAL[k.id])) {
      const [less, more] = USUAL[kind.id]!;
      const start = kind.defaults({ ratio: less!, torque: 3, size: Infinity, shelf }) as Record<string, never>;
      const materials = Object.keys(start).filter((k) => k.startsWith('material'));
      const own = { ...start, ...Object.fromEntries(materials.map((k) => [k, 'pc'])) } as Record<string, never>;
      const params = resizedStage({ kind: kind.id, params: own }, more!, 0.16, at, shelf)!;
      for (const k of materials) expect(params[k], `${kind.id} ${k}`).toBe('pc');
      const opened = kind.open(params, shelf);
      if (!opened.ok) throw new Error(`${kind.id}: ${opened.problem.what}`);
      const { numbers } = opened.value.report(at);
      expect(Math.abs(numbers.ratio) / more!, kind.id).toBeGreaterThan(0.75);
      expect(Math.abs(numbers.ratio) / more!, kind.id).toBeLessThan(1.35);
      expect(params, kind.id).not.toEqual(own);
    }
    expect(resizedStage({ kind: 'nothing', params: {} }, 5, 0.1, at, shelf)).toBeUndefined();
  });
});
