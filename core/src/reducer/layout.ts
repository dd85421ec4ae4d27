import type { Ports, Stage } from '../stage/contract.ts';
import type { Part } from '../stage/contract.ts';
import { ok, type Result } from '../result.ts';
import { farthestFrom, sweptBy, type Body } from './body.ts';
import { HOME, nested, placeFrame, pointIn, shifted, turnedBy, undone, type Frame, type Vec } from './frame.ts';
import { APART } from './plan.ts';
import { alongOf, reachOf } from './reach.ts';

/** A stage that stands in the line. */
export interface StandingStage {
  readonly index: number;
  readonly ports: Ports;
  /** Where it stands: its own frame in the line's. */
  readonly frame: Frame;
  readonly bodies: readonly Body[];
  /** Where its bodies lie along the line's axis, m. */
  readonly from: number;
  readonly to: number;
  /** Bought as a whole, with a housing of its own. */
  readonly bought: boolean;
  /** Angle about its input’s axis that it stands turned by, rad. */
  readonly turn: number;
}

/** The stages of a line in space: the output's axis is z, through the origin; the motor lies below. */
export interface LineLayout {
  readonly stages: readonly StandingStage[];
  /** The frame that the motor's shaft goes in by: along its z. */
  readonly input: Frame;
  /** How the output stands. */
  readonly output: Frame;
  /** Whether every axis runs along the output's. */
  readonly parallel: boolean;
}

/** How a port lies in its stage: its z the way power runs. */
const portFrame = ({ at, along, lean = 0 }: Ports['input']): Frame =>
  along === 'z'
    ? { ...HOME, at }
    : // Power along the stage's x; its output then leaves along what was across.
      { at, x: [Math.sin(lean), 0, -Math.cos(lean)], y: [0, 1, 0], z: [Math.cos(lean), 0, Math.sin(lean)] };

/** Whether a stage's output stands beside its input. */
const isBeside = ({ input, output }: Ports): boolean =>
  input.along === 'z' && Math.hypot(output.at[0] - input.at[0], output.at[1] - input.at[1]) > 1e-6;

/** What turns how often for a turn of the stage's input. */
const speedOf = (turns: Part['turns'], ratio: number): number =>
  turns === 'input' ? 1 : turns === 'output' ? 1 / ratio : turns === 'free' ? NaN : 0;

/** Places of a sway that are looked at; its pieces stand all round, and so at many more angles of it. */
const SWAYING = 16;

/** How far from the stage's axis the pieces of what sways come, m, looked at once. */
function farthest(places: NonNullable<Part['places']>, sways: number): () => number {
  let most = -1;
  return () => (most < 0 ? (most = farthestOf(places, sways)) : most);
}

function farthestOf(places: NonNullable<Part['places']>, sways: number): number {
  let most = 0;
  for (let i = 0; i < SWAYING; i++)
    for (const { at } of places((sways * i) / SWAYING)) most = Math.max(most, Math.hypot(at[0], at[1]));
  return most;
}

/** What is told of pieces that sway besides where they are. */
function swaying(
  places: NonNullable<Part['places']>,
  sways: number,
  frame: Frame,
  before: number,
): Pick<Body, 'sways' | 'roams'> {
  const far = farthest(places, sways);
  return { sways: sways * Math.abs(before), roams: () => ({ at: frame.at, r: far() }) };
}

/** The bodies of a stage where it stands. */
function bodiesOf(index: number, parts: readonly Part[], frame: Frame, ratio: number, before: number): Body[] {
  return parts.flatMap((part): Body[] => {
    const { places } = part;
    const solid = part.solid ?? part.seen;
    if (!places || !solid) return [];
    const turns = part.turns ?? 'fixed';
    return [
      {
        id: `stage${index + 1}/${part.id}`,
        of: 'stage',
        stage: index,
        part,
        turns,
        speed: speedOf(turns, ratio) / before,
        flexes: part.flexes ?? false,
        ...(part.together && { together: `stage${index + 1}/${part.together}` }),
        ...(part.sways !== undefined && swaying(places, part.sways, frame, before)),
        solid,
        places: (crank) => places(crank / before).map((b) => nested(frame, placeFrame(b))),
        apart: places(0).map((b) => turnedBy(frame, b.apart)),
      },
    ];
  });
}

