import { useEffect } from 'react';

/** Names the page in the browser's tab and history, what is most its own first. */
export function useTitle(...parts: readonly (string | undefined)[]): void {
  const title = [...parts.filter(Boolean), 'Gristmill'].join(' · ');
  useEffect(() => {
    document.title = title;
  }, [title]);
}
