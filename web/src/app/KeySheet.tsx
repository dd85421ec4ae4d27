import { Dialog } from 'radix-ui';
import { useKeySheet } from './all-actions.ts';
import { KeyList } from './KeyList.tsx';

/** The keys of the view that is open, over it. */
export default function KeySheet() {
  const { open, set } = useKeySheet();
  return (
    <Dialog.Root open={open} onOpenChange={set}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[6vh] z-30 max-h-[88vh] w-[min(620px,94vw)] -translate-x-1/2 overflow-y-auto border border-strong bg-panel p-5"
        >
          <div className="flex items-baseline justify-between pb-2">
            <Dialog.Title className="text-[18px]">Keys</Dialog.Title>
            <Dialog.Close className="btn">Close</Dialog.Close>
          </div>
          <KeyList />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
