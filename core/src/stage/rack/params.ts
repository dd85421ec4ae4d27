import type { TakenOut } from '../../gear/taken-out.ts';
import type { Toothing } from '../../gear/toothing.ts';
import { amount, group, length, material, oneOf, whole, type ParamTable } from '../param.ts';
import { hubShape, takenOutParams, thinning, toothFormParams, toothingParams } from '../shared-params.ts';

/** Parameters of a rack and its pinion, SI units. */
export interface RackParams extends Toothing {
  /** What the pinion has. */
  form: 'involute' | 'rollers';
  /** Teeth or rollers of the pinion. */
  z: number;
  /** Profile shift factor of the pinion. */
  shift: number;
  /** Diameter of a roller, m. */
  roller: number;
  /** By how much rollers are set in beyond touching both flanks, m. */
  interference: number;
  /** Tooth-thickness allowance of the pinion, m. */
  allowance1: number;
  /** Tooth-thickness allowance of the rack, m. */
  allowance2: number;
  /** How the play of the mesh is taken out. */
  takenOut: TakenOut;
  /** Force of the springs that take it out, N. */
  preload: number;
  /** Taper of the teeth, rad. */
  taper: number;
  /** Stroke of the axis, m. */
  stroke: number;
  /** Longest piece of rack to be had, m. */
  piece: number;
  /** How straight the rack lies: half the range of its distance from the pinion over the stroke, m. */
  straight: number;
  /** What moves. */
  moves: 'rack' | 'carriage';
  /** Height of the rack below its pitch line, m. */
  back: number;
  /** From the pinion's middle to the bearing that carries its shaft, m. */
  overhang: number;
  /** Bore of the pinion and its shaft, m. */
  bore: number;
  /** Bore of the pinion. */
  shape: 'round' | 'flat' | 'keyway';
  /** Material of the shop, pinion. */
  material1: string;
  /** Material of the shop, rack. */
  material2: string;
}
type P = RackParams;

const toothed = (p: P): boolean => p.form === 'involute';
const { helix, double, module, width } = toothingParams;

