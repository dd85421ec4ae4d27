import { demandOf } from '../brief/demand.ts';
import { outputDuty, sumLine } from '../line/numbers.ts';
import { openFor } from '../line/open.ts';
import type { Joint, StageRecord, Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { AnyStageKind, Duty, StageWish } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { atArm } from '../stage/straight.ts';
import { leastRatio, mustSize, wishOf } from './size.ts';

/** A ratio below which no stage is worth adding. */
export const LEAST_ADDED = 1.2;
/** Digits that a suggested ratio is rounded to. */
const DIGITS = 3;

/**
 * Ratio that a line still lacks: the least with which the motor lifts the brief's peak at its speed through one stage
 * more, over what the line has.
 *
 * @returns ≥ 1.2, rounded; what one stage more would take where the line has none or cannot be computed
 */
export function lackingRatio(joint: Pick<Joint, 'brief'>, variant: Variant, shelf: Shelf): number {
  const demand = demandOf(joint.brief, shelf);
  const wanted = leastRatio(variant, demand, variant.stages.length + 1, shelf);
  const opened = openFor(demand.travel, variant.stages, shelf).all;
  const line =
    opened.ok && variant.stages.length ? sumLine({ variant, stages: opened.value, demand, shelf }) : undefined;
  const has = line?.ok ? Math.abs(line.value.numbers.ratio) : 1;
  return Number(Math.max(LEAST_ADDED, wanted / has).toPrecision(DIGITS));
}

/** How much more than its torque a stage is tried for, until nothing stops it. */
const TRIES = [1, 1.3, 1.7, 2.3, 3.2];

/** How many checks stop a stage, and how many fail in all. */
function failing(kind: AnyStageKind, params: unknown, at: Duty, shelf: Shelf): readonly [stops: number, fails: number] {
  const opened = kind.open(params, shelf);
  if (!opened.ok) return [Infinity, Infinity];
  const fails = opened.value.checks(at).filter((c) => c.state === 'fails');
  return [fails.filter((c) => c.severity === 'stop').length, fails.filter((c) => c.severity !== 'note').length];
}

/**
 * A stage as wished, sized for a duty, and larger until no check stops it.
 *
 * @param kept parameters that stay as they are
 * @param travel m for a radian of the brief's straight axis, where it has one
 * @returns parameters of the kind; of all that were tried those that fewest checks stop, and then fewest warn of
 */
function sized(
  kindId: string,
  want: Omit<StageWish, 'torque' | 'duty'>,
  at: Duty,
  kept: Readonly<Record<string, unknown>> = {},
  travel?: number,
): StageRecord['params'] | undefined {
  const known = stageKind(kindId);
  // Where the brief asks for nothing straight, such a stage is sized in its own terms about a metre.
  const kind = known && atArm(known, travel ?? 1);
  if (!kind) return undefined;
  let best: { params: StageRecord['params']; fails: readonly [number, number] } | undefined;
  for (const more of TRIES) {
    const plain = kind.defaults({ ...want, torque: at.torque * more, duty: at });
    const params = { ...(plain as StageRecord['params']), ...kept } as StageRecord['params'];
    const fails = failing(kind, params, at, want.shelf);
    if (!best || fails[0] < best.fails[0] || (fails[0] === best.fails[0] && fails[1] < best.fails[1]))
      best = { params, fails };
    if (fails[1] === 0) break;
  }
  return best?.params;
}

/**
 * A stage for the output's end of a line: of a ratio, sized for the brief's torque there and for the size that it must
 * keep, bored as it asks, and larger until no check stops it.
 *
 * @param outside largest dimension across the axis, m; the brief's must where left out
 */
export const stageFor = (
  joint: Pick<Joint, 'brief'>,
  kindId: string,
  ratio: number,
  shelf: Shelf,
  outside = mustSize(joint),
): StageRecord['params'] | undefined => {
  const demand = demandOf(joint.brief, shelf);
  const want = { ...wishOf(joint, shelf), ratio, size: outside };
  return sized(kindId, want, outputDuty(demand), {}, demand.travel);
};

/**
 * A stage that is there, of another ratio or outside: every dimension moves along, and what it is made of stays.
 *
 * @param ratio of one whose output runs straight in rad/m
 * @param outside largest dimension across the axis, m; Infinity where nobody minds
 * @param at what it carries in its place, in its own terms
 */
export function resizedStage(
  stage: Pick<StageRecord, 'kind' | 'params'>,
  ratio: number,
  outside: number,
  at: Duty,
  shelf: Shelf,
): StageRecord['params'] | undefined {
  const made = Object.entries(stage.params).filter(([path]) => path.startsWith('material') || path === 'pinsLie');
  return sized(stage.kind, { ratio, size: outside, shelf }, at, Object.fromEntries(made));
}
