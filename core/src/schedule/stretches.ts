import type { GoingStep } from '../assembly/going-together.ts';
import type { Build, Variant } from '../schema/joint.ts';
import type { AssemblyStep } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import type { MadePiece, Pieces } from './pieces.ts';
import type { Stretch } from './tasks.ts';
import { wallTime } from './wall-clock.ts';

/** Steps of the housing that are worth a stretch of their own; fewer go with the stage before them. */
const OWN = 3;

/** Runs of steps that follow each other and belong together: a stage with what of the housing comes right after it. */
function runsOf(steps: readonly GoingStep[]): GoingStep[][] {
  const runs: GoingStep[][] = [];
  for (const step of steps) {
    const last = runs[runs.length - 1];
    if (last && last[0]!.stage === step.stage) last.push(step);
    else runs.push([step]);
  }
  const out: GoingStep[][] = [];
  for (const run of runs) {
    const before = out[out.length - 1];
    const joins = before && (run[0]!.stage < 0 ? run.length < OWN : before.some((s) => s.stage === run[0]!.stage));
    if (joins) before.push(...run);
    else out.push(run);
  }
  return out;
}

const kindName = (variant: Variant, stage: number): string =>
  stageKind(variant.stages[stage]?.kind ?? '')?.name.toLowerCase() ?? 'stage';

const rest = (minds: readonly AssemblyStep[] | undefined): number =>
  (minds ?? []).reduce((s, m) => Math.max(s, m.rests ?? 0), 0);

/** The part that a body of the assembled line is of: bearings and shaft of the output go by one name. */
const keyOf = (body: string): string => (/^case\/bearing.*output/.test(body) ? 'case/bearing-output' : body);

/**
 * Putting a line together as a few stretches, each with the parts that it takes: by the order that was found, else stage
 * after stage.
 *
 * @param steps of the whole line; undefined where no order is known
 * @param lists what each stage says of itself
 * @param offset minutes that the reader's clock is ahead of universal time, for when steps were ticked off
 */
export function stretchesOf(
  variant: Variant,
  build: Pick<Build, 'assembly'> | undefined,
  steps: readonly GoingStep[] | undefined,
  lists: readonly (readonly AssemblyStep[])[],
  pieces: Pieces,
  offset = 0,
): Stretch[] {
  if (!steps) return byStage(variant, lists, pieces.made, pieces);
  let at = 0;
  return runsOf(steps).map((run): Stretch => {
    const [from, to] = [at + 1, at + run.length];
    at = to;
    const stage = run.find((s) => s.stage >= 0)?.stage;
    const ticks = run.map((s) => build?.assembly?.[s.id]?.done);
    const left = ticks.filter((t) => t === undefined).length;
    const range = from === to ? `step ${from}` : `steps ${from} to ${to}`;
    const times = ticks.flatMap((t) => (t === undefined ? [] : [wallTime(t, offset)]));
    return {
      name: `Put together: ${stage === undefined ? 'housing' : `stage ${stage + 1}, ${kindName(variant, stage)}`}, ${range}`,
      left,
      of: run.length,
      keys: [...new Set(run.map((s) => keyOf(s.body)))],
      rests: Math.max(...run.map((s) => rest(s.minds))),
      ...(left === 0 && { done: Math.max(...times) }),
    };
  });
}

/** Stage after stage, each with all that is its own; what stands round them comes last. */
function byStage(
  variant: Variant,
  lists: readonly (readonly AssemblyStep[])[],
  made: readonly MadePiece[],
  { bought }: Pieces,
): Stretch[] {
  const all = [...made.map((m) => m.key), ...bought.flatMap((b) => b.keys)];
  const out = variant.stages.map((_, i): Stretch => {
    const steps = lists[i] ?? [];
    return {
      name: `Put together: stage ${i + 1}, ${kindName(variant, i)}`,
      left: steps.length,
      of: steps.length,
      keys: all.filter((k) => k.startsWith(`stage${i + 1}/`)),
      rests: rest(steps),
    };
  });
  const others = all.filter((k) => !k.startsWith('stage'));
  if (others.length > 0)
    out.push({
      name: 'Put together: motor and output',
      left: others.length,
      of: others.length,
      keys: others,
      rests: 0,
    });
  return out;
}
