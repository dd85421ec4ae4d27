import { createJoint, readRecord, type BenchTest, type Joint } from '@gristmill/core';
import { describe, expect, it } from 'vitest';
import { asRecord, packed, prepare, readStored } from '../src/storage/packed.ts';

const joint = (tests: number): Joint => {
  const base = createJoint('Jib', { id: 'jib', now: '2026-11-27T00:00:00.000Z' });
  return {
    ...base,
    builds: [{ id: 'b', variantId: base.variants[0]!.id, name: 'A-1', date: '2026-11-27', process: '', notes: '' }],
    tests: Array.from({ length: tests }, (_, i) => ({
      id: `t${i}`,
      buildId: 'b',
      date: '2026-11-27',
      notes: `number ${i}, 5′`,
      kind: 'play-lever',
      rig: { lever: 0.18, leverError: 5e-4, push: 0, correctWindUp: 'no' },
      readings: [{ id: `r${i}`, text: '', values: { angle: 0, difference: 1e-4 * i } }],
    })) as unknown as BenchTest[],
  };
};
/** As storage gives it back. */
const stored = (j: Joint): unknown => structuredClone(packed(j));

describe('a joint in storage', () => {
  it('lies there as it is where it has few tests, and as text where it has many', () => {
    const few = joint(3);
    expect(packed(few)).toBe(few);
    expect(stored(joint(60))).toMatchObject({ packed: 1 });
  });

  it('is read as the reader would read it, few tests or many', async () => {
    for (const n of [0, 3, 39, 40, 500]) {
      const j = joint(n);
      await prepare(j);
      const read = await readStored(stored(j));
      expect(read.ok).toBe(true);
      expect(read).toEqual(readRecord(structuredClone(j)));
      expect(asRecord(stored(j))).toEqual(j);
    }
  });

  it('writes again only what has changed: a test that is the same object keeps its text', () => {
    const j = joint(50);
    const first = packed(j) as unknown as { tests: string[] };
    const changed = { ...j, tests: j.tests.map((t, i) => (i === 7 ? { ...t, notes: 'other' } : t)) };
    const second = packed(changed) as unknown as { tests: string[] };
    expect(second.tests.filter((t, i) => t !== first.tests[i])).toEqual([JSON.stringify(changed.tests[7])]);
  });

  it('is refused in the reader’s words, wherever it is damaged', async () => {
    const whole = stored(joint(50)) as { packed: 1; joint: string; tests: string[] };
    const damage = (change: (p: { joint: string; tests: string[] }) => void) => {
      const p = structuredClone(whole);
      change(p);
      return p;
    };
    for (const odd of [
      damage((p) => (p.joint = p.joint.slice(0, -5))),
      damage((p) => (p.joint = p.joint.replace('"format"', '"mark"'))),
      damage((p) => (p.tests[12] = p.tests[12]!.slice(3))),
      damage((p) => (p.tests[12] = p.tests[12]!.replace('2026-11-27', 'soon'))),
      damage((p) => (p.tests[12] = p.tests[12]!.replace('"b"', '"gone"'))),
      damage((p) => (p.tests[12] = p.tests[11]!)),
      damage((p) => (p.tests = [])).joint.slice(0, 3),
    ]) {
      const [read, same] = [await readStored(odd), readRecord(asRecord(odd))];
      expect(read.ok).toBe(false);
      expect(read).toEqual(same);
    }
  });

  it('of an earlier version is brought up whole', async () => {
    const old = stored(joint(50)) as { joint: string };
    old.joint = old.joint.replace(/"version":\d+/, '"version":4');
    const read = await readStored(old);
    expect(read).toEqual(readRecord(asRecord(old)));
  });
});
