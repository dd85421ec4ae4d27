import { askedValue, type Demand } from '../brief/demand.ts';
import type { Limit, Material, StageRecord } from '../schema/joint.ts';
import { stageKind } from '../stage/registry.ts';
import { AIMS, type Aim } from './compose.ts';
import type { FoundLine } from './found.ts';
import { AIM_WORDS } from './says.ts';

/** Bounds on what lines are chosen by, SI: most of what is wanted small, least of what is wanted large. */
export type AimBounds = Readonly<Partial<Record<Aim, number>>>;

/**
 * What a brief asks of found lines, musts and wishes alike; the tighter where it asks twice.
 * @example briefBounds([{ id: 'money', sense: 'max', need: 'wish', value: 100 }], { peak: 1, speed: 1 }) // { money: 100 }
 */
export function briefBounds(limits: readonly Limit[], demand: Demand): AimBounds {
  const out: Partial<Record<Aim, number>> = {};
  for (const limit of limits) {
    const aim = AIMS.find((a) => a === limit.id);
    const value = askedValue(limit, demand);
    if (!aim || !(value > 0) || (limit.sense === 'min') !== AIM_WORDS[aim].most) continue;
    const known = out[aim];
    if (known === undefined || AIM_WORDS[aim].most === value > known) out[aim] = value;
  }
  return out;
}

/** The bounds that a line is beyond; none where it keeps all of them. */
export const beyond = (line: Pick<FoundLine, 'aims'>, bounds: AimBounds): Aim[] =>
  AIMS.filter((a) => {
    const bound = bounds[a];
    return bound !== undefined && (AIM_WORDS[a].most ? line.aims[a] < bound : line.aims[a] > bound);
  });

/** How the parts of stages are made that are not bought: printed, milled, or both. */
export function processesOf(
  stages: readonly StageRecord[],
  materials: readonly Material[],
): ReadonlySet<Exclude<Material['made'], 'bought'>> {
  const out = new Set<Exclude<Material['made'], 'bought'>>();
  for (const { kind, params } of stages)
    for (const f of stageKind(kind)?.fields ?? []) {
      if (f.as !== 'choice' || f.of !== 'material' || f.when?.(params) === false) continue;
      const made = materials.find((m) => m.id === params[f.path])?.made;
      if (made && made !== 'bought') out.add(made);
    }
  return out;
}
