import { circle, ORIGIN, OutlinePen, segment, type Outline, type Pose } from '../../shape/outline.ts';
import type { BeltSection } from '../../shop/section.ts';
import type { DrawItem, DrawOptions, Layer } from '../contract.ts';
import { backThickness, type BeltLayout } from './layout.ts';
import { allowanceOf, type BeltBuild, type BeltModel } from './model.ts';
import { IDLER_BORE, type BeltParams } from './params.ts';
import { poseAt, type LoopPath } from '../../loop/index.ts';
import { outsideRadius, pulleyOutline } from './pulley.ts';

/**
 * One belt tooth in its own frame (x along the belt, y to the outside, origin on the pitch line), as x, y pairs root to
 * root.
 */
export function beltTooth(s: BeltSection): readonly (readonly [number, number])[] {
  const root = -s.offset;
  const tip = root - s.toothHeight;
  const w = s.toothWidth / 2;
  if (s.space.form === 'trapezoid') {
    const slope = Math.tan(s.space.flank) * s.toothHeight;
    return [
      [-w, root],
      [-Math.max(w - slope, w * 0.3), tip],
      [Math.max(w - slope, w * 0.3), tip],
      [w, root],
    ];
  }
  const out: [number, number][] = [];
  // Seven points a tooth look round at any scale a whole belt fits at, and are redrawn at every frame.
  for (let i = 0; i <= 6; i++) {
    const a = Math.PI * (1 - i / 6);
    out.push([w * Math.cos(a), root - s.toothHeight * Math.sin(a)]);
  }
  return out;
}

/** The belt's back: the path moved outwards, exact arcs. */
export function backOutline(path: LoopPath, back: number): Outline {
  const pen = new OutlinePen();
  path.runs.forEach((run, i) => {
    const nx = Math.sin(run.heading) * back;
    const ny = -Math.cos(run.heading) * back;
    const next = (i + 1) % path.wheels.length;
    pen
      .to(run.x1 + nx, run.y1 + ny)
      .to(run.x2 + nx, run.y2 + ny, Math.tan((path.wheels[next]!.sense * path.wraps[next]!) / 4));
  });
  return pen.close();
}

/** The belt's toothed side with its teeth where the belt has moved by `travel`. */
export function toothedOutline(path: LoopPath, s: BeltSection, travel: number): Outline {
  const tooth = beltTooth(s);
  const count = Math.round(path.length / s.pitch);
  const step = path.length / count;
  const points = new Float64Array(count * tooth.length * 3);
  let n = 0;
  for (let k = 0; k < count; k++) {
    const at = poseAt(path, k * step + travel);
    const c = Math.cos(at.heading);
    const sn = Math.sin(at.heading);
    // Outwards is to the right of the heading; the tooth's own y points that way and its x along the heading.
    for (const [x, y] of tooth) {
      points[n++] = at.x + x * c + y * sn;
      points[n++] = at.y + x * sn - y * c;
      n++;
    }
  }
  return { points, closed: true };
}

export interface BeltShapes {
  readonly pulley1: Outline;
  readonly pulley2: Outline;
  readonly idler?: Outline;
  readonly idlerBore?: Outline;
  readonly back: Outline;
  readonly tight: Outline;
  readonly bore1: Outline;
  readonly bore2: Outline;
}

/** Wall of a hub around its bore, and half of the clearance hole of an M3 screw (ISO 273 medium). */
const HUB_WALL = 3e-3;
const BOLT_HOLE = 1.7e-3;

/** A pulley's outline; the stage was refused if it could not be cut. */
function pulley(s: BeltSection, teeth: number, allowance = 0): Outline {
  const made = pulleyOutline(s, teeth, allowance);
  return made.ok ? made.value : circle(0, 0, outsideRadius(s, teeth));
}

/** Outlines of a stage's parts, each in its own place. */
export function beltShapes(p: BeltParams, { section: s, layout }: BeltBuild): BeltShapes {
  const run = layout.path.runs[layout.path.runs.length - 1]!;
  const idler =
    p.idler === 'outside'
      ? circle(0, 0, p.idlerDiameter / 2)
      : p.idler === 'inside'
        ? pulley(s, p.idlerTeeth)
        : undefined;
  return {
    pulley1: pulley(s, p.z1, allowanceOf(p, p.made1)),
    pulley2: pulley(s, p.z2, allowanceOf(p, p.made2)),
    ...(idler && { idler, idlerBore: circle(0, 0, (p.idlerBore ?? IDLER_BORE) / 2) }),
    back: backOutline(layout.path, backThickness(s)),
    tight: segment(run.x1, run.y1, run.x2, run.y2),
    bore1: circle(0, 0, p.bore1 / 2),
    bore2: circle(0, 0, p.bore2 / 2),
  };
}

