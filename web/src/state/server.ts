import { create } from 'zustand';

/** How often a server that has stopped is asked whether it is there again, ms. */
const ASK_EVERY = 1500;

/**
 * Whether the server that Gristmill came from answers. It is needed for parts that have not been loaded yet, and for
 * the bridge; nothing that is stored depends on it.
 */
export const useServer = create<{ stopped: boolean }>(() => ({ stopped: false }));

let back: Promise<void> | undefined;

/** Whether the server answers now. */
async function serverAnswers(): Promise<boolean> {
  try {
    const answer = await fetch('/health', { cache: 'no-store' });
    return answer.ok;
  } catch {
    return false;
  }
}

/**
 * Called when something did not come from the server: says so, and asks until it answers. The promise settles when it
 * does.
 */
export function serverLost(): Promise<void> {
  return (back ??= (async () => {
    while (!(await serverAnswers())) {
      useServer.setState({ stopped: true });
      await new Promise((done) => setTimeout(done, ASK_EVERY));
    }
    useServer.setState({ stopped: false });
    back = undefined;
  })());
}
