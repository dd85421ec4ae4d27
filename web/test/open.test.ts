import { createJoint, readRecord, sizeLine, type Joint } from '@gristmill/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { editVariant, oneStep, setSizer, useOpen } from '../src/state/open.ts';
import { takeRefusal } from '../src/state/refusal.ts';
import { shelfNow } from '../src/state/shelf.ts';

const open = () => useOpen.getState();
const joint = () => open().joint!;

beforeEach(() => {
  vi.useFakeTimers();
  open().load(createJoint('Jib', { id: 'jib', now: '2026-11-23T10:00:00.000Z' }));
});

const withStages = (follows: boolean): Joint => {
  const j = createJoint('Jib', { id: 'jib', now: '2026-11-23T10:00:00.000Z' });
  const v = j.variants[0]!;
  v.stages = [
    { id: 's1', kind: 'belt', params: {} },
    { id: 's2', kind: 'belt', params: {} },
  ];
  v.stages = sizeLine(j, v, shelfNow());
  v.follows = follows;
  return j;
};

describe('the open joint', () => {
  it('is unsaved after a change, and a change that changes nothing is none', () => {
    open().edit('Notes', (d) => void (d.notes = 'x'));
    expect(open().save).toBe('unsaved');
    open().mark('saved');
    open().edit('Notes', (d) => void (d.notes = 'x'));
    expect(open().save).toBe('saved');
    expect(open().past).toHaveLength(1);
  });

  it('a drag is one step however slowly it goes, and two drags are two however quickly they follow', () => {
    const length = () => (joint().brief.cases[0] as { length: number }).length;
    const from = length();
    const drag = (to: number, pause: number) => {
      oneStep.begin();
      for (let k = 1; k <= 4; k++) {
        open().edit('Arm', (d) => void ((d.brief.cases[0] as { length: number }).length = from + (to * k) / 4));
        vi.advanceTimersByTime(pause);
      }
      oneStep.end();
    };
    drag(0.1, 3000);
    drag(0.2, 1);
    open().edit('Arm', (d) => void ((d.brief.cases[0] as { length: number }).length = from + 0.3));
    expect(open().past).toHaveLength(3);
    open().undo();
    expect(length()).toBeCloseTo(from + 0.2, 12);
    open().undo();
    expect(length()).toBeCloseTo(from + 0.1, 12);
    open().undo();
    expect(length()).toBe(from);
  });

  it('undoes and redoes any run of changes back to the letter', () => {
    const states = [JSON.stringify({ ...joint(), changed: '' })];
    for (let i = 0; i < 12; i++) {
      vi.advanceTimersByTime(2000);
      open().edit(`Change ${i}`, (d) => {
        if (i % 3 === 0) d.brief.limits.push({ id: 'turnBack', sense: 'max', value: i, need: 'wish' });
        else if (i % 3 === 1) (d.brief.cases[0] as { load: number }).load += 0.1;
        else d.variants[0]!.stages.push({ ...structuredClone(withStages(false).variants[0]!.stages[0]!), id: `s${i}` });
      });
      states.push(JSON.stringify({ ...joint(), changed: '' }));
    }
    for (let i = 11; i >= 0; i--) {
      expect(open().undo()).toBe(`Change ${i}`);
      expect(JSON.stringify({ ...joint(), changed: '' })).toBe(states[i]);
    }
    expect(open().undo()).toBeUndefined();
    for (let i = 1; i <= 12; i++) {
      open().redo();
      expect(JSON.stringify({ ...joint(), changed: '' })).toBe(states[i]);
    }
  });

  it('joins a drag into one step, and a later change of the same name is another', () => {
    for (let i = 1; i <= 30; i++) {
      vi.advanceTimersByTime(16);
      open().edit('Arm length', (d) => void (d.brief.cases[0]!.length = 0.2 + i / 1000));
    }
    expect(open().past).toHaveLength(1);
    vi.advanceTimersByTime(5000);
    open().edit('Arm length', (d) => void (d.brief.cases[0]!.length = 0.5));
    expect(open().past).toHaveLength(2);
    open().undo();
    expect(joint().brief.cases[0]!.length).toBeCloseTo(0.23, 12);
    open().undo();
    expect(joint().brief.cases[0]!.length).toBe(0.25);
  });

  it('cannot be changed while another tab holds it', () => {
    open().setReadOnly(true);
    open().edit('Notes', (d) => void (d.notes = 'x'));
    expect(joint().notes).toBe('');
    expect(open().undo()).toBeUndefined();
  });

  it('a change that could not be opened again is not made, and the field that asked has the reason', () => {
    const before = joint();
    const refused = open().edit(
      'Angle',
      (d) => void d.brief.limits.push({ id: 'play', sense: 'max', value: Infinity, need: 'wish' }),
    );
    expect(refused!.what).toMatch(/not a finite number/);
    expect(takeRefusal()).toBe(refused);
    expect(takeRefusal()).toBeUndefined();
    expect(joint()).toBe(before);
    expect([open().save, open().past.length]).toEqual(['saved', 0]);
    for (const [what, recipe, why] of [
      ['a name of spaces', (d) => void (d.name = '  '), /name must not be empty/],
      ['no variant', (d) => void (d.variants = []), /at least one variant/],
      [
        'an impossible stage',
        (d) => void d.variants[0]!.stages.push({ id: 's', kind: 'belt', params: { z1: 3 } }),
        /z1|section/,
      ],
      [
        'a test of no build',
        (d) =>
          void d.tests.push({
            id: 't',
            buildId: 'none',
            kind: 'play-lever',
            date: '2026-11-27',
            notes: '',
            rig: { lever: 0.2, leverError: 0, instrument: 'dial', push: 0, correctWindUp: 'no' },
            readings: [],
          }),
        /build that is not/,
      ],
    ] as [string, Parameters<ReturnType<typeof open>['edit']>[1], RegExp][]) {
      const problem = open().edit('Bad', recipe)!;
      expect(`${problem.what} ${problem.why}`, what).toMatch(why);
    }
    expect(joint()).toBe(before);
  });

  it('an angle beyond all measure typed into a play reading is refused where the reader would refuse it', () => {
    open().edit('Build', (d) => {
      d.builds.push({ id: 'b', variantId: 'a', name: 'A-1', date: '2026-11-27', process: '', notes: '' });
      d.tests.push({
        id: 't',
        buildId: 'b',
        kind: 'play-lever',
        date: '2026-11-27',
        notes: '',
        rig: { lever: 0.2, leverError: 0, instrument: 'dial', push: 0, correctWindUp: 'no' },
        readings: [],
      });
    });
    const add = (degrees: number) =>
      open().edit(
        'Add reading',
        (d) =>
          void d.tests[0]!.readings.push({
            id: `r${degrees}`,
            text: `${degrees}°`,
            values: { angle: (degrees * Math.PI) / 180, difference: 1e-4 },
          }),
      );
    expect(add(1e33)!.what).toMatch(/angle must be/);
    expect(add(50_000)).toBeUndefined();
    expect(readRecord(JSON.parse(JSON.stringify(joint()))).ok).toBe(true);
  });

  it('re-sizes stages that follow the brief, away from the edit and in the same step, and leaves held ones alone', async () => {
    let asked = 0;
    setSizer(async (now, list) => {
      asked++;
      return list.map((v) => sizeLine(now, v, shelfNow()));
    });
    const stages = () => JSON.stringify(joint().variants[0]!.stages);
    for (const follows of [true, false]) {
      open().load(withStages(follows));
      const before = stages();
      open().edit('Load', (d) => void (d.brief.cases[0]!.load = 1.4));
      expect(stages()).toBe(before);
      expect(open().sizing).toBe(follows);
      await vi.runAllTimersAsync();
      expect(open().sizing).toBe(false);
      expect(stages() !== before).toBe(follows);
      expect(open().past).toHaveLength(1);
      open().undo();
      expect(stages()).toBe(before);
      open().redo();
      expect(stages() !== before).toBe(follows);
    }
    open().load(withStages(true));
    asked = 0;
    open().edit('Notes', (d) => void (d.notes = 'nothing to size'));
    await vi.runAllTimersAsync();
    expect(asked).toBe(0);
  });

  it('drops sizes that came too late: the brief moved on, was undone, or the stages were changed by hand', async () => {
    const answers: (() => void)[] = [];
    setSizer(
      (now, list) => new Promise((done) => answers.push(() => done(list.map((v) => sizeLine(now, v, shelfNow()))))),
    );
    const stages = () => JSON.stringify(joint().variants[0]!.stages);
    open().load(withStages(true));
    const before = stages();
    open().edit('Load', (d) => void (d.brief.cases[0]!.load = 1.4));
    open().edit('Arm', (d) => void ((d.brief.cases[0] as { length: number }).length *= 1.5));
    answers[0]!();
    await vi.runAllTimersAsync();
    expect(stages()).toBe(before);
    expect(open().sizing).toBe(true);
    answers[1]!();
    await vi.runAllTimersAsync();
    expect(stages()).not.toBe(before);
    expect(stages()).toBe(JSON.stringify(sizeLine(joint(), joint().variants[0]!, shelfNow())));
    open().undo();
    open().undo();
    expect(stages()).toBe(before);
    open().edit('Load', (d) => void (d.brief.cases[0]!.load = 2));
    open().undo();
    answers[2]!();
    await vi.runAllTimersAsync();
    expect(stages()).toBe(before);
    // A worker that breaks leaves everything as it stands.
    setSizer(() => Promise.reject(new Error('ended')));
    open().edit('Load', (d) => void (d.brief.cases[0]!.load = 2));
    await vi.runAllTimersAsync();
    expect([stages(), open().sizing]).toEqual([before, false]);
  });

  it('sizes what an earlier change asked for too, when a later one comes before the sizes do', async () => {
    const both = withStages(true);
    both.variants.push({ ...structuredClone(both.variants[0]!), id: 'b', name: 'B' });
    open().load(both);
    const lists: string[][] = [];
    const answers: (() => void)[] = [];
    setSizer((now, list) => {
      lists.push(list.map((v) => v.id));
      return new Promise((done) => answers.push(() => done(list.map((v) => sizeLine(now, v, shelfNow())))));
    });
    const first = both.variants[0]!.id;
    const before = joint().variants.map((v) => JSON.stringify(v.stages));
    open().edit('Load', (d) => void (d.brief.cases[0]!.load = 1.4));
    open().edit('Supply', (d) => void (d.variants[0]!.driver.supplyVoltage += 6));
    expect(lists).toEqual([
      [first, 'b'],
      [first, 'b'],
    ]);
    answers.forEach((answer) => answer());
    await vi.runAllTimersAsync();
    joint().variants.forEach((v, i) => expect(JSON.stringify(v.stages), v.id).not.toBe(before[i]));
    expect(open().sizing).toBe(false);
  });

  it('changes the open variant only', () => {
    open().edit(
      'Second',
      (d) =>
        void d.variants.push({
          ...(JSON.parse(JSON.stringify(d.variants[0])) as (typeof d.variants)[0]),
          id: 'b',
          name: 'B',
        }),
    );
    open().edit('Open', (d) => void (d.activeVariant = 'b'));
    editVariant('Name', (v) => void (v.name = 'Bee'));
    expect(joint().variants.map((v) => v.name)).toEqual(['A', 'Bee']);
  });
});
