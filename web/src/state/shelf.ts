import type { Shelf, ShopEdits } from '@gristmill/core';
import { useOpen } from './open.ts';
import { shelfOf, useShop } from './shop.ts';

/** The shop as the open joint sees it; the shop itself where none is open. */
export const useShelf = (): Shelf => useSeen().shelf;

/** The changes behind that shelf, for the workers. */
export const useEdits = (): ShopEdits => useSeen().edits;

function useSeen(): { edits: ShopEdits; shelf: Shelf } {
  const factors = useOpen((s) => s.joint?.factors);
  const materials = useOpen((s) => s.joint?.materials);
  const bearings = useOpen((s) => s.joint?.bearings);
  const processes = useOpen((s) => s.joint?.processes);
  const edits = useShop((s) => s.edits);
  return shelfOf({ factors, materials, bearings, processes }, edits);
}

export const shelfNow = (): Shelf => shelfOf(useOpen.getState().joint, useShop.getState().edits).shelf;
