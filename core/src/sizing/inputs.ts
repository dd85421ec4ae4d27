import { loadPattern } from '../brief/patterns.ts';
import { readCase } from '../brief/read-case.ts';
import type { Joint, LoadCase, Variant } from '../schema/joint.ts';
import { readParams } from '../stage/read-params.ts';
import { BODY_FIELDS, DRIVER_FIELDS, MOTOR_FIELDS } from '../motor/fields.ts';
import type { Motor } from '../motor/motor.ts';
import { readDriver, readMotor } from '../motor/read.ts';
import type { Problem } from '../result.ts';
import { withFactor, type Shelf } from '../shop/shelf.ts';
import { stageKind } from '../stage/registry.ts';
import type { QuantityId } from '../units/quantity.ts';

/** What a line is computed from. */
export interface LineSubject {
  readonly joint: Joint;
  readonly variant: Variant;
  readonly shelf: Shelf;
}

/** One number that a line depends on and a person can set. */
export interface LineInput {
  /**
   * Stable address: `case/0/load`, `motor/resistance`, `driver/supplyVoltage`, `stage/1/width`,
   * `factor/belt.efficiency`.
   */
  readonly id: string;
  readonly label: string;
  /** What it belongs to: a load case, motor, driver, a stage, the shop. */
  readonly group: string;
  readonly quantity: QuantityId;
  readonly value: number;
  readonly whole: boolean;
  /** The subject with this input at another value. */
  with(value: number): LineSubject;
}

/** Why a subject cannot be with an input at the value it has there, by the schema of what the input belongs to. */
export function wrongInput(s: LineSubject, id: string): Problem | undefined {
  const [what, at] = id.split('/');
  const stage = s.variant.stages[Number(at)];
  const read =
    what === 'case'
      ? readCase(s.joint.brief.cases[Number(at)])
      : what === 'motor'
        ? readMotor(s.variant.motor)
        : what === 'driver'
          ? readDriver(s.variant.driver)
          : what === 'stage' && stage
            ? readParams(stage.kind, stage.params)
            : undefined;
  return read && !read.ok ? read.problem : undefined;
}

/**
 * Everything a person can set about a line, brief first.
 *
 * @param factors of the shop that the line was computed from, by its report
 */
export function lineInputs({ joint, variant, shelf }: LineSubject, factors: Iterable<string> = []): LineInput[] {
  const out: LineInput[] = [];
  joint.brief.cases.forEach((c, i) => {
    for (const field of loadPattern(c.pattern).fields) {
      const value = (c as Record<string, unknown>)[field.path];
      if (field.as !== 'quantity' || typeof value !== 'number' || field.when?.(c) === false) continue;
      out.push({
        id: `case/${i}/${field.path}`,
        label: field.label.toLowerCase(),
        group: c.name,
        quantity: field.quantity,
        value,
        whole: false,
        with: (x) => ({
          joint: {
            ...joint,
            brief: {
              ...joint.brief,
              cases: joint.brief.cases.map((o, k) => (k === i ? ({ ...o, [field.path]: x } as LoadCase) : o)),
            },
          },
          variant,
          shelf,
        }),
      });
    }
  });
  const motor = variant.motor as unknown as Record<string, number>;
  for (const f of [...MOTOR_FIELDS[variant.motor.type], ...BODY_FIELDS]) {
    out.push({
      id: `motor/${f.key}`,
      label: f.label.toLowerCase(),
      group: 'motor',
      quantity: f.quantity,
      value: motor[f.key] ?? 0,
      whole: f.whole ?? false,
      with: (x) => ({
        joint,
        variant: { ...variant, motor: { ...variant.motor, [f.key]: x } as Motor as Variant['motor'] },
        shelf,
      }),
    });
  }
  const driver = variant.driver as unknown as Record<string, number>;
  for (const f of DRIVER_FIELDS)
    out.push({
      id: `driver/${f.key}`,
      label: f.label.toLowerCase(),
      group: 'driver',
      quantity: f.quantity,
      value: driver[f.key]!,
      whole: false,
      with: (x) => ({ joint, variant: { ...variant, driver: { ...variant.driver, [f.key]: x } }, shelf }),
    });
  variant.stages.forEach((record, j) => {
    for (const field of stageKind(record.kind)?.fields ?? []) {
      const value = record.params[field.path];
      if (typeof value !== 'number' || field.when?.(record.params) === false) continue;
      const whole = field.as !== 'quantity';
      out.push({
        id: `stage/${j}/${field.path}`,
        label: field.label.toLowerCase(),
        group: `stage ${j + 1}`,
        quantity: field.as === 'quantity' ? field.quantity : 'count',
        value,
        whole,
        with: (x) => ({
          joint,
          variant: {
            ...variant,
            stages: variant.stages.map((s, k) => (k === j ? { ...s, params: { ...s.params, [field.path]: x } } : s)),
          },
          shelf,
        }),
      });
    }
  });
  for (const id of factors) {
    const f = shelf.factors[id];
    if (f)
      out.push({
        id: `factor/${id}`,
        label: f.name,
        group: 'shop',
        quantity: f.quantity,
        value: f.value,
        whole: false,
        with: (x) => ({ joint, variant, shelf: withFactor(shelf, id, x) }),
      });
  }
  return out;
}
