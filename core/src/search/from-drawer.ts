import type { Drawer } from '../shop/drawer.ts';
import type { Part } from '../stage/contract.ts';

/** A part of a stage that lies in the drawer. */
export interface FromDrawer {
  readonly name: string;
  /** How many are needed, and how many of those are there. */
  readonly needed: number;
  readonly there: number;
  /** What those would cost, in the reader's money. */
  readonly saves: number;
}

/**
 * What of a line's bought parts lies in the drawer. Parts of several stages share what is there, the first ones first.
 *
 * @param parts of all stages of a line
 * @returns one entry a designation that is there; none where nothing is
 * @example
 * const parts = [{ name: 'Bearing 6001', quantity: 3, money: 2, stocked: { shelf: 'bearings', id: '6001' } }];
 * fromDrawer(parts, { bearings: { 6001: 2 } })[0].saves // 4
 */
export function fromDrawer(
  parts: readonly Pick<Part, 'name' | 'quantity' | 'money' | 'stocked'>[],
  drawer: Drawer,
): FromDrawer[] {
  const found = new Map<string, { name: string; needed: number; there: number; saves: number }>();
  for (const { name, quantity, money, stocked } of parts) {
    const have = stocked ? (drawer[stocked.shelf]?.[stocked.id] ?? 0) : 0;
    if (!stocked || !(have > 0)) continue;
    const key = `${stocked.shelf} ${stocked.id}`;
    const known = found.get(key) ?? { name, needed: 0, there: 0, saves: 0 };
    const taken = Math.min(quantity, have - known.there);
    found.set(key, {
      name: known.name,
      needed: known.needed + quantity,
      there: known.there + taken,
      saves: known.saves + taken * money,
    });
  }
  return [...found.values()];
}
