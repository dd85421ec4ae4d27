import * as v from 'valibot';
import { materialId, size } from '../../gear/toothing.ts';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

const deg = Math.PI / 180;

/** Parameters of a strain-wave stage, SI units. */
export const strainWaveSchema = v.looseObject({
  held: v.pipe(
    v.picklist(['ring', 'spline']),
    v.description('Which member is bolted down: the ring (the spline drives out) or the spline (the ring drives out)'),
  ),
  body: v.pipe(
    v.picklist(['cup', 'belt']),
    v.description(
      'The spline is a cup with a closed end, or an open band whose turn a second ring of as many teeth takes off',
    ),
  ),
  lobes: v.pipe(wholeNumber(2, 3), v.description('Waves round the spline; the ring has as many teeth more')),
  teeth: v.pipe(wholeNumber(16, 400), v.description('Teeth of the spline')),
  form: v.pipe(
    v.picklist(['straight', 'involute', 'belt']),
    v.description('Sides of the teeth: straight, involute, or a synchronous belt turned inside out'),
  ),
  section: v.pipe(v.string(), v.description('Belt section, where the spline is a belt')),
  module: v.pipe(quantity('length', 1e-4, 1e-2), v.description('Module, m; a belt brings its own')),
  angle: v.pipe(
    quantity('angle', 10 * deg, 45 * deg),
    v.description('Lean of straight sides against the tooth’s axis, or pressure angle of involute ones, rad'),
  ),
  shift: v.pipe(
    quantity('count', -1, 6),
    v.description('Profile shift factor of involute teeth, spline and ring alike'),
  ),
  depth: v.pipe(quantity('count', 0.5, 1.5), v.description('Throw over (ring − spline)·module/2')),
  addendum: v.pipe(quantity('count', 0.1, 1.2), v.description('Addendum over module, spline and ring')),
  dedendum: v.pipe(quantity('count', 0.2, 1.6), v.description('Dedendum over module, spline and ring')),
  thin: v.pipe(quantity('length', -2e-4, 1e-3), v.description('Tooth-thickness allowance of the spline, m')),
  radius: size('Radius of the spline’s neutral line, the middle of its wall', 2e-3, 0.5),
  wall: size('Wall of the spline under its teeth', 1e-4, 0.02),
  width: size('Width of the teeth', 1e-3, 0.2),
  cup: size('Length of the spline from its closed end to its open one', 2e-3, 0.5),
  shape: v.pipe(
    v.picklist(['ellipse', 'cosine', 'two', 'four', 'many']),
    v.description('What the wave generator gives as a shape'),
  ),
  spread: v.pipe(
    quantity('angle', 5 * deg, 44 * deg),
    v.description('Half the angle between the two rollers of a lobe, rad'),
  ),
  rollers: v.pipe(wholeNumber(4, 36), v.description('Rollers in all, where there are many')),
  run: v.pipe(v.picklist(['bearing', 'plain']), v.description('A contour carries a thin bearing, or slides')),
  bearing: v.pipe(v.string(), v.description('The generator’s thin bearing, or each of its rollers, by designation')),
  slack: v.pipe(quantity('length', 0, 1e-3), v.description('Radial gap between generator and spline as made, m')),
  ringWall: size('Wall of the ring outside its roots', 5e-4, 0.1),
  materialS: materialId('spline'),
  materialR: materialId('ring'),
  materialG: materialId('wave generator'),
  shaft: size('Bore of the generator for the motor’s shaft', 0, 0.2),
});

export type StrainWaveParams = v.InferOutput<typeof strainWaveSchema>;

export const ringTeeth = (p: Pick<StrainWaveParams, 'teeth' | 'lobes'>): number => p.teeth + p.lobes;

/**
 * ω_in/ω_out with the wave generator driven: −z_f/(z_c − z_f) with the ring bolted, z_c/(z_c − z_f) with the spline
 * bolted. They differ by one and in sign.
 */
export const strainWaveRatio = (p: Pick<StrainWaveParams, 'held' | 'teeth' | 'lobes'>): number =>
  p.held === 'ring' ? -p.teeth / p.lobes : ringTeeth(p) / p.lobes;

export const hasRollers = (p: Pick<StrainWaveParams, 'shape'>): boolean =>
  p.shape === 'two' || p.shape === 'four' || p.shape === 'many';
