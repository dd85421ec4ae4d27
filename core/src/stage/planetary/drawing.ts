import { gearOutline, type Gear } from '../../gear/index.ts';
import { contactMarks, gearCircles } from '../../gear/marks.ts';
import { circle, ORIGIN, segment, type Outline, type Pose } from '../../shape/outline.ts';
import { boreOutline } from '../../gear/hub.ts';
import { forceArrow, helixTraces, sectionBox } from '../../gear/views.ts';
import type { DrawItem, DrawOptions, Layer } from '../contract.ts';
import type { PlanetaryGeometry } from './geometry.ts';
import type { PlanetaryBuild } from './build.ts';
import type { PlanetaryModel } from './model.ts';
import { roles, type PlanetaryParams } from './params.ts';
import { carrier, central, memberSpeed, pushSense, trainRatio, trainSpeeds } from '../../gear/epicyclic.ts';

/** Arcs of a drawing may stray this share of the module: a hundredth of a pixel at any usual scale. */
const COARSE = 4e-3;
/** Gaps are drawn this many times as wide. */
const MAGNIFIED = 10;

export interface PlanetaryShapes {
  readonly sun: Outline;
  readonly planet: Outline;
  readonly ring: Outline;
  readonly rim: Outline;
  readonly bore: Outline | undefined;
  readonly pin: Outline;
  readonly plate: Outline;
  readonly wide: readonly [Outline, Outline];
  readonly mark: Outline;
}

/** Outlines of a set's parts, each in its own place. */
export function planetaryShapes(p: PlanetaryParams, { geometry: g }: PlanetaryBuild): PlanetaryShapes {
  const tolerance = COARSE * p.module;
  const wide = (w: Gear) => gearOutline({ ...w, allowance: w.allowance * MAGNIFIED }, tolerance);
  return {
    sun: gearOutline(g.sun, tolerance, g.sunMesh.sides[0]),
    planet: gearOutline(g.planet, tolerance, g.sunMesh.sides[1]),
    ring: gearOutline(g.ring, tolerance, g.ringMesh.sides[1]),
    rim: circle(0, 0, g.outside / 2),
    bore:
      p.boreS > 0
        ? boreOutline({ bore: p.boreS, shape: p.shapeS, bolts: 0, boltCircle: 0, boltHole: 0, nuts: false })
        : undefined,
    pin: circle(0, 0, p.pin / 2),
    plate: circle(0, 0, g.centre + p.pin),
    wide: [wide(g.sun), wide(g.planet)],
    mark: segment(0.35 * g.sunMesh.pair.s2.rb, 0, 0.8 * g.sunMesh.pair.s2.rb, 0),
  };
}

/** Where every member stands when the input has turned by `crank`. */
export function planetaryPose(p: PlanetaryParams, g: PlanetaryGeometry, crank: number) {
  const role = roles(p);
  const members = { sun: central(p.zs, p.zp, false), ring: central(p.zr, p.zp, true), carrier };
  const train = { input: members[role.input], output: members[role.output], held: members[role.held] };
  const out = crank / trainRatio(train);
  const turn = {
    sun: memberSpeed(train, members.sun) * out,
    ring: memberSpeed(train, members.ring) * out,
    carrier: trainSpeeds(train).carrier * out,
  };
  // A planet with an odd number of teeth shows a space to a sun's tooth on the line of centres; with an even number a
  // tooth.
  const sunTurn = (p.zp % 2 === 0 ? Math.PI / p.zs : 0) + turn.sun;
  const planets: Pose[] = g.places.map((a) => {
    const at = a + turn.carrier;
    return { x: g.centre * Math.cos(at), y: g.centre * Math.sin(at), turn: at + ((turn.ring - at) * p.zr) / p.zp };
  });
  return { sun: sunTurn, ring: turn.ring, carrier: turn.carrier, planets, train, role };
}

