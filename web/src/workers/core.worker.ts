import { analyseLine, findingsOf, makeShelf, movers, playSpread, ratioDesk, stageKind, waysOut, type Joint, type Shelf, type ShopEdits } from '@gristmill/core';
import { registerKinds } from '@gristmill/core/stage/kinds';
import { expose } from 'comlink';
import type { CoreApi } from './api.ts';

let kept: { key: string; shelf: Shelf } | undefined;

/** Building the shelf costs more than a line; the same edits give the same shelf. */
function shelfFor(edits: ShopEdits): Shelf {
  const key = JSON.stringify(edits);
  if (kept?.key !== key) kept = { key, shelf: makeShelf(edits) };
  return kept.shelf;
}

const api: CoreApi = {
  line: async (brief, variant, shop) => {
    const shelf = shelfFor(shop);
    const start = performance.now();
    const report = analyseLine({ brief } as Joint, variant, shelf);
    return { report, ms: performance.now() - start };
  },
  findings: async (joint, shop) => findingsOf(joint, shelfFor(shop)),
  desk: async (brief, variant, shop, each, holds) => {
    const shelf = shelfFor(shop);
    return { rows: ratioDesk({ brief }, variant, shelf, each, 4, holds), reach: waysOut({ brief }, variant, shelf, each ** Math.max(1, variant.stages.length), holds) };
  },
  play: async (ratios, play, samples) => {
    const start = performance.now();
    const spread = playSpread(ratios.map((ratio) => ({ ratio })), play, samples);
    return { spread, ms: performance.now() - start };
  },
  courses: async (kind, params, duty, shop) => {
    const made = stageKind(kind)?.courses?.(params, duty, shelfFor(shop));
    return made?.ok ? made.value : [];
  },
  map: async (kind, params, duty, shop) => {
    const made = stageKind(kind)?.map?.(params, duty, shelfFor(shop));
    return made?.ok ? made.value : undefined;
  },
  movers: async (joint, variant, shop, at, onProgress) => {
    let told = 0;
    return movers(joint, variant, shelfFor(shop), at, 3, (share) => {
      if (share - told >= 0.1) {
        told = share;
        onProgress(share);
      }
      return true;
    });
  },
};

registerKinds();
expose(api);
