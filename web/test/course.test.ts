import { describe, expect, it } from 'vitest';
import { courseAt } from '../src/views/stage/CourseStrip.tsx';
import { kindOf, newTest, TEST_NAMES } from '../src/state/bench.ts';
import { makeShelf } from '@gristmill/core';

describe('a course over a turn', () => {
  const values = Float64Array.from({ length: 5 }, (_, i) => i * i);
  it('is read between its points, and goes round', () => {
    expect(courseAt(values, 0)).toBe(0);
    expect(courseAt(values, Math.PI / 2)).toBeCloseTo(1, 9);
    expect(courseAt(values, Math.PI / 4)).toBeCloseTo(0.5, 9);
    expect(courseAt(values, 2 * Math.PI + Math.PI)).toBeCloseTo(4, 9);
    expect(courseAt(values, -Math.PI / 2)).toBeCloseTo(9, 9);
  });
});

describe('a new test', () => {
  it('begins with its kind’s rig, an instrument that fits, and what a plan proposes', () => {
    const t = newTest('turn-back', 'b', makeShelf(), { lever: 0.33 }) as {
      rig: Record<string, unknown>;
      readings: unknown[];
    };
    expect(t.rig['lever']).toBe(0.33);
    expect(makeShelf().instruments.find((i) => i.id === t.rig['instrument'])?.measures).toBe('mass');
    expect(t.readings).toEqual([]);
    expect(TEST_NAMES['runout']).toBe(kindOf('runout')!.name);
    expect(newTest('play-lever', 'b', makeShelf(), { lever: 0.4 }).rig).toMatchObject({
      lever: 0.4,
      instrument: 'dial',
    });
  });
});
