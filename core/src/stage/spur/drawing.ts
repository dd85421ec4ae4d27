import {
  boreOutline,
  boltPlaces,
  contactMarks,
  forceArrow,
  gearCircles,
  gearOutline,
  PLAIN_HUB,
  sectionBox,
  turnedTraces,
  type Gear,
} from '../../gear/index.ts';
import { circle, ORIGIN, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { SpurBuild } from './model.ts';
import type { DrawItem, DrawOptions, Layer } from '../contract.ts';
import type { SpurGeometry } from './geometry.ts';
import type { SpurParams } from './params.ts';

/** Arcs of a drawing may stray this share of the module. */
const COARSE = 4e-3;
/** Gaps are drawn this many times as wide. */
const MAGNIFIED = 10;

export interface SpurShapes {
  readonly teeth: readonly Outline[];
  readonly wide: readonly Outline[];
  readonly rim: Outline;
  readonly bores: readonly (Outline | undefined)[];
  readonly bolts: readonly Outline[];
}

/** Outlines of a stage's parts, each in its own place. */
export function spurShapes(p: SpurParams, { geometry: g }: SpurBuild): SpurShapes {
  const tolerance = COARSE * p.module;
  const sideOf = (i: number) => (i === 0 ? g.meshes[0]!.sides[0] : g.meshes[i - 1]!.sides[1]);
  const last = g.wheels.length - 1;
  const bore = (d: number, shape: SpurParams['shape1']) =>
    d > 0 ? boreOutline({ ...PLAIN_HUB, bore: d, shape }) : undefined;
  return {
    teeth: g.wheels.map((w, i) => gearOutline(w, tolerance, sideOf(i))),
    wide: g.wheels.map((w: Gear) => gearOutline({ ...w, allowance: w.allowance * MAGNIFIED }, tolerance)),
    rim: circle(0, 0, g.meshes[last - 1]!.sides[1].root + p.rim),
    bores: g.wheels.map((w, i) =>
      i === 0 ? bore(p.bore1, p.shape1) : i === last && !w.ring ? bore(p.bore2, p.shape2) : undefined,
    ),
    bolts: boltPlaces({ ...PLAIN_HUB, bolts: p.bolts2, boltCircle: p.boltCircle2 }).map(([x, y]) =>
      circle(x, y, p.boltHole / 2),
    ),
  };
}

/** Where each wheel stands when the first has turned by `crank`. */
export function spurPose(g: SpurGeometry, crank: number): Pose[] {
  const out: Pose[] = [{ x: 0, y: 0, turn: crank }];
  g.meshes.forEach((m, i) => {
    const [x0, y0] = g.places[i]!;
    const [x1, y1] = g.places[i + 1]!;
    const before = out[i]!.turn;
    // Towards a ring the mesh lies on the far side from the ring's centre.
    const towards = Math.atan2(y1 - y0, x1 - x0) + (m.pair.ring ? Math.PI : 0);
    const u = m.pair.g1.teeth / m.pair.g2.teeth;
    const turn = m.pair.ring
      ? towards + (before - towards) * u
      : towards + Math.PI + Math.PI / m.pair.g2.teeth - (before - towards) * u;
    out.push({ x: x1, y: y1, turn });
  });
  return out;
}

/** The train in mesh, seen along its axes. */
export function drawSpur(
  p: SpurParams,
  { geometry: g }: SpurBuild,
  s: SpurShapes,
  crank: number,
  options: DrawOptions,
): readonly Layer[] {
  const at = spurPose(g, crank);
  const last = g.wheels.length - 1;
  const curve = (
    key: string,
    outline: Outline,
    pose: Pose,
    ink: 'outline' | 'hidden' | 'centre',
    tint: 'none' | 'part' | 'partB' | 'belt' | 'hole' = 'none',
  ): DrawItem => ({ kind: 'curve', key, outline, at: pose, ink, tint });
  const tints = ['belt', 'partB', 'part'] as const;
  const order = g.wheels.map((_, i) => i).sort((a, b) => Number(g.wheels[b]!.ring) - Number(g.wheels[a]!.ring));
  const teeth = order.flatMap((i) => [
    ...(g.wheels[i]!.ring ? [curve('rim', s.rim, at[i]!, 'outline', 'part')] : []),
    curve(
      `wheel${i}`,
      s.teeth[i]!,
      at[i]!,
      'outline',
      g.wheels[i]!.ring ? 'hole' : i === 0 ? tints[0] : i === last ? tints[2] : tints[1],
    ),
    ...(s.bores[i] ? [curve(`bore${i}`, s.bores[i], at[i]!, 'outline', 'hole')] : []),
    ...(i === last ? s.bolts.map((b, k) => curve(`bolt${k}`, b, at[i]!, 'outline', 'hole')) : []),
  ]);
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: teeth }];
  const size = (i: number) => (i === 0 ? g.meshes[0]!.pair.s1 : g.meshes[i - 1]!.pair.s2);
  const working = (i: number) => (i === 0 ? g.meshes[0]!.pair.rw1 : g.meshes[i - 1]!.pair.rw2);
  const contacts = g.meshes.flatMap((m, i) => {
    const [x0, y0] = g.places[i]!;
    const [x1, y1] = g.places[i + 1]!;
    const place = Math.atan2(y1 - y0, x1 - x0) + (m.pair.ring ? Math.PI : 0);
    // The first wheel pushes counter-clockwise; an outside mesh turns that round.
    const side = i % 2 === 0 ? 1 : -1;
    return contactMarks(`m${i}`, m.pair, { x: x0, y: y0, turn: 0 }, at[i]!.turn - place, place, side);
  });
  const force: DrawItem[] =
    options.duty.torque > 0
      ? g.meshes.map((m, i): DrawItem => {
          const [x0, y0] = g.places[i]!;
          const [x1, y1] = g.places[i + 1]!;
          const place = Math.atan2(y1 - y0, x1 - x0) + (m.pair.ring ? Math.PI : 0);
          return forceArrow(
            `force${i}`,
            [x0 + m.pair.rw1 * Math.cos(place), y0 + m.pair.rw1 * Math.sin(place)],
            place + (i % 2 === 0 ? 1 : -1) * (Math.PI / 2 - m.pair.working),
            6 * p.module,
            options.duty.torque / g.meshes[last - 1]!.pair.rw2 / Math.cos(m.pair.working),
          );
        })
      : [];
  const reach = (i: number) => (g.wheels[i]!.ring ? g.meshes[i - 1]!.sides[1].root + p.rim : size(i).ra);
  const low = Math.min(...g.places.map(([, y], i) => y - reach(i)));
  const high = Math.max(...g.places.map(([, y], i) => y + reach(i)));
  // The section lies above, each wheel over its own centre; a bent row is seen from its side.
  const [floor, width] = [high + 3 * p.module, p.width];
  const cuts = g.wheels.flatMap((w, i) => {
    const x = g.places[i]![0];
    const hole = i === 0 ? p.bore1 : i === last && !w.ring ? p.bore2 : 3e-3;
    const tint = i === 0 ? tints[0] : i === last ? tints[2] : tints[1];
    const one = (k: string, from: number, to: number) =>
      sectionBox(`s${i}${k}`, x + from, floor, x + to, floor + width, tint);
    return w.ring
      ? [one('l', -reach(i), -size(i).ra), one('r', size(i).ra, reach(i))]
      : [one('l', -size(i).ra, -hole / 2), one('r', hole / 2, size(i).ra)];
  });
  // How the teeth lean, across each wheel's face.
  const leans = g.wheels.flatMap((w, i) =>
    turnedTraces(
      `t${i}`,
      g.places[i]![0] + (w.ring ? (size(i).ra + reach(i)) / 2 : size(i).ra * 0.75),
      floor,
      floor + width,
      w.helix,
      p.double === 'yes',
    ),
  );
  const [ax, bx] = [g.places[0]![0], g.places[last]![0]];
  return [
    { id: 'teeth', name: 'Teeth', items: teeth },
    {
      id: 'circles',
      name: 'Pitch, base, tip circles',
      items: g.wheels.flatMap((_, i) => gearCircles(`w${i}`, size(i), working(i), { ...at[i]!, turn: 0 })),
    },
    { id: 'contact', name: 'Contact on its line', items: contacts },
    { id: 'forces', name: 'Forces', items: force },
    {
      id: 'gaps',
      name: `Gaps ×${MAGNIFIED}`,
      items: g.wheels.map((_, i) => curve(`gap${i}`, s.wide[i]!, at[i]!, 'hidden')),
    },
    { id: 'section', name: 'Section', items: [...cuts, ...leans] },
    {
      id: 'centre',
      name: 'Centre lines',
      items: [
        ...g.places
          .slice(1)
          .map(([x, y], i) => curve(`row${i}`, segment(g.places[i]![0], g.places[i]![1], x, y), ORIGIN, 'centre')),
      ],
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items:
        Math.abs(bx - ax) > 1e-9
          ? [
              {
                kind: 'dimension',
                key: 'centres',
                from: [Math.min(ax, bx), low],
                to: [Math.max(ax, bx), low],
                offset: low - 3 * p.module,
                value: Math.abs(bx - ax),
                quantity: 'length',
              },
            ]
          : [],
    },
  ];
}
