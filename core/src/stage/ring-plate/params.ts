import * as v from 'valibot';
import { materialId, size } from '../../gear/toothing.ts';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

/** Parameters of a ring-plate stage, SI units. */
export const ringPlateSchema = v.looseObject({
  pins: v.pipe(wholeNumber(5, 120), v.description('Pins of the wheel, Z; the plates have one lobe more')),
  circle: size('Diameter of the wheel’s pin circle', 5e-3, 1),
  pin: size('Diameter of a pin, over its sleeve where it has one', 5e-4, 0.1),
  throw: v.pipe(quantity('length', 5e-5, 0.02), v.description('Eccentricity of the cranks, m')),
  plates: v.pipe(wholeNumber(1, 4), v.description('Plates')),
  spread: v.pipe(
    v.picklist(['even', 'quarter']),
    v.description('Phases of the plates: evenly round the turn, or a quarter turn apart'),
  ),
  layout: v.pipe(
    v.picklist(['one', 'idle', 'both']),
    v.description('One crank, a driven and an idle one, or two that both drive'),
  ),
  distance: size('Distance of a crank from the wheel’s middle', 2e-3, 1),
  width: size('Thickness of a plate', 5e-4, 0.1),
  offset: v.pipe(quantity('length', 0, 1e-3), v.description('Equidistant gap between lobes and pins, m')),
  pinsRun: v.pipe(v.picklist(['fixed', 'sleeves']), v.description('Pins are fixed, or carry sleeves that roll')),
  bearing: v.pipe(v.string(), v.description('Bearing on each eccentric, by designation')),
  materialP: materialId('plates'),
  materialW: materialId('pins'),
  materialH: materialId('wheel'),
  wall: size('Wall of a plate outside lobes and bearings', 5e-4, 0.1),
  bore: size('Bore of the wheel', 0, 0.5),
});

export type RingPlateParams = v.InferOutput<typeof ringPlateSchema>;

/** ω_in/ω_out: the wheel turns back by a pin for each turn of the crank. */
export const ringPlateRatio = (p: Pick<RingPlateParams, 'pins'>): number => -p.pins;

/** Phases of the plates' eccentrics, rad. */
export const phasesOf = (p: Pick<RingPlateParams, 'plates' | 'spread'>): number[] =>
  Array.from({ length: p.plates }, (_, i) => (p.spread === 'even' ? (2 * Math.PI * i) / p.plates : (Math.PI / 2) * i));
