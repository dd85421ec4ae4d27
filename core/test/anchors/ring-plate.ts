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
    eye: [24.379709195918732, '70 MPa on two walls of 3 by 5 mm, a third of it, over the same force'],
    skip: [
      80.37266767885298,
      'half of 50 and 15 N/µm in series over 0.4 mm, over 1.22 of the worst crank’s 56.48 N at 2.4 N·m',
    ],
    efficiencyPeak: [
      0.7554938029502717,
      'power out over power in: 4 mN·m·(77.8/80)² of grease, six bearings of 12 mm at 60 rad/s by Palmgren, at twenty turns',
    ],
    efficiencyPart: [0.6687806262912368, 'the same at a quarter of the torque'],
    stiffnessHeld: [430.56333460378494, 'the same springs, those of plastic at 1000^−0.02'],
    flank: [
      3000294.158397586,
      'a fifteenth of 2·0.4 mm over the work of sliding pins, k_W and the flanks’ length: path in 4·10⁶ steps and 2π·1.32 mm, three plates',
    ],
    crush: [13.69808931632336, 'T·(2.75·70 MPa over the pressure)²'],
    ratio: [-20, 'a wheel of twenty pins goes back one pin a turn of the cranks'],
    hollow: [
      0.0036482758556552674,
      'curvature of 15·e^{it} + 0.4·e^{−20it} mm by central differences of fourth order, least hollow radius',
    ],
    shaking: [0, 'three plates at thirds of a turn'],
    mass: [
      0.07024426985581031,
      'rings of wall, arms to the cranks, two bearings a plate; wheel with 0.85 left; cranks and pins of 16 mm, of both cranks a steel rod of 5 mm',
    ],
    money: [11.973591367825575, 'what is printed by mass, six bearings of 0.9, twenty pins and two rods of 0.2'],
    score: [
      0.968255142,
      'least over most torque at one crank force: each plate’s dual solved by golden section, over a turn',
    ],
    efficiency: [
      0.78962085,
      'pins sliding against the pitch point and journals, on pushes of least energy found by descent in the plane',
    ],
    back: [0.73356942, 'the same losses off what comes in'],
    play: [
      0.015007511782,
      'gap over the longest lever of all plates forwards and back, levers about the pitch point; less 10 µm over Z·e/2',
    ],
    stiffness: [
      494.35285190910986,
      'a newton metre over twice the energy in lobes, pins’ seats, the cranks’ bearings on either side (1569.08) and the plates’ rims (721.74, a frame of 720 beams gives 721.90), least squares over its cut',
    ],
    crankForce: [68.9097637096196, '1.22 of 2.4 over the torque at a newton a crank'],
    pinForce: [26.7677737, 'the largest of those pushes'],
    pressure: [
      80576121.3,
      'Hertz along a line; curvature of the path by its derivatives where each pin stands, shifted by the pin and its gap',
    ],
    life: [12926259274.530426, 'ISO 281: (1330/P)³ with 1.22 of the cubic mean of the cranks’ forces'],
    dead: [19.852048916676683, '570 N times the least torque for a newton, over 1.22'],
  },
  numbers: {
    maxSpeed: [500, '4 m/s over e·Z'],
    inertiaIn: [6.50310995e-9, 'three plates on their throw'],
    inertiaOut: [1.2610774814e-6, 'half the wheel’s mass at its pins'],
    outside: [0.0778, 'two cranks 27.5 mm out, bearings of 16, walls of 3, throws of 0.4 mm'],
    length: [0.017, 'three plates and 2 mm'],
  },
  checks: {
    score: [0.96825514224, 0.3, 'as worked; near a dead point below it'],
    tips: [0.00132, 0.0036482758621, '1.25 mm and 70 µm; as worked'],
    seats: [0.001, 0.00075, 'a body a tenth of a pin inside the pins’ middles, less their inner sides; 0.3 of a pin'],
    wall: [0.00278, 0.001, '27.5 − 8 − (15 + 0.4 + 1.25 + 0.07) mm; a millimetre'],
    bind: [
      0.0034941234145,
      0,
      '70 µm over the longest of N·e·R·sin θ/√(R² + N²e² − 2R·N·e·cos θ) either way, mean over a turn, less 20 µm of place and the root of both squares over 4 mm',
      0.0005,
    ],
    balance: [0, 0.34454814371424963, 'three plates in balance; half the weight'],
    alike: [1, 0.5, '21 lobes do not divide by three plates at thirds'],
    'bearing-width': [0.005, 0.0055, 'of 688; the plate and half a millimetre'],
  },
};
