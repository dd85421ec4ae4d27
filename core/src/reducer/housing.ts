import { area } from '../shape/outline.ts';
import { bumpedHull, hullArcs, type Bump, type HullArc, type Round } from '../shape/hull.ts';
import { SCREWS } from '../shop/fasteners.ts';
import type { StandingAxle } from './axles.ts';
import { sweptBy, type Body } from './body.ts';
import { pinBodies, slideRounds } from './idle-pins.ts';
import { keeperBodies, keepersOf, type Keeper } from './keepers.ts';
import { keyBodies } from './keys.ts';
import { hubScrews, linkBody, outputShaft, type ShaftRun } from './link-bodies.ts';
import { motorRounds } from './motor-body.ts';
import { EDGE, PITCH } from './plan.ts';
import { earSize, plateBodies, platesOf, type Shared } from './plates.ts';
import { heldInside, heldRing, holderRadius, ringBodies, type HeldRing } from './rings.ts';
import { asideRounds, blockBodies, clearOfFace } from './blocks.ts';
import { at } from './drawn.ts';
import { undone } from './frame.ts';
import { bodyIn } from './layout.ts';
import { bearingBodies, leastWall, seatsOf, type Plate, type Seat } from './seats.ts';
import { axisOf, settingOf, type HousingWish, type Setting } from './setting.ts';
import { motorScrews, tieBodies } from './ties.ts';
import type { StandingPin } from './standing-pins.ts';
import { sideBody } from './walls.ts';

/** What stands round the stages of a line. */
export interface MadeHousing {
  readonly bodies: readonly Body[];
  readonly plates: readonly Plate[];
  /** What its outline encloses, m². */
  readonly area: number;
  /** Where the screws that hold it together are, and how many were wanted. */
  readonly screws: readonly Bump[];
  readonly wanted: number;
  /** Where its ears are. */
  readonly ears: readonly Bump[];
  readonly grip: number;
  readonly rings: readonly HeldRing[];
  /** Least wall between two bearings that sit in a plate at one height, m (`leastWall`). */
  readonly wall: number;
  /** Shafts of its stages' own that it bears. */
  readonly axles: readonly StandingAxle[];
  /** Pins on which idlers run. */
  readonly pins: readonly StandingPin[];
  /** What keeps its plain shafts along their axes. */
  readonly keepers: readonly Keeper[];
  /** What stands still inside of what turns, where nothing made here reaches it: of which stage, and its name. */
  readonly inside: readonly { readonly stage: number; readonly name: string }[];
  /** Shaft of the motor within the wheel it drives, m, below 0 where it ends before it, and how wide that is; NaN where it drives no bore. */
  readonly engaged: number;
  readonly driven: number;
  /** Bottom and top of the output's shaft, and where its outer bearing ends, m; NaN for none. */
  readonly shaft: ShaftRun;
  /** The room that must be left free, as circles seen along the axis. */
  readonly rounds: readonly Round[];
}

/**
 * Circles that all plates must hold: what moves, bearings, the motor with its screws, rings and what holds them.
 *
 * @param beyond how far the housing's screws stand beyond the outline, m
 * @param grown by how much the outline is larger than these all round, m
 */
function roundsOf(
  w: Setting,
  seats: readonly Seat[],
  rings: readonly HeldRing[],
  slides: readonly Round[],
  beyond: number,
  grown: number,
): Round[] {
  const { h, screw, plan, face, stages, sweeps, layout, variant } = w;
  const [mx, my] = axisOf(stages[0]!);
  // Nuts under the first plate pass beside what stands before it.
  const nut = Math.max(0, screw.washer / 2 + EDGE / 4 - grown - beyond);
  const before = layout.stages[plan.first - 1];
  const aside = asideRounds(w, grown);
  const behind = plan.behind === 'bought' ? layout.stages[plan.last + 1]! : undefined;
  const head = SCREWS[face.thread].head / 2;
  return [
    ...slides,
    // So do heads on the cover beside a unit whose face lies on it.
    ...(behind?.bodies.flatMap((b) => sweptBy(b).rounds.map((r) => ({ ...r, r: r.r + nut }))) ?? []),
    ...(aside ??
      (before
        ? before.bodies.flatMap((b) => sweptBy(b).rounds.map((r) => ({ ...r, r: r.r + nut })))
        : motorRounds(variant.motor, face, mx, my, nut))),
    ...sweeps.flat().flatMap((s) => s.rounds),
    ...seats.map((s) => ({
      x: s.x,
      y: s.y,
      // Its boss, where it has one, stands clear of the nuts.
      r: Math.max(0, (s.bearing?.outside ?? s.diameter) / 2 + Math.max(EDGE - h.gap, h.wall + nut)),
    })),
    ...(plan.direct ? [{ x: mx, y: my, r: Math.max(0, face.circle / 2 + head + EDGE - h.gap - h.wall) }] : []),
    ...rings.map((r) => {
      const [x, y] = axisOf(stages[r.stage - plan.first]!);
      return { x, y, r: holderRadius(r, h.wall) };
    }),
  ];
}

