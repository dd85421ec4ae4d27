import type { Anchored } from './anchor.ts';

/** Three plates of twenty lobes on two cranks about a wheel of pins on 30 mm. */
export const ringPlate: Anchored = {
  kind: 'ring-plate',
  params: {
    pins: 20,
    circle: 0.03,
    pin: 0.0025,
    throw: 0.0004,
    plates: 3,
    spread: 'even',
    layout: 'both',
    distance: 0.0275,
    width: 0.005,
    offset: 0.00007,
    pinsRun: 'fixed',
    bearing: '688',
    materialP: 'pa-cf',
    materialW: 'silver-steel',
    materialH: 'pa-cf',
    wall: 0.003,
    bore: 0.008,
  },
  duty: { torque: 2.4, torqueRms: 1.1, speed: 3, equivalent: 1.3, meanSpeed: 1.2 },
  worked: {
    ratio: [-20, 'a wheel of twenty pins goes back one pin a turn of the cranks'],
    hollow: [
      0.0036482758556552674,
      'curvature of 15·e^{it} + 0.4·e^{−20it} mm by central differences of fourth order, least hollow radius',
    ],
    shaking: [0, 'three plates at thirds of a turn'],
  },
  open: [
    'back',
    'crankForce',
    'dead',
    'efficiency',
    'flank',
    'life',
    'mass',
    'money',
    'pinForce',
    'play',
    'pressure',
    'score',
    'stiffness',
  ],
};
