import type { Anchored } from './anchor.ts';
import { worm } from './worm.ts';

/** The same worm with its axes 50 µm further apart, which gives play and takes contact. */
export const wormApart: Anchored = {
  kind: 'worm',
  further: true,
  params: { ...worm.params, centreExtra: 5e-5 },
  duty: worm.duty,
  worked: {
    centre: [0.05755, '2.5(16 + 30)/2 mm and 50 µm'],
    normal: [9.0583572e-5, '60 µm·cos 20° + 2·50 µm·sin 20°'],
    play: [0.0027089364, 'normal play on the circle and half the end play, over 37.5 mm'],
    contact: [1.7997055066, 'tips where they cross the straight line of contact, over π·m_n·cos α'],
    skip: [1011.920778, 'housing 2 N/µm over 2·2.5 mm less 50 µm'],
  },
  numbers: { outside: [0.12005, 'both pitch circles, an addendum of 2.5 at either end, and 50 µm'] },
  checks: {
    contact: [1.7997055066, 1.1, 'as worked; usual'],
    clear: [0.000675, 0.00025, 'a quarter of the module and 50 µm; a tenth'],
    roots: [
      8.262708649e-5,
      0,
      'the wheel’s: the worm’s tip on the straight line of contact, less where a rack’s straight flank ends',
    ],
    length: [0.035, 0.021268101473, 'as set; twice the line of contact’s way along the worm at a tip, and a pitch'],
    'bearing-clear': [0.04955, 0.035464771253, '57.55 − 8 mm; the wheel’s tips 18.5 mm beside its middle'],
    bind: [4.8775056e-5, 0, 'play on the circle less the root of both squares: 30 µm·√2/cos γ, 2·30 µm·tan 20°/cos γ'],
  },
};
