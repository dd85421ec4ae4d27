import { createJoint } from '@gristmill/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const { stored } = vi.hoisted(() => ({ stored: { open: vi.fn() } }));
vi.mock('../src/storage/shelf.ts', () => ({ jointShelf: stored }));

const { followSave, holdJoint, watchSaves } = await import('../src/storage/tabs.ts');
const { saved } = await import('../src/storage/autosave.ts');
const { useOpen } = await import('../src/state/open.ts');

/** The platform's locks as far as tabs use them: one holder a name, taken over on `steal`. */
class Locks {
  private readonly held = new Map<string, (why: Error) => void>();
  request(name: string, options: { steal?: boolean; ifAvailable?: boolean }, run: (lock: object | null) => Promise<void> | undefined): Promise<void> {
    if (this.held.has(name)) {
      if (!options.steal) return Promise.resolve(run(null));
      this.held.get(name)!(new Error('stolen'));
    }
    return new Promise((done, lost) => {
      this.held.set(name, lost);
      void Promise.resolve(run({})).then(() => (this.held.delete(name), done()));
    });
  }
}

const jib = (name = 'Jib') => ({ ...createJoint(name, { id: 'jib', now: '2026-11-23T10:00:00.000Z' }), name });
beforeEach(() => {
  vi.stubGlobal('navigator', { locks: new Locks() });
  stored.open.mockReset();
  useOpen.getState().load(undefined);
});
afterEach(() => vi.unstubAllGlobals());

describe('a joint in two tabs', () => {
  it('is changed in the first; the second looks on, and has it once the first lets go', async () => {
    const first = await holdJoint('jib', vi.fn());
    const second = await holdJoint('jib', vi.fn());
    expect([first.held, second.held]).toEqual([true, false]);
    expect((await holdJoint('boom', vi.fn())).held).toBe(true);
    first.release();
    await new Promise((done) => setTimeout(done, 0));
    expect((await holdJoint('jib', vi.fn())).held).toBe(true);
  });

  it('can be taken over, and the tab that had it is told', async () => {
    const lost = vi.fn();
    await holdJoint('jib', lost);
    const second = await holdJoint('jib', vi.fn(), true);
    await new Promise((done) => setTimeout(done, 0));
    expect(second.held).toBe(true);
    expect(lost).toHaveBeenCalledOnce();
  });

  it('is held where the browser has no locks: one tab then is all there is', async () => {
    vi.stubGlobal('navigator', {});
    expect((await holdJoint('jib', vi.fn())).held).toBe(true);
  });
});

describe('looking on', () => {
  it('brings up the newest save, and stays looking on', async () => {
    useOpen.getState().load(jib(), true);
    stored.open.mockResolvedValue({ ok: true, value: { joint: jib('Jib, changed'), rev: 'r2', fellBack: false } });
    await followSave('jib');
    expect(useOpen.getState().joint!.name).toBe('Jib, changed');
    expect(useOpen.getState().readOnly).toBe(true);
  });

  it('leaves what is open alone where the save cannot be read or another joint has been opened meanwhile', async () => {
    useOpen.getState().load(jib(), true);
    stored.open.mockResolvedValue({ ok: false, problem: { what: 'a', why: 'b', mend: 'c' } });
    await followSave('jib');
    expect(useOpen.getState().joint!.name).toBe('Jib');
    stored.open.mockResolvedValue({ ok: true, value: { joint: jib('Other'), rev: 'r2', fellBack: false } });
    await followSave('boom');
    expect(useOpen.getState().joint!.name).toBe('Jib');
  });

  it('follows saves of its own joint, only while looking on, until it stops', async () => {
    useOpen.getState().load(jib(), true);
    stored.open.mockResolvedValue({ ok: true, value: { joint: jib('Followed'), rev: 'r3', fellBack: false } });
    const other = new BroadcastChannel(saved!.name);
    const stop = watchSaves('jib');
    const hear = async (id: string) => {
      other.postMessage({ id });
      await new Promise((done) => setTimeout(done, 60));
    };
    await hear('boom');
    expect(stored.open).not.toHaveBeenCalled();
    await hear('jib');
    expect(useOpen.getState().joint!.name).toBe('Followed');
    useOpen.getState().setReadOnly(false);
    await hear('jib');
    expect(stored.open).toHaveBeenCalledOnce();
    useOpen.getState().setReadOnly(true);
    stop();
    await hear('jib');
    expect(stored.open).toHaveBeenCalledOnce();
    other.close();
    saved!.close();
  });
});
