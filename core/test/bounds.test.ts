import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { BODY_FIELDS, MOTOR_FIELDS, PATTERNS, stageKinds } from '../src/index.ts';
import { caseSchema } from '../src/schema/brief-schema.ts';
import { motorSchema } from '../src/schema/motor-schema.ts';

interface Bounded {
  readonly min: number;
  readonly max: number;
  readonly whole?: boolean | undefined;
}

/** A field takes what its schema takes, to the last value and not beyond. */
function sameBounds(what: string, schema: v.GenericSchema, { min, max, whole }: Bounded): void {
  const beyond = (x: number) => (whole ? 1 : Math.max(1e-9, Math.abs(x) / 100));
  for (const x of [min, max]) expect(v.safeParse(schema, x).success, `${what}: ${x}`).toBe(true);
  for (const x of [min - beyond(min), max + beyond(max)])
    expect(v.safeParse(schema, x).success, `${what}: ${x}`).toBe(false);
}

const entry = (schema: unknown, key: string): v.GenericSchema =>
  (schema as { entries: Record<string, v.GenericSchema> }).entries[key]!;

describe('the bounds of fields are the schema’s', () => {
  it('of every motor', () => {
    for (const schema of motorSchema.options) {
      for (const f of [...MOTOR_FIELDS[schema.entries.type.literal], ...BODY_FIELDS])
        sameBounds(`${schema.entries.type.literal}, ${f.key}`, entry(schema, f.key), f);
    }
  });

  it('of every load pattern', () => {
    for (const schema of caseSchema.options) {
      const pattern = PATTERNS.find((p) => p.id === schema.entries.pattern.literal)!;
      for (const f of pattern.fields)
        if (f.as === 'quantity') sameBounds(`${pattern.id}, ${f.path}`, entry(schema, f.path), f);
    }
  });

  it('of every count of a stage; its quantities have the schema’s alone', () => {
    for (const kind of stageKinds()) {
      const schema = kind.schema as unknown as { entries?: unknown; pipe?: readonly unknown[] };
      for (const f of kind.fields)
        if (f.as === 'count')
          sameBounds(`${kind.id}, ${f.path}`, entry(schema.entries ? schema : schema.pipe![0], f.path), {
            ...f,
            whole: true,
          });
    }
  });
});
