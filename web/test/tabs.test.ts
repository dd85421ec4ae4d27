import { type Joint } from '@gristmill/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { jib } from './helpers.ts';
import { Locks } from './locks.ts';

// One shelf, one set of locks and one channel for all tabs; every tab has the app of its own.
const shelf = vi.hoisted(() => ({
  joint: undefined as Joint | undefined,
  rev: 0,
  fail: false,
  silent: false,
  slow: 0,
}));
vi.mock('../src/storage/shelf.ts', () => ({
  jointShelf: {
    open: async () => {
      const value = { joint: structuredClone(shelf.joint), rev: `r${shelf.rev}`, fellBack: false };
      if (shelf.slow) await new Promise((done) => setTimeout(done, shelf.slow));
      return { ok: true, value };
    },
    save: async (joint: Joint, expected: string) => {
      await new Promise((done) => setTimeout(done, 5));
      if (shelf.fail) throw new DOMException('no room', 'QuotaExceededError');
      if (expected !== `r${shelf.rev}`) return { state: 'conflict', theirs: `r${shelf.rev}` };
      shelf.joint = structuredClone(joint);
      return { state: 'saved', rev: `r${++shelf.rev}` };
    },
  },
}));

const wait = (ms = 40) => new Promise((done) => setTimeout(done, ms));
const tabs: { stop: () => void }[] = [];

/** The app as one tab has it, with a joint opened. */
async function openTab(meanwhile: () => unknown = () => undefined) {
  vi.resetModules();
  const [{ Holding }, { useOpen }, { buildOn, saveNow, startAutosave, useStorage }, { channel }] = await Promise.all([
    import('../src/storage/tabs.ts'),
    import('../src/state/open.ts'),
    import('../src/storage/autosave.ts'),
    import('../src/storage/messages.ts'),
  ]);
  const holding = new Holding('jib', 150);
  await holding.start();
  await meanwhile();
  useOpen.getState().load(structuredClone(shelf.joint!), !holding.held);
  buildOn(`r${shelf.rev}`, structuredClone(shelf.joint!));
  const stopSaving = startAutosave();
  const tab = {
    holding,
    held: holding.held,
    open: () => useOpen.getState(),
    conflict: () => useStorage.getState().conflict,
    type: (notes: string) => useOpen.getState().edit('Notes', (d) => void (d.notes = notes)),
    saveNow,
    stop: () => (stopSaving(), channel?.close()),
  };
  tabs.push(tab);
  return tab;
}

beforeEach(() => {
  vi.stubGlobal('navigator', { locks: new Locks() });
  vi.stubGlobal('document', Object.assign(new EventTarget(), { visibilityState: 'visible' }));
  Object.assign(shelf, { joint: jib(), rev: 1, fail: false, slow: 0 });
});
afterEach(() => {
  tabs.splice(0).forEach((t) => t.stop());
  vi.unstubAllGlobals();
});

