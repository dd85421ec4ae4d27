import { demandOf } from '../brief/demand.ts';
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
  const limit = joint.brief.limits.find((l) => l.id === 'size')?.value ?? Infinity;
  let chosen = 1;
  let best = -Infinity;
  for (const i of ratios(count)) {
    const reach = marginAt(variant, demand.points, shelf, i, EACH_STAGE ** count).peak;
    if (reach > best) [best, chosen] = [reach, i];
    if (reach >= MARGIN) {
      chosen = i;
      break;
    }
  }
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
