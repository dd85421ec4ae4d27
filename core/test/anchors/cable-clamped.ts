import type { Anchored } from './anchor.ts';
import { cable } from './cable.ts';

/** A thinner cable led over pulleys, its runs of 60 and 140 mm, clamped in the middle of ten turns on its driving drum. */
export const cableClamped: Anchored = {
  kind: 'cable',
  further: true,
  params: {
    ...cable.params,
    cable: 0.0008,
    preload: 40,
    radius1: 0.008,
    radius2: 0.06,
    path: 'open',
    runsBy: 'given',
    runA: 0.06,
    runB: 0.14,
    wraps: 10,
    hold: 'clamped',
    range: Math.PI / 2,
    bore1: 0.004,
  },
  duty: { torque: 3, torqueRms: 2, speed: 2, equivalent: 2.5, meanSpeed: 1, swing: 1 },
  worked: {
    ratio: [60.4 / 8.4, '60.4 over 8.4, the same way round'],
    run: [0.06, 'as given'],
    tight: [69.515898259, '49.67 N shared by springs: 160.2 and 240.2 mm of cable, each behind a clamp of 1.5 N/µm'],
    slack: [19.8470240868, 'what is left'],
    needs: [20.1529759132, '40.6 % of the pull'],
    hangs: [5.9544555856, '40 N over 0.4057, on 60.4 mm'],
    runs: [1556.5482666667, 'the free runs of 17.9 kN to a strain'],
    stiffness: [341.38022545352396, 'both springs on 60.4 mm, and ½·E·d²·L of both drums'],
    fleet: [0.0131817761, 'half of 1.582 mm over the shorter run'],
    width: [0.0143819048, '10 turns and what 1.8 turns wind on either side of the clamp, 0.88 mm each, two rims'],
    stores: [7.8643842587, 'nine turns of 8.4 mm on 60.4 mm'],
    breaks: [15.153152, '0.7 of 358.4 N: the other run hangs by then'],
  },
  numbers: {
    stiffnessBeyond: [250.12523729753178, 'the pulling run alone, and both drums'],
    bendTorque: [5.9544555856, 'as it hangs'],
  },
};
