import { readShopEdits, type ShopEdits } from '@gristmill/core';
import { JointShelf } from './joints.ts';
import { forageStore } from './store.ts';

/** The joints of this browser. */
export const jointShelf = new JointShelf(forageStore('joints'), forageStore('history'));

const shop = forageStore('shop');

/** The reader's changes to the shop; damaged ones are left where they are and the shop is as shipped. */
export async function loadShop(): Promise<ShopEdits> {
  const read = readShopEdits(await shop.get('edits'));
  return read.ok ? read.value : {};
}

export const saveShop = (edits: ShopEdits): Promise<void> => shop.set('edits', edits);
