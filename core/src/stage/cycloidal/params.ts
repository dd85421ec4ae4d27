import * as v from 'valibot';
import { materialId, size } from '../../gear/toothing.ts';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

/** Parameters of a cycloidal stage, SI units. */
export const cycloidalSchema = v.looseObject({
  held: v.pipe(
    v.picklist(['ring', 'disc']),
    v.description('What is held: the ring of pins (the disc drives out), or the disc (the ring turns)'),
  ),
  pins: v.pipe(wholeNumber(4, 120), v.description('Pins of the ring, Z')),
  difference: v.optional(
    v.pipe(wholeNumber(1, 2), v.description('How many lobes the disc has less than the ring has pins')),
    1,
  ),
  circle: size('Diameter of the pin circle', 5e-3, 2),
  pin: size('Diameter of a ring pin, over its sleeve where it has one', 5e-4, 0.1),
  throw: v.pipe(quantity('length', 5e-5, 0.02), v.description('Eccentricity, m')),
  discs: v.pipe(wholeNumber(1, 3), v.description('Discs, evenly phased')),
  width: size('Thickness of a disc', 5e-4, 0.1),
  offset: v.pipe(
    quantity('length', -2e-4, 1e-3),
    v.description('Equidistant gap between profile and pins, m: the profile is cut for pins as much larger in radius'),
  ),
  ringChange: v.pipe(
    quantity('length', -1e-3, 1e-3),
    v.description('How much smaller in radius the pin circle is that the profile is cut for, m'),
  ),
  pinsRun: v.pipe(v.picklist(['fixed', 'sleeves']), v.description('Ring pins are fixed, or carry sleeves that roll')),
  outPins: v.pipe(wholeNumber(3, 24), v.description('Output pins through holes of the disc')),
  outCircle: size('Diameter of the circle of output pins', 2e-3, 1),
  outPin: size('Diameter of an output pin, over its sleeve where it has one', 5e-4, 0.1),
  outGap: v.pipe(
    quantity('length', 0, 1e-3),
    v.description('Diametral clearance of an output hole beyond pin + 2e, m'),
  ),
  outRun: v.pipe(v.picklist(['fixed', 'sleeves']), v.description('Output pins are fixed, or carry sleeves that roll')),
  carriedBy: v.pipe(
    v.picklist(['plate', 'both']),
    v.description('Output pins stand in one plate, or in one on either side'),
  ),
  bearing: v.pipe(v.string(), v.description('Eccentric bearing in each disc, by designation')),
  shaft: size('Bore of the crank for the motor’s shaft', 0, 0.2),
  materialD: materialId('discs'),
  materialP: materialId('pins'),
  materialH: materialId('housing and plates'),
  rim: size('Housing outside the pin circle', 1e-3, 0.2),
  boltsR: v.pipe(wholeNumber(0, 24), v.description('Screws through the housing')),
  boltHole: size('Hole for a screw', 1e-3, 0.02),
});

export type CycloidalParams = v.InferOutput<typeof cycloidalSchema>;

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
