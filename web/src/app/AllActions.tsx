import { GLOSSARY } from '@gristmill/core';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { sayKey, useAllActions } from './actions.ts';
import { usePalette } from './all-actions.ts';

/** Opens the page of words at one of them. */
const goToWord = (id: string) => void import('./router.tsx').then((m) => m.router.navigate(`/words?word=${id}`));

/** Every action with its key, found by typing. */
export default function AllActions() {
  const { open, set } = usePalette();
  const actions = useAllActions().filter((a) => a.enabled !== false);
  const groups = [...new Set(actions.map((a) => a.group))];
  return (
    <Dialog.Root open={open} onOpenChange={set}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[12vh] z-30 w-[min(560px,94vw)] -translate-x-1/2 border border-strong bg-panel"
        >
          <Dialog.Title className="sr-only">All actions</Dialog.Title>
          <Command loop>
            <Command.Input
              placeholder="Type what you want to do"
              aria-label="Type what you want to do"
              className="w-full border-b border-rule bg-transparent px-4 py-3 outline-none"
            />
            <Command.List className="max-h-[56vh] overflow-y-auto p-2" aria-label="Actions">
              <Command.Empty className="label px-2 py-3">No action and no word of that name.</Command.Empty>
              {groups.map((group) => (
                <Command.Group
                  key={group}
                  heading={group}
                  className="[&_[cmdk-group-heading]]:label [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2"
                >
                  {actions
                    .filter((a) => a.group === group)
                    .map((a) => (
                      <Command.Item
                        key={a.id}
                        value={`${a.name} ${a.group} ${a.id}`}
                        className="flex cursor-pointer justify-between px-2 py-1.5 data-[selected=true]:bg-ink data-[selected=true]:text-panel"
                        onSelect={() => {
                          set(false);
                          // The dialog gives focus back first; an action may want to move it on.
                          setTimeout(a.run, 0);
                        }}
                      >
                        <span>{a.name}</span>
                        {a.key ? <kbd className="num text-[12px]">{sayKey(a.key)}</kbd> : null}
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
              <Command.Group
                heading="Words of the field"
                className="[&_[cmdk-group-heading]]:label [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2"
              >
                {GLOSSARY.map((w) => (
                  <Command.Item
                    key={w.id}
                    value={`${w.word} ${w.standard.join(' ')} words ${w.id}`}
                    className="flex cursor-pointer justify-between gap-4 px-2 py-1.5 data-[selected=true]:bg-ink data-[selected=true]:text-panel"
                    onSelect={() => {
                      set(false);
                      setTimeout(() => goToWord(w.id), 0);
                    }}
                  >
                    <span>{w.standard[0] === w.word ? w.word : `${w.word}: ${w.standard.join(', ')}`}</span>
                  </Command.Item>
                ))}
              </Command.Group>
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
