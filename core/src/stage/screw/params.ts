import { amount, bearing, group, length, material, oneOf, whole, type ParamTable } from '../param.ts';

const deg = Math.PI / 180;

/** Parameters of a screw and its nut, SI units. */
export interface ScrewParams {
  /** Thread. */
  type: 'trapezoidal' | 'ball';
  /** Nominal diameter, m. */
  diameter: number;
  /** Pitch of the thread, m. */
  pitch: number;
  /** Starts of the thread. */
  starts: number;
  /** Half the angle between its flanks, rad. */
  flank: number;
  /** Hand of the thread. */
  hand: 'right' | 'left';
  /** Dynamic load rating of the ball nut, N. */
  dynamic: number;
  /** Static load rating of the ball nut, N. */
  static: number;
  /** Stroke of the axis, m. */
  stroke: number;
  /** Longest free length between nut and bearing, m. */
  free: number;
  /** How the ends are carried. */
  ends: 'fixed-free' | 'supported-supported' | 'fixed-supported' | 'fixed-fixed';
  /** Nuts. */
  nut: 'single' | 'double';
  /** Force between the nuts of a preloaded pair, N. */
  preload: number;
  /** Axial play of a single nut, m. */
  play: number;
  /** Length of the nut, m. */
  nutLength: number;
  /** Outside diameter of the nut, m. */
  nutDiameter: number;
  /** What carries the thrust. */
  collar: 'bearing' | 'plain';
  /** Mean diameter of a plain collar, m. */
  collarDiameter: number;
  /** Bearing of the shop that carries the thrust. */
  bearing: string;
  /** Material of the shop, screw. */
  material1: string;
  /** Material of the shop, nut. */
  material2: string;
}
type P = ScrewParams;

const plain = (p: P): boolean => p.type === 'trapezoidal';

