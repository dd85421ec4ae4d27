import { ok, refuse, type Result } from '../../result.ts';
import { OutlinePen, type Outline } from '../../shape/outline.ts';
import type { BeltSection } from '../../shop/section.ts';

export const pitchRadius = (pitch: number, teeth: number): number => (pitch * teeth) / (2 * Math.PI);

/** Outside radius of a pulley: pitch radius less the section's pitch-line offset. */
export const outsideRadius = (s: BeltSection, teeth: number): number => pitchRadius(s.pitch, teeth) - s.offset;

/**
 * Half of one tooth space in its own frame, +y outwards: vertices from the outside circle down to the centre line, x ≥
 * 0.
 */
interface HalfSpace {
  readonly points: readonly (readonly [number, number])[];
  /** Signed sweep of the piece that starts at each point, walking down; positive counter-clockwise. */
  readonly sweeps: readonly number[];
}

const turn = (c: readonly [number, number], a: readonly [number, number], b: readonly [number, number]): number => {
  const raw = Math.atan2(b[1] - c[1], b[0] - c[0]) - Math.atan2(a[1] - c[1], a[0] - c[0]);
  return Math.atan2(Math.sin(raw), Math.cos(raw));
};

function trapezoidHalf(
  space: Extract<BeltSection['space'], { form: 'trapezoid' }>,
  outer: number,
  a: number,
): HalfSpace | undefined {
  const R = outer - a;
  const y0 = outer - space.depth - a;
  const sin = Math.sin(space.flank);
  const cos = Math.cos(space.flank);
  const xb = space.bottom / 2 + (a * (1 - sin)) / cos;
  const rt = Math.max(space.tip - a, 1e-5);
  const rb = Math.min(space.root + a, (xb * cos) / (1 - sin));
  // Tip fillet: touches the flank from inside the tooth and the outside circle from within.
  const bx = xb + rt * cos;
  const by = y0 - rt * sin;
  const half = bx * sin + by * cos;
  const disc = half * half - (bx * bx + by * by - (R - rt) ** 2);
  if (disc < 0) return undefined;
  const t = -half + Math.sqrt(disc);
  const c: [number, number] = [bx + t * sin, by + t * cos];
  const scale = R / Math.hypot(...c);
  const tip: [number, number] = [c[0] * scale, c[1] * scale];
  const flankTop: [number, number] = [c[0] - rt * cos, c[1] + rt * sin];
  const tr = (rb * (1 - sin)) / cos;
  const e: [number, number] = [xb - rb * cos + tr * sin, y0 + rb];
  const flankLow: [number, number] = [e[0] + rb * cos, e[1] - rb * sin];
  const bottom: [number, number] = [e[0], y0];
  if (flankLow[1] > flankTop[1]) return undefined;
  return {
    points: [tip, flankTop, flankLow, bottom],
    sweeps: [turn(c, tip, flankTop), 0, turn(e, flankLow, bottom), 0],
  };
}

function roundHalf(
  space: Extract<BeltSection['space'], { form: 'round' }>,
  outer: number,
  a: number,
): HalfSpace | undefined {
  const R = outer - a;
  const yg = outer - space.depth + space.radius;
  const r = space.radius + a;
  const rt = Math.max(space.tip - a, 1e-5);
  const cy = ((R - rt) ** 2 - (r + rt) ** 2 + yg * yg) / (2 * yg);
  const cx = Math.sqrt((R - rt) ** 2 - cy * cy);
  if (!(cx > 0)) return undefined;
  const tip: [number, number] = [(cx * R) / (R - rt), (cy * R) / (R - rt)];
  const meet: [number, number] = [(cx * r) / (r + rt), yg + ((cy - yg) * r) / (r + rt)];
  const low: [number, number] = [0, yg - r];
  return { points: [tip, meet, low], sweeps: [turn([cx, cy], tip, meet), turn([0, yg], meet, low), 0] };
}

/** Half of a pulley's tooth space; refuses in words a pulley that cannot be cut. */
export function cutSpace(s: BeltSection, teeth: number, allowance = 0): Result<HalfSpace> {
  const outer = outsideRadius(s, teeth);
  const { space } = s;
  const half =
    outer - space.depth - allowance <= 0
      ? undefined
      : space.form === 'trapezoid'
        ? trapezoidHalf(space, outer, allowance)
        : roundHalf(space, outer, allowance);
  if (half && 2 * Math.atan2(half.points[0]![0], half.points[0]![1]) < (2 * Math.PI) / teeth) return ok(half);
  return refuse(
    `A ${s.id} pulley of ${teeth} teeth cannot be cut.`,
    'The tooth spaces run into each other or into the middle.',
    allowance > 0 ? 'Take more teeth, or a smaller profile allowance.' : 'Take more teeth.',
  );
}

/**
 * Outline of a synchronous pulley as it is cut: every tooth space true to the section, arcs exact, space 0 centred on
 * the
 * positive x axis.
 *
 * @param s belt section
 * @param teeth number of teeth
 * @param allowance the contour is moved into the material by this much, m ≥ 0 (for printed pulleys, which come out fat)
 * @returns a closed counter-clockwise outline, or why no such tooth can be cut
 */
export function pulleyOutline(s: BeltSection, teeth: number, allowance = 0): Result<Outline> {
  const cut = cutSpace(s, teeth, allowance);
  if (!cut.ok) return cut;
  const half = cut.value;
  const [tx, ty] = half.points[0]!;
  const halfAngle = Math.atan2(tx, ty);
  const step = (2 * Math.PI) / teeth;
  const pen = new OutlinePen();
  const n = half.points.length;
  const landBulge = Math.tan((step - 2 * halfAngle) / 4);
  for (let k = 0; k < teeth; k++) {
    const mid = k * step;
    const c = Math.cos(mid);
    const sn = Math.sin(mid);
    // The frame's +y is the direction `mid`, its +x a quarter turn clockwise of it: walking counter-clockwise starts at
    // +x.
    const put = (x: number, y: number, sweep: number) =>
      pen.to(y * c + x * sn, y * sn - x * c, sweep === 0 ? 0 : Math.tan(sweep / 4));
    const onAxis = half.points[n - 1]![0] === 0;
    for (let i = 0; i < n; i++) {
      // Where the half ends on the centre line its last vertex is shared with the mirrored half.
      const [x, y] = half.points[i]!;
      if (i === n - 1 && onAxis) break;
      put(x, y, half.sweeps[i]!);
    }
    if (onAxis) put(0, half.points[n - 1]![1], half.sweeps[n - 2]!);
    for (let i = onAxis ? n - 2 : n - 1; i >= 0; i--) {
      const [x, y] = half.points[i]!;
      put(-x, y, i === 0 ? 0 : half.sweeps[i - 1]!);
    }
    // The last vertex of the space starts the land: bend it.
    pen.bendLast(landBulge);
  }
  return ok(pen.close());
}
