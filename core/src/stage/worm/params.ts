import { amount, bearing, group, length, material, oneOf, whole, yesNo, type ParamTable } from '../param.ts';
import { hubShape, screwHole, screws, thinning } from '../shared-params.ts';

const deg = Math.PI / 180;
/** Largest diameter quotient that is taken. */
export const LARGEST_QUOTIENT = 40;
/** Hardest that a spring presses worm and wheel together, N. */
export const STRONGEST_SPRING = 5000;

/** Parameters of a worm and its wheel, SI units. */
export interface WormParams {
  /** Starts of the worm. */
  starts: number;
  /** Teeth, wheel. */
  z2: number;
  /** Hand of the thread: decides which way the wheel turns. */
  hand: 'right' | 'left';
  /** Axial module of the worm, transverse of the wheel, m. */
  module: number;
  /** Diameter quotient q: the worm’s reference diameter over its module. */
  quotient: number;
  /** Face width of the wheel, m. */
  width: number;
  /** Threaded length of the worm, m. */
  length: number;
  /** Normal pressure angle, rad. */
  pressure: number;
  /** Addendum over module. */
  addendum: number;
  /** Dedendum over module. */
  dedendum: number;
  /** Root rounding of the cutter over module. */
  fillet: number;
  /** Profile shift of the wheel over module. */
  x2: number;
  /** Tooth-thickness allowance, worm, m. */
  allowance1: number;
  /** Tooth-thickness allowance, wheel, m. */
  allowance2: number;
  /** How play is set: by the centre distance, by moving a dual-lead worm, or taken out by a spring. */
  playBy: 'centre' | 'dual-lead' | 'spring';
  /** Centre distance beyond the one without play, m. */
  centreExtra: number;
  /** Dual-lead: difference of the two flanks’ leads over their mean. */
  leadDifference: number;
  /** Dual-lead: how far the worm is moved towards its thick end, m. */
  wormShift: number;
  /** Spring that presses the worm into the wheel, N. */
  springForce: number;
  /** Friction from the shop’s factor, or as given. */
  frictionBy: 'shop' | 'given';
  /** Coefficient of friction of the mesh, as given. */
  friction: number;
  /** Material of the shop, worm. */
  material1: string;
  /** Material of the shop, wheel. */
  material2: string;
  /** Bore of the worm; 0 where its shaft is one with it, m. */
  bore1: number;
  /** Bore, worm. */
  shape1: 'round' | 'flat' | 'keyway';
  /** Bearings of the worm’s shaft, by designation. */
  bearing: string;
  /** Distance between the worm’s bearings, m. */
  span: number;
  /** Bore of the wheel, m. */
  bore2: number;
  /** Bore, wheel. */
  shape2: 'round' | 'flat' | 'keyway';
  /** Screws through the wheel. */
  bolts2: number;
  /** Bolt circle of the wheel, m. */
  boltCircle2: number;
  /** Hole for a screw, m. */
  boltHole: number;
  /** Nut traps in the wheel. */
  nuts: 'no' | 'yes';
}
type P = WormParams;

