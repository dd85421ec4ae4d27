import type { ShopEdits } from '@gristmill/core';
import { JointShelf } from './joints.ts';
import { forageStore } from './store.ts';

/** The joints of this browser. */
export const jointShelf = new JointShelf(forageStore('joints'), forageStore('history'));

const shop = forageStore('shop');

export const loadShop = async (): Promise<ShopEdits> => (await shop.get<ShopEdits>('edits')) ?? {};
export const saveShop = (edits: ShopEdits): Promise<void> => shop.set('edits', edits);
