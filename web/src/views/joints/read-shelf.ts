import type { Joint, Problem } from '@gristmill/core';
import { saveNow } from '../../storage/autosave.ts';
import type { Binned } from '../../storage/joints.ts';
import { jointShelf } from '../../storage/shelf.ts';
import { storageProblem } from '../../storage/trouble.ts';

/** A joint on the shelf, or why it cannot be shown. */
export type Entry = {
  readonly id: string;
  readonly name: string;
  readonly joint: Joint | undefined;
  readonly problem: Problem | undefined;
};

/** What lies on the shelf, and in the bin. */
export interface OnShelf {
  readonly entries: readonly Entry[];
  readonly bin: readonly Binned[];
}

/** Reads the shelf; a joint that cannot be read leaves the others theirs. */
export async function readShelf(): Promise<OnShelf> {
  // A joint just left may still be on its way to storage.
  await saveNow();
  const pointers = await jointShelf.list();
  const entries = await Promise.all(
    pointers.map(async (p): Promise<Entry> => {
      try {
        const read = await jointShelf.open(p.id);
        return read.ok
          ? { id: p.id, name: p.name, joint: read.value.joint, problem: undefined }
          : { id: p.id, name: p.name, joint: undefined, problem: read.problem };
      } catch (error) {
        return { id: p.id, name: p.name, joint: undefined, problem: storageProblem(error) };
      }
    }),
  );
  return { entries, bin: await jointShelf.bin() };
}
