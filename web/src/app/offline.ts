import { toast } from 'sonner';
import { registerSW } from 'virtual:pwa-register';
import { create } from 'zustand';
import { useOpen } from '../state/open.ts';
import { saveNow } from '../storage/autosave.ts';

/** Whether the app works without its server: all of it is kept by the browser. */
export const useOffline = create<{ ready: boolean }>(() => ({
  ready: typeof navigator !== 'undefined' && Boolean(navigator.serviceWorker?.controller),
}));

/** How often a page that stays open looks whether a newer version has come, ms. */
const LOOK_EVERY = 3_600_000;

/** Stores what is open, then loads the newer version; where something cannot be stored it stays. */
async function takeNewer(load: (reload: boolean) => Promise<void>): Promise<void> {
  await saveNow();
  const { joint, save } = useOpen.getState();
  if (joint && save !== 'saved' && save !== undefined) {
    toast('Your last changes are not stored yet, so this version stays. Export the joint, then reload the page.');
    return;
  }
  await load(true);
}

/** Has the browser keep the app for work without its server, and offers a newer version when one has come. */
export function startOffline(): void {
  const load = registerSW({
    onNeedRefresh: () =>
      void toast('A newer version of Gristmill has come. What you have made is kept.', {
        id: 'newer-version',
        duration: Infinity,
        action: { label: 'Reload with it', onClick: () => void takeNewer(load) },
      }),
    onOfflineReady: () => useOffline.setState({ ready: true }),
    onRegisteredSW: (_url, registration) => {
      if (!registration) return;
      const look = () => navigator.onLine && void registration.update().catch(() => undefined);
      setInterval(look, LOOK_EVERY);
      document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && look());
    },
    // A browser without it, or one told not to: the app needs its server then, as before.
    onRegisterError: () => undefined,
  });
}
