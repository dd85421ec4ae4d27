import type { Problem, ShopEdits } from '@gristmill/core';
import { note } from '../state/note.ts';
import { refuseChange } from '../state/refusal.ts';
import { useShop } from '../state/shop.ts';
import { useStorage } from './autosave.ts';
import { tell } from './messages.ts';
import { shopStore } from './shelf.ts';
import { shopProblem } from './shop.ts';
import { storageProblem } from './trouble.ts';

let queue: Promise<unknown> = Promise.resolve();
let waiting = 0;
/** What the first of the changes that are on their way changed from. */
let base: ShopEdits | undefined;
/** Whether those were left for a page to come. */
let handed = false;

/** Brings the shop up to what is stored; changes of this tab that are on their way are waited for. */
export async function loadShop(): Promise<void> {
  await queue;
  const { edits, setAside } = await shopStore.load();
  if (waiting === 0) useShop.getState().setEdits(edits);
  if (setAside)
    note(
      `Some of your changes to the shop could not be read: ${setAside.leftOut.slice(0, 2).join('; ')}. They are set aside; the Shop can export them.`,
      { stays: 12_000 },
    );
}

/**
 * Lays changes over the shop and keeps them; changes that could not be read again are refused, for the field they came
 * from to say.
 */
export function changeShop(edits: ShopEdits): Problem | undefined {
  const problem = shopProblem(edits);
  if (problem) {
    refuseChange(problem);
    return problem;
  }
  const before = useShop.getState().edits;
  useShop.getState().setEdits(edits);
  if (waiting++ === 0) base = before;
  queue = queue.then(async () => {
    try {
      const stored = await shopStore.save(before, edits);
      waiting--;
      // What another tab changed meanwhile comes in with the answer.
      if (stored.ok && waiting === 0) useShop.getState().setEdits(stored.value);
      if (handed && waiting === 0) {
        handed = false;
        shopStore.stayed();
      }
      tell({ type: 'shop' });
    } catch (error) {
      waiting--;
      useStorage.setState({ problem: storageProblem(error) });
    }
  });
  return undefined;
}

/** Leaves what is still on its way for the next page as this one goes. Returns what stops it. */
export function startShopKeeping(): () => void {
  const leave = () => {
    if (waiting === 0 || !base) return;
    handed = shopStore.leave(base, useShop.getState().edits);
  };
  globalThis.addEventListener?.('beforeunload', leave);
  return () => globalThis.removeEventListener?.('beforeunload', leave);
}

type Shelves = 'motors' | 'drivers' | 'supplies' | 'materials' | 'bearings' | 'processes' | 'instruments';

/** Puts a thing of the reader's own on a shelf, in place of the one with its identifier. */
export function putOn<K extends Shelves>(shelf: K, thing: NonNullable<ShopEdits[K]>[number]): Problem | undefined {
  const { edits } = useShop.getState();
  return changeShop({
    ...edits,
    [shelf]: [thing, ...((edits[shelf] ?? []) as readonly { readonly id: string }[]).filter((x) => x.id !== thing.id)],
  });
}

/** Takes the reader's own away; what was shipped under its identifier is there again. */
export function takeOff(shelf: Shelves, id: string): void {
  const { edits } = useShop.getState();
  changeShop({
    ...edits,
    [shelf]: ((edits[shelf] ?? []) as readonly { readonly id: string }[]).filter((x) => x.id !== id),
  });
}
