import type { ContactSet } from '../../lobed/index.ts';
import { OutlinePen, type Outline } from '../../shape/outline.ts';

/** A roller wave as its profile depends on it; lengths m. */
export interface RollerWave {
  /** Radius of the eccentric with bearing and sleeve, R_c. */
  readonly eccentric: number;
  /** Radius of a roller, r. */
  readonly roller: number;
  readonly throw: number;
  /** Rollers N, and lobes of the ring W = N ± 1. */
  readonly rollers: number;
  readonly lobes: number;
}

/**
 * Distance of a roller's middle from the axis at an angle ψ from the throw: e·cos ψ + √((R_c + r)² − e²·sin²ψ).
 * @example rollerAt({ eccentric: 0.02, roller: 0.002, throw: 0.00035, rollers: 20, lobes: 21 }, 0).toFixed(5) // '0.02235'
 */
export function rollerAt(w: RollerWave, psi: number): number {
  const s = w.throw * Math.sin(psi);
  const far = w.eccentric + w.roller;
  return w.throw * Math.cos(psi) + Math.sqrt(far * far - s * s);
}

/** How that distance changes with ψ, first and second, m and m. */
function changes(w: RollerWave, psi: number): readonly [number, number] {
  const [c, s] = [Math.cos(psi), Math.sin(psi)];
  const far2 = (w.eccentric + w.roller) ** 2;
  const e = w.throw;
  const root = Math.sqrt(far2 - e * e * s * s);
  const first = -e * s - (e * e * s * c) / root;
  // d/dψ of e²·s·c/root, with root' = −e²·s·c/root.
  const second = -e * c - (e * e * (c * c - s * s)) / root - (e * e * s * c) ** 2 / root ** 3;
  return [first, second];
}

/** A point of the ring's profile, m: the rollers' path ρ(W·θ) moved outwards along its normal by a roller's radius. */
export function ringPoint(w: RollerWave, theta: number, offset = w.roller): readonly [number, number] {
  const psi = w.lobes * theta;
  const rho = rollerAt(w, psi);
  const slope = w.lobes * changes(w, psi)[0];
  const far = Math.sqrt(rho * rho + slope * slope);
  // Outward normal of a polar curve: ρ·u − ρ′·t.
  const [nr, nt] = [rho / far, -slope / far];
  const [c, s] = [Math.cos(theta), Math.sin(theta)];
  const [r, t] = [rho + offset * nr, offset * nt];
  return [r * c - t * s, r * s + t * c];
}

/** Curvature of the rollers' path at an angle θ, 1/m: below 0 where it bends towards the axis. */
export function pathCurvature(w: RollerWave, theta: number): number {
  const psi = w.lobes * theta;
  const rho = rollerAt(w, psi);
  const [d1, d2] = changes(w, psi);
  const [p1, p2] = [w.lobes * d1, w.lobes * w.lobes * d2];
  return (rho * rho + 2 * p1 * p1 - rho * p2) / (rho * rho + p1 * p1) ** 1.5;
}

/** Steps over half a lobe that extremes are looked for in. */
const FINE = 48;

/**
 * Least radius at which the rollers' path bends towards the axis, m; Infinity where it never does. Below a roller's radius
 * the ring is undercut.
 */
export function leastHollow(w: RollerWave): number {
  let [best, at] = [0, 0];
  for (let i = 0; i <= FINE; i++) {
    const theta = (Math.PI * i) / FINE / w.lobes;
    const k = -pathCurvature(w, theta);
    if (k > best) [best, at] = [k, theta];
  }
  if (best <= 0) return Infinity;
  // Sharpest at a crest of the ring or a hair beside it: a finer look about the best.
  const step = Math.PI / FINE / w.lobes;
  let [low, high] = [at - step, at + step];
  for (let i = 0; i < 40; i++) {
    const [a, b] = [low + (high - low) * 0.382, low + (high - low) * 0.618];
    if (-pathCurvature(w, a) > -pathCurvature(w, b)) high = b;
    else low = a;
  }
  return 1 / Math.max(best, -pathCurvature(w, (low + high) / 2));
}

