import type { Anchored } from './anchor.ts';
import { worm } from './worm.ts';

/** The same worm printed in one with its shaft. */
export const wormOwnShaft: Anchored = {
  kind: 'worm',
  further: true,
  params: { ...worm.params, material1: 'pa-cf', bore1: 0 },
  duty: worm.duty,
  worked: {
    shaft: [710.0536823338462, '70 MPa on π·d³/32 of the roots’ 33.75 mm, which the same forces bend'],
    bend: [2.2974872299210513e-7, 'beam of 4.5 GPa on two supports 42 mm apart, as thick as its roots'],
  },
};