/** What each parameter is, how it is bounded and edited. */
export const wormParams: ParamTable<P> = {
  ...group('Teeth', {
    starts: whole({
      says: 'Starts of the worm',
      label: 'Starts',
      help: 'Few hold by themselves and lose much; many run well and turn back.',
      start: 1,
      least: 1,
      most: 12,
    }),
    z2: whole({ says: 'Teeth, wheel', label: 'Wheel', help: 'Teeth.', start: 30, least: 5, most: 400 }),
    hand: oneOf({
      says: 'Hand of the thread: decides which way the wheel turns',
      label: 'Hand',
      help: 'Decides which way the wheel turns.',
      start: 'right',
      options: [
        ['right', 'Right'],
        ['left', 'Left'],
      ],
    }),
    module: length({
      says: 'Axial module of the worm, transverse of the wheel',
      label: 'Module',
      help: 'Axial, of the worm; transverse, of the wheel.',
      start: 2e-3,
      least: 1e-4,
      most: 0.02,
      step: 5e-5,
    }),
    quotient: amount('count', {
      says: 'Diameter quotient q: the worm’s reference diameter over its module',
      label: 'Diameter quotient',
      help: 'Reference diameter over module: small is steep and efficient, large is stiff and holds.',
      start: 12.5,
      least: 4,
      most: LARGEST_QUOTIENT,
      step: 0.5,
    }),
    width: length({
      says: 'Face width of the wheel',
      label: 'Wheel width',
      help: 'Face width.',
      start: 0.015,
      least: 5e-4,
      most: 0.3,
    }),
    length: length({
      says: 'Threaded length of the worm',
      label: 'Worm length',
      help: 'Threaded.',
      start: 0.028,
      least: 5e-4,
      most: 0.5,
    }),
  }),
  ...group('Tooth form', {
    pressure: amount('angle', {
      says: 'Normal pressure angle',
      label: 'Pressure angle',
      help: 'In the normal section.',
      start: 20 * deg,
      least: 14 * deg,
      most: 30 * deg,
      step: 2.5 * deg,
    }),
    addendum: amount('count', {
      says: 'Addendum over module',
      label: 'Addendum',
      help: 'Over the module.',
      start: 1,
      least: 0.5,
      most: 1.5,
      step: 0.05,
    }),
    dedendum: amount('count', {
      says: 'Dedendum over module',
      label: 'Dedendum',
      help: 'Over the module.',
      start: 1.25,
      least: 0.6,
      most: 2,
      step: 0.05,
    }),
    fillet: amount('count', {
      says: 'Root rounding of the cutter over module',
      label: 'Root rounding',
      help: 'Of the cutter’s tip, over the module.',
      start: 0.3,
      least: 0,
      most: 0.6,
      step: 0.02,
    }),
  }),
  ...group('Shift and play', {
    x2: amount('count', {
      says: 'Profile shift of the wheel over module',
      label: 'Shift, wheel',
      help: 'Moves the axes apart by as many modules; takes undercut off.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
    }),
    allowance1: thinning({
      says: 'Tooth-thickness allowance, worm',
      label: 'Thinner, worm',
      help: 'Tooth-thickness allowance: taken off the thread; makes play.',
      start: 3e-5,
    }),
    allowance2: thinning({
      says: 'Tooth-thickness allowance, wheel',
      label: 'Thinner, wheel',
      help: 'Tooth-thickness allowance: taken off each tooth.',
      start: 3e-5,
    }),
    playBy: oneOf({
      says: 'How play is set: by the centre distance, by moving a dual-lead worm, or taken out by a spring',
      label: 'Play set by',
      help: 'Centre distance, moving a dual-lead worm along its axis, or a spring that keeps both flanks in touch.',
      start: 'centre',
      options: [
        ['centre', 'Centre distance'],
        ['dual-lead', 'Dual-lead worm'],
        ['spring', 'Spring'],
      ],
    }),
    centreExtra: length({
      says: 'Centre distance beyond the one without play',
      label: 'Centres further',
      help: 'Beyond the distance without play; below it closes.',
      start: 5e-5,
      least: -1e-3,
      most: 2e-3,
      step: 1e-5,
      when: (p: P) => p.playBy === 'centre',
    }),
    leadDifference: amount('efficiency', {
      says: 'Dual-lead: difference of the two flanks’ leads over their mean',
      label: 'Leads differ by',
      help: 'Between the two flanks, over their mean; 2 to 4 % is usual.',
      start: 0.03,
      least: 0,
      most: 0.1,
      step: 5e-3,
      when: (p: P) => p.playBy === 'dual-lead',
    }),
    wormShift: length({
      says: 'Dual-lead: how far the worm is moved towards its thick end',
      label: 'Worm moved',
      help: 'Towards its thick end, by shims.',
      start: 0,
      least: -0.05,
      most: 0.05,
      step: 1e-4,
      when: (p: P) => p.playBy === 'dual-lead',
    }),
    springForce: amount('force', {
      says: 'Spring that presses the worm into the wheel',
      label: 'Spring',
      help: 'Presses worm and wheel together.',
      start: 20,
      least: 0,
      most: STRONGEST_SPRING,
      step: 1,
      when: (p: P) => p.playBy === 'spring',
    }),
  }),
  ...group('Losses', {
    frictionBy: oneOf({
      says: 'Friction from the shop’s factor, or as given',
      label: 'Friction',
      help: 'From the shop’s factor with its band, or one that you have measured.',
      start: 'shop',
      options: [
        ['shop', 'Shop’s factor'],
        ['given', 'As given'],
      ],
    }),
    friction: amount('count', {
      says: 'Coefficient of friction of the mesh, as given',
      label: 'Coefficient',
      help: 'Of the mesh.',
      start: 0.08,
      least: 0,
      most: 1,
      step: 0.01,
      when: (p: P) => p.frictionBy === 'given',
    }),
  }),
  ...group('Made of', {
    material1: material({ says: 'worm', label: 'Worm', start: 'c45' }),
    material2: material({ says: 'wheel', label: 'Wheel', start: 'pa-cf' }),
  }),
  ...group('Worm shaft', {
    bore1: length({
      says: 'Bore of the worm; 0 where its shaft is one with it',
      label: 'Worm’s bore',
      help: '0 where its shaft is one with it.',
      start: 8e-3,
      least: 0,
      most: 0.2,
    }),
    shape1: hubShape({
      says: 'Bore, worm',
      label: 'Worm’s bore is',
      start: 'flat',
      when: (p: P) => p.bore1 > 0,
    }),
    bearing: bearing({
      says: 'Bearings of the worm’s shaft, by designation',
      label: 'Bearings',
      help: 'Two of them, by ISO size; one takes the thrust.',
      start: '688',
      needles: false,
    }),
    span: length({
      says: 'Distance between the worm’s bearings',
      label: 'Between bearings',
      help: 'The shorter, the stiffer.',
      start: 0.035,
      least: 1e-3,
      most: 1,
      step: 1e-3,
    }),
  }),
  ...group('Bores and screws', {
    bore2: length({
      says: 'Bore of the wheel',
      label: 'Wheel’s bore',
      help: '0 for none.',
      start: 8e-3,
      least: 0,
      most: 0.5,
    }),
    shape2: hubShape({
      says: 'Bore, wheel',
      label: 'Wheel’s bore is',
      start: 'round',
      when: (p: P) => p.bore2 > 0,
    }),
    bolts2: screws({
      says: 'Screws through the wheel',
      label: 'Screws, wheel',
      help: 'Through the wheel.',
    }),
    boltCircle2: length({
      says: 'Bolt circle of the wheel',
      label: 'Their circle',
      help: 'Diameter.',
      start: 0.02,
      least: 0,
      most: 1,
      when: (p: P) => p.bolts2 > 0,
    }),
    boltHole: screwHole<P>((p: P) => p.bolts2 > 0),
    nuts: yesNo({
      says: 'Nut traps in the wheel',
      label: 'Nut traps',
      help: 'Hexagons for ISO 4032 nuts.',
      start: 'no',
      when: (p: P) => p.bolts2 > 0,
    }),
  }),
};

/** ω_in/ω_out: starts into teeth; a right-hand worm counts as turning the wheel forwards, a left-hand one backwards. */
export const wormRatio = (p: Pick<WormParams, 'starts' | 'z2' | 'hand'>): number =>
  ((p.hand === 'right' ? 1 : -1) * p.z2) / p.starts;