const extentOf = (bodies: readonly Body[]): { from: number; to: number } => {
  const all = bodies.map(sweptBy);
  return { from: Math.min(...all.map((s) => s.from)), to: Math.max(...all.map((s) => s.to)) };
};

const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** How far bodies reach along a direction, m; a kind that gives none takes no room. */
const farthestAlong = (bodies: readonly Body[], frame: Frame, along: Vec, sign: 1 | -1): number =>
  bodies.length ? Math.max(...bodies.map((b) => reachAlong(b, along, sign))) : sign * dot(frame.at, along);

/** Up to where what stands beside an axis is in the way of a stage that is wide enough to come there, m along it. */
function besideOf(standing: readonly Body[], stage: readonly Body[], axis: Frame): number {
  const about = undone(axis);
  const wide = Math.max(...stage.map((b) => farthestFrom(sweptBy(bodyIn(about, b)).rounds, 0, 0)));
  const met = standing.filter((b) => nearestTo(axis, b) < wide + APART);
  return Math.max(...met.map((b) => reachAlong(b, axis.z, 1) + APART));
}

/** What a line is laid out with. */
export interface LayoutWish {
  /** What stands between two stages along the axis, m; told whether the one before is bought as a whole. */
  readonly between: (before: number, boughtBefore: boolean) => number;
  readonly bought: (index: number) => boolean;
  /** Angle about its input's axis that a stage is turned by, rad; left out, one behind another beside stage folds back. */
  readonly turn: (index: number) => number | undefined;
  /** What stands before the first stage on no plate of ours, told by the frame that its power goes in by. */
  readonly before?: (input: Frame, first: Pick<StandingStage, 'bodies' | 'bought' | 'ports'>) => readonly Body[];
  /** What stands round the stages up to one, told by what carries power out of that. */
  readonly around?: { readonly last: number; readonly bodies: readonly Body[] };
}

/**
 * Stands the stages of a line one behind the other, each where the one before gives its power.
 *
 * @returns refuses in words where a stage cannot give its parts
 */
export function lineLayout(stages: readonly Stage[], wish: LayoutWish): Result<LineLayout> {
  const placed: { frame: Frame; ports: Ports; parts: readonly Part[]; ratio: number; before: number; turn: number }[] =
    [];
  // What stands before the stage before, asked for once power has turned aside.
  const earlier: (() => readonly Body[])[] = [];
  let crossed = false;
  let next: Frame = HOME;
  let before = 1;
  for (const [i, stage] of stages.entries()) {
    const parts = stage.parts();
    if (!parts.ok) return parts;
    const ports = stage.ports();
    const { ratio } = stage.kinematics;
    const turn = wish.turn(i) ?? (i > 0 && isBeside(ports) && isBeside(placed[i - 1]!.ports) ? Math.PI : 0);
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const turned: Frame = nested(next, { at: [0, 0, 0], x: [c, s, 0], y: [-s, c, 0], z: [0, 0, 1] });
    let frame = nested(turned, undone(portFrame(ports.input)));
    const along = next.z;
    const turnsOver = before;
    const own = (): Body[] => bodiesOf(i, parts.value, frame, ratio, turnsOver);
    if (i > 0) {
      const last = placed[i - 1]!;
      const behind = bodiesOf(i - 1, last.parts, last.frame, last.ratio, last.before);
      const room = wish.between(i - 1, wish.bought(i - 1));
      crossed ||= last.ports.input.along !== 'z';
      const push =
        farthestAlong(own(), frame, along, -1) +
        Math.max(
          farthestAlong(behind, last.frame, along, 1) + room,
          crossed
            ? besideOf(
                earlier.flatMap((bodies) => bodies()),
                own(),
                next,
              )
            : -Infinity,
        );
      frame = shifted(frame, [along[0] * push, along[1] * push, along[2] * push]);
      earlier.push(() => behind);
    } else if (wish.before) {
      const { before: standing } = wish;
      const at = nested(frame, portFrame(ports.input));
      earlier.push(() => standing(at, { ports, bodies: own(), bought: wish.bought(0) }));
    }
    const { around } = wish;
    if (around?.last === i) {
      const out = nested(frame, portFrame(ports.output));
      earlier.push(() => around.bodies.map((b) => bodyIn(out, b)));
    }
    placed.push({ frame, ports, parts: parts.value, ratio, before, turn });
    next = nested(frame, portFrame(ports.output));
    before *= ratio;
  }
  // Told from the output: its axis is the line's.
  const home = undone(next);
  const told = placed.map((s) => ({ ...s, frame: nested(home, s.frame) }));
  const out = told.map((s, index): StandingStage => {
    const bodies = bodiesOf(index, s.parts, s.frame, s.ratio, s.before);
    const extent = bodies.length ? extentOf(bodies) : { from: s.frame.at[2], to: s.frame.at[2] };
    return { index, ports: s.ports, frame: s.frame, bodies, ...extent, bought: wish.bought(index), turn: s.turn };
  });
  const first = told[0];
  return ok({
    stages: out,
    input: first ? nested(first.frame, portFrame(first.ports.input)) : HOME,
    output: HOME,
    parallel: told.every((s) => s.frame.z[2] > 0.5 && s.ports.input.along === 'z'),
  });
}

