import type { Bearing, Housing, Material, OutputShaft, Variant } from '../schema/joint.ts';
import { bumpedHull, hullArcs, hullOutline, type Bump, type HullArc, type Round } from '../shape/hull.ts';
import { circle, OutlinePen, type Outline } from '../shape/outline.ts';
import { prism, solidVolume, type Prism, type Solid } from '../shape/solid.ts';
import { intoHole, lengthFor, nutMass, screwMass, SCREWS, washerMass, type Screw } from '../shop/fasteners.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Part } from '../stage/contract.ts';
import { stated } from '../units/stated.ts';
import { facePlaces, motorRounds } from './motor-body.ts';
import { farthestFrom, sweptBy, type Body, type Swept } from './body.ts';
import { HOME, pointIn, type Frame, type Vec } from './frame.ts';
import { hasHub, HEAD_ROOM, HUB, LIP, type HousingPlan } from './plan.ts';
import { reachOf } from './reach.ts';
import { sliced, type Hole } from './sliced.ts';
import type { Link } from './shafts.ts';
import type { LineLayout, StandingStage } from './layout.ts';
import { weightOf } from './weight.ts';

/** A plate of the housing: where it lies along the axis, m. */
export interface Plate {
  readonly from: number;
  readonly to: number;
}

/** A ring of a stage that the housing holds. */
export interface HeldRing {
  readonly stage: number;
  readonly radius: number;
  readonly from: number;
  readonly to: number;
  /** What stops it along the axis, before and behind: where what moves leaves room for it. */
  readonly shelf: boolean;
  readonly clamp: boolean;
}

/** What stands round the stages of a line. */
export interface MadeHousing {
  readonly bodies: readonly Body[];
  readonly plates: readonly Plate[];
  /** Where the screws that hold it together are, and how many were wanted. */
  readonly screws: readonly Bump[];
  readonly wanted: number;
  readonly grip: number;
  readonly rings: readonly HeldRing[];
  /** Shaft of the motor within the wheel it drives, m, and how wide that is; NaN where it drives no bore. */
  readonly engaged: number;
  readonly driven: number;
  /** Bottom and top of the output's shaft, and where its outer bearing ends, m; NaN for none. */
  readonly shaft: { readonly from: number; readonly to: number; readonly needs: number };
  /** The room that must be left free, as circles seen along the axis. */
  readonly rounds: readonly Round[];
}

/** Slide fit of what is laid in by hand, m; least step that stops a ring; how far a shaft stands out where none is given. */
const SLIDE = 5e-5;
const STEP = 1.5e-3;
const STUB = 0.015;
/** Material left round a hole, m. */
const EDGE = 2e-3;
/** Screws stand no farther apart than this along the outline, m. */
const PITCH = 0.07;
const STEEL = { name: 'Steel, 8.8', density: 7850 };

const size = (x: number): string => stated(x, 'length', 5);

interface Drawn {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly solid: Solid;
  readonly frames: readonly Frame[];
  readonly apart: number;
  readonly turns?: Body['turns'];
  readonly speed?: number;
  readonly joins?: readonly string[];
}

type Weighed = Pick<Part, 'made' | 'material' | 'mass' | 'money'> & Pick<Part, 'stocked'>;

/** One part of the housing as a body. */
function bodyOf(d: Drawn, w: Weighed, crank?: (at: number) => readonly Frame[]): Body {
  const part = { name: d.name, note: d.note, quantity: d.frames.length, ...w };
  return {
    id: `case/${d.id}`,
    of: 'case',
    stage: -1,
    part,
    turns: d.turns ?? 'fixed',
    speed: d.speed ?? 0,
    flexes: false,
    ...(d.joins && { joins: d.joins }),
    solid: () => d.solid,
    places: crank ?? (() => d.frames),
    apart: d.frames.map((): Vec => [0, 0, d.apart]),
  };
}

const at = (x: number, y: number, z: number): Frame => ({ ...HOME, at: [x, y, z] });
const turning =
  (frames: readonly Frame[], speed: number) =>
  (crank: number): readonly Frame[] => {
    const [c, s] = [Math.cos(crank * speed), Math.sin(crank * speed)];
    return frames.map((f) => ({ ...f, x: [c, s, 0] as Vec, y: [-s, c, 0] as Vec }));
  };

