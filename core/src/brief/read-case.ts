import * as v from 'valibot';
import { caseSchema } from '../schema/brief-schema.ts';
import type { LoadCase } from '../schema/joint.ts';
import { ok, refuse, type Result } from '../result.ts';
import { loadPattern } from './patterns.ts';

/** Checks a load case by its schema and for what its values make impossible together. */
export function readCase(raw: unknown): Result<LoadCase> {
  const parsed = v.safeParse(caseSchema, raw);
  if (!parsed.success) {
    const issue = parsed.issues[0];
    return refuse(
      'That cannot be a load case.',
      `${v.getDotPath(issue) ?? 'It'} ${issue.message}.`,
      'Correct the value.',
      v.getDotPath(issue) ?? undefined,
    );
  }
  const problem = loadPattern(parsed.output.pattern).wrong(parsed.output);
  return problem ? { ok: false, problem } : ok(parsed.output);
}
