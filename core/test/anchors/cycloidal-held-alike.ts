import { timesOf, type Anchored } from './anchor.ts';
import { cycloidal } from './cycloidal.ts';

/** Ring over disc, by turns and by torque. */
const Z_N = 21 / 20;
const { worked, duty } = cycloidal;
const as = timesOf(cycloidal);
const like = 'as with the ring held: the moment on the disc is the same';
const more = 'what the ring gives is a twentieth more than the disc’s moment';
const loss = (1 - worked['back']![0]) / Z_N;

/** The worked disc held by its output pins, under the same moment: all that is loaded alike, told at the ring. */
export const cycloidalHeldAlike: Anchored = {
  kind: 'cycloidal',
  further: true,
  params: { ...cycloidal.params, held: 'disc' },
  duty: {
    ...duty,
    torque: duty.torque * Z_N,
    torqueRms: duty.torqueRms * Z_N,
    equivalent: duty.equivalent! * Z_N,
  },
  worked: {
    pinForce: as('pinForce', 1, like),
    outForce: as('outForce', 1, like),
    bearing: as('bearing', 1, like),
    pressure: as('pressure', 1, like),
    carrying: as('carrying', 1, like),
    life: as('life', 1, 'the same load, and the crank turns against the disc as often'),
    flank: as('flank', 1, 'the same forces slide as far for a turn that goes out'),
    crush: as('crush', Z_N, more),
    dent: as('dent', Z_N, more),
    skip: as('skip', Z_N, more),
    out: as('out', Z_N, more),
    web: as('web', Z_N, more),
    play: as('play', 1 / Z_N, 'the ring turns less than the disc would'),
    stiffness: as('stiffness', Z_N ** 2, 'the same energy for a torque and a turn that are each other’s'),
    stiffnessHeld: as('stiffnessHeld', Z_N ** 2, 'the same'),
    back: [1 - loss, 'as much is rubbed away for a turn, of a torque that is a twentieth more'],
    efficiency: [1 / (1 + loss), 'the same'],
  },
  numbers: {
    drag: [0.01608413858316, 'grease of 92 mm, and two bearings that the crank turns in at 63 radians a second'],
  },
};
