import { mergeEdits, readShopFile, type Problem, type ShopEdits } from '@gristmill/core';
import { toast } from 'sonner';
import { takeRefusal } from '../state/refusal.ts';
import { takePreferences } from '../state/prefs.ts';
import { useShop } from '../state/shop.ts';
import { changeShop, loadShop } from '../storage/edit-shop.ts';
import { tell } from '../storage/messages.ts';
import { storageProblem } from '../storage/trouble.ts';
import { bringFile } from '../workers/files.ts';
import { useDropTaker } from './drop-taker.ts';

/** What came of one file: the joints that came in, by identifier; or why it could not be taken. */
export type Taken = { readonly joints: readonly string[] } | { readonly problem: Problem };

/** A file's beginning says what it is; its name only where that does not. */
type FileKind = 'joints' | 'shop' | 'readings';

/** How much of a file is looked at to tell what it is, bytes. */
const LOOK = 400;

export async function kindOf(file: File): Promise<FileKind> {
  const head = await file
    .slice(0, LOOK)
    .text()
    .catch(() => '');
  if (/"format"\s*:\s*"gristmill-shop/.test(head)) return 'shop';
  if (/"format"\s*:\s*"gristmill/.test(head) || head.startsWith('PK')) return 'joints';
  return /\.(csv|tsv|txt|wav)$/i.test(file.name)
    ? 'readings'
    : /\.json$/i.test(file.name) && useDropTaker.getState().taker
      ? 'readings'
      : 'joints';
}

/** Takes changes of a shop file in, with undo. */
export async function bringShop(file: File): Promise<Problem | undefined> {
  const read = readShopFile(await file.text().catch(() => ''));
  if (!read.ok) return { ...read.problem, what: `“${file.name.slice(0, 60)}”: ${read.problem.what}` };
  const before = useShop.getState().edits;
  const refused = changeShop(mergeEdits(before, read.value));
  if (refused) {
    takeRefusal();
    return refused;
  }
  const told = (Object.entries(read.value) as [keyof ShopEdits, object][]).map(([k, x]) =>
    k === 'drawer' ? 'the drawer' : `${Object.keys(x).length} ${k}`,
  );
  toast(`Brought in: ${told.join(', ') || 'nothing'}.`, {
    action: { label: 'Undo', onClick: () => changeShop(before) },
  });
  return undefined;
}

/** Takes joints of a file, or of an export of everything, onto the shelf. */
async function bringJoints(file: File, busy: (says: string) => void): Promise<Taken> {
  const name = `“${file.name.slice(0, 60)}”`;
  const late = setTimeout(() => busy(`Reading ${name}…`), 400);
  try {
    const read = await bringFile(file, (share) => share < 1 && busy(`Reading ${name}… ${Math.round(share * 100)} %`));
    if (!read.ok) return { problem: read.problem };
    const { joints: names, ids, notes, preferences, shop } = read.value;
    if (preferences !== undefined) takePreferences(preferences);
    if (shop) {
      await loadShop();
      tell({ type: 'shop' });
    }
    const came =
      names.length === 0
        ? 'Nothing new came in.'
        : names.length === 1
          ? `Imported “${names[0]}”.`
          : `Imported ${names.length} joints.`;
    toast([came, ...notes].join(' '), notes.length ? { duration: 10_000 } : {});
    return { joints: ids };
  } catch (error) {
    return { problem: storageProblem(error) };
  } finally {
    clearTimeout(late);
    busy('');
  }
}

/** Takes a file for what it is: joints onto the shelf, changes of the shop, readings into the test that is open. */
export async function bringOne(file: File, busy: (says: string) => void = () => undefined): Promise<Taken> {
  switch (await kindOf(file)) {
    case 'shop': {
      const problem = await bringShop(file);
      return problem ? { problem } : { joints: [] };
    }
    case 'readings': {
      const { taker } = useDropTaker.getState();
      if (!taker)
        return {
          problem: {
            what: `“${file.name.slice(0, 60)}” holds readings or a recording.`,
            why: 'No test is open that could take them.',
            mend: 'Open the test on the bench, then drop it again.',
          },
        };
      await taker.take(file);
      return { joints: [] };
    }
    default:
      return bringJoints(file, busy);
  }
}
