import type { Anchored } from './anchor.ts';
import { worm } from './worm.ts';

/** The same worm pressed into its wheel by a spring of 20 N. */
export const wormSpring: Anchored = {
  kind: 'worm',
  further: true,
  params: { ...worm.params, playBy: 'spring' },
  duty: worm.duty,
  worked: {
    play: [0.0001333333333, 'half of the shaft’s end play of 10 µm, on 37.5 mm'],
    lifts: [2.044284413, '20 N over what 4 N·m press the axes apart with'],
  },
};
