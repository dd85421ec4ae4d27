import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  isMoment,
  JointCheck,
  MAX_DEPTH,
  mergeThree,
  notPlain,
  readJointFile,
  readRecord,
  repairJoint,
  same,
  sayProblem,
  settleJoint,
  tidyMoment,
  VERSION,
  writeJointFile,
  type Joint,
} from '../src/index.ts';
import { examples, demo, demoText, dice } from './helpers.ts';

// The tests spoil a parsed file in ways no type allows.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Any = any;
const stamp = { id: 'new', now: '2026-11-27T12:00:00.000Z' };

/** Places of a record, the ends of its branches and the branches themselves. */
function places(x: Any, path: (string | number)[] = []): (string | number)[][] {
  if (typeof x !== 'object' || x === null) return [path];
  return [path, ...Object.keys(x).flatMap((k) => places(x[k], [...path, Array.isArray(x) ? Number(k) : k]))];
}
const PLACES = places(JSON.parse(demoText)).filter((p) => p.length > 0);
const JUNK: Any[] = [
  null,
  -1,
  Infinity,
  NaN,
  'x',
  '',
  '   ',
  [],
  {},
  0,
  1e300,
  true,
  '27.11.2026',
  '2026-02-30',
  undefined,
  1e31,
  [[[]]],
  '\u0000',
  { id: 'a' },
];

/** A copy of the demo joint with junk in some places. */
function spoiled(roll: (n: number) => number, times: number): Any {
  const j = JSON.parse(demoText);
  for (let i = 0; i < times; i++) {
    const path = PLACES[roll(PLACES.length)]!;
    const parent = path.slice(0, -1).reduce<Any>((x, k) => x?.[k], j);
    if (typeof parent !== 'object' || parent === null) continue;
    const junk = JUNK[roll(JUNK.length)];
    if (junk === undefined) delete parent[path.at(-1)!];
    else parent[path.at(-1)!] = junk;
  }
  return j;
}

