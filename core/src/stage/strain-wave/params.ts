import { SECTIONS } from '../../shop/section.ts';
import { amount, bearing, fromShop, group, length, material, oneOf, whole, type ParamTable } from '../param.ts';

const deg = Math.PI / 180;

/** Parameters of a strain-wave stage, SI units. */
export interface StrainWaveParams {
  /** Which member is bolted down: the ring (the spline drives out) or the spline (the ring drives out). */
  held: 'ring' | 'spline';
  /** Teeth of the spline. */
  teeth: number;
  /** Waves round the spline. */
  lobes: number;
  /** How many teeth more than the spline the ring has for each of them. */
  difference: number;
  /** Sides of the teeth: straight, involute, or a synchronous belt turned inside out. */
  form: 'straight' | 'involute' | 'belt';
  /** Belt section, where the spline is a belt. */
  section: string;
  /** Module; a belt brings its own, m. */
  module: number;
  /** Lean of straight sides against the tooth’s axis, or pressure angle of involute ones, rad. */
  angle: number;
  /** Profile shift factor of involute teeth, spline and ring alike. */
  shift: number;
  /** Throw over (ring − spline)·module/2. */
  depth: number;
  /** Addendum over module, spline and ring. */
  addendum: number;
  /** Dedendum over module, spline and ring. */
  dedendum: number;
  /** Tooth-thickness allowance of the spline, m. */
  thin: number;
  /** What the wave generator gives as a shape. */
  shape: 'ellipse' | 'cosine' | 'two' | 'four' | 'many';
  /** Half the angle between the two rollers of a lobe, rad. */
  spread: number;
  /** Rollers in all, where there are many. */
  rollers: number;
  /** A contour carries a thin bearing, or slides. */
  run: 'bearing' | 'plain';
  /** The generator’s thin bearing, or each of its rollers, by designation. */
  bearing: string;
  /** Radial gap between generator and spline as made, m. */
  slack: number;
  /** Force by which springs press each lobe outwards, N; none where a file of an earlier version does not say. */
  tension?: number;
  /** Bore of the generator for the motor’s shaft, m. */
  shaft: number;
  /** The spline is a cup with a closed end, or an open band whose turn a second ring of as many teeth takes off. */
  body: 'cup' | 'belt';
  /** Radius of the spline’s neutral line, the middle of its wall, m. */
  radius: number;
  /** Wall of the spline under its teeth, m. */
  wall: number;
  /** Width of the teeth, m. */
  width: number;
  /** Length of the spline from its closed end to its open one, m. */
  cup: number;
  /** Wall of the ring outside its roots, m. */
  ringWall: number;
  /** Material of the shop, spline. */
  materialS: string;
  /** Material of the shop, ring. */
  materialR: string;
  /** Material of the shop, wave generator. */
  materialG: string;
}
type P = StrainWaveParams;

