import { findingsOf as analysed, makeShelf, type Finding, type Joint } from '@gristmill/core';
import { describe, expect, it } from 'vitest';
import { inBatches } from '../src/workers/batches.ts';
import { contentId } from '../src/workers/content.ts';
import { findingsOf } from '../src/workers/findings.ts';
import { Kept } from '../src/workers/kept.ts';
import { demo } from './helpers.ts';

describe('contents', () => {
  it('have one number whoever holds them, and their text is made once', () => {
    let made = 0;
    const told = { toJSON: () => (made++, { a: 1 }) };
    expect(contentId(told)).toBe(contentId({ a: 1 }));
    expect(contentId(told)).toBe(contentId(told));
    expect(made).toBe(1);
    expect(contentId({ a: 2 })).not.toBe(contentId({ a: 1 }));
    expect(contentId(undefined)).toBe(0);
  });
});

describe('what is kept', () => {
  it('goes by weight, what was asked for longest ago first', () => {
    const kept = new Kept<number>(10);
    kept.set('a', 1, 4);
    kept.set('b', 2, 4);
    expect(kept.get('a')).toBe(1);
    kept.set('c', 3, 4);
    expect([kept.get('a'), kept.get('b'), kept.get('c')]).toEqual([1, undefined, 3]);
    kept.set('a', 5, 1);
    kept.set('d', 4, 4);
    expect([kept.get('a'), kept.get('c'), kept.get('d'), kept.size]).toEqual([5, 3, 4, 3]);
    // One that is too heavy alone is kept while it is the last.
    kept.set('e', 6, 99);
    expect([kept.get('e'), kept.size]).toEqual([6, 1]);
  });
});

describe('results', () => {
  it('come at once where they come alone, and together where they come within a frame', () => {
    let now = 0;
    const timers: { run: () => void; at: number }[] = [];
    const batch = inBatches(
      () => now,
      (run, ms) => timers.push({ run, at: now + ms }),
    );
    const seen: string[] = [];
    const pass = (to: number) => {
      now = to;
      timers.splice(0).forEach((t) => (t.at <= now ? t.run() : timers.push(t)));
    };
    batch(() => seen.push('a'));
    pass(0);
    expect(seen).toEqual(['a']);
    for (const x of ['b', 'c', 'd']) batch(() => seen.push(x));
    expect(timers).toHaveLength(1);
    pass(10);
    expect(seen).toEqual(['a']);
    pass(16);
    expect(seen).toEqual(['a', 'b', 'c', 'd']);
  });
});

describe('findings of a joint', () => {
  const shelf = makeShelf();
  const ask = (asked: string[]) => async (part: Joint) => {
    asked.push(...part.tests.map((t) => t.id));
    const all = analysed(part, shelf);
    return part.tests.map((t) => all.filter((f: Finding) => f.testId === t.id));
  };
  it('are asked for once: a reading typed asks for its test alone, a parameter for the tests of its variant', async () => {
    const joint = demo('neck-lift');
    const first: string[] = [];
    const all = await findingsOf(joint, {}, ask(first));
    expect(first).toEqual(joint.tests.map((t) => t.id));
    expect(all).toEqual(analysed(joint, shelf));
    const again: string[] = [];
    expect(await findingsOf({ ...joint, notes: 'x' }, {}, ask(again))).toEqual(all);
    expect(again).toEqual([]);
    const typed: Joint = {
      ...joint,
      tests: joint.tests.map((t, i) => (i === 1 ? { ...t, notes: 'typed' } : t)),
    };
    await findingsOf(typed, {}, ask(again));
    expect(again).toEqual([joint.tests[1]!.id]);
    const edited: Joint = {
      ...joint,
      variants: joint.variants.map((v, i) => (i === 0 ? { ...v, stages: structuredClone(v.stages) } : v)),
    };
    again.length = 0;
    await findingsOf(edited, {}, ask(again));
    const own = joint.builds.filter((b) => b.variantId === joint.variants[0]!.id).map((b) => b.id);
    expect(again).toEqual(joint.tests.filter((t) => own.includes(t.buildId)).map((t) => t.id));
  });
});