/** A round hole that is longer one way, for what must be moved along x. */
function slot(x: number, y: number, r: number, slide: number): Outline {
  if (!(slide > 0)) return circle(x, y, r);
  return new OutlinePen()
    .to(x - slide, y - r)
    .to(x + slide, y - r, 1)
    .to(x + slide, y + r)
    .to(x - slide, y + r, 1)
    .close();
}

/** A hexagon by its width across flats, m. */
function hexagon(flats: number): Outline {
  const pen = new OutlinePen();
  for (let k = 0; k < 6; k++) {
    const a = Math.PI / 6 + (k * Math.PI) / 3;
    pen.to((flats / Math.sqrt(3)) * Math.cos(a), (flats / Math.sqrt(3)) * Math.sin(a));
  }
  return pen.close();
}

const ring = (outer: number, inner: number, from: number, to: number): Prism =>
  prism(circle(0, 0, outer / 2), from, to, [circle(0, 0, inner / 2)]);

/** A bearing as it is seen. */
const bearingSolid = (b: Bearing): Solid => ({ prisms: [ring(b.outside, b.bore, 0, b.width)] });

/** Diameter of the hole in the lip behind a bearing: clear of its inner ring, under its outer one, m. */
const lipHole = (b: Bearing): number => b.outside - (b.outside - b.bore) / 4;

/** A bearing in a plate, its face flush with one side of it. */
interface Seat {
  readonly plate: number;
  readonly side: 'below' | 'above';
  readonly x: number;
  readonly y: number;
  readonly bearing: Bearing | undefined;
  readonly diameter: number;
  readonly of: Link | 'output';
}

/** A round that stands out of a plate to hold a bearing. */
interface Boss extends Round {
  readonly from: number;
  readonly to: number;
  readonly holes: readonly Hole[];
}

const clipped = (o: Hole, from: number, to: number): Hole => ({
  ...o,
  from: Math.max(o.from, from),
  to: Math.min(o.to, to),
});

/**
 * What a bearing takes out of its plate, and the boss it needs where it is wider than that.
 *
 * @param span to a second row in the same boss, m; 0 for none
 */
function seatIn(p: Plate, s: Seat, span: number, wall: number): { holes: Hole[]; boss?: Boss } {
  const b = s.bearing;
  if (!b) return { holes: [{ outline: circle(s.x, s.y, s.diameter / 2 + SLIDE), from: p.from, to: p.to }] };
  const seat = circle(s.x, s.y, b.outside / 2);
  const lip = circle(s.x, s.y, lipHole(b) / 2);
  const round = { x: s.x, y: s.y, r: b.outside / 2 + wall };
  if (s.side === 'below') {
    const second = span > 0 ? p.from + span : Infinity;
    const end = span > 0 ? second + b.width : Math.max(p.to, p.from + b.width + LIP);
    const holes: Hole[] = [
      { outline: seat, from: p.from, to: p.from + b.width },
      { outline: lip, from: p.from + b.width, to: Math.min(second, end) },
      ...(span > 0 ? [{ outline: seat, from: second, to: end }] : []),
    ];
    return { holes, ...(end > p.to + 1e-9 && { boss: { ...round, from: p.to, to: end, holes } }) };
  }
  const start = Math.min(p.from, p.to - b.width - LIP);
  const holes: Hole[] = [
    { outline: lip, from: start, to: p.to - b.width },
    { outline: seat, from: p.to - b.width, to: p.to },
  ];
  return { holes, ...(start < p.from - 1e-9 && { boss: { ...round, from: start, to: p.from, holes } }) };
}

/** What the bodies of a stage sweep, and where they lie. */
interface Sweep extends Swept {
  readonly body: Body;
}

/** The ring of a stage that stands still round its axis, if it has one. */
function heldRing(s: StandingStage, sweeps: readonly Sweep[], gap: number): HeldRing | undefined {
  const [ax, ay] = axisOf(s);
  const still = sweeps
    .filter(({ body }) => body.turns === 'fixed')
    .filter(({ body }) => {
      const frames = body.places(0);
      return frames.length === 1 && Math.hypot(frames[0]!.at[0] - ax, frames[0]!.at[1] - ay) < 1e-9;
    })
    .sort((a, b) => reachOf(b.body.solid()) - reachOf(a.body.solid()))[0];
  if (!still) return undefined;
  const radius = reachOf(still.body.solid());
  const moving = sweeps.filter(({ body }) => body.turns !== 'fixed');
  const before =
    widest(
      moving.filter((m) => m.from < still.from - 1e-9),
      ax,
      ay,
    ) + gap;
  const behind =
    widest(
      moving.filter((m) => m.to > still.to + 1e-9),
      ax,
      ay,
    ) + gap;
  return {
    stage: s.index,
    radius,
    from: still.from,
    to: still.to,
    shelf: before <= radius - STEP,
    clamp: behind <= radius - STEP,
  };
}

