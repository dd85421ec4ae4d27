import type { Material, Variant } from '../schema/joint.ts';
import { circle, place, rectangle, type Outline } from '../shape/outline.ts';
import { clipTo } from '../shape/clip.ts';
import type { BumpSize, Round } from '../shape/hull.ts';
import { prism, type Prism, type Solid } from '../shape/solid.ts';
import type { Aside, Block } from './aside.ts';
import type { Body } from './body.ts';
import { bodyOf, size, weighedIn } from './drawn.ts';
import { motorHoles } from './face-holes.ts';
import { pointIn, type Frame, type Vec } from './frame.ts';
import { SLIDE, STEP } from './plan.ts';
import { lipHole, type Plate } from './seats.ts';
import type { Setting } from './setting.ts';
import { sliced, type Hole } from './sliced.ts';
import { motorScrews } from './ties.ts';

const BLOCKS = { motor: 'Motor block', near: 'Bearing block, driven end', far: 'Bearing block, far end' } as const;

/** A place seen along the output's axis: so far along with power from where it comes in, so far across, m. */
const seen = (f: Frame, along: number, across: number): readonly [number, number] => {
  const [x, y] = pointIn(f, [0, across, along]);
  return [x, y];
};

/** The same told back: how far along a place is. */
const alongOf = (f: Frame, x: number, y: number): number => (x - f.at[0]) * f.z[0] + (y - f.at[1]) * f.z[1];

/** A rectangle along and across the way that power comes in, seen along the output's axis. */
function lying(f: Frame, from: number, to: number, low: number, high: number): Outline {
  const [x, y] = seen(f, 0, 0);
  return place(rectangle(from, low, to, high), { x, y, turn: Math.atan2(f.z[1], f.z[0]) });
}

/**
 * Circles that the plates must hold of the blocks: their corners, those at the motor's face so that the outline is flush with it.
 *
 * @param grown by how much the outline is larger than these all round, m
 */
export function asideRounds({ plan: { aside }, layout: { input } }: Setting, grown: number): Round[] | undefined {
  return aside?.blocks.flatMap(({ id, from, to, low, high }) =>
    [id === 'motor' ? from + grown : from, to].flatMap((along) =>
      [low, high].map((across): Round => {
        const [x, y] = seen(input, along, across + Math.sign(across) * SLIDE);
        return { x, y, r: 0 };
      }),
    ),
  );
}

/**
 * Whether what holds the housing together stands clear of the motor's face, where the motor stands across.
 *
 * @param r how far it reaches from its centre, m
 */
export function clearOfFace({ plan: { aside }, layout: { input } }: Setting, r: number): Pick<BumpSize, 'free'> {
  return aside ? { free: (x, y) => alongOf(input, x, y) - r >= aside.face - 1e-9 } : {};
}

/** Grooves for the tongues of some blocks in what ends at a height, on the side away from the blocks, m. */
const groovesIn = (f: Frame, blocks: readonly Block[], face: number, side: 1 | -1): Hole[] =>
  blocks.map(({ tongue: t }) => ({
    outline: lying(f, t.from - SLIDE, t.to + SLIDE, t.low - SLIDE, t.high + SLIDE),
    from: Math.min(face, face + side * STEP),
    to: Math.max(face, face + side * STEP),
  }));

/** The pad between a plate and the blocks of bearings, where the plate is further off. */
const padOf = (aside: Aside | undefined, { input }: Setting['layout'], i: number, p: Plate) => {
  const pad = i > 1 ? undefined : aside?.pad;
  const [face, plate] = i === 0 ? [input.at[2] - (pad?.half ?? 0), p.to] : [input.at[2] + (pad?.half ?? 0), p.from];
  return pad && (i === 0 ? face > plate + 1e-9 : face < plate - 1e-9) ? { pad, face, plate } : undefined;
};

/** Grooves of a plate itself for the tongues of blocks; none but in the first two. */
export function grooves({ plan: { aside }, layout }: Setting, i: number, p: Plate): Hole[] {
  if (!aside || i > 1) return [];
  const padded = padOf(aside, layout, i, p) !== undefined;
  const own = aside.blocks.filter((b) => !(padded && b.seat));
  return i === 0 ? groovesIn(layout.input, own, p.to, -1) : groovesIn(layout.input, own, p.from, 1);
}

/** The pad of a plate as prisms, with grooves for what stands on it. */
export function padPrisms({ plan: { aside }, layout }: Setting, i: number, p: Plate): Prism[] {
  const found = padOf(aside, layout, i, p);
  if (!aside || !found) return [];
  const { pad, face, plate } = found;
  return sliced(
    lying(layout.input, pad.from, pad.to, pad.low, pad.high),
    Math.min(face, plate),
    Math.max(face, plate),
    groovesIn(
      layout.input,
      aside.blocks.filter((b) => b.seat),
      face,
      i === 0 ? -1 : 1,
    ),
  );
}

/** Points of an outline with their bulges. */
const pointsOf = (o: Outline): readonly (readonly [number, number, number])[] =>
  Array.from({ length: o.points.length / 3 }, (_, i) => [o.points[3 * i]!, o.points[3 * i + 1]!, o.points[3 * i + 2]!]);

/** Where an outline goes straight across at a place along, as the point it begins at; undefined where it does not. */
function flatAt(list: ReturnType<typeof pointsOf>, f: Frame, along: number): number | undefined {
  const there = (i: number) => Math.abs(alongOf(f, list[i]![0], list[i]![1]) - along) < 1e-7;
  const found = list.findIndex((p, i) => p[2] === 0 && there(i) && there((i + 1) % list.length));
  return found < 0 ? undefined : found;
}

