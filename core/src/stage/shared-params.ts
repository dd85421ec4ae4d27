import type { TakenOut } from '../gear/taken-out.ts';
import type { Toothing } from '../gear/toothing.ts';
import { stated } from '../units/stated.ts';
import { amount, group, length, material, oneOf, whole, yesNo, type Param } from './param.ts';

const deg = Math.PI / 180;

/** What every toothed stage says of its teeth; for its group of teeth. */
export const toothingParams = {
  module: length({
    says: 'Normal module',
    label: 'Module',
    help: 'Normal module; ISO 54 prefers 0.5, 0.8, 1, 1.25, 1.5, 2. The same in every mesh.',
    start: 8e-4,
    least: 1e-4,
    most: 0.02,
    step: 5e-5,
  }),
  width: length({
    says: 'Face width',
    label: 'Face width',
    help: 'Strength and stiffness grow with it.',
    start: 0.0104,
    least: 5e-4,
    most: 0.3,
  }),
  helix: amount('angle', {
    says: 'Helix angle',
    label: 'Helix',
    help: 'Quieter, with thrust; a double helix carries its own.',
    start: 0,
    least: 0,
    most: 45 * deg,
    step: deg,
  }),
  double: yesNo({
    says: 'Double-helical, two mirrored halves',
    label: 'Double helix',
    help: 'Two mirrored halves: no thrust, and it cannot be pushed in along the axis.',
    start: 'no',
    when: (p: Toothing) => p.helix > 0,
  }),
};

/** What it says of their form. */
export const toothFormParams = group('Tooth form', {
  pressure: amount('angle', {
    says: 'Normal pressure angle',
    label: 'Pressure angle',
    help: 'In the normal section; 20° is usual, 25° stronger and harder on bearings.',
    start: 20 * deg,
    least: 14 * deg,
    most: 30 * deg,
    step: 2.5 * deg,
  }),
  addendum: amount('count', {
    says: 'Addendum over module',
    label: 'Addendum',
    help: 'Over the module; 1 in ISO 53.',
    start: 1,
    least: 0.5,
    most: 1.5,
    step: 0.05,
  }),
  dedendum: amount('count', {
    says: 'Dedendum over module',
    label: 'Dedendum',
    help: 'Over the module; 1.25 in ISO 53.',
    start: 1.25,
    least: 0.6,
    most: 2,
    step: 0.05,
  }),
  fillet: amount('count', {
    says: 'Root rounding of the cutter over module',
    label: 'Root rounding',
    help: 'Of the cutter’s tip, over the module; 0.38 in ISO 53 A. The root is the trochoid it leaves.',
    start: 0.38,
    least: 0,
    most: 0.6,
    step: 0.02,
  }),
  chamfer: length({
    says: 'Tip chamfer',
    label: 'Tip chamfer',
    help: 'Takes the sharp tip off, along the radius.',
    start: 0,
    least: 0,
    most: 2e-3,
    step: 5e-5,
  }),
  trim: yesNo({
    says: 'Tips shortened where they would touch a mating root',
    label: 'Trim tips',
    help: 'Shorten tips where they would touch a root.',
    start: 'yes',
  }),
});

/** What a kind says of a parameter whose bounds all kinds share. */
interface Said<P, V> {
  readonly says: string;
  readonly label: string;
  readonly start: V;
  readonly when?: (p: P) => boolean;
}

/** How far each tooth of a wheel is thinner than it would be without play, m. */
export const thinning = <P>(about: Said<P, number> & { readonly help: string }): Param<P, number> =>
  length({ least: 0, most: 2e-3, step: 1e-5, ...about });

/** Shape of a bore that a shaft drives. */
export const hubShape = <P>(about: Said<P, 'round' | 'flat' | 'keyway'>): Param<P, 'round' | 'flat' | 'keyway'> =>
  oneOf({
    ...about,
    help: 'A flat for a set screw; a keyway by ISO/R 773.',
    options: [
      ['round', 'Round'],
      ['flat', 'With a flat'],
      ['keyway', 'With a keyway'],
    ],
  });