/** How far the motor's shaft goes into what it drives, and how long that is along it, m; NaN where it drives nothing. */
function engagement(
  { plan, face, stages, sweeps, layout }: Setting,
  bottom: number,
): { readonly engaged: number; readonly driven: number } {
  const { aside, direct } = plan;
  const { input } = stages[0]!.ports;
  const over = input.coupling?.over;
  const home = aside && undone(layout.input);
  const [driver] = sweeps[0]!
    .filter((s) => s.body.turns === 'input')
    .map((s) => (home ? sweptBy(bodyIn(home, s.body)) : s))
    .sort((a, b) => a.from - b.from);
  const driven = driver ? (aside && over ? over : driver.to - driver.from) : NaN;
  if (!driver || !(direct || aside) || !(input.shaft > 0 || (aside && over))) return { engaged: NaN, driven };
  const tip = (aside ? aside.face : bottom) + face.reach;
  return { engaged: Math.min(tip, driver.from + driven) - driver.from, driven };
}

/** Plates, walls or posts, shafts with their bearings, and screws round the stages of a line. */
export function madeHousing(wish: HousingWish): MadeHousing {
  const w = settingOf(wish);
  const { plan, h, stages, screw } = w;
  const plates = platesOf(w);
  const seats = seatsOf(w);
  const rings = stages.flatMap((_, k) => heldRing(w, k) ?? []);
  // A post is round and keeps the gap with all of itself; of a wall's boss only what is outside the wall is there.
  const r = screw.hole / 2 + EDGE;
  const post = { r, beyond: Math.max(0, (h.sides === 'posts' ? r : screw.hole / 2 + EDGE / 2) - h.wall) };
  const slides = slideRounds(w, plates);
  const alone = roundsOf(w, seats, rings, slides, post.beyond, h.gap);
  const only = hullArcs(alone);
  // One ring alone, with nothing wider about: the walls hold it themselves.
  const merged =
    h.sides === 'walls' &&
    stages.length === 1 &&
    rings.length === 1 &&
    only.length === 1 &&
    Math.abs(only[0]!.r - holderRadius(rings[0]!, h.wall)) < 1e-9;
  const rounds = merged ? alone : roundsOf(w, seats, rings, slides, post.beyond, h.gap + h.wall);
  const inner: HullArc[] = merged ? hullArcs(rounds, -h.wall) : hullArcs(rounds, h.gap);
  const outer: HullArc[] = hullArcs(rounds, merged ? h.gap : h.gap + h.wall);
  const round = outer.reduce((s, a) => s + a.r * a.sweep, 0);
  const wanted = h.screws || Math.max(4, Math.ceil(round / PITCH));
  const bump = { ...post, ...clearOfFace(w, post.r) };
  const { outline, centres } = bumpedHull(outer, wanted, bump);
  const ear = h.ears && earSize(SCREWS[h.ears.screw]);
  const eared =
    ear && bumpedHull(outer, wanted, bump, { count: h.ears!.count, size: { ...ear, ...clearOfFace(w, ear.r) } });
  const shared: Shared = {
    outline,
    centres,
    inside: inner[0]!.r,
    eared: eared && { outline: eared.outline, ears: eared.further },
  };

  const [mx, my] = axisOf(stages[0]!);
  const [bottom, top] = [plates[0]!.from, plates.at(-1)!.to];
  const bays = stages.map((_, k): Plate => ({ from: plates[k]!.to, to: plates[k + 1]!.from }));
  const own = outputShaft(w, plates);
  const keepers = keepersOf(w, plates, own.run);
  const engaged = engagement(w, bottom);
  return {
    bodies: [
      ...plateBodies(w, plates, seats, shared),
      ...bays.flatMap((bay, k) => {
        const held = rings.find((r) => r.stage === stages[k]!.index);
        return [
          sideBody(w, k, bay, shared, inner, merged ? held : undefined, post.r),
          ...(held ? ringBodies(w, held, k, bay, merged) : []),
        ];
      }),
      ...bearingBodies(w, seats, plates),
      ...stages.flatMap((_, k) => [linkBody(w, k, plates) ?? [], hubScrews(w, k) ?? []].flat()),
      ...keyBodies(w),
      ...pinBodies(w, plates),
      ...keeperBodies(w, keepers),
      ...(own.body ? [own.body] : []),
      ...tieBodies(w, centres, bottom, top),
      ...(plan.direct ? [motorScrews(w, plates[0]!, (dx, dy, z) => at(mx + dx, my + dy, z), -0.4 * w.step)] : []),
      ...blockBodies(w, plates),
    ],
    plates,
    area: Math.abs(area(outline)),
    screws: centres,
    wanted,
    ears: shared.eared?.ears ?? [],
    grip: top - bottom,
    rings,
    wall: leastWall(seats, plates),
    axles: w.axles,
    pins: w.pins,
    keepers,
    inside: stages.flatMap((s, k) => {
      const body = heldInside(w, k);
      return body ? [{ stage: s.index, name: body.part.name }] : [];
    }),
    ...engaged,
    shaft: own.run,
    rounds,
  };
}
