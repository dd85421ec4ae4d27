import { stated } from '../../units/stated.ts';
import {
  boltPlaces,
  boreOutline,
  contactPlace,
  contactRises,
  forceArrow,
  gearCircles,
  gearOutline,
  PLAIN_HUB,
} from '../../gear/index.ts';
import { circle, ORIGIN, rectangle, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import type { WormGeometry } from './geometry.ts';
import type { WormBuild } from './build.ts';
import type { WormModel } from './model.ts';
import { wormRatio, type WormParams } from './params.ts';
import { axialSection, threadProfile } from './thread.ts';

const COARSE = 4e-3;
const MAGNIFIED = 10;

export interface WormShapes {
  readonly thread: Float64Array;
  readonly wheel: Outline;
  readonly wide: Outline;
  readonly bore: Outline | undefined;
  readonly bolts: readonly Outline[];
  readonly dot: Outline;
}

/** Outlines of a stage's parts, each in its own place. */
export function wormShapes(p: WormParams, { geometry: g }: WormBuild): WormShapes {
  const m = g.mesh;
  const tolerance = COARSE * p.module;
  const hub = {
    ...PLAIN_HUB,
    bore: p.bore2,
    shape: p.shape2,
    bolts: p.bolts2,
    boltCircle: p.boltCircle2,
    boltHole: p.boltHole,
  };
  return {
    thread: threadProfile(m, tolerance),
    wheel: gearOutline(m.wheel, tolerance, m.sides[1]),
    wide: gearOutline({ ...m.wheel, allowance: m.wheel.allowance * MAGNIFIED }, tolerance),
    bore: p.bore2 > 0 ? boreOutline(hub) : undefined,
    bolts: boltPlaces(hub).map(([x, y]) => circle(x, y, p.boltHole / 2)),
    dot: circle(0, 0, 0.09 * p.module),
  };
}

/**
 * How the wheel has turned from where a tooth stands up at the worm, and where the middle of a thread lies along the
 * axis.
 */
export function wormPose(p: WormParams, g: WormGeometry, crank: number): { turn: number; thread: number } {
  const turn = crank / wormRatio(p);
  return { turn, thread: -g.mesh.s2.r * turn + (Math.PI * p.module) / 2 };
}

/**
 * The middle plane seen along the wheel's axis, worm above in its axial section, with the view along the worm beside
 * it.
 */
export function drawWorm(
  p: WormParams,
  { geometry: g, bearing }: WormBuild,
  s: WormShapes,
  crank: number,
  options: DrawOptions,
  model: () => WormModel,
): readonly Layer[] {
  const m = g.mesh;
  const { turn, thread } = wormPose(p, g, crank);
  const height = g.centre;
  const curve = (key: string, outline: Outline, at: Pose, ink: Ink, tint: Tint = 'none', hatch = false): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at,
    ink,
    tint,
    ...(hatch && { hatch }),
  });
  const wheelAt: Pose = { ...ORIGIN, turn: Math.PI / 2 + turn };
  const shaft = p.bore1 > 0 ? p.bore1 / 2 : Math.min(m.sides[0].root, bearing.bore / 2);
  const teeth: DrawItem[] = [
    curve('shaft', rectangle(-p.span / 2, height - shaft, p.span / 2, height + shaft), ORIGIN, 'outline', 'part'),
    curve('worm', axialSection(m, s.thread, p.length, height, thread), ORIGIN, 'outline', 'belt', true),
    curve('wheel', s.wheel, wheelAt, 'outline', 'partB'),
    ...(s.bore ? [curve('bore', s.bore, wheelAt, 'outline', 'hole')] : []),
    ...s.bolts.map((b, i) => curve(`bolt${i}`, b, wheelAt, 'outline', 'hole')),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: teeth }];
  const loaded = options.duty.torque > 0 ? model() : undefined;
  const side = wormRatio(p) > 0 ? 1 : -1;
  const end = (rise: number) => contactPlace(m, rise, side);
  const [a, b] = [end(m.high), end(m.low)];
  const contacts: DrawItem[] = [
    curve('line', segment(a[0], a[1], b[0], b[1]), ORIGIN, 'force'),
    ...contactRises(m, turn, side).map((rise, i) => {
      const [x, y] = end(rise);
      return curve(`c${i}`, s.dot, { x, y, turn: 0 }, 'contact');
    }),
  ];
  const long = Math.max(7 * p.module, 0.4 * m.s2.ra);
  const r2 = m.s2.r;
  const forces: DrawItem[] = loaded
    ? [
        forceArrow('tangent', [0, r2], side > 0 ? Math.PI : 0, long, loaded.tangent),
        forceArrow('apart', [0, r2], -Math.PI / 2, 0.7 * long, loaded.apart),
      ]
    : [];
  const R = m.s2.ra;
  const across = Math.max(R, p.span / 2);
  const x = across * 1.15 + Math.max(p.width / 2, m.s1.ra);
  const view: DrawItem[] = [
    curve('v-wheel', rectangle(x - p.width / 2, -R, x + p.width / 2, R), ORIGIN, 'outline', 'partB', true),
    ...(p.bore2 > 0
      ? [
          curve(
            'v-bore',
            rectangle(x - p.width / 2, -p.bore2 / 2, x + p.width / 2, p.bore2 / 2),
            ORIGIN,
            'outline',
            'hole',
          ),
        ]
      : []),
    curve('v-worm', circle(0, 0, m.s1.ra), { x, y: height, turn: 0 }, 'outline', 'belt', true),
    curve('v-root', circle(0, 0, m.sides[0].root), { x, y: height, turn: 0 }, 'hidden'),
    curve('v-shaft', circle(0, 0, shaft), { x, y: height, turn: 0 }, 'outline', 'part'),
    curve('v-axis', segment(x, -R * 1.08, x, height + m.s1.ra * 1.3), ORIGIN, 'centre'),
  ];
  return [
    { id: 'teeth', name: 'Teeth', items: teeth },
    {
      id: 'circles',
      name: 'Pitch, base, tip circles',
      items: [
        ...gearCircles('wheel', m.s2, r2, ORIGIN),
        curve('pitch', segment(-p.length / 2, height - m.s1.r, p.length / 2, height - m.s1.r), ORIGIN, 'pitch'),
      ],
    },
    { id: 'contact', name: 'Contact on its line', items: contacts },
    { id: 'forces', name: 'Forces', items: forces },
    { id: 'gaps', name: `Gaps ×${MAGNIFIED}`, items: [curve('gap', s.wide, wheelAt, 'hidden')] },
    { id: 'section', name: 'Along the worm', items: view },
    {
      id: 'centre',
      name: 'Centre lines',
      items: [
        curve('axis', segment(-p.span * 0.55, height, p.span * 0.55, height), ORIGIN, 'centre'),
        curve('middle', segment(0, -R * 1.05, 0, height + m.s1.ra * 1.3), ORIGIN, 'centre'),
      ],
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'length',
          from: [-p.length / 2, height + m.s1.ra],
          to: [p.length / 2, height + m.s1.ra],
          offset: height + m.s1.ra * 1.5,
          value: p.length,
          quantity: 'length',
        },
        {
          kind: 'dimension',
          key: 'wheel',
          from: [-R, 0],
          to: [R, 0],
          offset: -R * 1.12,
          value: 2 * R,
          quantity: 'length',
          prefix: '⌀ ',
        },
        { kind: 'label', key: 'centres', at: [0, -R * 0.55], text: `a ${stated(height, 'length', 5)}` },
      ],
    },
  ];
}
