import { amount, group, length, oneOf, words, type ParamTable } from '../param.ts';

const minute = Math.PI / 10800;
const rpm = Math.PI / 30;

/** A bought unit as its data sheet gives it, SI units. */
export interface UnitParams {
  /** Standard designation or your own name for it. */
  designation: string;
  /** ω_in/ω_out; negative where the output turns the other way. */
  ratio: number;
  /** Where the output lies to the input. */
  form: 'inline' | 'beside' | 'angle';
  /** Forwards, under load. */
  efficiency: number;
  /** Backwards; 0 or less where it is self-locking. */
  backEfficiency: number;
  /** No-load torque at the input, N·m. */
  drag: number;
  /** Play at the output, likely, rad. */
  play: number;
  /** Play at the output, at most, rad. */
  playMost: number;
  /** Bands of play, stiffness and efficiency: the shop’s about the data sheet, or given by least and most. */
  bandBy: 'shop' | 'given';
  /** Play at the output, at least, rad. */
  playLeast: number;
  /** Torsional stiffness, at least, N·m/rad. */
  stiffnessLeast: number;
  /** Torsional stiffness, at most, N·m/rad. */
  stiffnessMost: number;
  /** Efficiency forwards, at least. */
  efficiencyLeast: number;
  /** Efficiency forwards, at most. */
  efficiencyMost: number;
  /** Torsional stiffness at the output, N·m/rad. */
  stiffness: number;
  /** Rated output torque, N·m. */
  ratedTorque: number;
  /** Short-time output torque, N·m. */
  peakTorque: number;
  /** Input speed the life is rated at, rad/s. */
  ratedSpeed: number;
  /** Life at rated torque and speed; 0 where not given, s. */
  ratedLife: number;
  /** Highest input speed, rad/s. */
  maxSpeed: number;
  /** Outside diameter or side, m. */
  outside: number;
  /** Length along the axis, m. */
  length: number;
  /** Axis to axis where the output lies beside the input, m. */
  centre: number;
  /** Hollow passage along the output axis, m. */
  bore: number;
  /** Inertia at the input, kg·m². */
  inertia: number;
  /** Mass, kg. */
  mass: number;
  /** Price. */
  price: number;
}
type P = UnitParams;

const given = (p: P): boolean => p.bandBy === 'given';

