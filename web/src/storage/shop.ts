import { mergeThree, ok, readShopEdits, salvageShop, type Problem, type Result, type ShopEdits } from '@gristmill/core';
import { Left } from './left.ts';
import type { StoreName, Tx, Vault } from './vault.ts';

const SHOP: readonly StoreName[] = ['shop'];
const KEY = 'edits';
/** Under which a page that goes leaves what it has not stored yet. */
const LEFT = 'shop';

/** Changes to the shop: what a tab changed from, and what it made of it. */
interface Change {
  readonly base: ShopEdits;
  readonly mine: ShopEdits;
}

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
  constructor(
    private readonly vault: Vault,
    private readonly left = new Left(),
  ) {}

  /** Reads the changes, those of a page that went with them; what is damaged is set aside as it lies, the rest stands. */
  async load(now = new Date()): Promise<LoadedShop> {
    const left = this.left.read(LEFT) as Change | undefined;
    const loaded = await this.vault.write(SHOP, async (at) => {
      const raw = await at.get<unknown>('shop', KEY);
      const read = readShopEdits(raw);
      let found: LoadedShop;
      if (read.ok) found = { edits: read.value };
      else {
        const { edits, leftOut } = salvageShop(raw);
        const key = `damaged ${now.toISOString()}`;
        await at.set('shop', key, raw);
        await at.set('shop', KEY, edits);
        found = { edits, setAside: { key, leftOut } };
      }
      return !left || shopProblem(left.mine) ? found : { ...found, edits: await lay(at, left) };
    });
    this.left.forget(LEFT);
    return loaded;
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
    return this.vault.write(SHOP, async (at) => ok(await lay(at, { base, mine })));
  }

  /**
   * Leaves what a page that goes has not stored yet; whoever loads the shop next takes it in.
   *
   * @returns false where there is no room for it
   */
  leave(base: ShopEdits, mine: ShopEdits): boolean {
    const left: Change = { base, mine };
    return this.left.keep(LEFT, left);
  }

  /** The page did not go, and has stored what it would have left. */
  stayed(): void {
    this.left.forget(LEFT);
  }
}

/** Lays a change over what is stored by now, and gives what is stored then. */
async function lay(at: Tx, { base, mine }: Change): Promise<ShopEdits> {
  const read = readShopEdits(await at.get('shop', KEY));
  const merged = mergeThree(base, mine, read.ok ? read.value : base, () => 'mine');
  const next = merged.ok && !shopProblem(merged.value) ? merged.value : mine;
  await at.set('shop', KEY, next);
  return next;
}

/** Why the reader would not take these changes again; undefined where it would. */
export function shopProblem(edits: ShopEdits): Problem | undefined {
  const read = readShopEdits(edits);
  return read.ok ? undefined : read.problem;
}
