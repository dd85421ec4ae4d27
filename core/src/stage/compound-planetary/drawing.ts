import {
  contactMarks,
  forceArrow,
  gearCircles,
  gearOutline,
  helixTraces,
  memberSpeed,
  pushSense,
  sectionBox,
  trainRatio,
  trainSpeeds,
  type Gear,
} from '../../gear/index.ts';
import { circle, ORIGIN, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Layer } from '../contract.ts';
import type { CompoundGeometry } from './geometry.ts';
import { compoundTrain, type CompoundBuild, type CompoundModel } from './model.ts';
import type { CompoundParams } from './params.ts';

/** Arcs of a drawing may stray this share of the module. */
const COARSE = 4e-3;

export interface CompoundShapes {
  readonly sun: Outline | undefined;
  readonly a: Outline;
  readonly b: Outline;
  readonly ring1: Outline;
  readonly ring2: Outline;
  readonly rim: Outline;
  readonly pin: Outline;
  readonly markA: Outline;
  readonly bore: Outline | undefined;
}

/** Outlines of a stage's parts, each in its own place. */
export function compoundShapes(p: CompoundParams, { geometry: g }: CompoundBuild): CompoundShapes {
  const draw = (w: Gear) => gearOutline(w, COARSE * w.module);
  const r = g.mesh1.pair.s1.rb;
  return {
    sun: g.sun && draw(g.sun),
    a: draw(g.planetA),
    b: draw(g.planetB),
    ring1: draw(g.ring1),
    ring2: draw(g.ring2),
    rim: circle(0, 0, g.outside / 2),
    pin: circle(0, 0, p.pin / 2),
    markA: segment(0.35 * r, 0, 0.8 * r, 0),
    bore: g.sun && p.boreS > 0 ? circle(0, 0, p.boreS / 2) : undefined,
  };
}

/**
 * Where everything stands when the input has turned by `crank`; a planet's two toothings share one pose but for their
 * clocking, and its mark is the tooth of A on its own x axis.
 */
export function compoundPose(p: CompoundParams, g: CompoundGeometry, crank: number) {
  const train = compoundTrain(p);
  const out = crank / trainRatio(train);
  const cage = trainSpeeds(train).carrier * out;
  const planets = Array.from({ length: p.planets }, (_, k) => {
    const at = (2 * Math.PI * k) / p.planets + cage;
    const place = { x: g.centre * Math.cos(at), y: g.centre * Math.sin(at) };
    return {
      a: { ...place, turn: at - (at * p.zr1) / p.zpA + (2 * Math.PI * g.marks[k]!) / p.zpA } as Pose,
      b: { ...place, turn: at + ((out - at) * p.zr2) / p.zpB } as Pose,
    };
  });
  const sunTurn = (p.zpA % 2 === 0 ? Math.PI / p.zs : 0) + (g.sun ? memberSpeed(train, train.input) * out : 0);
  return { train, ring2: out, cage, planets, sun: sunTurn };
}

