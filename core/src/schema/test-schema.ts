import * as v from 'valibot';
import { moment } from './moment.ts';

const struck = v.pipe(
  v.optional(v.string()),
  v.description('Why the reading is struck out; absent for one that counts'),
);

/** Kinds of test that a file may hold; rig and readings are named by the kind (`bench/kinds`). */
export const TEST_KIND_IDS = [
  'play-lever',
  'torque-ladder',
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

export const testSchema = v.looseObject({
  id: v.string(),
  buildId: v.string(),
  date: moment,
  notes: v.string(),
  kind: v.picklist(TEST_KIND_IDS),
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

export type BenchTest = v.InferOutput<typeof testSchema>;
