/** How plates are driven: one crank beside the wheel, two of which one idles, or two that both drive. */
export type CrankLayout = 'one' | 'idle' | 'both';

export interface PlateDrive {
  /** Pins of the wheel, Z. */
  readonly pins: number;
  readonly throw: number;
  /** Distance of a crank from the wheel's middle, m; a second one stands opposite. */
  readonly distance: number;
  readonly layout: CrankLayout;
  /** Phases of the plates' eccentrics, rad. */
  readonly phases: readonly number[];
}

/**
 * Forces of the cranks on one plate where it passes most, for a limit of one newton: driven (or first) crank, and the
 * other.
 */
export interface PlateForces {
  readonly first: readonly [number, number];
  readonly second: readonly [number, number];
}

const GOLD = (Math.sqrt(5) - 1) / 2;

/** Where a function between two places is least, and its value there, by so many steps of golden section. */
function golden(f: (x: number) => number, from: number, to: number, steps: number): { at: number; value: number } {
  let [lo, hi] = [from, to];
  let [a, b] = [hi - GOLD * (hi - lo), lo + GOLD * (hi - lo)];
  let [fa, fb] = [f(a), f(b)];
  for (let k = 0; k < steps; k++) {
    if (fa <= fb) {
      hi = b;
      [b, fb] = [a, fa];
      a = hi - GOLD * (hi - lo);
      fa = f(a);
    } else {
      lo = a;
      [a, fa] = [b, fb];
      b = lo + GOLD * (hi - lo);
      fb = f(b);
    }
  }
  return { at: (lo + hi) / 2, value: Math.min(fa, fb) };
}

/** Length of a vector that runs straight past a point: √(off² + size²·(μ − at)²). */
interface Passing {
  readonly at: number;
  readonly size: number;
  readonly off: number;
}

/** The vector p − μ·a as it passes the middle. */
function passing(px: number, py: number, ax: number, ay: number): Passing {
  const size = Math.sqrt(ax * ax + ay * ay);
  return { at: (px * ax + py * ay) / (size * size), size, off: Math.abs(px * ay - py * ax) / size };
}

/** Slope of that length at μ; 0 where it bends sharply. */
function slopeAt({ at, size, off }: Passing, mu: number): number {
  const way = size * (mu - at);
  const length = Math.sqrt(off * off + way * way);
  return length > 0 ? (size * way) / length : 0;
}

/** Newton's steps at most, and the last, as a share of the size of what is sought. */
const [STEPS, MET] = [60, 1e-14];

/** Where two such lengths together are least: between the places where either is. */
function leastTogether(p: Passing, q: Passing): number {
  // A sharp bend holds the least in place while the other's slope is less than its own.
  if (q.off <= MET * q.size && Math.abs(slopeAt(p, q.at)) <= q.size) return q.at;
  if (p.off <= MET * p.size && Math.abs(slopeAt(q, p.at)) <= p.size) return p.at;
  let lo = Math.min(p.at, q.at);
  let hi = Math.max(p.at, q.at);
  // From the sharper bend: from there the steps are as small as it is.
  let mu = q.off * p.size < p.off * q.size ? q.at : p.at;
  for (let k = 0; k < STEPS; k++) {
    const slope = slopeAt(p, mu) + slopeAt(q, mu);
    if (slope > 0) hi = mu;
    else lo = mu;
    const next = mu - slope / (bendAt(p, mu) + bendAt(q, mu));
    const kept = next > lo && next < hi ? next : (lo + hi) / 2;
    if (Math.abs(kept - mu) <= MET * Math.max(1, Math.abs(mu))) return kept;
    mu = kept;
  }
  return mu;
}

/** Second derivative of that length. */
function bendAt({ at, size, off }: Passing, mu: number): number {
  const way = size * (mu - at);
  const square = off * off + way * way;
  return square > 0 ? (size * size * off * off) / (square * Math.sqrt(square)) : 0;
}

/** How near a price is found, and what is given up on, both as shares of Z·e. */
const [NEAR, FURTHEST] = [1e-10, 1e9];

/**
 * Where a slope that only rises crosses nought, which is where the convex function it belongs to is least. It jumps at
 * bends that are known, where the least often lies; between them it is found by false position, the end that stays
 * counting half (Illinois).
 *
 * @param bends places at which it jumps
 */
function crossing(slope: (x: number) => number, bends: readonly number[], scale: number): number {
  let lo = -scale;
  let hi = scale;
  const near = NEAR * scale;
  for (const x of [...bends].sort((a, b) => a - b)) {
    const before = slope(x - near);
    const after = slope(x + near);
    if (before <= 0 && after >= 0) return x;
    if (before > 0) {
      hi = x - near;
      if (lo >= hi) lo = hi - scale;
      break;
    }
    lo = x + near;
    if (hi <= lo) hi = lo + scale;
  }
  let below = slope(lo);
  while (below > 0 && lo > -FURTHEST * scale) below = slope((lo -= hi - lo));
  let above = slope(hi);
  while (above < 0 && hi < FURTHEST * scale) above = slope((hi += hi - lo));
  let stays = 0;
  while (hi - lo > near) {
    const cut = (lo * above - hi * below) / (above - below);
    const x = cut > lo && cut < hi ? cut : (lo + hi) / 2;
    const s = slope(x);
    if (Math.abs(s) < NEAR) return x;
    if (s < 0) {
      lo = x;
      below = s;
      if (stays === -1) above /= 2;
      stays = -1;
    } else {
      hi = x;
      above = s;
      if (stays === 1) below /= 2;
      stays = 1;
    }
  }
  return (lo + hi) / 2;
}

