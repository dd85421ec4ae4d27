import { create } from 'zustand';
import { usePrefs } from '../state/prefs.ts';

/** Whether the browser has promised to keep what is stored here when its disk runs short; undefined until it has answered. */
export const useKeeping = create<{ kept: boolean | undefined }>(() => ({ kept: undefined }));

let asked = false;

/** What the browser says of what it keeps; nothing where it does not say. */
export async function lookAtKeeping(): Promise<void> {
  try {
    useKeeping.setState({ kept: await navigator.storage.persisted() });
  } catch {
    // A browser that does not know of it promises nothing.
    useKeeping.setState({ kept: false });
  }
}

/**
 * Asks the browser, once a visit and when something is first saved, to keep what is stored here.
 *
 * @param again though it was asked before
 */
export async function askToKeep(again = false): Promise<void> {
  if (asked && !again) return;
  asked = true;
  try {
    useKeeping.setState({ kept: await navigator.storage.persist() });
  } catch {
    useKeeping.setState({ kept: false });
  }
}

/** How much is stored and how much may be, bytes; undefined where the browser does not say. */
export async function storageUse(): Promise<{ readonly used: number; readonly most: number } | undefined> {
  try {
    const { usage, quota } = await navigator.storage.estimate();
    return usage === undefined || quota === undefined ? undefined : { used: usage, most: quota };
  } catch {
    return undefined;
  }
}

const DAY = 86_400_000;
/** The demo's joints, and the tour's, can be had again at any time. */
const DEMO = /^(demo|tour)-/;

/** After so many days with changes that no file holds, the shelf reminds of exporting everything. */
const OLD = 14;

/**
 * What no export of everything holds yet, where that is old enough to be said. The demo's own joints do not count.
 *
 * @param joints on the shelf, each with when it last changed, as an ISO date
 * @param now ms
 * @returns how many joints have changed since, and the days since the last export (NaN for none ever); undefined for
 *   nothing to remind of
 */
export function exportDue(
  joints: readonly { readonly id: string; readonly changed: string }[],
  {
    exportedAt,
    remindAfter,
    since: came,
  }: { readonly exportedAt: string | undefined; readonly remindAfter: string | undefined; readonly since: string },
  now: number,
): { readonly joints: number; readonly days: number } | undefined {
  if (remindAfter !== undefined && now < Date.parse(remindAfter)) return undefined;
  const since = exportedAt === undefined ? -Infinity : Date.parse(exportedAt);
  const newer = joints
    .filter((j) => !DEMO.test(j.id))
    .map((j) => Date.parse(j.changed))
    .filter((t) => t > since && t <= now);
  if (newer.length === 0) return undefined;
  // A joint that was brought along is no older here than this browser's first visit.
  const oldest = Number.isFinite(since) ? since : Math.max(Date.parse(came), Math.min(...newer));
  return now - oldest > OLD * DAY ? { joints: newer.length, days: (now - since) / DAY } : undefined;
}

/** Notes that everything has been exported now. */
export const exportedNow = (now = Date.now()): void =>
  usePrefs.getState().set({ exportedAt: new Date(now).toISOString(), remindAfter: undefined });

/** Says nothing of it for a week. */
export const remindLater = (now = Date.now()): void =>
  usePrefs.getState().set({ remindAfter: new Date(now + 7 * DAY).toISOString() });
