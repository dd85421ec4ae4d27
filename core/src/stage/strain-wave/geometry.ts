import { stated } from '../../units/stated.ts';
import { inv } from '../../gear/involute.ts';
import { ok, type Result } from '../../result.ts';
import { SECTIONS, type BeltSection } from '../../shop/section.ts';
import {
  involuteSide,
  neutralLine,
  nearestPitch,
  pairState,
  roundSide,
  straightSide,
  waveCourse,
  type NeutralLine,
  type Side,
  type WaveCourse,
  type WaveMesh,
} from '../../wave/index.ts';
import { hasRollers, moreTeeth, ringTeeth, type StrainWaveParams } from './params.ts';
import { inMm as mm, stop } from '../refuse-stage.ts';

/** Thickness of the plates that rollers stand between, m. */
export const ROLLER_PLATE = 2e-3;

/** Steps of a tooth's way through a lobe. */
export const STEPS = 240;

/** A strain-wave stage; everything that neither a factor nor the shelf moves. */
export interface StrainWaveGeometry {
  readonly section: BeltSection | undefined;
  readonly module: number;
  readonly radius: number;
  readonly wall: number;
  /** Nominal throw times the depth factor, and what is left of it behind the slack, m. */
  readonly nominal: number;
  readonly throw: number;
  readonly line: NeutralLine;
  /** The line that the generator is made for, before its gap to the spline is taken off it. */
  readonly made: NeutralLine;
  readonly mesh: WaveMesh;
  readonly course: WaveCourse;
  /** Lean of a side halfway up, rad. */
  readonly lean: number;
  /** Tip and root of spline (from the neutral line) and ring (from the middle), m. */
  readonly splineTip: number;
  readonly splineRoot: number;
  readonly ringTip: number;
  readonly ringRoot: number;
  /** Depth of the deepest tooth, and how far its tip stays off the ring's root and its root off the ring's tips. */
  readonly engaged: number;
  readonly tipRoom: number;
  readonly rootRoom: number;
  /** Room between tips where the spline is drawn in furthest, open end. */
  readonly pass: number;
  /** Teeth in their spaces at once. */
  readonly inMesh: number;
  /** Least clearance, which way along the spline and how high on the tooth it is. */
  readonly least: number;
  readonly leastAt: number;
  readonly leastHeight: number;
  /**
   * Where an open band drives a second ring of as many teeth: its spaces, and how much wider they are, since teeth sway
   * along it.
   */
  readonly follow: { readonly space: Side; readonly wider: number } | undefined;
  /** Ratio of the wall's bending to that of cos nθ. */
  readonly shapeFactor: number;
  readonly outside: number;
}

const DEG = Math.PI / 180;

interface Teeth {
  readonly module: number;
  readonly radius: number;
  readonly wall: number;
  readonly tooth: Side;
  readonly space: Side;
  readonly splineTip: number;
  readonly splineRoot: number;
  readonly ringTip: number;
  readonly ringRoot: number;
  readonly section: BeltSection | undefined;
}

/** A belt turned inside out: its cord is the neutral line, its teeth stand out. */
function beltTeeth(p: StrainWaveParams, section: BeltSection): Teeth {
  const module = section.pitch / Math.PI;
  const radius = (module * p.teeth) / 2;
  const R = (module * ringTeeth(p)) / 2;
  const land = section.offset;
  const tip = land + section.toothHeight;
  const { space: s } = section;
  const wall = Math.max(2e-4, section.height - section.toothHeight);
  const ringTip = R + land;
  const ringRoot = ringTip + s.depth;
  const grow = p.thin / 2;
  if (s.form === 'round') {
    const r = section.toothWidth / 2;
    return {
      module,
      radius,
      wall,
      section,
      tooth: roundSide(land, tip - r, r),
      space: roundSide(ringTip, ringRoot - s.radius, s.radius + grow),
      splineTip: tip,
      splineRoot: land,
      ringTip,
      ringRoot,
    };
  }
  // A trapezoidal tooth fills its space but for the section's clearance.
  const tooth = straightSide(land, tip, land, section.toothWidth / 2, s.flank);
  const mouth = s.bottom / 2 + s.depth * Math.tan(s.flank);
  return {
    module,
    radius,
    wall,
    section,
    tooth,
    space: straightSide(
      ringTip,
      ringRoot,
      ringTip,
      Math.max(mouth, section.toothWidth / 2 + section.clearance / 2) + grow,
      s.flank,
    ),
    splineTip: tip,
    splineRoot: land,
    ringTip,
    ringRoot,
  };
}

