import type { Joint, Problem } from '@gristmill/core';
import { create } from 'zustand';
import { useOpen } from '../state/open.ts';
import { jointShelf } from './shelf.ts';
import { storageProblem } from './trouble.ts';

interface StorageState {
  problem: Problem | undefined;
  /** Another tab saved this joint over the one this tab builds on. */
  conflict: boolean;
}

export const useStorage = create<StorageState>(() => ({ problem: undefined, conflict: false }));

const WAIT = 450;

let rev: string | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;
let busy: Promise<void> = Promise.resolve();

/** Tells other tabs that a joint has a new save. */
export const saved = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('gristmill-saves');

/** Which save of the open joint this tab builds on. */
export function buildOn(next: string | null): void {
  rev = next;
  useStorage.setState({ conflict: false });
}

async function write(joint: Joint, label: string): Promise<void> {
  const open = useOpen.getState();
  open.mark('saving');
  try {
    const outcome = await jointShelf.save(joint, rev, label);
    if (outcome.state === 'conflict') {
      useStorage.setState({ conflict: true });
      useOpen.getState().mark('failed');
      return;
    }
    rev = outcome.rev;
    useStorage.setState({ problem: undefined });
    saved?.postMessage({ id: joint.id, rev });
    // A change made while this one was being written is still to be saved.
    useOpen.getState().mark(useOpen.getState().joint === joint ? 'saved' : 'unsaved');
  } catch (error) {
    useStorage.setState({ problem: storageProblem(error) });
    useOpen.getState().mark('failed');
  }
}

/** Saves the open joint now if it has changed; resolves when it is stored or has failed. */
export function saveNow(): Promise<void> {
  clearTimeout(timer);
  timer = undefined;
  busy = busy.then(async () => {
    const { joint, save, lastLabel, readOnly } = useOpen.getState();
    if (joint && !readOnly && (save === 'unsaved' || save === 'failed') && !useStorage.getState().conflict) await write(joint, lastLabel);
  });
  return busy;
}

/** Saves shortly after each change, and at once when the page is hidden. Returns what stops it. */
export function startAutosave(): () => void {
  const stop = useOpen.subscribe((now, before) => {
    if (now.joint === before.joint || now.save !== 'unsaved') return;
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), WAIT);
  });
  const hide = () => {
    if (document.visibilityState === 'hidden') void saveNow();
  };
  document.addEventListener('visibilitychange', hide);
  return () => {
    stop();
    document.removeEventListener('visibilitychange', hide);
  };
}
