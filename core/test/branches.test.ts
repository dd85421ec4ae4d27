import { describe, expect, it } from 'vitest';
import { analyseLine, type Variant } from '../src/index.ts';
import { frictionHeat, housing } from '../src/stage/warmth.ts';
import { chain } from './anchors/chain.ts';
import { cold, demo } from './helpers.ts';

// A chain that drives a second shaft takes what that one uses from the motor as well.

/** The demo's beam on a chain of three to one, with or without a branch that uses half of what the output uses. */
function lineWith(load?: number) {
  const joint = demo();
  const was = joint.variants[0]!;
  const params = { ...chain.params, links: 90, ...(load !== undefined && { branch: 'inside', branchLoad: load }) };
  const variant: Variant = { ...was, stages: [{ ...was.stages[0]!, kind: 'chain', params }] };
  const report = analyseLine(joint, variant, cold);
  const figure = (id: string) => report.figures.find((f) => f.id === id)!.value;
  return { figure, report, numbers: report.stages[0]!.report!.numbers };
}

describe('a chain with a branch', () => {
  it('asks the motor for the output’s torque and the branch’s, and lets as much less of it arrive', () => {
    const [alone, both] = [lineWith(), lineWith(0.5)];
    const { peak } = both.report.demand;
    const steady = (peak * 1.5) / (both.numbers.ratio * both.numbers.etaForward) + both.numbers.drag;
    expect(both.figure('efficiency')).toBeCloseTo(peak / (steady * 3), 10);
    expect(both.figure('motorNeeded') - alone.figure('motorNeeded')).toBeGreaterThan((0.5 * peak) / 3);
    // What the motor can reach at the output falls alike, but for the drag of a shaft that is pulled harder.
    const share = both.numbers.etaForward / 1.5 / alone.numbers.etaForward;
    expect(both.figure('reach') / alone.figure('reach') / share).toBeCloseTo(1, 2);
    expect(both.numbers.branched).toBe(0.5);
    expect(alone.numbers.branched).toBeUndefined();
  });

  it('loses what rubs, not what the branch uses: power in is power out of both and heat', () => {
    const { numbers: n } = lineWith(0.5);
    const [torque, speed] = [2, 3];
    const motor = (torque * 1.5) / (n.ratio * n.etaForward) + n.drag;
    const heat = frictionHeat(n, { torque, torqueRms: torque, speed, meanSpeed: speed });
    expect(motor * speed * n.ratio).toBeCloseTo(torque * 1.5 * speed + heat, 12);
    // What a line tells of a stage counts the branch as use as well.
    const { report } = lineWith(0.5);
    const [{ efficiency, loss }] = report.attribution as [(typeof report.attribution)[0]];
    const out = report.demand.peak * 1.5;
    const put = out / n.etaForward + report.stages[0]!.report!.numbers.drag * n.ratio;
    expect(efficiency).toBeCloseTo(out / put, 9);
    expect(loss).toBeCloseTo(put - out, 9);
    expect(housing({ outside: 0.1, length: 0.02 })).toBeCloseTo(Math.PI * 0.1 * 0.02 + 2 * Math.PI * 0.05 ** 2, 12);
  });
});
