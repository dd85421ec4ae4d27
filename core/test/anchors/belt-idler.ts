import type { Anchored } from './anchor.ts';
import { beltOpen } from './belt-open.ts';

/** The open belt with a flat idler of 17 mm on the back of its slack span, 2 mm in. */
export const beltIdler: Anchored = {
  kind: 'belt',
  further: true,
  params: { ...beltOpen.params, idler: 'outside', idlerDiameter: 0.017, idlerBore: 0.004 },
  duty: beltOpen.duty,
  worked: {
    length: [
      0.29765434251353884,
      'directed tangents of three circles from one another, the idler’s to the belt’s pitch line',
    ],
    wrap: [2.6626289430356245, 'between the headings of its tangents'],
    takeUpTension: [0.0004, 'half a hundredth of 80 mm'],
    idlerOn: [0.0037137161565384087, '0.4 mm of the shafts are 772 µm of belt: halving of that length over the push'],
    idlerBack: [0.002, 'all of its push gives 105 µm, a flange asks for 2.64 mm'],
    idlerPull: [13.417147503009183, '126.9 N on both sides of 0.1058 rad'],
  },
};
