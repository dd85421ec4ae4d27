import { makeShelf, type Shelf, type ShopEdits } from '@gristmill/core';
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

export const shelfNow = (): Shelf => useShop.getState().shelf;
export const useShelf = (): Shelf => useShop((s) => s.shelf);
