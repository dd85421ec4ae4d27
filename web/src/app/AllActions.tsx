import { GLOSSARY } from '@gristmill/core';
import { Command } from 'cmdk';
import { useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { slug } from '../state/address.ts';
import { usePrefs } from '../state/prefs.ts';
import { jointShelf } from '../storage/shelf.ts';
import { keyOf, sayKey, useAllActions } from './actions.ts';
import { copyTable, tableName, tablesHere } from './copy-table.ts';
import { usePalette } from './all-actions.ts';

/** Opens a page by its address. */
const goTo = (address: string) => void import('./router.tsx').then((m) => m.router.navigate(address));

const HEADING = '[&_[cmdk-group-heading]]:label [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2';
const ITEM =
  'flex cursor-pointer justify-between gap-4 px-2 py-1.5 data-[selected=true]:bg-ink data-[selected=true]:text-panel';

/** The figures that stand on the page, each once, with what they are called. */
function figuresHere(): { readonly id: string; readonly name: string; readonly open: () => void }[] {
  const seen = new Map<string, { id: string; name: string; open: () => void }>();
  for (const el of document.querySelectorAll<HTMLElement>('main [data-figure], aside [data-figure]')) {
    const id = el.dataset['figure'] ?? '';
    const name = (el.getAttribute('aria-label') ?? el.title).replace(/, open working$/, '');
    if (id && name && !seen.has(id)) seen.set(id, { id, name, open: () => el.click() });
  }
  return [...seen.values()];
}

/** Every action with its key, every joint, word, figure and table, found by typing. */
export default function AllActions() {
  const { open, set } = usePalette();
  const actions = useAllActions().filter((a) => a.enabled !== false);
  const own = usePrefs((s) => s.ownKeys);
  const groups = [...new Set(actions.map((a) => a.group))];
  const joints = useQuery({ queryKey: ['joint-names'], queryFn: () => jointShelf.list(), staleTime: 0 });
  // As the page stood when this was opened over it.
  const [here] = useState(() => ({ tables: tablesHere(), figures: figuresHere() }));
  const chosen = (run: () => void) => () => {
    set(false);
    // The dialog gives focus back first; an action may want to move it on.
    setTimeout(run, 0);
  };
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
                <Command.Group key={group} heading={group} className={HEADING}>
                  {actions
                    .filter((a) => a.group === group)
                    .map((a) => (
                      <Command.Item
                        key={a.id}
                        value={`${a.name} ${a.group} ${a.id}`}
                        className={ITEM}
                        onSelect={chosen(a.run)}
                      >
                        <span>{a.name}</span>
                        {keyOf(a, own) ? <kbd className="num text-[12px]">{sayKey(keyOf(a, own)!)}</kbd> : null}
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
              {joints.data?.length ? (
                <Command.Group heading="Joints on the shelf" className={HEADING}>
                  {joints.data.map((j) => (
                    <Command.Item
                      key={j.id}
                      value={`${j.name} joint ${j.id}`}
                      className={ITEM}
                      onSelect={chosen(() => goTo(`/joint/${slug(j.id)}/brief`))}
                    >
                      <span>Open {j.name}</span>
                    </Command.Item>
                  ))}
                </Command.Group>
              ) : null}
              {here.figures.length ? (
                <Command.Group heading="Figures of this view" className={HEADING}>
                  {here.figures.map((f) => (
                    <Command.Item
                      key={f.id}
                      value={`${f.name} figure working ${f.id}`}
                      className={ITEM}
                      onSelect={chosen(f.open)}
                    >
                      <span>{f.name}</span>
                      <span className="label">its working</span>
                    </Command.Item>
                  ))}
                </Command.Group>
              ) : null}
              {here.tables.length ? (
                <Command.Group heading="Tables of this view" className={HEADING}>
                  {here.tables.flatMap((t, i) =>
                    (['tsv', 'md'] as const).map((format) => (
                      <Command.Item
                        key={`${i}-${format}`}
                        value={`copy table ${tableName(t)} ${format === 'tsv' ? 'for a spreadsheet tsv' : 'as markdown'} ${i}`}
                        className={ITEM}
                        onSelect={chosen(() => void copyTable(t, format))}
                      >
                        <span>
                          Copy “{tableName(t)}” {format === 'tsv' ? 'for a spreadsheet' : 'as Markdown'}
                        </span>
                      </Command.Item>
                    )),
                  )}
                </Command.Group>
              ) : null}
              <Command.Group heading="Words of the field" className={HEADING}>
                {GLOSSARY.map((w) => (
                  <Command.Item
                    key={w.id}
                    value={`${w.word} ${w.standard.join(' ')} words ${w.id}`}
                    className={ITEM}
                    onSelect={chosen(() => goTo(`/words?word=${w.id}`))}
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
