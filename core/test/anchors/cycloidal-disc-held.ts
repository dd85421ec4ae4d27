import type { Anchored } from './anchor.ts';
import { cycloidal } from './cycloidal.ts';

/** The same disc held by its output pins, of which plates on both sides carry the ends; three discs, the ring goes round. */
export const discHeld: Anchored = {
  kind: 'cycloidal',
  further: true,
  params: { ...cycloidal.params, held: 'disc', discs: 3, carriedBy: 'both' },
  duty: cycloidal.duty,
  worked: {
    seat: [
      723.9456,
      'two seats of 8 by 8 mm at half of 70 MPa over what three discs push the worst pin with, 21 for 20',
    ],
    ratio: [21, 'the ring goes on by a pin a turn of the crank'],
    playOut: [0.00005 / (0.02565 * Math.cos(Math.PI / 8)) / 1.05, 'that of the held ring, 20 for 21'],
    shaking: [0, 'three discs a third of a turn apart'],
    couple: [0.0023242002106 * (63 / 60) ** 2 * Math.sqrt(3), 'outer discs √3 times as far as two, at 63 rad/s'],
  },
  numbers: {
    inertiaIn: [3 * 0.0566326 * 0.0012 ** 2, 'three discs of 56.6326 g go round on their throw and do not turn', 1e-5],
    inertiaOut: [1.31281375908347e-4, 'housing π(46² − 36.5²)·29.5 mm³ with 0.85 left, at 43 mm'],
    length: [0.0465, 'three discs, 2 mm, a plate of 8 mm on either side'],
    maxSpeed: [158.73015873, '4 m/s over e·Z'],
  },
};
