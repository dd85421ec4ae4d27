import { arcCurve, fitArcs, lineCurve, mirrored, type Curve } from '../shape/curve.ts';
import { rootBetween } from '../math/root.ts';
import { drawnFrom, sampled, type ExactContour, type ExactPiece } from '../shape/exact.ts';
import { OutlinePen, type Outline } from '../shape/outline.ts';
import { repeated } from '../shape/repeat.ts';
import { gearSize, halfAt, type Gear, type GearSize } from './gear.ts';
import { inv } from './involute.ts';

/** What a piece of a tooth's side is; exact splines are made of flanks and roots, arcs of the rest. */
export interface SidePiece {
  readonly kind: 'tip' | 'chamfer' | 'flank' | 'fillet' | 'root';
  readonly curve: Curve;
}

/** One side of a tooth, or of a ring's space, in the transverse section. */
export interface ToothSide {
  readonly size: GearSize;
  /**
   * From the middle of a tooth (a ring's space), on the x axis, to the middle of the next space (tooth),
   * counter-clockwise.
   */
  readonly pieces: readonly SidePiece[];
  /** Radius where the involute ends at the root: on an outside wheel it begins there, on a ring it ends there. */
  readonly form: number;
  /** Radius where the involute ends at the tip, under the chamfer where there is one. */
  readonly tipForm: number;
  /** Whether the cutter ate into the involute. */
  readonly undercut: boolean;
  /** Whether the flanks meet below the tip circle: the tip is then a point. */
  readonly pointed: boolean;
  /** Radius of the root circle as it came out. */
  readonly root: number;
  /** Root rounding that was possible over the module; below the one asked where the space is too narrow. */
  readonly fillet: number;
}

/** The involute of a base circle between two radii, on the counter-clockwise side; half the base angle `halfBase`. */
function flankCurve(rb: number, halfBase: number, from: number, to: number): Curve {
  const t0 = Math.sqrt(Math.max(0, (from / rb) ** 2 - 1));
  const t1 = Math.sqrt(Math.max(0, (to / rb) ** 2 - 1));
  const back = to < from ? Math.PI : 0;
  return (u, out) => {
    const t = t0 + u * (t1 - t0);
    const a = halfBase - t;
    const c = Math.cos(a);
    const s = Math.sin(a);
    out[0] = rb * (c - t * s);
    out[1] = rb * (s + t * c);
    out[2] = a + back;
  };
}

/** A root curve with its ends: `at(u)` runs from the flank's end to the root circle. */
interface Root {
  readonly curve: Curve;
  readonly fillet: number;
  /** Radius of the flank's end, which an undercut moves outwards. */
  readonly form: number;
  readonly undercut: boolean;
  /** Angle at which it meets the root circle, and that circle's radius. */
  readonly angle: number;
  readonly radius: number;
}

/**
 * The trochoid that the rounded tip of a rack leaves: each point of the rounding touches the wheel when its normal
 * passes the pitch point.
 *
 * Source: gearing law applied to the basic rack of ISO 53; a helical rack's rounding is a circle in its normal section
 * and so an
 * ellipse in the transverse one.
 */
