import { describe, expect, it } from 'vitest';
import { analyseLine, workingOf, type Variant } from '../src/index.ts';
import { demandOf } from '../src/brief/demand.ts';
import { outputDuty, sumLine, trialOf } from '../src/line/numbers.ts';
import { openLine } from '../src/line/open.ts';
import { shelf } from './helpers.ts';
import { active, DEMOS, ofKind } from './reducer-bench.ts';

const [joint] = DEMOS;
const { brief } = joint!;
const demand = demandOf(brief, shelf);

function summed(variant: Variant) {
  const { all } = openLine(variant.stages, shelf);
  if (!all.ok) throw new Error(all.problem.what);
  const line = { variant, stages: all.value, demand, shelf };
  const made = sumLine(line);
  if (!made.ok) throw new Error(made.problem.what);
  return { line, made: made.value, n: made.value.numbers };
}

describe('what a line carries that heat holds back', () => {
  // A worm for a newton metre under five: as warm as that would make it nothing is left of its wheel.
  const hot = { ...ofKind('worm'), housing: undefined } as unknown as Variant;
  const { line, made, n } = summed(hot);

  it('is the torque that it breaks at when it is as warm as that torque makes it', () => {
    const out = outputDuty(demand);
    const leastAt = (share: number) => {
      const at = { ...out, torque: out.torque * share, torqueRms: out.torqueRms * share };
      const { limits } = line.stages[0]!.load({ ...at, equivalent: out.equivalent! * share });
      return Math.min(...limits.filter((l) => l.time === 'static').map((l) => l.torque));
    };
    expect(leastAt(1)).toBe(0);
    // Found by halving, apart from the product's own way to it.
    let [lo, hi] = [0, 1];
    for (let i = 0; i < 40; i++) {
      const mid = (lo + hi) / 2;
      if (leastAt(mid) > mid * demand.peak) lo = mid;
      else hi = mid;
    }
    expect(n.capacity / (lo * demand.peak)).toBeCloseTo(1, 3);
    expect(n.heldBack).toBe(true);
    expect(n.torque).toBe(n.capacity);
  });

  it('has a band of what moves it, and none of what does not', () => {
    const moved = (id: string, share: number) =>
      trialOf(line, made, id, share * shelf.factors[id]!.value)!.capacity / n.capacity;
    // How thick its teeth come out is no matter of how strong they are.
    expect(moved('gear.thickness', 1.5)).toBeCloseTo(1, 3);
    expect(moved('gear.crush', 1.2)).toBeGreaterThan(1.02);
    expect(moved('stage.cooling', 0.5)).toBeLessThan(0.98);
    const report = analyseLine(joint!, hot, shelf);
    const torque = report.figures.find((f) => f.id === 'capacity')!;
    expect(torque.value).toBeCloseTo(n.capacity, 9);
    expect(torque.low / torque.value).toBeGreaterThan(0.3);
    expect(torque.high / torque.value).toBeLessThan(3);
    expect(workingOf(torque)!.formula).toContain('as warm as that load makes them');
    expect(workingOf(torque)!.terms.find((t) => t.symbol === 'limit')!.value).toBeCloseTo(n.capacity, 9);
  });

  it('is as asked where it carries that, and where heat has no part in it', () => {
    for (const v of [active(joint!), { ...hot, stages: ofKind('bevel').stages }]) {
      const { n: plain } = summed(v);
      expect(plain.heldBack).toBe(false);
      const least = plain.stages.flatMap((s) => s.limits.filter((l) => l.time === 'static').map((l) => l.torque));
      if (v.stages.length === 1) expect(plain.capacity).toBe(Math.min(...least));
    }
  });
});
