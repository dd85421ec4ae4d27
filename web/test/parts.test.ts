import {
  TEST_KINDS,
  armLoads,
  armPattern,
  blankCase,
  createJoint,
  designOf,
  findingsOf,
  foundFor,
  makeShelf,
  readJointFile,
  settleAll,
  type Verdict,
  standings,
  workingOf,
} from '@gristmill/core';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { sayKey, spellKey } from '../src/app/actions.ts';
import { copyOf } from '../src/app/joints.ts';
import { scaleRange } from '../src/parts/Scale.tsx';
import { foundSource, overall, settledNote, verdictWord } from '../src/parts/words.ts';
import { newTest } from '../src/state/bench.ts';

const read = readJointFile(readFileSync(new URL('../../demo/body-yaw.json', import.meta.url), 'utf8'));
if (!read.ok) throw new Error(read.problem.what);
const joint = read.value;

describe('the scale', () => {
  it('shows everything given, with room at either side, and starts at nought for what cannot be negative', () => {
    const [a, b] = scaleRange([
      { asked: { value: 5, sense: 'min' }, expected: { value: 7, low: 6, high: 9 }, found: { value: 8, U: 3 } },
    ]);
    expect(a).toBeLessThan(5);
    expect(a).toBeGreaterThanOrEqual(0);
    expect(b).toBeGreaterThan(11);
    expect(scaleRange([{ expected: { value: 0.01, low: 0, high: 0.02 } }])[0]).toBe(0);
    // An end that is none leaves the rest its room.
    expect(
      scaleRange([{ asked: { value: 4, sense: 'min' }, expected: { value: 10, low: 1, high: 1e5 } }])[1],
    ).toBeLessThan(20);
    expect(
      scaleRange([{ asked: { value: -5, sense: 'max' }, expected: { value: -7, low: -9, high: -6 } }])[0],
    ).toBeLessThan(-9);
  });

  it('has a width even for one value, for none, and for values that are not numbers', () => {
    for (const items of [
      [{ asked: { value: 3, sense: 'min' as const } }],
      [],
      [{ expected: { value: NaN, low: NaN, high: NaN } }],
      [{ expected: { value: 0, low: 0, high: 0 } }],
    ]) {
      const [a, b] = scaleRange(items);
      expect(b).toBeGreaterThan(a);
    }
  });
});

describe('words of a verdict', () => {
  const v = (state: Verdict['state'], need: 'must' | 'wish' = 'must', sense: 'min' | 'max' = 'max'): Verdict => ({
    id: 'mass',
    asked: 1,
    sense,
    need,
    figure: undefined,
    state,
  });

  it('tell pass, near and fail by shape and word', () => {
    const words = [
      verdictWord(v('holds')),
      verdictWord(v('near')),
      verdictWord(v('fails')),
      verdictWord(v('fails', 'must', 'min')),
      verdictWord(v('unknown')),
    ];
    expect(words.map((w) => w.text)).toEqual(['met', 'near', 'over', 'short', 'not known']);
    expect(new Set(words.map((w) => w.mark)).size).toBe(4);
  });

  it('sum up a joint by its worst must, then its worst wish', () => {
    expect(overall([v('fails'), v('fails', 'wish')], false).text).toBe('1 must missed');
    expect(overall([v('holds'), v('fails', 'wish'), v('fails', 'wish')], false).text).toBe('2 wishes missed');
    expect(overall([v('holds'), v('near')], false).text).toBe('1 near');
    expect(overall([v('holds')], false).text).toBe('met');
    expect(overall([v('unknown')], false).text).toBe('nothing to compare');
    expect(overall([v('holds')], true).text).toBe('cannot be built so');
    expect(overall([v('holds'), v('fails', 'wish')], false, 1).text).toBe('1 check fails');
    expect(overall([v('fails')], false, 2).text).toBe('1 must missed');
  });
});

