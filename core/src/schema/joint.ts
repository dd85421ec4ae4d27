import * as v from 'valibot';
import {
  armCaseSchema,
  briefSchema,
  caseSchema,
  legCaseSchema,
  limitSchema,
  LIMIT_IDS,
  pointsCaseSchema,
  straightCaseSchema,
  turningCaseSchema,
} from './brief-schema.ts';
import { housingSchema } from './housing-schema.ts';
import { driverSchema, motorSchema } from './motor-schema.ts';
import { moment } from './moment.ts';
import { planSchema } from './plan-schema.ts';
import { attemptSchema, makingSchema, processSchema } from './process-schema.ts';
import { quantity, wholeNumber } from './quantity-schema.ts';
import { testSchema } from './test-schema.ts';

export const FORMAT = 'gristmill-joint';
export const VERSION = 5;

/** How many of each a joint holds. */
export const MOST = { variants: 50, builds: 500, tests: 5000 } as const;

const name = v.pipe(
  v.string('must be text'),
  v.maxLength(120, 'must be at most 120 characters'),
  v.check((x) => x.trim() !== '', 'must not be empty or of spaces alone'),
);
const text = v.pipe(v.string('must be text'), v.maxLength(20000, 'must be at most 20 000 characters'));
const id = v.pipe(
  v.string('must be text'),
  v.minLength(1, 'must not be empty'),
  v.maxLength(64, 'must be at most 64 characters'),
);

/** One stage of a line; its parameters are checked by the schema of its kind (see `read.ts`). */
export const stageSchema = v.looseObject({
  id,
  kind: v.pipe(v.string('must be text'), v.maxLength(64, 'must be at most 64 characters')),
  params: v.looseObject({}),
  turn: v.pipe(
    v.optional(quantity('angle', -7, 7)),
    v.description(
      'Angle by which it stands turned about its input’s axis, rad; left out, a stage beside another one folds back',
    ),
  ),
});

export const sensorSchema = v.looseObject({
  place: v.pipe(v.picklist(['none', 'motor', 'output', 'both']), v.description('Shaft it sits on')),
  counts: v.pipe(
    wholeNumber(1, 1e9),
    v.description('Counts per turn of the shaft it sits on; of the motor’s where there are both'),
  ),
  outputCounts: v.pipe(
    v.optional(wholeNumber(1, 1e9), 16384),
    v.description('Counts per turn of the output’s sensor where there are both'),
  ),
  error: v.pipe(
    v.optional(quantity('smallAngle', 0, 1), 0),
    v.description('Largest error over a turn left after correction, of the output’s sensor where there is one, rad'),
  ),
  noise: v.pipe(
    v.optional(quantity('smallAngle', 0, 1), 0),
    v.description('Noise, peak to peak, of the same sensor, rad'),
  ),
});

/** A material as a joint keeps it; see the shop's. */
export const materialSchema = v.looseObject({
  id: v.string(),
  name: v.string(),
  made: v.picklist(['printed', 'milled', 'bought']),
  strength: v.pipe(
    quantity('stress', 1e4, 1e11),
    v.description('Strength counted on, Pa; of a printed one along its layers'),
  ),
  across: v.pipe(
    v.optional(quantity('stress', 1e4, 1e11)),
    v.description('Strength across the layers of a printed one, Pa; the same as along them where left out'),
  ),
  modulus: v.pipe(quantity('stress', 1e5, 1e13), v.description('Young’s modulus, Pa')),
  softening: v.pipe(quantity('temperature', 200, 3000), v.description('Temperature above which it loses its shape, K')),
  density: v.pipe(quantity('density', 1, 3e4), v.description('Density, kg/m³')),
  price: v.pipe(quantity('pricePerMass', 0, 1e6), v.description('Price per kilogram')),
  creep: v.pipe(
    v.optional(quantity('count', 0, 1)),
    v.description('n of E(t) = E·t^−n under a load that stays, t in hours over one; none where left out'),
  ),
  source: v.string(),
});

