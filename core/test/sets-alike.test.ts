import { describe, expect, it } from 'vitest';
import { readParams, stageKind, type Duty, type StageNumbers } from '../src/index.ts';
import { spur } from './anchors/spur.ts';
import { twoSets } from './anchors/planetary-two-sets.ts';
import { cold } from './helpers.ts';

// Two sets in one stage are two stages of one set each: the first before the last, four fifths as wide, turned by the ratio
// and loaded by what the last one passes on.

const loadOf = (kind: string, params: Record<string, unknown>, duty: Duty): StageNumbers => {
  const read = readParams(kind, params);
  if (!read.ok) throw new Error(read.problem.what);
  const opened = stageKind(kind)!.open(read.value, cold);
  if (!opened.ok) throw new Error(opened.problem.what);
  return opened.value.load(duty);
};
const load = (over: Record<string, unknown>, duty: Duty) => loadOf('planetary', { ...twoSets.params, ...over }, duty);

/** What the shaft before a stage is asked for. */
const beforeOf = (duty: Duty, { ratio, etaForward }: StageNumbers): Duty => {
  const [i, passed] = [Math.abs(ratio), Math.abs(ratio) * etaForward];
  return {
    torque: duty.torque / passed,
    torqueRms: duty.torqueRms / passed,
    equivalent: duty.equivalent! / passed,
    speed: duty.speed * i,
    meanSpeed: duty.meanSpeed! * i,
  };
};

const HUB = / on its (shaft|screws)$/;
/** What a stage's hubs give, rad/(N·m), and how stiff the rest of it is. */
const ofHubs = (n: StageNumbers): number =>
  n.springs.filter((x) => HUB.test(x.name)).reduce((sum, x) => sum + 1 / x.stiffness, 0);
const besideHubs = (n: StageNumbers): number => 1 / (1 / n.stiffness - ofHubs(n));

describe('planetary sets in a row', () => {
  for (const [name, over] of [
    ['on plain bores', {}],
    ['on balls', { pins: 'ball', bearing: '624', pin: 0.004 }],
    ['of metal', { materialS: 'c45', materialP: 'c45', materialR: 'c45' }],
  ] as const)
    it(`are stages one behind the other, ${name}`, () => {
      const { duty } = twoSets;
      const both = load(over, duty);
      const last = load({ ...over, sets: 1 }, duty);
      const i = last.ratio;
      const passed = i * last.etaForward;
      const width = 0.8 * (twoSets.params['width'] as number);
      const first = load({ ...over, sets: 1, width }, beforeOf(duty, last));
      expect(both.ratio).toBeCloseTo(i * i, 9);
      expect(both.etaForward).toBeCloseTo(first.etaForward * last.etaForward, 9);
      expect(both.etaBackward).toBeCloseTo(first.etaBackward * last.etaBackward, 9);
      both.play.forEach((x, k) => expect(x).toBeCloseTo(first.play[k]! / i + last.play[k]!, 12));
      expect(both.inertiaOut).toBeCloseTo(last.inertiaOut, 12);
      // Its pins are as short as those of the last: a hundredth. A second sun sits on no shaft.
      const [all, one, two] = [both, first, last].map(besideHubs);
      expect(all! * (1 / two! + 1 / (one! * i * i))).toBeCloseTo(1, 1.7);
      expect(ofHubs(both)).toBeCloseTo(ofHubs(first) / (i * i), 15);
      expect(both.drag / (first.drag + last.drag / i)).toBeCloseTo(1, 2);
      both.limits.forEach((l, k) => {
        const [a, b] = [first.limits[k]!, last.limits[k]!];
        expect(l.torque / Math.min(a.torque * passed, b.torque), l.mode).toBeCloseTo(1, 6);
        if (Number.isFinite(l.life)) expect(l.life / Math.min(a.life, b.life), l.mode).toBeCloseTo(1, 6);
      });
      const lives = Math.min(first.life, last.life);
      if (Number.isFinite(lives)) expect(both.life / lives).toBeCloseTo(1, 6);
      else expect(both.life).toBe(lives);
    });
});

describe('a train with an idler', () => {
  it('is two pairs one behind the other, but for the idler, which is bent both ways', () => {
    const duty: Duty = { torque: 4, torqueRms: 2, speed: 2, equivalent: 2.5, meanSpeed: 1 };
    const free = { setBy: 'shifts', x1: 0, x2: 0, xi: 0, shape1: 'round', shape2: 'round' };
    const common = { ...spur.params, ...free, material1: 'pa-cf', material2: 'pa-cf' };
    const all = loadOf('spur', { ...common, idlers: 1, z1: 20, zi: 31, z2: 60 }, duty);
    const last = loadOf('spur', { ...common, idlers: 0, z1: 31, z2: 60 }, duty);
    const i = 60 / 31;
    const first = loadOf('spur', { ...common, idlers: 0, z1: 20, z2: 31 }, beforeOf(duty, last));
    expect(all.etaForward).toBeCloseTo(first.etaForward * last.etaForward, 12);
    expect(all.play[0]).toBeCloseTo(first.play[0] / i + last.play[0], 12);
    // Teeth and axes; the hub between both is none in a train.
    const gives = (n: StageNumbers) => n.springs.filter((x) => !HUB.test(x.name)).map((x) => x.stiffness);
    const sorted = (list: number[]) => [...list].sort((a, b) => a - b);
    const both = sorted([...gives(first).map((k) => k * i * i), ...gives(last)]);
    sorted(gives(all)).forEach((k, n) => expect(k / both[n]!).toBeCloseTo(1, 9));
    const alike = [...first.limits.map((l) => ({ ...l, torque: l.torque * i * last.etaForward })), ...last.limits];
    expect(all.limits).toHaveLength(alike.length);
    all.limits.forEach((l, n) => {
      const reversed = l.mode === 'root of the idler tires';
      expect(l.torque / alike[n]!.torque, l.mode).toBeCloseTo(reversed ? 0.7 : 1, reversed ? 2 : 9);
      if (!reversed && Number.isFinite(l.life)) expect(l.life / alike[n]!.life, l.mode).toBeCloseTo(1, 9);
    });
  });
});