/** What each parameter is, how it is bounded and edited. */
export const unitParams: ParamTable<P> = {
  ...group('Turning', {
    designation: words({
      says: 'Standard designation or your own name for it',
      label: 'Called',
      help: 'Standard designation, or your own name for it.',
      start: 'Planetary unit, 2 N·m',
      maxLength: 80,
    }),
    ratio: amount('ratio', {
      says: 'ω_in/ω_out; negative where the output turns the other way',
      label: 'Ratio',
      help: 'Input speed over output speed; negative where the output turns the other way.',
      start: 10,
      least: -10000,
      most: 10000,
      step: 1,
    }),
    form: oneOf({
      says: 'Where the output lies to the input',
      label: 'Output lies',
      help: 'In line with the input, beside it, or at a right angle.',
      start: 'inline',
      options: [
        ['inline', 'in line'],
        ['beside', 'beside'],
        ['angle', 'at a right angle'],
      ],
    }),
  }),
  ...group('Losses', {
    efficiency: amount('efficiency', {
      says: 'Forwards, under load',
      label: 'Efficiency',
      help: 'Forwards, under load.',
      start: 0.94,
      least: 0.01,
      most: 1,
      step: 0.01,
    }),
    backEfficiency: amount('efficiency', {
      says: 'Backwards; 0 or less where it is self-locking',
      label: 'Turned back',
      help: 'Efficiency driven from the output; 0 or less is self-locking, as a worm of small lead does.',
      start: 0.936,
      least: -1,
      most: 1,
      step: 0.01,
    }),
    drag: amount('torque', {
      says: 'No-load torque at the input',
      label: 'No-load torque',
      help: 'At the input.',
      start: 6.5e-3,
      least: 0,
      most: 1000,
      step: 1e-3,
    }),
  }),
  ...group('Stiffness and play', {
    play: amount('smallAngle', {
      says: 'Play at the output, likely',
      label: 'Play, likely',
      help: 'At the output.',
      start: 8 * minute,
      least: 0,
      most: 1,
      step: minute,
    }),
    playMost: amount('smallAngle', {
      says: 'Play at the output, at most',
      label: 'Play, at most',
      help: 'What the sheet promises.',
      start: 12 * minute,
      least: 0,
      most: 1,
      step: minute,
    }),
    stiffness: amount('stiffness', {
      says: 'Torsional stiffness at the output',
      label: 'Stiffness',
      help: 'At the output, input held.',
      start: 250,
      least: 1e-3,
      most: 1e9,
      step: 1,
    }),
    bandBy: oneOf({
      says: 'Bands of play, stiffness and efficiency: the shop’s about the data sheet, or given by least and most',
      label: 'Bands',
      help: 'Data sheets are trusted as far as the shop says. Give least and most where you know them, or take them from a test of the unit.',
      start: 'shop',
      options: [
        ['shop', 'The shop’s, about the sheet'],
        ['given', 'Given, least and most'],
      ],
      absent: 'shop',
      late: true,
    }),
    playLeast: amount('smallAngle', {
      says: 'Play at the output, at least',
      label: 'Play, at least',
      help: 'The least that it can have.',
      start: 4 * minute,
      least: 0,
      most: 1,
      step: minute,
      absent: 0,
      late: true,
      when: given,
    }),
    stiffnessLeast: amount('stiffness', {
      says: 'Torsional stiffness, at least',
      label: 'Stiffness, at least',
      help: '0 for as much as the shop says.',
      start: 0,
      least: 0,
      most: 1e9,
      step: 1,
      absent: 0,
      late: true,
      when: given,
    }),
    stiffnessMost: amount('stiffness', {
      says: 'Torsional stiffness, at most',
      label: 'Stiffness, at most',
      help: '0 for as much as the shop says.',
      start: 0,
      least: 0,
      most: 1e9,
      step: 1,
      absent: 0,
      late: true,
      when: given,
    }),
    efficiencyLeast: amount('efficiency', {
      says: 'Efficiency forwards, at least',
      label: 'Efficiency, at least',
      help: '0 for as much as the shop says.',
      start: 0,
      least: 0,
      most: 1,
      step: 0.01,
      absent: 0,
      late: true,
      when: given,
    }),
    efficiencyMost: amount('efficiency', {
      says: 'Efficiency forwards, at most',
      label: 'Efficiency, at most',
      help: '0 for as much as the shop says.',
      start: 0,
      least: 0,
      most: 1,
      step: 0.01,
      absent: 0,
      late: true,
      when: given,
    }),
  }),
  ...group('Carries', {
    ratedTorque: amount('torque', {
      says: 'Rated output torque',
      label: 'Rated torque',
      help: 'At the output, for its rated life.',
      start: 2,
      least: 1e-4,
      most: 1e6,
      step: 0.5,
    }),
    peakTorque: amount('torque', {
      says: 'Short-time output torque',
      label: 'Short-time torque',
      help: 'At the output, starting and stopping.',
      start: 4,
      least: 1e-4,
      most: 1e6,
      step: 0.5,
    }),
    ratedSpeed: amount('speed', {
      says: 'Input speed the life is rated at',
      label: 'Rated input speed',
      help: 'At which the life is rated.',
      start: 3000 * rpm,
      least: 0.01,
      most: 1e5,
      step: 10,
    }),
    ratedLife: amount('life', {
      says: 'Life at rated torque and speed; 0 where not given',
      label: 'Rated life',
      help: 'At rated torque and speed; 0 where the sheet is silent.',
      start: 3.6e7,
      least: 0,
      most: 1e10,
      step: 1.8e6,
    }),
    maxSpeed: amount('speed', {
      says: 'Highest input speed',
      label: 'Highest input speed',
      help: 'Never above it.',
      start: 6000 * rpm,
      least: 0.01,
      most: 1e5,
      step: 10,
    }),
  }),
  ...group('Body', {
    outside: length({
      says: 'Outside diameter or side',
      label: 'Outside',
      help: 'Diameter or side.',
      start: 0.053,
      least: 1e-3,
      most: 5,
      step: 1e-3,
    }),
    length: length({
      says: 'Length along the axis',
      label: 'Length',
      help: 'Along the axis.',
      start: 0.045,
      least: 1e-3,
      most: 5,
      step: 1e-3,
    }),
    centre: length({
      says: 'Axis to axis where the output lies beside the input',
      label: 'Axis to axis',
      help: 'From input to output.',
      start: 0,
      least: 0,
      most: 5,
      step: 1e-3,
      when: (p: P) => p.form === 'beside',
    }),
    bore: length({
      says: 'Hollow passage along the output axis',
      label: 'Hollow passage',
      help: 'Clear along the output axis; 0 for none.',
      start: 0,
      least: 0,
      most: 5,
      step: 1e-3,
    }),
    inertia: amount('inertia', {
      says: 'Inertia at the input',
      label: 'Inertia at the input',
      help: 'Of everything that turns.',
      start: 2.8e-6,
      least: 0,
      most: 10,
      step: 1e-7,
    }),
    mass: amount('mass', {
      says: 'Mass',
      label: 'Mass',
      help: 'Of the whole unit.',
      start: 0.22,
      least: 0,
      most: 10000,
      step: 0.05,
    }),
    price: amount('money', {
      says: 'Price',
      label: 'Price',
      help: 'As paid.',
      start: 43,
      least: 0,
      most: 1e7,
      step: 1,
    }),
  }),
};
