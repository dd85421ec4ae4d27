import { circle, ORIGIN, OutlinePen, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import type { RollerWaveBuild, RollerWaveModel } from './model.ts';
import { rollerWaveRatio, type RollerWaveParams } from './params.ts';
import { ringOutline, rollerAt } from './wave.ts';

/** Chords of a drawn profile stray by no more, m; of a part's. */
const COARSE = 5e-6;
/** Gaps are drawn this many times as wide. */
const MAGNIFIED = 10;

export interface RollerWaveShapes {
  readonly ring: Outline;
  readonly wide: Outline;
  readonly rim: Outline;
  readonly roller: Outline;
  readonly wall: Outline;
  readonly eccentric: Outline;
  readonly sleeve: Outline;
  readonly shaft: Outline;
  readonly mark: Outline;
}

/** A wall of the cage between two slots, about the axis, its middle on the x axis. */
export function wallOutline(p: RollerWaveParams, b: RollerWaveBuild): Outline {
  const [inner, outer] = b.cage;
  const step = Math.PI / p.rollers;
  const slot = (p.roller + p.slot) / 2;
  // Slots have parallel sides: their middle lies half a pitch to either side of the wall's.
  const edge = (r: number, side: 1 | -1): readonly [number, number] => {
    const a = side * step;
    const along = Math.sqrt(Math.max(0, r * r - slot * slot));
    return [along * Math.cos(a) + side * slot * Math.sin(a), along * Math.sin(a) - side * slot * Math.cos(a)];
  };
  // Round inside and outside: a straight inside would stand in the eccentric's way where walls are wide.
  const angle = (r: number) => Math.atan2(edge(r, 1)[1], edge(r, 1)[0]);
  const [narrow, wide] = [angle(inner), angle(outer)];
  return new OutlinePen()
    .to(...edge(inner, -1))
    .to(...edge(outer, -1))
    .arc(0, 0, outer, -wide, 2 * wide)
    .to(...edge(inner, 1))
    .arc(0, 0, inner, narrow, -2 * narrow)
    .close();
}

/** Outlines of a stage's parts, each in its own place. */
export function rollerWaveShapes(p: RollerWaveParams, b: RollerWaveBuild): RollerWaveShapes {
  const { wave } = b;
  return {
    ring: ringOutline(wave, wave.roller + p.gap, COARSE),
    wide: ringOutline(wave, wave.roller + Math.min(p.gap * MAGNIFIED, 0.6 * b.hollow), COARSE),
    rim: circle(0, 0, b.outside / 2),
    roller: circle(0, 0, wave.roller),
    wall: wallOutline(p, b),
    eccentric: circle(0, 0, b.bearing.bore / 2),
    sleeve: circle(0, 0, wave.eccentric),
    shaft: circle(0, 0, Math.max(p.shaft / 2, 3e-4)),
    mark: segment(0, 0, 0.9 * (b.bearing.bore / 2), 0),
  };
}

/** How cage and ring have turned, and where the throw points, when the input has turned by an angle. */
export function wavePose(p: RollerWaveParams, crank: number): { cage: number; ring: number; throw: number } {
  const out = crank / rollerWaveRatio(p);
  return p.held === 'ring' ? { cage: out, ring: 0, throw: crank } : { cage: 0, ring: out, throw: crank };
}

/** Where the rollers of a row stand. */
export function rollerPoses(p: RollerWaveParams, b: RollerWaveBuild, crank: number, phase: number): Pose[] {
  const at = wavePose(p, crank);
  return Array.from({ length: p.rollers }, (_, k) => {
    const a = at.cage + (2 * Math.PI * k) / p.rollers;
    const rho = rollerAt(b.wave, a - at.throw - phase);
    return { x: rho * Math.cos(a), y: rho * Math.sin(a), turn: a };
  });
}

/** A row seen along the axis. */
export function drawRollerWave(
  p: RollerWaveParams,
  b: RollerWaveBuild,
  s: RollerWaveShapes,
  crank: number,
  options: DrawOptions,
  model: () => RollerWaveModel,
): readonly Layer[] {
  const at = wavePose(p, crank);
  const curve = (key: string, outline: Outline, pose: Pose, ink: Ink, tint: Tint = 'none'): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at: pose,
    ink,
    tint,
  });
  const turned = (turn: number): Pose => ({ ...ORIGIN, turn });
  const thrown: Pose = { x: p.throw * Math.cos(at.throw), y: p.throw * Math.sin(at.throw), turn: at.throw };
  const rollers = rollerPoses(p, b, crank, 0);
  const teeth: DrawItem[] = [
    curve('rim', s.rim, turned(at.ring), 'outline', 'part'),
    curve('ring', s.ring, turned(at.ring), 'outline', 'hole'),
    ...Array.from({ length: p.rollers }, (_, k) =>
      curve(`wall${k}`, s.wall, turned(at.cage + (2 * Math.PI * (k + 0.5)) / p.rollers), 'outline', 'partB'),
    ),
    curve('sleeve', s.sleeve, thrown, 'outline', 'part'),
    curve('eccentric', s.eccentric, thrown, 'outline', 'belt'),
    curve('shaft', s.shaft, turned(at.throw), 'outline', 'hole'),
    ...rollers.map((pose, k) => curve(`roller${k}`, s.roller, pose, 'outline', 'belt')),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Rollers and lobes', items: teeth }];
  const m = model();
  const r = b.wave;
  const far = r.eccentric + r.roller;
  const most = Math.max(m.spread.force, 1e-9);
  return [
    { id: 'teeth', name: 'Rollers and lobes', items: teeth },
    {
      id: 'circles',
      name: 'Path and circles',
      items: [
        curve('mean', circle(0, 0, far), ORIGIN, 'pitch'),
        curve('inner', circle(0, 0, b.cage[0]), ORIGIN, 'hidden'),
        curve('outer', circle(0, 0, b.cage[1]), ORIGIN, 'hidden'),
        curve('throw', s.mark, thrown, 'contact'),
      ],
    },
    { id: 'gaps', name: `Gaps ×${MAGNIFIED}`, items: [curve('gap', s.wide, turned(at.ring), 'hidden')] },
    {
      id: 'forces',
      name: 'Worst roller',
      items:
        options.duty.torque > 0
          ? (() => {
              // The steepest roller on the side that carries.
              const side = Math.sign(p.more) || 1;
              const k = rollers.reduce(
                (best, pose, i) => {
                  const steep = side * Math.sin(pose.turn - at.throw);
                  return steep > best[0] ? ([steep, i] as [number, number]) : best;
                },
                [-Infinity, 0] as [number, number],
              )[1];
              const pose = rollers[k]!;
              const long = 3 * r.roller;
              return [
                {
                  kind: 'arrow',
                  key: 'worst',
                  from: [pose.x, pose.y],
                  to: [pose.x + (long * pose.x) / far, pose.y + (long * pose.y) / far],
                  ink: 'force',
                  label: { value: most, quantity: 'force' },
                } satisfies DrawItem,
              ];
            })()
          : [],
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'outside',
          from: [-b.outside / 2, 0],
          to: [b.outside / 2, 0],
          offset: -0.58 * b.outside,
          value: b.outside,
          quantity: 'length',
          prefix: '⌀ ',
        },
        {
          kind: 'dimension',
          key: 'deep',
          from: [-b.reach[1], 0],
          to: [b.reach[1], 0],
          offset: 0.56 * b.outside,
          value: 2 * b.reach[1],
          quantity: 'length',
          prefix: '⌀ ',
        },
      ],
    },
  ];
}
