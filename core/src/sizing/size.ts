import { demandOf, type Demand } from '../brief/demand.ts';
import type { Joint, Limit, StageRecord, Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { StageWish } from '../stage/contract.ts';
import { makingOf } from '../stage/making.ts';
import { stageKind } from '../stage/registry.ts';
import { atArm } from '../stage/straight.ts';
import { marginAt } from './desk.ts';
import { dutyAt, sumLine } from '../line/numbers.ts';
import { openFor } from '../line/open.ts';

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

/** Clear passage along the output's axis that is asked, m, as a must or a wish; undefined where nobody asks. */
export function askedBore(limits: readonly Limit[]): number | undefined {
  const asked = limits.flatMap((l) => (l.id === 'bore' && l.sense === 'min' && l.value ? [l.value] : []));
  return asked.length ? Math.max(...asked) : undefined;
}

/**
 * What is wished of a stage of a line by its brief and shop, beside its ratio and what it carries.
 *
 * @param beside what comes after it lies beside its axis, so that nothing has to pass through it
 */
export function wishOf(
  joint: Pick<Joint, 'brief'>,
  shelf: Shelf,
  beside = false,
): Pick<StageWish, 'size' | 'bore' | 'making' | 'shelf'> {
  const bore = beside ? undefined : askedBore(joint.brief.limits);
  const making = makingOf(shelf.materials, shelf.drawer?.materials);
  return { size: mustSize(joint), ...(bore !== undefined && { bore }), ...(making && { making }), shelf };
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
  let chosen = leastRatio(variant, demand, count, shelf);
  let stages = variant.stages;
  for (let round = 0; round < 4; round++) {
    const each = chosen ** (1 / count);
    const next: StageRecord[] = [...variant.stages];
    let torque = demand.peak;
    let beside = false;
    for (let j = count - 1; j >= 0; j--) {
      const record = variant.stages[j]!;
      const known = stageKind(record.kind);
      const kind = known && atArm(known, demand.travel);
      if (!kind) continue;
      const duty = dutyAt(demand, torque);
      const params = kind.defaults({ ...wishOf(joint, shelf, beside), ratio: each, torque, duty });
      next[j] = { ...record, params };
      const made = kind.open(params, shelf);
      if (made.ok && made.value.load(duty).beside) beside = true;
      torque /= each * EACH_STAGE;
    }
    stages = next;
    const opened = openFor(demand.travel, stages, shelf).all;
    const n = opened.ok ? sumLine({ variant, stages: opened.value, demand, shelf }) : opened;
    if (!n.ok || n.value.numbers.reach >= demand.peak * 1.1) break;
    chosen *= 1.08;
  }
  return stages;
}
