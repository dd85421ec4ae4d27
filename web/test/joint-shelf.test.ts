import { createJoint, type Joint } from '@gristmill/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { JointShelf } from '../src/storage/joints.ts';
import { memoryStore, type Store } from '../src/storage/store.ts';
import { storageProblem } from '../src/storage/trouble.ts';

let pointers: Store;
let records: Store;
let shelf: JointShelf;
let joint: Joint;

beforeEach(() => {
  pointers = memoryStore();
  records = memoryStore();
  shelf = new JointShelf(pointers, records);
  joint = createJoint('Jib', { id: 'jib', now: '2026-11-23T10:00:00.000Z' });
});

const opened = async () => {
  const r = await shelf.open('jib');
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

describe('joints in storage', () => {
  it('come back as they were saved', async () => {
    expect(await shelf.save(joint, null, 'New')).toMatchObject({ state: 'saved' });
    expect((await opened()).joint).toEqual(joint);
    expect((await shelf.list()).map((p) => p.name)).toEqual(['Jib']);
  });

  it('survive being cut off at any write: the old save or the new one, whole', async () => {
    await shelf.save(joint, null, 'New');
    const { rev } = await opened();
    for (const broken of [pointers, records]) {
      const set = broken.set;
      broken.set = () => Promise.reject(new Error('cut off'));
      await expect(shelf.save({ ...joint, name: 'Changed' }, rev, 'Change')).rejects.toThrow('cut off');
      broken.set = set;
      expect((await opened()).joint.name).toBe('Jib');
    }
    await shelf.save({ ...joint, name: 'Changed' }, rev, 'Change');
    expect((await opened()).joint.name).toBe('Changed');
  });

  it('never overwrite a save they do not build on', async () => {
    await shelf.save(joint, null, 'New');
    const { rev } = await opened();
    await shelf.save({ ...joint, notes: 'theirs' }, rev, 'Theirs');
    expect(await shelf.save({ ...joint, notes: 'mine' }, rev, 'Mine')).toMatchObject({ state: 'conflict' });
    expect(await shelf.save({ ...joint, notes: 'mine' }, null, 'Mine')).toMatchObject({ state: 'conflict' });
    expect((await opened()).joint.notes).toBe('theirs');
  });

  it('keep the last twenty saves and let go of older ones', async () => {
    let rev: string | null = null;
    for (let i = 0; i < 27; i++) {
      const out = await shelf.save({ ...joint, notes: `${i}` }, rev, `Change ${i}`, new Date(1.7e12 + i * 1000));
      if (out.state === 'saved') rev = out.rev;
    }
    const pointer = (await shelf.pointer('jib'))!;
    expect(pointer.saves).toHaveLength(20);
    expect(pointer.saves[0]!.label).toBe('Change 26');
    expect(await records.keys()).toHaveLength(20);
    const oldest = await shelf.record('jib', pointer.saves[19]!.rev);
    expect(oldest.ok && oldest.value.notes).toBe('7');
  });

  it('fall back to the newest save that can be read', async () => {
    await shelf.save({ ...joint, notes: 'good' }, null, 'New');
    const { rev } = await opened();
    await shelf.save({ ...joint, notes: 'later' }, rev, 'Later');
    const bad = (await shelf.pointer('jib'))!.rev;
    await records.set(`jib/${bad}`, { format: 'gristmill-joint', version: 2 });
    const back = await opened();
    expect(back.fellBack).toBe(true);
    expect(back.joint.notes).toBe('good');
    await records.remove(`jib/${rev}`);
    const none = await shelf.open('jib');
    expect(none.ok).toBe(false);
    expect((await shelf.open('nobody')).ok).toBe(false);
  });

  it('are put back after deleting, and swept for good otherwise', async () => {
    await shelf.save(joint, null, 'New');
    const pointer = (await shelf.remove('jib'))!;
    expect((await shelf.list()).length).toBe(0);
    await shelf.restore(pointer);
    expect((await opened()).joint.name).toBe('Jib');
    await shelf.remove('jib');
    await shelf.sweep();
    expect(await records.keys()).toEqual([]);
    expect(await shelf.remove('jib')).toBeNull();
  });

  it('trouble is told apart in words', () => {
    expect(storageProblem(new DOMException('x', 'QuotaExceededError')).what).toMatch(/full/);
    expect(storageProblem(new DOMException('insecure', 'SecurityError')).what).toMatch(/does not let/);
    expect(storageProblem('odd').mend).toMatch(/Export/);
  });
});