const widest = (list: readonly Swept[], x: number, y: number): number =>
  list.reduce((most, s) => Math.max(most, farthestFrom(s.rounds, x, y)), 0);

/** Where a stage's input axis crosses the plane across the line's axis. */
const axisOf = (s: StandingStage): readonly [number, number] => {
  const p = pointIn(s.frame, s.ports.input.at);
  return [p[0], p[1]];
};

/** Where what carries power out of a stage stands. */
const outAxis = (s: StandingStage): readonly [number, number] => {
  const p = pointIn(s.frame, s.ports.output.at);
  return [p[0], p[1]];
};

/** What the housing is made for. */
export interface HousingWish {
  readonly variant: Pick<Variant, 'motor' | 'mount' | 'output' | 'housing'>;
  readonly face: MotorFace;
  readonly plan: HousingPlan;
  readonly layout: LineLayout;
  readonly shelf: Shelf;
}

/** Plates, walls or posts, shafts with their bearings, and screws round the stages of a line. */
export function madeHousing(w: HousingWish): MadeHousing {
  const { plan, face, shelf } = w;
  const h: Housing = w.variant.housing!;
  const output = w.variant.output as OutputShaft | undefined;
  const screw = SCREWS[h.screw];
  const stages = w.layout.stages.slice(plan.first, plan.last + 1);
  const sweeps = stages.map((s) => s.bodies.map((body): Sweep => ({ body, ...sweptBy(body) })));
  const last = stages.length - 1;

  // Plates along the axis.
  const plates = plan.plates.map((thick, i): Plate => {
    if (i === 0) return { from: stages[0]!.from - h.gap - thick, to: stages[0]!.from - h.gap };
    const from = stages[i - 1]!.to + (hasHub(plan, w.variant, i - 1) ? HUB : 0) + h.gap;
    return { from, to: from + thick };
  });
  const [bottom, top] = [plates[0]!.from, plates.at(-1)!.to];
  const motorAxis = axisOf(stages[0]!);

  // Bearings in their plates.
  const seats: Seat[] = [];
  plan.links.forEach((link, k) => {
    if (k === last && output) return;
    const [x, y] = outAxis(stages[k]!);
    const common = { x, y, bearing: link.bearing, diameter: link.diameter, of: link };
    if (link.beside) seats.push({ ...common, plate: k, side: 'above' });
    if (!(k === last && link.hub)) seats.push({ ...common, plate: k + 1, side: 'below' });
  });
  const pair = output && (output.arrangement ?? 'pair') === 'pair';
  const own = output && output.arrangement !== 'race' ? (output.bearing ?? undefined) : undefined;
  if (output)
    seats.push({
      plate: last + 1,
      side: 'below',
      x: 0,
      y: 0,
      bearing: own,
      diameter: output.shaftDiameter,
      of: 'output',
    });

  // The outline that all plates and walls share.
  const rings = stages.flatMap((s, k) => heldRing(s, sweeps[k]!, h.gap) ?? []);
  const holderOut = (r: HeldRing) => r.radius + h.wall;
  const alone = stages.length === 1 && rings.length === 1;
  const seatRound = (s: Seat): Round => ({
    x: s.x,
    y: s.y,
    r: Math.max(0, (s.bearing?.outside ?? s.diameter) / 2 + EDGE - h.gap),
  });
  const [mx, my] = motorAxis;
  const motorRound: Round[] = plan.direct
    ? [{ x: mx, y: my, r: Math.max(0, face.circle / 2 + SCREWS[face.thread].head / 2 + EDGE - h.gap - h.wall) }]
    : [];
  const boss = { r: screw.hole / 2 + EDGE, beyond: Math.max(0, screw.hole / 2 + EDGE / 2 - h.wall) };
  // Nuts under the first plate pass beside what stands before it.
  const nutRoom = Math.max(0, screw.washer / 2 + EDGE / 4 - h.gap - h.wall - boss.beyond);
  const before = w.layout.stages[plan.first - 1];
  const beside: Round[] = before
    ? before.bodies.flatMap((b) => sweptBy(b).rounds.map((r) => ({ ...r, r: r.r + nutRoom })))
    : motorRounds(w.variant.motor, face, mx, my, nutRoom);
  const inside: Round[] = [
    ...beside,
    ...sweeps.flat().flatMap((s) => s.rounds),
    ...seats.map(seatRound),
    ...motorRound,
    ...rings.flatMap((r) => {
      const [x, y] = axisOf(stages[r.stage - plan.first]!);
      return [{ x, y, r: holderOut(r) }];
    }),
  ];
  const only = hullArcs(inside);
  // One ring alone, with nothing wider about: the walls hold it themselves.
  const merged =
    alone && h.sides === 'walls' && only.length === 1 && Math.abs(only[0]!.r - holderOut(rings[0]!)) < 1e-9;
  const inner: HullArc[] = merged ? hullArcs(inside, -h.wall) : hullArcs(inside, h.gap);
  const outer: HullArc[] = merged ? hullArcs(inside, h.gap) : hullArcs(inside, h.gap + h.wall);
  const round = outer.reduce((s, a) => s + a.r * a.sweep, 0);
  const wanted = h.screws || Math.max(4, Math.ceil(round / PITCH));
  const { outline, centres } = bumpedHull(outer, wanted, boss);

  const bodies: Body[] = [];
  const own3 =
    (material: Material) =>
    (solid: Solid, thick: number): Weighed => ({
      made: material.made === 'printed' ? 'printed' : 'bought',
      material: material.name,
      ...weightOf(solid, material, thick, shelf),
    });
  const ofHousing = own3(h.material);
  const ofMount = own3((w.variant.mount as Material | undefined) ?? h.material);
  const step = 1.2 * Math.max(...stages.map((s) => s.to - s.from));
  const tie = (from: number, to: number): Hole[] =>
    centres.map((c) => ({ outline: circle(c.x, c.y, screw.hole / 2), from, to }));

  // Plates.
  plates.forEach((p, i) => {
    const holes: Hole[] = tie(p.from, p.to);
    const here = seats.filter((s) => s.plate === i);
    const bosses: Boss[] = [];
    for (const s of here) {
      const cut = seatIn(p, s, s.of === 'output' && pair ? output.span : 0, h.wall);
      holes.push(...cut.holes);
      if (cut.boss) bosses.push(cut.boss);
    }
    if (i === 0 && plan.direct) {
      const s = SCREWS[face.thread];
      const slide = stages[0]!.ports.input.slide ?? 0;
      const deep = s.headHeight + HEAD_ROOM[1];
      for (const [dx, dy] of facePlaces(face)) {
        const [x, y] = [mx + dx, my + dy];
        holes.push({ outline: slot(x, y, s.hole / 2, slide), from: p.from, to: p.to - deep });
        holes.push({ outline: slot(x, y, (s.head + HEAD_ROOM[0]) / 2, slide), from: p.to - deep, to: p.to });
      }
      const pilot = face.pilot > 0 ? p.from + face.pilotHeight + HEAD_ROOM[1] : p.from;
      if (pilot > p.from) holes.push({ outline: slot(mx, my, face.pilot / 2 + SLIDE, slide), from: p.from, to: pilot });
      holes.push({ outline: slot(mx, my, face.shaft / 2 + h.gap, slide), from: pilot, to: p.to });
    } else if (
      i === 1 &&
      plan.direct &&
      bottom + face.reach > p.from - h.gap &&
      !here.some((o) => covers(o, mx, my, face, h))
    ) {
      // The motor's shaft ends in the next plate, or goes through it.
      holes.push({
        outline: circle(mx, my, face.shaft / 2 + h.gap),
        from: p.from,
        to: Math.min(p.to, bottom + face.reach + h.gap),
      });
    } else if (i === 0) holes.push({ outline: circle(mx, my, face.shaft / 2 + h.gap), from: p.from, to: p.to });
    if (i === last + 1 && !output && plan.links[last]!.hub) {
      // The stage's own flange is what is screwed to: the cover leaves it free.
      const out = sweeps[last]!.filter((s) => s.body.turns === 'output' && s.to > stages[last]!.to - 1e-6);
      const reach = Math.min(widest(out, 0, 0) + h.gap, inner[0]!.r - STEP);
      holes.push({ outline: circle(0, 0, reach), from: p.from, to: p.to });
    }
    const within = (from: number, to: number) => holes.filter((o) => o.to > from + 1e-9 && o.from < to - 1e-9);
    const solid: Solid = {
      prisms: [
        ...sliced(
          outline,
          p.from,
          p.to,
          within(p.from, p.to).map((o) => clipped(o, p.from, p.to)),
        ),
        ...bosses.flatMap((o) =>
          sliced(
            circle(o.x, o.y, o.r),
            o.from,
            o.to,
            o.holes.filter((x) => x.to > o.from + 1e-9 && x.from < o.to - 1e-9).map((x) => clipped(x, o.from, o.to)),
          ),
        ),
      ],
    };
    const neck = bosses.reduce((most, o) => Math.max(most, o.to - o.from), 0);
    const name = i === 0 ? (plan.direct ? 'Motor plate' : 'First plate') : i === last + 1 ? 'Cover' : `Plate ${i + 1}`;
    const id = i === 0 ? 'plate-motor' : i === last + 1 ? 'cover' : `plate-${i + 1}`;
    const local = moved(solid, -p.from);
    bodies.push(
      bodyOf(
        {
          id,
          name,
          note: plateNote(p, here, neck, i === 0 && plan.direct ? face : undefined),
          solid: local,
          frames: [at(0, 0, p.from)],
          apart: (2 * i - 1) * step,
        },
        (i === 0 && plan.direct ? ofMount : ofHousing)(local, p.to - p.from),
      ),
    );
  });

  // Walls or posts, and what holds rings.
  stages.forEach((s, k) => {
    const [from, to] = [plates[k]!.to, plates[k + 1]!.from];
    const held = rings.find((r) => r.stage === s.index);
    const [ax, ay] = axisOf(s);
    const moving = sweeps[k]!.filter(({ body }) => body.turns !== 'fixed');
    const bore = held && {
      before: held.shelf
        ? Math.max(
            widest(
              moving.filter((m) => m.from < held.from - 1e-9),
              ax,
              ay,
            ),
            through(plan, face, k),
          ) + h.gap
        : held.radius,
      behind:
        widest(
          moving.filter((m) => m.to > held.to + 1e-9),
          ax,
          ay,
        ) + h.gap,
    };
    const seatHoles: Hole[] = held
      ? [
          { outline: circle(ax, ay, bore!.before), from, to: held.from },
          {
            outline: circle(ax, ay, held.clamp ? held.radius : Math.max(held.radius, bore!.behind)),
            from: held.to,
            to,
          },
          { outline: circle(ax, ay, held.radius), from: held.from, to: held.to },
        ].filter((o) => o.to - o.from > 1e-9)
      : [];
    const apart = (2 * k - 0.4) * step;
    if (h.sides === 'walls') {
      const holes = [...tie(from, to), ...(merged ? seatHoles : [{ outline: hullOutline(inner), from, to }])];
      const solid = moved({ prisms: sliced(outline, from, to, holes) }, -from);
      bodies.push(
        bodyOf(
          {
            id: `wall-${k + 1}`,
            name: stages.length > 1 ? `Wall ${k + 1}` : 'Wall',
            note: `${size(to - from)} high, ${size(h.wall)} thick${merged ? `, holds the ring on ⌀ ${size(2 * held!.radius)}` : ''}`,
            solid,
            frames: [at(0, 0, from)],
            apart,
          },
          ofHousing(solid, h.wall),
        ),
      );
    } else {
      const solid: Solid = { prisms: [ring(2 * boss.r, screw.hole, 0, to - from)] };
      bodies.push(
        bodyOf(
          {
            id: `post-${k + 1}`,
            name: stages.length > 1 ? `Post ${k + 1}` : 'Post',
            note: `⌀ ${size(2 * boss.r)}, bored ${size(screw.hole)}, ${size(to - from)} long`,
            solid,
            frames: centres.map((c) => at(c.x, c.y, from)),
            apart,
          },
          ofHousing(solid, boss.r - screw.hole / 2),
        ),
      );
    }
    if (held && !merged) {
      const solid = moved({ prisms: sliced(circle(ax, ay, holderOut(held)), from, to, seatHoles) }, -from);
      bodies.push(
        bodyOf(
          {
            id: `holder-${k + 1}`,
            name: stages.length > 1 ? `Ring holder ${k + 1}` : 'Ring holder',
            note: `holds the ring on ⌀ ${size(2 * held.radius)}, ${size(to - from)} high, clamped between the plates`,
            solid,
            frames: [at(0, 0, from)],
            apart,
          },
          ofHousing(solid, h.wall),
        ),
      );
    }
    if (held?.clamp && to - held.to > LIP / 2) {
      const solid: Solid = { prisms: [ring(2 * (held.radius - SLIDE), 2 * bore!.behind, 0, to - held.to)] };
      bodies.push(
        bodyOf(
          {
            id: `clamp-${k + 1}`,
            name: stages.length > 1 ? `Clamp ring ${k + 1}` : 'Clamp ring',
            note: `⌀ ${size(2 * (held.radius - SLIDE))}, bored ${size(2 * bore!.behind)}, ${size(to - held.to)} high: keeps the ring down`,
            solid,
            frames: [at(ax, ay, held.to)],
            apart: (2 * k + 0.6) * step,
          },
          ofHousing(solid, held.radius - bore!.behind),
        ),
      );
    }
  });

  // Bearings, of which a stage may have paid for two.
  const byBearing = new Map<string, { seat: Seat; frames: Frame[]; paid: number }>();
  const seatAt = (s: Seat): Frame[] => {
    const p = plates[s.plate]!;
    const b = s.bearing!;
    const z = s.side === 'below' ? p.from : p.to - b.width;
    return s.of === 'output' && pair ? [at(s.x, s.y, z), at(s.x, s.y, z + output.span)] : [at(s.x, s.y, z)];
  };
  for (const s of seats) {
    if (!s.bearing) continue;
    const key = `${s.bearing.id} ${s.of === 'output'}`;
    const had = byBearing.get(key) ?? { seat: s, frames: [], paid: 0 };
    had.frames.push(...seatAt(s));
    if (s.of !== 'output' && s.of.paid) had.paid++;
    byBearing.set(key, had);
  }
  for (const [key, { seat, frames, paid }] of byBearing) {
    const b = seat.bearing!;
    const ofOutput = seat.of === 'output';
    const due = ofOutput ? 0 : (b.price * (frames.length - Math.min(paid, frames.length))) / frames.length;
    bodies.push(
      bodyOf(
        {
          id: `bearing-${key.replace(/ .*/, '')}${ofOutput ? '-output' : ''}`,
          name: `Bearing ${b.name}`,
          note:
            `${size(b.bore)} × ${size(b.outside)} × ${size(b.width)}` +
            (ofOutput ? '; counted with the output' : paid > 0 ? `; ${paid} of them paid for with their stage` : ''),
          solid: bearingSolid(b),
          frames,
          apart: 0.2 * step,
        },
        {
          made: 'bought',
          material: 'as supplied',
          mass: ofOutput ? 0 : b.mass,
          money: due,
          stocked: { shelf: 'bearings', id: b.id },
        },
      ),
    );
  }

  // Shafts and hubs.
  plan.links.forEach((link, k) => {
    const s = stages[k]!;
    const [x, y] = outAxis(s);
    const port = pointIn(s.frame, s.ports.output.at);
    const speed = speedAfter(s);
    // Keys, flats and set screws are not in a shaft's body.
    const joins = keyedTo(s, stages[k + 1]);
    const isLast = k === last;
    if (isLast && (output || link.hub) && !(output && link.hub)) return;
    const upper = isLast ? (output ? port[2] + HUB : plates[k + 1]!.to + STUB) : plates[k + 2]!.from - h.gap / 2;
    const lower = link.hub ? port[2] : link.beside ? plates[k]!.from + LIP / 2 : s.from;
    if (link.hub) {
      const f = link.flange;
      const across = f ? f.circle + f.hole + 2 * EDGE : link.diameter + 8e-3;
      const bolts = f
        ? Array.from({ length: f.screws }, (_, n) => {
            const a = (2 * Math.PI * n) / f.screws;
            return circle((f.circle / 2) * Math.cos(a), (f.circle / 2) * Math.sin(a), f.hole / 2);
          })
        : [];
      const bored = isLast && output ? [circle(0, 0, output.shaftDiameter / 2)] : [];
      const rod = isLast && output ? [] : [prism(circle(0, 0, link.diameter / 2), HUB, upper - lower)];
      const solid: Solid = { prisms: [prism(circle(0, 0, across / 2), 0, HUB, [...bolts, ...bored]), ...rod] };
      const mass = solidMass(solid, STEEL.density);
      bodies.push(
        bodyOf(
          {
            id: `hub-${k + 1}`,
            name: rod.length ? 'Flanged shaft' : 'Hub',
            note: `flange ⌀ ${size(across)}, ${size(HUB)} thick${f ? `, ${f.screws} screws on ⌀ ${size(f.circle)}` : ', bonded'}; ${rod.length ? `shaft ⌀ ${size(link.diameter)}, ${size(upper - lower)} over all` : `bored ${size(output!.shaftDiameter)}`}`,
            solid,
            frames: [at(x, y, lower)],
            apart: (2 * k + 0.9) * step,
            turns: 'output',
            speed,
            joins,
          },
          { made: 'bought', material: 'Steel C45, milled', mass, money: TURNED + mass * 6 },
          turning([at(x, y, lower)], speed),
        ),
      );
      return;
    }
    const solid: Solid = { prisms: [prism(circle(0, 0, link.diameter / 2), 0, upper - lower)] };
    const mass = solidMass(solid, STEEL.density);
    bodies.push(
      bodyOf(
        {
          id: `shaft-${k + 1}`,
          name: isLast ? 'Output shaft' : `Shaft ${k + 1}`,
          note: `⌀ ${size(link.diameter)}, ${size(upper - lower)} long`,
          solid,
          frames: [at(x, y, lower)],
          apart: (2 * k + 0.9) * step,
          turns: 'output',
          speed,
          joins,
        },
        { made: 'bought', material: 'Silver steel 115CrV3, ground rod', mass, money: ROD + mass * 14 },
        turning([at(x, y, lower)], speed),
      ),
    );
  });
  let shaft = { from: NaN, to: NaN, needs: NaN };
  if (output) {
    const long = output.shaftLength + (pair ? output.span : 0);
    const lastPlate = plates.at(-1)!;
    const needs = pair && own ? lastPlate.from + output.span + own.width : lastPlate.to;
    const link = plan.links[last]!;
    const from = link.hub ? pointIn(stages[last]!.frame, stages[last]!.ports.output.at)[2] : stages[last]!.from;
    shaft = { from, to: from + long, needs };
    const hollow = Math.min(output.shaftBore, output.shaftDiameter);
    const solid: Solid = {
      prisms: [prism(circle(0, 0, output.shaftDiameter / 2), 0, long, hollow > 0 ? [circle(0, 0, hollow / 2)] : [])],
    };
    const speed = speedAfter(stages[last]!);
    if (long > 0)
      bodies.push(
        bodyOf(
          {
            id: 'output-shaft',
            name: 'Output shaft',
            note: `⌀ ${size(output.shaftDiameter)}, ${size(long)} long; counted with the output`,
            solid,
            frames: [at(0, 0, from)],
            apart: (2 * last + 1.4) * step,
            turns: 'output',
            speed,
          },
          { made: 'bought', material: output.shaftMaterial.name, mass: 0, money: 0 },
          turning([at(0, 0, from)], speed),
        ),
      );
  }

  // What holds it together.
  const grip = top - bottom;
  bodies.push(...tieBodies(screw, centres, bottom, top, (2 * last + 2.6) * step));
  if (plan.direct) {
    const s = SCREWS[face.thread];
    const seat = plates[0]!.to - s.headHeight - HEAD_ROOM[1];
    const long = intoHole(s, seat - bottom, face.deep) ?? s.lengths[0]!;
    const frames = facePlaces(face).map(([dx, dy]) => at(mx + dx, my + dy, seat));
    bodies.push(
      bodyOf(
        {
          id: 'screw-motor',
          name: `Screw ISO 4762 ${s.id}×${Math.round(long * 1e4) / 10}`,
          note: `holds the motor; key ${size(s.key)}`,
          solid: screwSolid(s, long),
          frames,
          apart: -0.4 * step,
        },
        { made: 'bought', material: STEEL.name, mass: screwMass(s, long), money: s.price },
      ),
    );
  }

  const driver = sweeps[0]!.filter((s) => s.body.turns === 'input').sort((a, b) => a.from - b.from)[0];
  const tip = bottom + face.reach;
  return {
    bodies,
    plates,
    screws: centres,
    wanted,
    grip,
    rings,
    engaged: driver && plan.direct && stages[0]!.ports.input.shaft > 0 ? Math.min(tip, driver.to) - driver.from : NaN,
    driven: driver ? driver.to - driver.from : NaN,
    shaft,
    rounds: inside,
  };
}

