import { forceArrow, sectionBox } from '../../gear/views.ts';
import { circle, ORIGIN, rectangle, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Ink, Layer, Tint } from '../contract.ts';
import { toothState, type StrainWaveGeometry } from './geometry.ts';
import type { StrainWaveBuild } from './build.ts';
import type { StrainWaveModel } from './model.ts';
import { alongWave, ringOutline, wavedSpline } from './outlines.ts';
import { hasRollers, moreTeeth, ringTeeth, type StrainWaveParams } from './params.ts';

export interface StrainWaveShapes {
  readonly rim: Outline;
  readonly inside: Outline;
  readonly wall: Outline;
  readonly neutral: Outline;
  readonly plug: Outline;
  readonly race: Outline;
  readonly roller: Outline;
  readonly rollerBore: Outline;
  readonly shaft: Outline | undefined;
  readonly dot: Outline;
  readonly bolt: Outline;
  readonly pitch: Outline;
}

/** Outlines of a stage's parts, each in its own place. */
export function strainWaveShapes(p: StrainWaveParams, { geometry: g, bearing }: StrainWaveBuild): StrainWaveShapes {
  const { outside, bore } = bearing;
  const section = hasRollers(p) || p.run === 'plain' ? 0 : (outside - bore) / 2;
  return {
    rim: circle(0, 0, g.outside / 2),
    inside: ringOutline(g),
    wall: alongWave(g.line, -g.wall / 2),
    neutral: alongWave(g.line, 0),
    race: alongWave(g.made, -g.wall / 2 - p.slack),
    plug: alongWave(g.made, -g.wall / 2 - p.slack - section - (hasRollers(p) ? outside * 0.5 : 0)),
    roller: circle(0, 0, outside / 2),
    rollerBore: circle(0, 0, bore / 2),
    shaft: p.shaft > 0 ? circle(0, 0, p.shaft / 2) : undefined,
    dot: circle(0, 0, 0.12 * g.module),
    bolt: circle(0, 0, Math.min(0.22 * p.ringWall, 2.2e-3)),
    pitch: circle(0, 0, (g.module * ringTeeth(p)) / 2),
  };
}

/** How spline and ring have turned when the generator has, seen from what is bolted down: rad. */
export function wavePose(p: StrainWaveParams, crank: number): { spline: number; ring: number } {
  return p.held === 'ring'
    ? { spline: (-crank * moreTeeth(p)) / p.teeth, ring: 0 }
    : { spline: 0, ring: (crank * moreTeeth(p)) / ringTeeth(p) };
}

