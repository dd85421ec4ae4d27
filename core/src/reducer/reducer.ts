import { ok, type Result } from '../result.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import type { Ports, Stage } from '../stage/contract.ts';
import { asideOf, comesAcross, type Aside } from './aside.ts';
import { withEnds } from './axles.ts';
import type { Body } from './body.ts';
import { nested, shifted, type Frame, type Vec } from './frame.ts';
import { madeHousing, type MadeHousing } from './housing.ts';
import {
  bodyIn,
  lineLayout,
  reachAlong,
  toldBy,
  type LayoutWish,
  type LineLayout,
  type StandingStage,
} from './layout.ts';
import { motorShaft, motorSolid, ownFace } from './motor-body.ts';
import { smallestBearing } from './shafts.ts';
import { APART, LIP, endingAt, housingPlan, roomBetween, type HousingPlan } from './plan.ts';

/** A line as things in space. */
export interface Reducer {
  /** From the motor to the output. */
  readonly bodies: readonly Body[];
  readonly layout: LineLayout;
  /** The same as the housing is made in it: told by what carries power out of the last stage that stands in it. */
  readonly run: LineLayout;
  /** How that stands in the line; left out where it is the line's own output. */
  readonly stands?: Frame;
  readonly face: MotorFace;
  readonly plan: HousingPlan | undefined;
  readonly housing: MadeHousing | undefined;
}

/** What of a variant its bodies depend on. */
export type ReducerVariant = Pick<Variant, 'motor' | 'mount' | 'output' | 'housing' | 'stages'>;

/** The motor's bodies where its shaft meets the first stage. */
function motorBodies(
  { motor }: ReducerVariant,
  face: MotorFace,
  at: Frame,
  apart: number,
  first: StandingStage | undefined,
): Body[] {
  const away: Vec = [at.z[0] * apart, at.z[1] * apart, at.z[2] * apart];
  // It is keyed into the wheel it drives; a bought unit is a block, and what is hollow of it not known.
  const joins = (first?.bodies ?? []).filter((b) => first!.bought || b.turns === 'input').map((b) => b.id);
  const common = { joins, of: 'motor' as const, stage: -1, flexes: false, apart: [away] };
  const part = {
    made: 'bought' as const,
    material: 'as supplied',
    quantity: 1,
    note: `${face.screws} × ${face.thread}; face ${face.source}`,
  };
  return [
    {
      ...common,
      id: 'motor/body',
      part: { ...part, name: motor.name, mass: motor.mass, money: motor.price },
      turns: 'fixed',
      speed: 0,
      solid: () => motorSolid(motor, face),
      places: () => [at],
    },
    {
      ...common,
      id: 'motor/shaft',
      part: { ...part, name: 'Motor shaft', note: 'part of the motor', mass: 0, money: 0 },
      turns: 'input',
      speed: 1,
      solid: () => motorShaft(face),
      places: (crank) => {
        const [c, s] = [Math.cos(crank), Math.sin(crank)];
        return [nested(at, { at: [0, 0, 0], x: [c, s, 0], y: [-s, c, 0], z: [0, 0, 1] })];
      },
    },
  ];
}

/** How far stages of a line drawn apart stand from where they are, m: each behind what the ones before it take. */
function spread(bodies: readonly Body[], plan: HousingPlan | undefined, stages: LineLayout['stages']): readonly Body[] {
  const step = 1.2 * Math.max(...stages.map((s) => s.to - s.from));
  return bodies.map((b) => {
    if (b.of !== 'stage') return b;
    const k = plan ? b.stage - plan.first : b.stage;
    const lift = 2 * k * step + (plan && b.stage > plan.last ? step : 0);
    return { ...b, apart: b.apart.map(([x, y, z]): Vec => [x, y, z + lift]) };
  });
}

type Standing = Pick<StandingStage, 'bodies' | 'bought' | 'ports'>;

/**
 * Where a motor stands without a plate: a bought unit's flange is against its face; one whose shaft enters no bore is coupled
 * at its end; else its pilot stays clear of what turns.
 */
function standsFree(at: Frame, stage: Standing | undefined, face: MotorFace): Frame {
  if (!stage || stage.bought) return at;
  const pilot = face.pilot > face.shaft ? face.pilotHeight : 0;
  const ahead = Math.max(...stage.bodies.map((b) => reachAlong(b, at.z, -1)));
  // How far its bodies reach before where its power goes in.
  const before = ahead + at.at[0] * at.z[0] + at.at[1] * at.z[1] + at.at[2] * at.z[2];
  const { shaft, coupling } = stage.ports.input;
  const back =
    shaft > 0
      ? Math.max(0, before + pilot + APART)
      : Math.max(face.reach, coupling ? coupling.over + pilot + APART : 0);
  return onAlong(at, -back);
}

/**
 * The motor's shaft as it is left: what drives no bore ends in the plate, coupled to a shaft of the stage's own, or before that
 * where it is borne in the plate.
 */
