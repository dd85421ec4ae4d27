import type { Anchored } from './anchor.ts';
import { chain } from './chain.ts';

/** The same sprockets over ninety links, an idler in the slack run and two branches on the tight one, one on its outside. */
export const chainBranched: Anchored = {
  kind: 'chain',
  further: true,
  params: {
    ...chain.params,
    links: 90,
    idler: 'inside',
    branch: 'inside',
    branchTeeth: 17,
    branchAlong: 0.4,
    branchLoad: 0.4,
    branch2: 'outside',
    branch2Teeth: 15,
    branch2Along: 0.75,
    branch2Push: 0.006,
    branch2Load: 0.25,
  },
  duty: chain.duty,
  worked: {
    centre: [0.18587300368338636, 'tangents as roots of the distance of two lines, 90 links by bisection'],
    branch: [17 / 15, 'teeth over teeth'],
    branch2: [-1, '15 over 15, turned round outside'],
    mesh: [6.175689969885364, '15 over the wrap of the driving sprocket'],
    tight: [147.15322020746822, '1.65 of 87.88 N, and 187.7 mm of slack'],
    efficiency: [
      0.962364137142877,
      'work of friction at six bends, each under the pull of its own run, over that of 1.65 of the pull on a pitch of way',
    ],
    wear: [583103410.7896538, 'the same bends, 2.5 N·m'],
    shaft: [148.98310261570458, 'tight and slack as vectors'],
    drag: [0.005077912313978699, 'the driven shaft has 92 N: what the branches take goes past it'],
    efficiencyPeak: [0.9602312014565731, 'power out of output and branches over power in'],
    efficiencyPart: [0.9538887476841178, 'the same at a quarter of the torque'],
    play: [0.1294861971283373, 'sag of 187.7 mm, a hundredth of 90 links, 66 µm; over r₂'],
    yield: [57.928803937704856, '0.6 of 3.5 kN on r₂ over 1.65'],
    plates: [15.447681050054628, '0.16 of it'],
    'crush-0': [190.54544359026323, 'of the plain chain over 1.65'],
    'break-0': [347.7562321428048, 'of the plain chain over 1.65'],
    'break-1': [175.32799931196377, 'as in the plain chain'],
  },
  numbers: { branched: [0.65, '0.4 and 0.25'] },
};
