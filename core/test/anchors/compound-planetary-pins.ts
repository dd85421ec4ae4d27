import type { Anchored } from './anchor.ts';
import { compoundPlanetary } from './compound-planetary.ts';

/**
 * The same stage with friction on its planets' pins: 0.12 under what an even bed of 26 mm is pressed with, summed by Simpson
 * over 200 000 places; powers of a planet and torques of the free carrier balanced by halving.
 */
export const onPins: Anchored = {
  kind: 'compound-planetary',
  further: true,
  params: compoundPlanetary.params,
  duty: compoundPlanetary.duty,
  worked: {
    pinLoss: [
      0.3728445708093887,
      'three times 0.12·17.26 N·2.5 mm, 24 turns; rings push inwards, 0.6 of F·13 mm leans each planet',
    ],
    efficiency: [0.5940746041890912, 'the balance with that friction'],
    efficiencyBack: [0.3461319830928269, 'the same with the driven ring pushing'],
    'force-ring2': [68.14814814814814, 'what goes out is the same'],
    'force-ring1': [61.49903233483249, 'K_γ·T_h/(N·r) of the balance'],
    'force-sun': [9.559426216225546, 'K_γ·T_s/(N·r) of the balance'],
    pv: [5.457455379539117, '0.1 W/mm² over 1.15·17.26 N on 5·26 mm² at 24·2 rad/s·2.5 mm'],
  },
};

/** Driven at the carrier, whose pins push by what both rings differ. */
export const carrierOnPins: Anchored = {
  kind: 'compound-planetary',
  further: true,
  params: { ...compoundPlanetary.params, drive: 'carrier', planets: 2 },
  duty: compoundPlanetary.duty,
  worked: {
    pinLoss: [0.35182835484824587, 'the same of two planets, 24.43 N each'],
    efficiency: [0.6245669169676455, 'the same balance'],
    efficiencyBack: [0.3806864838385148, 'the same with the driven ring pushing'],
  },
};
