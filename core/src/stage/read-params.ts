import * as v from 'valibot';
import { ok, refuse, type Result } from '../result.ts';
import { place, sayIssue } from '../schema/issue.ts';
import { stageKind, stageKinds } from './registry.ts';

/** Checks parameters against the schema of their kind, and fills nothing in silently. */
export function readParams(kindId: string, params: unknown, where = 'params'): Result<Record<string, unknown>> {
  const kind = stageKind(kindId);
  if (!kind)
    return refuse(
      `There is no stage of kind “${kindId.slice(0, 40)}”.`,
      `This version knows ${stageKinds()
        .map((k) => k.id)
        .join(', ')}.`,
      'Use one of these, or open the file with a newer version.',
      where,
    );
  const parsed = v.safeParse(kind.schema, params);
  if (parsed.success) return ok(parsed.output as Record<string, unknown>);
  const issue = parsed.issues[0];
  return refuse(
    `The stage’s parameter ${place(issue)} ${sayIssue(issue)}.`,
    `A ${kind.name.toLowerCase()} stage cannot be computed without it.`,
    'Correct the value.',
    place(issue, where),
  );
}
