import type { Anchored } from './anchor.ts';
import { planetary } from './planetary.ts';

/** Two sets in one tube, the first with four fifths of the width. */
export const twoSets: Anchored = {
  kind: 'planetary',
  further: true,
  params: { ...planetary.params, sets: 2, step: 0.8 },
  duty: planetary.duty,
  worked: {
    ratio: [25, 'five times five'],
    efficiency: [0.9225994664 ** 2, 'that of one set, twice'],
    efficiencyBack: [0.9185606172 ** 2, 'the same'],
    play: [0.00335683032 * 1.2, 'the first set’s counts for a fifth'],
    stiffness: [
      1 / (1.05 / 2604.5317120670575 + 1 / 13125000),
      'the first set, four fifths as stiff, behind 25 times the ratio’s square; its sun on 8 mm of shaft, by 625',
    ],
    mass: [0.1526051399, 'wheels by width, a tube of 25.5 mm, four plates, six pins of 15 and 17 mm'],
    money: [25.8582531, 'the same by mass, two suns of 18 milled teeth, six pins of 0.2'],
  },
  numbers: {
    inertiaIn: [
      (6.346067328e-7 + 2.59313334e-5 / 25) * 0.8 + 6.346067328e-7 / 25,
      'first sun and its carrier, a fifth as fast, by width; the second sun on it',
    ],
    inertiaOut: [2.59313334e-5, 'the last carrier with its planets'],
    maxSpeed: [694.4444444, 'planets of the first set turn as those of one alone'],
    length: [0.0325, '18 mm of teeth, four plates of 3 mm, five gaps of half a millimetre'],
  },
  limits: {
    'planet pins bend or bores crush': [
      102.8571428571,
      'the last set’s: the first carries a fifth on four fifths of the width',
    ],
  },
};
