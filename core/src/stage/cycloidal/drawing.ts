import { forceArrow, sectionBox } from '../../gear/views.ts';
import { carry, ringContacts, ringDisc } from '../../lobed/index.ts';
import { circle, ORIGIN, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import { phaseOf, ringBore } from './geometry.ts';
import type { CycloidalBuild } from './build.ts';
import type { CycloidalModel } from './model.ts';
import { branchPins, heldShare, type CycloidalParams } from './params.ts';

const MAGNIFIED = 20;

export interface CycloidalShapes {
  readonly disc: Outline;
  readonly wide: Outline;
  readonly pin: Outline;
  readonly rim: Outline;
  readonly bearing: Outline;
  readonly eccentric: Outline;
  readonly hole: Outline;
  readonly out: Outline;
  readonly shaft: Outline | undefined;
  readonly dot: Outline;
  readonly inside: Outline;
}

/** Outlines of a stage's parts, each in its own place. */
export function cycloidalShapes(p: CycloidalParams, { geometry: g, bearing }: CycloidalBuild): CycloidalShapes {
  const tolerance = 4e-4 * p.pin;
  const wider = Math.min(0.9 * g.convex, p.pin / 2 + p.offset * MAGNIFIED);
  return {
    disc: ringDisc(g.profile, p.difference, tolerance),
    wide: ringDisc({ ...g.profile, pin: Math.max(g.profile.pin, wider) }, p.difference, tolerance),
    pin: circle(0, 0, p.pin / 2),
    rim: circle(0, 0, g.outside / 2),
    bearing: circle(0, 0, bearing.outside / 2),
    eccentric: circle(0, 0, bearing.bore / 2),
    hole: circle(0, 0, (p.outPin + 2 * p.throw + p.outGap) / 2),
    out: circle(0, 0, p.outPin / 2),
    shaft: p.shaft > 0 ? circle(0, 0, p.shaft / 2) : undefined,
    dot: circle(0, 0, 0.06 * p.pin),
    inside: circle(0, 0, ringBore(p)),
  };
}

/** Where everything stands when the crank has turned: in the ring's frame, and how far the ring itself has turned. */
export function cycloidalPose(
  p: CycloidalParams,
  crank: number,
): { inner: number; ring: number; out: number; discs: Pose[] } {
  // With the disc held the ring turns; seen from the ring the crank has then turned by as much less.
  const ring = p.held === 'ring' ? 0 : crank / branchPins(p);
  const inner = crank - ring;
  const discs = Array.from({ length: p.discs }, (_, i) => {
    const a = inner + phaseOf(p, i);
    return { x: p.throw * Math.cos(a + ring), y: p.throw * Math.sin(a + ring), turn: -a / (branchPins(p) - 1) + ring };
  });
  return { inner, ring, out: -inner / (branchPins(p) - 1) + ring, discs };
}

/** Ring, discs and output seen along the axis, the first disc in front, with the section beside it. */
export function drawCycloidal(
  p: CycloidalParams,
  { geometry: g, bearing }: CycloidalBuild,
  s: CycloidalShapes,
  crank: number,
  options: DrawOptions,
  model: () => CycloidalModel,
): readonly Layer[] {
  const at = cycloidalPose(p, crank);
  const curve = (
    key: string,
    outline: Outline,
    pose: Pose,
    ink: Ink,
    tint: Tint = 'none',
    hatch = false,
  ): DrawItem => ({ kind: 'curve', key, outline, at: pose, ink, tint, ...(hatch && { hatch }) });
  const R = p.circle / 2;
  const turned = (x: number, y: number): [number, number] => [
    x * Math.cos(at.ring) - y * Math.sin(at.ring),
    x * Math.sin(at.ring) + y * Math.cos(at.ring),
  ];
  const ringAt = (j: number): [number, number] =>
    turned(R * Math.cos((2 * Math.PI * j) / p.pins), R * Math.sin((2 * Math.PI * j) / p.pins));
  const pins = Array.from({ length: p.pins }, (_, j) => {
    const [x, y] = ringAt(j);
    return curve(`pin${j}`, s.pin, { x, y, turn: 0 }, 'outline', 'partB');
  });
  const front = at.discs[0]!;
  const outAt = (i: number, around: Pose = ORIGIN): Pose => ({
    x: around.x + (p.outCircle / 2) * Math.cos(at.out + (2 * Math.PI * i) / p.outPins),
    y: around.y + (p.outCircle / 2) * Math.sin(at.out + (2 * Math.PI * i) / p.outPins),
    turn: 0,
  });
  const behind = at.discs.slice(1).map((pose, i) => curve(`disc${i + 1}`, s.disc, pose, 'outline', 'belt'));
  const teeth: DrawItem[] = [
    curve('rim', s.rim, ORIGIN, 'outline', 'part'),
    curve('inside', s.inside, ORIGIN, 'outline', 'hole'),
    ...pins,
    ...behind,
    curve('disc0', s.disc, front, 'outline', 'partB'),
    ...Array.from({ length: p.outPins }, (_, i) => curve(`hole${i}`, s.hole, outAt(i, front), 'outline', 'hole')),
    ...Array.from({ length: p.outPins }, (_, i) => curve(`out${i}`, s.out, outAt(i), 'outline', 'part')),
    curve('bearing', s.bearing, { ...front, turn: 0 }, 'outline', 'part'),
    curve('eccentric', s.eccentric, { ...front, turn: 0 }, 'outline', 'belt'),
    ...(s.shaft ? [curve('shaft', s.shaft, ORIGIN, 'outline', 'hole')] : []),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Discs', items: teeth }];
  const loaded = options.duty.torque > 0 ? model() : undefined;
  const sets = Array.from({ length: p.discs }, (_, i) => ringContacts(g.pair, p.difference, at.inner + phaseOf(p, i)));
  const held = heldShare(p);
  const forces: DrawItem[] = [];
  const contacts: DrawItem[] = [];
  if (loaded) {
    const c = carry(sets, loaded.contact, options.duty.torque * held);
    const most = Math.max(1e-9, ...c.forces);
    const worst = c.forces.subarray(0, p.pins).indexOf(Math.max(...c.forces.subarray(0, p.pins)));
    for (let j = 0; j < p.pins; j++) {
      const f = c.forces[j]!;
      if (f < 0.02 * most) continue;
      const [x, y] = ringAt(j);
      const way = Math.atan2(sets[0]!.ny[j]!, sets[0]!.nx[j]!) + at.ring;
      const [cx, cy] = [x + (p.pin / 2) * Math.cos(way), y + (p.pin / 2) * Math.sin(way)];
      contacts.push(curve(`c${j}`, s.dot, { x: cx, y: cy, turn: 0 }, 'contact'));
      const arrow = forceArrow(`f${j}`, [cx, cy], way, (0.28 * R * f) / most, f);
      forces.push(
        j === worst || arrow.kind !== 'arrow'
          ? arrow
          : { kind: 'arrow', key: arrow.key, from: arrow.from, to: arrow.to, ink: arrow.ink },
      );
    }
  }
  const pole = turned(branchPins(p) * p.throw * Math.cos(at.inner), branchPins(p) * p.throw * Math.sin(at.inner));
  const x0 = g.outside * 0.62;
  const plate = Math.max(3e-3, p.outPin);
  const cuts: DrawItem[] = [
    sectionBox('s-housing', x0, R - p.pin / 2, x0 + p.discs * p.width + 2e-3, g.outside / 2, 'part'),
    sectionBox('s-pin', x0, R - p.pin / 2, x0 + p.discs * p.width + 2e-3, R + p.pin / 2, 'partB', false),
    ...Array.from({ length: p.discs }, (_, i) =>
      sectionBox(
        `s-disc${i}`,
        x0 + 1e-3 + i * p.width,
        bearing.outside / 2 + p.throw * Math.cos(phaseOf(p, i)),
        x0 + 1e-3 + (i + 1) * p.width,
        R - p.pin / 2 - p.throw + p.throw * Math.cos(phaseOf(p, i)),
        i === 0 ? 'partB' : 'belt',
      ),
    ),
    sectionBox(
      's-out',
      x0 + 1e-3,
      p.outCircle / 2 - p.outPin / 2,
      x0 + p.discs * p.width + 2e-3 + plate,
      p.outCircle / 2 + p.outPin / 2,
      'none',
      false,
    ),
    sectionBox(
      's-plate',
      x0 + p.discs * p.width + 2e-3,
      p.shaft / 2,
      x0 + p.discs * p.width + 2e-3 + plate,
      p.outCircle / 2 + p.outPin,
      'part',
    ),
    curve('s-axis', segment(x0 - 3e-3, 0, x0 + p.discs * p.width + plate + 5e-3, 0), ORIGIN, 'centre'),
  ];
  return [
    { id: 'teeth', name: 'Discs', items: teeth },
    {
      id: 'circles',
      name: 'Pitch point',
      items: [
        curve('pole', s.dot, { x: pole[0], y: pole[1], turn: 0 }, 'pitch'),
        curve('line', segment(0, 0, pole[0], pole[1]), ORIGIN, 'centre'),
      ],
    },
    { id: 'contact', name: 'Pins that carry', items: contacts },
    { id: 'forces', name: 'Forces', items: forces },
    { id: 'gaps', name: `Gaps ×${MAGNIFIED}`, items: [curve('gap', s.wide, front, 'hidden')] },
    { id: 'section', name: 'Half-section', items: cuts },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'outside',
          from: [-g.outside / 2, 0],
          to: [g.outside / 2, 0],
          offset: -g.outside * 0.56,
          value: g.outside,
          quantity: 'length',
          prefix: '⌀ ',
        },
      ],
    },
  ];
}
