import { createJoint, type Joint } from '@gristmill/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const { save } = vi.hoisted(() => ({ save: vi.fn() }));
vi.mock('../src/storage/shelf.ts', () => ({ jointShelf: { save } }));
vi.stubGlobal('document', { visibilityState: 'visible', addEventListener: (_: string, f: () => void) => hidden.push(f), removeEventListener: vi.fn() });
const hidden: (() => void)[] = [];

const { buildOn, saveNow, startAutosave, useStorage } = await import('../src/storage/autosave.ts');
const { useOpen } = await import('../src/state/open.ts');

const open = () => useOpen.getState();
const change = (notes: string) => open().edit(`Notes ${notes}`, (d) => void (d.notes = notes));
let stop: () => void;
let stored: Joint[];

beforeEach(() => {
  vi.useFakeTimers();
  stored = [];
  let n = 0;
  save.mockReset().mockImplementation(async (joint: Joint) => (stored.push(joint), { state: 'saved', rev: `r${++n}` }));
  open().load(createJoint('Jib', { id: 'jib', now: '2026-11-23T10:00:00.000Z' }));
  buildOn('r0');
  useStorage.setState({ problem: undefined, conflict: false });
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
    expect(stored.map((j) => j.notes)).toEqual(['19']);
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
    expect(stored.at(-1)!.notes).toBe('second');
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
    expect(stored.at(-1)!.notes).toBe('kept');
  });

  it('stops at a conflict until it is settled', async () => {
    save.mockResolvedValueOnce({ state: 'conflict', theirs: 'r9' });
    change('mine');
    await vi.advanceTimersByTimeAsync(1000);
    expect(useStorage.getState().conflict).toBe(true);
    change('mine too');
    await vi.advanceTimersByTimeAsync(1000);
    expect(save).toHaveBeenCalledTimes(1);
    buildOn('r9');
    await saveNow();
    expect(save.mock.calls[1]![1]).toBe('r9');
    expect(stored.at(-1)!.notes).toBe('mine too');
  });

  it('saves at once when the page is hidden, and nothing while looking on', async () => {
    change('quick');
    (document as { visibilityState: string }).visibilityState = 'hidden';
    hidden.at(-1)!();
    await vi.advanceTimersByTimeAsync(1);
    expect(stored.at(-1)!.notes).toBe('quick');
    open().setReadOnly(true);
    change('not mine');
    await saveNow();
    expect(save).toHaveBeenCalledTimes(1);
  });
});