function cutTeeth(p: StrainWaveParams): Teeth {
  const m = p.module;
  const [zf, zc] = [p.teeth, ringTeeth(p)];
  const [Rf, Rc] = [(m * zf) / 2, (m * zc) / 2];
  const x = p.form === 'involute' ? p.shift * m : 0;
  const splineTip = Rf + x + p.addendum * m - p.radius;
  const splineRoot = Rf + x - p.dedendum * m - p.radius;
  const ringTip = Rc + x - p.addendum * m;
  const ringRoot = Rc + x + p.dedendum * m;
  const base = {
    module: m,
    radius: p.radius,
    wall: p.wall,
    section: undefined,
    splineTip,
    splineRoot,
    ringTip,
    ringRoot,
  };
  if (p.form === 'involute') {
    const open = (z: number, thin: number) =>
      Math.PI / 2 / z + (2 * p.shift * Math.tan(p.angle)) / z + inv(p.angle) - thin / (m * z);
    const cos = Math.cos(p.angle);
    return {
      ...base,
      tooth: involuteSide(splineRoot, splineTip, p.radius, Rf * cos, open(zf, p.thin)),
      space: involuteSide(ringTip * 0.98, ringRoot, 0, Rc * cos, open(zc, 0)),
    };
  }
  const half = (Math.PI * m) / 4;
  return {
    ...base,
    tooth: straightSide(splineRoot, splineTip, Rf - p.radius, half - p.thin / 2, p.angle),
    space: straightSide(ringTip, ringRoot, Rc, half, p.angle),
  };
}

