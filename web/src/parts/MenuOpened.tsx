import { DropdownMenu } from 'radix-ui';
import type { MenuProps } from './Menu.tsx';

/** A menu once it has been asked for: open at first, then as its button says. */
export default function MenuOpened({ name, label, className, disabled, entries, onOpen }: MenuProps) {
  return (
    <DropdownMenu.Root defaultOpen onOpenChange={(open) => open && onOpen?.()}>
      <DropdownMenu.Trigger className={className} disabled={disabled} aria-label={label}>
        {name}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="z-20 max-w-[26rem] border border-strong bg-panel py-1">
          {entries.map(({ label: text, run }) =>
            run ? (
              <DropdownMenu.Item
                key={text}
                onSelect={run}
                className="cursor-pointer truncate px-4 py-1 data-[highlighted]:bg-ink data-[highlighted]:text-panel"
              >
                {text}
              </DropdownMenu.Item>
            ) : (
              <DropdownMenu.Label key={text} className="label px-4 pt-1">
                {text}
              </DropdownMenu.Label>
            ),
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