describe('dates', () => {
  it('are ISO 8601 and in the calendar', () => {
    for (const good of [
      '2026-11-27',
      '2026-11-27T09:30:00.000Z',
      '2026-11-27T09:30Z',
      '2026-11-27T09:30:00+01:00',
      '2024-02-29',
    ])
      expect(isMoment(good), good).toBe(true);
    for (const bad of [
      '',
      '27.11.2026',
      '2026-13-01',
      '2026-02-30',
      '2025-02-29',
      '2026-1-5',
      '0000-00-00',
      '2026-11-27 09:30',
      'yesterday',
      '2026-11-27T25:00Z',
      '12026-01-01',
    ])
      expect(isMoment(bad), bad).toBe(false);
  });

  it('as people write them are told where they can be', () => {
    expect([
      tidyMoment('27.11.2026'),
      tidyMoment(' 7. 1. 2026'),
      tidyMoment('2026/1/5'),
      tidyMoment('2026-11-27'),
      tidyMoment('2026-11-27 09:30:00'),
    ]).toEqual(['2026-11-27', '2026-01-07', '2026-01-05', '2026-11-27', '2026-11-27']);
    // Day and month cannot be told apart here.
    expect([tidyMoment('11/12/2026'), tidyMoment('30.02.2026'), tidyMoment('soon')]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });

  it('of a version 3 file are brought up; what cannot be told goes into the notes', () => {
    const raw = JSON.parse(demoText);
    raw.version = 3;
    raw.changed = '02.11.2026';
    raw.created = 'last week';
    raw.name = '  ';
    raw.variants[1].name = ' ';
    raw.builds[0].date = '3.10.2026';
    raw.tests[0].date = 'a Tuesday';
    raw.tests[0].notes = 'Cold hall.';
    const read = readRecord(raw);
    if (!read.ok) throw new Error(sayProblem(read.problem));
    const j = read.value;
    expect([j.changed, j.created, j.name, j.variants[1]!.name, j.builds[0]!.date, j.tests[0]!.date]).toEqual([
      '2026-11-02',
      '2026-11-02',
      'Unnamed joint',
      'Variant 2',
      '2026-10-03',
      '2026-11-02',
    ]);
    expect(j.tests[0]!.notes).toBe('Cold hall.\nDate as it was written: a Tuesday');
    raw.version = 4;
    expect(readRecord(raw).ok).toBe(false);
  });
});

describe('plain data', () => {
  it('is what JSON can carry: finite, bounded in depth, with the true reason otherwise', () => {
    const nested = (n: number): Any => (n === 0 ? 1 : { x: nested(n - 1) });
    expect(notPlain(nested(MAX_DEPTH))).toBeUndefined();
    expect(notPlain(nested(MAX_DEPTH + 1))).toMatchObject({
      what: `It is nested more than ${MAX_DEPTH} deep.`,
      place: 'x.x.x.x',
    });
    expect(notPlain({ a: [1, { b: Infinity }] })).toMatchObject({
      place: 'a.1.b',
      what: expect.stringContaining('not a finite number'),
    });
    expect(notPlain({ a: () => 1 })).toMatchObject({ place: 'a' });
    const round: Any = {};
    round.x = round;
    expect(notPlain(round)).toBeDefined();
    let deep: Any = 1;
    for (let i = 0; i < 200_000; i++) deep = [deep];
    expect(notPlain(deep)).toBeDefined();
  });

  it('a file nested without end is refused for that, and not thrown over', () => {
    const deep = demoText.replace('"format":', `"own": ${'['.repeat(100_000)}${']'.repeat(100_000)}, "format":`);
    const read = readJointFile(deep);
    expect(!read.ok && sayProblem(read.problem)).toMatch(/own.*nested more than 64 deep/);
    const infinite = readJointFile(demoText.replace('"rig": {', '"rig": { "own": 1e999,'));
    expect(!infinite.ok && sayProblem(infinite.problem)).toMatch(/own is not a finite number/);
  });
});

describe('what is about to be saved', () => {
  it('is checked as the reader will: both take it, or neither, for any damage', () => {
    const roll = dice(7);
    let [taken, refused] = [0, 0];
    for (let i = 0; i < 200; i++) {
      const j = spoiled(roll, 1 + roll(2));
      // In memory are numbers, not the text with units that a file may hold.
      const reads = readRecord(structuredClone(j));
      const problem = shaped(j) ? new JointCheck().problem(j as Joint) : { what: 'no joint' };
      expect(problem === undefined, JSON.stringify([reads.ok ? 'reads' : reads.problem, problem])).toBe(reads.ok);
      if (reads.ok) taken++;
      else refused++;
    }
    expect(taken).toBeGreaterThan(15);
    expect(refused).toBeGreaterThan(60);
  });

  it('comes back as it was: what the check takes, the reader gives back the same', () => {
    const j = demo();
    const read = readRecord(JSON.parse(writeJointFile(j)));
    expect(read.ok && read.value).toEqual(j);
  });

  it('is looked at again only where it changed, and every change is', () => {
    const check = new JointCheck();
    const j = demo();
    expect(check.problem(j)).toBeUndefined();
    const tests = j.tests.map((t, i) => (i === 3 ? { ...t, date: 'soon' } : t));
    expect(check.problem({ ...j, tests })!.place).toBe('tests.3.date');
    expect(
      check.problem({ ...j, variants: [...j.variants, j.variants[0]!] })!.what +
        check.problem({ ...j, variants: [...j.variants, j.variants[0]!] })!.why,
    ).toMatch(/identifier/);
    expect(check.problem({ ...j, builds: [] })!.why).toMatch(/build that is not/);
    const trusting = new JointCheck();
    trusting.trust(j);
    expect(trusting.problem({ ...j, name: ' ' })!.what).toMatch(/name must not be empty/);
  });
});

/** Whether a record has the lists that a joint in memory always has. */
const shaped = (j: Any): boolean =>
  ['variants', 'builds', 'tests'].every(
    (k) => Array.isArray(j[k]) && j[k].every((x: Any) => typeof x === 'object' && x !== null),
  ) &&
  typeof j.brief === 'object' &&
  j.brief !== null &&
  Array.isArray(j.brief.cases) &&
  typeof j.variants[0] === 'object' &&
  j.variants.every((v: Any) => Array.isArray(v.stages)) &&
  j.version === VERSION &&
  j.format === 'gristmill-joint';
describe('a repair', () => {
  it('opens whatever was a joint, leaves out no more than it must, and says what', () => {
    const j = JSON.parse(demoText);
    j.builds[0].date = 17;
    j.tests[0].rig.own = Infinity;
    const at = j.tests.findIndex((t: Any) => t.kind === 'play-lever');
    j.tests[at].readings[0].values.difference = { mm: 1 };
    j.variants[0].motor.holdTorque = 'much';
    j.variants[1].stages[0].params.z1 = 1;
    j.tests[(at + 1) % j.tests.length].buildId = 'gone';
    j.name = '';
    const repaired = repairJoint(j, stamp);
    if (!repaired.ok) throw new Error(sayProblem(repaired.problem));
    const { joint, leftOut } = repaired.value;
    const whole = demo();
    expect(joint.tests).toHaveLength(whole.tests.length);
    expect(joint.builds).toHaveLength(whole.builds.length + 1);
    expect(joint.builds[0]!.date).toBe('2026-11-27');
    // The cell goes, the reading stays with what else it says.
    const { difference, ...rest } = whole.tests[at]!.readings[0]!.values;
    expect(difference).toBeGreaterThan(0);
    expect(joint.tests[at]!.readings[0]!.values).toEqual(rest);
    expect(joint.variants[0]!.stages).toEqual(whole.variants[0]!.stages);
    expect(joint.variants[1]!.stages).toHaveLength(whole.variants[1]!.stages.length - 1);
    expect(joint.brief).toEqual(whole.brief);
    expect(joint.name).toBe('Repaired joint');
    for (const part of ['builds.0', 'difference', 'motor', 'z1', 'gone', 'name'])
      expect(leftOut.join('\n'), part).toContain(part);
  });

  it('of hundreds of spoiled joints always gives one that reads, or refuses in words', () => {
    const roll = dice(11);
    let repaired = 0;
    for (let i = 0; i < 200; i++) {
      const j = spoiled(roll, 1 + roll(8));
      const r = repairJoint(j, stamp);
      if (!r.ok) {
        expect(sayProblem(r.problem)).not.toMatch(/undefined|NaN|\[object/);
        continue;
      }
      repaired++;
      const again = readRecord(JSON.parse(writeJointFile(r.value.joint)));
      expect(again.ok).toBe(true);
      // What was whole needs no repair.
      if (readRecord(structuredClone(j)).ok) expect(r.value.leftOut).toEqual([]);
      else expect(r.value.leftOut.length).toBeGreaterThan(0);
    }
    expect(repaired).toBeGreaterThan(190);
  });

  it('refuses what is no joint, and what a newer Gristmill knows better', () => {
    for (const raw of [null, 7, 'x', [1]]) expect(repairJoint(raw, stamp).ok).toBe(false);
    expect(repairJoint({ ...JSON.parse(demoText), version: 99 }, stamp).ok).toBe(false);
    const empty = repairJoint({}, stamp);
    expect(empty.ok && empty.value.joint).toMatchObject({ id: 'new', variants: [{ id: 'a' }], tests: [] });
  });
});

describe('a merge', () => {
  it('takes from each what only it changed', () => {
    const base = {
      a: 1,
      b: { c: 1, d: 1 },
      list: [
        { id: 'x', v: 1 },
        { id: 'y', v: 1 },
      ],
    };
    const mine = {
      a: 2,
      b: { c: 1, d: 2 },
      list: [
        { id: 'x', v: 2 },
        { id: 'y', v: 1 },
        { id: 'm', v: 0 },
      ],
    };
    const theirs = {
      a: 1,
      b: { c: 3, d: 1 },
      list: [
        { id: 'y', v: 3 },
        { id: 'x', v: 1 },
        { id: 't', v: 0 },
      ],
    };
    expect(mergeThree<unknown>(base, mine, theirs)).toEqual({
      ok: true,
      value: {
        a: 2,
        b: { c: 3, d: 2 },
        list: [
          { id: 'y', v: 3 },
          { id: 'x', v: 2 },
          { id: 't', v: 0 },
          { id: 'm', v: 0 },
        ],
      },
    });
  });

  it('ends where both changed the same, and where one deleted what the other changed', () => {
    expect(mergeThree({ a: 1 }, { a: 2 }, { a: 3 })).toEqual({ ok: false, place: 'a' });
    expect(mergeThree<unknown>({ l: [{ id: 'x', v: 1 }] }, { l: [] }, { l: [{ id: 'x', v: 2 }] })).toEqual({
      ok: false,
      place: 'l.x',
    });
    expect(mergeThree<unknown>({ l: [1, 2] }, { l: [1, 2, 3] }, { l: [0, 1, 2] })).toEqual({ ok: false, place: 'l' });
    expect(mergeThree({ a: 1 }, { a: 2 }, { a: 3 }, () => 'mine')).toEqual({ ok: true, value: { a: 2 } });
    expect(mergeThree<unknown>({ l: [{ id: 'x' }] }, { l: [] }, { l: [{ id: 'x' }] })).toEqual({
      ok: true,
      value: { l: [] },
    });
  });

  it('of any three is the same from either side, and is a side that changed alone', () => {
    const tree = fc.letrec((tie) => ({
      node: fc.oneof(
        { depthSize: 'small' },
        fc.integer({ min: 0, max: 3 }),
        fc.dictionary(fc.constantFrom('a', 'b', 'c'), tie('node'), { maxKeys: 3 }),
      ),
    })).node;
    fc.assert(
      fc.property(tree, tree, tree, (base, mine, theirs) => {
        expect(mergeThree(base, mine, base)).toEqual({ ok: true, value: mine });
        expect(mergeThree(base, base, theirs)).toEqual({ ok: true, value: theirs });
        expect(mergeThree(base, mine, mine)).toEqual({ ok: true, value: mine });
        const [one, other] = [mergeThree(base, mine, theirs), mergeThree(base, theirs, mine)];
        expect(one.ok).toBe(other.ok);
        if (one.ok && other.ok) expect(same(one.value, other.value)).toBe(true);
      }),
      { numRuns: examples(400) },
    );
  });

  it('of a joint: other tests and other fields side by side; the later date; one’s own open variant', () => {
    const base = demo();
    const mine = {
      ...base,
      changed: '2026-11-27T10:00:00.000Z',
      activeVariant: 'b',
      notes: 'mine',
      tests: base.tests.map((t, i) => (i === 0 ? { ...t, notes: 'mine' } : t)),
    };
    const theirs = {
      ...base,
      changed: '2026-11-27T11:00:00.000Z',
      name: 'Theirs',
      tests: base.tests.map((t, i) => (i === 1 ? { ...t, notes: 'theirs' } : t)),
    };
    const merged = mergeThree(base, mine, theirs, settleJoint);
    if (!merged.ok) throw new Error(merged.place);
    expect(merged.value).toMatchObject({
      changed: '2026-11-27T11:00:00.000Z',
      activeVariant: 'b',
      notes: 'mine',
      name: 'Theirs',
    });
    expect(merged.value.tests.slice(0, 2).map((t) => t.notes)).toEqual(['mine', 'theirs']);
    expect(readRecord(merged.value).ok).toBe(true);
  });
});
