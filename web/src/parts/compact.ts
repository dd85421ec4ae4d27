import { useSyncExternalStore } from 'react';

/** As the stylesheet has it. */
const query = typeof matchMedia === 'undefined' ? undefined : matchMedia('(max-width: 767px), (max-height: 520px)');

/** Whether there is room for one column only: a phone, or a page at twice its size. */
export const useCompact = (): boolean =>
  useSyncExternalStore(
    (told) => {
      query?.addEventListener('change', told);
      return () => query?.removeEventListener('change', told);
    },
    () => query?.matches ?? false,
  );
