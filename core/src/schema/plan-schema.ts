import * as v from 'valibot';
import { day, moment } from './moment.ts';
import { quantity, wholeNumber } from './quantity-schema.ts';

const hours = v.pipe(v.number('must be a number'), v.minValue(0, 'must be at least 0'), v.maxValue(86400));

/** What became of one task of a plan, and what was said of it. */
const taskSchema = v.looseObject({
  on: v.pipe(v.optional(day), v.description('Day before which it is not begun')),
  done: v.pipe(v.optional(moment), v.description('When it was done, or came')),
  took: v.pipe(v.optional(quantity('time', 1, 1e8)), v.description('Time that it took, s')),
  begun: v.pipe(v.optional(moment), v.description('When a machine was begun with it')),
  ordered: v.pipe(v.optional(day), v.description('Day on which it was ordered')),
  days: v.pipe(v.optional(wholeNumber(0, 1000)), v.description('Days from ordering until it comes')),
  comes: v.pipe(v.optional(day), v.description('Day for which it is promised')),
  name: v.pipe(v.optional(v.pipe(v.string(), v.maxLength(200))), v.description('Its name when it was done')),
  made: v.pipe(
    v.optional(v.record(v.string(), wholeNumber(1, 1e6))),
    v.description('Pieces that were made with it, by part'),
  ),
  path: v.pipe(v.optional(quantity('length', 0, 1e9)), v.description('Length of line that was laid, m')),
  layers: v.pipe(v.optional(quantity('count', 0, 1e9)), v.description('Layers that were laid')),
  told: v.pipe(v.optional(v.boolean()), v.description('The shop has learnt from its time')),
  work: v.pipe(
    v.optional(quantity('time', 0, 1e8)),
    v.description('Time by hand that was expected at a pace of one, s'),
  ),
});

/** When a build is to be made, with which hours and printers, and what became of it. */
export const planSchema = v.looseObject({
  start: v.pipe(day, v.description('First day')),
  hours: v.pipe(
    v.array(hours),
    v.length(7, 'must have seven numbers, one a weekday'),
    v.description('Time that one has, Monday to Sunday, s'),
  ),
  from: v.pipe(hours, v.description('Time of day at which one begins, s after midnight')),
  off: v.pipe(v.array(day), v.maxLength(400), v.description('Days without any')),
  joints: v.pipe(wholeNumber(1, 20), v.description('How many are made')),
  printers: v.pipe(wholeNumber(1, 20), v.description('How many printers run beside each other')),
  unattended: v.pipe(v.boolean(), v.description('Machines run on while one is away')),
  longest: v.pipe(quantity('time', 600, 1e6), v.description('Longest print that is begun, s')),
  bed: v.pipe(
    v.tuple([quantity('length', 0.02, 5), quantity('length', 0.02, 5)]),
    v.description('Bed of the printers, across and deep, m'),
  ),
  gap: v.pipe(quantity('length', 0, 0.1), v.description('Room between pieces on it, m')),
  wanted: v.pipe(v.optional(day), v.description('Day by which it is wanted')),
  tasks: v.pipe(v.record(v.string(), taskSchema), v.description('What is known of its tasks')),
  kept: v.pipe(
    v.optional(v.record(v.string(), v.pipe(v.number(), v.finite()))),
    v.description('Ends of the tasks as they were planned when the plan was kept, s since 1970 by the wall clock'),
  ),
});

export type BuildPlan = v.InferOutput<typeof planSchema>;
export type TaskRecord = BuildPlan['tasks'][string];
