import { adoptRecordings } from './adopt.ts';
import { jointShelf, liveRecordings, recordings, vault } from './shelf.ts';

/** Recordings younger than this stay though nothing refers to them yet, ms: their joint may be about to be saved. */
const FRESH = 3_600_000;

/** What must be done before a joint is opened; nothing, after the first time. */
export const beforeOpening = (): Promise<number> => adoptRecordings(vault, recordings);

/** Whether any tab has a joint open: its steps to undo may speak of recordings that no save speaks of. */
async function anyOpen(): Promise<boolean> {
  const { held } = (await navigator.locks?.query()) ?? {};
  return !navigator.locks || (held ?? []).some((l) => l.name?.startsWith('gristmill-joint-'));
}

/** Frees what deleted joints still take: those whose time in the bin is up, and, while no joint is open, what nothing refers to any more. */
export async function tidyUp(id?: string, now = Date.now()): Promise<void> {
  const gone = await jointShelf.empty(id, new Date(now));
  if (await anyOpen()) return;
  // Deleting for good frees at once; otherwise what is fresh is let be.
  await jointShelf.sweep(id !== undefined && gone > 0 ? now : now - FRESH);
  const ids = new Set([...(await jointShelf.list()).map((p) => p.id), ...(await jointShelf.bin()).map((b) => b.pointer.id)]);
  await liveRecordings.sweep(ids);
}
