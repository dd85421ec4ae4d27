import { CABLES, type CableSort } from '../../shop/cables.ts';
import { amount, group, length, material, oneOf, type ParamTable } from '../param.ts';
import { hubShape, screwHole, screws } from '../shared-params.ts';

/** Parameters of a cable drive, SI units. */
export interface CableParams {
  /** Make of the cable. */
  sort: CableSort['id'];
  /** Diameter of the cable, m. */
  cable: number;
  /** Stiffness of the cable to a strain, N; 0 takes the shop's for its make. */
  rigidity: number;
  /** Radius of the driving drum under the cable, m. */
  radius1: number;
  /** Radius of the driven drum under the cable, m. */
  radius2: number;
  /** How the cable runs between the drums. */
  path: 'eight' | 'open';
  /** What is given: the centre distance, or both free runs. */
  runsBy: 'centre' | 'given';
  /** Centre distance, m. */
  centre: number;
  /** Free length of the run that pulls, m. */
  runA: number;
  /** Free length of the other run, m. */
  runB: number;
  /** Tension of both runs at rest, N. */
  preload: number;
  /** Turns of the cable round the driving drum. */
  wraps: number;
  /** What holds the cable on the driving drum. */
  hold: 'friction' | 'clamped';
  /** Range of the driven drum, rad. */
  range: number;
  /** Material of the shop, driving drum. */
  material1: string;
  /** Material of the shop, driven drum. */
  material2: string;
  /** Bore of the driving drum, m. */
  bore1: number;
  /** Bore, driving drum. */
  shape1: 'round' | 'flat' | 'keyway';
  /** Bore of the driven drum, m. */
  bore2: number;
  /** Screws through the driven drum. */
  bolts2: number;
  /** Their circle, m. */
  boltCircle2: number;
  /** Hole for a screw, m. */
  boltHole: number;
}
type P = CableParams;

const deg = Math.PI / 180;