/** Rotation of each wheel for a belt moved by `travel`, so that a tooth space meets a belt tooth. */
export function wheelTurns(L: BeltLayout, s: BeltSection, travel: number): number[] {
  const path = L.path;
  const count = Math.round(path.length / s.pitch);
  const step = path.length / count;
  let arrive = 0;
  return path.wheels.map((w, i) => {
    // Where the belt leaves the wheel it points along the run; the wheel's own angle there is a quarter turn clockwise
    // of that.
    const leave = path.runs[i]!;
    const angle = leave.heading - (w.sense * Math.PI) / 2;
    const at = arrive;
    arrive += leave.length + path.wheels[(i + 1) % path.wheels.length]!.r * path.wraps[(i + 1) % path.wheels.length]!;
    // Belt teeth sit at arc lengths k·step before any travel; the last one before the leaving point sets the phase.
    const short = ((at % step) + step) % step;
    return angle - (w.sense * short) / w.r + (w.sense * travel) / w.r;
  });
}

/**
 * Flange, bearing seat and what holds a pulley: two set screws a quarter turn apart, a key, or four bolts; turning with
 * it.
 */
function hubItems(
  hold: BeltParams['hold1'],
  bore: number,
  seat: number,
  outside: number,
  flange: number,
  at: Pose,
  key: string,
): DrawItem[] {
  const r = bore / 2;
  const line = (name: string, outline: Outline, ink: 'hidden' | 'centre' | 'outline'): DrawItem => ({
    kind: 'curve',
    key: `${key}-${name}`,
    outline,
    at,
    ink,
    tint: 'none',
  });
  const items = [line('flange', circle(0, 0, outside + flange), 'hidden')];
  if (seat > 0) items.push(line('seat', circle(0, 0, seat / 2), 'hidden'));
  const hub = Math.min(r + HUB_WALL, outside * 0.9);
  if (hold === 'screws')
    items.push(
      line('screw1', segment(r, 0, hub, 0), 'centre'),
      line('screw2', segment(0, r, 0, hub), 'centre'),
      line('hub', circle(0, 0, hub), 'hidden'),
    );
  if (hold === 'key')
    items.push(
      line(
        'key',
        new OutlinePen()
          .to(r * 0.8, -r * 0.3)
          .to(r * 1.25, -r * 0.3)
          .to(r * 1.25, r * 0.3)
          .to(r * 0.8, r * 0.3)
          .close(),
        'outline',
      ),
    );
  // At the radius the hold's torque is reckoned with.
  const circleAt = Math.max(r, 0.6 * outside);
  if (hold === 'bolted')
    for (let i = 0; i < 4; i++)
      items.push(
        line(
          `bolt${i}`,
          circle(circleAt * Math.cos((i * Math.PI) / 2), circleAt * Math.sin((i * Math.PI) / 2), BOLT_HOLE),
          'outline',
        ),
      );
  return items;
}

