import { useOpen } from '../state/open.ts';
import { adoptRecordings } from './adopt.ts';
import { heldRecordings, holdRecordings } from './held.ts';
import { BIN_MINUTES } from './joints.ts';
import { foundSets, jointShelf, liveRecordings, recordings, vault } from './shelf.ts';

/**
 * Recordings younger than this stay though nothing refers to them yet, ms: their joint may be about to be saved. No
 * longer than the bin keeps what is deleted.
 */
const FRESH = BIN_MINUTES * 60_000;

/** What must be done before a joint is opened; nothing, after the first time. */
export const beforeOpening = (): Promise<number> => adoptRecordings(vault, recordings);

/** Keeps what the open joint speaks of from being swept; returns what stops it. */
export const startHolding = (): (() => void) =>
  useOpen.subscribe((now, before) => now.joint?.tests !== before.joint?.tests && holdRecordings(now.joint));

/**
 * Frees what deleted joints still take: those whose time in the bin is up, or one at once, and what nothing refers to
 * any more.
 */
export async function tidyUp(id?: string, now = Date.now()): Promise<void> {
  const freed = await jointShelf.empty(id, new Date(now));
  await jointShelf.sweep(now - FRESH, await heldRecordings(), freed);
  const ids = new Set([
    ...(await jointShelf.list()).map((p) => p.id),
    ...(await jointShelf.bin()).map((b) => b.pointer.id),
  ]);
  await liveRecordings.sweep(ids);
  await foundSets.sweep(ids);
}
