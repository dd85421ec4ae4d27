import type { Housing } from '../schema/joint.ts';
import { SCREWS } from '../shop/fasteners.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import type { Borne, Ports } from '../stage/contract.ts';
import { farthestFrom, sweptBy, type Body } from './body.ts';
import { HOME, pointIn, undone } from './frame.ts';
import { bodyIn, nearestTo, reachAlong, type LineLayout } from './layout.ts';
import { facePlaces } from './motor-body.ts';
import { HOLDER } from '../stage/coupling.ts';
import { EDGE, forMotor, HEAD_ROOM, LIP } from './plan.ts';

/** A rectangle seen along the output's axis: along with power from where it comes in, and across, m. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly low: number;
  readonly high: number;
}

/**
 * A block across the axis that power comes in by: it stands between the first two plates, in grooves of both.
 *
 * Lengths along run with power from where it comes in, lengths across to the side of that axis, as its frame has them, m.
 */
export interface Block extends Stretch {
  readonly id: 'motor' | 'near' | 'far';
  /** What of it stands in grooves: an edge is left round them. */
  readonly tongue: Stretch;
  /** Where in it a bearing sits, its lip on the other side; left out in the motor's. */
  readonly seat?: Seat;
}

/** Where a bearing sits along, m. */
interface Seat {
  readonly from: number;
  readonly to: number;
}

/** A pad on either plate that brings the grooves of bearing blocks nearer to their shaft. */
export interface Pad extends Stretch {
  /** How far from the shaft's axis its face is, along the output's. */
  readonly half: number;
}

/** How a stage that power comes into across stands between the first two plates of a housing. */
export interface Aside {
  readonly blocks: readonly Block[];
  readonly borne: Borne | undefined;
  readonly pad: Pad | undefined;
  /** Where the motor's face stands, m along from where power comes in: before it, below 0. */
  readonly face: number;
  /** How far the blocks reach beyond the stage before and behind it along the output's axis, m. */
  readonly beyond: readonly [number, number];
  /** What is left of a block between its bearing and the room of the wheel, m; Infinity where the wheel stays clear of it. */
  readonly wall: number;
  /** How far apart the bearings must be for `LEAST_WALL` there, m. */
  readonly apart: number;
  /** How near what drives comes to the output's axis, m. */
  readonly near: number;
}

/** How wide a block is beside its bearing on the side away from the wheel at least, m: there is little room on the other. */
const LEG = 8e-3;

/** What must be left of a block between a bearing in it and the wheel beside it, m. */
export const LEAST_WALL = 1e-3;

/** Whether power comes into a stage at a right angle to its output, by a shaft that stays where it is. */
export const comesAcross = ({ input, output }: Ports): boolean =>
  input.along === 'x' && !(Math.abs(input.lean ?? 0) > 1e-9) && !input.swings && !output.straight;

/** Half of what a motor's screws and its pilot take of a block, m: along two ways across its shaft. */
function halfOf(face: MotorFace): readonly [number, number] {
  const head = (SCREWS[face.thread].head + HEAD_ROOM[0]) / 2 + EDGE;
  const places = facePlaces(face);
  const reach = (i: 0 | 1) => Math.max(face.pilot / 2 + EDGE, head + Math.max(...places.map((p) => Math.abs(p[i]))));
  return [reach(0), reach(1)];
}

/** What is driven beside the shaft that comes in: where its axis is, along and across, and the radius of its room, m. */
interface Wheel {
  readonly along: number;
  readonly across: number;
  readonly room: number;
}

/** How far towards the wheel what stands from one place along to another may reach, m. */
function mayReach({ along, across, room }: Wheel, { from, to }: Seat): number {
  const off = Math.max(0, from - along, along - to);
  return off >= room ? Infinity : Math.abs(across) - Math.sqrt(room * room - off * off);
}

/** How far a body reaches from the shaft's axis along the output's, m, told in the frame of the shaft. */
const beside = (b: Body): number => Math.max(reachAlong(b, [1, 0, 0], 1), reachAlong(b, [1, 0, 0], -1));

/** Blocks of the two bearings of a shaft, and the pad that they stand between. */
interface Bearings extends Pick<Aside, 'wall' | 'apart'> {
  readonly blocks: readonly Block[];
  readonly pad: Pad;
}

/**
 * Blocks round the bearings of a shaft that comes in across.
 *
 * @param seat how far from the output's axis what sits in the plates there reaches, m
 * @param turning bodies that turn, told in the frame of the shaft
 */
