import type { Joint } from '@gristmill/core';
import { usesOf } from './joints.ts';

const NAME = 'gristmill-uses-';

/** Recordings that tabs speak of in memory, in what they have open or in their steps to undo. */
export async function heldRecordings(): Promise<Set<string>> {
  const { held } = (await globalThis.navigator?.locks?.query()) ?? {};
  return new Set((held ?? []).flatMap((l) => (l.name?.startsWith(NAME) ? [l.name.slice(NAME.length)] : [])));
}

const holding = new Map<string, () => void>();

/**
 * Holds the recordings of the open joint, so that no tab sweeps them while this one could undo its way back to them;
 * lets go of all when none is open.
 */
export function holdRecordings(joint: Joint | undefined): void {
  if (!joint) {
    for (const release of holding.values()) release();
    holding.clear();
    return;
  }
  for (const hash of usesOf(joint.tests)) {
    if (holding.has(hash)) continue;
    holding.set(hash, () => undefined);
    void globalThis.navigator?.locks?.request(
      NAME + hash,
      { mode: 'shared' },
      () => new Promise<void>((done) => holding.set(hash, done)),
    );
  }
}
