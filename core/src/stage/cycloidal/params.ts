import { pinsLie } from '../shared-params.ts';
import { bearing, group, length, material, oneOf, whole, wholeOf, type ParamTable } from '../param.ts';
import { screwHole, screws } from '../shared-params.ts';

/** Parameters of a cycloidal stage, SI units. */
export interface CycloidalParams {
  /** What is held: the ring of pins (the disc drives out), or the disc (the ring turns). */
  held: 'ring' | 'disc';
  /** Pins of the ring, Z. */
  pins: number;
  /** How many lobes the disc has less than the ring has pins. */
  difference: number;
  /** Diameter of the pin circle, m. */
  circle: number;
  /** Diameter of a ring pin, over its sleeve where it has one, m. */
  pin: number;
  /** Eccentricity, m. */
  throw: number;
  /** Discs, evenly phased. */
  discs: number;
  /** Thickness of a disc, m. */
  width: number;
  /** Ring pins are fixed, or carry sleeves that roll. */
  pinsRun: 'fixed' | 'sleeves';
  /** Equidistant gap between profile and pins: the profile is cut for pins as much larger in radius, m. */
  offset: number;
  /** How much smaller in radius the pin circle is that the profile is cut for, m. */
  ringChange: number;
  /** Output pins through holes of the disc. */
  outPins: number;
  /** Diameter of the circle of output pins, m. */
  outCircle: number;
  /** Diameter of an output pin, over its sleeve where it has one, m. */
  outPin: number;
  /** Diametral clearance of an output hole beyond pin + 2e, m. */
  outGap: number;
  /** Output pins are fixed, or carry sleeves that roll. */
  outRun: 'fixed' | 'sleeves';
  /** Output pins stand in one plate, or in one on either side. */
  carriedBy: 'plate' | 'both';
  /** Eccentric bearing in each disc, by designation. */
  bearing: string;
  /** Bore of the crank for the motor’s shaft, m. */
  shaft: number;
  /** Material of the shop, discs. */
  materialD: string;
  /** Material of the shop, pins of ring and output. */
  materialP: string;
  /** How printed pins are printed. */
  pinsLie: 'upright' | 'lying';
  /** Material of the shop, housing and plates. */
  materialH: string;
  /** Housing outside the pin circle, m. */
  rim: number;
  /** Screws through the housing. */
  boltsR: number;
  /** Hole for a screw, m. */
  boltHole: number;
}
type P = CycloidalParams;

