import { useMemo } from 'react';
import { usePrefs } from '../state/prefs.ts';
import { useActions, type Action } from './actions.ts';
import { usePalette } from './all-actions.ts';

/** Actions that every page has. */
export function useCommonActions(): void {
  const actions = useMemo<Action[]>(
    () => [
      { id: 'palette', name: 'All actions', group: 'Gristmill', key: 'ctrl+k', run: () => usePalette.getState().set(true) },
      { id: 'sheet', name: 'Light or dark sheet', group: 'Gristmill', key: 't', run: () => usePrefs.getState().setSheet(usePrefs.getState().sheet === 'light' ? 'dark' : 'light') },
      { id: 'tally', name: 'Fold or unfold the tally', group: 'Gristmill', key: 'y', run: () => usePrefs.getState().set({ tallyOpen: !usePrefs.getState().tallyOpen }) },
    ],
    [],
  );
  useActions('common', actions);
}