/** Steps over half a lobe that its reach is looked for in. */
const REACH = 1600;

/** Least and largest distance of the ring's profile from the axis, m, undercut or not. */
export function ringReach(w: RollerWave): readonly [number, number] {
  let [least, most] = [Infinity, 0];
  for (let i = 0; i <= REACH; i++) {
    const [x, y] = ringPoint(w, (Math.PI * i) / REACH / w.lobes);
    const r = Math.hypot(x, y);
    least = Math.min(least, r);
    most = Math.max(most, r);
  }
  return [least, most];
}

/** The ring's inner profile as a closed curve, points so dense that chords stray less than a tolerance, m. */
export function ringOutline(w: RollerWave, offset: number, tolerance: number, turn = 0): Outline {
  // Chord error of an arc of the sharpest bend: s²·κ/8.
  const sharp = Math.max(1 / leastHollow(w), 1 / (w.eccentric + w.roller)) + 1 / Math.max(offset, 1e-4);
  const step = Math.sqrt((8 * tolerance) / sharp);
  const each = Math.min(2000, Math.max(16, Math.ceil((2 * Math.PI * (w.eccentric + 2 * w.roller)) / w.lobes / step)));
  const pen = new OutlinePen();
  for (let i = 0; i < each * w.lobes; i++) {
    const theta = (2 * Math.PI * i) / (each * w.lobes);
    const [x, y] = ringPoint(w, theta, offset);
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    pen.to(c * x - s * y, s * x + c * y);
  }
  return pen.close();
}

/** How the rollers of one row stand at an angle of the crank against the cage, by roller. */
export interface RowState extends ContactSet {
  /** Distance of each roller's middle from the axis, m, and how it changes with the crank's angle. */
  readonly rho: Float64Array;
  readonly rise: Float64Array;
  /** Push of the cage's wall, and of the eccentric along x and y, for a newton at the ring. */
  readonly wall: Float64Array;
  readonly ex: Float64Array;
  readonly ey: Float64Array;
}

/**
 * Every roller of a row when the throw stands at an angle against the cage.
 *
 * Gaps are those cut all round. Levers are the ring's: how much its surface comes nearer when it turns counter-clockwise
 * against the cage, ρ·sin β with tan β = ρ′/ρ.
 */
export function rowState(w: RollerWave, crank: number, gap: number): RowState {
  const N = w.rollers;
  const make = () => new Float64Array(N);
  const s = {
    gaps: make().fill(gap),
    arms: make(),
    nx: make(),
    ny: make(),
    slides: make(),
    curves: make(),
    rho: make(),
    rise: make(),
    wall: make(),
    ex: make(),
    ey: make(),
  };
  const side = w.lobes > N ? 1 : -1;
  const far = w.eccentric + w.roller;
  for (let k = 0; k < N; k++) {
    const a = (2 * Math.PI * k) / N;
    const psi = a - crank;
    const rho = rollerAt(w, psi);
    const [d1] = changes(w, psi);
    // Along the ring ψ runs W times as fast, and against it where it has a lobe less.
    const slope = side * w.lobes * d1;
    const long = Math.sqrt(rho * rho + slope * slope);
    const [cosB, sinB] = [rho / long, slope / long];
    s.rho[k] = rho;
    s.rise[k] = d1;
    s.arms[k] = rho * sinB;
    s.curves[k] = pathCurvature(w, (side * psi) / w.lobes);
    // Radial balance of the roller between ring and eccentric; the wall takes what is left across.
    const radial = (rho - w.throw * Math.cos(psi)) / far;
    const push = cosB / radial;
    const across = (w.throw * Math.sin(psi)) / far;
    s.wall[k] = -(push * across + sinB);
    const [c, sn] = [Math.cos(a), Math.sin(a)];
    // The roller pushes the eccentric back.
    s.ex[k] = -push * (radial * c - across * sn);
    s.ey[k] = -push * (radial * sn + across * c);
    // The ring runs by beyond the roller, at the roller's middle and once more by its radius.
    s.slides[k] = long + w.roller;
  }
  return s;
}
