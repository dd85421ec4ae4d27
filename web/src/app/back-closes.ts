import { useEffect, useRef } from 'react';
import { useLocation, useNavigate } from 'react-router';

interface Over {
  readonly over?: string;
}

/** What lies over the page by the browser's own account, where the router keeps its state. */
const overNow = (): string | undefined => (window.history.state as { usr?: Over | null } | null)?.usr?.over;

/**
 * Lets Back close what was opened over a page, as it leaves a page: opening it is a step of its own in the history, at
 * the same address.
 *
 * @param name of what lies over the page
 */
export function useBackCloses(name: string, open: boolean, close: () => void): void {
  const { pathname, search, hash, state } = useLocation();
  const navigate = useNavigate();
  const over = (state as Over | null)?.over === name;
  /** Whether its step was asked for, and whether the page has taken it. */
  const step = useRef<'none' | 'asked' | 'taken'>('none');
  useEffect(() => {
    if (open && step.current === 'none') {
      step.current = 'asked';
      void navigate({ pathname, search, hash }, { state: { over: name } });
    } else if (open && step.current === 'asked' && over) {
      step.current = 'taken';
    } else if (open && step.current === 'taken' && !over) {
      step.current = 'none';
      close();
    } else if (!open && step.current !== 'none') {
      step.current = 'none';
      // Closed by its own button: its step is taken back.
      if (over) void navigate(-1);
    }
    // Where the page is while something lies over it is not this one's matter.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [open, over]);
  useEffect(() => {
    if (!open) return;
    /** Back before the page has taken the step closes too: the browser has taken it already. */
    const back = () => {
      if (step.current !== 'asked' || overNow() === name) return;
      step.current = 'none';
      close();
    };
    window.addEventListener('popstate', back);
    return () => window.removeEventListener('popstate', back);
  }, [open, name, close]);
}
