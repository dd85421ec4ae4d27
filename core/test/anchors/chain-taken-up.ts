import type { Anchored } from './anchor.ts';
import { chain } from './chain.ts';

/** The same chain taken up as it wears: nothing of its elongation is left. */
export const chainTakenUp: Anchored = {
  kind: 'chain',
  further: true,
  params: { ...chain.params, takeUp: 'centre' },
  duty: chain.duty,
  worked: {
    play: [0.003025123492, 'sag of 1.5 % over the span: 8/3·f²·L; and 0.02 of a roller in its seats, over r₂'],
  },
};
