import type { Anchored } from './anchor.ts';
import { rack } from './rack.ts';

/**
 * Twelve rollers of 3.2 mm on pins of 1.92, set in by 10 µm, on the same rack; flanks of two million points, each a
 * roller's radius beside the way of its middle, curvatures by three of them.
 */
export const rackRollers: Anchored = {
  kind: 'rack',
  further: true,
  params: {
    ...rack.params,
    form: 'rollers',
    z: 12,
    module: 2e-3,
    roller: 3.2e-3,
    width: 0.01,
    back: 0.012,
    bore: 8e-3,
  },
  duty: rack.duty,
  worked: {
    contact: [1.73286, 'flanks end at 51.986°, at 0.88 of where they would meet', 1e-5],
    efficiency: [
      0.9905973158,
      '0.02 on the way along the flank over the way along the rack, mean over a contact',
      1e-6,
    ],
    play: [0, 'rollers touch both flanks'],
    opens: [211.842849, 'n = 1: 2·10.592 N/µm·10 µm; pin by Mohr’s integral, 5/384 of an even push', 1e-6],
    braking: [4.236856981, '0.02 of it', 1e-6],
    efficiencyPeak: [0.9700554688, 'power out over power in: 4.24 N at 12 mm and grease of 27.2 mm', 1e-6],
    efficiencyPart: [0.9132422258, 'the same at a quarter of the force', 1e-6],
    stiffness: [6941265.4, 'two flanks, their pins, axes by tan 12.996°, shaft bent and twisted, hub', 2e-6],
    shaft: [1091.7588863369906, '350 MPa on π·8³/32 mm³ over √(12² + (12·tan 12.996°)² + ¾·12²) mm', 5e-6],
    radial: [46.160586, '200 N·tan of the mean lean, 12.996°', 5e-6],
    crush: [
      130.907,
      'Hertz where a flank is as round as its roller, less what sets in behind: 2·171.37 − 211.84 N',
      1e-4,
    ],
    flank: [10563337, 'the same against 1.5·370 MPa·(N_L/N)^0.0756, a tooth met each 300 mm', 1e-3],
    pin: [224.849803, '8·450 MPa·π·1.92³/32/10 mm, leaning by half of 51.986°', 1e-6],
    mass: [0.3508964775, '0.85 of the disc; the bar with gaps by trapezes', 2e-4],
    money: [14.60537886, 'material, half a unit a roller, an eighth for each of 52 gaps', 1e-4],
  },
  numbers: {
    stiffnessBeyond: [5228190.8, 'one flank and one pin instead of two', 2e-6],
    bendTorque: [211.842849, 'where those behind let go', 1e-6],
    inertiaIn: [1.931883446576139e-6, '0.85 of a disc of 12 by 10 mm, bored 8'],
    outside: [0.0376, 'rollers reach to 13.6 mm, pitch line at 12, 12 mm behind it'],
  },
  checks: {
    contact: [1.73286, 1, 'as worked; one on either side', 1e-5],
    land: [0.00053970507, 0.0004, 'pitch less both flanks at their ends; a fifth of the module', 1e-4],
    wall: [0.0064, 0.0016, '12 − 1.6 − 4 mm; eight tenths of the module'],
    back: [0.012, 0.0046, 'as set; half a roller and a module and a half'],
  },
};
