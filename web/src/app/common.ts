import { useMemo } from 'react';
import { usePrefs } from '../state/prefs.ts';
import { useActions, type Action } from './actions.ts';
import { useKeySheet, usePalette } from './all-actions.ts';

/** Opens a page by its address. */
const goTo = (address: string) => void import('./router.tsx').then((m) => m.router.navigate(address));

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
      { id: 'keys', name: 'Keys', group: 'Gristmill', key: '?', run: () => useKeySheet.getState().set(true) },
      { id: 'help', name: 'Help', group: 'Gristmill', run: () => goTo('/help') },
      { id: 'method', name: 'How things are worked out', group: 'Gristmill', run: () => goTo('/help/method') },
      {
        id: 'about',
        name: 'About Gristmill: storage, terms, notices',
        group: 'Gristmill',
        run: () => goTo('/help/about'),
      },
      {
        id: 'large',
        name: 'Large figures, to be read across a bench',
        group: 'Gristmill',
        run: () => usePrefs.getState().set({ large: !usePrefs.getState().large }),
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
