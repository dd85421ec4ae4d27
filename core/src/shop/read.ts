import * as v from 'valibot';
import { bearingSchema, materialSchema } from '../schema/joint.ts';
import { processSchema } from '../schema/process-schema.ts';
import { place, sayIssue } from '../schema/issue.ts';
import { driverUnitSchema, motorSchema, supplySchema } from '../schema/motor-schema.ts';
import { notPlain } from '../schema/plain.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { ShopEdits } from './shelf.ts';

const number = v.pipe(v.number('must be a number'), v.finite('must be a finite number'));
const owned = v.optional(
  v.record(
    v.string(),
    v.pipe(
      number,
      v.integer('must be a whole number'),
      v.minValue(0, 'must not be negative'),
      v.maxValue(1e6, 'is too many'),
    ),
  ),
);
const drawerSchema = v.looseObject({
  motors: owned,
  bearings: owned,
  belts: owned,
  materials: v.optional(v.array(v.string('must be the designation of a material'))),
});
const shopSchema = v.looseObject({
  drawer: v.optional(drawerSchema),
  factors: v.optional(
    v.record(
      v.string(),
      v.pipe(
        v.looseObject({ value: number, low: number, high: number, source: v.optional(v.string()) }),
        v.check((f) => f.low <= f.value && f.value <= f.high, 'must be in order'),
      ),
    ),
  ),
  motors: v.optional(v.array(motorSchema)),
  drivers: v.optional(v.array(driverUnitSchema)),
  supplies: v.optional(v.array(supplySchema)),
  materials: v.optional(v.array(materialSchema)),
  bearings: v.optional(v.array(bearingSchema)),
  processes: v.optional(v.array(processSchema)),
  instruments: v.optional(
    v.array(
      v.looseObject({
        id: v.string(),
        name: v.string(),
        measures: v.picklist(['length', 'mass', 'angle', 'temperature', 'force', 'current']),
        resolution: v.pipe(number, v.minValue(0)),
        error: v.pipe(number, v.minValue(0)),
        source: v.string(),
        range: v.optional(v.pipe(number, v.minValue(0))),
        calibrated: v.optional(v.string()),
        factor: v.optional(number),
        zero: v.optional(number),
        channels: v.optional(
          v.record(
            v.string(),
            v.looseObject({
              scale: v.pipe(
                number,
                v.check((x) => x !== 0, 'A scale of 0 makes every reading 0.'),
              ),
              zero: number,
            }),
          ),
        ),
        map: v.optional(v.array(v.looseObject({ order: number, amplitude: number, phase: number }))),
      }),
    ),
  ),
});

/** Checks changes to the shop as read from storage or a file, or as they are about to be stored. */
export function readShopEdits(raw: unknown): Result<ShopEdits> {
  if (Array.isArray(raw))
    return refuse(
      'The shop’s changes cannot be read.',
      'They are a list, not a record by name.',
      'Correct them, or leave the changes out.',
    );
  const odd = notPlain(raw ?? {});
  if (odd) return refuse(`The shop’s changes are damaged. ${odd.what}`, odd.why, odd.mend, odd.place);
  const parsed = v.safeParse(shopSchema, raw ?? {});
  if (parsed.success) return ok(parsed.output as ShopEdits);
  const issue = parsed.issues[0];
  const where = place(issue) || 'its start';
  return refuse(
    `The shop’s changes are damaged at ${where}.`,
    `That value ${sayIssue(issue)}.`,
    'Correct it, or leave the changes out.',
    where,
  );
}

/**
 * What can be read of damaged changes: things are tried one by one, and those that no reader takes are left out.
 *
 * @returns changes that read, and a line for each thing left out
 */
export function salvageShop(raw: unknown): { readonly edits: ShopEdits; readonly leftOut: readonly string[] } {
  const leftOut: string[] = [];
  const edits: Record<string, unknown> = {};
  const record = typeof raw === 'object' && raw !== null && !Array.isArray(raw) ? (raw as Record<string, unknown>) : {};
  const reads = (key: string, value: unknown): boolean => {
    const parsed = v.safeParse(shopSchema, { [key]: value });
    const odd = notPlain(value, key);
    if (odd) leftOut.push(`${odd.place} is no plain value`);
    else if (!parsed.success) leftOut.push(`${place(parsed.issues[0]) || key} ${sayIssue(parsed.issues[0])}`);
    return !odd && parsed.success;
  };
  for (const [key, value] of Object.entries(record)) {
    if (Array.isArray(value)) edits[key] = value.filter((x) => reads(key, [x]));
    else if (key === 'factors' && typeof value === 'object' && value !== null)
      edits[key] = Object.fromEntries(Object.entries(value).filter(([id, f]) => reads(key, { [id]: f })));
    else if (reads(key, value)) edits[key] = value;
  }
  if (record !== raw) leftOut.push('all of it: it is no record by name');
  const read = readShopEdits(edits);
  return { edits: read.ok ? read.value : {}, leftOut };
}
