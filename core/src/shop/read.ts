import * as v from 'valibot';
import { bearingSchema, materialSchema } from '../joint/joint.ts';
import { motorSchema } from '../joint/motor-schema.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { ShopEdits } from './shelf.ts';

const number = v.pipe(v.number(), v.finite());
const shopSchema = v.looseObject({
  factors: v.optional(v.record(v.string(), v.pipe(v.looseObject({ value: number, low: number, high: number, source: v.optional(v.string()) }), v.check((f) => f.low <= f.value && f.value <= f.high, 'must be in order')))),
  motors: v.optional(v.array(motorSchema)),
  materials: v.optional(v.array(materialSchema)),
  bearings: v.optional(v.array(bearingSchema)),
  instruments: v.optional(v.array(v.looseObject({ id: v.string(), name: v.string(), measures: v.picklist(['length', 'mass', 'angle', 'temperature', 'force', 'current']), resolution: v.pipe(number, v.minValue(0)), error: v.pipe(number, v.minValue(0)), source: v.string(), range: v.optional(v.pipe(number, v.minValue(0))), calibrated: v.optional(v.string()), factor: v.optional(number), zero: v.optional(number), channels: v.optional(v.record(v.string(), v.looseObject({ scale: v.pipe(number, v.check((x) => x !== 0, 'A scale of 0 makes every reading 0.')), zero: number }))), map: v.optional(v.array(v.looseObject({ order: number, amplitude: number, phase: number }))) }))),
});

/** Checks changes to the shop as read from storage or a file. */
export function readShopEdits(raw: unknown): Result<ShopEdits> {
  if (Array.isArray(raw)) return refuse('The shop’s changes cannot be read.', 'They are a list, not a record by name.', 'Correct them, or leave the changes out.');
  const parsed = v.safeParse(shopSchema, raw ?? {});
  if (parsed.success) return ok(parsed.output as ShopEdits);
  const place = v.getDotPath(parsed.issues[0]) ?? 'its start';
  return refuse(`The shop’s changes are damaged at ${place}.`, 'That value cannot be used.', 'Correct it, or leave the changes out.', place);
}
