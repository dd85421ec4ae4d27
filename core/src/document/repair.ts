import * as v from 'valibot';
import { loadPattern } from '../brief/patterns.ts';
import { ok, refuse, type Result } from '../result.ts';
import { createJoint, type Stamp } from './create.ts';
import { sayIssue } from '../schema/issue.ts';
import { FORMAT, jointSchema, MOST, VERSION, type Joint } from '../schema/joint.ts';
import { migrate } from './migrate.ts';
import { MAX_DEPTH } from '../schema/plain.ts';
import { readRecord } from './read.ts';
import { readParams } from '../stage/read-params.ts';

type Raw = Record<string, unknown>;
type Path = readonly (string | number)[];
const isRecord = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);

/** What a repair gives: a joint that opens, and a line for each thing that is not in it. */
export interface Repaired {
  readonly joint: Joint;
  readonly leftOut: readonly string[];
}

const at = (raw: unknown, path: Path): unknown =>
  path.reduce<unknown>((x, key) => (isRecord(x) || Array.isArray(x) ? (x as Raw)[key] : undefined), raw);

/** What a thing in a list is called: its name or identifier, and its place. */
function call(raw: Raw, path: Path): string {
  const x = at(raw, path);
  const own = isRecord(x) ? (x['name'] ?? x['kind'] ?? x['id']) : undefined;
  return `${path.join('.')}${typeof own === 'string' && own.trim() !== '' ? ` (${own.slice(0, 60)})` : ''}`;
}

/** Takes pieces out of a record and keeps account of them. */
class Surgeon {
  /** What was said of each place. */
  private readonly said = new Map<string, string>();
  /** How often each place came up. */
  private readonly times = new Map<string, number>();

  /** What an entry of a list has that none can be without. */
  private readonly blanks: Readonly<Record<string, Raw>>;

  constructor(
    private readonly raw: Raw,
    private readonly spare: Raw,
    day: string,
  ) {
    const id = 'repaired';
    this.blanks = {
      variants: { ...(spare['variants'] as Raw[])[0]!, id },
      builds: { id, name: 'Unnamed', date: day, process: '', notes: '', variantId: '' },
      tests: { id, date: day, notes: '', buildId: 'lost' },
    };
  }

  get leftOut(): string[] {
    return [...this.said.values()];
  }

  say(where: string, what: string): void {
    this.said.set(where, what);
  }

  /**
   * Leaves a value out: a list entry or a field. A field that turns out to be needed takes with it what cannot be
   * without it.
   */
  takeOut(path: Path, why: string, missing: boolean): void {
    const [where, parent, key] = [path.join('.'), at(this.raw, path.slice(0, -1)), path.at(-1)];
    // A list that must have so many has none to give: it goes as a whole.
    if (Array.isArray(parent))
      return typeof key === 'number' && key < parent.length
        ? this.takeEntry(path, why)
        : this.takeOut(path.slice(0, -1), why, false);
    // What comes up again and again cannot be mended where it lies: more of it goes each time.
    const times = (this.times.get(where) ?? 0) + 1;
    this.times.set(where, times);
    if (times > 3 && path.length > 1) return this.takeOut(path.slice(0, -1), why, times > 6);
    if (!missing && path.length > 1 && isRecord(parent)) {
      delete parent[String(key)];
      return this.say(where, `${where} ${why}`);
    }
    const because = this.said.get(where)?.slice(where.length + 1) ?? why;
    this.said.delete(where);
    const [list, i, field] = path;
    // What every variant, build or test has is put in anew, so that what hangs on it stays.
    const blank = this.blanks[String(list)];
    if (blank && path.length > 2 && String(field) in blank) {
      ((this.raw[String(list)] as Raw[])[i as number] as Raw)[String(field)] = structuredClone(blank[String(field)]);
      return this.say(
        where,
        `${call(this.raw, path.slice(0, 2))}: ${path.slice(2).join('.')} ${because}; its ${String(field)} begins anew`,
      );
    }
    // What an entry can be without, a housing or an output shaft, goes alone and leaves the rest of it.
    const entry = (this.raw[String(list)] as Raw[] | undefined)?.[i as number];
    if (blank && path.length > 3 && isRecord(entry) && !(String(field) in blank)) {
      delete entry[String(field)];
      return this.say(
        where,
        `${call(this.raw, path.slice(0, 2))}: ${path.slice(2).join('.')} ${because}; it is left without its ${String(field)}`,
      );
    }
    const last = path
      .map((_, k) => (Array.isArray(at(this.raw, path.slice(0, k))) ? k : -1))
      .reduce((a, b) => Math.max(a, b), -1);
    if (last >= 0)
      return this.takeEntry(path.slice(0, last + 1), `${path.slice(last + 1).join('.')} ${because}`.trim());
    const top = String(list);
    if (path.length > 1 && isRecord(this.raw[top]) && isRecord(this.spare[top]))
      (this.raw[top] as Raw)[String(i)] = (this.spare[top] as Raw)[String(i)];
    else if (top in this.spare) this.raw[top] = this.spare[top];
    else delete this.raw[top];
    this.say(where, `${where} ${because}; it begins anew`);
  }

