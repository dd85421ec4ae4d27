import * as v from 'valibot';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

const made = v.picklist(['bought', 'printed']);
const hold = v.picklist(['screws', 'glue', 'key', 'bolted']);

/** Parameters of a synchronous belt stage, SI units. */
export const beltSchema = v.looseObject({
  section: v.pipe(v.string(), v.description('Belt section by designation, e.g. R3')),
  width: v.pipe(quantity('length', 1e-3, 0.2), v.description('Belt width, m')),
  z1: v.pipe(wholeNumber(6, 400), v.description('Teeth of the driving pulley')),
  z2: v.pipe(wholeNumber(6, 400), v.description('Teeth of the driven pulley')),
  closure: v.pipe(
    v.picklist(['closed', 'open']),
    v.description('Closed stocked belt, or an open-ended belt clamped or spliced'),
  ),
  setBy: v.pipe(
    v.picklist(['length', 'centre']),
    v.description('What is given: the belt length or the centre distance'),
  ),
  beltTeeth: v.pipe(wholeNumber(10, 3000), v.description('Teeth of the closed belt')),
  centre: v.pipe(quantity('length', 1e-3, 5), v.description('Wanted centre distance, m')),
  tension: v.pipe(quantity('force', 0, 1e5), v.description('Installation tension of a span, N')),
  idler: v.pipe(v.picklist(['none', 'inside', 'outside']), v.description('Idler on the slack span')),
  idlerTeeth: v.pipe(wholeNumber(6, 200), v.description('Teeth of an inside idler')),
  idlerDiameter: v.pipe(quantity('length', 1e-3, 0.5), v.description('Diameter of a flat outside idler, m')),
  idlerAlong: v.pipe(
    quantity('efficiency', 0.05, 0.95),
    v.description('Where the idler sits along the centre distance'),
  ),
  idlerPush: v.pipe(quantity('length', 0, 0.5), v.description('How far the idler presses the span aside, m')),
  made1: v.pipe(made, v.description('Driving pulley bought or printed')),
  made2: v.pipe(made, v.description('Driven pulley bought or printed')),
  bore1: v.pipe(quantity('length', 5e-4, 0.5), v.description('Bore of the driving pulley, m')),
  bore2: v.pipe(quantity('length', 5e-4, 0.5), v.description('Bore of the driven pulley, m')),
  seat1: v.pipe(
    v.optional(quantity('length', 0, 0.5)),
    v.description('Bearing seat in the driving pulley, m; 0 or absent for none'),
  ),
  seat2: v.pipe(
    v.optional(quantity('length', 0, 0.5)),
    v.description('Bearing seat in the driven pulley, m; 0 or absent for none'),
  ),
  hold1: v.pipe(hold, v.description('How the driving pulley is held on its shaft')),
  hold2: v.pipe(hold, v.description('How the driven pulley is held')),
  allowance: v.pipe(quantity('length', 0, 5e-4), v.description('How far a printed contour is moved in, m')),
});

export type BeltParams = v.InferOutput<typeof beltSchema>;
