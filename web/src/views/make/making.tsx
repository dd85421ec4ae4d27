import { useState } from 'react';
import { toast } from 'sonner';

/** Work that makes files: what it is at, how far it is, and how to stop it. */
interface Busy {
  readonly doing: string;
  readonly share: number;
  readonly stop: AbortController;
}

/** Says how far a piece of work is. */
export type Says = (doing: string, share: number) => void;

/**
 * Work that makes files, one at a time: shown while it lasts, stopped on demand, and told of where it fails.
 *
 * @param what what could not be made, as a sentence begins
 */
export function useMaking(what: string): {
  readonly busy: Busy | undefined;
  readonly make: (first: string, work: (says: Says, signal: AbortSignal) => Promise<void>) => Promise<void>;
} {
  const [busy, setBusy] = useState<Busy | undefined>();
  const make = async (first: string, work: (says: Says, signal: AbortSignal) => Promise<void>) => {
    const stop = new AbortController();
    setBusy({ doing: first, share: 0, stop });
    // Word of how far it is may come after the end: then it is about nothing.
    const says: Says = (doing, share) => setBusy((b) => (b?.stop === stop ? { doing, share, stop } : b));
    try {
      await work(says, stop.signal);
    } catch (error) {
      toast(
        stop.signal.aborted
          ? 'Stopped; nothing was written.'
          : `${what}: ${error instanceof Error ? error.message : 'the worker ended'}. Try a coarser surface.`,
      );
    } finally {
      setBusy(undefined);
    }
  };
  return { busy, make };
}

/** How far work is, with a way to stop it. */
export function BusyNote({ busy }: { busy: Busy }) {
  return (
    <span className="font-normal" role="status">
      {busy.doing}: {(busy.share * 100).toFixed(0)} %{' '}
      <button type="button" className="btn-quiet" onClick={() => busy.stop.abort()}>
        Stop
      </button>
    </span>
  );
}
