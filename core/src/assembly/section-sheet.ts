import { ok, refuse, type Result } from '../result.ts';
import type { Check } from '../figure/index.ts';
import { housingChecks } from '../line/housing-checks.ts';
import { openLine, openStage, type StageOpener } from '../line/open.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Turning } from '../stage/contract.ts';
import { envelopeOf, type Envelope } from '../reducer/around.ts';
import { balanceOf, type Balance } from '../reducer/balance.ts';
import type { BodyOf } from '../reducer/body.ts';
import { materialAlong } from '../reducer/cut-line.ts';
import { reducerOf, type Reducer } from '../reducer/reducer.ts';
import { roomOf } from '../reducer/room.ts';
import { roomsIn, sectionOf, type Rect } from '../reducer/section.ts';

/** One body of a section, as plain data: metres across and along the axis. */
export interface SheetRegion {
  readonly id: string;
  readonly name: string;
  readonly of: BodyOf;
  /** Place of its stage in the line; −1 for what is of none. */
  readonly stage: number;
  readonly turns: Turning;
  /** Turns of it for a turn of the motor; NaN for what rolls or wobbles between. */
  readonly speed: number;
  readonly material: string;
  readonly note: string;
  readonly quantity: number;
  /** Of one piece, kg and money. */
  readonly mass: number;
  readonly money: number;
  /** Rectangles that are cut: u0, z0, u1, z1 of each. */
  readonly rects: Float64Array;
  /** Edges round them, and where teeth end: u, z to u, z. */
  readonly edges: Float64Array;
  readonly roots: Float64Array;
  readonly turnedIn: boolean;
}

/** Room between two bodies that turn unlike. */
export interface SheetRoom {
  readonly a: string;
  readonly b: string;
  readonly distance: number;
  readonly at: readonly [number, number, number, number];
}

/** A line cut along its output's axis. */
export interface SectionSheet {
  readonly regions: readonly SheetRegion[];
  readonly bounds: Rect;
  readonly angle: number;
  readonly rooms: readonly SheetRoom[];
  /** What motor, plates and walls take up; undefined where no housing is made here. */
  readonly envelope: Envelope | undefined;
  /** What of the line has a place, as one mass with its centre. */
  readonly balance: Balance;
  /** How each stage stands turned about its input, rad. */
  readonly turns: readonly number[];
  /** What a housing of the maker's own must leave free: u0, z0, u1, z1, m; undefined where one is made here. */
  readonly free: readonly [number, number, number, number] | undefined;
  /** Where plates lie along the axis, m. */
  readonly plates: readonly { readonly from: number; readonly to: number }[];
  readonly checks: readonly Check[];
  /** Stages round which no housing can be made here, by their places in the line. */
  readonly unhoused: readonly number[];
}

/** Rooms that are told, m. */
const NEAR = 3e-3;

const flat = (rects: readonly Rect[]): Float64Array =>
  Float64Array.from(rects.flatMap((r) => [r.u0, r.z0, r.u1, r.z1]));

/** The room to be left free, where the plane cuts it. */
function freeIn(reducer: Reducer, angle: number, gap: number): SectionSheet['free'] {
  const room = roomOf(reducer, gap);
  const [p] = room?.solid.prisms ?? [];
  const [span] = p ? materialAlong(p, 0, 0, Math.cos(angle), Math.sin(angle)) : [];
  return room && span ? [span[0], room.from, span[1], room.to] : undefined;
}

/**
 * The section of a variant's line, as plain data for a drawing.
 *
 * @param crank turn of the motor, rad
 * @returns refuses in words where a stage cannot be, or where there is nothing to cut
 */
export function sectionSheet(
  variant: Variant,
  crank: number,
  shelf: Shelf,
  open: StageOpener = openStage,
): Result<SectionSheet> {
  if (variant.stages.length === 0)
    return refuse('There is nothing to cut.', 'The line has no stages.', 'Add one in the Line.');
  const opened = openLine(variant.stages, shelf, open).all;
  if (!opened.ok) return opened;
  const made = reducerOf(variant, opened.value, shelf);
  if (!made.ok) return made;
  const reducer = made.value;
  const section = sectionOf(reducer, crank);
  const { plan, housing } = reducer;
  return ok({
    regions: section.regions.map(({ body, rects, edges, roots, turnedIn }): SheetRegion => ({
      ...{ id: body.id, of: body.of, stage: body.stage, turns: body.turns, speed: body.speed },
      ...{ name: body.part.name, material: body.part.material, note: body.part.note },
      ...{ quantity: body.part.quantity, mass: body.part.mass, money: body.part.money },
      ...{ rects: flat(rects), edges, roots, turnedIn },
    })),
    bounds: section.bounds,
    angle: section.angle,
    rooms: roomsIn(section, NEAR).map(({ a, b, distance, at }) => ({ a: a.id, b: b.id, distance, at })),
    envelope: envelopeOf(reducer),
    balance: balanceOf(reducer, variant.output, crank),
    turns: reducer.layout.stages.map((st) => st.turn),
    free: variant.housing?.by === 'own' ? freeIn(reducer, section.angle, variant.housing.gap) : undefined,
    plates: housing?.plates ?? [],
    checks: housingChecks(reducer, variant, opened.value, shelf),
    unhoused:
      variant.housing?.by === 'here'
        ? variant.stages.flatMap((_, i) =>
            !opened.value[i]!.bought && (!plan || i < plan.first || i > plan.last) ? [i] : [],
          )
        : [],
  });
}
