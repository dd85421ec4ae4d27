import { inv } from './involute.ts';
import type { Pair } from './pair.ts';
import type { ToothSide } from './profile.ts';

/** How a pair's teeth may collide outside their contact. Each is a margin: below 0 they do. */
export interface Interference {
  /**
   * Length along the line of action between where contact starts and where the involute of wheel 1, and of wheel 2,
   * begins, m.
   */
  readonly root1: number;
  readonly root2: number;
  /** Radial clearance between the tip of one and the root of the other, m: tip 1 to root 2, tip 2 to root 1. */
  readonly clear12: number;
  readonly clear21: number;
  /** Inner pairs: angle by which the tips pass one another (trochoid interference), rad; Infinity for outside pairs. */
  readonly tips: number;
  /**
   * Inner pairs: angle by which the pinion can be moved in along the radius (trimming), rad; Infinity for outside
   * pairs.
   */
  readonly entry: number;
}

const arccos = (x: number): number => Math.acos(Math.max(-1, Math.min(1, x)));

/** Where the teeth of a ring and its pinion pass outside their mesh; the tips' circles cross there. */
function tipsPass(p: Pair): number {
  const { s1, s2, centre: a } = p;
  if (s2.ra >= a + s1.ra) return Infinity;
  const at1 = arccos(s1.rb / s1.ra);
  const at2 = arccos(s2.rb / s2.ra);
  const w = inv(p.working);
  const t1 = arccos((s2.ra ** 2 - s1.ra ** 2 - a * a) / (2 * a * s1.ra)) + inv(at1) - w;
  const t2 = arccos((a * a + s2.ra ** 2 - s1.ra ** 2) / (2 * a * s2.ra));
  return (t1 * p.g1.teeth) / p.g2.teeth + w - inv(at2) - t2;
}

/** Whether a pinion can be put into its ring along the radius. */
function radialEntry(p: Pair): number {
  const { s1, s2 } = p;
  const u = p.g2.teeth / p.g1.teeth;
  const at1 = arccos(s1.rb / s1.ra);
  const at2 = arccos(s2.rb / s2.ra);
  const k = Math.cos(at1) / Math.cos(at2);
  const q1 = (1 - k * k) / (1 - 1 / (u * u));
  const q2 = (1 / (k * k) - 1) / (u * u - 1);
  // Tips that never meet sideways can always be put in.
  if (!(q1 >= 0) || !(q2 >= 0)) return Infinity;
  const w = inv(p.working);
  const t1 = Math.asin(Math.sqrt(Math.min(1, q1)));
  const t2 = Math.asin(Math.sqrt(Math.min(1, q2)));
  return t1 + inv(at1) - w - u * (t2 + inv(at2) - w);
}

/**
 * Interferences of a pair from its true tooth sides.
 *
 * Source: ISO 21771 for active flanks; trochoid and trimming interference of inner pairs in the form usual in gear
 * handbooks
 * (θ1·z1/z2 + inv α_w − inv α_a2 ≥ θ2, and the radial entry condition).
 */
export function interference(p: Pair, t1: ToothSide, t2: ToothSide): Interference {
  const line = p.centre * Math.sin(p.working);
  const along = (t: ToothSide, radius: number) => Math.sqrt(Math.max(0, radius ** 2 - t.size.rb ** 2));
  const end2 = p.ring ? line + p.end : line - p.end;
  return {
    root1: p.start - along(t1, t1.form),
    root2: p.ring ? along(t2, t2.form) - end2 : end2 - along(t2, t2.form),
    clear12: p.ring ? t2.root - p.centre - p.s1.ra : p.centre - p.s1.ra - t2.root,
    clear21: p.ring ? p.s2.ra - p.centre - t1.root : p.centre - p.s2.ra - t1.root,
    tips: p.ring ? tipsPass(p) : Infinity,
    entry: p.ring ? radialEntry(p) : Infinity,
  };
}
