import type { TakenOut } from '../../gear/taken-out.ts';
import type { Toothing } from '../../gear/toothing.ts';
import { amount, group, length, material, oneOf, whole, yesNo, type ParamTable } from '../param.ts';
import {
  hubShape,
  screwHole,
  screws,
  takenOutParams,
  thinning,
  toothFormParams,
  toothingParams,
} from '../shared-params.ts';

const deg = Math.PI / 180;

/** Parameters of a spur or helical pair, with or without idlers, SI units. */
export interface SpurParams extends Toothing {
  /** The driven wheel has outside teeth, or is a ring. */
  form: 'outside' | 'ring';
  /** Teeth, driving wheel. */
  z1: number;
  /** Teeth, driven wheel. */
  z2: number;
  /** Idlers between them. */
  idlers: number;
  /** Teeth, idler. */
  zi: number;
  /** How far the row of centres bends at each idler, rad. */
  bend: number;
  /** What is given: both shifts, or the centre distance. */
  setBy: 'shifts' | 'centre';
  /** Wanted centre distance of the pair, m. */
  centre: number;
  /** How a shift sum is shared. */
  split: 'sliding' | 'undercut' | 'even';
  /** Profile shift factor, driving wheel. */
  x1: number;
  /** Profile shift factor, driven wheel. */
  x2: number;
  /** Profile shift factor, idlers. */
  xi: number;
  /** Tooth-thickness allowance, driving wheel, m. */
  allowance1: number;
  /** Tooth-thickness allowance, driven wheel, m. */
  allowance2: number;
  /** How the play of the mesh is taken out. */
  takenOut: TakenOut;
  /** Force of the springs that take it out, N. */
  preload: number;
  /** Taper of the teeth, rad. */
  taper: number;
  /** Material of the shop, driving wheel and idlers. */
  material1: string;
  /** Material of the shop, driven wheel. */
  material2: string;
  /** Wall of a ring outside its roots, m. */
  rim: number;
  /** Bore of the driving wheel, m. */
  bore1: number;
  /** Bore, driving wheel. */
  shape1: 'round' | 'flat' | 'keyway';
  /** Bore of the driven wheel, m. */
  bore2: number;
  /** Bore, driven wheel. */
  shape2: 'round' | 'flat' | 'keyway';
  /** Screws through the driven wheel. */
  bolts2: number;
  /** Bolt circle of the driven wheel, m. */
  boltCircle2: number;
  /** Hole for a screw, m. */
  boltHole: number;
  /** Nut traps in the driven wheel. */
  nuts: 'no' | 'yes';
}
type P = SpurParams;

