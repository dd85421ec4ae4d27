import type { PlanetsOut } from '../../gear/planets-out.ts';
import type { Toothing } from '../../gear/toothing.ts';
import { isBall, isNeedle } from '../../shop/bearings.ts';
import { amount, fromShop, group, length, material, oneOf, whole, yesNo, type ParamTable } from '../param.ts';
import {
  hubShape,
  screwHole,
  screws,
  springForce,
  thinning,
  toothFormParams,
  toothingParams,
  pinMaterial,
  pinsLie,
} from '../shared-params.ts';

/** Parameters of a planetary stage, SI units. */
export interface PlanetaryParams extends Toothing {
  /** Which member drives and which is driven; the third is held. */
  arrangement: 'sun-carrier' | 'sun-ring' | 'ring-carrier' | 'ring-sun' | 'carrier-sun' | 'carrier-ring';
  /** Teeth, sun. */
  zs: number;
  /** Teeth, planet. */
  zp: number;
  /** Teeth, ring. */
  zr: number;
  /** Number of planets. */
  planets: number;
  /** Planets evenly spaced, or at the nearest places that assemble. */
  spacing: 'even' | 'stepped';
  /** Equal sets one after the other, each carrier the next sun. */
  sets: number;
  /** Width of a set over that of the next one, towards the output. */
  step: number;
  /** Member that is left free to centre itself. */
  floating: 'none' | 'sun' | 'ring' | 'carrier';
  /** Profile shift factor, sun. */
  xs: number;
  /** Profile shift factor, planet. */
  xp: number;
  /** Tooth-thickness allowance, sun, m. */
  allowanceS: number;
  /** Tooth-thickness allowance, planet, m. */
  allowanceP: number;
  /** Tooth-thickness allowance, ring, m. */
  allowanceR: number;
  /** How the play is taken out. */
  takenOut: PlanetsOut;
  /** Force of the springs that do so, along the circle, for each planet, N. */
  preload: number;
  /** Material of the shop, sun. */
  materialS: string;
  /** Material of the shop, planets. */
  materialP: string;
  /** Material of the shop, ring. */
  materialR: string;
  /** Material of the shop, planets’ pins. */
  materialPins: string;
  /** How printed pins are printed. */
  pinsLie: 'upright' | 'lying';
  /** Planets run on the pin, or on a ball or needle bearing each. */
  pins: 'plain' | 'ball' | 'needle';
  /** Pin diameter, m. */
  pin: number;
  /** Bearing of a planet, by designation. */
  bearing: string;
  /** Thickness of a carrier plate, m. */
  plate: number;
  /** Wall of the ring outside its roots, m. */
  rim: number;
  /** Bore of the sun, m. */
  boreS: number;
  /** Bore, sun. */
  shapeS: 'round' | 'flat' | 'keyway';
  /** Screws through the ring’s wall. */
  boltsR: number;
  /** Hole for a screw, m. */
  boltHole: number;
  /** Nut traps in the ring. */
  nuts: 'no' | 'yes';
  /** Screws of the output flange on the carrier. */
  boltsC: number;
  /** Bolt circle of the output flange, m. */
  boltCircleC: number;
  /** Mesh efficiencies from friction, or as given. */
  meshBy: 'friction' | 'given';
  /** Efficiency of the sun’s mesh, as given. */
  etaS: number;
  /** Efficiency of the ring’s mesh, as given. */
  etaR: number;
}
type P = PlanetaryParams;