function rackRoot(g: Gear, z: GearSize): Root {
  const c = Math.cos(g.helix);
  const [ca, sa] = [Math.cos(g.pressure), Math.sin(g.pressure)];
  const tip = -(g.dedendum - g.shift) * g.module;
  const thick = 2 * z.half * z.r * c;
  const widest = ((Math.PI * g.module) / 2 - thick / 2 + tip * Math.tan(g.pressure)) / (1 / ca - Math.tan(g.pressure));
  const rho = Math.max(0, Math.min(g.fillet * g.module, widest));
  const hc = tip + rho;
  const sc = thick / 2 - hc * Math.tan(g.pressure) + rho / ca;
  const point = (theta: number, out: Float64Array) => {
    const ct = Math.cos(theta);
    const st = Math.sin(theta);
    const s = (sc - rho * ct) / c;
    const h = hc - rho * st;
    const star = s - (h * ct * c) / st;
    const turn = star / z.r;
    const x = z.r + h;
    const y = s - star;
    const cr = Math.cos(turn);
    const sr = Math.sin(turn);
    out[0] = cr * x - sr * y;
    out[1] = sr * x + cr * y;
    // Heading from the derivatives by θ: the trochoid of a small rounding runs through cusps, where the rack's own
    // tangent would point backwards.
    const dh = -rho * ct;
    const ds = (rho * st) / c;
    const dStar = ds - c * ((dh * ct) / st - h / (st * st));
    out[2] = Math.atan2(ds - dStar + (dStar / z.r) * x, dh - (dStar / z.r) * y) + turn;
  };
  const p = new Float64Array(3);
  // The flank stands wider than the trochoid where it has been cut into: find where they cross.
  const over = (theta: number) => {
    point(theta, p);
    const radius = Math.sqrt(p[0]! * p[0]! + p[1]! * p[1]!);
    return Math.atan2(p[1]!, p[0]!) - (radius > z.rb ? halfAt(z, radius) : z.halfBase);
  };
  const contact = (hc - rho * sa) / Math.sin(z.at) ** 2;
  const undercut = contact < -z.r * (1 + 1e-12);
  let first = g.pressure;
  if (undercut) {
    // The tip's end first stands outside the flank, on its false branch; where it passes inside is the corner it
    // leaves.
    let [lo, hi] = [g.pressure, Math.PI / 2];
    for (let k = 1; k <= 256; k++) {
      // Finer towards the flank: a bite that is only just one lies there.
      const theta = g.pressure + (Math.PI / 2 - g.pressure) * (k / 256) ** 4;
      if (over(theta) < 0) {
        hi = theta;
        break;
      }
      lo = theta;
    }
    const corner = rootBetween(over, lo, hi);
    first = Number.isNaN(corner) ? lo : corner;
  }
  point(first, p);
  const form = Math.hypot(p[0]!, p[1]!);
  point(Math.PI / 2, p);
  return {
    curve: (u, out) => point(first + u * (Math.PI / 2 - first), out),
    form: Math.max(form, z.rb),
    undercut,
    angle: Math.atan2(p[1]!, p[0]!),
    radius: Math.hypot(p[0]!, p[1]!),
    fillet: rho / g.module,
  };
}

/**
 * The root that a pinion-shaped cutter's rounded tip leaves in a ring: again each point touches when its normal passes
 * the pitch point.
 *
 * Source: gearing law for an inner pair of cutter and ring at their generating centre distance.
 */
