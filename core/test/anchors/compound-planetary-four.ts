import type { Anchored } from './anchor.ts';
import { compoundPlanetary } from './compound-planetary.ts';

/** Four planets instead of three: the worst of them carries more than its share twice over. */
export const fourPlanets: Anchored = {
  kind: 'compound-planetary',
  further: true,
  params: { ...compoundPlanetary.params, planets: 4 },
  duty: compoundPlanetary.duty,
  worked: {
    ratio: [45, 'as with three'],
    'force-ring2': [(4 * 1.15 ** 2) / (4 * 0.0225), 'T·1.15²/(4·22.5 mm)'],
  },
};
