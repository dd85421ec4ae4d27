import type { Shelf, ShopEdits } from '@gristmill/core';
import { useOpen } from './open.ts';
import { shelfOf, useShop } from './shop.ts';

/** The shop as the open joint sees it; the shop itself where none is open. */
export function useShelf(): Shelf {
  const factors = useOpen((s) => s.joint?.factors);
  const edits = useShop((s) => s.edits);
  return shelfOf(factors, edits).shelf;
}

/** The changes behind that shelf, for the workers. */
export function useEdits(): ShopEdits {
  const factors = useOpen((s) => s.joint?.factors);
  const edits = useShop((s) => s.edits);
  return shelfOf(factors, edits).edits;
}

export const shelfNow = (): Shelf => shelfOf(useOpen.getState().joint?.factors, useShop.getState().edits).shelf;