/** What each parameter is, how it is bounded and edited. */
export const screwParams: ParamTable<P> = {
  ...group('Thread', {
    type: oneOf({
      says: 'Thread',
      label: 'Thread',
      help: 'Trapezoidal (ISO 2901), which can hold by itself, or a ball screw, which loses little and never holds.',
      start: 'trapezoidal',
      options: [
        ['trapezoidal', 'Trapezoidal'],
        ['ball', 'Ball screw'],
      ],
    }),
    diameter: length({
      says: 'Nominal diameter',
      label: 'Diameter',
      help: 'Outside of the thread; of a ball screw that of its balls’ circle.',
      start: 8e-3,
      least: 2e-3,
      most: 0.1,
      step: 1e-3,
    }),
    pitch: length({
      says: 'Pitch of the thread',
      label: 'Pitch',
      help: 'From thread to thread; lead is pitch times starts.',
      start: 2e-3,
      least: 2e-4,
      most: 0.05,
    }),
    starts: whole({
      says: 'Starts of the thread',
      label: 'Starts',
      help: 'More starts run faster, lose less and no longer hold.',
      start: 1,
      least: 1,
      most: 12,
    }),
    flank: amount('angle', {
      says: 'Half the angle between its flanks',
      label: 'Half flank angle',
      help: '15° of trapezoidal threads, 30° of pointed ones, 0° of square ones.',
      start: 15 * deg,
      least: 0,
      most: 30 * deg,
      step: 5 * deg,
      when: plain,
    }),
    hand: oneOf({
      says: 'Hand of the thread',
      label: 'Hand',
      help: 'With a right hand the nut comes towards what turns the screw to the right.',
      start: 'right',
      options: [
        ['right', 'Right'],
        ['left', 'Left'],
      ],
    }),
  }),
  ...group('Axis', {
    stroke: length({
      says: 'Stroke of the axis',
      label: 'Stroke',
      help: 'Way of the nut; the screw is longer by the nut and both bearings, or as long as its free length.',
      start: 0.2,
      least: 1e-3,
      most: 5,
      step: 0.01,
    }),
    free: length({
      says: 'Longest free length between nut and bearing',
      label: 'Free length',
      help: 'What buckles when pushed, and whirls when it turns fast: the whole length between the bearings for whirling.',
      start: 0.24,
      least: 2e-3,
      most: 6,
      step: 0.01,
    }),
    ends: oneOf({
      says: 'How the ends are carried',
      label: 'Ends',
      help: 'A pair of bearings holds an end fixed, one supports it.',
      start: 'fixed-supported',
      options: [
        ['fixed-free', 'Fixed, free'],
        ['supported-supported', 'Supported both'],
        ['fixed-supported', 'Fixed, supported'],
        ['fixed-fixed', 'Fixed both'],
      ],
    }),
    collar: oneOf({
      says: 'What carries the thrust',
      label: 'Thrust on',
      help: 'A ball bearing, or a plain collar that brakes and helps to hold.',
      start: 'bearing',
      options: [
        ['bearing', 'Ball bearing'],
        ['plain', 'Plain collar'],
      ],
    }),
    collarDiameter: length({
      says: 'Mean diameter of a plain collar',
      label: 'Collar ⌀',
      help: 'Mean of its ring.',
      start: 0.01,
      least: 1e-3,
      most: 0.2,
      when: (p: P) => p.collar === 'plain',
    }),
    bearing: bearing<P>({
      says: 'Bearing of the shop that carries the thrust',
      label: 'Bearing',
      help: 'One of the fixed end’s pair; deep grooves bear thrust up to a quarter of their static rating.',
      start: '608',
      needles: false,
    }),
  }),
  ...group('Nut', {
    nut: oneOf({
      says: 'Nuts',
      label: 'Nuts',
      help: 'A single one with its play, or two that press against one another.',
      start: 'single',
      options: [
        ['single', 'Single'],
        ['double', 'Two, preloaded'],
      ],
    }),
    preload: amount('force', {
      says: 'Force between the nuts of a preloaded pair',
      label: 'Preload',
      help: 'No play until the load is 2.8 times as much with balls, twice as much with plain threads; both nuts rub under it.',
      start: 20,
      least: 0,
      most: 1e5,
      step: 5,
      when: (p: P) => p.nut === 'double',
    }),
    play: length({
      says: 'Axial play of a single nut',
      label: 'Nut’s play',
      help: 'Along the axis, as made or bought.',
      start: 5e-5,
      least: 0,
      most: 2e-3,
      step: 1e-5,
      when: (p: P) => p.nut === 'single',
    }),
    nutLength: length({
      says: 'Length of the nut',
      label: 'Nut length',
      help: 'One and a half to two diameters are usual; of a pair each.',
      start: 0.015,
      least: 1e-3,
      most: 0.3,
      step: 1e-3,
    }),
    nutDiameter: length({
      says: 'Outside diameter of the nut',
      label: 'Nut ⌀',
      help: 'Without its flange.',
      start: 0.018,
      least: 3e-3,
      most: 0.3,
      step: 1e-3,
    }),
    dynamic: amount('force', {
      says: 'Dynamic load rating of the ball nut',
      label: 'Dynamic rating C',
      help: 'From its data sheet: lasts a million turns.',
      start: 4000,
      least: 10,
      most: 1e7,
      step: 100,
      when: (p: P) => !plain(p),
    }),
    static: amount('force', {
      says: 'Static load rating of the ball nut',
      label: 'Static rating C₀',
      help: 'From its data sheet.',
      start: 7000,
      least: 10,
      most: 1e7,
      step: 100,
      when: (p: P) => !plain(p),
    }),
  }),
  ...group('Made of', {
    material1: material({ says: 'screw', label: 'Screw', start: 'c45' }),
    material2: material({ says: 'nut', label: 'Nut', start: 'pom' }),
  }),
};

/** Travel of a turn, m. */
export const leadOf = (p: Pick<P, 'pitch' | 'starts'>): number => p.pitch * p.starts;

/** Screw's angle for a metre of travel, rad/m, with the sign of its hand: what the stage has for a ratio. */
export const screwRatio = (p: Pick<P, 'pitch' | 'starts' | 'hand'>): number =>
  ((p.hand === 'right' ? 1 : -1) * 2 * Math.PI) / leadOf(p);