/** Bodies as they are told in another frame. */
export const bodyIn = (home: Frame, b: Body): Body => ({
  ...b,
  ...(b.roams && {
    roams: () => {
      const { at, r } = b.roams!();
      return { at: pointIn(home, at), r };
    },
  }),
  places: (crank) => b.places(crank).map((f) => nested(home, f)),
  apart: b.apart.map((a) => turnedBy(home, a)),
});

/**
 * A line as it is told by what carries power out of one of its stages: that axis is z, through the origin.
 *
 * @returns how that stands in the line, and the line told so
 */
export function toldBy(line: LineLayout, index: number): { readonly stands: Frame; readonly run: LineLayout } {
  const last = line.stages[index]!;
  const stands = nested(last.frame, portFrame(last.ports.output));
  const home = undone(stands);
  const stages = line.stages.map((s): StandingStage => {
    const bodies = s.bodies.map((b) => bodyIn(home, b));
    const extent = bodies.length ? extentOf(bodies) : {};
    return { ...s, frame: nested(home, s.frame), bodies, ...extent };
  });
  return { stands, run: { ...line, stages, input: nested(home, line.input), output: nested(home, line.output) } };
}

/** How far a body reaches along a direction, m, from the line's origin; what lies across it reaches by how thick it is. */
export function reachAlong(body: Body, along: Vec, sign: 1 | -1): number {
  const solid = body.solid();
  const ends = alongOf(solid);
  return Math.max(
    ...body.places(0).flatMap((f) => {
      const across = Math.sqrt(Math.max(0, 1 - dot(f.z, along) ** 2));
      const thick = across > 1e-6 ? across * reachOf(solid) : 0;
      return ends.map((end) => sign * dot(pointIn(f, [0, 0, end]), along) + thick);
    }),
  );
}

/** How near a body comes to an axis, m: a cylinder about its own axis, seen along the other; 0 where it goes over it. */
export function nearestTo(axis: Frame, body: Body): number {
  const solid = body.solid();
  const [low, high] = alongOf(solid);
  const r = reachOf(solid);
  const near = bodyIn(undone(axis), body)
    .places(0)
    .map((f) => {
      const leans = Math.hypot(f.z[0], f.z[1]);
      if (leans < 1e-6) return Math.max(0, Math.hypot(f.at[0], f.at[1]) - r);
      // What is seen of it is a rectangle: as long as it leans, as wide as it is thick.
      const [dx, dy] = [f.z[0] / leans, f.z[1] / leans];
      const [u, v] = [-(f.at[0] * dx + f.at[1] * dy), -(f.at[1] * dx - f.at[0] * dy)];
      const ends = r * Math.abs(f.z[2]);
      return Math.hypot(Math.max(0, low * leans - ends - u, u - high * leans - ends), Math.max(0, Math.abs(v) - r));
    });
  return Math.min(...near);
}
