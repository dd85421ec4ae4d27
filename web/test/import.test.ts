import { createJoint, writeJointFile, type Joint } from '@gristmill/core';
import { describe, expect, it, vi } from 'vitest';

// The browser's storage is not here: a map stands in for it.
vi.mock('../src/storage/store.ts', async (original) => {
  const real = await original<typeof import('../src/storage/store.ts')>();
  return { ...real, forageStore: real.memoryStore };
});
const { importJoint } = await import('../src/app/joints.ts');
const { fileName } = await import('../src/app/download.ts');
const { jointShelf, loadShop, saveShop } = await import('../src/storage/shelf.ts');
const { copyVariant } = await import('../src/state/variants.ts');
const { useOpen } = await import('../src/state/open.ts');

const joint = (name: string, id: string): Joint => createJoint(name, { id, now: '2026-11-23T10:00:00.000Z' });
const file = (text: string, name = 'jib.gristmill.json') => new File([text], name);

describe('a chosen file', () => {
  it('comes onto the shelf as it was', async () => {
    const r = await importJoint(file(writeJointFile(joint('Jib', 'jib'))));
    expect(r).toMatchObject({ ok: true, value: { id: 'jib', name: 'Jib' } });
    const back = await jointShelf.open('jib');
    expect(back.ok && back.value.joint).toEqual(joint('Jib', 'jib'));
  });

  it('that is there already comes in as a copy, and what was there stays', async () => {
    const changed = { ...joint('Jib', 'jib'), notes: 'changed elsewhere' };
    const r = await importJoint(file(writeJointFile(changed)));
    if (!r.ok) throw new Error(r.problem.what);
    expect(r.value.id).not.toBe('jib');
    expect(r.value.name).toBe('Jib (imported)');
    expect(r.value.notes).toBe('changed elsewhere');
    const stays = await jointShelf.open('jib');
    expect(stays.ok && stays.value.joint.notes).toBe('');
    expect((await jointShelf.list()).length).toBe(2);
  });

  it('that is damaged, of another sort, too large or not to be had is refused in words, and nothing is stored', async () => {
    const before = (await jointShelf.list()).length;
    const whole = writeJointFile(joint('Boom', 'boom'));
    for (const bad of [file(''), file('{'), file('[]'), file('{"format":"something else"}'), file(whole.slice(0, whole.length / 2)), file('\u0000\u0001\u0002')]) {
      const r = await importJoint(bad);
      expect(r.ok).toBe(false);
      if (!r.ok) for (const part of [r.problem.what, r.problem.why, r.problem.mend]) expect(part.length).toBeGreaterThan(5);
    }
    const huge = Object.defineProperty(file('x'), 'size', { value: 5e9 });
    expect(await importJoint(huge)).toMatchObject({ ok: false, problem: { what: expect.stringContaining('too large (5000 MB)') } });
    const gone = Object.assign(file('x'), { text: () => Promise.reject(new Error('gone')) });
    expect(await importJoint(gone)).toMatchObject({ ok: false, problem: { what: expect.stringContaining('cannot be read') } });
    expect((await jointShelf.list()).length).toBe(before);
  });

  it('is named so that any file system takes it', () => {
    expect(fileName('Wing root', 'B', 'stage1', 'ring')).toBe('Wing-root_B_stage1_ring');
    expect(fileName('Кран: 2/3 "neu"', '..', '')).toBe('Кран-2-3-neu');
    expect(fileName('???')).toBe('joint');
    expect(fileName('x'.repeat(300)).length).toBe(60);
  });
});

describe('the shop in storage', () => {
  it('comes back as it was kept, instruments and their channels with it', async () => {
    const edits = { factors: { 'gravity': { value: 9.81, low: 9.78, high: 9.84 } }, instruments: [{ id: 'magnetic', name: 'Magnetic sensor', measures: 'angle' as const, resolution: 4e-4, error: 1e-3, source: 'mine', channels: { out: { scale: -1e-3, zero: 812 } } }] };
    await saveShop(edits);
    expect(await loadShop()).toEqual(edits);
  });

  it('damaged, it is as shipped', async () => {
    await saveShop({ instruments: [{ id: 'x' }] } as never);
    expect(await loadShop()).toEqual({});
  });
});

describe('a copy of a variant', () => {
  it('takes the next free letter, is opened, and shares nothing with what it was copied from', () => {
    useOpen.getState().load(joint('Jib', 'jib'));
    const edit = (change = {}) => useOpen.getState().edit('Copy', (d) => copyVariant(d, change));
    edit();
    edit({ why: 'stiffer' } as never);
    const now = useOpen.getState().joint!;
    expect(now.variants.map((v) => v.name)).toEqual(['A', 'B', 'C']);
    expect(now.activeVariant).toBe(now.variants[2]!.id);
    expect(new Set(now.variants.map((v) => v.id)).size).toBe(3);
    expect(now.variants[1]!.stages).toEqual(now.variants[0]!.stages);
    expect(now.variants[1]!.motor).not.toBe(now.variants[0]!.motor);
    // A letter that has become free is taken again.
    useOpen.getState().edit('Delete', (d) => void (d.variants = d.variants.filter((v) => v.name !== 'B')));
    edit();
    expect(useOpen.getState().joint!.variants.map((v) => v.name)).toEqual(['A', 'C', 'B']);
  });
});
