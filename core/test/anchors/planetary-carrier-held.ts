import type { Anchored } from './anchor.ts';
import { planetary } from './planetary.ts';

/** Carrier held, sun drives the ring: four planets on ball bearings that share by nothing floating. */
export const carrierHeld: Anchored = {
  kind: 'planetary',
  further: true,
  params: {
    ...planetary.params,
    arrangement: 'sun-ring',
    planets: 4,
    zs: 20,
    zp: 26,
    zr: 72,
    floating: 'none',
    pins: 'ball',
    bearing: '623',
    pin: 0.003,
  },
  duty: planetary.duty,
  worked: {
    ratio: [-3.6, 'teeth'],
    share: [1.3225, 'a planet more than two: 1.15 each'],
    gap: [0.004526911934581186, '2a·sin 45° − m(26 + 2)'],
    'contact-ring': [1.9400691354940278, 'lengths of the line of action between tips over the base pitch'],
    'loss-sun': [0.18728191870273686, 'friction work integrated over a base pitch'],
    'loss-ring': [0.07534455792194512, 'the same; before the pitch point contact is longer than a base pitch'],
    efficiency: [
      0.9680192418735961,
      'T_s = (1/η_r·26/72 + balls of 0.003·1.5 mm under all pins’ force)/(η_s·26/20), over 3.6',
    ],
    'force-sun': [
      37.94977364293768,
      'T·K_γ/(4·36 mm), and 3.6 times 0.2869548 of the sun instead of one: planets balanced, losses in',
    ],
    'force-ring': [36.73611111111111, 'T·K_γ/(4·36 mm)'],
    pinForce: [73.99990158388593, 'both meshes push, 1.2869548 of the output’s torque'],
    pinStress: [55833837.63147483, 'F·16 mm/8 over π·d³/32'],
    life: [5734676050.342684, '(630 N over the pin’s force at 2.5 N·m)³·10⁶ turns at 72/26 rad/s'],
    stiffness: [
      2150.1503187065923,
      'meshes and ring at 36 mm; pins of 3 mm in their seats, bearings of 50 in seats of 15 N/µm, twist and plate of the carrier with its 92/72 of the torque; the sun on its shaft by 3.6²',
    ],
    lean: [0.0004718855862473495, 'half the carrier’s torque over its twist, as a lean over 13 mm'],
    playOne: [0.0044444444444444444, '2·80 µm at 36 mm'],
  },
  numbers: {
    maxSpeed: [
      500,
      '5 m/s at 13 mm of planets that turn 72/26 times for a turn of the ring, 3.6 times slower than the sun',
    ],
    inertiaOut: [
      1.4149767023536919e-5,
      'π/2·ϱ·(R⁴ − r⁴) of a ring of 40.25 mm round 36.125 mm, 10 mm wide, 0.85 of it',
    ],
    inertiaIn: [9.82606733e-7, 'm·r²/2 of the sun, that of the spur pair’s pinion'],
  },
  checks: {
    gap: [0.0045269119346, 0.0005, '2a·sin 45° less a planet over its tips; half a module'],
    'undercut-sun': [0, -0.16981012994, '1 − z·sin² 20°/2'],
    'undercut-planet': [0, -0.52074346526, 'the same of 26 teeth'],
    'tip-sun': [0.00065087998457, 0.00025, 'thickness carried out to the tip by inv; a quarter of the module'],
    'contact-sun': [1.5888649304, 1.1, 'lengths of the line of action over the base pitch; usual'],
    'roots-sun': [0.00053116736924, 0, 'where contact begins, less where a rack’s straight flank ends'],
    'tips-ring': [
      0.012788840644,
      0,
      'the planet rolled until its tip’s corner crosses the ring’s tip circle: angle about the ring to the ring’s corner',
    ],
    'bearing-bore': [0, 1e-5, '623 on a pin of 3 mm; 10 µm'],
    'bearing-width': [0.004, 0.011, 'of 623; the face and a millimetre'],
  },
};
