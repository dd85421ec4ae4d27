import { useMemo } from 'react';
import { usePrefs } from '../state/prefs.ts';
import { useActions, type Action } from './actions.ts';
import { usePalette } from './all-actions.ts';

const NONE: readonly Action[] = [];

/**
 * Actions that every page has. A page shown inside another that has them already says so: leaving it must not take them
 * away.
 */
export function useCommonActions(nested = false): void {
  const actions = useMemo<Action[]>(
    () => [
      {
        id: 'palette',
        name: 'All actions',
        group: 'Gristmill',
        key: 'ctrl+k',
        run: () => usePalette.getState().set(true),
      },
      {
        id: 'sheet',
        name: 'Light or dark sheet',
        group: 'Gristmill',
        key: 't',
        run: () => usePrefs.getState().setSheet(usePrefs.getState().sheet === 'light' ? 'dark' : 'light'),
      },
      {
        id: 'tally',
        name: 'Fold or unfold the tally',
        group: 'Gristmill',
        key: 'y',
        run: () => usePrefs.getState().set({ tallyOpen: !usePrefs.getState().tallyOpen }),
      },
    ],
    [],
  );
  useActions(nested ? 'common-nested' : 'common', nested ? NONE : actions);
}
