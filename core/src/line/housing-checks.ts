import type { Check } from '../figure/index.ts';
import { aroundOf } from '../reducer/around.ts';
import { blockLoadChecks } from '../reducer/block-checks.ts';
import { reducerChecks } from '../reducer/checks.ts';
import { idleChecks } from '../reducer/idle-loads.ts';
import { axleLoadChecks } from '../reducer/axle-loads.ts';
import { keeperChecks } from '../reducer/keepers.ts';
import { linkChecks, type Working } from '../reducer/link-loads.ts';
import { motorShaftChecks } from '../reducer/motor-shaft.ts';
import type { Reducer } from '../reducer/reducer.ts';
import { strengthChecks, type Carries } from '../reducer/strength.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import { arrivingShare } from '../stage/arriving.ts';
import type { Duty, Stage } from '../stage/contract.ts';
import { provenMend } from '../stage/mend.ts';
import { mendedBy } from './mend.ts';
import { openLine } from './open.ts';
import type { LineNumbers } from './numbers.ts';

/**
 * What decides whether a line's housing goes together, with mends that do what they say: each is tried, and left out where
 * it does not help.
 *
 * @param n numbers of the line, where strength is asked for as well
 * @param mends false leaves them out
 */
export function housingChecks(
  reducer: Reducer,
  variant: Variant,
  stages: readonly Stage[],
  shelf: Shelf,
  n?: Pick<LineNumbers, 'stages' | 'duties'>,
  mends = true,
): readonly Check[] {
  const carries = n?.stages.map((s, j): Carries => {
    const output = n.duties[j]!.torque;
    // Torques on input, output and what is held come to nothing together.
    return { output, held: Math.abs(output - output / (s.ratio * arrivingShare(s))) };
  });
  const working = n?.stages.map((numbers, j): Working => ({ numbers, duty: n.duties[j]! }));
  const all = (of: Reducer, v: Variant): readonly Check[] =>
    [
      ...reducerChecks(of, v),
      ...(carries ? strengthChecks(of, v, carries, shelf, working) : []),
      ...(working
        ? [
            ...linkChecks(of, v, working),
            ...axleLoadChecks(of, working),
            ...motorShaftChecks(of, working),
            ...blockLoadChecks(of, v, working),
          ]
        : []),
      ...idleChecks(of, v, shelf, working),
      ...(of.housing ? keeperChecks(of.housing.keepers, of.plan!, working) : []),
    ].map((c) => ({
      ...c,
      group: 'the housing',
    }));
  const checks = all(reducer, variant);
  if (!mends) return checks.map(({ mend: _, ...c }) => c);
  return checks.map((c) =>
    c.state === 'fails' && c.mend
      ? provenMend(c, c.mend, checks, (change) => {
          const next = mendedBy(variant, change, shelf);
          const opened = next.stages === variant.stages ? stages : openedAnew(next, shelf);
          if (opened && n && stoppedNow(opened, stages, n.duties)) return undefined;
          const around = opened && aroundOf(next, opened, shelf);
          return around && all(around.reducer, next);
        })
      : c,
  );
}

/** Whether a check stops a stage that was changed and none did before. */
const stoppedNow = (now: readonly Stage[], before: readonly Stage[], duties: readonly Duty[]): boolean =>
  now !== before && now.some((s, i) => !s.stands(duties[i]!) && before[i]!.stands(duties[i]!));

/** The stages of a variant whose own parameters a mend changed; undefined where they do not go together then. */
function openedAnew({ stages }: Variant, shelf: Shelf): readonly Stage[] | undefined {
  const { all } = openLine(stages, shelf);
  return all.ok ? all.value : undefined;
}
