import { cut, prism, type Prism, type SmoothPiece } from '../shape/solid.ts';
import { sampleCurve } from '../shape/curve.ts';
import type { Outline } from '../shape/outline.ts';
import type { Gear } from './gear.ts';
import { gearOutline, toothSide, type ToothSide } from './profile.ts';

/** Points a spline of a flank or a root is run through; between them it strays by nanometres. */
const SPLINE_POINTS = 12;

/** The whole profile as exact pieces: arcs at tips and roots, splines on flanks and fillets. */
export function smoothProfile(g: Gear, side: ToothSide = toothSide(g)): SmoothPiece[] {
  const half = side.pieces.map((p) => ({ kind: p.kind === 'tip' || p.kind === 'root' ? 'arc' : p.kind === 'chamfer' ? 'line' : 'spline', points: sampleCurve(p.curve, p.kind === 'flank' || p.kind === 'fillet' ? SPLINE_POINTS : p.kind === 'chamfer' ? 1 : 2) }) as const);
  const mirror = (points: Float64Array): Float64Array => {
    const n = points.length / 2;
    const out = new Float64Array(points.length);
    for (let i = 0; i < n; i++) {
      out[2 * i] = points[2 * (n - 1 - i)]!;
      out[2 * i + 1] = -points[2 * (n - 1 - i) + 1]!;
    }
    return out;
  };
  const one: SmoothPiece[] = [...[...half].reverse().map((p) => ({ kind: p.kind, points: mirror(p.points) })), ...half];
  const out: SmoothPiece[] = [];
  for (let k = 0; k < g.teeth; k++) {
    const [c, s] = [Math.cos((2 * Math.PI * k) / g.teeth), Math.sin((2 * Math.PI * k) / g.teeth)];
    for (const p of one) {
      const points = new Float64Array(p.points.length);
      for (let i = 0; i < points.length; i += 2) {
        points[i] = c * p.points[i]! - s * p.points[i + 1]!;
        points[i + 1] = s * p.points[i]! + c * p.points[i + 1]!;
      }
      out.push({ kind: p.kind, points });
    }
  }
  return out;
}

/**
 * A gear's body as prisms: one for spur and helical wheels, two mirrored halves for a double helix.
 *
 * @param from bottom, m
 * @param holes of an outside wheel; for a ring pass its rim as `rim`
 */
export function gearPrisms(g: Gear, width: number, double: boolean, holes: readonly Outline[], options: { from?: number; rim?: Outline; tolerance?: number } = {}): Prism[] {
  const side = toothSide(g);
  const profile = gearOutline(g, options.tolerance, side);
  const from = options.from ?? 0;
  // A right-handed helix turns by b·tan β/r over its width.
  const twist = (h: number, hand: number) => (hand * h * Math.tan(g.helix)) / side.size.r;
  // Holes must not turn with the teeth, so a twisted body has them cut through it afterwards.
  const twisted = g.helix !== 0;
  const one = (z0: number, z1: number, hand: number, turn: number): Prism => ({
    ...prism(options.rim ?? profile, z0, z1, [...(options.rim ? [profile] : []), ...(twisted ? [] : holes)], twist(z1 - z0, hand)),
    turn, smooth: { of: options.rim ? 'hole' : 'outer', pieces: () => smoothProfile(g, side) },
  });
  const half = width / 2;
  const bodies = double && twisted ? [one(from, from + half, -1, 0), one(from + half, from + width, 1, twist(half, -1))] : [one(from, from + width, 1, 0)];
  return [...bodies, ...(twisted ? holes.map((h) => cut(h, from, from + width)) : [])];
}
