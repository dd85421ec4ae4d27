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

type Keeps = Pick<Joint, 'factors' | 'materials' | 'bearings' | 'processes'>;
let last: { keeps: Keeps; edits: ShopEdits; joined: ShopEdits; shelf: Shelf } | undefined;

/**
 * The shop as a joint sees it: with what it keeps over the shop's own. The same inputs give the same objects, and so
 * does a joint that keeps nothing but what the shop says.
 */
export function shelfOf(keeps: Keeps | undefined, edits: ShopEdits): { edits: ShopEdits; shelf: Shelf } {
  const { factors, materials, bearings, processes } = keeps ?? {};
  const had = last?.keeps;
  if (
    last?.edits !== edits ||
    had?.factors !== factors ||
    had?.materials !== materials ||
    had?.bearings !== bearings ||
    had?.processes !== processes
  ) {
    const joined = editsFor({ factors, materials, bearings, processes }, edits);
    const shop = useShop.getState();
    const shelf = joined === shop.edits ? shop.shelf : makeShelf(joined);
    last = { keeps: { factors, materials, bearings, processes }, edits, joined, shelf };
  }
  return { edits: last.joined, shelf: last.shelf };
}