/** What each parameter is, how it is bounded and edited. */
export const strainWaveParams: ParamTable<P> = {
  ...group('Teeth', {
    held: oneOf({
      says: 'Which member is bolted down: the ring (the spline drives out) or the spline (the ring drives out)',
      label: 'Bolted down',
      help: 'Decides ratio and sense: with the ring bolted the spline turns back, with the spline bolted the ring turns on, and the two ratios differ by one.',
      start: 'ring',
      options: [
        ['ring', 'Ring, spline out'],
        ['spline', 'Spline, ring out'],
      ],
    }),
    teeth: whole({
      says: 'Teeth of the spline',
      label: 'Spline teeth',
      help: 'The ring has one more for each lobe, or two.',
      start: 80,
      least: 16,
      most: 400,
    }),
    lobes: whole({
      says: 'Waves round the spline; the ring has `difference` teeth more for each',
      label: 'Lobes',
      help: 'Waves round the spline.',
      start: 2,
      least: 2,
      most: 3,
    }),
    difference: whole({
      says: 'Teeth that the ring has more than the spline, for each lobe',
      label: 'Teeth more a lobe',
      help: 'One is usual. With two the ratio is half as high on as many teeth, the throw twice as large, and fewer teeth are in mesh.',
      start: 1,
      least: 1,
      most: 2,
      absent: 1,
      late: true,
    }),
    form: oneOf({
      says: 'Sides of the teeth: straight, involute, or a synchronous belt turned inside out',
      label: 'Tooth form',
      help: 'Straight sides mesh well in a wave; involute ones can be cut with usual tools; a belt can be the spline.',
      start: 'straight',
      options: [
        ['straight', 'Straight'],
        ['involute', 'Involute'],
        ['belt', 'Belt, inside out'],
      ],
    }),
    section: fromShop({
      says: 'Belt section, where the spline is a belt',
      label: 'Belt section',
      help: 'Its cord is the neutral line.',
      start: 'R3',
      options: () => SECTIONS.map((s) => ({ value: s.id, label: s.name })),
      when: (p: P) => p.form === 'belt',
    }),
    module: length({
      says: 'Module; a belt brings its own',
      label: 'Module',
      help: 'Throw and tooth size follow from it.',
      start: 4.3e-4,
      least: 1e-4,
      most: 0.01,
      step: 5e-5,
      when: (p: P) => p.form !== 'belt',
    }),
    angle: amount('angle', {
      says: 'Lean of straight sides against the tooth’s axis, or pressure angle of involute ones',
      label: 'Lean of sides',
      help: 'Flank angle against the tooth’s axis; pressure angle of involute teeth. Steeper holds more before it skips, but must still swing in.',
      start: 30 * deg,
      least: 10 * deg,
      most: 45 * deg,
      step: deg,
      when: (p: P) => p.form !== 'belt',
    }),
    shift: amount('count', {
      says: 'Profile shift factor of involute teeth, spline and ring alike',
      label: 'Profile shift factor',
      help: 'Of spline and ring alike, over the module.',
      start: 0,
      least: -1,
      most: 6,
      step: 0.1,
      when: (p: P) => p.form === 'involute',
    }),
    depth: amount('count', {
      says: 'Throw over (ring − spline)·module/2',
      label: 'Depth factor',
      help: 'Throw over its nominal value; less clears teeth that clash, more meshes deeper.',
      start: 1,
      least: 0.5,
      most: 1.5,
      step: 0.02,
    }),
    addendum: amount('count', {
      says: 'Addendum over module, spline and ring',
      label: 'Addendum factor',
      help: 'Over the module, spline and ring.',
      start: 0.4,
      least: 0.1,
      most: 1.2,
      step: 0.05,
      when: (p: P) => p.form !== 'belt',
    }),
    dedendum: amount('count', {
      says: 'Dedendum over module, spline and ring',
      label: 'Dedendum factor',
      help: 'Over the module, spline and ring.',
      start: 0.55,
      least: 0.2,
      most: 1.6,
      step: 0.05,
      when: (p: P) => p.form !== 'belt',
    }),
    thin: length({
      says: 'Tooth-thickness allowance of the spline',
      label: 'Thickness allowance',
      help: 'The spline’s teeth are cut thinner by it; play grows.',
      start: 4e-5,
      least: -2e-4,
      most: 1e-3,
      step: 1e-5,
    }),
  }),
  ...group('Wave generator', {
    shape: oneOf({
      says: 'What the wave generator gives as a shape',
      label: 'Shape',
      help: 'An ellipse or cos nθ to carry a thin bearing or slide, or rollers.',
      start: 'many',
      options: [
        ['ellipse', 'Ellipse'],
        ['cosine', 'Cosine wave'],
        ['two', 'One roller a lobe'],
        ['four', 'Two rollers a lobe'],
        ['many', 'Many rollers'],
      ],
    }),
    spread: amount('angle', {
      says: 'Half the angle between the two rollers of a lobe',
      label: 'Rollers either side',
      help: 'Angle of a roller from its lobe’s top.',
      start: 25 * deg,
      least: 5 * deg,
      most: 44 * deg,
      step: deg,
      when: (p: P) => p.shape === 'four',
    }),
    rollers: whole({
      says: 'Rollers in all, where there are many',
      label: 'Rollers',
      help: 'In all, evenly round the contour.',
      start: 8,
      least: 4,
      most: 36,
      when: (p: P) => p.shape === 'many',
    }),
    run: oneOf({
      says: 'A contour carries a thin bearing, or slides',
      label: 'It carries',
      help: 'A thin bearing rolls; a plain contour slides.',
      start: 'bearing',
      options: [
        ['bearing', 'A thin bearing'],
        ['plain', 'Nothing: it slides'],
      ],
      when: (p: P) => !hasRollers(p),
    }),
    bearing: bearing({
      says: 'The generator’s thin bearing, or each of its rollers, by designation',
      label: 'Bearing or roller',
      help: 'The thin bearing on the contour, or each roller, by ISO size.',
      start: '683',
      when: (p: P) => hasRollers(p) || p.run === 'bearing',
    }),
    slack: length({
      says: 'Radial gap between generator and spline as made',
      label: 'Gap to the spline',
      help: 'As made, in radius; it is missing from the throw.',
      start: 0,
      least: 0,
      most: 1e-3,
      step: 1e-5,
    }),
    tension: amount('force', {
      says: 'Force by which springs press each lobe outwards; 0 for a solid generator',
      label: 'Wave tension',
      help: 'Springs between the generator’s halves press the teeth down into their spaces at each lobe and take the play out (anti-backlash); 0 for a solid one.',
      start: 0,
      least: 0,
      most: 1e5,
      step: 1,
      absent: 0,
      late: true,
    }),
    shaft: length({
      says: 'Bore of the generator for the motor’s shaft',
      label: 'Shaft bore',
      help: 'For the motor’s shaft, or a hollow one; 0 for none.',
      start: 5e-3,
      least: 0,
      most: 0.2,
    }),
  }),
  ...group('Spline and ring', {
    body: oneOf({
      says: 'The spline is a cup with a closed end, or an open band whose turn a second ring of as many teeth takes off',
      label: 'Spline',
      help: 'A cup twists along its length; an open band gives its turn to a second ring of as many teeth.',
      start: 'cup',
      options: [
        ['cup', 'Cup'],
        ['belt', 'Open band, second ring'],
      ],
    }),
    radius: length({
      says: 'Radius of the spline’s neutral line, the middle of its wall',
      label: 'Neutral line',
      help: 'Radius of the middle of the wall.',
      start: 0.0164,
      least: 2e-3,
      most: 0.5,
      step: 1e-4,
      when: (p: P) => p.form !== 'belt',
    }),
    wall: length({
      says: 'Wall of the spline under its teeth',
      label: 'Wall',
      help: 'Under the teeth; strain and turning resistance grow with it.',
      start: 8e-4,
      least: 1e-4,
      most: 0.02,
      step: 5e-5,
      when: (p: P) => p.form !== 'belt',
    }),
    width: length({
      says: 'Width of the teeth',
      label: 'Tooth width',
      help: 'At the open end.',
      start: 7e-3,
      least: 1e-3,
      most: 0.2,
    }),
    cup: length({
      says: 'Length of the spline from its closed end to its open one',
      label: 'Cup length',
      help: 'From the closed end; a short one cones and catches.',
      start: 0.018,
      least: 2e-3,
      most: 0.5,
      step: 1e-3,
      when: (p: P) => p.body === 'cup',
    }),
    ringWall: length({
      says: 'Wall of the ring outside its roots',
      label: 'Ring wall',
      help: 'Outside its roots; holds against skipping.',
      start: 6e-3,
      least: 5e-4,
      most: 0.1,
    }),
  }),
  ...group('Made of', {
    materialS: material({ says: 'spline', label: 'Spline', start: 'pa-cf', when: (p: P) => p.form !== 'belt' }),
    materialR: material({ says: 'ring', label: 'Ring', start: 'pa-cf' }),
    materialG: material({ says: 'wave generator', label: 'Generator', start: 'pa-cf' }),
  }),
};

