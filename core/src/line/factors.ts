import type { Joint, Variant } from '../joint/joint.ts';
import { stageKind } from '../stage/registry.ts';

const MOTOR: Readonly<Record<Variant['motor']['type'], readonly string[]>> = {
  stepper: ['motor.spread', 'motor.stepperRise', 'motor.stepError', 'motor.case', 'ambient'],
  brushless: ['motor.spread', 'motor.sensorless', 'motor.duty', 'motor.copper', 'motor.case', 'ambient'],
  brushed: ['motor.spread', 'motor.duty', 'motor.copper', 'motor.case', 'ambient'],
  servo: ['motor.spread', 'motor.case', 'ambient'],
};

/** Factors a line's figures depend on: those its stages read, and its motor's. */
export function lineFactors(variant: Variant, reads: readonly ReadonlySet<string>[]): string[] {
  return [...new Set([...reads.flatMap((r) => [...r]), ...MOTOR[variant.motor.type]])];
}

/** Every factor that a joint's variants are computed with. */
export function usedFactors(joint: Pick<Joint, 'variants'>): string[] {
  const ids = joint.variants.flatMap((v) =>
    lineFactors(
      v,
      v.stages.map((s) => new Set(stageKind(s.kind)?.factors(s.params))),
    ),
  );
  return [...new Set([...ids, 'gravity', 'mount.margin', 'belt.backBend'])].sort();
}
