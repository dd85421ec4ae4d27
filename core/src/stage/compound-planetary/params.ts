import * as v from 'valibot';
import { materialId, shift, size, teeth, thinning, toothingEntries } from '../../gear/toothing.ts';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

/**
 * Parameters of a shared-planet stage, SI units: planets with two toothings, A in the held ring, B in the one that
 * turns.
 */
export const compoundSchema = v.looseObject({
  drive: v.pipe(v.picklist(['sun', 'carrier']), v.description('What drives: a sun in toothing A, or the carrier')),
  zs: teeth('sun'),
  zpA: teeth('planet, toothing A'),
  zr1: teeth('held ring', 600),
  zpB: teeth('planet, toothing B'),
  zr2: teeth('driven ring', 600),
  planets: v.pipe(wholeNumber(2, 12), v.description('Number of planets')),
  ...toothingEntries,
  moduleB: v.pipe(quantity('length', 1e-4, 2e-2), v.description('Normal module of toothing B, m')),
  widthB: v.pipe(quantity('length', 5e-4, 0.3), v.description('Face width of toothing B, m')),
  xs: shift('sun'),
  xpA: shift('planets, toothing A'),
  xpB: shift('planets, toothing B'),
  allowanceA: thinning('toothing A'),
  allowanceB: thinning('toothing B'),
  meshBy: v.pipe(
    v.picklist(['friction', 'given']),
    v.description('Mesh efficiencies from friction, or one given for all'),
  ),
  eta: v.pipe(quantity('efficiency', 0.5, 1), v.description('Efficiency of each mesh, as given')),
  materialS: materialId('sun'),
  materialP: materialId('planets'),
  materialR: materialId('rings'),
  pin: size('Pin diameter', 5e-4, 0.1),
  rim: size('Wall of the rings outside their roots', 5e-4, 0.2),
  boreS: size('Bore of the sun', 0, 0.3),
});

export type CompoundParams = v.InferOutput<typeof compoundSchema>;