/** Geometry of a stage; refuses in words what cannot be. */
export function strainWaveGeometry(p: StrainWaveParams): Result<StrainWaveGeometry> {
  const section = p.form === 'belt' ? SECTIONS.find((s) => s.id === p.section) : undefined;
  if (p.form === 'belt' && !section)
    return stop(
      `There is no belt section “${p.section}”.`,
      'Its teeth are not known.',
      `Choose one of ${SECTIONS.slice(0, 4)
        .map((s) => s.id)
        .join(', ')} and others.`,
      'section',
    );
  if (p.shape === 'ellipse' && p.lobes !== 2)
    return stop(
      'An ellipse has two lobes.',
      `${p.lobes} waves are wanted.`,
      'Take the shape cos nθ, or rollers.',
      'shape',
      { path: 'shape', value: 'cosine', label: 'Shape cos nθ' },
    );
  if (p.shape === 'many' && p.rollers % p.lobes !== 0) {
    const value = p.lobes * Math.max(2, Math.round(p.rollers / p.lobes));
    return stop(
      `${p.rollers} rollers do not divide among ${p.lobes} lobes.`,
      'Each lobe must be pressed alike, or the generator is pushed aside.',
      `Take ${value}.`,
      'rollers',
      { path: 'rollers', value, label: `${value} rollers` },
    );
  }
  if (p.shape === 'many' && p.rollers < 3 * p.lobes)
    return stop(
      `${p.rollers} rollers leave the lobes to one or two each.`,
      'Many rollers means at least three a lobe.',
      `Take ${4 * p.lobes}, or the shape with one or two rollers a lobe.`,
      'rollers',
      { path: 'rollers', value: 4 * p.lobes, label: `${4 * p.lobes} rollers` },
    );
  if (p.shape === 'four' && p.spread > Math.PI / p.lobes / 2 - 1 * DEG)
    return stop(
      'The rollers of neighbouring lobes meet.',
      `With ${p.lobes} lobes half the angle must stay below ${stated((90 / p.lobes) * DEG, 'angle', 3)}.`,
      `Take ${stated((60 / p.lobes) * DEG, 'angle', 3)}.`,
      'spread',
      { path: 'spread', value: (60 / p.lobes) * DEG, label: stated((60 / p.lobes) * DEG, 'angle', 3) },
    );
  const t = section ? beltTeeth(p, section) : cutTeeth(p);
  const nominal = ((moreTeeth(p) * t.module) / 2) * p.depth;
  const pushed = nominal - p.slack;
  if (!(pushed > 0.05 * nominal))
    return stop(
      'The gap swallows the whole throw.',
      `The generator throws ${mm(nominal)} and stands ${mm(p.slack)} off the spline.`,
      'Take less gap.',
      'slack',
      { path: 'slack', value: 0, label: 'No gap' },
    );
  if (!(t.splineTip > t.splineRoot) || !(t.tooth.half(t.splineTip * 0.999) > 0.02 * t.module))
    return stop(
      'The spline’s teeth come to a point.',
      'Their sides meet below the tips.',
      'Take a lower addendum, a steeper side or a smaller allowance.',
      'addendum',
      {
        path: 'addendum',
        value: Number((p.addendum * 0.7).toFixed(2)),
        label: `Addendum ${(p.addendum * 0.7).toFixed(2)}`,
      },
    );
  if (!section && t.splineRoot < t.wall / 2 - 1e-9) {
    const value =
      Math.floor(
        ((p.module * p.teeth) / 2 +
          (p.form === 'involute' ? p.shift * p.module : 0) -
          p.dedendum * p.module -
          p.wall / 2) *
          1e5,
      ) / 1e5;
    return stop(
      'The spline’s roots cut into its wall.',
      `They lie ${mm(t.splineRoot)} over the neutral line, half the wall is ${mm(t.wall / 2)}.`,
      value > 2e-3
        ? `Take a neutral line of ${mm(value)} or less, or a thinner wall.`
        : 'Take more teeth or a thinner wall.',
      'radius',
      value > 2e-3 ? { path: 'radius', value, label: `Neutral line ${mm(value)}` } : undefined,
    );
  }
  if (!(t.radius - t.wall / 2 - pushed > 1e-3))
    return stop(
      'There is no room inside for a wave generator.',
      `The wall reaches in to ${mm(t.radius - t.wall / 2)} from the middle.`,
      'Take more teeth or a larger module.',
      'teeth',
    );
  if (pushed > 0.2 * t.radius)
    return stop(
      `A throw of ${mm(pushed)} tears the spline.`,
      `It is ${((100 * pushed) / t.radius).toFixed(0)} % of the neutral line’s radius; no wall bends that far.`,
      'Take more teeth, fewer lobes or a smaller module.',
      'teeth',
      { path: 'teeth', value: Math.min(400, Math.ceil((10 * p.lobes) / 2) * 2), label: 'More teeth' },
    );
  const lineFor = (lift: number): NeutralLine =>
    neutralLine({
      shape: p.shape,
      lobes: p.lobes,
      radius: t.radius,
      throw: lift,
      spread: p.spread,
      rollers: p.rollers,
    });
  const line = lineFor(pushed);
  const mesh: WaveMesh = {
    line,
    splineTeeth: p.teeth,
    ringTeeth: ringTeeth(p),
    tooth: t.tooth,
    space: t.space,
    ringTip: t.ringTip,
  };
  const course = waveCourse(mesh, STEPS);
  const at = new Float64Array(4);
  line.at(0, at);
  const top = Math.hypot(at[0]!, at[1]!);
  const engaged = top + t.splineTip - t.ringTip;
  if (!(engaged > 0)) {
    const need = Math.ceil(p.depth * (1 + (-engaged + 0.3 * t.module) / nominal) * 100) / 100;
    return stop(
      'No tooth reaches the ring.',
      `The spline’s tips stay ${mm(-engaged)} inside the ring’s at the lobes’ tops.`,
      'Take more depth, a higher addendum or less gap.',
      'depth',
      need <= 1.5
        ? { path: 'depth', value: need, label: `Depth ${need}` }
        : { path: 'slack', value: 0, label: 'No gap' },
    );
  }
  const pass = t.ringTip - (line.least + t.splineTip);
  if (hasRollers(p) && p.shape === 'two' && p.lobes === 2 && pass < -0.6 * t.module)
    return stop(
      'The teeth never leave the ring.',
      `Between the lobes the tips still overlap by ${mm(-pass)}.`,
      'Take less addendum or more depth.',
      'addendum',
      { path: 'addendum', value: Number((p.addendum * 0.6).toFixed(2)), label: 'Lower addendum' },
    );
  let [least, leastAt, leastHeight, count] = [Infinity, 0, 0, 0];
  for (let i = 0; i <= STEPS; i++) {
    if (course.depth[i]! > 0) count += i === 0 || i === STEPS ? 0.5 : 1;
    const c = Math.min(course.ahead[i]!, course.behind[i]!);
    if (c < least) [least, leastAt, leastHeight] = [c, course.angles[i]!, course.tightest[i]!];
  }
  const follow = p.body === 'belt' ? followSpace(mesh) : undefined;
  const mid = (t.splineTip + Math.max(t.splineRoot, t.splineTip - engaged)) / 2;
  const lean = Math.acos(Math.max(-1, Math.min(1, t.tooth.cosine(mid))));
  return ok({
    section: t.section,
    module: t.module,
    radius: t.radius,
    wall: t.wall,
    nominal,
    throw: pushed,
    line,
    made: p.slack > 0 ? lineFor(nominal) : line,
    mesh,
    course,
    lean,
    splineTip: t.splineTip,
    splineRoot: t.splineRoot,
    ringTip: t.ringTip,
    ringRoot: t.ringRoot,
    engaged,
    tipRoom: t.ringRoot - (top + t.splineTip),
    rootRoom: t.ringTip - (top + t.splineRoot),
    pass,
    inMesh: (count / STEPS) * p.teeth,
    follow,
    least,
    leastAt,
    leastHeight,
    shapeFactor: line.bend,
    outside: 2 * (t.ringRoot + p.ringWall),
  });
}

/**
 * Spaces of a ring of as many teeth as the spline on the same circle. It turns with the spline on the mean, but each
 * tooth sways along it by w0/n·sin nθ: spaces are wider by what that takes on either side.
 */
function followSpace(mesh: WaveMesh): { space: Side; wider: number } {
  const course = waveCourse({ ...mesh, ringTeeth: mesh.splineTeeth }, STEPS);
  let need = 0;
  for (let i = 0; i <= STEPS; i++) {
    const least = Math.min(course.ahead[i]!, course.behind[i]!);
    if (Number.isFinite(least)) need = Math.max(need, -least / mesh.space.cosine(mesh.ringTip));
  }
  const { space } = mesh;
  return { wider: 2 * need, space: { ...space, half: (y) => space.half(y) + need } };
}

/** How the tooth that started at `index` stands when the generator has turned, with the spline turned on by `slip`. */
export function toothState(
  g: StrainWaveGeometry,
  index: number,
  crank: number,
  off: readonly [number, number] = [0, 0],
): ReturnType<typeof pairState> {
  const along = (2 * Math.PI * index) / g.mesh.splineTeeth - crank;
  return pairState(g.mesh, along, nearestPitch(g.mesh, along), off);
}
