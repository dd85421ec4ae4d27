import * as v from 'valibot';
import { loadPattern } from '../brief/patterns.ts';
import { ok, refuse, type Result } from '../result.ts';
import { readParams } from '../stage/read-params.ts';
import { FORMAT, jointSchema, VERSION, type BenchTest, type Joint } from '../schema/joint.ts';
import { testSchema } from '../schema/test-schema.ts';
import { place, sayIssue } from '../schema/issue.ts';
import { brokenLink } from './links.ts';
import { migrate } from './migrate.ts';
import { notPlain } from '../schema/plain.ts';

/**
 * The largest joint file that is written and read, in bytes; what is larger goes into a bundle, where recordings lie
 * apart. A string holds half a thousand million characters.
 */
export const MAX_FILE = 400_000_000;

/**
 * Which reader this is: raised whenever it refuses what it took before, so that a save which was found readable then is
 * looked at again.
 */
export const READER = 1;

const damaged = (at: string, issue: Parameters<typeof sayIssue>[0]) =>
  refuse(
    `The file is damaged at ${at || 'its start'}.`,
    `That value ${sayIssue(issue)}.`,
    'Correct it in a text editor, or choose an undamaged copy.',
    at,
  );

/**
 * Reads one test of a record of this version, so that a record of hundreds can be read in steps; whether its build is
 * there is for `brokenLink`.
 *
 * @param index where it stands among the tests, for the place of a problem
 */
export function readTest(raw: unknown, index: number): Result<BenchTest> {
  const at = `tests.${index}`;
  const odd = notPlain(raw, at);
  if (odd) return refuse(`The file is damaged. ${odd.what}`, odd.why, odd.mend, odd.place);
  const parsed = v.safeParse(testSchema, raw);
  return parsed.success ? ok(parsed.output) : damaged(place(parsed.issues[0], at), parsed.issues[0]);
}

/** Checks a record that has been parsed already (from storage or from a file), migrating it first. */
export function readRecord(raw: unknown): Result<Joint> {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
    return refuse('This is not a joint file.', 'It does not hold a record.', 'Choose a file that Gristmill exported.');
  const record = raw as Record<string, unknown>;
  if (record['format'] !== FORMAT)
    return refuse(
      'This is not a joint file.',
      `Its format mark is missing or another one.`,
      'Choose a file that Gristmill exported.',
      'format',
    );
  const version = record['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return refuse(
      'The file’s version cannot be read.',
      'It should be a whole number.',
      'Choose an undamaged copy.',
      'version',
    );
  if (version > VERSION)
    return refuse(
      `The file is from a newer Gristmill (version ${version}).`,
      `This one reads up to version ${VERSION}.`,
      'Update Gristmill, then open it again.',
      'version',
    );
  const odd = notPlain(record);
  if (odd) return refuse(`The file is damaged. ${odd.what}`, odd.why, odd.mend, odd.place);
  const parsed = v.safeParse(jointSchema, migrate(record));
  if (!parsed.success) return damaged(place(parsed.issues[0]), parsed.issues[0]);
  const joint = parsed.output;
  for (const [i, variant] of joint.variants.entries()) {
    for (const [k, stage] of variant.stages.entries()) {
      const params = readParams(stage.kind, stage.params, `variants.${i}.stages.${k}.params`);
      if (!params.ok) return params;
      stage.params = params.value;
    }
  }
  for (const [i, c] of joint.brief.cases.entries()) {
    const problem = loadPattern(c.pattern).wrong(c);
    if (problem)
      return refuse(
        `The file is damaged at brief.cases.${i}. ${problem.what}`,
        problem.why,
        problem.mend,
        `brief.cases.${i}`,
      );
  }
  const broken = brokenLink(joint);
  if (broken) return broken;
  if (!joint.variants.some((x) => x.id === joint.activeVariant)) joint.activeVariant = joint.variants[0]!.id;
  return ok(joint);
}

/**
 * Reads the text of a joint file.
 *
 * @returns the joint, or a problem that names the place in the file and what to do; nothing is thrown
 */
export function readJointFile(text: string): Result<Joint> {
  if (text.length > MAX_FILE)
    return refuse(
      `The file is too large (${(text.length / 1e6).toFixed(0)} MB).`,
      `Joint files stay under ${MAX_FILE / 1e6} MB; a bundle takes more.`,
      'Choose a joint file.',
    );
  if (text.trim() === '')
    return refuse('The file is empty.', 'There is nothing in it to read.', 'Choose a file that Gristmill exported.');
  let raw: unknown;
  try {
    raw = JSON.parse(text.charCodeAt(0) === 0xfeff ? text.slice(1) : text);
  } catch (error) {
    const where = /position (\d+)/.exec(String(error))?.[1];
    return refuse(
      'The file cannot be read.',
      where
        ? `It stops making sense at character ${where}: it may be cut off or altered.`
        : 'It is not JSON: it may be cut off, or another kind of file.',
      'Choose an undamaged copy.',
    );
  }
  return readRecord(raw);
}

/** The text of a joint file: JSON, two spaces, a closing newline. */
export const writeJointFile = (joint: Joint): string => `${JSON.stringify(joint, null, 2)}\n`;
