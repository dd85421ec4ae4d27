import { OutlinePen, circle, place, type Outline } from '../shape/outline.ts';
import type { Round } from '../shape/hull.ts';
import { prism, solidVolume, type Solid } from '../shape/solid.ts';
import { intoHole, screwMass, washerMass, type Screw } from '../shop/fasteners.ts';
import type { Material } from '../schema/joint.ts';
import type { Body } from './body.ts';
import { bodyOf, mm, moved, plateId, ring, size, slot, STEEL, weighedIn } from './drawn.ts';
import { HOME, type Frame } from './frame.ts';
import { EDGE } from './plan.ts';
import type { Plate } from './seats.ts';
import type { Setting } from './setting.ts';
import type { Hole } from './sliced.ts';
import type { StandingPin } from './standing-pins.ts';
import { screwSolid } from './ties.ts';

/** Least thickness of a tensioner's slide, over its pin's diameter and at all, m. */
const THICK = { over: 2, least: 6e-3, more: 5e-4 } as const;
/** An insert's hole over its thread's diameter, its price, and the density of its brass, kg/m³: starting values. */
const INSERT = { hole: 4 / 3, price: 0.1, density: 8500 } as const;
/** Price of a washer, and of cutting a pin from ground rod with that steel a kilogram: starting values. */
const [WASHER, CUT, SILVER] = [0.02, 0.5, 14] as const;

/** A tensioner's slide: how thick it is, where its screws stand beside the pin, how long they are, m. */
export interface Slide {
  readonly thick: number;
  readonly beside: number;
  readonly screw: Screw;
  readonly long: number;
  /** They bite in threads cut into the plate; else in inserts melted into it. */
  readonly tapped: boolean;
  /** How deep their inserts sit or their threads bite, and the hole for either, m. */
  readonly deep: number;
  readonly hole: number;
}

/** Whether screws bite in threads cut into a plate: one that is printed has inserts melted into it. */
export const isTapped = ({ made }: Pick<Material, 'made'>): boolean => made !== 'printed';

/** Hole that a thread is cut into, m. Source: ISO 2306, its diameter less its pitch. */
const drilled = (s: Screw): number => s.d - s.pitch;

/** The slide that a pin moves on, screwed on its plate by two screws in slots. */
export function slideOf({ pin }: StandingPin, plate: Plate, screw: Screw, of: Pick<Material, 'made'>): Slide {
  const whole = plate.to - plate.from;
  const tapped = isTapped(of);
  const hole = tapped ? drilled(screw) : INSERT.hole * screw.d;
  let thick = Math.max(THICK.least, THICK.over * pin.diameter);
  let long = intoHole(screw, thick + screw.washerHeight, whole);
  for (let n = 0; n < 20 && long === undefined; n++) {
    thick += THICK.more;
    long = intoHole(screw, thick + screw.washerHeight, whole);
  }
  long ??= screw.lengths[0]!;
  return {
    thick,
    beside: pin.diameter / 2 + EDGE / 2 + screw.washer / 2,
    screw,
    long,
    tapped,
    deep: Math.min(whole, tapped ? long - thick - screw.washerHeight : hole),
    hole,
  };
}

/** Its outline about the pin, the way it is moved along x. */
function slideOutline({ pin }: StandingPin, s: Slide): Outline {
  const end = Math.max(s.screw.hole / 2, pin.diameter / 2) + EDGE;
  const [left, right, high] = [-pin.on - end, pin.back + end, s.beside + s.screw.washer / 2];
  return new OutlinePen().to(left, -high).to(right, -high).to(right, high).to(left, high).close();
}

const turnedAt = (x: number, y: number, turn: number, z: number): Frame => {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return { ...HOME, at: [x, y, z], x: [c, s, 0], y: [-s, c, 0] };
};

/** Where the two screws of a slide stand in its plate. */
const screwPlaces = (p: StandingPin, s: Slide): readonly (readonly [number, number])[] =>
  [-s.beside, s.beside].map((v) => [p.x - v * Math.sin(p.turn), p.y + v * Math.cos(p.turn)]);

/** Threads that the screws of slides need in a plate that is cut, in words for its note; nothing where there are none. */
export function threadsIn({ pins, h, screw }: Setting, i: number): string | undefined {
  const slides = pins.filter((p) => p.plate === i && p.slides).length;
  return slides > 0 && isTapped(h.material)
    ? `${2 * slides} threads ${screw.id}, drilled ${size(drilled(screw))}, for the tensioner`
    : undefined;
}

/** What pins and their slides take out of a plate. */
export const pinHoles = (w: Setting, i: number, plate: Plate): Hole[] =>
  w.pins
    .filter((p) => p.plate === i)
    .flatMap((p): Hole[] => {
      const { from, to } = plate;
      if (!p.slides) return [{ outline: circle(p.x, p.y, p.pin.diameter / 2), from, to }];
      const s = slideOf(p, plate, w.screw, w.h.material);
      const way = slot((p.pin.on - p.pin.back) / 2, 0, (p.pin.diameter + w.h.gap) / 2, (p.pin.on + p.pin.back) / 2);
      return [
        { outline: place(way, { x: p.x, y: p.y, turn: p.turn }), from, to },
        ...screwPlaces(p, s).map(([x, y]) => ({ outline: circle(x, y, s.hole / 2), from, to })),
      ];
    });

