import type { Anchored } from './anchor.ts';
import { chain } from './chain.ts';

/** The same sprockets over eighty links, taken up by an idler of eleven teeth outside. */
export const chainIdler: Anchored = {
  kind: 'chain',
  further: true,
  params: { ...chain.params, links: 80, takeUp: 'centre', idler: 'outside', idlerTeeth: 11, idlerBore: 0.004 },
  duty: chain.duty,
  worked: {
    centre: [
      0.1555651659988989,
      'directed tangents of three pitch circles, a pitch a tooth on each, 80 links by bisection',
    ],
    takeUp: [0.0077682264308525, '3 % of 508 mm over twice the cosine of the lean'],
    idlerOn: [0.028191517309519222, 'halving of that length, 15.24 mm, over the push'],
    idlerBack: [0.006, 'all of its push gives 442 µm, laying the chain on asks for half a pitch'],
    idlerPull: [14.359790465004716, '89.58 N on both sides of 0.1605 rad'],
  },
};