describe('the found figure of a variant', () => {
  const findings = findingsOf(joint, makeShelf());
  const found = standings(findings, joint.tests);

  it('is its newest build’s that was measured', () => {
    const [a, b] = joint.variants;
    expect(foundFor(joint.builds, found, a!, 'play')).toMatchObject({
      finding: { testId: 'test-play' },
      earlier: false,
    });
    expect(foundFor(joint.builds, found, b!, 'play')).toBeUndefined();
    const more = { ...joint, builds: [...joint.builds, { ...joint.builds[0]!, id: 'build-a2', name: 'A-2' }] };
    expect(foundFor(more.builds, found, a!, 'play')?.finding.buildId).toBe('build-a1');
  });

  it('decides nothing once the variant is another than was built', () => {
    const a = joint.variants[0]!;
    const builds = joint.builds.map((x) => ({ ...x, design: designOf(a) }));
    expect(foundFor(builds, found, a, 'play')?.earlier).toBe(false);
    expect(foundFor(builds, found, { ...a, name: 'Renamed', notes: 'x' }, 'play')?.earlier).toBe(false);
    const other = { ...a, stages: a.stages.slice(0, 1) };
    expect(foundFor(builds, found, other, 'play')?.earlier).toBe(true);
    const [play] = settleAll(
      builds,
      [{ id: 'play', asked: 1e-9, sense: 'max', need: 'must', state: 'holds' }] as never,
      found,
      other,
    );
    expect(play).toMatchObject({ state: 'holds', by: 'expected', earlier: true });
    expect(settledNote(play!)).toBe('found of a build of an earlier design');
  });

  it('names its formula and source', () => {
    expect(foundSource(findings.find((f) => f.testId === 'test-play')!).formula).toContain('2·asin(d/2L)');
    expect(foundSource(findings.find((f) => f.testId === 'test-torque')!).formula).toContain('cos φ');
  });
});

describe('keys', () => {
  const press = (key: string, mods: Partial<Record<'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey', boolean>> = {}) =>
    spellKey({ key, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...mods } as KeyboardEvent);

  it('are spelled as actions name them', () => {
    expect(press('z', { ctrlKey: true })).toBe('ctrl+z');
    expect(press('Z', { metaKey: true, shiftKey: true })).toBe('ctrl+shift+z');
    expect(press(' ')).toBe('space');
    expect(press('?', { shiftKey: true })).toBe('?');
    expect(press('x', { altKey: true })).toBe('alt+x');
    expect(sayKey('ctrl+shift+z')).toBe('Ctrl Shift z');
  });
});

describe('figures of a load case', () => {
  it('are those of the core, each with a working whose terms are finite', () => {
    const c = blankCase('c');
    const loads = armLoads(c, 9.80665);
    const figures = armPattern.figures(c, 9.80665);
    expect(figures.find((f) => f.id === 'case-peak')!.value).toBe(loads.peak);
    expect(figures.find((f) => f.id === 'case-rms')!.value).toBe(loads.rms);
    for (const f of figures)
      expect(
        workingOf(f)!.terms.every((t) => Number.isFinite(t.value)),
        f.id,
      ).toBe(true);
  });
});

describe('copies and new tests', () => {
  it('a copy is another joint with the same inside, and shares nothing', () => {
    const copy = copyOf(joint, 'Twin');
    expect(copy.id).not.toBe(joint.id);
    expect(copy.variants).toEqual(joint.variants);
    copy.variants[0]!.name = 'changed';
    expect(joint.variants[0]!.name).toBe('A');
  });

  it('a new test belongs to its build and can be filed', () => {
    for (const { id: kind } of TEST_KINDS) {
      const j = createJoint('x', { id: 'x', now: '2026-11-23T00:00:00.000Z' });
      j.builds.push({ id: 'b', variantId: 'a', name: 'A-1', date: '2026-11-23', process: '', notes: '' });
      j.tests.push(newTest(kind, 'b', makeShelf()));
      const back = readJointFile(JSON.stringify(j));
      expect(back.ok && back.value.tests[0]!.kind).toBe(kind);
    }
  });
});

describe('what is said beside a verdict that a measurement decides', () => {
  const base = { sense: 'max', state: 'fails', by: 'found', expectedState: 'holds' } as const;
  it('tells where it contradicts what was expected, and where a bound leaves it open', () => {
    expect(settledNote({ ...base, against: 'above' } as never)).toBe(
      'found above what was expected; was expected to be met',
    );
    expect(settledNote({ ...base, expectedState: 'fails' } as never)).toBe('');
    expect(settledNote({ ...base, state: 'holds', by: 'expected', open: true } as never)).toBe(
      'the test stopped before it could tell',
    );
  });
});
