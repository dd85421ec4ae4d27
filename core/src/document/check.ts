import * as v from 'valibot';
import { loadPattern } from '../brief/patterns.ts';
import { refuse, type Problem } from '../result.ts';
import { place, sayIssue } from '../schema/issue.ts';
import { buildSchema, jointSchema, MOST, variantSchema, type Joint } from '../schema/joint.ts';
import { brokenLink } from './links.ts';
import { notPlain } from '../schema/plain.ts';
import { readParams } from '../stage/read-params.ts';
import { testSchema } from '../schema/test-schema.ts';

/** What a joint has beside its brief and its lists. */
const shell = v.omit(jointSchema, ['brief', 'variants', 'builds', 'tests']);

/** The name a person knows a value by, from the end of its place: `tests.3.readings.0.angle` is “angle”. */
const called = (where: string): string =>
  where
    .split('.')
    .filter((x) => !/^\d+$/.test(x))
    .at(-1) ?? 'it';

const refused = (where: string, why: string): Problem =>
  refuse(
    `This cannot be kept: ${called(where)} ${why}.`,
    'What is stored must be readable when it is opened again.',
    'Nothing was changed; type another value.',
    where,
  ).problem;

/**
 * Says whether the reader will take a joint as it is in memory, before it is stored.
 *
 * Holds on to what it has checked by identity: a joint is never changed in place, so that an edit costs what it touched
 * and not the five hundred tests beside it. Agrees with `readRecord` by test.
 *
 * @example new JointCheck().problem(createJoint('Wrist', { id: 'a', now: '2026-11-27' })) // undefined
 */
export class JointCheck {
  private readonly known = new WeakSet<object>();

  /** Why the joint could not be read back; undefined where it can. */
  problem(joint: Joint): Problem | undefined {
    const { variants, builds, tests, ...rest } = joint;
    for (const [key, list] of Object.entries({ variants, builds, tests }) as [keyof typeof MOST, readonly object[]][]) {
      if (list.length > MOST[key])
        return refuse(
          `A joint holds at most ${MOST[key]} ${key}.`,
          `This would be number ${list.length}.`,
          'Delete one that is no longer needed, or make a copy of the joint for the next ones.',
          key,
        ).problem;
    }
    if (variants.length === 0)
      return refuse(
        'A joint needs at least one variant.',
        'This was the last one.',
        'Add another before it goes.',
        'variants',
      ).problem;
    return (
      this.part(joint.brief, 'brief', () => this.brief(joint)) ??
      this.shell(rest) ??
      this.each(variants, 'variants', (x, at) => this.schema(variantSchema, x, at) ?? this.stages(x, at)) ??
      this.each(builds, 'builds', (x, at) => this.schema(buildSchema, x, at)) ??
      this.each(tests, 'tests', (x, at) => this.schema(testSchema, x, at)) ??
      brokenLink(joint)?.problem
    );
  }

  /** Takes a joint that the reader has just given as checked. */
  trust(joint: Joint): void {
    for (const part of [joint.brief, ...joint.variants, ...joint.builds, ...joint.tests]) this.known.add(part);
  }

  /** Runs a check of a part unless that very part has passed before. */
  private part(of: object, at: string, check: () => Problem | undefined): Problem | undefined {
    if (this.known.has(of)) return undefined;
    const problem = notPlain(of, at) ?? check();
    if (!problem) this.known.add(of);
    return problem;
  }

  private each<T extends object>(
    list: readonly T[],
    at: string,
    check: (x: T, at: string) => Problem | undefined,
  ): Problem | undefined {
    for (const [i, x] of list.entries()) {
      const problem = this.part(x, `${at}.${i}`, () => check(x, `${at}.${i}`));
      if (problem) return problem;
    }
    return undefined;
  }

  private schema(schema: v.GenericSchema, x: unknown, at: string): Problem | undefined {
    const parsed = v.safeParse(schema, x);
    return parsed.success ? undefined : refused(place(parsed.issues[0], at), sayIssue(parsed.issues[0]));
  }

  /** What stands beside the lists: small, and checked each time. */
  private shell(rest: Omit<Joint, 'variants' | 'builds' | 'tests'>): Problem | undefined {
    const { brief: _brief, ...plain } = rest;
    return notPlain(plain) ?? this.schema(shell, plain, '');
  }

  private brief(joint: Joint): Problem | undefined {
    const own = this.schema(jointSchema.entries.brief, joint.brief, 'brief');
    if (own) return own;
    return joint.brief.cases.map((c) => loadPattern(c.pattern).wrong(c)).find((p) => p !== undefined);
  }

  private stages(variant: Joint['variants'][number], at: string): Problem | undefined {
    for (const [k, stage] of variant.stages.entries()) {
      const read = readParams(stage.kind, stage.params, `${at}.stages.${k}.params`);
      if (!read.ok) return read.problem;
    }
    return undefined;
  }
}
