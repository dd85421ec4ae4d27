import type { Anchored } from './anchor.ts';
import { compoundPlanetary } from './compound-planetary.ts';

/** Driven at the carrier, two planets: nine to one, the sun away. */
export const carrierDriven: Anchored = {
  kind: 'compound-planetary',
  further: true,
  params: { ...compoundPlanetary.params, drive: 'carrier', planets: 2 },
  factors: { 'pin.friction': 0 },
  duty: compoundPlanetary.duty,
  worked: {
    ratio: [9, '1/(1 − 48·15/(18·45))'],
    efficiency: [0.7973348870594321, '1/9 over 1 − 8/9·η₁·η₂: power goes from ring two to ring one'],
    efficiencyBack: [0.7374810180406101, 'nine times 1 − 8/9/(η₁·η₂)'],
    playOne: [0.006518518518518519, '80 µm at 22.5 mm, and at 24 mm seen through 8/9'],
    'force-ring2': [88.88888888888889, 'two planets share evenly'],
    'force-ring1': [71.72057261066212, '8/9·η₁·η₂ of the torque'],
  },
};
