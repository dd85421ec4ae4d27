import type { Variant } from '../schema/joint.ts';
import type { LineReport } from '../line/analyse.ts';
import type { LineOrder } from './contract.ts';

/**
 * What comes round in a line and how often per turn of the joint's output: each stage's own orders times the ratio that
 * follows it, and the motor's.
 *
 * The lever tells what run-out of a part does: an error of e at radius r of a stage's output turns the joint's output
 * by e/(r·D), D the ratio that follows.
 */
export function lineOrders(variant: Variant | undefined, line: LineReport | undefined): LineOrder[] {
  if (!variant || !line) return [];
  const ratios = line.stages.map((s) => s.report?.numbers.ratio);
  if (ratios.some((r) => r === undefined)) return [];
  const after = (j: number) => ratios.slice(j + 1).reduce<number>((p, r) => p * Math.abs(r!), 1);
  const list: LineOrder[] = [];
  variant.stages.forEach((_, j) => {
    const report = line.stages[j]?.report;
    if (!report) return;
    const D = after(j);
    for (const o of report.kinematics.orders)
      list.push({ name: `${o.name}, stage ${j + 1}`, order: o.perTurn * D, lever: report.numbers.outside * 0.4 * D });
  });
  const total = ratios.reduce<number>((p, r) => p * Math.abs(r!), 1);
  list.push({
    name: 'motor’s shaft',
    order: total,
    lever: (line.stages[0]?.report?.numbers.outside ?? 0.05) * 0.4 * total,
  });
  const steps = (variant.motor as { stepsPerTurn?: number }).stepsPerTurn;
  if (steps)
    list.push(
      { name: 'motor’s full steps', order: total * steps, lever: 0 },
      { name: 'motor’s step cycle', order: (total * steps) / 4, lever: 0 },
    );
  return list;
}
