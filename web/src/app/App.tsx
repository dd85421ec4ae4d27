import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { RouterProvider } from 'react-router';
import { toast, Toaster } from 'sonner';
import { SharedPatterns } from '../parts/Scale.tsx';
import { usePrefs } from '../state/prefs.ts';
import { showNotes } from '../state/note.ts';
import { useServer } from '../state/server.ts';
import { startAutosave, useStorage } from '../storage/autosave.ts';
import { hear } from '../storage/messages.ts';
import { beforeOpening, startHolding, tidyUp } from '../storage/upkeep.ts';
import { SILENT } from '../storage/watched.ts';
import { loadShop, startShopKeeping } from '../storage/edit-shop.ts';
import { storageProblem } from '../storage/trouble.ts';
import { setSizer } from '../state/open.ts';
import { inBatches } from '../workers/batches.ts';
import { sizeInWorker } from '../workers/sizing.ts';
import { listenForKeys } from './actions.ts';
import { useKeySheet, usePalette } from './all-actions.ts';
import { router } from './router.tsx';
import { view } from './view.tsx';

showNotes(({ text, id, stays }) => void toast(text, { ...(id && { id }), ...(stays && { duration: stays }) }));

notifyManager.setScheduler(inBatches());
setSizer(sizeInWorker);

const AllActions = view(() => import('./AllActions.tsx'));
const KeySheet = view(() => import('./KeySheet.tsx'));
/** What waits beside the page until it is wanted: it comes after what was asked for. */
// Where the server has gone before it came, the page does without.
const Beside = lazy(() => import('./Beside.tsx').catch(() => ({ default: () => null })));
const client = new QueryClient({
  defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, networkMode: 'always' } },
});

export function App() {
  const sheet = usePrefs((s) => s.sheet);
  const palette = usePalette((s) => s.open);
  const keys = useKeySheet((s) => s.open);
  const large = usePrefs((s) => s.large);
  const [settled, setSettled] = useState(false);
  useEffect(() => {
    document.documentElement.dataset['sheet'] = sheet;
  }, [sheet]);
  useEffect(() => {
    document.documentElement.toggleAttribute('data-large', large);
  }, [large]);
  useEffect(() => {
    const wanted = () => setSettled(true);
    const later = setTimeout(wanted, 2500);
    // A file that is dragged in wants its taker at once, and never takes the page's place.
    const keep = (e: Event) => e.preventDefault();
    window.addEventListener('dragenter', wanted, { once: true });
    window.addEventListener('dragover', keep);
    window.addEventListener('drop', keep);
    return () => {
      clearTimeout(later);
      window.removeEventListener('dragenter', wanted);
      window.removeEventListener('dragover', keep);
      window.removeEventListener('drop', keep);
    };
  }, []);
  useEffect(() => startAutosave(), []);
  useEffect(() => startShopKeeping(), []);
  useEffect(() => startHolding(), []);
  useEffect(() => listenForKeys(), []);
  // A joint keeps the factors it is computed with, so the shop must be there before one is opened.
  const [ready, setReady] = useState(false);
  useEffect(() => {
    // Storage that does not answer must not keep the page from saying so.
    const late = setTimeout(() => setReady(true), SILENT);
    beforeOpening()
      .then(loadShop)
      .catch((error: unknown) => useStorage.setState({ problem: storageProblem(error) }))
      .finally(() => (clearTimeout(late), setReady(true)));
    const stop = hear((m) => m.type === 'shop' && void loadShop().catch(() => undefined));
    // Not while the first page is being laid out.
    const tidy = () => void tidyUp().catch(() => undefined);
    const later = setTimeout(tidy, 4000);
    const now = setInterval(tidy, 60_000);
    return () => (stop(), clearTimeout(late), clearTimeout(later), clearInterval(now));
  }, []);
  // What failed for want of the server is asked for again when it is back.
  useEffect(
    () =>
      useServer.subscribe(
        (now, before) =>
          before.stopped &&
          !now.stopped &&
          void client.refetchQueries({ predicate: (q) => q.state.status === 'error' }),
      ),
    [],
  );
  return (
    <QueryClientProvider client={client}>
      <SharedPatterns />
      {ready ? <RouterProvider router={router} /> : null}
      {palette ? (
        <Suspense fallback={null}>
          <AllActions />
        </Suspense>
      ) : null}
      {keys ? (
        <Suspense fallback={null}>
          <KeySheet />
        </Suspense>
      ) : null}
      {settled && ready ? (
        <Suspense fallback={null}>
          <Beside />
        </Suspense>
      ) : null}
      <Toaster
        position="bottom-center"
        toastOptions={{
          unstyled: true,
          classNames: {
            toast:
              'font-sans flex items-center gap-4 border border-[var(--ink)] bg-[var(--panel)] px-4 py-2 text-[13.5px] rounded-[2px]',
            actionButton: 'shrink-0 whitespace-nowrap underline underline-offset-3',
          },
        }}
      />
    </QueryClientProvider>
  );
}
