import type { IdlePin, Ports } from '../stage/contract.ts';
import { pointIn, turnedBy } from './frame.ts';
import type { StandingStage } from './layout.ts';
import type { HousingPlan } from './plan.ts';

/** A pin of a wheel that runs idle, where it stands in the line. */
export interface StandingPin {
  /** Place of its stage in the run, and which of its pins it is. */
  readonly k: number;
  readonly pin: IdlePin;
  readonly x: number;
  readonly y: number;
  /** The way it is moved, as an angle in the plane across the line's axis. */
  readonly turn: number;
  /** The plate it is held by, and whether it is moved on it. */
  readonly plate: number;
  readonly slides: boolean;
  /** Where its wheel lies along the axis, m. */
  readonly from: number;
  readonly to: number;
}

/** How far the motor can be moved to tension the first stage of a run, m: 0 for what it is not screwed to. */
export const slotsOf = (plan: Pick<HousingPlan, 'direct'>, k: number, ports: Ports): number =>
  plan.direct && k === 0 ? (ports.input.slide ?? 0) : 0;

/** A way as slots are made, in whole tenths of a millimetre and no shorter, m. */
const tenths = (x: number): number => Math.ceil(x * 1e4 - 1e-6) / 1e4;

/**
 * The pins of a run's idlers. Where moving the motor does not tension a stage its idler is moved: on the cover, where a hand
 * reaches it. Else it is pressed into the plate below.
 */
export const pinsOf = (stages: readonly StandingStage[], plan: Pick<HousingPlan, 'direct'>): readonly StandingPin[] =>
  stages.flatMap((s, k) =>
    (s.ports.idle ?? []).map((pin): StandingPin => {
      const [x, y, from] = pointIn(s.frame, pin.at);
      const [wx, wy] = turnedBy(s.frame, [pin.way[0], pin.way[1], 0]);
      const moved = slotsOf(plan, k, s.ports);
      const fixed = moved > 0 && moved >= (s.ports.takeUp?.needs ?? 0);
      const slides = !fixed && k === stages.length - 1 && pin.on + pin.back > 0;
      return {
        k,
        pin: { ...pin, on: tenths(pin.on), back: tenths(pin.back) },
        x,
        y,
        turn: Math.atan2(wy, wx),
        plate: slides ? k + 1 : k,
        slides,
        from,
        to: from + pin.long,
      };
    }),
  );