/** Circles that a plate must hold for its slides to lie on it wherever they are moved to. */
export const slideRounds = (w: Setting, plates: readonly Plate[]): Round[] =>
  w.pins
    .filter((p) => p.slides)
    .flatMap((p) => {
      const s = slideOf(p, plates[p.plate]!, w.screw, w.h.material);
      const { points } = place(slideOutline(p, s), { x: p.x, y: p.y, turn: p.turn });
      const [c, n] = [Math.cos(p.turn), Math.sin(p.turn)];
      return [0, 1, 2, 3].flatMap((i) =>
        [-p.pin.back, p.pin.on].map((by) => ({ x: points[3 * i]! + by * c, y: points[3 * i + 1]! + by * n, r: 0 })),
      );
    });

const steel = { made: 'bought', material: STEEL.name } as const;

function pinBody(w: Setting, p: StandingPin, wheel: Body, name: string, from: number, to: number): Body {
  const solid: Solid = { prisms: [prism(circle(0, 0, p.pin.diameter / 2), 0, to - from)] };
  const mass = solidVolume(solid) * STEEL.density;
  return bodyOf(
    {
      id: `${p.pin.id}-pin-${p.k + 1}`,
      name: `Pin of the ${name}`,
      note: `⌀ ${size(p.pin.diameter)}, ${size(to - from)} long, pressed into ${p.slides ? 'its slide' : 'the plate'}; the ${name} runs on it`,
      solid,
      frames: [turnedAt(p.x, p.y, p.turn, from)],
      apart: (2 * p.k + (p.slides ? 1.4 : -0.2)) * w.step,
      joins: [wheel.id],
    },
    { made: 'bought', material: 'Silver steel 115CrV3, ground rod', mass, money: CUT + mass * SILVER },
  );
}

function insertBody({ screw, hole, deep }: Slide, id: string, frames: readonly Frame[], apart: number): Body {
  const solid: Solid = { prisms: [ring(hole, screw.d, 0, deep)] };
  return bodyOf(
    {
      id: `insert-${id}`,
      name: `Threaded insert ${screw.id}`,
      note: `in a hole of ${size(hole)}, for the tensioner’s screws`,
      solid: moved(solid, -deep),
      frames,
      apart,
    },
    { made: 'bought', material: 'as supplied', mass: solidVolume(solid) * INSERT.density, money: INSERT.price },
  );
}

/** A slide with what screws it on its plate. */
function slideBodies(w: Setting, p: StandingPin, plate: Plate, name: string): Body[] {
  const s = slideOf(p, plate, w.screw, w.h.material);
  const { screw } = s;
  const slots = [-s.beside, s.beside].map((y) =>
    slot((p.pin.back - p.pin.on) / 2, y, screw.hole / 2, (p.pin.on + p.pin.back) / 2),
  );
  const pin = circle(0, 0, p.pin.diameter / 2);
  const solid: Solid = { prisms: [prism(slideOutline(p, s), 0, s.thick, [pin, ...slots])] };
  const each = (z: number) => screwPlaces(p, s).map(([x, y]) => turnedAt(x, y, 0, z));
  const apart = (2 * p.k + 1.4) * w.step;
  const id = `${p.pin.id}-${p.k + 1}`;
  const key = `; key ${size(screw.key)}`;
  return [
    bodyOf(
      {
        id: `slide-${id}`,
        name: 'Tensioner’s slide',
        note: `moves the ${name}: ${size(s.thick)} thick, bore ⌀ ${size(p.pin.diameter)} for the pin; ${size(p.pin.back)} back and ${size(p.pin.on)} on`,
        solid,
        frames: [turnedAt(p.x, p.y, p.turn, plate.to)],
        apart,
      },
      weighedIn(w.h.material, w.shelf)(solid, s.thick),
    ),
    ...(s.tapped ? [] : [insertBody(s, id, each(plate.to), apart)]),
    bodyOf(
      {
        id: `washer-${id}`,
        name: `Washer ISO 7089 ${screw.id}`,
        note: 'on the slots of the tensioner’s slide',
        solid: { prisms: [ring(screw.washer, 1.07 * screw.d, 0, screw.washerHeight)] },
        frames: each(plate.to + s.thick),
        apart,
      },
      { ...steel, mass: washerMass(screw), money: WASHER },
    ),
    bodyOf(
      {
        id: `screw-${id}`,
        name: `Screw ISO 4762 ${screw.id}×${mm(s.long)}`,
        note: `holds the tensioner’s slide, in ${s.tapped ? 'a thread of the cover' : 'an insert'}${key}`,
        solid: screwSolid(screw, s.long),
        frames: each(plate.to + s.thick + screw.washerHeight),
        apart,
        // Its thread fills the insert's, or the cover's.
        joins: [s.tapped ? `case/${plateId(p.plate, w.stages.length + 1)}` : `case/insert-${id}`],
      },
      { ...steel, mass: screwMass(screw, s.long), money: screw.price },
    ),
  ];
}

/** Pins on which idlers run, and the slides on which they are moved. */
export const pinBodies = (w: Setting, plates: readonly Plate[]): Body[] =>
  w.pins.flatMap((p) => {
    const plate = plates[p.plate]!;
    const wheel = w.stages[p.k]!.bodies.find((b) => b.id.endsWith(`/${p.pin.id}`))!;
    const name = wheel.part.name.replace(/^./, (c) => c.toLowerCase()).replace(/,.*/, '');
    const pin = (from: number, to: number) => pinBody(w, p, wheel, name, from, to);
    return p.slides
      ? [...slideBodies(w, p, plate, name), pin(p.from, plate.to + slideOf(p, plate, w.screw, w.h.material).thick)]
      : [pin(plate.from, p.to)];
  });
