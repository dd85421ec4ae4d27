import { boltPlaces, boreOutline, PLAIN_HUB } from '../../gear/index.ts';
import { circle, ORIGIN, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import type { CableBuild, CableModel } from './model.ts';
import { cableRatio, type CableParams } from './params.ts';

export interface CableShapes {
  readonly drums: readonly [Outline, Outline];
  readonly cables: readonly [Outline, Outline];
  readonly bores: readonly [Outline, Outline];
  readonly bolts: readonly Outline[];
  readonly marks: readonly [Outline, Outline];
  /** Both free runs, and the half of the cable's breadth they are drawn with. */
  readonly runs: readonly (readonly [number, number, number, number])[];
  readonly centre: number;
}

/** Where the drums' axes stand apart: as given, or as the longer run has it. */
export const centreOf = (p: CableParams, b: CableBuild): number =>
  p.runsBy === 'centre'
    ? p.centre
    : Math.max(
        Math.hypot(Math.max(...b.runs), p.path === 'eight' ? b.radii[0] + b.radii[1] : b.radii[1] - b.radii[0]),
        b.radii[0] + b.radii[1] + p.cable,
      );

/** Outlines of a drive's parts, each in its own place. */
export function cableShapes(p: CableParams, b: CableBuild): CableShapes {
  const [r1, r2] = b.radii;
  const c = centreOf(p, b);
  const lean = Math.asin(((p.path === 'eight' ? r1 + r2 : r1 - r2) / c) * (p.path === 'eight' ? 1 : 1));
  const hub = { ...PLAIN_HUB, bolts: p.bolts2, boltCircle: p.boltCircle2, boltHole: p.boltHole };
  // Tangents leave the driving drum at a quarter turn less the lean on either side.
  const run = (side: 1 | -1): readonly [number, number, number, number] => {
    const a = side * (Math.PI / 2 - lean);
    const [x, y] = [Math.cos(a), Math.sin(a)];
    const far = p.path === 'eight' ? -1 : 1;
    return [r1 * x, r1 * y, c + far * r2 * x, far * r2 * y];
  };
  return {
    drums: [circle(0, 0, p.radius1), circle(0, 0, p.radius2)],
    cables: [circle(0, 0, p.radius1 + p.cable), circle(0, 0, p.radius2 + p.cable)],
    bores: [
      boreOutline({ ...PLAIN_HUB, bore: p.bore1, shape: p.shape1 }),
      boreOutline({ ...PLAIN_HUB, bore: p.bore2 }),
    ],
    bolts: boltPlaces(hub).map(([x, y]) => circle(x, y, p.boltHole / 2)),
    marks: [segment(0.55 * p.radius1, 0, 0.95 * p.radius1, 0), segment(0.8 * p.radius2, 0, 0.97 * p.radius2, 0)],
    runs: [run(1), run(-1)],
    centre: c,
  };
}

/** Both drums seen along their axes, with the cable's free runs. */
export function drawCable(
  p: CableParams,
  b: CableBuild,
  s: CableShapes,
  crank: number,
  options: DrawOptions,
  model: () => CableModel,
): readonly Layer[] {
  const at: readonly [Pose, Pose] = [
    { x: 0, y: 0, turn: crank },
    { x: s.centre, y: 0, turn: crank / cableRatio(p) },
  ];
  const curve = (key: string, outline: Outline, pose: Pose, ink: Ink, tint: Tint = 'none'): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at: pose,
    ink,
    tint,
  });
  const lines = s.runs.map(([x1, y1, x2, y2]) => segment(x1, y1, x2, y2));
  const teeth: DrawItem[] = [
    ...[0, 1].flatMap((i) => [
      curve(`cable${i}`, s.cables[i]!, at[i]!, 'outline', 'belt'),
      curve(`drum${i}`, s.drums[i]!, at[i]!, 'outline', i ? 'partB' : 'part'),
      curve(`bore${i}`, s.bores[i]!, at[i]!, 'outline', 'hole'),
      curve(`mark${i}`, s.marks[i]!, at[i]!, 'contact'),
    ]),
    ...s.bolts.map((o, i) => curve(`bolt${i}`, o, at[1], 'outline', 'hole')),
    ...lines.map((o, i) => curve(`run${i}`, o, ORIGIN, 'outline')),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Drums and cable', items: teeth }];
  const m = model();
  const [r1, r2] = b.radii;
  const low = -Math.max(r1, r2) - 4 * p.cable;
  const middle = ([x1, y1, x2, y2]: readonly [number, number, number, number], along: number): [number, number] => [
    x1 + along * (x2 - x1),
    y1 + along * (y2 - y1),
  ];
  const label = (key: string, i: 0 | 1, text: string): DrawItem => {
    const [x, y] = middle(s.runs[i]!, 0.45);
    return { kind: 'label', key, at: [x, y + (i ? -1 : 1) * (4 * p.cable + 1e-3)], text };
  };
  const arrow = (key: string, i: 0 | 1, force: number): DrawItem => {
    const run = s.runs[i]!;
    const [x, y] = middle(run, 0.95);
    const far = Math.hypot(run[2] - run[0], run[3] - run[1]);
    const long = (0.35 * far * force) / Math.max(m.tight, 1e-9);
    return {
      kind: 'arrow',
      key,
      from: [x, y],
      to: [x - ((run[2] - run[0]) / far) * long, y - ((run[3] - run[1]) / far) * long],
      ink: i === 0 ? 'tight' : 'slack',
      label: { value: force, quantity: 'force' },
    };
  };
  return [
    { id: 'teeth', name: 'Drums and cable', items: teeth },
    {
      id: 'pitch',
      name: 'Middle of the cable',
      items: [
        curve('middle1', circle(0, 0, r1), ORIGIN, 'pitch'),
        curve('middle2', circle(0, 0, r2), { x: s.centre, y: 0, turn: 0 }, 'pitch'),
        curve('axis', segment(-1.3 * r1, 0, s.centre + 1.1 * r2, 0), ORIGIN, 'centre'),
      ],
    },
    {
      id: 'sides',
      name: 'Tight and slack run',
      items: [
        curve('tight', lines[0]!, ORIGIN, 'tight'),
        curve('slack', lines[1]!, ORIGIN, 'slack'),
        label('tight-word', 0, 'tight'),
        label('slack-word', 1, m.slack > 0 ? 'slack, taut' : 'hanging at peak'),
      ],
    },
    { id: 'forces', name: 'Pull of the runs', items: [arrow('pull-a', 0, m.tight), arrow('pull-b', 1, m.slack)] },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'C',
          from: [0, 0],
          to: [s.centre, 0],
          offset: low,
          value: s.centre,
          quantity: 'length',
        },
        {
          kind: 'dimension',
          key: 'd1',
          from: [-p.radius1, 0],
          to: [p.radius1, 0],
          offset: -low,
          value: 2 * p.radius1,
          quantity: 'length',
          prefix: '⌀',
        },
        {
          kind: 'dimension',
          key: 'd2',
          from: [s.centre - p.radius2, 0],
          to: [s.centre + p.radius2, 0],
          offset: -low,
          value: 2 * p.radius2,
          quantity: 'length',
          prefix: '⌀',
        },
      ],
    },
  ];
}
