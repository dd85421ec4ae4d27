import { type Joint } from '@gristmill/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { jib } from './helpers.ts';

const {
  save,
  open: stored,
  leave,
  stayed,
} = vi.hoisted(() => ({
  save: vi.fn(),
  open: vi.fn(),
  leave: vi.fn((..._left: unknown[]) => true),
  stayed: vi.fn(),
}));
vi.mock('../src/storage/shelf.ts', () => ({ jointShelf: { save, open: stored, leave, stayed } }));
const page = new EventTarget() as EventTarget & { visibilityState: string };
page.visibilityState = 'visible';
vi.stubGlobal('document', page);
const win = new EventTarget();
vi.stubGlobal('addEventListener', win.addEventListener.bind(win));
vi.stubGlobal('removeEventListener', win.removeEventListener.bind(win));

const { buildOn, saveNow, startAutosave, useStorage } = await import('../src/storage/autosave.ts');
const { useOpen } = await import('../src/state/open.ts');

const open = () => useOpen.getState();
const change = (notes: string) => open().edit(`Notes ${notes}`, (d) => void (d.notes = notes));
let stop: () => void;
let kept: Joint[];

beforeEach(() => {
  vi.useFakeTimers();
  kept = [];
  let n = 0;
  page.visibilityState = 'visible';
  save.mockReset().mockImplementation(async (joint: Joint) => (kept.push(joint), { state: 'saved', rev: `r${++n}` }));
  stored.mockReset();
  open().load(jib());
  buildOn('r0', open().joint);
  useStorage.setState({ problem: undefined, conflict: undefined, place: '' });
  stop = startAutosave();
});
afterEach(() => stop());

describe('autosave', () => {
  it('saves once after a burst of changes, with the last of them', async () => {
    for (let i = 0; i < 20; i++) {
      change(String(i));
      await vi.advanceTimersByTimeAsync(50);
    }
    expect(save).not.toHaveBeenCalled();
    await vi.advanceTimersByTimeAsync(1000);
    expect(kept.map((j) => j.notes)).toEqual(['19']);
    expect(save.mock.calls[0]![1]).toBe('r0');
    expect(save.mock.calls[0]![2]).toBe('Notes 19');
    expect(open().save).toBe('saved');
  });

  it('builds each save on the one before', async () => {
    for (const notes of ['a', 'b', 'c']) {
      change(notes);
      await vi.advanceTimersByTimeAsync(1000);
    }
    expect(save.mock.calls.map((c) => c[1])).toEqual(['r0', 'r1', 'r2']);
  });

  it('does not call a change saved that came while the one before was being written', async () => {
    let finish: (x: { state: string; rev: string }) => void = () => undefined;
    save.mockImplementationOnce(() => new Promise((done) => (finish = done)));
    change('first');
    await vi.advanceTimersByTimeAsync(500);
    expect(open().save).toBe('saving');
    change('second');
    finish({ state: 'saved', rev: 'r1' });
    await vi.advanceTimersByTimeAsync(10);
    expect(open().save).toBe('unsaved');
    await vi.advanceTimersByTimeAsync(1000);
    expect(kept.at(-1)!.notes).toBe('second');
    expect(open().save).toBe('saved');
  });

  it('says when storage is full, keeps the change, and saves once there is room', async () => {
    save.mockRejectedValueOnce(new DOMException('no room', 'QuotaExceededError'));
    change('kept');
    await vi.advanceTimersByTimeAsync(1000);
    expect(useStorage.getState().problem?.what).toMatch(/full/);
    expect(open().save).toBe('failed');
    expect(open().joint!.notes).toBe('kept');
    await saveNow();
    expect(useStorage.getState().problem).toBeUndefined();
    expect(kept.at(-1)!.notes).toBe('kept');
  });

  it('saves at once when the page is hidden, and nothing while looking on', async () => {
    change('quick');
    page.visibilityState = 'hidden';
    page.dispatchEvent(new Event('visibilitychange'));
    await vi.advanceTimersByTimeAsync(1);
    expect(kept.at(-1)!.notes).toBe('quick');
    open().setReadOnly(true);
    change('not mine');
    await saveNow();
    expect(save).toHaveBeenCalledTimes(1);
  });

  it('asks before a page closes on what could not be stored, and not on what is on its way', async () => {
    const closes = () => win.dispatchEvent(new Event('beforeunload', { cancelable: true }));
    expect(closes()).toBe(true);
    change('on its way');
    expect(closes()).toBe(true);
    await vi.advanceTimersByTimeAsync(10);
    expect(kept.at(-1)!.notes).toBe('on its way');
    save.mockRejectedValue(new DOMException('no room', 'QuotaExceededError'));
    change('no room for it');
    await vi.advanceTimersByTimeAsync(1000);
    expect(closes()).toBe(false);
  });

  it('hands over what is not stored yet as the page goes, and takes it back where the page stays', async () => {
    const closes = () => win.dispatchEvent(new Event('beforeunload', { cancelable: true }));
    leave.mockClear();
    stayed.mockClear();
    closes();
    expect(leave).not.toHaveBeenCalled();
    change('typed last');
    closes();
    expect(leave).toHaveBeenCalledTimes(1);
    expect(leave.mock.calls[0]!.slice(1)).toEqual(['r0', 'Notes typed last']);
    expect((leave.mock.calls[0]![0] as Joint).notes).toBe('typed last');
    await vi.advanceTimersByTimeAsync(1000);
    expect(stayed).toHaveBeenCalledExactlyOnceWith(open().joint!.id);
    change('stored as ever');
    await vi.advanceTimersByTimeAsync(1000);
    expect(stayed).toHaveBeenCalledTimes(1);
    open().setReadOnly(true);
    change('not mine');
    closes();
    expect(leave).toHaveBeenCalledTimes(1);
  });
});

