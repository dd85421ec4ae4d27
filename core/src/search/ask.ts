import { demandOf } from '../brief/demand.ts';
import type { Joint, Variant } from '../schema/joint.ts';
import { paidFor } from '../shop/drawer.ts';
import type { Shelf } from '../shop/shelf.ts';
import { makingOf } from '../stage/making.ts';
import { stageKinds } from '../stage/registry.ts';
import { atArm } from '../stage/straight.ts';
import { driveOf, windowOf } from './drives.ts';

/** What is looked for. */
export interface FindAsk {
  readonly joint: Pick<Joint, 'brief'>;
  /** What a line has beside motor and stages: sensor, mount, output; and its own motor. */
  readonly variant: Variant;
  readonly shelf: Shelf;
  /** Kinds of stage that may be used; all where left out. */
  readonly kinds?: readonly string[];
  /** Motors of the shop that may be used, by id; all, and the variant's own, where left out. */
  readonly motors?: readonly string[];
  /** Most stages of a line. */
  readonly stages?: number;
  /** A first look: few ratios, few of each kind, some lines; a second or two in place of half a minute. */
  readonly first?: boolean;
}

/**
 * What a first look leaves out: ratios but every so many, candidates beyond so many, stages beyond so many in a line, lines
 * beyond so many.
 */
export const FIRST = { ratios: 3, tries: 6, stages: 2, whole: 40, shown: 12 };

/** Most stages of a line that is looked for. */
export const stagesOf = ({ stages = 3, first }: Pick<FindAsk, 'stages' | 'first'>): number =>
  first ? Math.min(stages, FIRST.stages) : stages;

/** What of a search's start costs something: told once for as long as the question is kept. */
const known = new WeakMap<FindAsk, ReturnType<typeof settingOf>>();

/** What every part of a search starts from. */
export function setUp(ask: FindAsk) {
  let setting = known.get(ask);
  if (!setting) known.set(ask, (setting = settingOf(ask)));
  const kinds = stageKinds().flatMap((k) => {
    const told = !ask.kinds || ask.kinds.includes(k.id) ? atArm(k, setting.demand.travel) : undefined;
    return told ? [told] : [];
  });
  return { ...setting, kinds };
}

function settingOf(ask: FindAsk) {
  const { joint, variant } = ask;
  const { drawer } = ask.shelf;
  // What is there already counts as paid for while lines are looked for; what they cost is told by true prices.
  const shelf = { ...ask.shelf, bearings: paidFor(ask.shelf.bearings, drawer?.bearings) };
  const demand = demandOf(joint.brief, shelf);
  const holds = joint.brief.limits.some((l) => l.id === 'turnBack' && l.sense === 'min' && l.need === 'must');
  const own = shelf.motors.some((m) => m.id === variant.motor.id) ? [] : [variant.motor];
  const drives = [...own, ...shelf.motors]
    .filter((m) => !ask.motors || ask.motors.includes(m.id))
    .map((m) => {
      const there = (drawer?.motors?.[m.id] ?? 0) > 0;
      return driveOf(m.id === variant.motor.id ? variant.motor : m, variant, demand, shelf, there);
    })
    .filter((d) => windowOf(d, demand, 1, holds));
  return {
    demand,
    holds,
    drives,
    shelf,
    making: makingOf(ask.shelf.materials, drawer?.materials),
  };
}
