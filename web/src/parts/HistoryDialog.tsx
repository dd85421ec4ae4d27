import { format } from 'date-fns';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { useOpen } from '../state/open.ts';
import { jointShelf } from '../storage/shelf.ts';
import type { Save } from '../storage/joints.ts';

/** The last twenty saves of the open joint; restoring one is a change like any other, and can be undone. */
export function HistoryDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const joint = useOpen((s) => s.joint);
  const [saves, setSaves] = useState<readonly Save[]>([]);
  const id = joint?.id;
  useEffect(() => {
    if (!open || !id) return;
    jointShelf.pointer(id).then((p) => setSaves(p?.saves ?? []), () => setSaves([]));
  }, [open, id]);
  const restore = async (save: Save) => {
    const read = await jointShelf.record(id!, save.rev);
    if (!read.ok) {
      toast(`${read.problem.what} ${read.problem.why}`);
      return;
    }
    useOpen.getState().edit(`Restore the save of ${format(new Date(save.when), 'HH:mm:ss')}`, (draft) => void Object.assign(draft, read.value));
    toast('Restored. Undo brings back what was there before.');
    onClose();
  };
  return (
    <Dialog.Root open={open} onOpenChange={(o) => (o ? undefined : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content aria-describedby={undefined} className="fixed left-1/2 top-[10vh] z-30 max-h-[78vh] w-[min(560px,94vw)] -translate-x-1/2 overflow-y-auto border border-strong bg-panel px-5 py-4">
          <div className="flex items-baseline justify-between">
            <Dialog.Title className="text-[16px] font-semibold">Earlier saves</Dialog.Title>
            <Dialog.Close className="btn-quiet">Close</Dialog.Close>
          </div>
          <p className="label pb-2">The last twenty saves of this joint in this browser.</p>
          {saves.length === 0 ? <p>No save is kept yet. Change something and it appears here.</p> : null}
          <ol>
            {saves.map((s, i) => (
              <li key={s.rev} className="rule-b flex items-baseline justify-between gap-3 py-1.5">
                <span className="num text-[12.5px]">{format(new Date(s.when), 'd MMM HH:mm:ss')}</span>
                <span className="min-w-0 flex-1 truncate">{s.label}</span>
                {i === 0 ? <span className="label">now</span> : <button type="button" className="mend" onClick={() => void restore(s)}>Restore</button>}
              </li>
            ))}
          </ol>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