describe('another tab saved meanwhile', () => {
  const theirs = (change: Partial<Joint>) => {
    save.mockResolvedValueOnce({ state: 'conflict', theirs: 'r9' });
    stored.mockResolvedValue({ ok: true, value: { joint: jib(change), rev: 'r9', fellBack: false } });
  };

  it('what both changed is merged where both can stand, and saved on top of theirs', async () => {
    theirs({ name: 'Renamed on the shelf' });
    change('mine');
    await vi.advanceTimersByTimeAsync(1000);
    expect(save.mock.calls[1]!.slice(1)).toEqual(['r9', 'Notes mine']);
    expect(kept.at(-1)).toMatchObject({ name: 'Renamed on the shelf', notes: 'mine' });
    expect(open().joint).toMatchObject({ name: 'Renamed on the shelf', notes: 'mine' });
    expect([open().save, useStorage.getState().conflict]).toEqual(['saved', undefined]);
  });

  it('where both changed the same, a person decides; nothing is saved until then', async () => {
    theirs({ notes: 'theirs' });
    change('mine');
    await vi.advanceTimersByTimeAsync(1000);
    expect(useStorage.getState()).toMatchObject({ conflict: 'changed', place: 'notes' });
    change('mine too');
    await vi.advanceTimersByTimeAsync(1000);
    expect(save).toHaveBeenCalledTimes(1);
    expect(open().joint!.notes).toBe('mine too');
    buildOn('r9', jib({ notes: 'theirs' }));
    await saveNow();
    expect(save.mock.calls[1]![1]).toBe('r9');
  });

  it('deleted, it says so and keeps what is here', async () => {
    save.mockResolvedValueOnce({ state: 'gone' });
    change('mine');
    await vi.advanceTimersByTimeAsync(1000);
    expect(useStorage.getState().conflict).toBe('deleted');
    expect(open()).toMatchObject({ save: 'failed', joint: { notes: 'mine' } });
  });
});