/** Ring, spline on its wave and generator seen along the axis, with the section beside it. */
export function drawStrainWave(
  p: StrainWaveParams,
  { geometry: g, bearing, rollers: places }: StrainWaveBuild,
  s: StrainWaveShapes,
  crank: number,
  options: DrawOptions,
  model: () => StrainWaveModel,
): readonly Layer[] {
  const [across, bore] = [bearing.outside, bearing.bore];
  const pose = wavePose(p, crank);
  const ringAt: Pose = { x: 0, y: 0, turn: pose.ring };
  const wave: Pose = { x: 0, y: 0, turn: crank };
  const curve = (key: string, outline: Outline, at: Pose, ink: Ink, tint: Tint = 'none', hatch = false): DrawItem => ({
    kind: 'curve',
    key,
    outline,
    at,
    ink,
    tint,
    ...(hatch && { hatch }),
  });
  const seat = g.radius - g.wall / 2 + g.throw - across / 2;
  const [c, sn] = [Math.cos(crank), Math.sin(crank)];
  const rollers = places.map(([x, y]): Pose => ({ x: x * c - y * sn, y: x * sn + y * c, turn: crank }));
  const bolted = g.outside / 2 - 0.4 * p.ringWall;
  const bolts = Array.from({ length: 6 }, (_, i) => {
    const a = Math.PI / 6 + (i * Math.PI) / 3;
    return p.held === 'ring'
      ? curve(`bolt${i}`, s.bolt, { x: bolted * Math.cos(a), y: bolted * Math.sin(a), turn: 0 }, 'outline', 'hole')
      : curve(`bolt${i}`, s.bolt, { x: 0.62 * seat * Math.cos(a), y: 0.62 * seat * Math.sin(a), turn: 0 }, 'hidden');
  });
  const teeth: DrawItem[] = [
    curve('rim', s.rim, ringAt, 'outline', 'part', p.held === 'ring' && !options.glyph),
    curve('inside', s.inside, ringAt, 'outline', 'hole'),
    { ...curve('spline', wavedSpline(g, crank, pose.spline), ORIGIN, 'outline', 'partB'), flows: true } as DrawItem,
    curve('wall', s.wall, wave, 'outline', 'hole'),
    ...(hasRollers(p)
      ? [
          curve('plug', s.plug, wave, 'outline', 'belt'),
          ...rollers.flatMap((at, i) => [
            curve(`roller${i}`, s.roller, at, 'outline', 'part'),
            curve(`hub${i}`, s.rollerBore, at, 'outline', 'hole'),
          ]),
        ]
      : p.run === 'bearing'
        ? [curve('race', s.race, wave, 'outline', 'part'), curve('plug', s.plug, wave, 'outline', 'belt')]
        : [curve('plug', s.plug, wave, 'outline', 'belt')]),
    ...(s.shaft ? [curve('shaft', s.shaft, wave, 'outline', 'hole')] : []),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: teeth }];
  const loaded = options.duty.torque > 0 ? model() : undefined;
  const tight: DrawItem[] = [];
  const touch: DrawItem[] = [];
  const R = g.module * p.teeth * 0.5;
  for (let i = 0; i < p.teeth; i++) {
    // Which spaces the teeth are held against turns with the ring; seen from it the generator has turned further.
    const state = toothState(g, i, crank - pose.spline);
    if (!(state.depth > 0)) continue;
    const clear = Math.min(state.ahead, state.behind);
    const a = (2 * Math.PI * i) / p.teeth + pose.spline;
    const at = { x: (R + g.throw * 0.5) * Math.cos(a), y: (R + g.throw * 0.5) * Math.sin(a), turn: 0 };
    if (clear < -1e-6) tight.push(curve(`clash${i}`, s.dot, at, 'clash'));
    else if (clear < 0.02 * g.module) touch.push(curve(`c${i}`, s.dot, at, 'contact'));
  }
  const forces: DrawItem[] = [];
  if (loaded) {
    const f = loaded.radial;
    // Told once, on the side away from the section.
    const leftmost = Array.from({ length: p.lobes }, (_, k) => k).reduce((a, b) =>
      Math.cos(crank + (2 * Math.PI * b) / p.lobes) < Math.cos(crank + (2 * Math.PI * a) / p.lobes) ? b : a,
    );
    for (let k = 0; k < p.lobes; k++) {
      const a = crank + (2 * Math.PI * k) / p.lobes;
      const far = g.outside / 2 + 0.3 * R;
      const arrow = forceArrow(`f${k}`, [far * Math.cos(a), far * Math.sin(a)], a + Math.PI, 0.26 * R, f);
      forces.push(
        k === leftmost || arrow.kind !== 'arrow'
          ? arrow
          : { kind: 'arrow', key: arrow.key, from: arrow.from, to: arrow.to, ink: arrow.ink },
      );
    }
  }
  const x0 = g.outside * 0.62;
  const long = p.body === 'cup' ? p.cup : 2 * p.width;
  const floor = Math.max(1.5e-3, 1.5 * g.wall);
  const inner = g.radius - g.wall / 2;
  const cuts: DrawItem[] = [
    sectionBox('s-ring', x0, g.ringTip, x0 + p.width, g.outside / 2, 'part', true),
    sectionBox('s-teeth', x0, inner, x0 + p.width, g.radius + g.splineTip + g.throw, 'partB'),
    ...(p.body === 'cup'
      ? [
          sectionBox('s-wall', x0 + p.width, inner, x0 + long, inner + g.wall, 'partB'),
          sectionBox('s-floor', x0 + long - floor, p.shaft / 2, x0 + long, inner + g.wall, 'partB'),
        ]
      : [
          sectionBox('s-ring2', x0 + p.width, g.ringTip, x0 + long, g.outside / 2, 'belt', true),
          sectionBox('s-teeth2', x0 + p.width, inner, x0 + long, g.radius + g.splineTip + g.throw, 'partB'),
        ]),
    sectionBox(
      's-generator',
      x0 + 0.1 * p.width,
      Math.max(p.shaft / 2, 1e-4),
      x0 + 0.9 * p.width,
      hasRollers(p) ? seat : inner - (p.run === 'bearing' ? (across - bore) / 2 : 0),
      'belt',
    ),
    curve('s-axis', segment(x0 - 3e-3, 0, x0 + long + 5e-3, 0), ORIGIN, 'centre'),
    curve(
      's-ground',
      rectangle(
        x0 - (p.held === 'ring' ? 2.5e-3 : -long),
        p.held === 'ring' ? g.ringTip : 0,
        x0 + (p.held === 'ring' ? 0 : long + 2.5e-3),
        g.outside / 2 + 1.5e-3,
      ),
      ORIGIN,
      'hidden',
      'none',
      true,
    ),
    { kind: 'label', key: 's-held', at: [x0 + long / 2, -0.1 * g.outside], text: `${p.held} bolted` },
  ];
  const zoom = detailScale(g);
  return [
    { id: 'teeth', name: 'Teeth', items: teeth },
    {
      id: 'circles',
      name: 'Neutral line, pitch circle',
      items: [curve('neutral', s.neutral, wave, 'pitch'), curve('pitch', s.pitch, ORIGIN, 'centre')],
    },
    { id: 'contact', name: 'Teeth that touch or clash', items: [...touch, ...tight] },
    { id: 'forces', name: 'Push off the ring', items: forces },
    { id: 'bolts', name: 'Bolted down', items: bolts },
    { id: 'section', name: 'Half-section', items: cuts },
    {
      id: 'detail',
      name: `Mesh ×${zoom}`,
      items: detail(p, g, crank - pose.spline, zoom, x0 + long + 0.14 * g.outside),
    },
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

/** Teeth shown either side of a lobe's top. */
const SHOWN = 3;

/** How much larger the mesh at a lobe's top is drawn beside the stage. */
const detailScale = (g: StrainWaveGeometry): number =>
  Math.max(2, Math.round((0.8 * g.outside) / (2 * SHOWN * Math.PI * g.module)));

/**
 * The mesh at a lobe's top, drawn larger: teeth pass from right to left as the generator turns, those that clash in a
 * colour of their own.
 */
function detail(p: StrainWaveParams, g: StrainWaveGeometry, crank: number, zoom: number, x0: number): DrawItem[] {
  const items: DrawItem[] = [];
  const pitch = (2 * Math.PI) / p.teeth;
  const where = new Float64Array(4);
  const R = g.ringTip;
  const put = (x: number, y: number): [number, number] => [x0 + 0.4 * g.outside + zoom * -y, zoom * (x - R)];
  const first = Math.ceil((crank - SHOWN * pitch) / pitch);
  const [tooth, space] = [g.mesh.tooth, g.mesh.space];
  const steps = 8;
  for (let i = first; i * pitch - crank <= SHOWN * pitch; i++) {
    const along = i * pitch - crank;
    g.line.at(along * g.radius, where);
    const [c, s] = [Math.cos(where[2]!), Math.sin(where[2]!)];
    const pen: number[] = [];
    const add = (x: number, y: number) => {
      const [a, b] = put(x, y);
      pen.push(a, b, 0);
    };
    for (let k = 0; k <= 2 * steps; k++) {
      const up = k <= steps;
      const y = g.splineRoot + (g.splineTip - g.splineRoot) * (up ? k / steps : 2 - k / steps);
      const x = (up ? -1 : 1) * tooth.half(Math.min(y, g.splineTip));
      add(where[0]! + y * c - x * s, where[1]! + y * s + x * c);
    }
    const state = toothState(g, ((i % p.teeth) + p.teeth) % p.teeth, crank);
    const clash = state.depth > 0 && Math.min(state.ahead, state.behind) < -1e-6;
    items.push({
      kind: 'curve',
      key: `d-tooth${i}`,
      outline: { points: Float64Array.from(pen), closed: false },
      at: ORIGIN,
      ink: clash ? 'clash' : 'outline',
      tint: 'partB',
    });
    const psi = (along * p.teeth) / ringTeeth(p);
    const [rc, rs] = [Math.cos(psi), Math.sin(psi)];
    const cut: number[] = [];
    const land = Math.PI / ringTeeth(p);
    const ring = (x: number, y: number) => {
      const [a, b] = put(y * rc - x * rs, y * rs + x * rc);
      cut.push(a, b, 0);
    };
    ring(-R * Math.sin(land), R * Math.cos(land));
    for (let k = 0; k <= 2 * steps; k++) {
      const up = k <= steps;
      const y = R + (g.ringRoot - R) * (up ? k / steps : 2 - k / steps);
      ring((up ? -1 : 1) * space.half(Math.min(y, g.ringRoot)), y);
    }
    ring(R * Math.sin(land), R * Math.cos(land));
    items.push({
      kind: 'curve',
      key: `d-space${i}`,
      outline: { points: Float64Array.from(cut), closed: false },
      at: ORIGIN,
      ink: 'outline',
      tint: 'none',
    });
  }
  items.push({
    kind: 'label',
    key: 'd-label',
    at: [x0 + 0.4 * g.outside, zoom * (g.ringRoot - R) + 0.06 * g.outside],
    text: `at a lobe’s top, ×${zoom}`,
  });
  return items;
}
