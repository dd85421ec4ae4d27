import { circle, ORIGIN, OutlinePen, rectangle, segment, type Outline, type Pose } from '../../shape/outline.ts';
import { forceArrow } from '../../gear/index.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import type { ScrewBuild } from './model.ts';
import type { ScrewParams } from './params.ts';

export interface ScrewShapes {
  /** Thread seen from the side over a pitch more than the screw is long, its middle at x = 0. */
  readonly thread: Outline;
  readonly nut: Outline;
  readonly end: Outline;
  readonly mark: Outline;
}

/** Side view of a thread as a closed outline: crests and roots on both edges, half a pitch apart for each start. */
function threadOutline(p: ScrewParams, { thread }: ScrewBuild, length: number): Outline {
  const pen = new OutlinePen();
  const [out, core] = [p.diameter / 2, thread.core / 2];
  const turns = Math.ceil(length / p.pitch);
  const half = (turns * p.pitch) / 2;
  // Trapezoids of a quarter crest, a quarter flank, a quarter root, a quarter flank.
  const edge = (sign: 1 | -1, from: number, shift: number) => {
    for (let k = 0; k < turns; k++) {
      const x = from + sign * (k * p.pitch + shift);
      for (const [at, r] of [
        [0, core],
        [0.3, core],
        [0.5, out],
        [0.8, out],
      ] as const)
        pen.to(x + sign * at * p.pitch, -sign * r);
    }
  };
  edge(1, -half, 0);
  // On the far side a thread stands half a lead further on: half a pitch for odd starts.
  edge(-1, half, (p.starts % 2) * 0.5 * p.pitch);
  return pen.close();
}

/** How much of the screw is drawn, m. */
const shownLength = (p: ScrewParams): number => Math.min(p.stroke + 2 * p.nutLength, 14 * p.diameter);

/** Outlines of a stage's parts, each in its own place. */
export function screwShapes(p: ScrewParams, b: ScrewBuild): ScrewShapes {
  const nuts = p.nut === 'double' ? 2 : 1;
  return {
    thread: threadOutline(p, b, shownLength(p)),
    nut: rectangle((-nuts * p.nutLength) / 2, -p.nutDiameter / 2, (nuts * p.nutLength) / 2, p.nutDiameter / 2),
    end: circle(0, 0, p.diameter / 2),
    mark: segment(0, 0, p.diameter / 2, 0),
  };
}

/** The screw from the side with its nut, and its end beside it, where its turning is seen. */
export function drawScrew(
  p: ScrewParams,
  b: ScrewBuild,
  s: ScrewShapes,
  crank: number,
  options: DrawOptions,
): readonly Layer[] {
  const sign = p.hand === 'right' ? 1 : -1;
  const run = (sign * crank * b.thread.lead) / (2 * Math.PI);
  const half = shownLength(p) / 2;
  const reach = p.nutDiameter / 2;
  const curve = (key: string, outline: Outline, at: Pose, ink: Ink, tint: Tint = 'none', hatch = false): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at,
    ink,
    tint,
    ...(hatch && { hatch }),
  });
  // The thread seems to run along as it turns, and comes back to itself after a pitch.
  const seems = run - p.pitch * Math.round(run / p.pitch);
  const endAt = { x: -half - 2.2 * reach, y: 0, turn: crank };
  const teeth: DrawItem[] = [
    curve('thread', s.thread, { x: seems, y: 0, turn: 0 }, 'outline', 'belt'),
    curve('nut', s.nut, { x: run, y: 0, turn: 0 }, 'outline', 'partB', true),
    curve('end', s.end, endAt, 'outline', 'belt'),
    curve('mark', s.mark, endAt, 'contact'),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Thread', items: teeth }];
  const { bearing } = b;
  const bearingBox = (key: string, x: number): DrawItem =>
    curve(
      key,
      rectangle(x - bearing.width / 2, -bearing.outside / 2, x + bearing.width / 2, bearing.outside / 2),
      ORIGIN,
      'outline',
      'part',
    );
  const force = options.duty.torque;
  const cut: [number, number] = [0, -3.1 * reach];
  return [
    { id: 'teeth', name: 'Thread and nut', items: teeth },
    {
      id: 'ends',
      name: 'Bearings',
      items: [
        bearingBox('near', -half - bearing.width),
        ...(p.ends === 'fixed-free' ? [] : [bearingBox('far', half + bearing.width)]),
      ],
    },
    {
      id: 'circles',
      name: 'Pitch lines',
      items: [
        curve('upper', segment(-half, b.thread.pitchDiameter / 2, half, b.thread.pitchDiameter / 2), ORIGIN, 'pitch'),
        curve('lower', segment(-half, -b.thread.pitchDiameter / 2, half, -b.thread.pitchDiameter / 2), ORIGIN, 'pitch'),
        curve('axis', segment(-half - 3.5 * reach, 0, half * 1.1, 0), ORIGIN, 'centre'),
      ],
    },
    {
      id: 'forces',
      name: 'Forces',
      items: force > 0 ? [forceArrow('along', [run, 1.3 * reach], 0, 2 * reach, force)] : [],
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'pitch',
          from: [0, 0],
          to: [p.pitch, 0],
          offset: -1.55 * reach,
          value: p.pitch,
          quantity: 'length',
        },
        {
          kind: 'dimension',
          key: 'free',
          from: [-half - bearing.width, 0],
          to: [half + bearing.width, 0],
          offset: -2.4 * reach,
          value: p.free,
          quantity: 'length',
        },
        ...(2 * half < p.free ? [{ kind: 'label' as const, key: 'cut', at: cut, text: 'drawn shortened' }] : []),
      ],
    },
  ];
}
