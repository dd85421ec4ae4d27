import { demandOf, type Demand } from '../brief/demand.ts';
import type { Joint, StageRecord, Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import { stageKind } from '../stage/registry.ts';
import { marginAt } from './desk.ts';
import { sumLine } from '../line/numbers.ts';
import { openLine } from '../line/open.ts';

/** Torque in hand that a sizing aims at. */
const MARGIN = 1.2;
const EACH_STAGE = 0.94;
const MOST_PER_STAGE = 6;

/** Total ratios tried, from 1 up in steps of four percent. */
function* ratios(stages: number): Generator<number> {
  for (let i = 1; i <= MOST_PER_STAGE ** stages; i *= 1.04) yield i;
}

/**
 * Least total ratio with which the motor lifts the brief's peak at its speed with a fifth in hand through a number of
 * stages; the best of those tried where none does.
 */
export function leastRatio(variant: Variant, demand: Demand, stages: number, shelf: Shelf): number {
  let chosen = 1;
  let best = -Infinity;
  for (const i of ratios(stages)) {
    const reach = marginAt(variant, demand.points, shelf, i, EACH_STAGE ** stages).peak;
    if (reach > best) [best, chosen] = [reach, i];
    if (reach >= MARGIN) return i;
  }
  return chosen;
}

/** Outside dimension that a stage must fit into, m; what is only wished for binds nothing. */
export const mustSize = (joint: Pick<Joint, 'brief'>): number =>
  joint.brief.limits.find((l) => l.id === 'size' && l.need === 'must')?.value ?? Infinity;

/**
 * Chooses the least total ratio with which the motor lifts the brief's peak at its speed with a fifth in hand, splits
 * it evenly,
 * and gives every stage its kind's default for its share. Stage identifiers and kinds stay.
 *
 * @returns the new stages; the variant's own where there is nothing to size
 */
export function sizeLine(joint: Pick<Joint, 'brief'>, variant: Variant, shelf: Shelf): StageRecord[] {
  const count = variant.stages.length;
  if (count === 0) return [];
  const demand = demandOf(joint.brief, shelf);
  const limit = mustSize(joint);
  let chosen = leastRatio(variant, demand, count, shelf);
  let stages = variant.stages;
  for (let round = 0; round < 4; round++) {
    const each = chosen ** (1 / count);
    const next: StageRecord[] = [...variant.stages];
    let torque = demand.peak;
    for (let j = count - 1; j >= 0; j--) {
      const record = variant.stages[j]!;
      const kind = stageKind(record.kind);
      if (!kind) continue;
      next[j] = { ...record, params: kind.defaults({ ratio: each, torque, size: limit, shelf }) };
      torque /= each * EACH_STAGE;
    }
    stages = next;
    const opened = openLine(stages, shelf).all;
    const n = opened.ok ? sumLine({ variant, stages: opened.value, demand, shelf }) : opened;
    if (!n.ok || n.value.numbers.reach >= demand.peak * 1.1) break;
    chosen *= 1.08;
  }
  return stages;
}
