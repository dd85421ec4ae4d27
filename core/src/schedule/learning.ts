import type { BuildPlan } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { Factor } from '../shop/factor.ts';

/** What recorded times say of a factor of the shop. */
export interface Learnt {
  readonly id: string;
  readonly name: string;
  readonly before: Pick<Factor, 'value' | 'low' | 'high'>;
  readonly after: Pick<Factor, 'value' | 'low' | 'high'>;
  /** Times that it follows from. */
  readonly times: number;
  /** Share of what is known afterwards that comes from them. */
  readonly told: number;
}

/** How far a time strays from a model that knows its factor, as a share: what one print has and the other has not. */
const MODEL = 0.15;
/** Half the width of a factor's range in standard deviations. */
const RANGE = 1.96;

/**
 * A factor after some values of it that were found: in the logarithm, its range as a normal prior, each value with the
 * model’s own spread.
 *
 * Source: conjugate normal update with known spread (Gelman et al., Bayesian Data Analysis, 2.5).
 * @example learnt({ value: 1, low: 0.5, high: 2 }, [1.2]).value.toFixed(4) // '1.1671'
 */
export function learnt(prior: Pick<Factor, 'value' | 'low' | 'high'>, values: readonly number[]) {
  const s = Math.log(prior.high / prior.low) / (2 * RANGE);
  const [before, each] = [1 / (s * s), 1 / (MODEL * MODEL)];
  const told = (each * values.length) / (before + each * values.length);
  const mean =
    (before * Math.log(prior.value) + each * values.reduce((sum, x) => sum + Math.log(x), 0)) /
    (before + each * values.length);
  const width = RANGE / Math.sqrt(before + each * values.length);
  return { value: Math.exp(mean), low: Math.exp(mean - width), high: Math.exp(mean + width), told };
}

/**
 * What the times that were recorded with a plan say of the printer’s speed and of one’s own pace; nothing where none
 * were.
 */
export function learntTimes(plan: BuildPlan, shelf: Shelf): Learnt[] {
  // What the shop has learnt from once is in its factors, and is not counted again.
  const records = Object.values(plan.tasks).filter((t) => !t.told);
  const speeds = records.flatMap(({ took, path, layers }) => {
    if (took === undefined || !(path! > 0)) return [];
    const laying = took - factor(shelf, 'print.start') - (layers ?? 0) * factor(shelf, 'print.change');
    // A print that took less than its heating says nothing that could be told by the speed alone.
    return laying > 0 ? [path! / laying] : [];
  });
  const paces = records.flatMap(({ took, work }) => (took !== undefined && work! > 0 ? [took / work!] : []));
  const lists = { 'print.speed': speeds, 'work.pace': paces };
  return Object.entries(lists).flatMap(([id, values]): Learnt[] => {
    const before = shelf.factors[id];
    if (!before || values.length === 0) return [];
    const { told, ...after } = learnt(before, values);
    return [{ id, name: before.name, before, after, times: values.length, told }];
  });
}
