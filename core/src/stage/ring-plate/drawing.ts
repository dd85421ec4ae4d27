import { forceArrow } from '../../gear/views.ts';
import { mostTorque, plateOutline } from '../../lobed/index.ts';
import { circle, ORIGIN, place, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import { plateContacts } from './geometry.ts';
import type { RingPlateBuild } from './build.ts';
import { pressed } from './spread.ts';
import { crankPlaces, plateOutside, wheelBody } from './outlines.ts';
import type { RingPlateParams } from './params.ts';

const TINTS: readonly Tint[] = ['partB', 'belt', 'part', 'belt'];

export interface RingPlateShapes {
  readonly outside: Outline;
  readonly lobes: readonly Outline[];
  readonly pin: Outline;
  readonly wheel: Outline;
  readonly bore: Outline | undefined;
  readonly seat: Outline;
  readonly eccentric: Outline;
  readonly dot: Outline;
  readonly swept: Outline;
}

/** Outlines of a stage's parts, each in its own place. */
export function ringPlateShapes(p: RingPlateParams, { geometry: g, bearing }: RingPlateBuild): RingPlateShapes {
  const lobes = plateOutline(g.profile, 4e-4 * p.pin);
  return {
    outside: plateOutside(p, bearing.outside),
    lobes: g.clocking.map((turn) => (turn === 0 ? lobes : place(lobes, { x: 0, y: 0, turn }))),
    pin: circle(0, 0, p.pin / 2),
    wheel: circle(0, 0, Math.max(1e-4, wheelBody(p))),
    bore: p.bore > 0 ? circle(0, 0, p.bore / 2) : undefined,
    seat: circle(0, 0, bearing.outside / 2),
    eccentric: circle(0, 0, bearing.bore / 2),
    dot: circle(0, 0, 0.07 * p.pin),
    swept: plateOutside(p, bearing.outside, p.throw),
  };
}

/** Plates with the wheel in them, the first in front, seen along the axis. */
export function drawRingPlate(
  p: RingPlateParams,
  { geometry: g }: RingPlateBuild,
  shapes: RingPlateShapes,
  crank: number,
  options: DrawOptions,
): readonly Layer[] {
  const curve = (key: string, outline: Outline, at: Pose, ink: Ink, tint: Tint = 'none', hatch = false): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at,
    ink,
    tint,
    ...(hatch && { hatch }),
  });
  const wheel = -crank / p.pins;
  const shift = (k: number): Pose => ({
    x: p.throw * Math.cos(crank + g.drive.phases[k]!),
    y: p.throw * Math.sin(crank + g.drive.phases[k]!),
    turn: 0,
  });
  const order = Array.from({ length: p.plates }, (_, i) => p.plates - 1 - i);
  const teeth: DrawItem[] = [
    ...order.flatMap((k) => [curve(`plate${k}`, shapes.outside, shift(k), 'outline', TINTS[k]!, k > 0)]),
    // Behind the front plate's window the others show as lines.
    curve('window', shapes.lobes[0]!, shift(0), 'outline', 'hole'),
    ...order.filter((k) => k > 0).map((k) => curve(`lobes${k}`, shapes.lobes[k]!, shift(k), 'hidden')),
    curve('wheel', shapes.wheel, { ...ORIGIN, turn: wheel }, 'outline', 'part'),
    ...Array.from({ length: p.pins }, (_, j) =>
      curve(
        `pin${j}`,
        shapes.pin,
        {
          x: (p.circle / 2) * Math.cos((2 * Math.PI * j) / p.pins + wheel),
          y: (p.circle / 2) * Math.sin((2 * Math.PI * j) / p.pins + wheel),
          turn: 0,
        },
        'outline',
        'belt',
      ),
    ),
    ...(shapes.bore ? [curve('bore', shapes.bore, ORIGIN, 'outline', 'hole')] : []),
    ...crankPlaces(p).flatMap((x, i) => [
      curve(`seat${i}`, shapes.seat, { ...shift(0), x: x + shift(0).x }, 'outline', 'part'),
      curve(`eccentric${i}`, shapes.eccentric, { ...shift(0), x: x + shift(0).x }, 'outline', 'belt'),
      curve(`axis${i}`, shapes.dot, { x, y: 0, turn: 0 }, 'pitch'),
    ]),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Plates', items: teeth }];
  const forces: DrawItem[] = [];
  const contacts: DrawItem[] = [];
  const now = mostTorque(g.drive, crank);
  if (options.duty.torque > 0 && now.torque > 1e-3 * g.greatest) {
    const force = options.duty.torque / now.torque;
    const f = now.plates[0]!;
    const c = plateContacts(p, crank + g.drive.phases[0]!, wheel);
    const pushes = pressed(c, (f.first[0] + f.second[0]) * force, (f.first[1] + f.second[1]) * force);
    const most = Math.max(1e-9, ...pushes);
    for (let j = 0; j < p.pins; j++) {
      if (pushes[j]! < 0.02 * most) continue;
      const a = (2 * Math.PI * j) / p.pins + wheel;
      const way = Math.atan2(c.ny[j]!, c.nx[j]!);
      const at: [number, number] = [
        (p.circle / 2) * Math.cos(a) + (p.pin / 2) * Math.cos(way),
        (p.circle / 2) * Math.sin(a) + (p.pin / 2) * Math.sin(way),
      ];
      contacts.push(curve(`c${j}`, shapes.dot, { x: at[0], y: at[1], turn: 0 }, 'contact'));
      const arrow = forceArrow(`f${j}`, at, way, (0.3 * p.circle * pushes[j]!) / most / 2, pushes[j]!);
      forces.push(
        pushes[j] === most || arrow.kind !== 'arrow'
          ? arrow
          : { kind: 'arrow', key: arrow.key, from: arrow.from, to: arrow.to, ink: arrow.ink },
      );
    }
    crankPlaces(p).forEach((x, i) => {
      const v = i === 0 ? f.first : f.second;
      const size = Math.hypot(...v) * force;
      if (size > 0)
        forces.push(
          forceArrow(`crank${i}`, [x + shift(0).x, shift(0).y], Math.atan2(v[1], v[0]), 0.25 * p.circle, size),
        );
    });
  }
  const pole: Pose = { x: -p.pins * p.throw * Math.cos(crank), y: -p.pins * p.throw * Math.sin(crank), turn: 0 };
  const big = p.circle / 2 + p.throw + p.pin / 2 + p.offset + p.wall;
  return [
    { id: 'teeth', name: 'Plates', items: teeth },
    {
      id: 'circles',
      name: 'Pitch point',
      items: [
        curve('pole', shapes.dot, pole, 'pitch'),
        curve('line', segment(0, 0, pole.x, pole.y), ORIGIN, 'centre'),
        ...crankPlaces(p).map((x, i) => curve(`arm${i}`, segment(0, 0, x, 0), ORIGIN, 'centre')),
      ],
    },
    { id: 'contact', name: 'Pins that carry', items: contacts },
    { id: 'forces', name: 'Forces', items: forces },
    { id: 'swept', name: 'Swept room', items: [curve('swept', shapes.swept, ORIGIN, 'hidden')] },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'distance',
          from: [0, -big],
          to: [p.distance, -big],
          offset: -big * 1.25,
          value: p.distance,
          quantity: 'length',
        },
      ],
    },
  ];
}