/** How many teeth more the ring has than the spline: one wave goes by for each step of the other by as many. */
export const moreTeeth = (p: Pick<StrainWaveParams, 'lobes' | 'difference'>): number => p.lobes * p.difference;

export const ringTeeth = (p: Pick<StrainWaveParams, 'teeth' | 'lobes' | 'difference'>): number =>
  p.teeth + moreTeeth(p);

/**
 * ω_in/ω_out with the wave generator driven: −z_f/(z_c − z_f) with the ring bolted, z_c/(z_c − z_f) with the spline
 * bolted. They differ by one and in sign.
 */
export const strainWaveRatio = (p: Pick<StrainWaveParams, 'held' | 'teeth' | 'lobes' | 'difference'>): number =>
  (p.held === 'ring' ? -p.teeth : ringTeeth(p)) / moreTeeth(p);

/**
 * Radius on which what goes out takes the teeth's forces, m: teeth over teeth as both turn with the generator at rest, the
 * ring's reference radius or a spline's of as many teeth as it has.
 *
 * Source: what pushes spline and ring apart does as much work on either, so that their moments are as z_f to z_c; the rest
 * comes through the generator.
 */
export const outRadius = (
  p: Pick<StrainWaveParams, 'held' | 'teeth' | 'lobes' | 'difference'>,
  module: number,
): number => (module * (p.held === 'ring' ? p.teeth : ringTeeth(p))) / 2;

/** How often the generator passes the spline for a turn of the output, whichever part is held. */
export const passesOf = (p: Pick<StrainWaveParams, 'teeth' | 'lobes' | 'difference'>): number =>
  ringTeeth(p) / moreTeeth(p);

/** Torque in the spline over the output's. */
export const splineShare = (p: Pick<StrainWaveParams, 'held' | 'teeth' | 'lobes' | 'difference'>): number =>
  p.held === 'ring' ? 1 : p.teeth / ringTeeth(p);

export const hasRollers = (p: Pick<StrainWaveParams, 'shape'>): boolean =>
  p.shape === 'two' || p.shape === 'four' || p.shape === 'many';