/** What each parameter is, how it is bounded and edited. */
export const spurParams: ParamTable<P> = {
  ...group('Teeth', {
    form: oneOf({
      says: 'The driven wheel has outside teeth, or is a ring',
      label: 'Driven wheel',
      help: 'A ring keeps the direction and is compact.',
      start: 'outside',
      options: [
        ['outside', 'Outside teeth'],
        ['ring', 'Ring'],
      ],
    }),
    z1: whole({ says: 'Teeth, driving wheel', label: 'Driving wheel', help: 'Teeth.', start: 20, least: 5, most: 400 }),
    z2: whole({ says: 'Teeth, driven wheel', label: 'Driven wheel', help: 'Teeth.', start: 60, least: 5, most: 600 }),
    idlers: whole({
      says: 'Idlers between them',
      label: 'Idlers',
      help: 'Change direction and distance, never the ratio.',
      start: 0,
      least: 0,
      most: 4,
    }),
    zi: whole({
      says: 'Teeth, idler',
      label: 'Idler',
      help: 'Teeth of each idler.',
      start: 20,
      least: 5,
      most: 400,
      when: (p: P) => p.idlers > 0,
    }),
    bend: amount('angle', {
      says: 'How far the row of centres bends at each idler',
      label: 'Bend at idlers',
      help: 'Out of the straight row of centres.',
      start: 0,
      least: -90 * deg,
      most: 90 * deg,
      step: 5 * deg,
      when: (p: P) => p.idlers > 0,
    }),
    ...toothingParams,
  }),
  ...group('Shift and play', {
    setBy: oneOf({
      says: 'What is given: both shifts, or the centre distance',
      label: 'Given',
      help: 'Give both shifts and get the centre distance, or the other way round.',
      start: 'shifts',
      options: [
        ['shifts', 'Both shifts'],
        ['centre', 'Centre distance'],
      ],
      when: (p: P) => p.idlers === 0,
    }),
    centre: length({
      says: 'Wanted centre distance of the pair',
      label: 'Centre distance',
      help: 'Met exactly; the shifts follow.',
      start: 0.04,
      least: 1e-3,
      most: 2,
      step: 1e-4,
      when: (p: P) => p.setBy === 'centre',
    }),
    split: oneOf({
      says: 'How a shift sum is shared',
      label: 'Shift shared',
      help: 'So that both roots slide alike, the pinion just escapes undercut, or in halves.',
      start: 'sliding',
      options: [
        ['sliding', 'Equal sliding'],
        ['undercut', 'Undercut first'],
        ['even', 'In halves'],
      ],
      when: (p: P) => p.setBy === 'centre',
    }),
    x1: amount('count', {
      says: 'Profile shift factor, driving wheel',
      label: 'Shift, driving',
      help: 'Takes undercut off a small pinion.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
      when: (p: P) => p.setBy === 'shifts',
    }),
    x2: amount('count', {
      says: 'Profile shift factor, driven wheel',
      label: 'Shift, driven',
      help: 'A ring’s is that of the wheel that fills its spaces.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
      when: (p: P) => p.setBy === 'shifts',
    }),
    xi: amount('count', {
      says: 'Profile shift factor, idlers',
      label: 'Shift, idlers',
      help: 'Of each idler.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
      when: (p: P) => p.idlers > 0,
    }),
    allowance1: thinning({
      says: 'Tooth-thickness allowance, driving wheel',
      label: 'Thinner, driving',
      help: 'Tooth-thickness allowance: taken off each tooth; makes play, and room for the process.',
      start: 4e-5,
    }),
    allowance2: thinning({
      says: 'Tooth-thickness allowance, driven wheel',
      label: 'Thinner, driven',
      help: 'Tooth-thickness allowance: taken off each tooth.',
      start: 4e-5,
    }),
    ...takenOutParams,
  }),
  ...group('Made of', {
    material1: material({ says: 'driving wheel and idlers', label: 'Driving, idlers', start: 'c45' }),
    material2: material({ says: 'driven wheel', label: 'Driven', start: 'pa-cf' }),
  }),
  ...group('Bores and screws', {
    rim: length({
      says: 'Wall of a ring outside its roots',
      label: 'Ring wall',
      help: 'Outside the roots.',
      start: 4e-3,
      least: 5e-4,
      most: 0.2,
      when: (p: P) => p.form !== 'outside',
    }),
    bore1: length({
      says: 'Bore of the driving wheel',
      label: 'Driving bore',
      help: 'Motor shaft; 0 for none.',
      start: 5e-3,
      least: 0,
      most: 0.3,
    }),
    shape1: hubShape({
      says: 'Bore, driving wheel',
      label: 'Driving bore is',
      start: 'flat',
      when: (p: P) => p.bore1 > 0,
    }),
    bore2: length({
      says: 'Bore of the driven wheel',
      label: 'Driven bore',
      help: '0 for none.',
      start: 8e-3,
      least: 0,
      most: 0.5,
      when: (p: P) => p.form === 'outside',
    }),
    shape2: hubShape({
      says: 'Bore, driven wheel',
      label: 'Driven bore is',
      start: 'round',
      when: (p: P) => p.form === 'outside' && p.bore2 > 0,
    }),
    bolts2: screws({
      says: 'Screws through the driven wheel',
      label: 'Screws, driven',
      help: 'Through the driven wheel, or the ring’s wall.',
    }),
    boltCircle2: length({
      says: 'Bolt circle of the driven wheel',
      label: 'Their circle',
      help: 'Diameter.',
      start: 0.02,
      least: 0,
      most: 1,
      when: (p: P) => p.bolts2 > 0,
    }),
    boltHole: screwHole<P>((p: P) => p.bolts2 > 0),
    nuts: yesNo({
      says: 'Nut traps in the driven wheel',
      label: 'Nut traps',
      help: 'Hexagons for ISO 4032 nuts.',
      start: 'no',
      when: (p: P) => p.bolts2 > 0,
    }),
  }),
  ...toothFormParams,
};

/** ω_in/ω_out: idlers turn the direction, never the ratio; a ring keeps it. */
export const spurRatio = (p: Pick<SpurParams, 'z1' | 'z2' | 'idlers' | 'form'>): number => {
  const outsideMeshes = p.idlers + (p.form === 'ring' ? 0 : 1);
  return ((outsideMeshes % 2 === 0 ? 1 : -1) * p.z2) / p.z1;
};
