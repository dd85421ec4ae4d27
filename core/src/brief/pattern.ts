import { type Figure, type Working, exact } from '../figure/index.ts';
import type { LoadCase } from '../schema/joint.ts';
import type { Problem } from '../result.ts';
import type { QuantityId } from '../units/quantity.ts';
import type { CycleSums } from './cycle.ts';

/** A point at which the line must give a torque at a speed: for moments (peak), or for ever. */
export interface OperatingPoint {
  readonly name: string;
  readonly torque: number;
  readonly speed: number;
  readonly time: 'peak' | 'continuous';
  /** Acceleration that goes with it, rad/s²: at the peak, or root mean square; none where left out. */
  readonly acceleration?: number;
  /** Mean of torque times acceleration over the cycle, N·m·rad/s²; for an RMS point. */
  readonly torqueAcceleration?: number;
}

/** The RMS point of a cycle, with what a rotor's inertia adds to it. */
export const rmsPoint = (sums: CycleSums, torque: number): OperatingPoint => ({
  name: 'RMS',
  torque,
  speed: sums.rmsSpeed,
  time: 'continuous',
  acceleration: sums.rmsAcceleration,
  torqueAcceleration: sums.torqueAcceleration,
});

/** What one load case asks of the joint, in SI units and magnitudes. */
export interface CaseLoads extends CycleSums {
  /** Largest torque, shock included, N·m. */
  readonly peak: number;
  /** Torque at the worst rest, N·m; 0 where nothing pulls. */
  readonly hold: number;
  /** Speed at which the peak counts, rad/s. */
  readonly speed: number;
  /** Time of one move, s. */
  readonly moveTime: number;
  /** Inertia of the load about the axis, kg·m². */
  readonly inertia: number;
  /** Friction of the load itself at the joint, N·m: what sticks behind the line's last spring. */
  readonly friction: number;
  /** Radius at which an angle becomes a distance that matters, m. */
  readonly arm: number;
  /** Angle between the ends of the move, rad. */
  readonly swing: number;
  readonly points: readonly OperatingPoint[];
  /** The pattern's own values by name, SI. */
  readonly values: Readonly<Record<string, number>>;
}

interface FieldCommon<C> {
  readonly path: keyof C & string;
  readonly label: string;
  readonly group: 'Load' | 'Move';
  readonly help: string;
  readonly when?: (c: C) => boolean;
}

export type CaseField<C> = FieldCommon<C> &
  (
    | {
        readonly as: 'quantity';
        readonly quantity: QuantityId;
        readonly step: number;
        readonly min: number;
        readonly max: number;
      }
    | { readonly as: 'choice'; readonly options: readonly { readonly value: string; readonly label: string }[] }
  );

/**
 * A way in which a joint is loaded. A new one is a file that exports one of these, a schema and a line in
 * `patterns.ts`.
 */
export interface LoadPattern<C extends LoadCase> {
  readonly id: C['pattern'];
  readonly name: string;
  readonly summary: string;
  readonly fields: readonly CaseField<C>[];
  blank(id: string): C;
  /** What is impossible about values that are each in bounds. */
  wrong(c: C): Problem | undefined;
  /** @param g local gravity, m/s² */
  loads(c: C, g: number): CaseLoads;
  /** What the case asks, each with its working. */
  figures(c: C, g: number): readonly Figure[];
}

/** A figure without a band: what is asked follows exactly from what was entered. */
export const sure = (id: string, name: string, quantity: QuantityId, value: number, working: () => Working): Figure =>
  exact(`case-${id}`, name, quantity, value, working);