function cutTo(face: MotorFace, port: Ports | undefined, housing: MadeHousing | undefined): MotorFace {
  if (!housing || !port || port.input.shaft > 0 || port.input.along === 'x') return face;
  const { from, to } = housing.plates[0]!;
  const own = housing.axles.find((a) => a.k === 0 && a.onInput);
  return { ...face, reach: Math.min(face.reach, to - from - (own ? (own.bearing?.width ?? to - from) + LIP / 2 : 0)) };
}

/** How the first stage of a line stands in a housing where power comes into it across; undefined where it does not. */
function acrossFirst(
  { housing, motor, output }: ReducerVariant,
  stages: readonly Stage[],
  ports: readonly Ports[],
  bought: readonly boolean[],
  face: MotorFace,
  shelf: Shelf,
): Result<Aside | undefined> {
  const [first] = stages;
  if (!first || housing?.by !== 'here' || bought[0] || !comesAcross(ports[0]!)) return ok(undefined);
  const alone = lineLayout([first], { between: () => 0, bought: () => false, turn: () => undefined });
  if (!alone.ok) return alone;
  // Round what has no bodies nobody knows what room there must be.
  if (!alone.value.stages[0]!.bodies.some((b) => b.turns === 'output')) return ok(undefined);
  // What may sit in the plates on its output's axis.
  const own = stages.length === 1 ? output?.bearing?.outside : undefined;
  const { shaft } = ports[0]!.output;
  const seat = Math.max(own ?? 0, smallestBearing(shelf, shaft)?.outside ?? shaft) / 2 + housing.gap;
  return ok(asideOf(alone.value, face, motor.frame, seat, housing));
}

/** A frame moved along its own axis, m. */
const onAlong = (f: Frame, by: number): Frame => shifted(f, [f.z[0] * by, f.z[1] * by, f.z[2] * by]);

/**
 * Everything of a line in its place: motor, stages, and what they stand in where that is made here.
 *
 * @param stages of the variant, opened
 * @returns refuses in words where a stage cannot give its parts
 */
export function reducerOf(variant: ReducerVariant, stages: readonly Stage[], shelf: Shelf): Result<Reducer> {
  const ports = stages.map((s) => s.ports());
  const face = ownFace(variant.motor, variant.housing, ports[0]?.input.shaft);
  const bought = stages.map((s) => s.bought ?? false);
  const across = acrossFirst(variant, stages, ports, bought, face, shelf);
  if (!across.ok) return across;
  const plan = stages.length ? housingPlan(variant, ports, bought, face, shelf, across.value) : undefined;
  const aside = plan?.aside;
  const inside = plan ? endingAt(plan, variant, stages.length) : variant;
  const turns = variant.stages.map((s) => s.turn);
  const wish: LayoutWish = {
    bought: (i) => bought[i]!,
    between: (before, boughtBefore) => roomBetween(plan, inside, before, boughtBefore),
    turn: (i) => turns[i],
    ...(!plan?.direct && {
      before: (at, first) =>
        motorBodies(variant, face, aside ? onAlong(at, aside.face) : standsFree(at, first, face), 0, undefined),
    }),
  };
  const alone = lineLayout(stages, wish);
  if (!alone.ok) return alone;
  const told = (line: LineLayout): { stands?: Frame; run: LineLayout } =>
    plan && plan.last + 1 < stages.length ? toldBy(line, plan.last) : { run: line };
  const housing = plan ? madeHousing({ variant: inside, face, plan, layout: told(alone.value).run, shelf }) : undefined;
  // What follows a stage that turns power aside behind a housing stands past that, which is known only now.
  const again = housing && plan!.last + 2 < stages.length;
  const made = again ? lineLayout(stages, { ...wish, around: { last: plan!.last, bodies: housing.bodies } }) : alone;
  if (!made.ok) return made;
  const line = made.value;
  const { stands, run } = told(line);
  const inLine = (f: Frame): Frame => (stands ? nested(stands, f) : f);
  const first = line.stages[0];
  // On a plate the motor's face lies against it; on a bought unit against the unit's.
  const motorAt: Frame =
    housing && plan!.direct
      ? inLine({ ...run.input, at: [run.input.at[0], run.input.at[1], housing.plates[0]!.from] })
      : aside
        ? onAlong(line.input, aside.face)
        : standsFree(line.input, first, face);
  const long = first ? 1.5 * (first.to - first.from) : 0;
  return ok({
    bodies: [
      ...motorBodies(variant, cutTo(face, ports[0], housing), motorAt, -2 * long, first),
      ...spread(
        withEnds(
          line.stages.flatMap((s) => s.bodies),
          housing?.axles ?? [],
          housing?.plates ?? [],
        ),
        plan,
        line.stages,
      ),
      ...(housing?.bodies ?? []).map((b) => (stands ? bodyIn(stands, b) : b)),
    ],
    layout: line,
    run,
    ...(stands && { stands }),
    face,
    plan,
    housing,
  });
}
