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

/** Where a convex function of one variable is least, by golden section after widening a bracket. */
function leastAt(f: (x: number) => number): number {
  let [lo, hi] = [-1, 1];
  while (f(lo) > f(lo * 0.9) === false && lo > -1e9) lo *= 2;
  while (f(hi) > f(hi * 0.9) === false && hi < 1e9) hi *= 2;
  return golden(f, lo, hi, 36).at;
}

/**
 * What one plate passes at most, per newton of crank force, when torque on the idle crank costs λ: its dual's value and
 * the forces there.
 */
function onePlate(d: PlateDrive, crank: number, idle: number): { value: number; forces: PlateForces } {
  const [ux, uy] = [Math.cos(crank), Math.sin(crank)];
  const lever = (d.pins + 1) * d.throw;
  // Torque on the wheel is Z·e·(u × force), turned so that it is counted positive.
  const z = d.pins * d.throw;
  const [px, py] = [-z * -uy, -z * ux];
  const [qx, qy] = [px + idle * -uy, py + idle * ux];
  // Moments about the pitch point must cancel: (A + (Z + 1)e·u) × c + (B + (Z + 1)e·u) × d = 0.
  const [ax, ay] = [-(lever * uy), d.distance + lever * ux];
  const [bx, by] = [-(lever * uy), -d.distance + lever * ux];
  const two = d.layout !== 'one';
  const dual = (mu: number) =>
    Math.hypot(px - mu * ax, py - mu * ay) + (two ? Math.hypot(qx - mu * bx, qy - mu * by) : 0);
  const mu = two ? leastAt(dual) : (px * ax + py * ay) / (ax * ax + ay * ay);
  const unit = (x: number, y: number): [number, number] | undefined => {
    const l = Math.hypot(x, y);
    return l > 1e-5 * z ? [x / l, y / l] : undefined;
  };
  const first = unit(px - mu * ax, py - mu * ay);
  const second = two ? unit(qx - mu * bx, qy - mu * by) : undefined;
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
  return {
    value: dual(mu),
    forces: {
      first: first ?? rest(ax, ay, second, bx, by),
      second: second ?? (two ? rest(bx, by, first, ax, ay) : [0, 0]),
    },
  };
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
  const sum = (idle: number) => d.phases.reduce((s, phase) => s + onePlate(d, crank + phase, idle).value, 0);
  const price = d.layout === 'idle' ? leastAt((x) => sum(x * d.throw)) * d.throw : 0;
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