describe('a joint in two tabs', () => {
  it('is changed in the first; the second looks on and follows what is saved', async () => {
    const [a, b] = [await openTab(), await openTab()];
    expect([a.held, b.held]).toEqual([true, false]);
    a.type('1.5 kg');
    await a.saveNow();
    await wait();
    expect(b.open()).toMatchObject({ readOnly: true, joint: { notes: '1.5 kg' } });
    expect(b.type('not mine')).toBeUndefined();
    expect(b.open().joint!.notes).toBe('1.5 kg');
  });

  it('is looked on from any of its variants, whichever is saved as open', async () => {
    const first = shelf.joint!.variants[0]!;
    shelf.joint = { ...shelf.joint!, variants: [first, { ...structuredClone(first), id: 'other', name: 'Other' }] };
    const [a, b] = [await openTab(), await openTab()];
    b.open().openVariant('other');
    expect(b.open()).toMatchObject({ save: 'saved', past: [], joint: { activeVariant: 'other' } });
    b.open().openVariant('not there');
    a.type('1.5 kg');
    await a.saveNow();
    await wait();
    expect(b.open()).toMatchObject({ readOnly: true, joint: { notes: '1.5 kg', activeVariant: 'other' } });
    expect(shelf.joint.activeVariant).toBe(first.id);
    // In the tab that may change it, it is a step that can be taken back.
    a.open().openVariant('other');
    expect([a.open().joint!.activeVariant, a.open().undo(), a.open().joint!.activeVariant]).toEqual([
      'other',
      'Open variant',
      first.id,
    ]);
  });

  it('loaded anew, is waited for until the page that went has let go of it', async () => {
    vi.stubGlobal('performance', { now: () => 0, getEntriesByType: () => [{ type: 'reload' }] });
    const gone = await openTab();
    setTimeout(() => gone.holding.stop(), 60);
    expect((await openTab()).held).toBe(true);
    const stays = await openTab();
    expect(stays.held).toBe(false);
  });

  it('taken over, goes on with what the first had not saved yet, without a conflict after', async () => {
    const [a, b] = [await openTab(), await openTab()];
    a.type('typed, and not saved yet');
    await b.holding.takeOver();
    expect(b.open()).toMatchObject({ readOnly: false, joint: { notes: 'typed, and not saved yet' } });
    expect(a.open().readOnly).toBe(true);
    b.type('and on');
    await b.saveNow();
    expect([b.conflict(), b.open().save, shelf.joint!.notes]).toEqual([undefined, 'saved', 'and on']);
    await wait();
    expect(a.open().joint!.notes).toBe('and on');
    // And back again.
    await wait(500);
    await a.holding.takeOver();
    a.type('back');
    await a.saveNow();
    expect([a.conflict(), shelf.joint!.notes]).toEqual([undefined, 'back']);
  });

  it('taken over from a tab that cannot store, says so there and loses nothing of it', async () => {
    const [a, b] = [await openTab(), await openTab()];
    shelf.fail = true;
    a.type('no room for it');
    await b.holding.takeOver();
    await wait();
    shelf.fail = false;
    expect(b.open()).toMatchObject({ readOnly: false, joint: { notes: '' } });
    expect(a.conflict()).toBe('taken');
    // What the new holder saves does not wipe it out.
    b.type('theirs');
    await b.saveNow();
    await wait();
    expect(a.open().joint!.notes).toBe('no room for it');
  });

  it('taken over from a tab that does not answer, goes on from its last save', async () => {
    const a = await openTab();
    const b = await openTab();
    a.stop();
    await b.holding.takeOver();
    expect(b.open().readOnly).toBe(false);
    b.type('mine now');
    await b.saveNow();
    expect(shelf.joint!.notes).toBe('mine now');
    await wait();
    expect(a.open().readOnly).toBe(true);
  });

  it('comes to the one that looks on when the first lets go, with its last change', async () => {
    const [a, b] = [await openTab(), await openTab()];
    a.type('last words');
    a.holding.stop();
    await wait(80);
    expect(b.open()).toMatchObject({ readOnly: false, joint: { notes: 'last words' } });
    // Opened again in the tab that left, it is looked at.
    expect((await openTab()).held).toBe(false);
  });

  it('let go of while the other was still reading it, is the other’s to change', async () => {
    const a = await openTab();
    const b = await openTab(async () => (a.holding.stop(), await wait()));
    expect(b.open().readOnly).toBe(false);
    b.type('mine');
    await b.saveNow();
    expect(shelf.joint!.notes).toBe('mine');
  });

  it('left and opened again at once, is not in its own way', async () => {
    const a = await openTab();
    a.type('x');
    a.holding.stop();
    vi.resetModules();
    await a.holding.start();
    expect(a.holding.held).toBe(true);
  });

  it('is held where the browser has no locks: one tab then is all there is', async () => {
    vi.stubGlobal('navigator', {});
    expect((await openTab()).held).toBe(true);
  });
});

it('a change made while another tab’s save is being read is not lost', async () => {
  const a = await openTab();
  const other = new BroadcastChannel('gristmill');
  shelf.joint = jib({ name: 'Renamed' });
  shelf.rev++;
  other.postMessage({ type: 'saved', id: 'jib', rev: 'r2' });
  a.type('typed meanwhile');
  await wait();
  expect(a.open().joint!.notes).toBe('typed meanwhile');
  await a.saveNow();
  expect(shelf.joint).toMatchObject({ name: 'Renamed', notes: 'typed meanwhile' });
  other.close();
});

it('a change made and stored while the shelf is being read stays on the page', async () => {
  const a = await openTab();
  const other = new BroadcastChannel('gristmill');
  shelf.slow = 60;
  other.postMessage({ type: 'saved', id: 'jib', rev: 'r1' });
  await wait(20);
  a.type('typed and stored meanwhile');
  await a.saveNow();
  expect(a.open().save).toBe('saved');
  await wait(200);
  expect(a.open().joint!.notes).toBe('typed and stored meanwhile');
  a.type('and on from there');
  await a.saveNow();
  expect(shelf.joint!.notes).toBe('and on from there');
  other.close();
});