function cutterRoot(g: Gear, z: GearSize): Root {
  const z0 = Math.max(3, Math.min(g.cutter, g.teeth - 2));
  const r0 = (z.mt * z0) / 2;
  const rb0 = r0 * Math.cos(z.at);
  // A cutter shifted as the ring is: both roll on their reference circles.
  const working = z.at;
  const a0 = (z.mt * (g.teeth - z0)) / 2;
  let tip = z.rf - a0;
  const halfBase0 = Math.PI / (2 * z0) + (2 * Math.tan(g.pressure) * g.shift) / z0 + inv(z.at);
  const centreAngle = (rho: number, at = tip) => {
    const rc = at - rho;
    return halfBase0 - rho / rb0 - inv(Math.acos(Math.min(1, rb0 / rc)));
  };
  if (!(centreAngle(0) >= 0)) {
    // A cutter that ends in a point before it is deep enough leaves a shallower root.
    const ends = rootBetween((at) => centreAngle(0, at), rb0, tip);
    // One shifted so far that it has no thickness even at its base cuts no deeper than that.
    tip = Number.isNaN(ends) ? rb0 : ends * (1 - 1e-15);
  }
  // The rounding's centre must lie beyond the pitch circle, or it would cut on its way in and out again.
  let rho = Math.min(g.fillet * g.module, Math.max(0, tip - r0 - 0.02 * g.module));
  if (!(centreAngle(rho) >= 0) || tip - rho <= rb0) {
    const most = Math.min(rho, tip - rb0);
    rho = centreAngle(most) >= 0 ? most : centreAngle(0) > 0 ? rootBetween(centreAngle, 0, most) * (1 - 1e-15) : 0;
  }
  const rc = tip - rho;
  const gamma = Math.max(0, centreAngle(rho));
  const touch = (Math.sqrt(Math.max(0, rc * rc - rb0 * rb0)) + rho) / rb0;
  const from = -working - (halfBase0 - touch);
  const pitch = z.r;
  // An allowance turns both sides of the space apart; the root goes with them.
  const apart = g.allowance / (2 * Math.cos(g.helix) * z.r);
  const point = (u: number, out: Float64Array) => {
    const turn = from + u * (-gamma - from);
    const qx = a0 + rc * Math.cos(gamma + turn);
    const qy = rc * Math.sin(gamma + turn);
    // A sharp tip may pass through the pitch point itself, where it has no normal.
    const d = Math.max(Number.MIN_VALUE, Math.sqrt((qx - pitch) * (qx - pitch) + qy * qy));
    const px = qx + (rho * (qx - pitch)) / d;
    const py = qy + (rho * qy) / d;
    const back = apart - (turn * z0) / g.teeth;
    const c = Math.cos(back);
    const s = Math.sin(back);
    out[0] = c * px - s * py;
    out[1] = s * px + c * py;
    // Heading from the derivatives by the cutter's turn, seen from the ring that turns along.
    const nx = (qx - pitch) / d;
    const ny = qy / d;
    const dqx = -qy;
    const dqy = qx - a0;
    const across = (ny * dqx - nx * dqy) * (rho / d);
    const on = from + gamma <= 0 ? 1 : -1;
    const ratio = z0 / g.teeth;
    out[2] = Math.atan2(on * (dqy - nx * across - ratio * px), on * (dqx + ny * across + ratio * py)) + back;
  };
  const p = new Float64Array(3);
  point(0, p);
  const form = Math.hypot(p[0]!, p[1]!);
  point(1, p);
  return {
    curve: point,
    form,
    undercut: false,
    angle: Math.atan2(p[1]!, p[0]!),
    radius: Math.hypot(p[0]!, p[1]!),
    fillet: rho / g.module,
  };
}

/** Reversed in direction. */
const reversed =
  (c: Curve): Curve =>
  (u, out) => {
    c(1 - u, out);
    out[2] = out[2]! + Math.PI;
  };

/**
 * One side of a gear's tooth, exactly: tip, chamfer, involute, root trochoid, root circle.
 *
 * Source: ISO 21771 for the involute; root curves by `rackRoot` and `cutterRoot`.
 */
