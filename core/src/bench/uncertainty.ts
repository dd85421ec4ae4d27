import { mean, sampleStandardDeviation } from 'simple-statistics';
import type { QuantityId } from '../units/quantity.ts';
import { student95 } from './student.ts';

/** One source of uncertainty, already carried to the result by its derivative. */
export interface Contribution {
  readonly id: string;
  readonly name: string;
  /** Standard uncertainty of the result due to it, in the result's SI unit. */
  readonly u: number;
  /** Degrees of freedom; Infinity for what is known from a data sheet. */
  readonly dof: number;
  /** What would halve it. */
  readonly halve: string;
}

export interface Uncertain {
  readonly value: number;
  readonly quantity: QuantityId;
  /** Combined standard uncertainty. */
  readonly u: number;
  readonly dof: number;
  /** Coverage factor for 95 %. */
  readonly k: number;
  /** Expanded uncertainty U = k·u. */
  readonly U: number;
  readonly budget: readonly Contribution[];
  /** The largest contribution; undefined where there is none. */
  readonly dominant: Contribution | undefined;
}

/** Standard uncertainty of a reading known to lie within ±a: a/√3. */
export const fromBounds = (a: number): number => a / Math.sqrt(3);

/** Standard uncertainty of a reading with steps of `resolution`: resolution/√12. */
export const fromResolution = (resolution: number): number => resolution / Math.sqrt(12);

/**
 * Combines contributions: u² = Σ u_i², effective degrees of freedom by Welch–Satterthwaite, U = k·u for 95 %.
 *
 * Source: JCGM 100:2008 (GUM) 5.1.2, G.4.1, G.3.
 */
export function combine(value: number, quantity: QuantityId, budget: readonly Contribution[]): Uncertain {
  const u2 = budget.reduce((sum, c) => sum + c.u * c.u, 0);
  const u = Math.sqrt(u2);
  const weight = budget.reduce((sum, c) => sum + (Number.isFinite(c.dof) ? c.u ** 4 / c.dof : 0), 0);
  const dof = weight > 0 ? Math.max(1, (u2 * u2) / weight) : Infinity;
  const k = Number.isFinite(dof) ? student95(dof) : 1.96;
  const sorted = [...budget].sort((a, b) => b.u - a.u);
  return {
    value,
    quantity,
    u,
    dof,
    k,
    U: k * u,
    budget: sorted,
    dominant: sorted[0] && sorted[0].u > 0 ? sorted[0] : undefined,
  };
}

/** Mean and its type A uncertainty s/√n; one reading has none of its own. */
export function typeA(values: readonly number[]): { mean: number; u: number; dof: number } {
  if (values.length < 2) return { mean: values[0] ?? NaN, u: 0, dof: Infinity };
  return {
    mean: mean([...values]),
    u: sampleStandardDeviation([...values]) / Math.sqrt(values.length),
    dof: values.length - 1,
  };
}
