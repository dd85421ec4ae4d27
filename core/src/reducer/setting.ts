import type { Bearing, Housing, OutputShaft, Variant } from '../schema/joint.ts';
import { SCREWS, type Screw } from '../shop/fasteners.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import type { Shelf } from '../shop/shelf.ts';
import { farthestFrom, sweptBy, type Body, type Swept } from './body.ts';
import { pointIn } from './frame.ts';
import type { LineLayout, StandingStage } from './layout.ts';
import { axlesOf, type StandingAxle } from './axles.ts';
import type { HousingPlan } from './plan.ts';
import { pinsOf, type StandingPin } from './standing-pins.ts';

/** What a body of a stage sweeps, and where it lies. */
export interface Sweep extends Swept {
  readonly body: Body;
}

/** What the housing is made for. */
export interface HousingWish {
  readonly variant: Pick<Variant, 'motor' | 'mount' | 'output' | 'housing'>;
  readonly face: MotorFace;
  readonly plan: HousingPlan;
  readonly layout: LineLayout;
  readonly shelf: Shelf;
}

/** The same with what all of its parts ask for. */
export interface Setting extends HousingWish {
  readonly h: Housing;
  readonly screw: Screw;
  /** The stages it stands round, and what each of their bodies sweeps. */
  readonly stages: readonly StandingStage[];
  readonly sweeps: readonly (readonly Sweep[])[];
  /** Pins on which their idlers run. */
  readonly pins: readonly StandingPin[];
  /** Shafts of their own that it bears. */
  readonly axles: readonly StandingAxle[];
  readonly output: OutputShaft | undefined;
  /** The output runs in two rows; its bearing, where it has any. */
  readonly pair: boolean;
  readonly own: Bearing | undefined;
  /** How far parts move from one another when the line is drawn apart, m. */
  readonly step: number;
}

export function settingOf(w: HousingWish): Setting {
  const h: Housing = w.variant.housing!;
  const output = w.variant.output as OutputShaft | undefined;
  const stages = w.layout.stages.slice(w.plan.first, w.plan.last + 1);
  return {
    ...w,
    h,
    screw: SCREWS[h.screw],
    stages,
    pins: pinsOf(stages, w.plan),
    axles: axlesOf(stages, w.shelf),
    sweeps: stages.map((s) => s.bodies.map((body): Sweep => ({ body, ...sweptBy(body) }))),
    output,
    pair: output !== undefined && (output.arrangement ?? 'pair') === 'pair',
    own: output && output.arrangement !== 'race' ? (output.bearing ?? undefined) : undefined,
    step: 1.2 * Math.max(...stages.map((s) => s.to - s.from)),
  };
}

/** Where a stage's input axis crosses the plane across the line's axis, m. */
export const axisOf = (s: StandingStage): readonly [number, number] => {
  const p = pointIn(s.frame, s.ports.input.at);
  return [p[0], p[1]];
};

/** Where what carries power out of a stage stands, m. */
export const outAxis = (s: StandingStage): readonly [number, number] => {
  const p = pointIn(s.frame, s.ports.output.at);
  return [p[0], p[1]];
};

/** Farthest that any of some sweeps reaches from an axis, m. */
export const widest = (list: readonly Swept[], x: number, y: number): number =>
  list.reduce((most, s) => Math.max(most, farthestFrom(s.rounds, x, y)), 0);

/** Radius of the shaft that comes into a stage of the run, m. */
export const through = (plan: HousingPlan, face: MotorFace, k: number): number =>
  (k === 0 ? face.shaft : plan.links[k - 1]!.into) / 2;