/** A rolling bearing as a joint keeps it; ISO 15 boundary dimensions and ratings by ISO 281 and ISO 76. */
export const bearingSchema = v.looseObject({
  id: v.string(),
  name: v.string(),
  bore: v.pipe(quantity('length', 1e-4, 2), v.description('Bore d, m')),
  outside: v.pipe(quantity('length', 1e-4, 3), v.description('Outside diameter D, m')),
  width: v.pipe(quantity('length', 1e-4, 1), v.description('Width B, m')),
  dynamic: v.pipe(quantity('force', 1, 1e8), v.description('Dynamic load rating C, N')),
  static: v.pipe(quantity('force', 1, 1e8), v.description('Static load rating C0, N')),
  mass: v.pipe(quantity('mass', 0, 1e3), v.description('Mass, kg')),
  price: v.pipe(quantity('money', 0, 1e6), v.description('Price')),
  source: v.string(),
});

/** Balls of steel that touch at 45° in two grooves of the joint's own, as a printed turntable has them. */
export const raceSchema = v.looseObject({
  diameter: v.pipe(quantity('length', 5e-3, 3), v.description('Circle of the balls’ centres, m')),
  ball: v.pipe(quantity('length', 5e-4, 0.1), v.description('Diameter of a ball, m')),
  balls: v.pipe(wholeNumber(3, 2000), v.description('How many balls')),
  material: materialSchema,
});

/** What stands between the last stage and the load: shaft and its pair of bearings. */
export const outputSchema = v.looseObject({
  shaftDiameter: v.pipe(quantity('length', 5e-4, 0.5), v.description('Diameter of the output shaft, m')),
  shaftBore: v.pipe(v.optional(quantity('length', 0, 0.5), 0), v.description('Hollow of the shaft, m')),
  shaftLength: v.pipe(
    quantity('length', 0, 5),
    v.description('Length that twists between stage and load, m; 0 for none'),
  ),
  shaftMaterial: materialSchema,
  arrangement: v.pipe(
    v.optional(v.picklist(['pair', 'single', 'race'])),
    v.description(
      'Two rows at a distance (pair, where left out), one row that carries tilting too (single: a ball bearing or crossed rollers), or balls in a groove of the joint’s own (race)',
    ),
  ),
  bearing: v.pipe(
    v.nullable(bearingSchema),
    v.description('Each of a pair, or the single one; null where none is chosen'),
  ),
  race: v.pipe(v.optional(raceSchema), v.description('Of a race of balls')),
  span: v.pipe(quantity('length', 1e-3, 5), v.description('Distance between the two, m')),
  overhang: v.pipe(quantity('length', 0, 20), v.description('From the nearer bearing to the load’s plane, m')),
  moment: v.pipe(
    v.optional(quantity('torque', 0, 1e6)),
    v.description('Tilting moment of the load beside its side force, N·m; none where left out'),
  ),
  axial: v.pipe(
    v.optional(quantity('force', 0, 1e7)),
    v.description('Force of the load along the shaft, N; none where left out'),
  ),
  load: v.pipe(quantity('force', 0, 1e7), v.description('Weight or side force of the load on the shaft, N')),
});

const kept = v.looseObject({
  value: v.pipe(v.number(), v.finite('must be a finite number')),
  low: v.pipe(v.number(), v.finite('must be a finite number')),
  high: v.pipe(v.number(), v.finite('must be a finite number')),
  source: v.optional(v.string()),
});

export const variantSchema = v.looseObject({
  id,
  name,
  notes: text,
  follows: v.pipe(v.boolean(), v.description('Re-size the stages whenever the brief changes')),
  motor: motorSchema,
  driver: driverSchema,
  sensor: sensorSchema,
  mount: v.pipe(v.optional(materialSchema), v.description('Material of the motor’s mount')),
  output: v.pipe(v.optional(outputSchema), v.description('Output shaft and bearings, where chosen')),
  housing: v.pipe(
    v.optional(housingSchema(materialSchema)),
    v.description('What the stages stand in; not drawn and not counted where left out'),
  ),
  stages: v.pipe(v.array(stageSchema), v.maxLength(12, 'must have at most 12 stages')),
  making: v.pipe(v.optional(makingSchema), v.description('By which process its parts are to be made')),
});

