import { describe, expect, it } from 'vitest';
import { fitHysteresis } from '../src/index.ts';
import { loop } from './loop.ts';

const arcmin = Math.PI / 10800;

describe('a hysteresis loop', () => {
  it('is taken apart exactly where nothing scatters', () => {
    const { torque, angle } = loop(1, {
      play: 5 * arcmin,
      slopes: [300, 800],
      bends: [1.5],
      friction: 0.3,
      most: 6,
      steps: 40,
      noise: 0,
    });
    const f = fitHysteresis(torque, angle)!;
    expect(f.stiffness).toHaveLength(2);
    expect(f.play.value / (5 * arcmin)).toBeCloseTo(1, 3);
    expect(f.stiffness[0]!.value).toBeCloseTo(300, 0);
    expect(f.stiffness[1]!.value).toBeCloseTo(800, 0);
    expect(f.bends[0]!.value).toBeCloseTo(1.5, 2);
    expect(f.friction.value).toBeCloseTo(0.3, 3);
    expect(f.turns).toBe('waits');
  });

  it('holds the truth in its 95 % bands 93 to 97 times in a hundred', () => {
    const truth = {
      play: 4 * arcmin,
      slopes: [500, 900],
      bends: [1.4],
      friction: 0.2,
      most: 5,
      steps: 30,
      noise: 0.06 * arcmin,
    };
    const inside = { play: 0, k1: 0, k2: 0, friction: 0 };
    let all = 0;
    for (let seed = 1; seed <= 400; seed++) {
      const { torque, angle } = loop(seed * 7919, truth);
      const f = fitHysteresis(torque, angle);
      if (!f || f.stiffness.length !== 2) continue;
      all++;
      const within = (x: { value: number; u: number }, t: number) => (Math.abs(x.value - t) <= f.k * x.u ? 1 : 0);
      inside.play += within(f.play, truth.play);
      inside.k1 += within(f.stiffness[0]!, 500);
      inside.k2 += within(f.stiffness[1]!, 900);
      inside.friction += within(f.friction, 0.2);
    }
    expect(all).toBeGreaterThan(380);
    // Four hundred loops tell a share to a percent: the bounds are 93 to 97 % with what chance leaves.
    for (const [name, n] of Object.entries(inside)) {
      expect(n / all, name).toBeGreaterThan(0.92);
      expect(n / all, name).toBeLessThan(0.98);
    }
  });

  it('counts slopes: one where there is one, three where there are three', () => {
    const one = loop(3, {
      play: 3 * arcmin,
      slopes: [700],
      bends: [],
      friction: 0.1,
      most: 5,
      steps: 30,
      noise: 0.08 * arcmin,
    });
    expect(fitHysteresis(one.torque, one.angle)!.stiffness).toHaveLength(1);
    const three = loop(5, {
      play: 0.5 * arcmin,
      slopes: [200, 500, 1200],
      bends: [1, 3],
      friction: 0.1,
      most: 8,
      steps: 60,
      noise: 0.02 * arcmin,
    });
    const f = fitHysteresis(three.torque, three.angle)!;
    expect(f.stiffness.map((k) => Math.round(k.value / 10) * 10)).toEqual([200, 500, 1200]);
  });

  it('a reading that slipped does not bend it; readings all alike or of one side give none', () => {
    const { torque, angle } = loop(11, {
      play: 4 * arcmin,
      slopes: [600],
      bends: [],
      friction: 0.15,
      most: 4,
      steps: 25,
      noise: 0.03 * arcmin,
    });
    angle[30]! += 3 * arcmin;
    expect(fitHysteresis(torque, angle)!.play.value / (4 * arcmin)).toBeCloseTo(1, 1);
    expect(fitHysteresis(new Float64Array(20), new Float64Array(20))).toBeUndefined();
    expect(
      fitHysteresis(
        Float64Array.from({ length: 20 }, (_, i) => i - 10),
        new Float64Array(20),
      )?.stiffness.every((k) => Number.isFinite(k.value)) ?? true,
    ).toBe(true);
  });

  it('friction that follows at once is told from friction that waits', () => {
    const { torque, angle } = loop(9, {
      play: 3 * arcmin,
      slopes: [600],
      bends: [],
      friction: 0.4,
      most: 4,
      steps: 30,
      noise: 0.02 * arcmin,
      waits: false,
    });
    const f = fitHysteresis(torque, angle)!;
    expect(f.turns).toBe('follows');
    expect(f.friction.value).toBeCloseTo(0.4, 2);
  });
});
