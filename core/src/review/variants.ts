import type { Variant } from '../schema/joint.ts';
import { stageKind } from '../stage/registry.ts';
import { formatQuantity, type UnitChoice } from '../units/format.ts';

const SETS = { peak: 'peak of a phase', rms: 'RMS of a phase', line: 'line current' } as const;

/** What changed from one variant to another, in words, one line a change. */
export function whatChanged(from: Variant, to: Variant, choice: UnitChoice = {}): string[] {
  const out: string[] = [];
  if (from.motor.name !== to.motor.name) out.push(`Motor: ${from.motor.name} → ${to.motor.name}`);
  if (from.driver.supplyVoltage !== to.driver.supplyVoltage)
    out.push(
      `Supply: ${formatQuantity(from.driver.supplyVoltage, 'voltage', choice)} → ${formatQuantity(to.driver.supplyVoltage, 'voltage', choice)}`,
    );
  if (from.driver.currentLimit !== to.driver.currentLimit)
    out.push(
      `Driver current: ${formatQuantity(from.driver.currentLimit, 'current', choice)} → ${formatQuantity(to.driver.currentLimit, 'current', choice)}`,
    );
  if (from.driver.supplyCurrent !== to.driver.supplyCurrent)
    out.push(
      `Supply current: ${formatQuantity(from.driver.supplyCurrent, 'current', choice)} → ${formatQuantity(to.driver.supplyCurrent, 'current', choice)}`,
    );
  const sets = (v: Variant) => SETS[v.driver.sets ?? 'peak'];
  if (sets(from) !== sets(to) && (to.motor.type === 'stepper' || to.motor.type === 'brushless'))
    out.push(`Current limit is: ${sets(from)} → ${sets(to)}`);
  if (from.driver.microsteps !== to.driver.microsteps && to.motor.type === 'stepper')
    out.push(`Microsteps: ${from.driver.microsteps} → ${to.driver.microsteps}`);
  if (from.mount?.id !== to.mount?.id)
    out.push(`Motor mount: ${from.mount?.name ?? 'not said'} → ${to.mount?.name ?? 'not said'}`);
  const shaft = (v: Variant) =>
    v.output
      ? `shaft ⌀ ${formatQuantity(v.output.shaftDiameter, 'length', choice)}, ${v.output.bearing?.name ?? 'no bearing'}`
      : 'none';
  const housing = (v: Variant) => {
    const h = v.housing;
    if (!h) return 'none';
    if (h.by === 'own') return 'your own';
    const size = (x: number) => formatQuantity(x, 'length', choice);
    return `${h.sides} of ${h.material.name}, ${size(h.wall)} and ${size(h.plate)}, room ${size(h.gap)}, ${h.screw}`;
  };
  if (housing(from) !== housing(to)) out.push(`Housing: ${housing(from)} → ${housing(to)}`);
  if (shaft(from) !== shaft(to)) out.push(`Output: ${shaft(from)} → ${shaft(to)}`);
  if (from.sensor.place !== to.sensor.place) out.push(`Sensor: ${from.sensor.place} → ${to.sensor.place}`);
  if (from.stages.length !== to.stages.length) out.push(`Stages: ${from.stages.length} → ${to.stages.length}`);
  for (let j = 0; j < Math.min(from.stages.length, to.stages.length); j++) {
    const a = from.stages[j]!;
    const b = to.stages[j]!;
    if (a.kind !== b.kind) {
      out.push(`Stage ${j + 1}: ${a.kind} → ${b.kind}`);
      continue;
    }
    for (const field of stageKind(a.kind)?.fields ?? []) {
      const [x, y] = [a.params[field.path], b.params[field.path]];
      if (x === y || (field.when && !field.when(a.params) && !field.when(b.params))) continue;
      const say = (value: unknown): string => {
        if (value === undefined || value === null) return 'not said';
        if (typeof value === 'boolean') return value ? 'yes' : 'no';
        if (field.as === 'quantity' && typeof value === 'number') return formatQuantity(value, field.quantity, choice);
        return String(value);
      };
      out.push(`Stage ${j + 1}, ${field.label.toLowerCase()}: ${say(x)} → ${say(y)}`);
    }
  }
  return out;
}
