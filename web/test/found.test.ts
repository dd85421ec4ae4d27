import { describe, expect, it } from 'vitest';
import { FoundSets, type KeptFound } from '../src/storage/found.ts';
import { MemoryVault } from '../src/storage/vault.ts';
import { contentId, ordered } from '../src/workers/content.ts';

const found = (lines: number): KeptFound => ({
  asked: [{ cases: [] }, undefined, null],
  when: '2026-11-29T01:00:00.000Z',
  first: false,
  result: {
    lines: Array.from({ length: lines }, (_, i) => ({
      id: `l${i}`,
      motor: { id: 'm', name: 'M' },
      driver: {},
      stages: [{ id: 's1', kind: 'belt', params: {} }],
      verdicts: [],
      ratio: 3,
      aims: { money: 10, mass: 1, play: 0, stiffness: 1, size: 1, efficiency: 1 },
      chance: { all: 0.9 },
    })),
    whyNot: [{ kind: 'worm', limit: undefined, value: 0, asked: 1, line: undefined }],
    screened: 4,
    looked: 9,
  } as unknown as KeptFound['result'],
});

describe('what was found for a joint', () => {
  it('comes back as it was kept, and goes with the joint', async () => {
    const sets = new FoundSets(new MemoryVault());
    await sets.keep('a', found(2));
    await sets.keep('b', found(1));
    expect(await sets.read('a')).toMatchObject({ ...found(2), asked: [{ cases: [] }, undefined, null] });
    await sets.sweep(new Set(['b']));
    expect(await sets.read('a')).toBeUndefined();
    expect((await sets.read('b'))!.result.lines).toHaveLength(1);
  });

  it('counts as not there where it was spoiled or comes from another version', async () => {
    const vault = new MemoryVault();
    const sets = new FoundSets(vault);
    const put = (value: unknown) => vault.write(['found'], (at) => at.set('found', 'a', value));
    const whole = { version: 1, ...found(1) };
    await put(whole);
    expect(await sets.read('a')).toBeDefined();
    for (const spoiled of [
      null,
      'text',
      { ...whole, version: 0 },
      { ...whole, when: 'yesterday' },
      { ...whole, result: { ...whole.result, lines: [{}] } },
      { ...whole, result: { ...whole.result, lines: [{ ...whole.result.lines[0], aims: { money: 'much' } }] } },
      { ...whole, result: undefined },
    ]) {
      await put(spoiled);
      expect(await sets.read('a'), JSON.stringify(spoiled)).toBeUndefined();
    }
    expect(await sets.read('nobody')).toBeUndefined();
  });

  it('still stands for the same content in another order of keys', () => {
    const a = { brief: { cases: [{ load: 1, id: 'x' }], limits: [] }, factors: undefined };
    const b = { brief: { limits: [], cases: [{ id: 'x', load: 1 }] } };
    expect(contentId(ordered(a))).toBe(contentId(ordered(b)));
    expect(contentId(ordered({ list: [1, 2] }))).not.toBe(contentId(ordered({ list: [2, 1] })));
    expect(ordered(a)).toBe(ordered(a));
  });
});
