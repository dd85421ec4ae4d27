import { Suspense, useState } from 'react';
import { view } from '../app/view.tsx';

/** One thing a menu offers; a heading where it does nothing. */
export interface MenuEntry {
  readonly label: string;
  readonly run?: () => void;
}

export interface MenuProps {
  /** What the button says, and what it is called where that is more. */
  readonly name: string;
  readonly label?: string;
  readonly className: string;
  readonly disabled?: boolean;
  readonly entries: readonly MenuEntry[];
  readonly onOpen?: () => void;
}

const MenuOpened = view(() => import('./MenuOpened.tsx'));

/** A button that opens a menu. What places and moves through it comes when it is first opened. */
export function Menu(p: MenuProps) {
  const [wanted, setWanted] = useState(false);
  const button = (
    <button
      type="button"
      className={p.className}
      disabled={p.disabled}
      aria-label={p.label}
      aria-haspopup="menu"
      aria-expanded={false}
      onClick={() => {
        setWanted(true);
        p.onOpen?.();
      }}
      onKeyDown={(e) => {
        if (e.key !== 'ArrowDown') return;
        e.preventDefault();
        setWanted(true);
        p.onOpen?.();
      }}
    >
      {p.name}
    </button>
  );
  if (!wanted) return button;
  return (
    <Suspense fallback={button}>
      <MenuOpened {...p} />
    </Suspense>
  );
}
