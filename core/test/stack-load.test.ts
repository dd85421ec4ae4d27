import { describe, expect, it } from 'vitest';
import { Stack } from '../src/stage/stack-load.ts';
import { borneBy, pulledBy } from '../src/stage/push.ts';

describe('what a stack of eccentrics does to its shaft', () => {
  it('is the sum of their forces, and their moments about its middle', () => {
    const stack = new Stack(3);
    stack.put(0, 3, 0);
    stack.put(1, 0, 4);
    stack.put(2, -3, 0);
    stack.close();
    // Nothing at the second angle: the mean of cubes is half.
    stack.put(1, 0, 0);
    stack.close();
    const { across, acrossMean, tilt, tiltMean } = stack.load;
    // −1·3 + 1·(−3) across the pitch of two layers.
    expect([across, tilt]).toEqual([4, 6]);
    expect(acrossMean).toBeCloseTo(Math.cbrt(64 / 2), 12);
    expect(tiltMean).toBeCloseTo(Math.cbrt(216 / 2), 12);
  });

  it('has one layer tilt nothing, and keeps the worst of several angles', () => {
    const stack = new Stack(1);
    for (const [x, y] of [
      [3, 4],
      [0, 1],
    ] as const) {
      stack.put(0, x, y);
      stack.close();
    }
    expect(stack.load).toMatchObject({ across: 5, tilt: 0, tiltMean: 0 });
    expect(stack.load.acrossMean).toBeCloseTo(Math.cbrt(126 / 2), 12);
  });

  it('takes what only rounding leaves for nothing', () => {
    const stack = new Stack(2);
    stack.put(0, 100, 0);
    stack.put(1, -100 * (1 + 1e-12), 0);
    stack.close();
    expect(stack.load.across).toBe(0);
    expect(stack.load.tilt).toBeCloseTo(100, 9);
    expect(new Stack(2).load).toEqual({ across: 0, acrossMean: 0, tilt: 0, tiltMean: 0 });
  });

  it('goes with the torque: worst at the peak, cubic means for the life', () => {
    const load = { across: 60, acrossMean: 50, tilt: 90, tiltMean: 80 };
    const at = { torque: 4, torqueRms: 2, equivalent: 1 };
    // The forces are for half of the peak; a quarter of the peak lasts.
    const { peak, lasting } = borneBy(at, 2, load, 0.01);
    expect(peak).toEqual({ across: 120, along: 0, moment: 1.8 });
    expect(lasting).toEqual({ across: 25, along: 0, moment: 0.4 });
    expect(pulledBy(at, 2, load, 0.01)).toEqual({ pull: 25, pullPeak: 120, tilt: 0.4, tiltPeak: 1.8 });
  });
});
