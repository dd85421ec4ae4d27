import { boltPlaces, boreOutline, PLAIN_HUB } from '../../gear/index.ts';
import { poseAt } from '../../loop/index.ts';
import { circle, ORIGIN, OutlinePen, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import type { ChainLayout } from './layout.ts';
import { asideBore, type ChainBuild, type ChainModel } from './model.ts';
import type { ChainParams } from './params.ts';
import { sprocketOutline, toothGap } from './sprocket.ts';

export interface ChainShapes {
  /** A sprocket for each wheel of the path. */
  readonly sprockets: readonly Outline[];
  readonly bores: readonly Outline[];
  readonly bolts: readonly Outline[];
  readonly roller: Outline;
  readonly plate: Outline;
  /** The whole path, for a small drawing. */
  readonly path: Outline;
}

/** A link's plate about the middle between its pins: two round ends and a waist. */
function plateOutline(pitch: number, height: number): Outline {
  const r = height / 2;
  // Ends run round three quarters; the waist is a little less high than they are.
  const waist = 0.78 * r;
  const a = Math.asin(waist / r);
  return new OutlinePen()
    .arc(pitch / 2, 0, r, -Math.PI + a, 2 * Math.PI - 2 * a)
    .to(pitch / 2 - r * Math.cos(a), waist)
    .arc(-pitch / 2, 0, r, a, 2 * Math.PI - 2 * a)
    .to(-pitch / 2 + r * Math.cos(a), -waist)
    .close();
}

/** The path as a closed curve: straight runs and arcs. */
function pathOutline({ path }: ChainLayout): Outline {
  const pen = new OutlinePen();
  path.runs.forEach((run, i) => {
    const next = (i + 1) % path.wheels.length;
    pen.to(run.x1, run.y1).to(run.x2, run.y2, Math.tan((path.wheels[next]!.sense * path.wraps[next]!) / 4));
  });
  return pen.close();
}

/** Outlines of a stage's parts, each in its own place. */
export function chainShapes(p: ChainParams, { chain, layout }: ChainBuild): ChainShapes {
  const hub = { ...PLAIN_HUB, bolts: p.bolts2, boltCircle: p.boltCircle2, boltHole: p.boltHole };
  const last = layout.driven;
  return {
    sprockets: layout.teeth.map((z) => sprocketOutline(toothGap(chain, z, p.form), z)),
    bores: layout.teeth.map((_, i) =>
      boreOutline({
        ...PLAIN_HUB,
        bore:
          i === 0
            ? p.bore1
            : i === last
              ? p.bore2
              : asideBore(
                  p,
                  layout.asides.find((a) => a.at === i)!,
                ),
        shape: i === 0 ? p.shape1 : i === last ? p.shape2 : 'round',
      }),
    ),
    bolts: boltPlaces(hub).map(([x, y]) => circle(x, y, p.boltHole / 2)),
    roller: circle(0, 0, chain.roller / 2),
    plate: plateOutline(chain.pitch, chain.plate * 0.92),
    path: pathOutline(layout),
  };
}

/** Where along the path each joint stands, as the path's own length, for a chain moved by so many pitches. */
function jointPlaces({ path, teeth, links }: ChainLayout, pitch: number, moved: number): Float64Array {
  const out = new Float64Array(links);
  const wheels = path.wheels.length;
  // Lengths in pitches of the runs and of the arcs that follow them.
  const spans: number[] = [];
  for (let i = 0; i < wheels; i++) {
    const next = (i + 1) % wheels;
    spans.push(path.runs[i]!.length / pitch, (path.wraps[next]! * teeth[next]!) / (2 * Math.PI));
  }
  const lengths = spans.map((s, k) =>
    k % 2 === 0 ? s * pitch : path.wheels[((k - 1) / 2 + 1) % wheels]!.r * path.wraps[((k - 1) / 2 + 1) % wheels]!,
  );
  for (let j = 0; j < links; j++) {
    let rest = (((j + moved) % links) + links) % links;
    let sum = 0;
    for (let k = 0; k < spans.length; k++) {
      if (rest <= spans[k]! || k === spans.length - 1) {
        sum += spans[k]! > 0 ? (rest / spans[k]!) * lengths[k]! : 0;
        break;
      }
      rest -= spans[k]!;
      sum += lengths[k]!;
    }
    out[j] = sum;
  }
  return out;
}

/** Rotation of each sprocket for a chain moved by so many pitches: a gap meets every joint. */
export function sprocketTurns({ path, teeth }: ChainLayout, pitch: number, moved: number): number[] {
  let arrive = 0;
  return path.wheels.map((w, i) => {
    const leave = path.runs[i]!;
    const angle = leave.heading - (w.sense * Math.PI) / 2;
    const before = arrive;
    const next = (i + 1) % path.wheels.length;
    arrive += leave.length / pitch + (path.wraps[next]! * teeth[next]!) / (2 * Math.PI);
    // Joints sit at whole pitches before anything moves; the last one before the leaving point sets the phase.
    const short = ((before % 1) + 1) % 1;
    return angle + (w.sense * (moved - short) * 2 * Math.PI) / teeth[i]!;
  });
}

/** How far the chain has moved, in pitches, when the driver has turned by so much. */
export const pitchesAt = (p: ChainParams, crank: number): number => (crank * p.z1) / (2 * Math.PI);

/** The drawing of a chain stage at a crank angle of its driving sprocket. */
export function drawChain(
  p: ChainParams,
  { chain, layout: L, gaps }: ChainBuild,
  s: ChainShapes,
  crank: number,
  options: DrawOptions,
  model: () => ChainModel,
): readonly Layer[] {
  const moved = pitchesAt(p, crank);
  const turns = sprocketTurns(L, chain.pitch, moved);
  const curve = (
    key: string,
    outline: Outline,
    at: Pose,
    ink: Ink,
    tint: Tint = 'none',
  ): Extract<DrawItem, { kind: 'curve' }> => ({ kind: 'curve', key, outline, at, ink, tint });
  const pose = (i: number): Pose => ({ x: L.path.wheels[i]!.x, y: L.path.wheels[i]!.y, turn: turns[i]! });
  const sprockets: DrawItem[] = L.teeth.flatMap((_, i) => [
    curve(`sprocket${i}`, s.sprockets[i]!, pose(i), 'outline', i === L.driven ? 'partB' : 'part'),
    curve(`bore${i}`, s.bores[i]!, pose(i), 'outline', 'hole'),
    ...(i === L.driven ? s.bolts.map((b, k) => curve(`bolt${k}`, b, pose(i), 'outline', 'hole')) : []),
  ]);
  if (options.glyph)
    return [{ id: 'teeth', name: 'Teeth', items: [...sprockets, curve('path', s.path, ORIGIN, 'outline')] }];
  const places = jointPlaces(L, chain.pitch, moved);
  const joints = Array.from(places, (at) => poseAt(L.path, at));
  const links: DrawItem[] = joints.map((a, j) => {
    const b = joints[(j + 1) % joints.length]!;
    return curve(
      `link${j}`,
      s.plate,
      { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, turn: Math.atan2(b.y - a.y, b.x - a.x) },
      j % 2 ? 'outline' : 'hidden',
      j % 2 ? 'belt' : 'none',
    );
  });
  const rollers: DrawItem[] = joints.map((a, j) =>
    curve(`roller${j}`, s.roller, { x: a.x, y: a.y, turn: 0 }, 'contact'),
  );
  const m = model();
  const tight = L.path.runs.slice(L.driven);
  const slack = L.path.runs.slice(0, L.driven);
  const middle = (r: (typeof tight)[number]): [number, number] => [(r.x1 + r.x2) / 2, (r.y1 + r.y2) / 2];
  const reach = Math.min(0.9 * L.r2, 0.38 * L.centre);
  const big = Math.max(m.shafts[0], m.shafts[1], 1e-9);
  const lowest = Math.min(...L.path.wheels.map((w) => w.y - w.r)) - chain.plate;
  const highest = Math.max(...L.path.wheels.map((w) => w.y + w.r)) + chain.plate;
  const at = middle(tight[0]!);
  const below = middle(slack[0]!);
  const dimension = (
    key: string,
    x0: number,
    x1: number,
    offset: number,
    value: number,
    prefix?: string,
  ): DrawItem => ({
    kind: 'dimension',
    key,
    from: [x0, 0],
    to: [x1, 0],
    offset,
    value,
    quantity: 'length',
    ...(prefix && { prefix }),
  });
  return [
    { id: 'teeth', name: 'Teeth', items: sprockets },
    { id: 'chain', name: 'Chain', items: [...links, ...rollers] },
    {
      id: 'pitch',
      name: 'Pitch circles and path',
      items: [
        curve('path', s.path, ORIGIN, 'pitch'),
        ...L.path.wheels.map((w, i) => curve(`pitch${i}`, circle(0, 0, w.r), { x: w.x, y: w.y, turn: 0 }, 'pitch')),
        curve('axis', segment(-L.r1 * 1.3, 0, L.centre + L.r2 * 1.2, 0), ORIGIN, 'centre'),
      ],
    },
    {
      id: 'sides',
      name: 'Tight and slack run',
      items: [
        ...tight.map((r, i) => curve(`tight${i}`, segment(r.x1, r.y1, r.x2, r.y2), ORIGIN, 'tight')),
        ...slack.map((r, i) => curve(`slack${i}`, segment(r.x1, r.y1, r.x2, r.y2), ORIGIN, 'slack')),
        { kind: 'label', key: 'tight-word', at: [at[0], at[1] + chain.plate], text: 'tight' },
        { kind: 'label', key: 'slack-word', at: [below[0], below[1] - chain.plate], text: 'slack' },
      ],
    },
    {
      id: 'forces',
      name: 'Forces on the shafts',
      items: [0, L.driven].map((i, k): DrawItem => {
        const w = L.path.wheels[i]!;
        const other = L.path.wheels[i === 0 ? L.driven : 0]!;
        const away = Math.atan2(other.y - w.y, other.x - w.x);
        const long = (reach * m.shafts[k as 0 | 1]) / big;
        return {
          kind: 'arrow',
          key: `shaft${k}`,
          from: [w.x, w.y],
          to: [w.x + long * Math.cos(away), w.y + long * Math.sin(away)],
          ink: 'force',
          label: { value: m.shafts[k as 0 | 1], quantity: 'force' },
        };
      }),
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        dimension('C', 0, L.centre, lowest, L.centre),
        dimension('da1', -gaps[0].tip, gaps[0].tip, highest, 2 * gaps[0].tip, '⌀'),
        dimension('da2', L.centre - gaps[1].tip, L.centre + gaps[1].tip, highest, 2 * gaps[1].tip, '⌀'),
      ],
    },
  ];
}
