import { useEffect } from 'react';
import { create } from 'zustand';
import { usePrefs } from '../state/prefs.ts';

/** Something a person can do, listed in the palette with its key. */
export interface Action {
  readonly id: string;
  readonly name: string;
  readonly group: string;
  /** As typed, e.g. "ctrl+z" or "."; matched against the event's key. */
  readonly key?: string;
  readonly run: () => void;
  readonly enabled?: boolean;
}

interface Actions {
  readonly sets: ReadonlyMap<string, readonly Action[]>;
  put(owner: string, actions: readonly Action[]): void;
  drop(owner: string): void;
}

const useActionSets = create<Actions>((set) => ({
  sets: new Map(),
  put: (owner, actions) => set((s) => ({ sets: new Map(s.sets).set(owner, actions) })),
  drop: (owner) =>
    set((s) => {
      const sets = new Map(s.sets);
      sets.delete(owner);
      return { sets };
    }),
}));

/** Offers actions while the component is on screen. `actions` should be memoised. */
export function useActions(owner: string, actions: readonly Action[]): void {
  const { put, drop } = useActionSets.getState();
  useEffect(() => {
    put(owner, actions);
    return () => drop(owner);
  }, [owner, actions, put, drop]);
}

/** The key of an action as the reader has it: its own, or the one they gave it; undefined for none. */
export function keyOf(
  a: Action,
  own: Readonly<Record<string, string>> = usePrefs.getState().ownKeys,
): string | undefined {
  return (own[a.id] ?? a.key) || undefined;
}

/** Whether a key alone, without Ctrl, does something: what a slip of the hand or of speech may press. */
export const isSingle = (key: string): boolean => !key.startsWith('ctrl+');

export const useAllActions = (): readonly Action[] => [...useActionSets((s) => s.sets).values()].flat();

/**
 * The spelling of a pressed key: modifiers first, then the key. Shift is only spelled with ctrl, since `?` already
 * holds it.
 */
export function spellKey(e: KeyboardEvent): string {
  const key = e.key.length === 1 ? e.key.toLowerCase() : e.key.toLowerCase();
  const ctrl = e.ctrlKey || e.metaKey;
  return `${ctrl ? 'ctrl+' : ''}${ctrl && e.shiftKey ? 'shift+' : ''}${e.altKey ? 'alt+' : ''}${key === ' ' ? 'space' : key}`;
}

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Boxes, sliders and lists keep no text that could be taken back: an undo in them is the joint's. */
const keepsText = (target: EventTarget | null): boolean =>
  typing(target) &&
  !(target instanceof HTMLSelectElement) &&
  !(target instanceof HTMLInputElement && /^(checkbox|radio|range|file|color|button|submit)$/.test(target.type));

/** Runs actions by their keys, except single keys while typing or while a dialog is open. */
export function listenForKeys(): () => void {
  const down = (e: KeyboardEvent) => {
    const key = spellKey(e);
    const inText = typing(e.target);
    const chord = key.startsWith('ctrl+');
    if (inText && !chord) return;
    if ((key === 'ctrl+z' || key === 'ctrl+shift+z' || key === 'ctrl+y') && keepsText(e.target)) return;
    if (!chord && document.querySelector('[role="dialog"]')) return;
    // Space and Enter on a control belong to the control.
    if (
      (key === 'space' || key === 'enter') &&
      e.target instanceof HTMLElement &&
      e.target.closest('button,a,[role="tab"],[role="option"]')
    )
      return;
    const { ownKeys, singleKeys } = usePrefs.getState();
    if (!singleKeys && !chord) return;
    const all = [...useActionSets.getState().sets.values()].flat();
    const action = all.find((a) => keyOf(a, ownKeys) === key && a.enabled !== false);
    if (!action) return;
    e.preventDefault();
    action.run();
  };
  window.addEventListener('keydown', down);
  return () => window.removeEventListener('keydown', down);
}

export const sayKey = (key: string): string =>
  key.replace('ctrl+', 'Ctrl ').replace('shift+', 'Shift ').replace('alt+', 'Alt ').replace('space', 'Space');