/** The drawing of a belt stage at a crank angle of its driving pulley. */
export function drawBelt(
  p: BeltParams,
  { section: s, layout: L }: BeltBuild,
  g: BeltShapes,
  crank: number,
  options: DrawOptions,
  model: () => BeltModel,
): readonly Layer[] {
  const travel = crank * (L.d1 / 2);
  const turns = wheelTurns(L, s, travel);
  const wheels = L.path.wheels;
  const last = wheels.length - 1;
  const curve = (
    key: string,
    outline: Outline,
    at: { x: number; y: number; turn: number },
    ink: 'outline' | 'pitch' | 'centre' | 'tight' | 'slack' | 'hidden',
    tint: 'none' | 'part' | 'partB' | 'belt' | 'hole',
    hatch = false,
  ): Extract<DrawItem, { kind: 'curve' }> => ({ kind: 'curve', key, outline, at, ink, tint, hatch });
  const pose = (i: number) => ({ x: wheels[i]!.x, y: wheels[i]!.y, turn: turns[i]! });
  const teeth: DrawItem[] = [
    curve('back', g.back, ORIGIN, 'outline', 'belt'),
    { ...curve('toothed', toothedOutline(L.path, s, travel), ORIGIN, 'outline', 'hole'), flows: true },
    curve('pulley1', g.pulley1, pose(0), 'outline', 'part', p.made1 === 'bought'),
    curve('pulley2', g.pulley2, pose(last), 'outline', 'partB', p.made2 === 'bought'),
    ...(g.idler
      ? [
          curve(
            'idler',
            g.idler,
            p.idler === 'outside' ? { x: wheels[1]!.x, y: wheels[1]!.y, turn: turns[1]! } : pose(1),
            'outline',
            'part',
          ),
          curve('idler-bore', g.idlerBore!, pose(1), 'outline', 'hole'),
        ]
      : []),
    curve('bore1', g.bore1, pose(0), 'outline', 'hole'),
    curve('bore2', g.bore2, pose(last), 'outline', 'hole'),
  ];
  if (options.glyph) return [{ id: 'teeth', name: 'Teeth', items: teeth }];
  const m = model();
  const o1 = outsideRadius(s, p.z1);
  const o2 = outsideRadius(s, p.z2);
  const reach = Math.max(o1, o2) * 0.9;
  const big = Math.max(m.tight, Math.hypot(...m.shaft1), 1e-9);
  const arrow = (
    key: string,
    at: readonly [number, number],
    f: readonly [number, number],
    ink: 'force' | 'tight' | 'slack',
  ): DrawItem => ({
    kind: 'arrow',
    key,
    from: at,
    to: [at[0] + (f[0] / big) * reach, at[1] + (f[1] / big) * reach],
    ink,
    label: { value: Math.hypot(...f), quantity: 'force' },
  });
  const tightRun = L.path.runs[last]!;
  const slackRun = L.path.runs[0]!;
  const middle = (r: typeof tightRun): [number, number] => [(r.x1 + r.x2) / 2, (r.y1 + r.y2) / 2];
  const tip = (mark: 'pulley1' | 'pulley2', i: number, o: number): DrawItem => ({
    kind: 'curve',
    key: `mark-${mark}`,
    outline: segment(o * 0.62, 0, o * 0.82, 0),
    at: pose(i),
    ink: 'contact',
    tint: 'none',
  });
  const lowest = Math.min(...wheels.map((w, i) => w.y - (i === 0 ? o1 : i === last ? o2 : w.r)));
  const under = lowest - s.height * 2.2;
  return [
    { id: 'teeth', name: 'Teeth', items: teeth },
    {
      id: 'pitch',
      name: 'Pitch lines',
      items: [
        curve('pitch1', circle(0, 0, L.d1 / 2), pose(0), 'pitch', 'none'),
        curve('pitch2', circle(0, 0, L.d2 / 2), pose(last), 'pitch', 'none'),
        curve('axis', segment(-o1 * 1.25, 0, L.centre + o2 * 1.15, 0), ORIGIN, 'centre', 'none'),
      ],
    },
    {
      id: 'hubs',
      name: 'Flanges, seats and hold',
      items: [
        ...hubItems(p.hold1, p.bore1, p.seat1 ?? 0, o1, s.toothHeight, pose(0), 'h1'),
        ...hubItems(p.hold2, p.bore2, p.seat2 ?? 0, o2, s.toothHeight, pose(last), 'h2'),
      ],
    },
    {
      id: 'sides',
      name: 'Tight and slack side',
      items: [
        curve('tight', g.tight, ORIGIN, 'tight', 'none'),
        ...L.path.runs
          .slice(0, last)
          .map((r, i) => curve(`slack${i}`, segment(r.x1, r.y1, r.x2, r.y2), ORIGIN, 'slack', 'none')),
        {
          kind: 'label',
          key: 'tight-word',
          at: [middle(tightRun)[0], middle(tightRun)[1] + s.height * 1.4 + 1e-3],
          text: 'tight',
        },
        {
          kind: 'label',
          key: 'slack-word',
          at: [middle(slackRun)[0], middle(slackRun)[1] - s.height * 2 - 1e-3],
          text: m.slack > 0 ? 'slack' : 'slack, hanging at peak',
        },
      ],
    },
    {
      id: 'forces',
      name: 'Forces on the shafts',
      items: [arrow('shaft1', [0, 0], m.shaft1, 'force'), arrow('shaft2', [L.centre, 0], m.shaft2, 'force')],
    },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'C',
          from: [0, 0],
          to: [L.centre, 0],
          offset: under,
          value: L.centre,
          quantity: 'length',
        },
        {
          kind: 'dimension',
          key: 'od1',
          from: [-o1, 0],
          to: [o1, 0],
          offset: Math.max(o1, o2) + s.height * 2.6,
          value: 2 * o1,
          quantity: 'length',
          prefix: '⌀',
        },
        {
          kind: 'dimension',
          key: 'od2',
          from: [L.centre - o2, 0],
          to: [L.centre + o2, 0],
          offset: Math.max(o1, o2) + s.height * 2.6,
          value: 2 * o2,
          quantity: 'length',
          prefix: '⌀',
        },
      ],
    },
    { id: 'marks', name: 'Clocking marks', items: [tip('pulley1', 0, o1), tip('pulley2', last, o2)] },
  ];
}