/** What each parameter is, how it is bounded and edited. */
export const cableParams: ParamTable<P> = {
  ...group('Cable', {
    sort: oneOf<CableSort['id'], P>({
      says: 'Make of the cable',
      label: 'Cable',
      help: 'Steel bends over larger drums; fibres over smaller ones, and give way by and by.',
      start: 'steel-7x19',
      options: CABLES.map((c) => [c.id, c.name] as const),
    }),
    cable: length({
      says: 'Diameter of the cable',
      label: 'Cable ⌀',
      help: 'Strength and stiffness go with its square.',
      start: 1e-3,
      least: 2e-4,
      most: 0.02,
      step: 1e-4,
    }),
    rigidity: amount('force', {
      says: 'Stiffness of the cable to a strain; 0 takes the shop’s for its make',
      label: 'E·A, if known',
      help: 'As measured or stated: force over strain. 0 takes the shop’s for its make and diameter.',
      start: 0,
      least: 0,
      most: 1e8,
      step: 1000,
    }),
    preload: amount('force', {
      says: 'Tension of both runs at rest',
      label: 'Preload',
      help: 'Of each run: half to all of the working force, so that neither ever hangs.',
      start: 60,
      least: 0,
      most: 1e5,
      step: 5,
    }),
  }),
  ...group('Drums', {
    radius1: length({
      says: 'Radius of the driving drum under the cable',
      label: 'Driving radius',
      help: 'Under the cable: its middle runs half a diameter further out. Ten diameters of a steel cable are the least.',
      start: 0.01,
      least: 5e-4,
      most: 0.5,
    }),
    radius2: length({
      says: 'Radius of the driven drum under the cable',
      label: 'Driven radius',
      help: 'Under the cable. It need be no more than a sector as wide as its range.',
      start: 0.05,
      least: 1e-3,
      most: 1,
      step: 1e-3,
    }),
    path: oneOf({
      says: 'How the cable runs between the drums',
      label: 'Runs',
      help: 'Crossed in a figure of eight, which turns the direction round, or open.',
      start: 'eight',
      options: [
        ['eight', 'Figure of eight'],
        ['open', 'Open'],
      ],
    }),
    runsBy: oneOf({
      says: 'What is given: the centre distance, or both free runs',
      label: 'Given',
      help: 'Free runs follow from the centre distance; led over pulleys they are given.',
      start: 'centre',
      options: [
        ['centre', 'Centre distance'],
        ['given', 'Both free runs'],
      ],
    }),
    centre: length({
      says: 'Centre distance',
      label: 'Centre distance',
      help: 'The nearer, the stiffer, and the more the cable has to lean sideways.',
      start: 0.09,
      least: 2e-3,
      most: 5,
      step: 1e-3,
    }),
    runA: length({
      says: 'Free length of the run that pulls',
      label: 'Pulling run',
      help: 'From drum to drum.',
      start: 0.12,
      least: 1e-3,
      most: 10,
      step: 5e-3,
      when: (p: P) => p.runsBy === 'given',
    }),
    runB: length({
      says: 'Free length of the other run',
      label: 'Other run',
      help: 'From drum to drum.',
      start: 0.12,
      least: 1e-3,
      most: 10,
      step: 5e-3,
      when: (p: P) => p.runsBy === 'given',
    }),
    wraps: amount('count', {
      says: 'Turns of the cable round the driving drum',
      label: 'Turns on it',
      help: 'Friction grows with e to the turns; three or four hold most loads.',
      start: 3,
      least: 0.5,
      most: 40,
      step: 0.5,
    }),
    hold: oneOf({
      says: 'What holds the cable on the driving drum',
      label: 'Held on it',
      help: 'By friction alone, or clamped in the middle of its turns, which bounds how far it turns.',
      start: 'friction',
      options: [
        ['friction', 'By friction'],
        ['clamped', 'Clamped'],
      ],
    }),
    range: amount('angle', {
      says: 'Range of the driven drum',
      label: 'Range',
      help: 'What the cable’s ends on the driven drum and the width of the driving one allow.',
      start: 180 * deg,
      least: 5 * deg,
      most: 3600 * deg,
      step: 10 * deg,
    }),
  }),
  ...group('Made of', {
    material1: material({ says: 'driving drum', label: 'Driving', start: 'en-aw-6082' }),
    material2: material({ says: 'driven drum', label: 'Driven', start: 'pa-cf' }),
  }),
  ...group('Bores and screws', {
    bore1: length({
      says: 'Bore of the driving drum',
      label: 'Driving bore',
      help: 'Motor shaft.',
      start: 6e-3,
      least: 5e-4,
      most: 0.3,
    }),
    shape1: hubShape({ says: 'Bore, driving drum', label: 'Driving bore is', start: 'flat' }),
    bore2: length({
      says: 'Bore of the driven drum',
      label: 'Driven bore',
      help: 'Shaft, or a passage where it is screwed on.',
      start: 8e-3,
      least: 5e-4,
      most: 0.9,
    }),
    bolts2: screws({
      says: 'Screws through the driven drum',
      label: 'Screws, driven',
      help: 'Through the driven drum.',
    }),
    boltCircle2: length({
      says: 'Their circle',
      label: 'Their circle',
      help: 'Diameter.',
      start: 0.03,
      least: 0,
      most: 1.8,
      when: (p: P) => p.bolts2 > 0,
    }),
    boltHole: screwHole<P>((p: P) => p.bolts2 > 0),
  }),
};

/** Radii on which the cable's middle runs, m. */
export const cableRadii = (p: Pick<P, 'radius1' | 'radius2' | 'cable'>): readonly [number, number] => [
  p.radius1 + p.cable / 2,
  p.radius2 + p.cable / 2,
];

/** ω_in/ω_out: a figure of eight turns the direction round. */
export const cableRatio = (p: Pick<P, 'radius1' | 'radius2' | 'cable' | 'path'>): number => {
  const [r1, r2] = cableRadii(p);
  return ((p.path === 'eight' ? -1 : 1) * r2) / r1;
};
