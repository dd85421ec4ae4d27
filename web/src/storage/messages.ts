/** What tabs tell one another. */
export type Message =
  /** A joint has a new save. */
  | { readonly type: 'saved'; readonly id: string; readonly rev: string }
  /** A joint was taken off the shelf, or put back on it. */
  | { readonly type: 'deleted' | 'restored'; readonly id: string }
  /** A tab wants to work on a joint that another holds. */
  | { readonly type: 'wanted'; readonly id: string; readonly by: string }
  /** The holder lets it go, with everything saved or not. */
  | { readonly type: 'handed'; readonly id: string; readonly to: string; readonly whole: boolean }
  /** The shop has changed. */
  | { readonly type: 'shop' };

/** The tabs' channel; absent where the browser has none, which then has one tab. */
export const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('gristmill');

export const tell = (message: Message): void => channel?.postMessage(message);

/** Hears what other tabs tell; returns what stops it. */
export function hear(listen: (message: Message) => void): () => void {
  const take = (event: MessageEvent<Message>) => listen(event.data);
  channel?.addEventListener('message', take);
  return () => channel?.removeEventListener('message', take);
}

/** This tab. */
export const TAB = Math.random().toString(36).slice(2, 10);
