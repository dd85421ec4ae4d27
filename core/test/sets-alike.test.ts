import { describe, expect, it } from 'vitest';
import { readParams, stageKind, type Duty, type StageNumbers } from '../src/index.ts';
import { twoSets } from './anchors/planetary-two-sets.ts';
import { cold } from './helpers.ts';

// Two sets in one stage are two stages of one set each: the first before the last, four fifths as wide, turned by the ratio
// and loaded by what the last one passes on.

const load = (over: Record<string, unknown>, duty: Duty): StageNumbers => {
  const read = readParams('planetary', { ...twoSets.params, ...over });
  if (!read.ok) throw new Error(read.problem.what);
  const opened = stageKind('planetary')!.open(read.value, cold);
  if (!opened.ok) throw new Error(opened.problem.what);
  return opened.value.load(duty);
};

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
      const before: Duty = {
        torque: duty.torque / passed,
        torqueRms: duty.torqueRms / passed,
        equivalent: duty.equivalent! / passed,
        speed: duty.speed * i,
        meanSpeed: duty.meanSpeed! * i,
      };
      const width = 0.8 * (twoSets.params['width'] as number);
      const first = load({ ...over, sets: 1, width }, before);
      expect(both.ratio).toBeCloseTo(i * i, 9);
      expect(both.etaForward).toBeCloseTo(first.etaForward * last.etaForward, 9);
      expect(both.etaBackward).toBeCloseTo(first.etaBackward * last.etaBackward, 9);
      both.play.forEach((x, k) => expect(x).toBeCloseTo(first.play[k]! / i + last.play[k]!, 12));
      expect(both.inertiaOut).toBeCloseTo(last.inertiaOut, 12);
      // Its pins are as short as those of the last: a hundredth.
      expect(both.stiffness * (1 / last.stiffness + 1 / (first.stiffness * i * i))).toBeCloseTo(1, 1.7);
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
