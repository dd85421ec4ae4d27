import { describe, expect, it } from 'vitest';
import cases from './cases/line.json' with { type: 'json' };
import { forward, needed, playAtOutput, stiffnessAtOutput, totalRatio, turnBack } from '../src/line/sum.ts';

const links = (c: (typeof cases)[number]) =>
  c.stages.map((s) => ({
    ratio: s.ratio,
    etaForward: s.efficiency,
    etaBackward: s.efficiency,
    drag: 0,
    stiffness: s.stiffness,
  }));

describe('worked line cases', () => {
  it.each(cases)('case with total ratio $ratio', (c) => {
    const l = links(c);
    expect(totalRatio(l)).toBeCloseTo(c.ratio, 9);
    expect(forward(l, 1) / Math.abs(c.ratio)).toBeCloseTo(c.efficiency, 9);
    expect(
      playAtOutput(
        l,
        c.stages.map((s) => s.backlash),
      ) - c.play_rad,
    ).toBeLessThan(1e-12 + 1e-6 * c.play_rad);
    expect(Math.abs(stiffnessAtOutput(l) / c.stiffness_Nm_per_rad - 1)).toBeLessThan(1e-9);
  });

  it('undoes the forward recursion, drag included', () => {
    const l = links(cases[1]!).map((s, j) => ({ ...s, drag: 0.01 * (j + 1) }));
    expect(forward(l, needed(l, 5))).toBeCloseTo(5, 12);
  });

  it('needs more torque to turn back with more drag, and holds at a stage without backward efficiency', () => {
    const l = links(cases[0]!);
    const free = turnBack(l, 0.02).torque;
    expect(
      turnBack(
        l.map((s) => ({ ...s, drag: 0.01 })),
        0.02,
      ).torque,
    ).toBeGreaterThan(free);
    expect(turnBack([l[0]!, { ...l[1]!, etaBackward: 0 }], 0.02)).toEqual({ torque: Infinity, holder: 1 });
  });
});
