import { READER, type Joint } from '@gristmill/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { Left } from '../src/storage/left.ts';
import { BIN_MINUTES, JointShelf, KEPT, type Pointer } from '../src/storage/joints.ts';
import { MemoryVault } from '../src/storage/vault.ts';
import { storageProblem } from '../src/storage/trouble.ts';
import { NotLoaded } from '../src/workers/pool.ts';
import { jib, keeper } from './helpers.ts';

let vault: MemoryVault;
let shelf: JointShelf;
let kept: ReturnType<typeof keeper>;
const joint = jib();

beforeEach(() => {
  vault = new MemoryVault();
  kept = keeper();
  shelf = new JointShelf(vault, undefined, undefined, new Left(kept));
});

const opened = async (id = 'jib') => {
  const r = await shelf.open(id);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const save = async (j: Joint, label = 'Change') => {
  const before = await shelf.pointer(j.id);
  const out = await shelf.save(j, before?.rev ?? null, label);
  if (out.state !== 'saved') throw new Error(out.state);
  return out.rev;
};
/** Puts a record in place of a save, as a fault of an earlier version would. */
const spoil = (rev: string, raw: unknown, id = 'jib') => vault.tables.get('history')!.set(`${id}/${rev}`, raw);
const records = () => [...vault.tables.get('history')!.keys()];

describe('joints in storage', () => {
  it('come back as they were saved', async () => {
    expect(await shelf.save(joint, null, 'New')).toMatchObject({ state: 'saved' });
    expect((await opened()).joint).toEqual(joint);
    expect((await shelf.list()).map((p) => p.name)).toEqual(['Jib']);
  });

  it('survive being cut off anywhere: the old save or the new one, whole', async () => {
    const rev = await save(joint, 'New');
    const write = vault.write.bind(vault);
    // The transaction is cut after its first, second, … write.
    for (let after = 0; after < 2; after++) {
      vault.write = (stores, work) =>
        write(stores, (at) => {
          let n = 0;
          return work({
            ...at,
            set: async (...args) => (n++ === after ? Promise.reject(new Error('cut off')) : at.set(...args)),
          });
        });
      await expect(shelf.save({ ...joint, name: 'Changed' }, rev, 'Change')).rejects.toThrow('cut off');
      vault.write = write;
      expect((await opened()).joint.name).toBe('Jib');
      expect(records()).toHaveLength(1);
    }
    await save({ ...joint, name: 'Changed' });
    expect((await opened()).joint.name).toBe('Changed');
  });

  it('are never stored in a way that could not be opened: the save is refused with the reason, and nothing moves', async () => {
    const rev = await save(joint, 'New');
    const bad: [string, Joint][] = [
      [
        'a number beyond all',
        { ...joint, brief: { ...joint.brief, cases: [{ ...joint.brief.cases[0]!, load: Infinity }] } } as Joint,
      ],
      [
        'too many variants',
        { ...joint, variants: Array.from({ length: 51 }, (_, i) => ({ ...joint.variants[0]!, id: `v${i}` })) },
      ],
      ['a name of spaces', { ...joint, name: '   ' }],
      ['a date of another sort', { ...joint, changed: '27.11.2026' }],
      ['an unknown field without end', { ...joint, own: JSON.parse(`${'['.repeat(200)}${']'.repeat(200)}`) } as Joint],
    ];
    for (const [what, j] of bad) {
      const out = await shelf.save(j, rev, 'Bad');
      expect(out.state, what).toBe('refused');
      if (out.state === 'refused')
        expect(`${out.problem.what} ${out.problem.why} ${out.problem.mend}`, what).not.toMatch(
          /undefined|NaN|Infinity/,
        );
    }
    expect(records()).toHaveLength(1);
    expect((await shelf.pointer('jib'))!.rev).toBe(rev);
  });

  it('never overwrite a save they do not build on', async () => {
    const rev = await save(joint, 'New');
    await shelf.save({ ...joint, notes: 'theirs' }, rev, 'Theirs');
    expect(await shelf.save({ ...joint, notes: 'mine' }, rev, 'Mine')).toMatchObject({ state: 'conflict' });
    expect(await shelf.save({ ...joint, notes: 'mine' }, null, 'Mine')).toMatchObject({ state: 'conflict' });
    expect((await opened()).joint.notes).toBe('theirs');
    // Of many that build on the same save at once, one is written.
    const now = (await opened()).rev;
    const all = await Promise.all(
      Array.from({ length: 12 }, (_, i) => shelf.save({ ...joint, notes: `${i}` }, now, `Tab ${i}`)),
    );
    expect(all.filter((o) => o.state === 'saved')).toHaveLength(1);
  });

  describe('left by a page that went', () => {
    const left = async (mine: Partial<Joint>, rev: string, when: string) => {
      shelf.leave({ ...joint, ...mine }, rev, 'Typed last', new Date(when));
      return opened();
    };
    const early = '2020-01-01T00:00:00Z';
    const late = '2100-01-01T00:00:00Z';
    const labels = async () => (await shelf.pointer('jib'))!.saves.map((s) => s.label);

    it('are there again, as a save of their own, once', async () => {
      const rev = await save(joint, 'New');
      expect((await left({ notes: 'mine' }, rev, late)).joint.notes).toBe('mine');
      await opened();
      expect(await labels()).toEqual(['Typed last', 'New']);
      expect(kept.all.size).toBe(0);
    });

    it('leave no second save where they were stored after all, nor where the page stayed', async () => {
      const rev = await save(joint, 'New');
      await save({ ...joint, notes: 'mine' }, 'Typed');
      expect((await left({ notes: 'mine' }, rev, late)).joint.notes).toBe('mine');
      expect(await labels()).toEqual(['Typed', 'New']);
      shelf.leave({ ...joint, notes: 'older' }, rev, 'Typed last');
      shelf.stayed('jib');
      expect((await opened()).joint.notes).toBe('mine');
    });

    it('are merged with what came between; of the same thing the later counts, and both are kept', async () => {
      const rev = await save(joint, 'New');
      await save({ ...joint, name: 'Theirs' }, 'Other tab');
      expect((await left({ notes: 'mine' }, rev, early)).joint).toMatchObject({ name: 'Theirs', notes: 'mine' });
      const before = (await shelf.pointer('jib'))!.rev;
      await save({ ...joint, notes: 'theirs' }, 'Theirs');
      expect((await left({ notes: 'earlier' }, before, early)).joint.notes).toBe('theirs');
      expect((await labels()).slice(0, 2)).toEqual(['Theirs', 'Typed last']);
      expect((await left({ notes: 'later' }, before, late)).joint.notes).toBe('later');
      expect((await labels()).slice(0, 2)).toEqual(['Typed last', 'Theirs']);
      // Every save that is spoken of has its record.
      for (const s of (await shelf.pointer('jib'))!.saves) expect(records()).toContain(`jib/${s.rev}`);
    });

    it('bring nothing back that was deleted, and nothing that could not be read', async () => {
      const rev = await save(joint, 'New');
      expect((await left({ name: '' }, rev, late)).joint.name).toBe(joint.name);
      for (const damaged of ['{', 'null', '"x"', '{"joint":5}']) {
        kept.setItem('gristmill left joint jib', damaged);
        expect((await opened()).joint).toEqual(joint);
      }
      expect(kept.all.size).toBe(0);
      await shelf.remove('jib');
      shelf.leave(joint, rev, 'Typed last');
      expect((await shelf.open('jib')).ok).toBe(false);
      expect(await shelf.list()).toEqual([]);
    });

    it('are said not to be there for the next page where there is no room for them', () => {
      kept.setItem = () => {
        throw new DOMException('no room', 'QuotaExceededError');
      };
      expect(shelf.leave(joint, null, 'Typed last')).toBe(false);
      // Where nothing may be stored at all a browser throws at the very name.
      Object.defineProperty(globalThis, 'localStorage', {
        configurable: true,
        get: () => {
          throw new DOMException('Access is denied', 'SecurityError');
        },
      });
      expect(new JointShelf(vault).leave(joint, null, '')).toBe(false);
      delete (globalThis as { localStorage?: unknown }).localStorage;
    });
  });

  it('keep the last twenty saves and let go of older ones', async () => {
    for (let i = 0; i < 27; i++) await save({ ...joint, notes: `${i}` }, `Change ${i}`);
    const pointer = (await shelf.pointer('jib'))!;
    expect(pointer.saves).toHaveLength(KEPT);
    expect(pointer.saves[0]!.label).toBe('Change 26');
    expect(records()).toHaveLength(KEPT);
    const oldest = await shelf.record('jib', pointer.saves[19]!.rev);
    expect(oldest.ok && oldest.value.notes).toBe('7');
  });

  it('keep what cannot be read, and always the newest readable saves beside it', async () => {
    const revs: string[] = [];
    for (let i = 0; i < 5; i++) revs.push(await save({ ...joint, notes: `good ${i}` }));
    // Saves of an earlier version that no reader takes: nobody has looked into them.
    const p = vault.tables.get('joints')!.get('jib') as Pointer;
    const bad = Array.from({ length: 25 }, (_, i) => ({
      rev: `bad${i}`,
      when: '2026-11-01T00:00:00.000Z',
      label: 'Import',
    }));
    for (const b of bad) spoil(b.rev, { ...joint, brief: { cases: [] } });
    vault.tables
      .get('joints')!
      .set('jib', { ...p, rev: 'bad0', saves: [...bad, ...p.saves.map(({ checked: _c, ...s }) => s)] });
    const back = await opened();
    expect([back.fellBack, back.joint.notes]).toEqual([true, 'good 4']);
    for (let i = 0; i < 30; i++) await save({ ...joint, notes: `later ${i}` });
    const after = (await shelf.pointer('jib'))!;
    expect(after.saves.filter((s) => s.unreadable === undefined)).toHaveLength(KEPT);
    expect(after.saves.filter((s) => s.unreadable !== undefined)).toHaveLength(25);
    expect(after.saves.every((s) => s.checked === READER)).toBe(true);
    expect(records()).toHaveLength(KEPT + 25);
    expect(await shelf.raw('jib', 'bad7')).toMatchObject({ brief: { cases: [] } });
  });

  it('fall back to the newest save that can be read, and take a repaired one on top', async () => {
    await save({ ...joint, notes: 'good' }, 'New');
    const rev = await save({ ...joint, notes: 'later' });
    spoil(rev, { format: 'gristmill-joint', version: 2 });
    expect(await opened()).toMatchObject({ fellBack: true, joint: { notes: 'good' } });
    await shelf.setAside('jib', rev, 'no brief');
    await shelf.repaired({ ...joint, notes: 'repaired' }, 'jib', 'Repaired');
    const now = (await shelf.pointer('jib'))!;
    expect((await opened()).joint.notes).toBe('repaired');
    expect(now.saves[1]!.unreadable).toBe('no brief');
    vault.tables.get('history')!.clear();
    expect((await shelf.open('jib')).ok).toBe(false);
    expect((await shelf.open('nobody')).ok).toBe(false);
  });

  it('do not lock each other: a damaged pointer has its row, and the others theirs', async () => {
    await save(joint, 'New');
    for (const [key, raw] of [
      ['odd', { rev: 3 }],
      ['text', 'x'],
      ['none', { id: 'none', name: '  ', rev: 'r', saves: [null, { rev: 'r' }, {}] }],
    ] as const)
      vault.tables.get('joints')!.set(key, raw);
    expect((await shelf.list()).map((p) => p.name)).toEqual(
      ['Jib', 'none', 'odd', 'text'].sort((a, b) => a.localeCompare(b)),
    );
    for (const id of ['odd', 'text', 'none']) expect((await shelf.open(id)).ok, id).toBe(false);
    expect((await shelf.bin()).length).toBe(0);
    await shelf.remove('odd');
    expect(await shelf.restore('odd')).toBe('back');
  });

  it('of any identifier are kept apart', async () => {
    const ids = ['a/b', 'a', '..', '?x#y', '__proto__', 'ä ö', '\ud800', 'a/b/c'];
    for (const id of ids) await save({ ...joint, id, name: `of ${id}` }, 'New');
    for (const id of ids) expect((await opened(id)).joint.name).toBe(`of ${id}`);
    await shelf.remove('a');
    await shelf.empty('a');
    await shelf.sweep(0);
    for (const id of ids.filter((x) => x !== 'a')) expect((await opened(id)).joint.name).toBe(`of ${id}`);
    expect(records()).toHaveLength(ids.length - 1);
  });

  it('change under their newest save, whatever a page still shows', async () => {
    await save({ ...joint, notes: '1.1 kg' }, 'New');
    await save({ ...joint, notes: '1.77 kg' });
    const renamed = await shelf.change('jib', 'Rename', (j) => ({ ...j, name: 'Boom' }));
    expect(renamed.ok && renamed.value).toMatchObject({ name: 'Boom', notes: '1.77 kg' });
    expect((await shelf.list())[0]!.name).toBe('Boom');
    const refused = await shelf.change('jib', 'Rename', (j) => ({ ...j, name: ' ' }));
    expect(refused.ok).toBe(false);
    expect((await opened()).joint.name).toBe('Boom');
  });

  it('are brought back from the bin, and are gone with all they take once it is emptied', async () => {
    const now = new Date('2026-11-27T12:00:00Z');
    await save(joint, 'New');
    await save({ ...joint, notes: 'x' });
    await shelf.remove('jib', now);
    expect((await shelf.list()).length).toBe(0);
    expect((await shelf.bin()).map((b) => b.pointer.name)).toEqual(['Jib']);
    await shelf.empty(undefined, new Date(now.getTime() + (BIN_MINUTES - 1) * 60_000));
    expect(await shelf.restore('jib')).toBe('back');
    expect((await opened()).joint.notes).toBe('x');
    await shelf.remove('jib', now);
    await shelf.empty(undefined, new Date(now.getTime() + (BIN_MINUTES + 1) * 60_000));
    expect(records()).toEqual([]);
    expect(await shelf.restore('jib')).toBe('gone');
    expect(await shelf.remove('jib')).toBeUndefined();
  });

  it('deleted in one tab and changed in another: nothing of either is lost', async () => {
    const rev = await save(joint, 'New');
    await shelf.remove('jib');
    // The tab that has it open is told, and its change does not make a joint without a history.
    expect(await shelf.save({ ...joint, notes: 'edited' }, rev, 'Edit')).toEqual({ state: 'gone' });
    expect(await shelf.putBack({ ...joint, notes: 'edited' }, 'Put back')).toMatchObject({ state: 'saved' });
    expect((await shelf.pointer('jib'))!.saves.map((s) => s.label)).toEqual(['Put back', 'New']);
    // The undo in the first tab finds it there, and leaves the change.
    expect(await shelf.restore('jib')).toBe('there already');
    expect((await opened()).joint.notes).toBe('edited');
    expect(await shelf.bin()).toEqual([]);
    // A new joint under the identifier of one in the bin is not undone either.
    await shelf.remove('jib');
    await save({ ...joint, notes: 'anew' }, 'New');
    expect(await shelf.restore('jib')).toBe('there already');
    await shelf.empty('jib');
    expect((await opened()).joint.notes).toBe('anew');
  });

  it('trouble is told apart in words', () => {
    expect(storageProblem(new DOMException('x', 'QuotaExceededError')).what).toMatch(/full/);
    expect(storageProblem(new DOMException('insecure', 'SecurityError')).what).toMatch(/does not let/);
    expect(storageProblem(new NotLoaded()).what).toMatch(/server.*stopped/);
    expect(storageProblem('odd').mend).toMatch(/Export/);
  });
});