/** What a shaft is keyed into: what turns with a stage's output, and with the input of the next. */
const keyedTo = (s: StandingStage, next: StandingStage | undefined): string[] =>
  [...s.bodies.filter((b) => b.turns === 'output'), ...(next?.bodies.filter((b) => b.turns === 'input') ?? [])].map(
    (b) => b.id,
  );

/** Radius of the shaft that comes into a stage of the run, m. */
const through = (plan: HousingPlan, face: MotorFace, k: number): number =>
  (k === 0 ? face.shaft : plan.links[k - 1]!.diameter) / 2;

/** Whether a seat lies where the motor's shaft would go through. */
const covers = (s: Seat, x: number, y: number, face: MotorFace, h: Housing): boolean =>
  Math.hypot(s.x - x, s.y - y) < ((s.bearing?.outside ?? s.diameter) + face.shaft) / 2 + h.gap + EDGE / 2;

/** Work of turning a piece, and of cutting a rod to length: starting values. */
const [TURNED, ROD] = [6, 0.5];

/** Speed of what a stage gives its power to, in turns of the motor. */
const speedAfter = (s: StandingStage): number => s.bodies.find((b) => b.turns === 'output')?.speed ?? NaN;

const solidMass = (solid: Solid, density: number): number => solidVolume(solid) * density;

