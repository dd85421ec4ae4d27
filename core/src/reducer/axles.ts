import { check, type Check } from '../figure/index.ts';
import type { Bearing } from '../schema/joint.ts';
import { circle } from '../shape/outline.ts';
import { prism, type Solid } from '../shape/solid.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Axle } from '../stage/contract.ts';
import { stated } from '../units/stated.ts';
import type { Body } from './body.ts';
import { pointIn } from './frame.ts';
import type { StandingStage } from './layout.ts';
import type { Plate } from './seats.ts';
import { smallestBearing } from './shafts.ts';

/** A shaft of a stage's own where it stands in the run: the plate below its stage and the one above bear it. */
export interface StandingAxle {
  /** Place of its stage in the run, and in the line. */
  readonly k: number;
  readonly stage: number;
  readonly axle: Axle;
  /** Which one of its stage's own. */
  readonly nth: number;
  readonly x: number;
  readonly y: number;
  /** Where it lies within its stage, m along the axis. */
  readonly from: number;
  readonly to: number;
  /** What it runs in; undefined where the shop has none that fits. */
  readonly bearing: Bearing | undefined;
  /** It is what power goes into the stage by. */
  readonly onInput: boolean;
}

/** Cranks of a stage that the one shaft drives which comes into it. */
const DRIVEN = 1;

/** Axes nearer than this are one, m. */
const ON_AXIS = 1e-6;

/** The shafts of its stages' own that a housing must bear. */
export const axlesOf = (stages: readonly StandingStage[], shelf: Shelf): readonly StandingAxle[] =>
  stages.flatMap((s, k) =>
    (s.ports.axles ?? []).map((axle, nth): StandingAxle => {
      const [x, y, from] = pointIn(s.frame, axle.at);
      const { at } = s.ports.input;
      const onInput = Math.hypot(axle.at[0] - at[0], axle.at[1] - at[1]) < ON_AXIS;
      const to = from + axle.long;
      return { k, stage: s.index, axle, nth, x, y, from, to, bearing: smallestBearing(shelf, axle.diameter), onInput };
    }),
  );

/**
 * The bodies of a stage's axles with the ends that stand in the plates, as far as their bearings go or through the plate where
 * there is none.
 *
 * @param plates of the run
 */
export function withEnds(bodies: readonly Body[], axles: readonly StandingAxle[], plates: readonly Plate[]): Body[] {
  return bodies.map((b) => {
    // What a stage has of them is alike: they stand between the same plates.
    const own = axles.find((a) => a.stage === b.stage && b.id.endsWith(`/${a.axle.part}`));
    if (!own) return b;
    const [below, above] = [plates[own.k]!, plates[own.k + 1]!];
    const into = (p: Plate) => own.bearing?.width ?? p.to - p.from;
    const { diameter, long } = own.axle;
    const round = circle(0, 0, diameter / 2);
    const ends = [
      prism(round, below.to - into(below) - own.from, 0),
      prism(round, long, long + (above.from + into(above) - own.to)),
    ];
    const solid = (): Solid => {
      const own = b.solid();
      return { ...own, prisms: [...own.prisms, ...ends] };
    };
    return { ...b, solid };
  });
}

/** Whether there are bearings for the shafts that stages bring with them, and whether what must drive them does. */
export function axleChecks(axles: readonly StandingAxle[]): Check[] {
  return axles.flatMap(({ stage: index, axle, bearing, onInput }, i): Check[] => {
    const common = { sense: 'min', quantity: 'count', near: 0, severity: 'warn' } as const;
    const { driven } = axle;
    return [
      check({
        ...common,
        id: `axle-${i + 1}`,
        name: `Bearings for the ${axle.name} of stage ${index + 1}`,
        figure: bearing ? 2 : 0,
        limit: 2,
        why: `It runs in the plate on either side; the shop has ${bearing ? 'one' : 'no ball bearing'} of bore ${stated(axle.diameter, 'length', 4)}.`,
        advice: 'Take larger bearings on the eccentrics, so that its ends are as thick as a bearing’s bore.',
      }),
      ...(onInput
        ? []
        : [
            check({
              ...common,
              id: `axle-driven-${i + 1}`,
              name: `Cranks of stage ${index + 1} that something drives`,
              figure: DRIVEN,
              limit: driven ? DRIVEN + 1 : DRIVEN,
              why: driven
                ? 'Both are to drive, in step; the housing made here has no belt or gears between them, and the second runs idle.'
                : 'One shaft comes in; the second crank runs idle.',
              ...(driven && { mend: { ...driven, path: `stages.${index}.${driven.path}` } }),
              advice: 'Couple both by a timing belt, or by gears of one size on a wheel between them.',
            }),
          ]),
    ];
  });
}
