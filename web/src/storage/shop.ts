import { mergeThree, ok, readShopEdits, salvageShop, type Problem, type Result, type ShopEdits } from '@gristmill/core';
import type { StoreName, Vault } from './vault.ts';

const SHOP: readonly StoreName[] = ['shop'];
const KEY = 'edits';

/** The shop's changes as stored, and what of them could not be read. */
export interface LoadedShop {
  readonly edits: ShopEdits;
  /** Set where some of it was damaged: that part was set aside, whole, under the name given here. */
  readonly setAside?: { readonly key: string; readonly leftOut: readonly string[] };
}

/**
 * The reader's changes to the shop. Tabs that change different things change them both; of the same thing the later
 * change counts.
 */
export class ShopStore {
  constructor(private readonly vault: Vault) {}

  /** Reads the changes; what is damaged is set aside as it lies, and the rest stands. */
  load(now = new Date()): Promise<LoadedShop> {
    return this.vault.write(SHOP, async (at) => {
      const raw = await at.get<unknown>('shop', KEY);
      const read = readShopEdits(raw);
      if (read.ok) return { edits: read.value };
      const { edits, leftOut } = salvageShop(raw);
      const key = `damaged ${now.toISOString()}`;
      await at.set('shop', key, raw);
      await at.set('shop', KEY, edits);
      return { edits, setAside: { key, leftOut } };
    });
  }

  /** What was set aside, as it lay. */
  damaged(): Promise<{ key: string; raw: unknown }[]> {
    return this.vault.read(SHOP, async (at) => {
      const out: { key: string; raw: unknown }[] = [];
      for (const key of await at.keys('shop'))
        if (key.startsWith('damaged ')) out.push({ key, raw: await at.get('shop', key) });
      return out;
    });
  }

  forget(key: string): Promise<void> {
    return this.vault.write(SHOP, (at) => at.remove('shop', key));
  }

  /**
   * Stores changes.
   *
   * @param base what this tab changed from
   * @param mine what it made of it
   * @returns what is stored now, other tabs' changes with it; a refusal where the reader would not take it
   */
  async save(base: ShopEdits, mine: ShopEdits): Promise<Result<ShopEdits>> {
    const problem = shopProblem(mine);
    if (problem) return { ok: false, problem };
    return this.vault.write(SHOP, async (at) => {
      const read = readShopEdits(await at.get('shop', KEY));
      const theirs = read.ok ? read.value : base;
      const merged = mergeThree(base, mine, theirs, () => 'mine');
      const next = merged.ok && !shopProblem(merged.value) ? merged.value : mine;
      await at.set('shop', KEY, next);
      return ok(next);
    });
  }
}

/** Why the reader would not take these changes again; undefined where it would. */
export function shopProblem(edits: ShopEdits): Problem | undefined {
  const read = readShopEdits(edits);
  return read.ok ? undefined : read.problem;
}
