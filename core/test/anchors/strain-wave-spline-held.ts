import { timesOf, type Anchored } from './anchor.ts';
import { strainWave } from './strain-wave.ts';

/** Ring over cup, by turns and by torque. */
const C_F = 42 / 40;
const { worked, duty } = strainWave;
const as = timesOf(strainWave);
const like = 'as with the ring held: the cup’s moment is the same';
const more = 'the ring gives 42 for 40 of the cup';
const loss = (1 - worked['back']![0]) / C_F;

/** The same cup bolted down, under the same moment: all that is loaded and turns alike, told at the ring that goes out. */
export const strainWaveSplineHeld: Anchored = {
  kind: 'strain-wave',
  further: true,
  params: { ...strainWave.params, held: 'spline' },
  duty: {
    ...duty,
    torque: duty.torque * C_F,
    torqueRms: duty.torqueRms * C_F,
    equivalent: duty.equivalent! * C_F,
  },
  worked: {
    ratio: [21, 'the ring goes on by two teeth of 42'],
    carrying: as('carrying', 1, like),
    toothForce: as('toothForce', 1, like),
    radial: as('radial', 1, like),
    rise: as('rise', 1, 'the generator passes the cup as often'),
    drag: as('drag', 1, 'the same'),
    life: as('life', 1, 'the same, under the same push'),
    wear: as('wear', 1, 'teeth go in and out as often for a turn that goes out'),
    wall: as('wall', 1, 'as many waves, and the same moment in the cup'),
    shear: as('shear', C_F, more),
    skip: as('skip', C_F, more),
    dent: as('dent', C_F, more),
    buckle: as('buckle', C_F, more),
    play: as('play', 1 / C_F, 'the ring turns less than the cup would'),
    errorOnce: as('errorOnce', 1 / C_F, 'the same'),
    errorTwice: as('errorTwice', 1 / C_F, 'the same'),
    k1: as('k1', C_F ** 2, 'the same energy for a torque and a turn that are each other’s'),
    k2: as('k2', C_F ** 2, 'the same'),
    k3: as('k3', C_F ** 2, 'the same'),
    back: [1 - loss, 'as much is rubbed away for a turn, of a torque that is a twentieth more'],
    efficiency: [1 / (1 + loss), 'the same'],
  },
};
