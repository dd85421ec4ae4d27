import { TEST_KINDS, type TestKind } from '@gristmill/core';
import { Dialog } from 'radix-ui';

const GROUPS: readonly TestKind['group'][] = ['play and stiffness', 'torque', 'motion', 'sound and heat', 'made size'];

/** Every measurement there is, by what it tells; choosing one begins it. */
export function NewTestDialog({
  open,
  onClose,
  onChoose,
}: {
  open: boolean;
  onClose: () => void;
  onChoose: (kind: TestKind['id']) => void;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(o) => (o ? undefined : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[6vh] z-30 max-h-[86vh] w-[min(920px,94vw)] -translate-x-1/2 overflow-y-auto border border-strong bg-panel px-5 py-4"
        >
          <div className="flex items-baseline justify-between">
            <Dialog.Title className="text-[16px] font-semibold">New test</Dialog.Title>
            <Dialog.Close className="btn-quiet">Close</Dialog.Close>
          </div>
          <div className="columns-2 gap-x-8">
            {GROUPS.map((g) => (
              <section key={g} aria-label={g} className="break-inside-avoid pb-3">
                <h2 className="rule-b pb-1 first-letter:uppercase">{g}</h2>
                <ul>
                  {TEST_KINDS.filter((k) => k.group === g).map((k) => (
                    <li key={k.id} className="rule-b">
                      <button
                        type="button"
                        className="block w-full py-1 text-left hover:bg-paper focus-visible:bg-paper"
                        onClick={() => onChoose(k.id)}
                      >
                        <b className="font-semibold">{k.name}</b>
                        {k.destructive ? <span className="label"> can hurt the specimen</span> : null}
                        <span className="label block">{k.summary}</span>
                      </button>
                    </li>
                  ))}
                </ul>
              </section>
            ))}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
