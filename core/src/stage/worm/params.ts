import * as v from 'valibot';
import { hubShape, materialId, size, teeth, thinning, yesNo } from '../../gear/toothing.ts';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

const deg = Math.PI / 180;

/** Parameters of a worm and its wheel, SI units. */
export const wormSchema = v.looseObject({
  starts: v.pipe(wholeNumber(1, 12), v.description('Starts of the worm')),
  z2: teeth('wheel'),
  hand: v.pipe(v.picklist(['right', 'left']), v.description('Hand of the thread: decides which way the wheel turns')),
  module: v.pipe(quantity('length', 1e-4, 2e-2), v.description('Axial module of the worm, transverse of the wheel, m')),
  quotient: v.pipe(
    quantity('count', 4, 40),
    v.description('Diameter quotient q: the worm’s reference diameter over its module'),
  ),
  pressure: v.pipe(quantity('angle', 14 * deg, 30 * deg), v.description('Normal pressure angle, rad')),
  width: size('Face width of the wheel', 5e-4, 0.3),
  length: size('Threaded length of the worm', 5e-4, 0.5),
  addendum: v.pipe(quantity('count', 0.5, 1.5), v.description('Addendum over module')),
  dedendum: v.pipe(quantity('count', 0.6, 2), v.description('Dedendum over module')),
  fillet: v.pipe(quantity('count', 0, 0.6), v.description('Root rounding of the cutter over module')),
  x2: v.pipe(quantity('count', -1, 1.5), v.description('Profile shift of the wheel over module')),
  allowance1: thinning('worm'),
  allowance2: thinning('wheel'),
  playBy: v.pipe(
    v.picklist(['centre', 'dual-lead', 'spring']),
    v.description('How play is set: by the centre distance, by moving a dual-lead worm, or taken out by a spring'),
  ),
  centreExtra: v.pipe(quantity('length', -1e-3, 2e-3), v.description('Centre distance beyond the one without play, m')),
  leadDifference: v.pipe(
    quantity('efficiency', 0, 0.1),
    v.description('Dual-lead: difference of the two flanks’ leads over their mean'),
  ),
  wormShift: v.pipe(
    quantity('length', -0.05, 0.05),
    v.description('Dual-lead: how far the worm is moved towards its thick end, m'),
  ),
  springForce: v.pipe(quantity('force', 0, 5000), v.description('Spring that presses the worm into the wheel, N')),
  frictionBy: v.pipe(v.picklist(['shop', 'given']), v.description('Friction from the shop’s factor, or as given')),
  friction: v.pipe(quantity('count', 0, 1), v.description('Coefficient of friction of the mesh, as given')),
  material1: materialId('worm'),
  material2: materialId('wheel'),
  bore1: size('Bore of the worm; 0 where its shaft is one with it', 0, 0.2),
  shape1: hubShape('worm'),
  bearing: v.pipe(v.string(), v.description('Bearings of the worm’s shaft, by designation')),
  span: size('Distance between the worm’s bearings', 1e-3, 1),
  bore2: size('Bore of the wheel', 0, 0.5),
  shape2: hubShape('wheel'),
  bolts2: v.pipe(wholeNumber(0, 24), v.description('Screws through the wheel')),
  boltCircle2: size('Bolt circle of the wheel', 0, 1),
  boltHole: size('Hole for a screw', 1e-3, 0.02),
  nuts: yesNo('Nut traps in the wheel'),
});

export type WormParams = v.InferOutput<typeof wormSchema>;

/** ω_in/ω_out: starts into teeth; a right-hand worm counts as turning the wheel forwards, a left-hand one backwards. */
export const wormRatio = (p: Pick<WormParams, 'starts' | 'z2' | 'hand'>): number =>
  ((p.hand === 'right' ? 1 : -1) * p.z2) / p.starts;
