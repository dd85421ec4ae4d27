import type { Anchored } from './anchor.ts';
import { screw } from './screw.ts';

const { duty } = screw;

/** The same screw fixed at both ends, its thrust on a plain collar, with two nuts that 150 N press apart. */
export const screwTwoNuts: Anchored = {
  kind: 'screw',
  further: true,
  params: { ...screw.params, nut: 'double', preload: 150, collar: 'plain', ends: 'fixed-fixed' },
  duty,
  worked: {
    torque: [0.2648561904725, 'up the plane on 3.5 mm, and 0.12 of the thrust on 5 mm'],
    lower: [0.1358680835654, 'down it, and the collar'],
    efficiency: [0.2403643166625, 'work out over work in'],
    play: [5e-6, 'half of ten micrometres of the bearing; the nuts have none'],
    opens: [300, 'springs of like stiffness: one is free where the other is pressed twice as far'],
    pressure: [1515761.36278, '250 N of one nut on 7.5 turns, 1 mm deep'],
    stiffness: [11432486.009818, 'two halves of the bar, each behind a bearing of 10 N/µm; twist; both nuts; coupling'],
    stiffnessHeld: [10454202.91869, 'the nuts of POM at 1000^−0.05'],
    drag: [0.1246812764634, '150 N up and down the thread, which the collar does not feel, and four 608'],
    euler: [6465.129146594, '4·π²·E·I/L²'],
    buckles: [4525.5904026158, 'seven tenths of it'],
    whirl: [2762.3887542643, '(x/L)²·√(EI/ρA), cosh x·cos x = 1', 3e-5],
    yields: [4519.7296064669, 'von Mises of 370 MPa with what the collar takes as well'],
    strips: [8096.8003619415, 'of one nut: the other has long let go'],
    crushes: [10225.884087435, 'the same'],
    wears: [1493834.8802941, 'as of one nut under 100 N, at 200 N: preload and half of the load'],
  },
  numbers: {
    bendTorque: [300, 'as one nut lets go'],
    stiffnessBeyond: [9318682.331539, 'with one nut'],
  },
};

/** Balls in the same two nuts, on the same collar. */
export const screwBallNuts: Anchored = {
  kind: 'screw',
  further: true,
  params: { ...screwTwoNuts.params, type: 'ball', ends: 'fixed-supported' },
  duty,
  worked: {
    torque: [0.1907355302631, '200 N by 2 mm/(2π·0.9) and 0.12 of it on 5 mm'],
    lower: [0.0690704182106, 'the collar’s 0.12 N·m less what 200 N give back'],
    efficiency: [0.3337709400496, 'work out over work in: the collar takes most'],
    opens: [424.2640687119, '2^1.5 of 150 N'],
    drag: [0.0179580145564374, '150 N by 2 mm/2π·(1/0.9 − 0.8), and three 608'],
    rolls: [1463268108.9284, 'ISO 3408-5: 206.04 N of one nut at 100 N; (4000/206.04)³·10⁶ turns at five a second'],
    dents: [7000, 'of one nut: the other has long let go'],
  },
};
