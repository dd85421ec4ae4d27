import { editsFor, makeShelf, type Joint, type Shelf, type ShopEdits } from '@gristmill/core';
import { create } from 'zustand';

interface ShopState {
  edits: ShopEdits;
  shelf: Shelf;
  setEdits(edits: ShopEdits): void;
}

/** The shop shared by all joints: as shipped, with the reader's changes. */
export const useShop = create<ShopState>((set) => ({
  edits: {},
  shelf: makeShelf(),
  setEdits: (edits) => set({ edits, shelf: makeShelf(edits) }),
}));

let last: { factors: Joint['factors']; edits: ShopEdits; joined: ShopEdits; shelf: Shelf } | undefined;

/**
 * The shop as a joint sees it: with the factors it keeps over the shop's own. The same inputs give the same objects.
 */
export function shelfOf(factors: Joint['factors'], edits: ShopEdits): { edits: ShopEdits; shelf: Shelf } {
  if (last?.factors !== factors || last?.edits !== edits) {
    const joined = editsFor({ factors }, edits);
    last = { factors, edits, joined, shelf: makeShelf(joined) };
  }
  return { edits: last.joined, shelf: last.shelf };
}