/** What each parameter is, how it is bounded and edited. */
export const planetaryParams: ParamTable<P> = {
  ...group('Members', {
    arrangement: oneOf({
      says: 'Which member drives and which is driven; the third is held',
      label: 'Runs as',
      help: 'What drives and what is driven; the third member is held.',
      start: 'sun-carrier',
      options: [
        ['sun-carrier', 'sun in, carrier out'],
        ['sun-ring', 'sun in, ring out'],
        ['ring-carrier', 'ring in, carrier out'],
        ['ring-sun', 'ring in, sun out'],
        ['carrier-sun', 'carrier in, sun out'],
        ['carrier-ring', 'carrier in, ring out'],
      ],
    }),
    planets: whole({
      says: 'Number of planets',
      label: 'Planets',
      help: 'More share the load, less evenly.',
      start: 3,
      least: 2,
      most: 12,
    }),
    spacing: oneOf({
      says: 'Planets evenly spaced, or at the nearest places that assemble',
      label: 'Spacing',
      help: 'Even where (sun + ring) divides by the planets; otherwise the nearest places that assemble.',
      start: 'even',
      options: [
        ['even', 'Even'],
        ['stepped', 'Nearest that fits'],
      ],
    }),
    sets: whole({
      says: 'Equal sets one after the other, each carrier the next sun',
      label: 'Sets',
      help: 'Equal sets in one ring tube; each carrier is the next sun.',
      start: 1,
      least: 1,
      most: 4,
    }),
    step: amount('efficiency', {
      says: 'Width of a set over that of the next one, towards the output',
      label: 'Width step',
      help: 'Width of a set over the next one’s.',
      start: 1,
      least: 0.2,
      most: 1,
      step: 0.05,
      when: (p: P) => p.sets > 1,
    }),
    floating: oneOf({
      says: 'Member that is left free to centre itself',
      label: 'Floating',
      help: 'A member left free to centre itself shares the load among three planets.',
      start: 'sun',
      options: [
        ['none', 'None'],
        ['sun', 'Sun'],
        ['ring', 'Ring'],
        ['carrier', 'Carrier'],
      ],
    }),
  }),
  ...group('Teeth', {
    zs: whole({ says: 'Teeth, sun', label: 'Sun', help: 'Teeth of the sun.', start: 18, least: 5, most: 400 }),
    zp: whole({ says: 'Teeth, planet', label: 'Planet', help: 'Teeth of a planet.', start: 27, least: 5, most: 400 }),
    zr: whole({
      says: 'Teeth, ring',
      label: 'Ring',
      help: 'Sun plus two planets, or one or two off with shift.',
      start: 72,
      least: 5,
      most: 600,
    }),
    ...toothingParams,
  }),
  ...group('Shift and play', {
    xs: amount('count', {
      says: 'Profile shift factor, sun',
      label: 'Shift, sun',
      help: 'The ring’s shift follows from the centre distance.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
    }),
    xp: amount('count', {
      says: 'Profile shift factor, planet',
      label: 'Shift, planets',
      help: 'A shift takes undercut off small wheels.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
    }),
    allowanceS: thinning({
      says: 'Tooth-thickness allowance, sun',
      label: 'Thinner, sun',
      help: 'Tooth-thickness allowance: taken off each tooth; makes play, and room for the process.',
      start: 4e-5,
    }),
    allowanceP: thinning({
      says: 'Tooth-thickness allowance, planet',
      label: 'Thinner, planets',
      help: 'Tooth-thickness allowance: taken off each tooth.',
      start: 4e-5,
    }),
    allowanceR: thinning({
      says: 'Tooth-thickness allowance, ring',
      label: 'Thinner, ring',
      help: 'Tooth-thickness allowance: taken off each tooth.',
      start: 4e-5,
    }),
    takenOut: oneOf<PlanetsOut, P>({
      says: 'How the play is taken out',
      label: 'Play taken out',
      help: 'By springs that turn two halves of a wheel apart, or that push every second planet along its circle (anti-backlash).',
      start: 'none',
      absent: 'none',
      late: true,
      options: [
        ['none', 'Not at all'],
        ['sun', 'Split sun, sprung halves'],
        ['ring', 'Split ring, sprung halves'],
        ['planets', 'Split planets, sprung halves'],
        ['pairs', 'Pairs of planets pushed apart'],
      ],
    }),
    preload: springForce(
      'Along the circle, for each planet; a pushed pin gets twice that, for its two meshes.',
      (p: P) => p.takenOut !== 'none',
    ),
  }),
  ...group('Made of', {
    materialS: material({ says: 'sun', label: 'Sun', start: 'c45' }),
    materialP: material({ says: 'planets', label: 'Planets', start: 'pa-cf' }),
    materialR: material({ says: 'ring', label: 'Ring, carrier', start: 'pa-cf' }),
    materialPins: pinMaterial(),
    pinsLie: pinsLie(),
  }),
  ...group('Pins and carrier', {
    pins: oneOf({
      says: 'Planets run on the pin, or on a ball or needle bearing each',
      label: 'Planets on',
      help: 'Plain bores are light and cheap; bearings run longer and cooler.',
      start: 'plain',
      options: [
        ['plain', 'Plain bore'],
        ['ball', 'Ball bearing'],
        ['needle', 'Needle bearing'],
      ],
    }),
    pin: length({
      says: 'Pin diameter',
      label: 'Pin',
      help: 'Ground rod, held at both ends.',
      start: 6e-3,
      least: 5e-4,
      most: 0.1,
    }),
    bearing: fromShop({
      says: 'Bearing of a planet, by designation',
      label: 'Bearing',
      help: 'Its bore is the pin’s; needles run on the pin itself, which must be hard and ground.',
      start: '623',
      options: (p, shelf) =>
        shelf.bearings
          .filter((b) => (p.pins === 'needle' ? isNeedle(b) : isBall(b)))
          .map((b) => ({ value: b.id, label: b.name })),
      when: (p: P) => p.pins !== 'plain',
    }),
    plate: length({
      says: 'Thickness of a carrier plate',
      label: 'Carrier plate',
      help: 'Thickness of each of the two plates.',
      start: 3e-3,
      least: 5e-4,
      most: 0.1,
    }),
    rim: length({
      says: 'Wall of the ring outside its roots',
      label: 'Ring wall',
      help: 'Outside the roots.',
      start: 2.5e-3,
      least: 5e-4,
      most: 0.2,
    }),
  }),
  ...group('Bores and screws', {
    boreS: length({
      says: 'Bore of the sun',
      label: 'Sun’s bore',
      help: 'Motor shaft; 0 for a sun on its own shaft.',
      start: 5e-3,
      least: 0,
      most: 0.3,
    }),
    shapeS: hubShape({
      says: 'Bore, sun',
      label: 'Sun’s bore is',
      start: 'flat',
      when: (p: P) => p.boreS > 0,
    }),
    boltsR: screws({
      says: 'Screws through the ring’s wall',
      label: 'Screws, ring',
      help: 'Through the ring’s wall.',
    }),
    boltHole: screwHole<P>(),
    nuts: yesNo({
      says: 'Nut traps in the ring',
      label: 'Nut traps',
      help: 'Hexagons in the ring for ISO 4032 nuts.',
      start: 'no',
      when: (p: P) => p.boltsR > 0,
    }),
    boltsC: screws({
      says: 'Screws of the output flange on the carrier',
      label: 'Screws, output',
      help: 'In the output flange on the carrier.',
    }),
    boltCircleC: length({
      says: 'Bolt circle of the output flange',
      label: 'Their circle',
      help: 'Diameter.',
      start: 0.02,
      least: 0,
      most: 1,
      when: (p: P) => p.boltsC > 0,
    }),
  }),
  ...group('Losses', {
    meshBy: oneOf({
      says: 'Mesh efficiencies from friction, or as given',
      label: 'Mesh losses',
      help: 'From the shop’s tooth friction, or as measured.',
      start: 'friction',
      options: [
        ['friction', 'From friction'],
        ['given', 'As given'],
      ],
    }),
    etaS: amount('efficiency', {
      says: 'Efficiency of the sun’s mesh, as given',
      label: 'Sun’s mesh',
      help: 'Efficiency of the sun’s mesh, its bearings included.',
      start: 0.985,
      least: 0.5,
      most: 1,
      step: 5e-3,
      when: (p: P) => p.meshBy === 'given',
    }),
    etaR: amount('efficiency', {
      says: 'Efficiency of the ring’s mesh, as given',
      label: 'Ring’s mesh',
      help: 'Efficiency of the ring’s mesh, its bearings included.',
      start: 0.99,
      least: 0.5,
      most: 1,
      step: 5e-3,
      when: (p: P) => p.meshBy === 'given',
    }),
  }),
  ...toothFormParams,
};

export type Member = 'sun' | 'ring' | 'carrier';

/** Input, output and held member of an arrangement. */
export function roles(p: Pick<PlanetaryParams, 'arrangement'>): { input: Member; output: Member; held: Member } {
  const [input, output] = p.arrangement.split('-') as [Member, Member];
  return { input, output, held: (['sun', 'ring', 'carrier'] as const).find((m) => m !== input && m !== output)! };
}
