import * as v from 'valibot';
import { armCaseSchema, briefSchema, limitSchema, LIMIT_IDS } from './brief-schema.ts';
import { driverSchema, motorSchema } from './motor-schema.ts';
import { wholeNumber } from './quantity-schema.ts';
import { testSchema } from './test-schema.ts';

export const FORMAT = 'gristmill-joint';
export const VERSION = 2;

const name = v.pipe(v.string('must be text'), v.maxLength(120, 'must be at most 120 characters'));
const text = v.pipe(v.string('must be text'), v.maxLength(20000, 'must be at most 20 000 characters'));
const id = v.pipe(v.string('must be text'), v.minLength(1, 'must not be empty'), v.maxLength(64, 'must be at most 64 characters'));

/** One stage of a line; its parameters are checked by the schema of its kind (see `read.ts`). */
export const stageSchema = v.looseObject({ id, kind: v.pipe(v.string('must be text'), v.maxLength(64)), params: v.looseObject({}) });

export const sensorSchema = v.looseObject({
  place: v.picklist(['none', 'motor', 'output']),
  counts: v.pipe(wholeNumber(1, 1e9), v.description('Counts per turn of the shaft it sits on')),
});

export const variantSchema = v.looseObject({
  id,
  name,
  notes: text,
  follows: v.pipe(v.boolean(), v.description('Re-size the stages whenever the brief changes')),
  motor: motorSchema,
  driver: driverSchema,
  sensor: sensorSchema,
  stages: v.pipe(v.array(stageSchema), v.maxLength(12, 'must have at most 12 stages')),
});

export const buildSchema = v.looseObject({ id, variantId: id, name, date: v.string(), process: text, notes: text });

/** A joint as it is filed: one document, one driven axis. Unknown fields are kept through a round trip. */
export const jointSchema = v.looseObject({
  format: v.literal(FORMAT),
  version: v.literal(VERSION),
  id,
  name: v.pipe(name, v.minLength(1, 'must not be empty')),
  notes: text,
  created: v.string(),
  changed: v.string(),
  brief: briefSchema,
  variants: v.pipe(v.array(variantSchema), v.minLength(1, 'needs at least one variant'), v.maxLength(50)),
  activeVariant: v.string(),
  builds: v.pipe(v.array(buildSchema), v.maxLength(500)),
  tests: v.pipe(v.array(testSchema), v.maxLength(5000)),
});

export type Joint = v.InferOutput<typeof jointSchema>;
export type Brief = Joint['brief'];
export type ArmCase = v.InferOutput<typeof armCaseSchema>;
export type Limit = v.InferOutput<typeof limitSchema>;
export type LimitId = (typeof LIMIT_IDS)[number];
export type Variant = v.InferOutput<typeof variantSchema>;
export type StageRecord = v.InferOutput<typeof stageSchema>;
export type Build = v.InferOutput<typeof buildSchema>;
export type { BenchTest, LadderTest, Outcome, PlayTest } from './test-schema.ts';
export { OUTCOMES } from './test-schema.ts';
export { LIMIT_IDS } from './brief-schema.ts';

/** The variant that is open; the first one where the mark points nowhere. */
export const activeVariant = (j: Joint): Variant => j.variants.find((x) => x.id === j.activeVariant) ?? j.variants[0]!;