/** What each parameter is, how it is bounded and edited. */
export const rackParams: ParamTable<P> = {
  ...group('Teeth', {
    form: oneOf({
      says: 'What the pinion has',
      label: 'Pinion',
      help: 'Involute teeth, or rollers on a rack of cycloids, which can run all but without play.',
      start: 'involute',
      options: [
        ['involute', 'Teeth'],
        ['rollers', 'Rollers'],
      ],
    }),
    z: whole({
      says: 'Teeth or rollers of the pinion',
      label: 'Teeth or rollers',
      help: 'Travel of a turn goes with it; ten or twelve rollers are usual.',
      start: 20,
      least: 5,
      most: 200,
    }),
    module: { ...module, help: 'Pitch of the rack over π; ISO 54 prefers 0.5, 0.8, 1, 1.25, 1.5, 2.', start: 1e-3 },
    width: { ...width, start: 0.012 },
    helix: { ...helix, when: toothed },
    double: { ...double, when: (p: P) => toothed(p) && p.helix > 0 },
    shift: amount('count', {
      says: 'Profile shift factor of the pinion',
      label: 'Shift',
      help: 'Takes undercut off a small pinion; the rack moves away by it.',
      start: 0,
      least: -0.5,
      most: 1,
      step: 0.05,
      when: toothed,
    }),
    roller: length({
      says: 'Diameter of a roller',
      label: 'Roller',
      help: 'On pins between two discs; half of the pitch is usual.',
      start: 3e-3,
      least: 5e-4,
      most: 0.05,
      when: (p: P) => !toothed(p),
    }),
  }),
  ...group('Play', {
    allowance1: {
      ...thinning<P>({
        says: 'Tooth-thickness allowance of the pinion',
        label: 'Thinner, pinion',
        help: 'Taken off each tooth; makes play, and room for the process.',
        start: 2e-5,
        when: toothed,
      }),
    },
    allowance2: {
      ...thinning<P>({
        says: 'Tooth-thickness allowance of the rack',
        label: 'Thinner, rack',
        help: 'Taken off each tooth of the rack.',
        start: 2e-5,
        when: toothed,
      }),
    },
    interference: length({
      says: 'By how much rollers are set in beyond touching both flanks',
      label: 'Set in by',
      help: 'Preload of the rollers: nought to five micrometres; stiff ones crush their flanks beyond.',
      start: 2e-6,
      least: 0,
      most: 1e-4,
      step: 1e-6,
      when: (p: P) => !toothed(p),
    }),
    takenOut: { ...takenOutParams.takenOut, when: toothed },
    preload: {
      ...takenOutParams.preload,
      when: (p: P) => toothed(p) && (p.takenOut === 'split' || p.takenOut === 'spring'),
    },
    taper: { ...takenOutParams.taper, when: (p: P) => toothed(p) && p.takenOut === 'taper' },
  }),
  ...group('Rack', {
    stroke: length({
      says: 'Stroke of the axis',
      label: 'Stroke',
      help: 'The rack is longer by what the pinion covers at either end.',
      start: 0.3,
      least: 1e-3,
      most: 50,
      step: 0.01,
    }),
    piece: length({
      says: 'Longest piece of rack to be had',
      label: 'Longest piece',
      help: 'Longer racks are set together of pieces, with a counter-rack held over the joint.',
      start: 0.5,
      least: 0.01,
      most: 5,
      step: 0.05,
    }),
    straight: length({
      says: 'How straight the rack lies: half the range of its distance from the pinion over the stroke',
      label: 'Lies straight within',
      help: 'Half of what a dial finds between carriage and rack over the stroke: play and tight places come from it.',
      start: 3e-5,
      least: 0,
      most: 1e-3,
      step: 5e-6,
    }),
    moves: oneOf({
      says: 'What moves',
      label: 'What moves',
      help: 'A carriage with motor and pinion along a fixed rack, or the rack past a fixed pinion.',
      start: 'carriage',
      options: [
        ['carriage', 'Pinion, on a carriage'],
        ['rack', 'The rack'],
      ],
    }),
    back: length({
      says: 'Height of the rack below its pitch line',
      label: 'Rack height',
      help: 'From the pitch line to its back.',
      start: 8e-3,
      least: 1e-3,
      most: 0.2,
    }),
  }),
  ...group('Shaft', {
    bore: length({
      says: 'Bore of the pinion and its shaft',
      label: 'Bore',
      help: 'Shaft diameter.',
      start: 6e-3,
      least: 5e-4,
      most: 0.2,
    }),
    shape: hubShape({ says: 'Bore of the pinion', label: 'Bore is', start: 'flat' }),
    overhang: length({
      says: 'From the pinion’s middle to the bearing that carries its shaft',
      label: 'Overhang',
      help: 'A pinion on the end of a shaft bends it: often the softest part of the axis.',
      start: 0.012,
      least: 1e-3,
      most: 0.3,
      step: 1e-3,
    }),
  }),
  ...group('Made of', {
    material1: material({ says: 'pinion', label: 'Pinion', start: 'c45' }),
    material2: material({ says: 'rack', label: 'Rack', start: 'c45' }),
  }),
  ...(Object.fromEntries(
    Object.entries(toothFormParams).map(([k, p]) => [k, { ...p, when: toothed }]),
  ) as typeof toothFormParams),
};

/** Pinion's pitch radius, m. */
export const pinionRadius = (p: Pick<P, 'module' | 'z' | 'helix' | 'form'>): number =>
  (p.module * p.z) / (2 * (p.form === 'involute' ? Math.cos(p.helix) : 1));

/** Pinion's angle for a metre of travel, rad/m: what the stage has for a ratio. */
export const rackRatio = (p: Pick<P, 'module' | 'z' | 'helix' | 'form'>): number => 1 / pinionRadius(p);
