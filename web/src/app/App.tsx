import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { SharedPatterns } from '../parts/Scale.tsx';
import { usePrefs } from '../state/prefs.ts';
import { useShop } from '../state/shop.ts';
import { startAutosave, useStorage } from '../storage/autosave.ts';
import { loadShop } from '../storage/shelf.ts';
import { storageProblem } from '../storage/trouble.ts';
import { listenForKeys } from './actions.ts';
import { usePalette } from './all-actions.ts';
import { router } from './router.tsx';

const AllActions = lazy(() => import('./AllActions.tsx'));
const client = new QueryClient({ defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, networkMode: 'always' } } });

export function App() {
  const sheet = usePrefs((s) => s.sheet);
  const palette = usePalette((s) => s.open);
  useEffect(() => {
    document.documentElement.dataset['sheet'] = sheet;
  }, [sheet]);
  useEffect(() => startAutosave(), []);
  useEffect(() => listenForKeys(), []);
  // A joint keeps the factors it is computed with, so the shop must be there before one is opened.
  const [ready, setReady] = useState(false);
  useEffect(() => {
    loadShop()
      .then((edits) => useShop.getState().setEdits(edits))
      .catch((error: unknown) => useStorage.setState({ problem: storageProblem(error) }))
      .finally(() => setReady(true));
  }, []);
  return (
    <QueryClientProvider client={client}>
      <SharedPatterns />
      {ready ? <RouterProvider router={router} /> : null}
      {palette ? <Suspense fallback={null}><AllActions /></Suspense> : null}
      <Toaster position="bottom-center" toastOptions={{ unstyled: true, classNames: { toast: 'flex items-center gap-4 border border-[var(--ink)] bg-[var(--panel)] px-4 py-2 text-[13.5px] rounded-[2px]', actionButton: 'underline underline-offset-3' } }} />
    </QueryClientProvider>
  );
}
