import * as v from 'valibot';
import { hubShape, materialId, shift, size, teeth, thinning, toothingEntries } from '../../gear/toothing.ts';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

/** Parameters of a spur or helical pair, with or without idlers, SI units. */
export const spurSchema = v.looseObject({
  form: v.pipe(v.picklist(['outside', 'ring']), v.description('The driven wheel has outside teeth, or is a ring')),
  z1: teeth('driving wheel'),
  z2: teeth('driven wheel', 600),
  idlers: v.pipe(wholeNumber(0, 4), v.description('Idlers between them')),
  zi: teeth('idler'),
  bend: v.pipe(
    quantity('angle', -Math.PI / 2, Math.PI / 2),
    v.description('How far the row of centres bends at each idler, rad'),
  ),
  ...toothingEntries,
  setBy: v.pipe(v.picklist(['shifts', 'centre']), v.description('What is given: both shifts, or the centre distance')),
  centre: v.pipe(quantity('length', 1e-3, 2), v.description('Wanted centre distance of the pair, m')),
  split: v.pipe(v.picklist(['sliding', 'undercut', 'even']), v.description('How a shift sum is shared')),
  x1: shift('driving wheel'),
  x2: shift('driven wheel'),
  xi: shift('idlers'),
  allowance1: thinning('driving wheel'),
  allowance2: thinning('driven wheel'),
  material1: materialId('driving wheel and idlers'),
  material2: materialId('driven wheel'),
  rim: size('Wall of a ring outside its roots', 5e-4, 0.2),
  bore1: size('Bore of the driving wheel', 0, 0.3),
  shape1: hubShape('driving wheel'),
  bore2: size('Bore of the driven wheel', 0, 0.5),
  shape2: hubShape('driven wheel'),
  bolts2: v.pipe(wholeNumber(0, 24), v.description('Screws through the driven wheel')),
  boltCircle2: size('Bolt circle of the driven wheel', 0, 1),
  boltHole: size('Hole for a screw', 1e-3, 0.02),
  nuts: v.pipe(v.picklist(['no', 'yes']), v.description('Nut traps in the driven wheel')),
});

export type SpurParams = v.InferOutput<typeof spurSchema>;

/** ω_in/ω_out: idlers turn the direction, never the ratio; a ring keeps it. */
export const spurRatio = (p: Pick<SpurParams, 'z1' | 'z2' | 'idlers' | 'form'>): number => {
  const outsideMeshes = p.idlers + (p.form === 'ring' ? 0 : 1);
  return ((outsideMeshes % 2 === 0 ? 1 : -1) * p.z2) / p.z1;
};
