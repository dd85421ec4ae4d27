import { READER, repairJoint, type Joint } from '@gristmill/core';
import { format } from 'date-fns';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { note } from '../state/note.ts';
import { useOpen } from '../state/open.ts';
import { jointShelf } from '../storage/shelf.ts';
import { KEPT, type Save } from '../storage/joints.ts';
import { said } from '../state/prefs.ts';

/** When a save was made, as far as it is known. */
const when = (save: Save, as: string): string =>
  Number.isFinite(Date.parse(save.when)) ? format(new Date(save.when), as) : 'some time';

/** Saves of a joint, those that turn out unreadable set aside. */
async function savesOf(id: string): Promise<readonly Save[]> {
  const saves = (await jointShelf.pointer(id))?.saves ?? [];
  return Promise.all(
    saves.map(async (save) => {
      if (save.checked === READER || save.unreadable !== undefined) return save;
      const read = await jointShelf.record(id, save.rev);
      if (read.ok) return save;
      await jointShelf.setAside(id, save.rev, said(`${read.problem.what} ${read.problem.why}`));
      return { ...save, unreadable: said(`${read.problem.what} ${read.problem.why}`) };
    }),
  );
}

/**
 * The last saves of the open joint; restoring one is a change like any other, and can be undone. One that cannot be
 * read can be exported as it lies, or repaired.
 */
export function HistoryDialog({
  open,
  onClose,
  onExportRaw,
}: {
  open: boolean;
  onClose: () => void;
  onExportRaw: (rev: string) => void;
}) {
  const joint = useOpen((s) => s.joint);
  const readOnly = useOpen((s) => s.readOnly);
  const [saves, setSaves] = useState<readonly Save[]>([]);
  const id = joint?.id;
  useEffect(() => {
    if (!open || !id) return;
    savesOf(id).then(setSaves, () => setSaves([]));
  }, [open, id]);
  const put = (save: Save, next: Joint, says: string) => {
    const refused = useOpen
      .getState()
      .edit(`Restore the save of ${when(save, 'HH:mm:ss')}`, (draft) => void Object.assign(draft, next));
    if (refused) return;
    toast(says, { duration: 8000 });
    onClose();
  };
  const restore = async (save: Save) => {
    const read = await jointShelf.record(id!, save.rev);
    if (read.ok) put(save, { ...read.value, id: id! }, 'Restored. Undo brings back what was there before.');
    else note(`${read.problem.what} ${read.problem.why}`);
  };
  const repair = async (save: Save) => {
    const repaired = repairJoint(await jointShelf.raw(id!, save.rev), { id: id!, now: new Date().toISOString() });
    if (repaired.ok)
      put(
        save,
        { ...repaired.value.joint, id: id! },
        `Restored without ${repaired.value.leftOut.length} things: ${repaired.value.leftOut.slice(0, 3).join('; ')}. Undo brings back what was there before.`,
      );
    else note(`${repaired.problem.what} ${repaired.problem.why}`);
  };
  return (
    <Dialog.Root open={open} onOpenChange={(o) => (o ? undefined : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[10vh] z-30 max-h-[78vh] w-[min(560px,94vw)] -translate-x-1/2 overflow-y-auto border border-strong bg-panel px-5 py-4"
        >
          <div className="flex items-baseline justify-between">
            <Dialog.Title className="text-[16px] font-semibold">Earlier saves</Dialog.Title>
            <Dialog.Close className="btn-quiet">Close</Dialog.Close>
          </div>
          <p className="label pb-2">
            The last {KEPT} saves of this joint in this browser
            {saves.some((s) => s.unreadable !== undefined) ? ', and those that cannot be read' : ''}.
            {readOnly ? ' You are looking on: the tab that has the joint open can restore one.' : ''}
          </p>
          {saves.length === 0 ? <p>No save is kept yet. Change something and it appears here.</p> : null}
          <ol>
            {saves.map((s, i) => (
              <li key={s.rev} className="rule-b flex flex-wrap items-baseline justify-between gap-x-3 py-1.5">
                <span className="num text-[12.5px]">{when(s, 'd MMM HH:mm:ss')}</span>
                <span className="min-w-0 flex-1 truncate" title={s.label}>
                  {s.label}
                </span>
                {i === 0 && s.unreadable === undefined ? <span className="label">now</span> : null}
                {s.unreadable === undefined ? (
                  i > 0 && !readOnly ? (
                    <button type="button" className="mend" onClick={() => void restore(s)}>
                      Restore
                    </button>
                  ) : null
                ) : (
                  <>
                    <button type="button" className="mend" onClick={() => onExportRaw(s.rev)}>
                      Export it raw
                    </button>
                    {readOnly ? null : (
                      <button type="button" className="mend" onClick={() => void repair(s)}>
                        Repair
                      </button>
                    )}
                    <span className="w-full text-[12px] text-fail">cannot be read: {s.unreadable}</span>
                  </>
                )}
              </li>
            ))}
          </ol>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
