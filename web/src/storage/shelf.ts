import { jointCheck } from '../state/check.ts';
import { kindsKnown } from '../state/kinds.ts';
import { FoundSets } from './found.ts';
import { JointShelf } from './joints.ts';
import { LiveRecordings } from './live.ts';
import { Recordings } from './recordings.ts';
import { ShopStore } from './shop.ts';
import { BrowserVault } from './vault.ts';
import { watched } from './watched.ts';

export const vault = new BrowserVault();
/** What a person waits for is watched; recordings of millions of samples may take their time. */
const quick = watched(vault);

/** The joints of this browser. */
export const jointShelf = new JointShelf(quick, kindsKnown, jointCheck);
/** Their recordings. */
export const recordings = new Recordings(vault);
export const liveRecordings = new LiveRecordings(vault);
/** What searches for lines found. */
export const foundSets = new FoundSets(vault);
/** The reader's changes to the shop. */
export const shopStore = new ShopStore(quick);
