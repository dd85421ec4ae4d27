import { boltPlaces, boreOutline, forceArrow, PLAIN_HUB } from '../../gear/index.ts';
import { circle, ORIGIN, OutlinePen, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import { seenAlong } from './body.ts';
import type { BevelGeometry, Cone } from './geometry.ts';
import { hubRadius, type BevelBuild, type BevelModel } from './model.ts';
import type { BevelParams } from './params.ts';

export interface BevelShapes {
  readonly wheels: readonly [Outline, Outline];
  readonly bores: readonly [Outline, Outline];
  readonly bolts: readonly Outline[];
  /** Half-sections through both axes, about the apex, the wheel's axis upwards. */
  readonly cuts: readonly [Outline, Outline];
}

/** Half of a wheel cut through its axis, which runs along +y from the apex. */
function halfCut(c: Cone, g: BevelGeometry, face: number, hub: number, bore: number): Outline {
  const inner = g.outer - face;
  const at = (r: number, cone: number): readonly [number, number] => [r * Math.sin(cone), r * Math.cos(cone)];
  const [a, b, d, e] = [at(inner, c.tip), at(g.outer, c.tip), at(g.outer, c.root), at(inner, c.root)];
  const wide = Math.min(hub, d[0]);
  const pen = new OutlinePen()
    .to(Math.max(bore, Math.min(e[0], a[0])) - 0, e[1])
    .to(...a)
    .to(...b)
    .to(...d)
    .to(d[0], d[1] + c.rim.deep)
    .to(Math.max(wide, c.rim.within), d[1] + c.rim.deep);
  // Between rim and hub the back of the teeth lies open, where the hub does not reach the rim.
  if (c.rim.within > wide) pen.to(c.rim.within, d[1]).to(wide, d[1]);
  return pen.to(wide, c.mount).to(bore, c.mount).to(bore, e[1]).close();
}

/** Outlines of a pair's parts, each in its own place. */
export function bevelShapes(p: BevelParams, { geometry: g }: BevelBuild): BevelShapes {
  const [a, b] = g.cones;
  const hub = { ...PLAIN_HUB, bolts: p.bolts2, boltCircle: p.boltCircle2, boltHole: p.boltHole };
  return {
    wheels: [seenAlong(a, g, p.pressure), seenAlong(b, g, p.pressure)],
    bores: [
      boreOutline({ ...PLAIN_HUB, bore: p.bore1, shape: p.shape1 }),
      boreOutline({ ...PLAIN_HUB, bore: p.bore2, shape: p.shape2 }),
    ],
    bolts: boltPlaces(hub).map(([x, y]) => circle(x, y, p.boltHole / 2)),
    cuts: [
      halfCut(a, g, p.width, hubRadius(p.bore1), p.bore1 / 2),
      halfCut(b, g, p.width, hubRadius(p.bore2), p.bore2 / 2),
    ],
  };
}

/** How both wheels have turned about their own axes: a pinion's tooth stands in a wheel's gap where the cones touch. */
export const bevelTurns = (p: BevelParams, crank: number): readonly [number, number] => [
  Math.PI + crank,
  Math.PI + Math.PI / p.z2 + (crank * p.z1) / p.z2,
];

/** Mirrored about the y axis. */
const mirrored = (o: Outline): Outline => {
  const points = Float64Array.from(o.points, (x, i) => (i % 3 === 0 ? -x : x));
  return { points, closed: o.closed };
};

/** Both wheels seen along their own axes, beside a section through both. */
export function drawBevel(
  p: BevelParams,
  { geometry: g }: BevelBuild,
  s: BevelShapes,
  crank: number,
  options: DrawOptions,
  model: () => BevelModel,
): readonly Layer[] {
  const [a, b] = g.cones;
  const [t1, t2] = bevelTurns(p, crank);
  const gap = 0.3 * b.over;
  // The section stands in the middle, the wheel's view to its right, the pinion's to its left.
  const left: Pose = { x: -(a.mount + a.over + gap), y: 0, turn: t1 };
  const right: Pose = { x: 2 * b.over + gap, y: 0, turn: t2 };
  const curve = (key: string, outline: Outline, at: Pose, ink: Ink, tint: Tint = 'none', hatch = false): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at,
    ink,
    tint,
    ...(hatch && { hatch }),
  });
  // Seen from behind, the pinion turns as its shaft does.
  const views: DrawItem[] = [
    curve('pinion', s.wheels[0], left, 'outline', 'belt'),
    curve('bore1', s.bores[0], left, 'outline', 'hole'),
    curve('wheel', s.wheels[1], right, 'outline', 'partB'),
    curve('bore2', s.bores[1], right, 'outline', 'hole'),
    ...s.bolts.map((o, i) => curve(`bolt${i}`, o, right, 'outline', 'hole')),
  ];
  const apex: Pose = { x: 0, y: 0, turn: 0 };
  const lying: Pose = { x: 0, y: 0, turn: p.shaft };
  const cut: DrawItem[] = [
    curve('cut2r', s.cuts[1], apex, 'outline', 'partB', true),
    curve('cut2l', mirrored(s.cuts[1]), apex, 'outline', 'partB', true),
    curve('cut1r', s.cuts[0], lying, 'outline', 'belt', true),
    curve('cut1l', mirrored(s.cuts[0]), lying, 'outline', 'belt', true),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: [...views, ...cut] }];
  const m = model();
  const generator: readonly [number, number] = [-Math.sin(b.pitch), Math.cos(b.pitch)];
  const mid: readonly [number, number] = [g.mean * generator[0], g.mean * generator[1]];
  const out: readonly [number, number] = [-Math.sin(p.shaft), Math.cos(p.shaft)];
  const long = 0.6 * g.outer;
  const scale = (f: number) => (long * f) / Math.max(m.tangent, 1e-9);
  return [
    { id: 'teeth', name: 'Teeth', items: views },
    { id: 'section', name: 'Through both axes', items: cut },
    {
      id: 'cones',
      name: 'Cones and axes',
      items: [
        curve('generator', segment(0, 0, g.outer * generator[0], g.outer * generator[1]), ORIGIN, 'pitch'),
        curve('axis2', segment(0, -0.15 * g.outer, 0, b.mount * 1.1), ORIGIN, 'centre'),
        curve(
          'axis1',
          segment(-0.15 * g.outer * out[0], -0.15 * g.outer * out[1], a.mount * 1.1 * out[0], a.mount * 1.1 * out[1]),
          ORIGIN,
          'centre',
        ),
        curve('pitch1', circle(0, 0, a.outer), { ...left, turn: 0 }, 'pitch'),
        curve('pitch2', circle(0, 0, b.outer), { ...right, turn: 0 }, 'pitch'),
      ],
    },
    {
      id: 'forces',
      name: 'Forces at mid-face',
      items:
        options.duty.torque > 0
          ? [
              // Pushed out of the mesh along either axis.
              forceArrow('thrust1', mid, Math.atan2(out[1], out[0]), scale(m.axial[0]), m.axial[0]),
              forceArrow('thrust2', mid, Math.PI / 2, scale(m.axial[1]), m.axial[1]),
            ]
          : [],
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'tip2',
          from: [right.x - b.over, 0],
          to: [right.x + b.over, 0],
          offset: -1.15 * b.over,
          value: 2 * b.over,
          quantity: 'length',
          prefix: '⌀ ',
        },
        {
          kind: 'dimension',
          key: 'tip1',
          from: [left.x - a.over, 0],
          to: [left.x + a.over, 0],
          offset: -1.3 * a.over,
          value: 2 * a.over,
          quantity: 'length',
          prefix: '⌀ ',
        },
        {
          kind: 'dimension',
          key: 'across',
          from: [-b.over, 0],
          to: [b.over, 0],
          offset: b.mount * 1.12,
          value: 2 * b.over,
          quantity: 'length',
          prefix: '⌀ ',
        },
      ],
    },
  ];
}
