import { amount, group, length, material, whole, type ParamTable } from '../param.ts';
import { hubShape, screwHole, screws, thinning } from '../shared-params.ts';

const deg = Math.PI / 180;

/** Parameters of a bevel pair, SI units. */
export interface BevelParams {
  /** Teeth, pinion. */
  z1: number;
  /** Teeth, wheel. */
  z2: number;
  /** Module at the outer end, m. */
  module: number;
  /** Face width along the cone, m. */
  width: number;
  /** Pressure angle, rad. */
  pressure: number;
  /** Angle between the shafts, rad. */
  shaft: number;
  /** Profile shift factor of the pinion; the wheel has as much less. */
  shift: number;
  /** Tooth-thickness allowance of the pinion at its outer end, m. */
  allowance1: number;
  /** Tooth-thickness allowance of the wheel at its outer end, m. */
  allowance2: number;
  /** Hub behind the pinion's teeth, m. */
  hub1: number;
  /** Hub behind the wheel's teeth, m. */
  hub2: number;
  /** Bore of the pinion, m. */
  bore1: number;
  /** Bore, pinion. */
  shape1: 'round' | 'flat' | 'keyway';
  /** Bore of the wheel, m. */
  bore2: number;
  /** Bore, wheel. */
  shape2: 'round' | 'flat' | 'keyway';
  /** Screws through the wheel. */
  bolts2: number;
  /** Their circle, m. */
  boltCircle2: number;
  /** Hole for a screw, m. */
  boltHole: number;
  /** Material of the shop, pinion. */
  material1: string;
  /** Material of the shop, wheel. */
  material2: string;
}
type P = BevelParams;

/** What each parameter is, how it is bounded and edited. */
export const bevelParams: ParamTable<P> = {
  ...group('Teeth', {
    z1: whole({
      says: 'Teeth, pinion',
      label: 'Pinion',
      help: 'Teeth; as many as the wheel has make a mitre pair.',
      start: 20,
      least: 6,
      most: 120,
    }),
    z2: whole({ says: 'Teeth, wheel', label: 'Wheel', help: 'Teeth.', start: 40, least: 6, most: 200 }),
    module: length({
      says: 'Module at the outer end',
      label: 'Outer module',
      help: 'At the outer end of the teeth, where calipers reach; it shrinks towards the apex.',
      start: 1e-3,
      least: 1e-4,
      most: 0.02,
      step: 5e-5,
    }),
    width: length({
      says: 'Face width along the cone',
      label: 'Face width',
      help: 'Along the cone; no more than a third of the cone distance carries.',
      start: 7e-3,
      least: 5e-4,
      most: 0.2,
    }),
    shaft: amount('angle', {
      says: 'Angle between the shafts',
      label: 'Shaft angle',
      help: '90° is usual; any other is as good.',
      start: 90 * deg,
      least: 10 * deg,
      most: 170 * deg,
      step: 5 * deg,
    }),
    shift: amount('count', {
      says: 'Profile shift factor of the pinion; the wheel has as much less',
      label: 'Shift',
      help: 'Pinion’s; the wheel has as much less, so that the cones stay.',
      start: 0,
      least: -0.5,
      most: 0.8,
      step: 0.05,
    }),
    pressure: amount('angle', {
      says: 'Pressure angle',
      label: 'Pressure angle',
      help: '20° is usual.',
      start: 20 * deg,
      least: 14 * deg,
      most: 30 * deg,
      step: 2.5 * deg,
    }),
  }),
  ...group('Play', {
    allowance1: thinning({
      says: 'Tooth-thickness allowance of the pinion at its outer end',
      label: 'Thinner, pinion',
      help: 'Taken off each tooth at its outer end; makes play, and room for the process.',
      start: 4e-5,
    }),
    allowance2: thinning({
      says: 'Tooth-thickness allowance of the wheel at its outer end',
      label: 'Thinner, wheel',
      help: 'Taken off each tooth at its outer end.',
      start: 4e-5,
    }),
  }),
  ...group('Made of', {
    material1: material({ says: 'pinion', label: 'Pinion', start: 'c45' }),
    material2: material({ says: 'wheel', label: 'Wheel', start: 'c45' }),
  }),
  ...group('Hubs', {
    hub1: length({
      says: 'Hub behind the pinion’s teeth',
      label: 'Pinion hub',
      help: 'Behind the teeth; its face is what the mounting distance is told to.',
      start: 6e-3,
      least: 5e-4,
      most: 0.2,
    }),
    bore1: length({
      says: 'Bore of the pinion',
      label: 'Pinion bore',
      help: 'Motor shaft.',
      start: 5e-3,
      least: 5e-4,
      most: 0.3,
    }),
    shape1: hubShape({ says: 'Bore, pinion', label: 'Pinion bore is', start: 'flat' }),
    hub2: length({
      says: 'Hub behind the wheel’s teeth',
      label: 'Wheel hub',
      help: 'Behind the teeth.',
      start: 6e-3,
      least: 5e-4,
      most: 0.2,
    }),
    bore2: length({
      says: 'Bore of the wheel',
      label: 'Wheel bore',
      help: 'Shaft, or a passage where it is screwed on.',
      start: 8e-3,
      least: 5e-4,
      most: 0.5,
    }),
    shape2: hubShape({ says: 'Bore, wheel', label: 'Wheel bore is', start: 'flat' }),
    bolts2: screws({ says: 'Screws through the wheel', label: 'Screws, wheel', help: 'Through the wheel’s hub.' }),
    boltCircle2: length({
      says: 'Their circle',
      label: 'Their circle',
      help: 'Diameter.',
      start: 0.018,
      least: 0,
      most: 1,
      when: (p: P) => p.bolts2 > 0,
    }),
    boltHole: screwHole<P>((p: P) => p.bolts2 > 0),
  }),
};