/**
 * A wall round what stands in it, cut off at the motor's face and open where the motor's block closes it.
 *
 * @param outer and inner outlines of the wall as it would go all round
 * @returns undefined where no motor stands across
 */
export function openedAtFace(
  { plan: { aside }, layout: { input }, h }: Setting,
  outer: Outline,
  inner: Outline,
): Outline | undefined {
  const motor = aside?.blocks.find((b) => b.id === 'motor');
  if (!aside || !motor) return undefined;
  const [nx, ny] = input.z;
  const from = nx * input.at[0] + ny * input.at[1] + aside.face;
  const [out, back] = [clipTo(outer, { nx, ny, from }), clipTo(inner, { nx, ny, from: from + h.wall })].map(pointsOf);
  const [i, j] = [flatAt(out!, input, aside.face), flatAt(back!, input, aside.face + h.wall)];
  if (i === undefined || j === undefined) return undefined;
  const n = back!.length;
  const corner = (along: number, across: number) => [...seen(input, along, across), 0] as const;
  const [low, high] = [motor.low - SLIDE, motor.high + SLIDE];
  const points = [
    corner(aside.face, low),
    ...out!.slice(i + 1),
    ...out!.slice(0, i + 1),
    corner(aside.face, high),
    corner(aside.face + h.wall, high),
    // Back inside, the other way round.
    ...back!.map((_, k): readonly [number, number, number] => {
      const [x, y] = back![(j - k + n) % n]!;
      return [x, y, k === n - 1 ? 0 : -back![(j - k - 1 + n) % n]![2]];
    }),
    corner(aside.face + h.wall, low),
  ].filter((p, k, all) => {
    const q = all[(k + 1) % all.length]!;
    return Math.hypot(p[0] - q[0], p[1] - q[1]) > 1e-8;
  });
  return { points: Float64Array.from(points.flat()), closed: true };
}

/** One block from its outer face on, its axis that of the shaft that comes in. */
function blockSolid(w: Setting, aside: Aside, b: Block, bay: Plate): Solid {
  const up = w.layout.input.at[2];
  const near = b.seat && aside.pad ? aside.pad.half : Infinity;
  // Down the output's axis is its x.
  const [top, bottom] = [Math.max(up - bay.to, -near), Math.min(up - bay.from, near)];
  const long = b.to - b.from;
  const { seat } = b;
  const bearing = aside.borne;
  const holes: Hole[] =
    seat && bearing
      ? [
          { outline: circle(0, 0, bearing.outside / 2), from: seat.from - b.from, to: seat.to - b.from },
          {
            outline: circle(0, 0, lipHole(bearing) / 2),
            ...(b.id === 'near' ? { from: 0, to: seat.from - b.from } : { from: seat.to - b.from, to: long }),
          },
        ]
      : motorHoles(w, { from: 0, to: long }, 0, 0, 0);
  const { tongue: t } = b;
  const tongue = (u0: number, u1: number): Prism =>
    prism(rectangle(u0, t.low, u1, t.high), t.from - b.from, t.to - b.from);
  return {
    prisms: [
      ...sliced(rectangle(top, b.low, bottom, b.high), 0, long, holes),
      tongue(top - STEP, top),
      tongue(bottom, bottom + STEP),
    ],
  };
}

/** Blocks with what holds the motor on its own. */
export function blockBodies(w: Setting, plates: readonly Plate[]): Body[] {
  const { plan, h, face, layout, shelf, variant, step } = w;
  const { aside } = plan;
  if (!aside) return [];
  const bay: Plate = { from: plates[0]!.to, to: plates[1]!.from };
  const f = layout.input;
  const along = (by: number): Vec => [f.z[0] * by, f.z[1] * by, f.z[2] * by];
  const stands = (dx: number, dy: number, s: number): Frame => ({ ...f, at: pointIn(f, [dx, dy, s]) });
  // They come apart the way that they lie along.
  const aparted = (b: Body, by: number): Body => ({ ...b, apart: b.apart.map(() => along(by)) });
  const mount = (variant as Pick<Variant, 'mount'>).mount as Material | undefined;
  const highOf = (b: Block) =>
    size(Math.min(bay.to - bay.from, b.seat && aside.pad ? 2 * aside.pad.half : Infinity) + 2 * STEP);
  return [
    ...aside.blocks.map((b) => {
      const solid = blockSolid(w, aside, b, bay);
      const motor = b.id === 'motor';
      const holds = motor
        ? `${face.screws} × ${face.thread} on ⌀ ${size(face.circle)} for the motor, heads sunk`
        : `seat ⌀ ${size(aside.borne!.outside)} for ${aside.borne!.name}, ${size(b.to - b.from - aside.borne!.width)} behind it`;
      return aparted(
        bodyOf(
          {
            id: `block-${b.id}`,
            name: BLOCKS[b.id],
            note:
              `${size(b.to - b.from)} thick, ${size(b.high - b.low)} wide, ${highOf(b)} high ` +
              `with tongues of ${size(STEP)} in grooves of both plates, ${holds}`,
            solid,
            frames: [stands(0, 0, b.from)],
            apart: 0,
          },
          weighedIn(motor ? (mount ?? h.material) : h.material, shelf)(solid, b.to - b.from),
        ),
        (b.id === 'far' ? 1 : b.id === 'near' ? -1 : -1.6) * step,
      );
    }),
    aparted(
      motorScrews(w, aside.blocks[0]!, (dx, dy, s) => stands(dx, dy, s), 0),
      -1.3 * step,
    ),
  ];
}
