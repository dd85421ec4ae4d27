import { useCallback, useSyncExternalStore } from 'react';

/** Whether a media query holds, told anew as it changes. */
export function useMedia(query: string): boolean {
  const follow = useCallback(
    (told: () => void) => {
      const list = matchMedia(query);
      list.addEventListener('change', told);
      return () => list.removeEventListener('change', told);
    },
    [query],
  );
  return useSyncExternalStore(follow, () => matchMedia(query).matches);
}

/** Whether there is room for one column only, as the stylesheet has it: a phone, or a page at twice its size. */
export const useCompact = (): boolean => useMedia('(max-width: 767px), (max-height: 520px)');