  private takeEntry(path: Path, why: string): void {
    const name = call(this.raw, path);
    (at(this.raw, path.slice(0, -1)) as unknown[]).splice(path.at(-1) as number, 1);
    // Places move up when an entry goes: the line is kept under its own words.
    this.say(`${name}: ${why} #${this.said.size}`, `${name}: ${why}`);
  }
}

/**
 * A copy of plain data: numbers that are not finite become null, what is nested without end is cut, so that a schema
 * can say which entries are lost by it.
 */
function plainCopy(x: unknown, depth = 0): unknown {
  if (typeof x === 'number') return Number.isFinite(x) ? x : null;
  if (x === null || typeof x === 'string' || typeof x === 'boolean') return x;
  if (typeof x !== 'object' || depth > MAX_DEPTH - 4) return undefined;
  if (Array.isArray(x)) return x.map((y) => plainCopy(y, depth + 1) ?? null);
  return Object.fromEntries(
    Object.entries(x)
      .flatMap(([k, y]) => (y === undefined ? [] : [[k, plainCopy(y, depth + 1)]]))
      .filter(([, y]) => y !== undefined),
  );
}

/**
 * Mends identifiers and links without losing what hangs on them: of two alike the second gets another, a build of no
 * variant goes to the first one, tests of no build get one made for them.
 *
 * @returns whether anything had to be mended
 */
function relink(raw: Raw, day: string, surgeon: Surgeon): boolean {
  const list = (key: string): Raw[] => (Array.isArray(raw[key]) ? (raw[key] as Raw[]) : []);
  let mended = false;
  const mend = (where: string, what: string) => {
    mended = true;
    surgeon.say(where, what);
  };
  const ids: Record<string, Set<string>> = {};
  for (const key of ['variants', 'builds', 'tests']) {
    const seen = (ids[key] = new Set<string>());
    for (const [i, x] of list(key).entries()) {
      const id = String(x['id']);
      if (seen.has(id)) {
        let other = 2;
        while (seen.has(`${id.slice(0, 56)}-${other}`)) other++;
        x['id'] = `${id.slice(0, 56)}-${other}`;
        mend(`${key}.${i}.id`, `${call(raw, [key, i])} had the identifier of another and has one of its own now`);
      }
      seen.add(String(x['id']));
    }
  }
  for (const [i, b] of list('builds').entries()) {
    if (ids['variants']!.has(String(b['variantId']))) continue;
    b['variantId'] = list('variants')[0]!['id'];
    mend(
      `builds.${i}.variantId`,
      `${call(raw, ['builds', i])} belonged to a variant that is not there; it stands under the first one`,
    );
  }
  for (const t of list('tests')) {
    const told = String(t['buildId']);
    const id = told === '' || told.length > 64 ? 'recovered' : told;
    if (ids['builds']!.has(told) || ids['builds']!.size >= MOST.builds) continue;
    t['buildId'] = id;
    if (ids['builds']!.has(id)) continue;
    ids['builds']!.add(id);
    list('builds').push({
      id,
      variantId: list('variants')[0]!['id'],
      name: 'Recovered',
      date: day,
      process: '',
      notes: 'Made by a repair for tests whose build was lost.',
    });
    mend(`build ${id}`, `tests of a build that is not there (${id.slice(0, 40)}) stand under one made for them`);
  }
  return mended;
}

