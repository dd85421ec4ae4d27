import { timesOf, type Anchored } from './anchor.ts';
import { rollerWave } from './roller-wave.ts';

/** Ring over cage, by turns and by torque. */
const W_N = 21 / 20;
const { worked } = rollerWave;
const as = timesOf(rollerWave);
const like = 'as with the ring held: the moment on the ring is the same';
const more = 'the moment on the ring goes out, not the cage’s';

/** The same wave with its cage held and its ring turned, under the same moment on the ring. */
export const rollerWaveCageHeld: Anchored = {
  kind: 'roller-wave',
  further: true,
  params: { ...rollerWave.params, held: 'cage' },
  duty: { torque: 4 * W_N, torqueRms: 2 * W_N, speed: 2, equivalent: 2.5 * W_N, meanSpeed: 1 },
  worked: {
    ratio: [21, 'a lobe for each turn of the crank, the same way'],
    force: as('force', 1, like),
    push: as('push', 1, like),
    bearing: as('bearing', 1, like),
    pressure: as('pressure', 1, like),
    carrying: as('carrying', 1, like),
    crush: as('crush', W_N, more),
    dent: as('dent', W_N, more),
    skip: as('skip', W_N, more),
    walls: as('walls', W_N, more),
    play: as('play', 1 / W_N, 'what a cage of 20 turns is what a ring of 21 does, the crank at rest'),
    stiffness: as('stiffness', W_N ** 2, 'the same energy for a torque and a turn that are each other’s'),
    stiffnessHeld: as('stiffnessHeld', W_N ** 2, 'the same'),
    flank: as('flank', 1, 'ring and cage turn on as fast, under the same forces'),
    life: as('life', 1, 'the same load, and the crank turns as often against the sleeve'),
    backward: [
      1 - (1 - worked['backward']![0]) / W_N,
      'as much is rubbed away for a turn, of a torque that is a twentieth more',
    ],
  },
  numbers: {
    inertiaOut: [1.32902833409583e-5, 'π/2·ϱ·(R⁴ − r⁴) of a ring of 60.88 mm round 48.08 mm, 16.5 mm high, 0.85 of it'],
  },
};