export const buildSchema = v.looseObject({
  id,
  variantId: id,
  name,
  date: moment,
  process: text,
  notes: text,
  assembly: v.pipe(
    v.optional(
      v.record(
        v.string(),
        v.looseObject({
          done: v.pipe(v.optional(moment), v.description('When it was done')),
          note: v.optional(text),
          photo: v.pipe(
            v.optional(
              v.pipe(
                v.string(),
                v.regex(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/=]*$/, 'must be a picture as a data URL'),
                v.maxLength(400_000, 'must be at most 400 000 characters'),
              ),
            ),
            v.description('Picture of it, as a data URL'),
          ),
        }),
      ),
    ),
    v.description('Steps of putting it together: when each was done, and what came out otherwise'),
  ),
  making: v.pipe(v.optional(makingSchema), v.description('By which process its parts were made')),
  attempts: v.pipe(
    v.optional(v.pipe(v.array(attemptSchema), v.maxLength(500, 'must have at most 500 attempts'))),
    v.description('What was tried until parts fitted'),
  ),
  plan: v.pipe(v.optional(planSchema), v.description('When it is to be made; not planned where left out')),
  design: v.pipe(
    v.optional(v.pipe(v.string(), v.regex(/^[0-9a-f]{16}$/, 'must be sixteen hexadecimal digits'))),
    v.description('Mark of the variant’s design when it was built; what is found of it counts while that is the same'),
  ),
});

/** A joint as it is filed: one document, one driven axis. Unknown fields are kept through a round trip. */
export const jointSchema = v.looseObject({
  format: v.literal(FORMAT),
  version: v.literal(VERSION),
  id,
  name,
  notes: text,
  created: moment,
  changed: moment,
  brief: briefSchema,
  variants: v.pipe(
    v.array(variantSchema),
    v.minLength(1, 'needs at least one variant'),
    v.maxLength(MOST.variants, `must have at most ${MOST.variants} variants`),
  ),
  activeVariant: v.string(),
  builds: v.pipe(v.array(buildSchema), v.maxLength(MOST.builds, `must have at most ${MOST.builds} builds`)),
  tests: v.pipe(v.array(testSchema), v.maxLength(MOST.tests, `must have at most ${MOST.tests} tests`)),
  factors: v.pipe(
    v.optional(v.record(v.string(), kept)),
    v.description('Factors of the shop as this joint was computed with'),
  ),
  materials: v.pipe(
    v.optional(v.array(materialSchema)),
    v.description('Materials of the shop that its stages are made of, as it was computed with'),
  ),
  bearings: v.pipe(
    v.optional(v.array(bearingSchema)),
    v.description('Bearings of the shop that its stages run on, as it was computed with'),
  ),
  processes: v.pipe(
    v.optional(v.array(processSchema)),
    v.description('Processes of the shop that make its parts, as it was computed with'),
  ),
});

export type Joint = v.InferOutput<typeof jointSchema>;
export type Brief = Joint['brief'];
export type ArmCase = v.InferOutput<typeof armCaseSchema>;
export type LegCase = v.InferOutput<typeof legCaseSchema>;
export type TurningCase = v.InferOutput<typeof turningCaseSchema>;
export type StraightCase = v.InferOutput<typeof straightCaseSchema>;
export type PointsCase = v.InferOutput<typeof pointsCaseSchema>;
export type LoadCase = v.InferOutput<typeof caseSchema>;
export type Material = v.InferOutput<typeof materialSchema>;
export type Bearing = v.InferOutput<typeof bearingSchema>;
export type OutputShaft = v.InferOutput<typeof outputSchema>;
export type Housing = NonNullable<v.InferOutput<typeof variantSchema>['housing']>;
export type Limit = v.InferOutput<typeof limitSchema>;
export type LimitId = (typeof LIMIT_IDS)[number];
export type Variant = v.InferOutput<typeof variantSchema>;
export type StageRecord = v.InferOutput<typeof stageSchema>;
export type Build = v.InferOutput<typeof buildSchema>;
export type { BenchTest } from './test-schema.ts';
export type { BuildPlan, TaskRecord } from './plan-schema.ts';
export type { Attempt, FitEntry, FitFeature, FitReading, MakingBy, Process, ProcessType } from './process-schema.ts';
export { FIT_FEATURES, PROCESS_TYPES } from './process-schema.ts';
export { SCREW_IDS, type ScrewId } from './housing-schema.ts';
export { TEST_KIND_IDS } from './test-schema.ts';
export { LIMIT_IDS } from './brief-schema.ts';

/** The variant that is open; the first one where the mark points nowhere. */
export const activeVariant = (j: Joint): Variant => j.variants.find((x) => x.id === j.activeVariant) ?? j.variants[0]!;