/** What each parameter is, how it is bounded and edited. */
export const cycloidalParams: ParamTable<P> = {
  ...group('Pins and lobes', {
    held: oneOf({
      says: 'What is held: the ring of pins (the disc drives out), or the disc (the ring turns)',
      label: 'Held',
      help: 'With the ring held the output turns against the crank by one lobe a turn; with the disc held the ring turns with it.',
      start: 'ring',
      options: [
        ['ring', 'Ring: disc drives out'],
        ['disc', 'Disc: ring turns'],
      ],
    }),
    pins: whole({
      says: 'Pins of the ring, Z',
      label: 'Pins',
      help: 'Of the ring. A disc of one lobe less has the ratio of its lobes.',
      start: 16,
      least: 4,
      most: 120,
    }),
    difference: wholeOf({
      says: 'How many lobes the disc has less than the ring has pins',
      label: 'Lobes less',
      help: 'One less than pins: every pin touches. Two less: half the ratio, lobes cut off at their tips, fewer pins touch.',
      start: 1,
      least: 1,
      most: 2,
      options: () => [
        { value: 1, label: 'one' },
        { value: 2, label: 'two' },
      ],
      absent: 1,
    }),
    circle: length({
      says: 'Diameter of the pin circle',
      label: 'Pin circle',
      help: 'Diameter.',
      start: 0.08,
      least: 5e-3,
      most: 2,
      step: 1e-3,
    }),
    pin: length({
      says: 'Diameter of a ring pin, over its sleeve where it has one',
      label: 'Pin',
      help: 'Diameter, over the sleeve where there is one.',
      start: 8e-3,
      least: 5e-4,
      most: 0.1,
      step: 1e-4,
    }),
    throw: length({
      says: 'Eccentricity',
      label: 'Eccentricity',
      help: 'More makes the play of a given clearance smaller, and the lobes sharper.',
      start: 1.55e-3,
      least: 5e-5,
      most: 0.02,
      step: 5e-5,
    }),
    discs: whole({
      says: 'Discs, evenly phased',
      label: 'Discs',
      help: 'Two cancel the shaking force, three the couple too.',
      start: 2,
      least: 1,
      most: 3,
    }),
    width: length({
      says: 'Thickness of a disc',
      label: 'Disc thickness',
      help: 'Pressure on the lobes falls with it.',
      start: 9.5e-3,
      least: 5e-4,
      most: 0.1,
    }),
    pinsRun: oneOf({
      says: 'Ring pins are fixed, or carry sleeves that roll',
      label: 'Pins run',
      help: 'Fixed pins rub; sleeves roll and lose less.',
      start: 'fixed',
      options: [
        ['fixed', 'Fixed'],
        ['sleeves', 'With sleeves'],
      ],
    }),
  }),
  ...group('Clearance', {
    offset: length({
      says: 'Equidistant gap between profile and pins: the profile is cut for pins as much larger in radius',
      label: 'Gap all round',
      help: 'Equidistant modification: the profile is cut for pins as much larger in radius, and every pin then has this gap.',
      start: 6e-5,
      least: -2e-4,
      most: 1e-3,
      step: 1e-5,
    }),
    ringChange: length({
      says: 'How much smaller in radius the pin circle is that the profile is cut for',
      label: 'Circle smaller by',
      help: 'Pin-circle modification: in radius, for cutting the profile: opens the gaps unevenly, and can be combined with the other.',
      start: 0,
      least: -1e-3,
      most: 1e-3,
      step: 1e-5,
    }),
  }),
  ...group('Output', {
    outPins: whole({
      says: 'Output pins through holes of the disc',
      label: 'Output pins',
      help: 'Through holes of pin + 2e.',
      start: 8,
      least: 3,
      most: 24,
    }),
    outCircle: length({
      says: 'Diameter of the circle of output pins',
      label: 'Their circle',
      help: 'Diameter.',
      start: 0.0505,
      least: 2e-3,
      most: 1,
    }),
    outPin: length({
      says: 'Diameter of an output pin, over its sleeve where it has one',
      label: 'Output pin',
      help: 'Diameter, over the sleeve where there is one.',
      start: 8e-3,
      least: 5e-4,
      most: 0.1,
    }),
    outGap: length({
      says: 'Diametral clearance of an output hole beyond pin + 2e',
      label: 'Hole wider by',
      help: 'In diameter; adds to the play.',
      start: 5e-5,
      least: 0,
      most: 1e-3,
      step: 1e-5,
    }),
    outRun: oneOf({
      says: 'Output pins are fixed, or carry sleeves that roll',
      label: 'They run',
      help: 'Fixed pins rub in their holes; sleeves roll.',
      start: 'fixed',
      options: [
        ['fixed', 'Fixed'],
        ['sleeves', 'With sleeves'],
      ],
    }),
    carriedBy: oneOf({
      says: 'Output pins stand in one plate, or in one on either side',
      label: 'They stand in',
      help: 'One plate, or one on either side of the discs.',
      start: 'plate',
      options: [
        ['plate', 'one plate'],
        ['both', 'two plates'],
      ],
    }),
  }),
  ...group('Crank', {
    bearing: bearing({
      says: 'Eccentric bearing in each disc, by designation',
      label: 'Eccentric bearing',
      help: 'One in each disc, by ISO size.',
      start: '61804',
    }),
    shaft: length({
      says: 'Bore of the crank for the motor’s shaft',
      label: 'Crank’s bore',
      help: 'For the motor’s shaft; 0 for none.',
      start: 5e-3,
      least: 0,
      most: 0.2,
    }),
  }),
  ...group('Made of', {
    materialD: material({ says: 'discs', label: 'Discs', start: 'pa-cf' }),
    materialP: material({ says: 'pins of ring and output', label: 'Pins', start: 'silver-steel' }),
    pinsLie: pinsLie(),
    materialH: material({ says: 'housing and plates', label: 'Housing, plates', start: 'pa-cf' }),
  }),
  ...group('Housing', {
    rim: length({
      says: 'Housing outside the pin circle',
      label: 'Housing wall',
      help: 'Outside the pin circle.',
      start: 6.5e-3,
      least: 1e-3,
      most: 0.2,
    }),
    boltsR: screws({
      says: 'Screws through the housing',
      label: 'Screws, housing',
      help: 'Through its wall.',
    }),
    boltHole: screwHole<P>((p: P) => p.boltsR > 0),
  }),
};

/** Lobes of the disc. */
export const lobesOf = (p: Pick<CycloidalParams, 'pins' | 'difference'>): number => p.pins - p.difference;

/** Turns of the crank for a turn of the ring: the pins of one branch of the profile. */
export const branchPins = (p: Pick<CycloidalParams, 'pins' | 'difference'>): number => p.pins / p.difference;

/** How much of the disc's turn against the ring the output makes. */
export const heldShare = (p: Pick<CycloidalParams, 'held' | 'pins' | 'difference'>): number =>
  p.held === 'ring' ? 1 : lobesOf(p) / p.pins;

/** ω_in/ω_out for Z pins and d lobes less: −(Z − d)/d with the ring held, Z/d with the disc held. */
export const cycloidalRatio = (p: Pick<CycloidalParams, 'held' | 'pins' | 'difference'>): number =>
  p.held === 'ring' ? -lobesOf(p) / p.difference : branchPins(p);