function bearingsOf(
  borne: Borne,
  wheel: Wheel,
  seat: number,
  turning: readonly Body[],
  { gap, wall }: Pick<Housing, 'gap' | 'wall'>,
): Bearings {
  const ring = borne.outside / 2;
  const reach = Math.abs(wheel.across);
  /** From the side away from the wheel to so far towards it. */
  const towards = (away: number, near: number) =>
    wheel.across < 0 ? { low: -near, high: away } : { low: -away, high: near };
  const [near, far] = borne.at.map((at) => ({ from: at - borne.width / 2, to: at + borne.width / 2 })) as [Seat, Seat];
  // As thick behind either bearing as a coupling leaves room for beside one.
  const stands = [
    { id: 'near', seat: near, from: near.from - HOLDER, to: near.to },
    { id: 'far', seat: far, from: far.from, to: far.to + HOLDER },
  ] as const;
  const away = ring + Math.max(wall, LEG);
  const sides = stands.map((x) => Math.max(ring + LEAST_WALL, Math.min(ring + wall, mayReach(wheel, x.seat))));
  // A pad is no wider than its blocks, so that it stands where they do, and leaves what sits in the plates free.
  const padTo = Math.min(...sides, ring + wall, reach - seat);
  const blocks = stands.map((x, i): Block => {
    const from = x.id === 'near' ? x.from + EDGE : x.from;
    const to = x.id === 'far' ? x.to - EDGE : x.to;
    const tongue = { from, to, ...towards(away - EDGE, Math.min(sides[i]!, padTo) - EDGE) };
    return { ...x, ...towards(away, sides[i]!), tongue };
  });
  // A coupling stands beside the blocks: beside the shaft plates come as near as what turns there lets them.
  const over = turning.filter((x) => sweptBy(x).to > stands[0].from);
  const half = Math.max(ring + LIP, ...over.map((x) => beside(x) + gap));
  const clear = reach - ring - LEAST_WALL;
  const off = clear >= wheel.room ? 0 : Math.sqrt(wheel.room ** 2 - clear * clear);
  return {
    blocks,
    pad: { from: stands[0].from, to: stands[1].to, ...towards(away, padTo), half },
    wall: Math.min(mayReach(wheel, near), mayReach(wheel, far)) - ring,
    apart: borne.span + 2 * Math.max(0, off - Math.min(wheel.along - near.to, far.from - wheel.along)),
  };
}

/**
 * Blocks that hold the motor, and the bearings of the shaft that comes in across.
 *
 * @param alone the stage by itself
 * @param frame of the motor, across, m
 * @param seat how far from the output's axis what sits in the plates there reaches, m
 */
export function asideOf(
  { stages: [stage], input }: LineLayout,
  face: MotorFace,
  frame: number,
  seat: number,
  { gap, wall, plate }: Pick<Housing, 'gap' | 'wall' | 'plate'>,
): Aside {
  const { ports, bodies } = stage!;
  const home = undone(input);
  const [, across, along] = pointIn(home, [0, 0, 0]);
  const driven = bodies.filter((b) => b.turns === 'output');
  const driving = bodies.filter((b) => b.turns === 'input');
  // Its room is a cylinder about its axis.
  const room = Math.max(0, ...driven.map((b) => farthestFrom(sweptBy(b).rounds, 0, 0))) + gap;
  const { borne, coupling } = ports.input;
  const turning = [...driven, ...driving].map((b) => bodyIn(home, b));
  const bearings = borne && bearingsOf(borne, { along, across, room }, seat, turning, { gap, wall });
  const begins = Math.min(0, ...driving.map((b) => sweptBy(bodyIn(home, b)).from));
  const before = coupling || !bearings ? begins - gap : bearings.blocks[0]!.from;
  const thick = Math.max(forMotor(face, plate), gap + wall + EDGE);
  // A shaft that is coupled ends where the other one begins.
  const from = Math.min(Math.min(before, along - room) - thick, coupling ? -face.reach : Infinity);
  const half = halfOf(face);
  // Plates may be larger than the blocks: they pass beside the motor.
  const high = Math.max(half[0], frame / 2 + EDGE / 4, borne ? borne.outside / 2 + LIP : 0);
  const wide = { low: -half[1], high: half[1] };
  const to = from + thick;
  const motor: Block = { id: 'motor', from, to, ...wide, tongue: { from: from + EDGE, to, ...wide } };
  return {
    blocks: [motor, ...(bearings?.blocks ?? [])],
    borne,
    pad: bearings?.pad,
    face: from,
    beyond: [high - (input.at[2] - stage!.from), high - (stage!.to - input.at[2])],
    wall: bearings?.wall ?? Infinity,
    apart: bearings?.apart ?? NaN,
    near: Math.min(...driving.map((b) => nearestTo(HOME, b))),
  };
}
