import { describe, expect, it } from 'vitest';
import { asideOf, asideWay } from '../src/loop/aside.ts';
import { loopPath, type Wheel } from '../src/loop/path.ts';

const at = (x: number, y: number, r: number, sense: 1 | -1 = 1): Wheel => ({ x, y, r, sense });

describe('the path of a belt round wheels', () => {
  it.each([
    ['two', [at(0, 0, 0.01), at(0.06, 0.01, 0.03)]],
    ['two and an idler on the back', [at(0, 0, 0.012), at(0.08, 0, 0.025), at(0.04, 0.024, 0.006, -1)]],
    ['four', [at(0, 0, 0.01), at(0.08, -0.01, 0.02), at(0.09, 0.06, 0.008), at(0.01, 0.07, 0.015)]],
  ])('runs straight from each to the next and touches both: %s', (_name, wheels) => {
    const path = loopPath(wheels)!;
    path.runs.forEach((run, i) => {
      const [a, b] = [wheels[i]!, wheels[(i + 1) % wheels.length]!];
      const [dx, dy] = [run.x2 - run.x1, run.y2 - run.y1];
      expect(Math.hypot(dx, dy)).toBeCloseTo(run.length, 12);
      expect(Math.atan2(dy, dx)).toBeCloseTo(Math.atan2(Math.sin(run.heading), Math.cos(run.heading)), 12);
      for (const [w, x, y] of [
        [a, run.x1, run.y1],
        [b, run.x2, run.y2],
      ] as const) {
        expect(Math.hypot(x - w.x, y - w.y)).toBeCloseTo(w.r, 12);
        // A tangent, with the wheel on the left where the belt goes round it counter-clockwise.
        expect((x - w.x) * dx + (y - w.y) * dy).toBeCloseTo(0, 12);
        expect(Math.sign(dx * (w.y - y) - dy * (w.x - x))).toBe(w.sense);
      }
    });
    // Once round: what it turns one way less what it turns back.
    const turned = path.wraps.reduce((s, wrap, i) => s + wheels[i]!.sense * wrap, 0);
    expect(turned).toBeCloseTo(2 * Math.PI, 9);
    expect(path.length).toBeCloseTo(
      path.runs.reduce((s, r) => s + r.length, 0) + path.wraps.reduce((s, w, i) => s + w * wheels[i]!.r, 0),
      12,
    );
  });

  it('round two like wheels is twice their distance and one way round', () => {
    const path = loopPath([at(0, 0, 0.02), at(0.1, 0, 0.02)])!;
    expect(path.length).toBeCloseTo(0.2 + 0.04 * Math.PI, 12);
    expect(path.wraps.map((w) => w / Math.PI)).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)]);
  });

  it('is not there where wheels overlap', () => {
    expect(loopPath([at(0, 0, 0.02), at(0.005, 0, 0.03)])).toBeUndefined();
  });
});

describe('a wheel that presses a run aside', () => {
  it('goes along its way as it is pressed in further, on either run and from either side', () => {
    for (const from of ['inside', 'outside'] as const)
      for (const run of [1, -1] as const) {
        const [a, b] = [2e-3, 5e-3].map((push) => asideOf(0.01, 0.03, 0.08, 0.006, from, 0.4, push, run));
        const [x, y] = asideWay(0.01, 0.03, 0.08, from, run);
        expect([(b!.x - a!.x) / 3e-3, (b!.y - a!.y) / 3e-3]).toEqual([expect.closeTo(x, 9), expect.closeTo(y, 9)]);
        expect(Math.hypot(x, y)).toBeCloseTo(1, 12);
        // From outside it is pressed towards the other run.
        expect(Math.sign(y)).toBe(from === 'outside' ? -run : run);
      }
  });
});