/** Screws through a part, none to begin with. */
export const screws = <P>(about: Omit<Said<P, number>, 'start'> & { readonly help: string }): Param<P, number> =>
  whole({ start: 0, least: 0, most: 24, ...about });

/** Hole for each of them, m. */
export const screwHole = <P>(when?: (p: P) => boolean): Param<P, number> =>
  length({
    says: 'Hole for a screw',
    label: 'Screw hole',
    help: `${stated(3.2e-3, 'length')} for M3.`,
    start: 3.2e-3,
    least: 1e-3,
    most: 0.02,
    step: 1e-4,
    ...(when && { when }),
  });

/** What planets' pins are of; ground steel rod in files that do not say. */
export const pinMaterial = <P>(): Param<P, string> =>
  material({
    says: 'planets’ pins',
    label: 'Planets’ pins',
    start: 'silver-steel',
    absent: 'silver-steel',
    late: true,
  });

/** How pins are printed, where they are of a printed material. */
export const pinsLie = <P>(when?: (p: P) => boolean): Param<P, 'upright' | 'lying'> =>
  oneOf<'upright' | 'lying', P>({
    says: 'How pins are printed, where they are printed: upright bends their layers apart',
    label: 'Printed pins',
    help: 'Upright they come round and break between their layers; lying they are stronger, and out of round. Of metal it is all the same.',
    start: 'upright',
    absent: 'upright',
    late: true,
    options: [
      ['upright', 'upright'],
      ['lying', 'lying'],
    ],
    ...(when && { when }),
  });

/** The way in which a pin that is printed so is bent: across its layers, or along them. */
export const bentWay = (p: { readonly pinsLie: 'upright' | 'lying' }): 'along' | 'across' =>
  p.pinsLie === 'lying' ? 'along' : 'across';

/** What a part of a printed pin is noted with; empty for one that is bought. */
export const pinNote = (p: { readonly pinsLie: 'upright' | 'lying' }, made: string): string =>
  made === 'printed' ? `, printed ${p.pinsLie}` : '';

/** Whether a kind's play is taken out by a spring. */
const pressed = (p: { readonly takenOut: TakenOut }): boolean => p.takenOut === 'split' || p.takenOut === 'spring';

/** Force of the springs that take play out; what a file of an earlier version does not say is not used. */
export const springForce = <P>(help: string, when: (p: P) => boolean) =>
  amount<P>('force', {
    says: 'Force of the springs that take the play out',
    label: 'Spring force',
    help,
    start: 10,
    least: 0,
    most: 1e5,
    step: 1,
    absent: 10,
    late: true,
    when,
  });

/** How the play of a mesh is taken out; not at all in files that do not say. */
export const takenOutParams = {
  takenOut: oneOf<TakenOut, { readonly takenOut: TakenOut }>({
    says: 'How the play of the mesh is taken out',
    label: 'Play taken out',
    help: 'By a driven wheel in two halves that springs turn apart, by springs on the centres, by an eccentric, or by tapered teeth moved along.',
    start: 'none',
    absent: 'none',
    late: true,
    options: [
      ['none', 'Not at all'],
      ['split', 'Split, sprung halves'],
      ['spring', 'Sprung centres'],
      ['eccentric', 'Eccentric, set by hand'],
      ['taper', 'Tapered teeth, set by hand'],
    ],
  }),
  preload: springForce('Along the pitch circle for split halves, towards the mate for sprung centres.', pressed),
  taper: amount<{ readonly takenOut: TakenOut }>('angle', {
    says: 'Taper of the teeth by which their shift runs with their width',
    label: 'Taper',
    help: 'Two to five degrees; the steeper, the less they are moved.',
    start: 3 * deg,
    least: 0.2 * deg,
    most: 15 * deg,
    step: 0.5 * deg,
    absent: 3 * deg,
    late: true,
    when: (p) => p.takenOut === 'taper',
  }),
};
