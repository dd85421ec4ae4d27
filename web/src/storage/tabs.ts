import { useOpen } from '../state/open.ts';
import { buildOn, saved, saveNow } from './autosave.ts';
import { jointShelf } from './shelf.ts';

const lockName = (id: string) => `gristmill-joint-${id}`;

/**
 * Holds a joint for this tab. Only one tab changes a joint at a time; the others look on and follow its saves.
 *
 * @param onLost called when another tab takes the joint over
 * @returns whether this tab holds it, and what lets go of it
 */
export async function holdJoint(id: string, onLost: () => void, steal = false): Promise<{ held: boolean; release: () => void }> {
  if (!navigator.locks) return { held: true, release: () => undefined };
  return new Promise((resolve) => {
    let release: () => void = () => undefined;
    const kept = new Promise<void>((done) => (release = done));
    navigator.locks
      .request(lockName(id), steal ? { steal: true } : { ifAvailable: true }, (lock) => {
        resolve({ held: lock !== null, release });
        return lock === null ? undefined : kept;
      })
      .catch(onLost);
  });
}

/** Brings the open joint up to the newest save, as an onlooker does. */
export async function followSave(id: string): Promise<void> {
  const read = await jointShelf.open(id);
  const { joint, readOnly, load } = useOpen.getState();
  if (!read.ok || joint?.id !== id) return;
  load(read.value.joint, readOnly);
  buildOn(read.value.rev);
}

/** Follows saves of other tabs while looking on. */
export function watchSaves(id: string): () => void {
  const hear = (event: MessageEvent<{ id: string }>) => {
    if (event.data.id === id && useOpen.getState().readOnly) void followSave(id);
  };
  saved?.addEventListener('message', hear);
  return () => saved?.removeEventListener('message', hear);
}

export { saveNow };
