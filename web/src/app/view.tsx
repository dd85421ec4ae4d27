import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import { useOpen } from '../state/open.ts';
import { serverLost, useServer } from '../state/server.ts';
import { saveNow } from '../storage/autosave.ts';

const RELOADED = 'gristmill-reloaded';

/** Loads a part of the app; where the server has stopped it waits until it is back. */
async function fromServer<T>(load: () => Promise<T>): Promise<T> {
  try {
    const part = await load();
    sessionStorage.removeItem(RELOADED);
    return part;
  } catch {
    await serverLost();
    try {
      return await load();
    } catch (error) {
      // The browser remembers that it failed, or the server has another version by now: the page is loaded anew, once,
      // as soon as nothing would be lost by it.
      await saveNow();
      const { joint, save } = useOpen.getState();
      if ((joint && save !== 'saved') || sessionStorage.getItem(RELOADED)) throw error;
      sessionStorage.setItem(RELOADED, '1');
      window.location.reload();
      return new Promise<T>(() => undefined);
    }
  }
}

/** A view that is loaded when it is first looked at. */
// The props of a view are its own; nothing here looks at them.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export const view = <C extends ComponentType<any>>(load: () => Promise<{ default: C }>): LazyExoticComponent<C> =>
  lazy(() => fromServer(load));

/** Shown while a view comes. */
export function Coming() {
  const stopped = useServer((s) => s.stopped);
  if (!stopped) return <h1 className="label p-6">Laying out the sheet…</h1>;
  return (
    <main role="status" className="max-w-[38rem] p-6">
      <h1 className="text-[16px]">The server that Gristmill came from has stopped.</h1>
      <p className="pt-2">
        This view has not been loaded yet. What you have made is stored in this browser and is safe. Start the server
        again with <span className="num">npm run demo</span>: the view comes by itself when it answers.
      </p>
    </main>
  );
}
