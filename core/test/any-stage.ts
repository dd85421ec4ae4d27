import { readParams, type AnyStageKind, type Duty } from '../src/index.ts';
import { dice, shelf } from './helpers.ts';

/** Parameters and a duty as they might come. */
export interface AnyStage {
  readonly params: Record<string, unknown>;
  readonly duty: Duty;
}

/** A number from the first to the second, in steps that are even on a logarithmic scale. */
const between = (roll: (n: number) => number, low: number, high: number): number =>
  low * (high / low) ** (roll(1000) / 1000);

/** Changes up to four of what a form shows: quantities by a fifth, counts by two, choices to any other. */
function changed(kind: AnyStageKind, start: Record<string, unknown>, roll: (n: number) => number) {
  const p = structuredClone(start);
  const fields = kind.fields.filter((f) => f.when?.(p) ?? true);
  for (let i = roll(4); i >= 0; i--) {
    const f = fields[roll(fields.length)]!;
    const value = p[f.path];
    if (f.as === 'quantity') p[f.path] = (value as number) * between(roll, 0.8, 1.25);
    if (f.as === 'count') p[f.path] = Math.min(f.max, Math.max(f.min, (value as number) + roll(5) - 2));
    if (f.as === 'choice') {
      const options = f.options(p, shelf);
      if (options.length) p[f.path] = options[roll(options.length)]!.value;
    }
  }
  return p;
}

/**
 * Stages of a kind with parameters that its schema takes, some as it starts them and most changed; whether they can be
 * is for the kind to say. The same seed gives the same ones.
 */
export function anyStages(kind: AnyStageKind, count: number, seed = 1): AnyStage[] {
  const roll = dice(seed);
  const out: AnyStage[] = [];
  for (let tried = 0; out.length < count && tried < 20 * count; tried++) {
    // Of what runs straight: newtons in place of newton metres, and radians for a metre.
    const much = kind.straight ? 30 : 1;
    const torque = between(roll, 0.2, 30) * much;
    const wish = {
      ratio: between(roll, 1.5, 90) * much,
      torque,
      size: roll(2) ? Infinity : between(roll, 0.05, 0.3),
      shelf,
    };
    const params = changed(kind, kind.defaults(wish) as Record<string, unknown>, roll);
    const speed = between(roll, 0.1, 20) / (much * much);
    const duty = { torque, torqueRms: torque * (roll(100) / 100), speed, equivalent: torque / 2, meanSpeed: speed / 3 };
    if (readParams(kind.id, params).ok) out.push({ params, duty });
  }
  return out;
}
