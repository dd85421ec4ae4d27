import type { ShopEdits } from '@gristmill/core';
import { useShop } from '../../state/shop.ts';
import { useStorage } from '../../storage/autosave.ts';
import { saveShop } from '../../storage/shelf.ts';
import { storageProblem } from '../../storage/trouble.ts';

/** Lays changes over the shop and keeps them. */
export function changeShop(edits: ShopEdits): void {
  useShop.getState().setEdits(edits);
  saveShop(edits).catch((error: unknown) => useStorage.setState({ problem: storageProblem(error) }));
}

type Shelves = 'motors' | 'materials' | 'bearings' | 'instruments';

/** Puts a thing of the reader's own on a shelf, in place of the one with its identifier. */
export function putOn<K extends Shelves>(shelf: K, thing: NonNullable<ShopEdits[K]>[number]): void {
  const { edits } = useShop.getState();
  changeShop({ ...edits, [shelf]: [thing, ...((edits[shelf] ?? []) as readonly { readonly id: string }[]).filter((x) => x.id !== thing.id)] });
}

/** Takes the reader's own away; what was shipped under its identifier is there again. */
export function takeOff(shelf: Shelves, id: string): void {
  const { edits } = useShop.getState();
  changeShop({ ...edits, [shelf]: ((edits[shelf] ?? []) as readonly { readonly id: string }[]).filter((x) => x.id !== id) });
}
