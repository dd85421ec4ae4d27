import * as v from 'valibot';
import { day } from './moment.ts';
import { quantity } from './quantity-schema.ts';

/** Kinds of machine by how they come off the drawing. */
export const PROCESS_TYPES = ['filament', 'resin', 'powder', 'cutter', 'mill'] as const;

/** What of a made part was measured. */
export const FIT_FEATURES = ['outside', 'hole', 'foot', 'foot-height', 'ladder'] as const;

const shortText = v.pipe(v.string('must be text'), v.maxLength(400, 'must be at most 400 characters'));

/** A size that was drawn and what it came out as. */
export const fitReadingSchema = v.looseObject({
  id: v.string(),
  feature: v.pipe(
    v.picklist(FIT_FEATURES),
    v.description(
      'An outside, a hole, an outside at the bed with the foot, the height of the foot, or the narrowest hole of a ladder that a plug goes into',
    ),
  ),
  axis: v.pipe(v.picklist(['x', 'y', 'round']), v.description('Way it lies on the bed; round for both')),
  drawn: v.pipe(quantity('length', 0, 10), v.description('Size as drawn, m; 0 for the height of a foot')),
  made: v.pipe(quantity('length', 0, 100), v.description('Size as measured, m')),
  gain: v.pipe(
    v.optional(quantity('count', 0.1, 20)),
    v.description('Size gained for each metre by which its contour stands out; 2 where left out'),
  ),
  spread: v.pipe(
    v.optional(quantity('length', 0, 0.01)),
    v.description('Standard uncertainty of the measurement, m; of a digital caliper where left out'),
  ),
  where: v.pipe(v.optional(shortText), v.description('Where it was measured')),
  struck: v.pipe(v.optional(shortText), v.description('Why it does not count')),
  counts: v.pipe(v.optional(v.boolean()), v.description('It counts although it lies far off')),
});

/** Readings of one day, of a coupon, a made part or an attempt. */
export const fitEntrySchema = v.looseObject({
  id: v.string(),
  day,
  from: v.picklist(['coupon', 'part', 'bench', 'attempt']),
  note: shortText,
  readings: v.pipe(v.array(fitReadingSchema), v.maxLength(400, 'must have at most 400 readings')),
});

/** A printer or cutter with its tool, material and settings, and what was measured of it. */
export const processSchema = v.looseObject({
  id: v.pipe(v.string('must be text'), v.minLength(1, 'must not be empty'), v.maxLength(64)),
  name: v.pipe(
    v.string('must be text'),
    v.maxLength(120, 'must be at most 120 characters'),
    v.check((x) => x.trim() !== '', 'must not be empty or of spaces alone'),
  ),
  type: v.pipe(v.picklist(PROCESS_TYPES), v.description('How it makes: what it starts from until it is measured')),
  machine: v.pipe(shortText, v.description('Machine, in one’s own words')),
  tool: v.pipe(quantity('length', 1e-5, 0.1), v.description('Nozzle, beam or cutter, diameter, m')),
  material: v.pipe(v.string(), v.maxLength(64), v.description('Material of the shop')),
  layer: v.pipe(quantity('length', 0, 0.1), v.description('Layer, m; 0 where there is none')),
  settings: v.pipe(shortText, v.description('Settings it was measured with')),
  direction: v.pipe(v.optional(shortText, ''), v.description('How parts lie, and which way x is')),
  compensates: v.pipe(
    v.picklist(['outline', 'slicer', 'none']),
    v.description('What corrects its sizes: the exported outline, the contour setting of the slicer, or nothing'),
  ),
  foot: v.pipe(
    v.optional(v.picklist(['chamfer', 'raft', 'none']), 'none'),
    v.description('What is done about the first layers that spread'),
  ),
  fits: v.pipe(v.array(fitEntrySchema), v.maxLength(200, 'must have at most 200 entries')),
  source: v.string(),
});

export type Process = v.InferOutput<typeof processSchema>;
export type ProcessType = Process['type'];
export type FitEntry = v.InferOutput<typeof fitEntrySchema>;
export type FitReading = v.InferOutput<typeof fitReadingSchema>;
export type FitFeature = FitReading['feature'];

/** What is made by which process: all parts, and single ones otherwise, by stage and part. */
export const makingSchema = v.looseObject({
  process: v.pipe(v.string(), v.maxLength(64), v.description('Process of the shop that makes all parts')),
  parts: v.pipe(
    v.optional(v.record(v.string(), v.pipe(v.string(), v.maxLength(64)))),
    v.description('Parts that another process makes, by stage and part'),
  ),
});
export type MakingBy = v.InferOutput<typeof makingSchema>;

/** One attempt at making a part fit. */
export const attemptSchema = v.looseObject({
  id: v.string(),
  day,
  part: v.pipe(shortText, v.description('Part, by stage and part')),
  name: v.pipe(shortText, v.description('Its name when it was made')),
  process: v.pipe(v.string(), v.maxLength(64)),
  compensated: v.pipe(
    v.optional(v.boolean(), false),
    v.description('It was made with what was known of the process taken off'),
  ),
  feature: v.picklist(['outside', 'hole']),
  drawn: v.pipe(quantity('length', 0, 10), v.description('Size that had to fit, as drawn, m')),
  was: v.pipe(v.picklist(['tight', 'fits', 'loose']), v.description('How it came off the machine')),
  took: v.pipe(
    quantity('length', -0.01, 0.01),
    v.description('Taken off a side until it fitted, m; below 0 for what was put on, such as tape'),
  ),
  ends: v.pipe(v.picklist(['tight', 'fits', 'loose']), v.description('How it is now')),
  note: v.pipe(v.optional(shortText, ''), v.description('What was done')),
});
export type Attempt = v.InferOutput<typeof attemptSchema>;