export function toothSide(g: Gear): ToothSide {
  const z = gearSize(g);
  const pieces: SidePiece[] = [];
  const root = g.ring ? cutterRoot(g, z) : rackRoot(g, z);
  const end = Math.PI / g.teeth;
  if (g.ring) {
    const rootAngle = root.angle;
    if (rootAngle > 1e-9) pieces.push({ kind: 'root', curve: arcCurve(0, 0, root.radius, 0, rootAngle) });
    pieces.push({ kind: 'fillet', curve: reversed(root.curve) });
    const tip = Math.max(z.ra, z.rb);
    const chamfered = g.chamfer > 0 ? Math.min(tip + g.chamfer, root.form) : tip;
    pieces.push({ kind: 'flank', curve: flankCurve(z.rb, z.halfBase, root.form, chamfered) });
    const at = halfAt(z, chamfered);
    const tipAngle = g.chamfer > 0 ? Math.min(end, at + (chamfered - tip) / tip) : at;
    if (g.chamfer > 0)
      pieces.push({
        kind: 'chamfer',
        curve: lineCurve(
          chamfered * Math.cos(at),
          chamfered * Math.sin(at),
          tip * Math.cos(tipAngle),
          tip * Math.sin(tipAngle),
        ),
      });
    if (end > tipAngle) pieces.push({ kind: 'tip', curve: arcCurve(0, 0, tip, tipAngle, end - tipAngle) });
    return {
      size: z,
      pieces,
      form: root.form,
      tipForm: chamfered,
      undercut: false,
      pointed: tipAngle >= end,
      root: root.radius,
      fillet: root.fillet,
    };
  }
  // Where the flanks meet below the tip circle the tooth ends in a point there.
  let tip = z.ra;
  const pointed = halfAt(z, z.ra) <= 0;
  if (pointed) {
    const point = rootBetween((r) => halfAt(z, r), z.rb, z.ra);
    tip = Number.isNaN(point) ? z.rb : point;
  }
  const form = Math.min(root.form, tip);
  const chamfered = g.chamfer > 0 && !pointed ? Math.max(tip - g.chamfer, form) : tip;
  const at = halfAt(z, chamfered);
  const tipAngle = chamfered < tip ? Math.max(0, at - (tip - chamfered) / tip) : at;
  if (tipAngle > 1e-9) pieces.push({ kind: 'tip', curve: arcCurve(0, 0, tip, 0, tipAngle) });
  if (chamfered < tip)
    pieces.push({
      kind: 'chamfer',
      curve: lineCurve(
        tip * Math.cos(tipAngle),
        tip * Math.sin(tipAngle),
        chamfered * Math.cos(at),
        chamfered * Math.sin(at),
      ),
    });
  pieces.push({ kind: 'flank', curve: flankCurve(z.rb, z.halfBase, chamfered, form) });
  pieces.push({ kind: 'fillet', curve: root.curve });
  if (end - root.angle > 1e-9)
    pieces.push({ kind: 'root', curve: arcCurve(0, 0, root.radius, root.angle, end - root.angle) });
  return {
    size: z,
    pieces,
    form,
    tipForm: chamfered,
    undercut: root.undercut,
    pointed,
    root: root.radius,
    fillet: root.fillet,
  };
}

/** Steps of a flank or root between which a spline runs; with an involute it strays by less than a nanometre. */
const SPLINE_STEPS = 32;

/**
 * One tooth exactly, from the middle of a space to the next: arcs for tip and root circle, splines for flank and
 * fillet.
 */
function toothContour(g: Gear, side: ToothSide): ExactContour {
  const piece = (kind: SidePiece['kind'], curve: Curve): ExactPiece => ({
    kind: kind === 'chamfer' ? 'line' : kind === 'tip' || kind === 'root' ? 'arc' : 'spline',
    points: sampled(curve, kind === 'chamfer' ? 1 : kind === 'tip' || kind === 'root' ? 2 : SPLINE_STEPS),
  });
  const whole = side.pieces.filter((q) => {
    const ends = sampled(q.curve, 1);
    return Math.hypot(ends[2]! - ends[0]!, ends[3]! - ends[1]!) > 1e-9;
  });
  return {
    pieces: [
      ...[...whole].reverse().map((q) => piece(q.kind, mirrored(q.curve))),
      ...whole.map((q) => piece(q.kind, q.curve)),
    ],
    repeat: g.teeth,
  };
}

/** Arcs stay this close to the true curve unless asked otherwise, m. */
export const FINE = 1e-7;

/**
 * A gear's closed outline in its transverse section: teeth of an outside wheel, or the toothed hole of a ring. The
 * first tooth (a ring's first space) lies on the x axis.
 *
 * @param tolerance largest distance of its arcs from the true curve, m
 */
export function gearOutline(g: Gear, tolerance = FINE, side: ToothSide = toothSide(g)): Outline {
  const pen = new OutlinePen();
  for (const p of [...side.pieces].reverse()) fitArcs(mirrored(p.curve), tolerance, pen);
  for (const p of side.pieces) fitArcs(p.curve, tolerance, pen);
  return drawnFrom(repeated(pen.close().points, g.teeth), () => toothContour(g, side));
}