/** The set in mesh, seen along its axis, with a half-section beside it. */
export function drawPlanetary(
  p: PlanetaryParams,
  { geometry: g }: PlanetaryBuild,
  s: PlanetaryShapes,
  crank: number,
  options: DrawOptions,
  model: () => PlanetaryModel,
): readonly Layer[] {
  const at = planetaryPose(p, g, crank);
  const curve = (
    key: string,
    outline: Outline,
    pose: Pose,
    ink: 'outline' | 'hidden' | 'pitch' | 'centre' | 'contact',
    tint: 'none' | 'part' | 'partB' | 'belt' | 'hole' = 'none',
    hatch = false,
  ): DrawItem => ({ kind: 'curve', key, outline, at: pose, ink, tint, ...(hatch && { hatch }) });
  const turned = (turn: number): Pose => ({ ...ORIGIN, turn });
  const teeth: DrawItem[] = [
    curve('rim', s.rim, ORIGIN, 'outline', 'part'),
    curve('ring', s.ring, turned(at.ring), 'outline', 'hole'),
    ...at.planets.flatMap((pose, i) => [
      curve(`planet${i}`, s.planet, pose, 'outline', 'partB'),
      curve(`pin${i}`, s.pin, pose, 'outline', 'hole'),
    ]),
    curve('sun', s.sun, turned(at.sun), 'outline', 'belt'),
    ...(s.bore ? [curve('bore', s.bore, turned(at.sun), 'outline', 'hole')] : []),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: teeth }];
  const R = g.outside / 2;
  const [ms, mr] = [g.sunMesh.pair, g.ringMesh.pair];
  const sense = (m: 'sun' | 'ring') =>
    pushSense(at.train, m === at.role.input ? 'input' : m === at.role.output ? 'output' : 'held');
  const contacts: DrawItem[] = at.planets.flatMap((pose, i) => {
    const place = Math.atan2(pose.y, pose.x);
    return [
      ...contactMarks(`s${i}`, ms, ORIGIN, at.sun - place, place, sense('sun')),
      ...contactMarks(`r${i}`, mr, pose, pose.turn - place, place, sense('ring')),
    ];
  });
  const half = section(p, g, R);
  const loaded = options.duty.torque > 0 ? model() : undefined;
  // On one planet: the others carry the same.
  const place = Math.atan2(at.planets[0]!.y, at.planets[0]!.x);
  const on = (r: number): [number, number] => [r * Math.cos(place), r * Math.sin(place)];
  const reach = (m: 'sun' | 'ring', work: number) => place + sense(m) * (Math.PI / 2 - work);
  const forces: DrawItem[] = loaded
    ? [
        forceArrow(
          'f-sun',
          on(ms.rw1),
          reach('sun', ms.working),
          6 * p.module,
          loaded.sunLoad.force / Math.cos(ms.working),
        ),
        forceArrow(
          'f-ring',
          on(mr.rw2),
          reach('ring', mr.working),
          6 * p.module,
          loaded.ringLoad.force / Math.cos(mr.working),
        ),
        forceArrow('f-pin', on(g.centre), place + (sense('sun') * Math.PI) / 2, 9 * p.module, loaded.pinForce),
      ]
    : [];
  return [
    { id: 'teeth', name: 'Teeth', items: teeth },
    {
      id: 'circles',
      name: 'Pitch, base, tip circles',
      items: [
        ...gearCircles('sun', ms.s1, ms.rw1, ORIGIN),
        ...at.planets.slice(0, 1).flatMap((pose) => gearCircles('planet', ms.s2, ms.rw2, { ...pose, turn: 0 })),
        ...gearCircles('ring', mr.s2, mr.rw2, ORIGIN),
        curve('places', circle(0, 0, g.centre), ORIGIN, 'centre'),
      ],
    },
    { id: 'contact', name: 'Contact on its line', items: contacts },
    { id: 'forces', name: 'Forces', items: forces },
    {
      id: 'gaps',
      name: `Gaps ×${MAGNIFIED}`,
      items: [
        curve('gap-sun', s.wide[0], turned(at.sun), 'hidden'),
        ...at.planets.slice(0, 1).map((pose) => curve('gap-planet', s.wide[1], pose, 'hidden')),
      ],
    },
    {
      id: 'marks',
      name: 'Clocking marks',
      items: at.planets.map((pose, i) => curve(`mark${i}`, s.mark, pose, 'contact')),
    },
    {
      id: 'carrier',
      name: 'Carrier',
      items: [
        curve('plate', s.plate, ORIGIN, 'hidden'),
        ...at.planets.map((pose, i) =>
          curve(`arm${i}`, segment(0, 0, g.centre, 0), turned(Math.atan2(pose.y, pose.x)), 'centre'),
        ),
      ],
    },
    { id: 'section', name: 'Half-section', items: half },
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
        {
          kind: 'dimension',
          key: 'width',
          from: [R * 1.25, -R],
          to: [R * 1.25 + p.width, -R],
          offset: -R * 1.12,
          value: p.width,
          quantity: 'length',
        },
      ],
    },
  ];
}

/**
 * Upper half of the axial section beside the set: ring, planet on its pin, sun, carrier plates, and how the teeth lean.
 */
function section(p: PlanetaryParams, g: PlanetaryGeometry, R: number): DrawItem[] {
  const x = R * 1.25;
  const w = p.width;
  const [ms, mr] = [g.sunMesh.pair, g.ringMesh.pair];
  const double = p.double === 'yes';
  return [
    sectionBox('s-ring', x, mr.s2.ra, x + w, R, 'part'),
    sectionBox('s-planet', x, g.centre - ms.s2.ra, x + w, g.centre + ms.s2.ra, 'partB'),
    sectionBox('s-pin', x - p.plate, g.centre - p.pin / 2, x + w + p.plate, g.centre + p.pin / 2, 'none', false),
    sectionBox('s-sun', x, p.boreS / 2, x + w, ms.s1.ra, 'belt'),
    sectionBox('s-plate1', x - p.plate - 5e-4, ms.s1.ra + 1e-3, x - 5e-4, g.centre + p.pin, 'part'),
    sectionBox('s-plate2', x + w + 5e-4, 0, x + w + p.plate + 5e-4, g.centre + p.pin, 'part'),
    ...helixTraces('t-sun', x, x + w, (p.boreS / 2 + ms.s1.ra) / 2, g.sun.helix, double),
    ...helixTraces('t-planet', x, x + w, g.centre + (p.pin / 2 + ms.s2.ra) / 2, g.planet.helix, double),
    ...helixTraces('t-ring', x, x + w, (mr.s2.ra + R) / 2, g.ring.helix, double),
    {
      kind: 'curve',
      key: 's-axis',
      outline: segment(x - 2 * p.plate - 3e-3, 0, x + w + 2 * p.plate + 3e-3, 0),
      at: ORIGIN,
      ink: 'centre',
      tint: 'none',
    },
  ];
}
