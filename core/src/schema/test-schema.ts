import * as v from 'valibot';
import { moment } from './moment.ts';
import { quantity } from './quantity-schema.ts';

const struck = v.pipe(
  v.optional(v.string()),
  v.description('Why the reading is struck out; absent for one that counts'),
);
const common = { id: v.string(), buildId: v.string(), date: moment, notes: v.string() };

export const playTestSchema = v.looseObject({
  ...common,
  kind: v.literal('play-lever'),
  rig: v.looseObject({
    lever: v.pipe(quantity('length', 1e-4, 20), v.description('Radius at which the difference is read, m')),
    leverError: v.pipe(quantity('length', 0, 1), v.description('Largest error of the radius, m')),
    instrument: v.string(),
    push: v.pipe(
      quantity('torque', 0, 1e5),
      v.description('Torque of the light push each way, 0 where not known, N·m'),
    ),
    /** Takes the push's wind-up out with the expected stiffness. */
    correctWindUp: v.boolean(),
  }),
  readings: v.array(
    v.looseObject({
      id: v.string(),
      angle: v.pipe(quantity('angle', -1e3, 1e3), v.description('Output angle at which it was read, rad')),
      difference: v.pipe(quantity('length', 0, 10), v.description('Difference between the two pushes, m')),
      text: v.pipe(v.string(), v.description('As entered')),
      struck,
    }),
  ),
});

export const OUTCOMES = [
  'lifted',
  'held',
  'crept',
  'skipped',
  'lost-steps',
  'stalled',
  'driver-limit',
  'rig-failed',
] as const;

export const ladderTestSchema = v.looseObject({
  ...common,
  kind: v.literal('torque-ladder'),
  rig: v.looseObject({
    lever: v.pipe(quantity('length', 1e-4, 20), v.description('Axis to the hung mass, m')),
    leverError: v.pipe(quantity('length', 0, 1), v.description('Largest error of the radius, m')),
    leverMass: v.pipe(quantity('mass', 0, 1e3), v.description('Mass of the lever, kg')),
    leverCentre: v.pipe(quantity('length', 0, 20), v.description('Axis to the lever’s centre of mass, m')),
    basket: v.pipe(quantity('mass', 0, 1e3), v.description('Basket and hook, kg')),
    angle: v.pipe(quantity('angle', -Math.PI / 2, Math.PI / 2), v.description('Lever above the horizontal, rad')),
    angleError: v.pipe(quantity('angle', 0, 1), v.description('Largest error of that angle, rad')),
    instrument: v.string(),
  }),
  readings: v.array(
    v.looseObject({
      id: v.string(),
      mass: v.pipe(quantity('mass', 0, 1e4), v.description('Mass hung, without the basket, kg')),
      outcome: v.picklist(OUTCOMES),
      text: v.pipe(v.string(), v.description('As entered')),
      struck,
    }),
  ),
});

/** Tests whose rig and readings are named by their kind (`bench/kinds`). */
export const READINGS_KINDS = [
  'play-spot',
  'hysteresis',
  'torque-cell',
  'efficiency',
  'turn-back',
  'no-load',
  'runout',
  'transmission',
  'positioning',
  'step',
  'temperature',
  'endurance',
  'leg-press',
  'pluck',
  'noise',
  'fit',
] as const;

/** A number that was measured or typed; what is larger than this is no measurement, and its square is no number. */
const measured = v.pipe(v.number(), v.finite(), v.minValue(-1e30), v.maxValue(1e30));

/**
 * A recording as it lies in a file; without `data` it is kept beside the joint under its hash (before version 4: under
 * the test's id).
 */
export const recordingSchema = v.looseObject({
  name: v.pipe(v.string(), v.description('File or source it came from')),
  channels: v.array(v.looseObject({ id: v.string(), name: v.string(), quantity: v.string() })),
  rows: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(5e6)),
  rate: v.pipe(v.number(), v.finite(), v.description('Samples a second; 0 where a time channel tells')),
  malformed: v.pipe(v.number(), v.integer(), v.minValue(0)),
  gaps: v.pipe(v.number(), v.integer(), v.minValue(0)),
  notes: v.array(v.string()),
  sha256: v.optional(
    v.pipe(
      v.string(),
      v.regex(/^[0-9a-f]{64}$/, 'must be 64 hexadecimal digits'),
      v.description('SHA-256 of the text of `data`, by which it is found and shared'),
    ),
  ),
  data: v.optional(
    v.pipe(v.string(), v.description('Offsets; then single-precision samples channel after channel, zlib, base64')),
  ),
});

export const readingsTestSchema = v.looseObject({
  ...common,
  kind: v.picklist(READINGS_KINDS),
  rig: v.pipe(
    v.record(v.string(), v.union([measured, v.string()], 'must be a number or text')),
    v.description('Dimensions in SI, by the names of the kind'),
  ),
  readings: v.array(
    v.looseObject({
      id: v.string(),
      text: v.pipe(v.string(), v.description('As entered')),
      struck,
      values: v.pipe(
        v.record(v.string(), v.union([measured, v.string()], 'must be a number or text')),
        v.description('Columns in SI, by the names of the kind'),
      ),
    }),
  ),
  recording: v.optional(recordingSchema),
  teardown: v.optional(
    v.array(
      v.looseObject({
        id: v.string(),
        part: v.string(),
        condition: v.string(),
        note: v.string(),
        photos: v.optional(v.array(v.string())),
      }),
    ),
  ),
});

export const testSchema = v.variant('kind', [playTestSchema, ladderTestSchema, readingsTestSchema]);

export type PlayTest = v.InferOutput<typeof playTestSchema>;
export type LadderTest = v.InferOutput<typeof ladderTestSchema>;
export type ReadingsTest = v.InferOutput<typeof readingsTestSchema>;
export type BenchTest = v.InferOutput<typeof testSchema>;
export type Outcome = (typeof OUTCOMES)[number];