/** The first thing of a joint that no reader takes, beyond what the schema itself sees. */
function deeper(joint: Joint): { path: Path; why: string }[] {
  for (const [i, variant] of joint.variants.entries()) {
    for (const [k, stage] of variant.stages.entries()) {
      const params = readParams(stage.kind, stage.params);
      if (!params.ok) return [{ path: ['variants', i, 'stages', k], why: `cannot be: ${params.problem.what}` }];
    }
  }
  for (const [i, c] of joint.brief.cases.entries()) {
    const problem = loadPattern(c.pattern).wrong(c);
    if (problem) return [{ path: ['brief', 'cases', i], why: `cannot be: ${problem.what}` }];
  }
  return [];
}

/** Fills lists that may not be empty. */
function refill(raw: Raw, spare: Raw, surgeon: Surgeon): void {
  const brief = raw['brief'];
  if (isRecord(brief) && Array.isArray(brief['cases']) && brief['cases'].length === 0) {
    brief['cases'] = structuredClone((spare['brief'] as Raw)['cases']);
    surgeon.say('cases', 'brief.cases had none left: one to begin from stands there');
  }
  if (Array.isArray(raw['variants']) && raw['variants'].length === 0) {
    raw['variants'] = structuredClone(spare['variants']);
    surgeon.say('variants', 'variants had none left: one without stages stands there');
  }
}

/**
 * Opens what can be opened of a damaged joint: takes out what no reader takes, piece by piece from the innermost, and
 * says what.
 *
 * @param raw the record as it lies in storage or in a file
 * @param stamp identifier and time for a joint that has lost its own
 * @returns the joint with the list of what was left out; a refusal where it is no joint at all
 * @example repairJoint('no record', { id: 'a', now: '2026-11-27' }).ok // false
 */
export function repairJoint(raw: unknown, stamp: Stamp): Result<Repaired> {
  if (!isRecord(raw))
    return refuse('Nothing of it can be opened.', 'It holds no record.', 'Export it as it is, and delete it here.');
  if (typeof raw['version'] === 'number' && raw['version'] > VERSION)
    return refuse(
      `It is from a newer Gristmill (version ${raw['version']}).`,
      'A repair would throw away what only that one knows.',
      'Update Gristmill, then open it again.',
    );
  const spare = structuredClone(createJoint('Repaired joint', stamp)) as unknown as Raw;
  const copy = plainCopy(raw) as Raw;
  const odd: string[] = [];
  if (copy['format'] !== FORMAT) {
    odd.push('format was missing or another one');
    copy['format'] = FORMAT;
  }
  if (typeof copy['version'] !== 'number' || !Number.isInteger(copy['version']) || copy['version'] < 1) {
    odd.push('version could not be read: the present one was taken');
    copy['version'] = VERSION;
  }
  const now = plainCopy(migrate(copy)) as Raw;
  const day = stamp.now.slice(0, 10);
  const surgeon = new Surgeon(now, spare, day);
  for (const line of odd) surgeon.say(line, line);
  for (const key of ['variants', 'builds', 'tests'] as const) {
    const list = now[key];
    if (Array.isArray(list) && list.length > MOST[key]) {
      surgeon.say(`most ${key}`, `${key}: ${list.length - MOST[key]} beyond the ${MOST[key]} that a joint holds`);
      list.length = MOST[key];
    }
  }
  // Each round takes something out, so that the number of things bounds the rounds.
  for (let round = 0; round < 20_000; round++) {
    refill(now, spare, surgeon);
    const parsed = v.safeParse(jointSchema, now);
    if (!parsed.success) {
      // One of each entry at once, from the end, so that places before them stay where they are.
      const seen = new Set<string>();
      const found = parsed.issues.map((issue) => ({
        path: (issue.path ?? []).map((p) => p.key as string | number),
        why: sayIssue(issue),
        missing: issue.received === 'undefined',
      }));
      const first = found.filter(
        ({ path }) => path.length > 0 && seen.size < seen.add(path.slice(0, 2).join('.')).size,
      );
      for (const { path, why, missing } of first.reverse()) surgeon.takeOut(path, why, missing);
      if (first.length === 0) break;
      continue;
    }
    if (relink(now, day, surgeon)) continue;
    const wrong = deeper(parsed.output);
    if (wrong.length) {
      for (const { path, why } of wrong.reverse()) surgeon.takeOut(path, why, false);
      continue;
    }
    const read = readRecord(now);
    return read.ok ? ok({ joint: read.value, leftOut: surgeon.leftOut }) : read;
  }
  return refuse(
    'It cannot be repaired.',
    'Too much of it is damaged.',
    'Export it as it is, and import an undamaged copy.',
  );
}
