import type { Anchored } from './anchor.ts';
import { spur } from './spur.ts';

/** 17 teeth of steel on 40 printed ones, module 1.5, 15° of helix, shifted by 0.35 and −0.1. */
export const helical: Anchored = {
  kind: 'spur',
  further: true,
  params: {
    ...spur.params,
    z1: 17,
    z2: 40,
    x1: 0.35,
    x2: -0.1,
    helix: Math.PI / 12,
    module: 0.0015,
    width: 0.012,
  },
  duty: spur.duty,
  worked: {
    'crush-1': [26.52050600846887, 'T·(2.75·70 MPa, softened, over the flank pressure)²'],
    ratio: [-40 / 17, 'teeth'],
    'working-1': [0.3814568066862297, 'inv α_wt = inv α_t + 2 tan α·0.25/57, by halving'],
    centre: [0.04462275328917051, 'm_t·57/2·cos α_t/cos α_wt'],
    'contact-1': [1.4518439492264845, 'line of action between tips over π·m_t·cos α_t'],
    'overlap-1': [0.6590772863102462, '12 mm·sin 15°/(1.5π)'],
    play: [
      0.0029061745233588355,
      'gap between teeth as thick as the involute makes them at the working circles, and 7.5 µm',
    ],
    normal1: [7.579487234577781e-5, 'the gap times cos α_t·cos β_b'],
    stiffness: [
      1259.6601972996482,
      'mesh at r_w2, housing over tan² α_wt and hubs of 12 mm, the driving one’s by (40/17)², in series',
    ],
    'stiff-1': [8005239.177158331, 'c′·cos 15°·cos² α_wt and 1.45 of contact, against the straight pair’s'],
    'turn-1': [4.813235015233288e-5, '4·30 µm·tan α_wt'],
    'sliding-1': [1.715921089960819, 'radii of curvature at both ends of contact'],
    'loss-1': [
      0.17387481006286074,
      'friction work of evenly shared contacts, integrated over a base pitch in 400 000 steps',
    ],
    efficiency: [0.9791350227924567, '1 − 0.12 of it'],
    'force-1': [127.73752356924447, 'T/r_w2'],
    radial: [51.23589343355624, 'times tan α_wt'],
    axial: [34.509206013669434, 'T/r₂·tan 15°: the helix leans more at the working circle'],
    'root-1': [23774058.493068, 'ISO 6336-3 with z/(cos² β_b·cos β) teeth, T/r₂, cos² β_b/ε and 1 − ε_β/8'],
    'flank-1': [69555055.49070174, 'ISO 6336-2 with T/r₂ and cos β once under the root, against the straight pair’s'],
    'warm-1': [307.07463882457085, 'VDI 2736-2 with 17 teeth, 12 mm, module 1.5'],
    'skip-1': [
      559.970460089235,
      'housing 2 N/µm over the tips’ overlap less 30 µm, over tan(α_wt − ½·atan 0.12), times r_w2',
    ],
    'tip-d-1': [0.030449542600457118, '17·m_t + 2·1.35·m'],
    'tip-d-2': [0.06481657082460499, '40·m_t + 2·0.9·m'],
    'span-1': [0.007358087963727655, 'm·cos α(1.5π + 17·inv α_t) + 0.7m·sin α − A·cos α'],
    'span-2': [0.02071436117667092, 'm·cos α(4.5π + 40·inv α_t) − 0.2m·sin α − A·cos α'],
    mass: [0.0772132925567503, 'discs from pitch circle to bore, 0.85 left'],
  },
  numbers: {
    outside: [0.09225581000170156, 'centre and both tip radii'],
    length: [0.012, 'the face'],
    maxSpeed: [375.698598733072, '5 m/s at r_w1'],
    inertiaIn: [3.6812078543781794e-6, 'm·r²/2 of the pinion'],
    inertiaOut: [1.686024138874477e-5, 'm·r²/2 of the wheel'],
  },
  checks: {
    'undercut-1': [0.35, -0.094136621084, 'as set; 1 − z·sin² α_t/(2·cos β)'],
    'tip-1': [
      0.00079451882252,
      0.000375,
      'transverse thickness, less 40 µm/cos β, carried out to the tip by inv; a quarter of the module, milled',
    ],
    'undercut-2': [-0.1, -1.5743953468, 'the same of 40 teeth'],
    'tip-2': [0.001179349296, 0.0003, 'the same; a fifth of the module, printed'],
    'contact-1': [2.1109212355, 1.1, 'across, and b·sin β/(π·m) along'],
    'roots-1': [
      0.00038327285438,
      0,
      'where contact begins on the line of action, less where a rack’s straight flank ends',
    ],
    'clear-1': [
      0.00036469657664,
      0.00015,
      'centres by the working angle, less the tip of one and the root of the other; a tenth of the module',
    ],
    'wall-1': [0.0093497713002, 0.0012, 'the root circle less 2.5 mm; eight tenths of the module'],
    'wall-2': [0.025033285412, 0.0012, 'the root circle less 4 mm; eight tenths of the module'],
  },
};