/** What one plate passes at most, the forces there, and how that changes with the price of the idle crank's torque. */
interface OnePlate {
  readonly value: number;
  readonly slope: number;
  readonly forces: PlateForces;
}

/**
 * What one plate passes at most, per newton of crank force, when torque on the idle crank costs λ: its dual's value and
 * the forces there.
 */
function onePlate(d: PlateDrive, crank: number, idle: number): OnePlate {
  const ux = Math.cos(crank);
  const uy = Math.sin(crank);
  const lever = (d.pins + 1) * d.throw;
  // Torque on the wheel is Z·e·(u × force), turned so that it is counted positive.
  const z = d.pins * d.throw;
  const px = z * uy;
  const py = -z * ux;
  const qx = px - idle * uy;
  const qy = py + idle * ux;
  // Moments about the pitch point must cancel: (A + (Z + 1)e·u) × c + (B + (Z + 1)e·u) × d = 0.
  const ax = -(lever * uy);
  const ay = d.distance + lever * ux;
  const bx = ax;
  const by = lever * ux - d.distance;
  const two = d.layout !== 'one';
  const size = (x: number, y: number): number => Math.sqrt(x * x + y * y);
  const own = passing(px, py, ax, ay);
  const mu = two ? leastTogether(own, passing(qx, qy, bx, by)) : own.at;
  const [fx, fy] = [px - mu * ax, py - mu * ay];
  const [sx, sy] = [qx - mu * bx, qy - mu * by];
  const unit = (x: number, y: number): [number, number] | undefined => {
    const l = size(x, y);
    return l > 1e-5 * z ? [x / l, y / l] : undefined;
  };
  const first = unit(fx, fy);
  const second = two ? unit(sx, sy) : undefined;
  // A force that costs nothing at these prices is not at its limit: it is what the other's moment leaves.
  const rest = (
    x: number,
    y: number,
    of: readonly [number, number] | undefined,
    ox: number,
    oy: number,
  ): [number, number] => {
    const s = of ? -(ox * of[0] + oy * of[1]) / (x * x + y * y) : 0;
    return [s * x, s * y];
  };
  // So near to nothing it points anywhere: what the other's moment leaves is its slope, too.
  const left = two ? size(sx, sy) : 0;
  const forces: PlateForces = {
    first: first ?? rest(ax, ay, second, bx, by),
    second: second ?? (two ? rest(bx, by, first, ax, ay) : [0, 0]),
  };
  return {
    value: size(fx, fy) + left,
    // Where it is least by its own price, that one moves nothing: only the idle crank's own term is left.
    slope: left > 1e-9 * z ? (sy * ux - sx * uy) / left : forces.second[1] * ux - forces.second[0] * uy,
    forces,
  };
}

/** The price of the idle crank's torque at which a plate's second crank carries nothing; none where there is no such. */
function bendOf(d: PlateDrive, crank: number): number[] {
  const ux = Math.cos(crank);
  const uy = Math.sin(crank);
  const z = d.pins * d.throw;
  const lever = (d.pins + 1) * d.throw;
  const bx = -(lever * uy);
  const by = lever * ux - d.distance;
  // P + λ·(−uy, ux) = μ·B, by the cross product with B.
  const across = -uy * by - ux * bx;
  return Math.abs(across) > 1e-9 * d.distance ? [-(z * uy * by + z * ux * bx) / across] : [];
}

/**
 * Largest torque on the wheel that plates can pass at a crank angle while no crank force exceeds a newton, N·m per
 * newton, with each plate's crank forces there.
 *
 * Source: each plate in equilibrium, its contact forces with a resultant through its pitch point −Z·e·u; an idle crank
 * is one shaft, its torque nought over all plates. The largest sum
 * under these linear conditions and bounded forces is found by its dual (strong duality of a concave programme with an
 * inner point): one price for the idle crank's torque, one for each plate's moment.
 * For one crank the dual is the closed form Z·e·Σ|u × A|/|A + (Z + 1)e·u|.
 */
export function mostTorque(d: PlateDrive, crank: number): { torque: number; plates: readonly PlateForces[] } {
  const slope = (idle: number) => d.phases.reduce((s, phase) => s + onePlate(d, crank + phase, idle).slope, 0);
  const bends = () => d.phases.flatMap((phase) => bendOf(d, crank + phase));
  const price = d.layout === 'idle' ? crossing(slope, bends(), d.pins * d.throw) : 0;
  const plates = d.phases.map((phase) => onePlate(d, crank + phase, price));
  return { torque: plates.reduce((s, x) => s + x.value, 0), plates: plates.map((x) => x.forces) };
}

/** Steps of golden section: a twelfth of a thousandth of the bracket is left. */
const NARROWINGS = 12;

/**
 * The course of that torque over a turn of the crank, and its least over its greatest: nought jams. Least and greatest
 * are sought between the samples, not taken from them.
 *
 * @param steps samples of the course
 */
export function deadPoints(d: PlateDrive, steps = 720): { torques: Float64Array; greatest: number; score: number } {
  const torques = new Float64Array(steps + 1);
  const step = (2 * Math.PI) / steps;
  for (let k = 0; k <= steps; k++) torques[k] = mostTorque(d, k * step).torque;
  const [low, high] = [torques.indexOf(Math.min(...torques)), torques.indexOf(Math.max(...torques))];
  const about = (sign: 1 | -1, k: number) =>
    sign * golden((x) => sign * mostTorque(d, x).torque, (k - 1) * step, (k + 1) * step, NARROWINGS).value;
  const greatest = Math.max(torques[high]!, about(-1, high));
  return { torques, greatest, score: Math.min(torques[low]!, about(1, low)) / greatest };
}
