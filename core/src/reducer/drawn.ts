import type { Material } from '../schema/joint.ts';
import { circle, OutlinePen, type Outline } from '../shape/outline.ts';
import { prism, type Prism, type Solid } from '../shape/solid.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Part } from '../stage/contract.ts';
import { stated } from '../units/stated.ts';
import type { Body } from './body.ts';
import { HOME, type Frame, type Vec } from './frame.ts';
import { weightOf } from './weight.ts';

/** Steel of screws, nuts and shafts: its density, kg/m³. */
export const STEEL = { name: 'Steel, 8.8', density: 7850 };

/** Millimetres as screws and keys are named by. */
export const mm = (x: number): number => Math.round(x * 1e4) / 10;

/** A length as notes say it. */
export const size = (x: number): string => stated(x, 'length', 5);

/** What a plate of a run is called, of so many. */
export const plateId = (i: number, many: number): string =>
  i === 0 ? 'plate-motor' : i === many - 1 ? 'cover' : `plate-${i + 1}`;

/** A part of the housing before it is weighed. */
export interface Drawn {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly solid: Solid;
  /** Where its pieces stand while nothing turns. */
  readonly frames: readonly Frame[];
  /** How far it moves along the axis when the line is drawn apart, m. */
  readonly apart: number;
  /** Turns of it for a turn of the motor; left out for what is fixed. */
  readonly speed?: number;
  readonly joins?: readonly string[];
}

export type Weighed = Pick<Part, 'made' | 'material' | 'mass' | 'money'> &
  Pick<Part, 'stocked'> &
  Pick<Body, 'printed'>;

/** One part of the housing as a body. */
export function bodyOf(d: Drawn, w: Weighed): Body {
  const { speed } = d;
  const { printed, ...part } = w;
  return {
    id: `case/${d.id}`,
    of: 'case',
    stage: -1,
    part: { name: d.name, note: d.note, quantity: d.frames.length, ...part },
    ...(printed && { printed }),
    turns: speed === undefined ? 'fixed' : 'output',
    speed: speed ?? 0,
    flexes: false,
    ...(d.joins && { joins: d.joins }),
    solid: () => d.solid,
    places: speed === undefined ? () => d.frames : (crank) => d.frames.map((f) => spun(f, crank * speed)),
    apart: d.frames.map((): Vec => [0, 0, d.apart]),
  };
}

/** Upright at a place of the line. */
export const at = (x: number, y: number, z: number): Frame => ({ ...HOME, at: [x, y, z] });

/** An upright frame turned about its own axis. */
function spun(f: Frame, turn: number): Frame {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return { ...f, x: [c, s, 0], y: [-s, c, 0] };
}

/** A ring or tube by its diameters, m. */
export const ring = (outer: number, inner: number, from: number, to: number): Prism =>
  prism(circle(0, 0, outer / 2), from, to, [circle(0, 0, inner / 2)]);

/** A solid moved along its axis, m. */
export const moved = (solid: Solid, by: number): Solid => ({
  prisms: solid.prisms.map((p) => ({ ...p, from: p.from + by, to: p.to + by })),
  ...(solid.tapers && {
    tapers: solid.tapers.map((t) => ({ ...t, apex: t.apex + by, from: t.from + by, to: t.to + by })),
  }),
});

/** A round hole that is longer one way, for what must be moved along x. */
export function slot(x: number, y: number, r: number, slide: number): Outline {
  if (!(slide > 0)) return circle(x, y, r);
  return new OutlinePen()
    .to(x - slide, y - r)
    .to(x + slide, y - r, 1)
    .to(x + slide, y + r)
    .to(x - slide, y + r, 1)
    .close();
}

/** A hexagon by its width across flats, m. */
export function hexagon(flats: number): Outline {
  const pen = new OutlinePen();
  for (let k = 0; k < 6; k++) {
    const a = Math.PI / 6 + (k * Math.PI) / 3;
    pen.to((flats / Math.sqrt(3)) * Math.cos(a), (flats / Math.sqrt(3)) * Math.sin(a));
  }
  return pen.close();
}

/** Parts of a material, weighed by how thick their walls are, m. */
export const weighedIn =
  (material: Material, shelf: Shelf) =>
  (solid: Solid, thick: number): Weighed => ({
    made: material.made === 'printed' ? 'printed' : 'bought',
    material: material.name,
    ...weightOf(solid, material, thick, shelf),
  });