/** Both toothings seen along the axis: A in the held ring in full, B and the driven ring over it in dashes. */
export function drawCompound(
  p: CompoundParams,
  { geometry: g }: CompoundBuild,
  s: CompoundShapes,
  crank: number,
  options: DrawOptions,
  model: () => CompoundModel,
): readonly Layer[] {
  const at = compoundPose(p, g, crank);
  const curve = (
    key: string,
    outline: Outline,
    pose: Pose,
    ink: 'outline' | 'hidden' | 'centre' | 'contact',
    tint: 'none' | 'part' | 'partB' | 'belt' | 'hole' = 'none',
  ): DrawItem => ({ kind: 'curve', key, outline, at: pose, ink, tint });
  const turned = (turn: number): Pose => ({ ...ORIGIN, turn });
  const teeth = [
    curve('rim', s.rim, ORIGIN, 'outline', 'part'),
    curve('ring1', s.ring1, ORIGIN, 'outline', 'hole'),
    ...at.planets.flatMap((q, i) => [
      curve(`planetA${i}`, s.a, q.a, 'outline', 'partB'),
      curve(`pin${i}`, s.pin, q.a, 'outline', 'hole'),
    ]),
    ...(s.sun ? [curve('sun', s.sun, turned(at.sun), 'outline', 'belt')] : []),
    ...(s.bore ? [curve('bore', s.bore, ORIGIN, 'outline', 'hole')] : []),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: teeth }];
  const contacts = at.planets.flatMap((q, i) => {
    const place = Math.atan2(q.a.y, q.a.x);
    return [
      ...(g.sunMesh
        ? contactMarks(`s${i}`, g.sunMesh.pair, ORIGIN, at.sun - place, place, pushSense(at.train, 'input'))
        : []),
      ...contactMarks(`h${i}`, g.mesh1.pair, q.a, q.a.turn - place, place, pushSense(at.train, 'held')),
      ...contactMarks(`d${i}`, g.mesh2.pair, q.b, q.b.turn - place, place, pushSense(at.train, 'output')),
    ];
  });
  const R = g.outside / 2;
  const loaded = options.duty.torque > 0 ? model() : undefined;
  // On one planet: the others carry the same.
  const place = Math.atan2(at.planets[0]!.a.y, at.planets[0]!.a.x);
  const forces: DrawItem[] = loaded
    ? loaded.meshes.map((m) => {
        const { pair } = m.mesh;
        const side = pushSense(at.train, m.id === 'sun' ? 'input' : m.id === 'ring1' ? 'held' : 'output');
        const r = m.id === 'sun' ? pair.rw1 : pair.rw2;
        return forceArrow(
          `f-${m.id}`,
          [r * Math.cos(place), r * Math.sin(place)],
          place + side * (Math.PI / 2 - pair.working),
          6 * p.module,
          m.load.force / Math.cos(pair.working),
        );
      })
    : [];
  return [
    { id: 'teeth', name: 'Toothing A', items: teeth },
    {
      id: 'toothing-b',
      name: 'Toothing B',
      items: [
        curve('ring2', s.ring2, turned(at.ring2), 'hidden'),
        ...at.planets.map((q, i) => curve(`planetB${i}`, s.b, q.b, 'hidden')),
      ],
    },
    {
      id: 'circles',
      name: 'Pitch, base, tip circles',
      items: [
        ...gearCircles('r1', g.mesh1.pair.s2, g.mesh1.pair.rw2, ORIGIN),
        ...gearCircles('r2', g.mesh2.pair.s2, g.mesh2.pair.rw2, ORIGIN),
        curve('places', circle(0, 0, g.centre), ORIGIN, 'centre'),
      ],
    },
    { id: 'contact', name: 'Contact on its line', items: contacts },
    { id: 'forces', name: 'Forces', items: forces },
    { id: 'section', name: 'Half-section', items: section(p, g, R) },
    {
      id: 'marks',
      name: 'Clocking marks',
      items: at.planets.flatMap((q, i): DrawItem[] => [
        curve(`mark${i}`, s.markA, q.a, 'contact'),
        { kind: 'label', key: `n${i}`, at: [q.a.x * 0.62, q.a.y * 0.62], text: `${i + 1}` },
      ]),
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'outside',
          from: [-R, 0],
          to: [R, 0],
          offset: -R * 1.12,
          value: g.outside,
          quantity: 'length',
          prefix: '⌀ ',
        },
      ],
    },
  ];
}

/** Upper half of the axial section beside the set: held ring over A, driven ring over B, one planet through both. */
function section(p: CompoundParams, g: CompoundGeometry, R: number): DrawItem[] {
  const x = R * 1.25;
  const gap = 1e-3;
  const [xa, xb, end] = [x + p.width, x + p.width + gap, x + p.width + gap + p.widthB];
  const [a, b] = [g.mesh1.pair, g.mesh2.pair];
  const double = p.double === 'yes';
  return [
    sectionBox('s-ring1', x, a.s2.ra, xa, R, 'part'),
    sectionBox('s-ring2', xb, b.s2.ra, end, R, 'partB'),
    sectionBox('s-planetA', x, g.centre - a.s1.ra, xa, g.centre + a.s1.ra, 'belt'),
    sectionBox('s-planetB', xb, g.centre - b.s1.ra, end, g.centre + b.s1.ra, 'belt'),
    sectionBox('s-pin', x - 2e-3, g.centre - p.pin / 2, end + 2e-3, g.centre + p.pin / 2, 'none', false),
    ...(g.sunMesh ? [sectionBox('s-sun', x, p.boreS / 2, xa, g.sunMesh.pair.s1.ra, 'part')] : []),
    ...helixTraces('t-a', x, xa, g.centre + (p.pin / 2 + a.s1.ra) / 2, g.planetA.helix, double),
    ...helixTraces('t-b', xb, end, g.centre + (p.pin / 2 + b.s1.ra) / 2, g.planetB.helix, double),
    {
      kind: 'curve',
      key: 's-axis',
      outline: segment(x - 4e-3, 0, end + 4e-3, 0),
      at: ORIGIN,
      ink: 'centre',
      tint: 'none',
    },
  ];
}
