import * as v from 'valibot';
import { driverSchema, motorSchema } from '../schema/motor-schema.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { Driver, Motor } from './motor.ts';

const BODY = { id: 'own', name: 'own', frame: 0.05, length: 0.05, detentTorque: 0, rotorInertia: 0, mass: 0, price: 0 };

function reader<T>(schema: v.GenericSchema<unknown, unknown>, what: string): (raw: unknown) => Result<T> {
  return (raw) => {
    const parsed = v.safeParse(schema, raw);
    if (parsed.success) return ok(parsed.output as T);
    const issue = parsed.issues[0];
    const place = v.getDotPath(issue) ?? '';
    return refuse(
      `The ${what} cannot be read${place ? ` at ${place}` : ''}.`,
      `That value ${issue.received === 'undefined' ? 'is missing' : issue.message}.`,
      'Correct it.',
      place || undefined,
    );
  };
}

const motor = reader<Motor>(motorSchema, 'motor');

/** A motor from a record of its figures, SI or text with units; body and price may be left out. */
export const readMotor = (raw: unknown): Result<Motor> =>
  motor(typeof raw === 'object' && raw !== null ? { ...BODY, ...raw } : raw);

/** A driver from a record of its figures. */
export const readDriver = reader<Driver>(driverSchema, 'driver');