/** A solid moved along its axis, m. */
const moved = (solid: Solid, by: number): Solid => ({
  prisms: solid.prisms.map((p) => ({ ...p, from: p.from + by, to: p.to + by })),
});

/** A screw with its head above z = 0 and its thread below. */
const screwSolid = (s: Screw, length: number): Solid => ({
  prisms: [prism(circle(0, 0, s.d / 2), -length, 0), prism(circle(0, 0, s.head / 2), 0, s.headHeight)],
});

/** Screws through the whole stack with nuts and washers; threaded rods with nuts at both ends where no screw is so long. */
function tieBodies(s: Screw, centres: readonly Bump[], bottom: number, top: number, apart: number): Body[] {
  const w = s.washerHeight;
  const grip = top - bottom + 2 * w;
  const long = lengthFor(s, grip);
  const steel = { made: 'bought', material: STEEL.name } as const;
  const each = (z: number) => centres.map((c) => at(c.x, c.y, z));
  const nut: Solid = { prisms: [prism(hexagon(s.nut), 0, s.nutHeight, [circle(0, 0, s.d / 2)])] };
  const washer: Solid = { prisms: [ring(s.washer, 1.07 * s.d, 0, w)] };
  const rod = grip + 2 * s.nutHeight + 3 * s.pitch;
  const mm = (x: number) => Math.round(x * 1e4) / 10;
  return [
    long === undefined
      ? bodyOf(
          {
            id: 'tie',
            name: `Threaded rod ${s.id}×${Math.ceil(rod * 1e3)}`,
            note: `DIN 976-1, through the whole housing; no standard screw is so long`,
            solid: { prisms: [prism(circle(0, 0, s.d / 2), 0, rod)] },
            frames: each(bottom - w - s.nutHeight - 1.5 * s.pitch),
            apart,
          },
          { ...steel, mass: 7850 * s.area * rod, money: s.rodPrice * rod },
        )
      : bodyOf(
          {
            id: 'tie',
            name: `Screw ISO 4762 ${s.id}×${mm(long)}`,
            note: `through the whole housing, grip ${size(top - bottom)}; key ${size(s.key)}`,
            solid: screwSolid(s, long),
            frames: each(top + w),
            apart,
          },
          { ...steel, mass: screwMass(s, long), money: s.price },
        ),
    bodyOf(
      {
        id: 'washer',
        name: `Washer ISO 7089 ${s.id}`,
        note: 'under every head and nut',
        solid: washer,
        frames: [...each(bottom - w), ...each(top)],
        apart: 0,
      },
      { ...steel, mass: washerMass(s), money: 0.02 },
    ),
    bodyOf(
      {
        id: 'nut',
        name: `Nut ISO 4032 ${s.id}`,
        note: `${size(s.nut)} across flats`,
        solid: nut,
        frames: [...each(bottom - w - s.nutHeight), ...(long === undefined ? each(top + w) : [])],
        apart: 0,
      },
      { ...steel, mass: nutMass(s), money: s.nutPrice },
    ),
  ];
}

function plateNote(p: Plate, seats: readonly Seat[], neck: number, face: MotorFace | undefined): string {
  const list = seats.map((s) =>
    s.bearing ? `seat ⌀ ${size(s.bearing.outside)} for ${s.bearing.name}` : `bore ⌀ ${size(s.diameter)}, no bearing`,
  );
  return [
    `${size(p.to - p.from)} thick`,
    ...(face ? [`${face.screws} × ${face.thread} on ⌀ ${size(face.circle)} for the motor, heads sunk`] : []),
    ...(neck > 1e-9 ? [`boss ${size(neck)} high for a bearing`] : []),
    ...list,
  ].join(', ');
}
