import { mergeThree, settleJoint, type Joint, type Problem } from '@gristmill/core';
import { create } from 'zustand';
import { jointCheck } from '../state/check.ts';
import { note } from '../state/note.ts';
import { useOpen } from '../state/open.ts';
import { askToKeep } from './keeping.ts';
import { tell } from './messages.ts';
import { jointShelf } from './shelf.ts';
import { storageProblem } from './trouble.ts';

/**
 * Why a save waits for a person: another tab changed the same thing, deleted the joint, or took it over before what is
 * here was stored.
 */
export type Conflict = 'changed' | 'deleted' | 'taken';

interface StorageState {
  problem: Problem | undefined;
  conflict: Conflict | undefined;
  /** What both tabs changed, as a place in the joint. */
  place: string;
}

export const useStorage = create<StorageState>(() => ({ problem: undefined, conflict: undefined, place: '' }));

const WAIT = 450;

/** The save that the open joint builds on, and the joint as it was then. */
let built: { rev: string | null; joint: Joint | undefined } = { rev: null, joint: undefined };
/** The joint whose last changes were left for a page to come. */
let handed: string | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;
let busy: Promise<void> = Promise.resolve();

/** Which save of the open joint this tab builds on. */
export function buildOn(rev: string | null, joint?: Joint): void {
  built = { rev, joint };
  useStorage.setState({ conflict: undefined, place: '' });
}

/** Takes in what another tab saved: merged with what is here where both can stand, otherwise a person decides. */
async function takeIn(id: string): Promise<boolean> {
  const theirs = await jointShelf.open(id);
  const mine = useOpen.getState().joint;
  if (!theirs.ok || !built.joint || mine?.id !== id) return false;
  const merged = mergeThree(built.joint, mine, theirs.value.joint, settleJoint);
  if (!merged.ok || jointCheck.problem(merged.value)) {
    useStorage.setState({ place: merged.ok ? '' : merged.place });
    return false;
  }
  buildOn(theirs.value.rev, theirs.value.joint);
  useOpen.getState().absorb(merged.value, 'unsaved');
  note('Another tab saved this joint as well; what both changed is merged.', { id: 'merged' });
  return true;
}

async function write(joint: Joint, label: string, again = true): Promise<void> {
  const open = useOpen.getState();
  open.mark('saving');
  try {
    const outcome = await jointShelf.save(joint, built.rev, label);
    if (outcome.state === 'saved') {
      built = { rev: outcome.rev, joint };
      useStorage.setState({ problem: undefined });
      tell({ type: 'saved', id: joint.id, rev: outcome.rev });
      if (handed === joint.id) {
        handed = undefined;
        jointShelf.stayed(joint.id);
      }
      void askToKeep();
      // A change made while this one was being written is still to be saved.
      useOpen.getState().mark(useOpen.getState().joint === joint ? 'saved' : 'unsaved');
      return;
    }
    if (outcome.state === 'conflict' && again && (await takeIn(joint.id)))
      return await write(useOpen.getState().joint!, label, false);
    if (outcome.state === 'refused') useStorage.setState({ problem: outcome.problem });
    else useStorage.setState({ conflict: outcome.state === 'gone' ? 'deleted' : 'changed' });
  } catch (error) {
    useStorage.setState({ problem: storageProblem(error) });
  }
  useOpen.getState().mark('failed');
}

/** Saves the open joint now if it has changed; resolves when it is stored or has failed. */
export function saveNow(): Promise<void> {
  clearTimeout(timer);
  timer = undefined;
  busy = busy.then(async () => {
    const { joint, save, lastLabel, readOnly } = useOpen.getState();
    if (joint && !readOnly && (save === 'unsaved' || save === 'failed') && !useStorage.getState().conflict)
      await write(joint, lastLabel);
  });
  return busy;
}

/**
 * Saves shortly after each change, and at once when the page is hidden; asks before a page closes on what could not be
 * stored. Returns what stops it.
 */
export function startAutosave(): () => void {
  const stop = useOpen.subscribe((now, before) => {
    if (now.joint === before.joint || now.save !== 'unsaved') return;
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), WAIT);
  });
  const hide = () => {
    if (document.visibilityState === 'hidden') void saveNow();
  };
  const leave = (event: Event) => {
    const { joint, save, lastLabel, readOnly } = useOpen.getState();
    if (!joint || save === 'saved') return;
    void saveNow();
    const { problem, conflict } = useStorage.getState();
    // A save reads before it writes, and a page that goes is told no more of what it read.
    const left = !readOnly && !conflict && jointShelf.leave(joint, built.rev, lastLabel);
    if (left) handed = joint.id;
    // What is merely on its way gets there, or is there for the next page; what failed does not.
    if (save === 'failed' || problem || conflict) event.preventDefault();
  };
  document.addEventListener('visibilitychange', hide);
  globalThis.addEventListener?.('beforeunload', leave);
  return () => {
    stop();
    document.removeEventListener('visibilitychange', hide);
    globalThis.removeEventListener?.('beforeunload', leave);
  };
}
