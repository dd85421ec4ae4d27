import { boreOutline, forceArrow, gearCircles, gearOutline, PLAIN_HUB } from '../../gear/index.ts';
import { circle, ORIGIN, OutlinePen, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import type { RackGeometry } from './geometry.ts';
import type { RackBuild } from './model.ts';
import type { RackParams } from './params.ts';
import { rollerRackOutline } from './rollers.ts';

/** Arcs of a drawing may stray this share of the module. */
const COARSE = 4e-3;

export interface RackShapes {
  /** Pinion, or the disc that holds its rollers. */
  readonly pinion: Outline;
  readonly rollers: readonly Outline[];
  readonly bore: Outline;
  /** As much of the rack as is drawn, its pitch line at y = 0 and a tooth space, or gap, in the middle. */
  readonly rack: Outline;
}

/**
 * Teeth of a straight rack as a closed outline, an odd number of spaces with one in the middle; its pitch line at y = 0.
 *
 * @param thin taken off each tooth on the pitch line, m
 */
export function rackOutline(p: RackParams, g: RackGeometry, spaces: number, thin: number): Outline {
  const pen = new OutlinePen();
  const slope = Math.tan(g.angle);
  const width = spaces * g.pitch;
  const half = (g.pitch / 2 + thin) / 2;
  const [tip, root] = [g.rackTip, g.rackRoot];
  pen.to(-width / 2, -p.back).to(width / 2, -p.back);
  for (let k = spaces - 1; k >= 0; k--) {
    const middle = -width / 2 + (k + 0.5) * g.pitch;
    // Half of a space: wider at the tips, narrower at the roots.
    const [wide, narrow] = [half + tip * slope, Math.max(1e-6, half - root * slope)];
    pen
      .to(middle + Math.min(wide, g.pitch / 2), tip)
      .to(middle + narrow, -root)
      .to(middle - narrow, -root)
      .to(middle - Math.min(wide, g.pitch / 2), tip);
  }
  return pen.close();
}

/** Teeth of the rack that a drawing shows: what lies under the pinion and a few more. */
const shownTeeth = (g: RackGeometry): number => 2 * Math.ceil((1.4 * g.tip) / g.pitch) + 1;

/** Outlines of a stage's parts, each in its own place. */
export function rackShapes(p: RackParams, { geometry: g }: RackBuild): RackShapes {
  const shown = shownTeeth(g);
  const places = Array.from({ length: g.rollers ? p.z : 0 }, (_, i) => (2 * Math.PI * i) / p.z);
  return {
    pinion: g.mesh
      ? gearOutline(g.pinion!, COARSE * p.module, g.mesh.sides[0])
      : circle(0, 0, g.radius + 0.8 * g.rollers!.roller),
    rollers: places.map((a) => circle(g.radius * Math.cos(a), g.radius * Math.sin(a), p.roller / 2)),
    bore: boreOutline({ ...PLAIN_HUB, bore: p.bore, shape: p.shape }),
    rack: g.rollers ? rollerRackOutline(g.rollers, shown, p.back) : rackOutline(p, g, shown, p.allowance2),
  };
}

/** How the pinion stands when it has turned: a tooth, or a roller, points down into the rack's middle space at rest. */
export const pinionTurn = (crank: number): number => crank - Math.PI / 2;

/** Pinion above, rack below; as the pinion turns the rack runs to the right. */
export function drawRack(
  p: RackParams,
  { geometry: g }: RackBuild,
  s: RackShapes,
  crank: number,
  options: DrawOptions,
): readonly Layer[] {
  const turned: Pose = { ...ORIGIN, turn: pinionTurn(crank) };
  const run = crank * g.radius;
  // The rack as it is drawn comes back to itself after a pitch; the mark on it runs on.
  const rackAt: Pose = { x: run - g.pitch * Math.round(run / g.pitch), y: -g.axis, turn: 0 };
  const curve = (key: string, outline: Outline, at: Pose, ink: Ink, tint: Tint = 'none'): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at,
    ink,
    tint,
  });
  const teeth: DrawItem[] = [
    curve('rack', s.rack, rackAt, 'outline', 'partB'),
    curve('pinion', s.pinion, turned, g.rollers ? 'hidden' : 'outline', g.rollers ? 'none' : 'part'),
    ...s.rollers.map((r, i) => curve(`roller${i}`, r, turned, 'outline', 'part')),
    curve('bore', s.bore, turned, 'outline', 'hole'),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: teeth }];
  const shown = (shownTeeth(g) * g.pitch) / 2;
  const force = options.duty.torque;
  const long = 0.6 * g.radius;
  const lowest = -g.axis - p.back;
  return [
    { id: 'teeth', name: 'Teeth', items: teeth },
    {
      id: 'circles',
      name: 'Pitch circle and line',
      items: [
        ...(g.mesh
          ? gearCircles('pinion', g.mesh.pair.s1, g.radius, ORIGIN)
          : [curve('pitch', circle(0, 0, g.radius), ORIGIN, 'pitch')]),
        curve('line', segment(-shown, -g.axis, shown, -g.axis), ORIGIN, 'pitch'),
        curve('middle', segment(0, lowest, 0, 1.2 * g.tip), ORIGIN, 'centre'),
      ],
    },
    {
      id: 'run',
      name: 'Where the rack has run to',
      items: [curve('run', segment(0, lowest, 0, lowest - 0.25 * p.back), { x: run, y: 0, turn: 0 }, 'contact')],
    },
    {
      id: 'forces',
      name: 'Forces',
      items:
        force > 0
          ? [
              forceArrow('along', [0, -g.axis], 0, long, force),
              forceArrow('apart', [0, -g.axis], -Math.PI / 2, long * Math.tan(g.angle), force * Math.tan(g.angle)),
            ]
          : [],
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'tip',
          from: [-g.tip, 0],
          to: [g.tip, 0],
          offset: g.tip * 1.15,
          value: 2 * g.tip,
          quantity: 'length',
          prefix: '⌀ ',
        },
        {
          kind: 'dimension',
          key: 'pitch',
          from: [-g.pitch / 2, -g.axis],
          to: [g.pitch / 2, -g.axis],
          offset: lowest - 0.5 * p.back,
          value: g.pitch,
          quantity: 'length',
        },
      ],
    },
  ];
}
