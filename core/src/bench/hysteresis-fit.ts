import { fitColumns } from './regress.ts';
import { student95 } from './student.ts';

/** A number with its standard uncertainty. */
export interface Known {
  readonly value: number;
  readonly u: number;
}

/** What a loop of torque and angle is made of. */
export interface HysteresisFit {
  /** Width of the dead zone, rad. */
  readonly play: Known;
  /** Slopes from the middle outwards, N·m/rad; one to three. */
  readonly stiffness: readonly Known[];
  /** Torques at which the slope changes, N·m. */
  readonly bends: readonly Known[];
  /** Coulomb friction, half the loop's width in torque, N·m. */
  readonly friction: Known;
  readonly offset: Known;
  /** Standard deviation of the residuals, rad. */
  readonly residual: number;
  readonly dof: number;
  readonly k: number;
  /** How friction answers a reversal: the output waits until twice the friction is taken off, or follows at once. */
  readonly turns: 'waits' | 'follows';
  /** Angle of the fit at each reading, rad; NaN where the reading lies inside the dead zone and counts for nothing. */
  readonly fitted: Float64Array;
  readonly used: number;
}

/** Torque in the spring at each reading by the play operator of width ±friction: it waits until friction is taken off. */
function waiting(torque: Float64Array, friction: number, out: Float64Array): void {
  let x = 0;
  for (let i = 0; i < torque.length; i++) {
    const t = torque[i]!;
    if (x < t - friction) x = t - friction;
    else if (x > t + friction) x = t + friction;
    out[i] = x;
  }
}

/** Torque in the spring at each reading where it follows at once: less the friction, the way the torque goes. */
function following(torque: Float64Array, way: Int8Array, friction: number, out: Float64Array): void {
  for (let i = 0; i < torque.length; i++) out[i] = torque[i]! - way[i]! * friction;
}

/** Columns of the normal equations: up to five unknowns and the right-hand side; row i is the mirror of column i. */
const WIDE = 6;

/** What the normal equations were summed over. */
interface Gathered {
  readonly used: number;
  /** Sum of the squares of the angles. */
  readonly yy: number;
}

/**
 * Normal equations of angle = f0 + s·f1 + s·(u2·f2 + u3·f3 + u4·f4), u the spring's torque in each stretch of slope and
 * s its side, over the readings that count and lie outside the dead zone. Written out in sums of their own: an engine
 * keeps these in registers, and a matrix in memory.
 *
 * @param x torque of the spring, N·m
 * @param y angle, rad
 * @param e1 torque at which the second slope begins, `Infinity` for none
 * @param e2 torque at which the third begins
 */
function gather(
  x: Float64Array,
  y: Float64Array,
  counts: Uint8Array,
  dead: number,
  e1: number,
  e2: number,
  M: Float64Array,
): Gathered {
  let n = 0;
  let yy = 0;
  let s0 = 0;
  let s2 = 0;
  let s3 = 0;
  let s4 = 0;
  let u2 = 0;
  let u3 = 0;
  let u4 = 0;
  let u22 = 0;
  let u23 = 0;
  let u33 = 0;
  let u24 = 0;
  let u34 = 0;
  let u44 = 0;
  let r0 = 0;
  let r1 = 0;
  let r2 = 0;
  let r3 = 0;
  let r4 = 0;
  for (let i = 0; i < x.length; i++) {
    const v = x[i]!;
    const a = v < 0 ? -v : v;
    if (!(a > dead) || counts[i] === 0) continue;
    const s = v < 0 ? -1 : 1;
    const t = y[i]!;
    const ts = s * t;
    const first = a < e1 ? a : e1;
    n++;
    yy += t * t;
    s0 += s;
    s2 += s * first;
    u2 += first;
    u22 += first * first;
    r0 += t;
    r1 += ts;
    r2 += first * ts;
    if (a <= e1) continue;
    const second = (a < e2 ? a : e2) - e1;
    s3 += s * second;
    u3 += second;
    u23 += first * second;
    u33 += second * second;
    r3 += second * ts;
    if (a <= e2) continue;
    const third = a - e2;
    s4 += s * third;
    u4 += third;
    u24 += first * third;
    u34 += second * third;
    u44 += third * third;
    r4 += third * ts;
  }
  M[0] = n;
  M[5] = r0;
  M[WIDE] = s0;
  M[WIDE + 1] = n;
  M[WIDE + 5] = r1;
  M[2 * WIDE] = s2;
  M[2 * WIDE + 1] = u2;
  M[2 * WIDE + 2] = u22;
  M[2 * WIDE + 5] = r2;
  M[3 * WIDE] = s3;
  M[3 * WIDE + 1] = u3;
  M[3 * WIDE + 2] = u23;
  M[3 * WIDE + 3] = u33;
  M[3 * WIDE + 5] = r3;
  M[4 * WIDE] = s4;
  M[4 * WIDE + 1] = u4;
  M[4 * WIDE + 2] = u24;
  M[4 * WIDE + 3] = u34;
  M[4 * WIDE + 4] = u44;
  M[4 * WIDE + 5] = r4;
  return { used: n, yy };
}

/**
 * Solves the first p normal equations in place, by Cholesky.
 *
 * @returns what the solution explains of the sum of squares; undefined where the readings do not determine one
 */
function solveNormal(M: Float64Array, p: number, values: Float64Array): number | undefined {
  let explained = 0;
  for (let r = 0; r < p; r++) {
    const whole = M[(WIDE + 1) * r]!;
    for (let c = 0; c <= r; c++) {
      let v = M[WIDE * r + c]!;
      for (let k = 0; k < c; k++) v -= M[WIDE * r + k]! * M[WIDE * c + k]!;
      if (c < r) M[WIDE * r + c] = v / M[(WIDE + 1) * c]!;
      else {
        if (!(v > 1e-10 * whole)) return undefined;
        M[(WIDE + 1) * r] = Math.sqrt(v);
      }
    }
    let z = M[WIDE * r + 5]!;
    for (let k = 0; k < r; k++) z -= M[WIDE * r + k]! * values[k]!;
    z /= M[(WIDE + 1) * r]!;
    values[r] = z;
    explained += z * z;
  }
  for (let r = p - 1; r >= 0; r--) {
    let z = values[r]!;
    for (let k = r + 1; k < p; k++) z -= M[WIDE * k + r]! * values[k]!;
    values[r] = z / M[(WIDE + 1) * r]!;
  }
  return explained;
}

interface Trial {
  readonly rss: number;
  readonly used: number;
  readonly values: Float64Array;
}

/** The loop with its scratch space. */
class Loop {
  readonly way: Int8Array;
  private readonly x: Float64Array;
  private readonly weight: Float64Array;
  private readonly columns: Float64Array[];
  private readonly matrix = new Float64Array(5 * WIDE);
  private readonly counts: Uint8Array;
  readonly most: number;

  constructor(
    readonly torque: Float64Array,
    readonly angle: Float64Array,
    /** Readings that stand far outside and count for nothing. */
    skip?: Uint8Array,
  ) {
    const n = torque.length;
    this.x = new Float64Array(n);
    this.weight = new Float64Array(n);
    this.columns = Array.from({ length: 5 }, () => new Float64Array(n));
    this.counts = new Uint8Array(n).fill(1);
    if (skip) for (let i = 0; i < n; i++) this.counts[i] = skip[i] ? 0 : 1;
    this.most = torque.reduce((m, t) => Math.max(m, Math.abs(t)), 0);
    this.way = new Int8Array(n);
    let last: -1 | 1 = torque[1]! >= torque[0]! ? 1 : -1;
    for (let i = 0; i < n; i++) {
      const d = i > 0 ? torque[i]! - torque[i - 1]! : torque[1]! - torque[0]!;
      if (Math.abs(d) > 1e-9 * this.most) last = d > 0 ? 1 : -1;
      this.way[i] = last;
    }
  }

  /** The spring's torque at each reading. */
  private spring(friction: number, turns: 'waits' | 'follows'): void {
    if (turns === 'waits') waiting(this.torque, friction, this.x);
    else following(this.torque, this.way, friction, this.x);
  }

  /** Fills columns for a friction and bends: 1, side, and torque in each stretch of slope. */
  private fill(friction: number, bends: readonly number[], turns: 'waits' | 'follows'): void {
    const n = this.torque.length;
    this.spring(friction, turns);
    const dead = 1e-6 * this.most;
    const edges = [0, ...bends, Infinity];
    for (let i = 0; i < n; i++) {
      const x = this.x[i]!;
      const a = Math.abs(x);
      const s = x < 0 ? -1 : 1;
      // Inside the dead zone the angle can be anything between its ends.
      this.weight[i] = a > dead ? this.counts[i]! : 0;
      this.columns[0]![i] = 1;
      this.columns[1]![i] = s;
      for (let j = 0; j + 1 < edges.length; j++)
        this.columns[2 + j]![i] = s * Math.max(0, Math.min(a, edges[j + 1]!) - edges[j]!);
    }
  }

  /** Best offset, play and compliances for a friction and bends. */
  try(friction: number, bends: readonly number[], turns: 'waits' | 'follows'): Trial | undefined {
    const n = this.torque.length;
    const p = 3 + bends.length;
    this.spring(friction, turns);
    const [e1 = Infinity, e2 = Infinity] = bends;
    const { used, yy } = gather(this.x, this.angle, this.counts, 1e-6 * this.most, e1, e2, this.matrix);
    if (used < n * 0.5 || used < bends.length + 6) return undefined;
    const values = new Float64Array(p);
    const explained = solveNormal(this.matrix, p, values);
    return explained === undefined ? undefined : { rss: Math.max(1e-14 * yy, yy - explained), used, values };
  }

  /** Angle by parameters: offset, half the play, compliance of each stretch, friction, bends. */
  predict(p: readonly number[], slopes: number, turns: 'waits' | 'follows', out: Float64Array): Float64Array {
    const bends = p.slice(3 + slopes);
    this.fill(p[2 + slopes]!, bends, turns);
    for (let i = 0; i < out.length; i++) {
      let v = 0;
      for (let c = 0; c < 2 + slopes; c++) v += this.columns[c]![i]! * p[c]!;
      out[i] = this.weight[i] ? v : NaN;
    }
    return out;
  }
}

/** Least of a function of a few variables from a start. Source: Nelder and Mead, 1965. */
function descend(
  f: (p: number[]) => number,
  start: number[],
  size: number[],
  rounds = 160,
): { p: number[]; value: number } {
  const simplex = [start, ...start.map((_, i) => start.map((v, j) => (i === j ? v + size[i]! : v)))].map((p) => ({
    p,
    value: f(p),
  }));
  const n = start.length;
  for (let k = 0; k < rounds; k++) {
    simplex.sort((a, b) => a.value - b.value);
    const worst = simplex[n]!;
    if (simplex[0]!.p.every((v, i) => Math.abs(v - worst.p[i]!) < 1e-7 * Math.abs(size[i]!))) break;
    const centre = start.map((_, i) => simplex.slice(0, n).reduce((s, x) => s + x.p[i]! / n, 0));
    const at = (q: number) => {
      const p = centre.map((c, i) => c + q * (worst.p[i]! - c));
      return { p, value: f(p) };
    };
    const mirror = at(-1);
    if (mirror.value < simplex[0]!.value) {
      const far = at(-2);
      simplex[n] = far.value < mirror.value ? far : mirror;
    } else if (mirror.value < simplex[n - 1]!.value) simplex[n] = mirror;
    else {
      const near = at(mirror.value < worst.value ? -0.5 : 0.5);
      if (near.value < worst.value) simplex[n] = near;
      else
        for (let i = 1; i <= n; i++) {
          const p = simplex[i]!.p.map((v, j) => (v + simplex[0]!.p[j]!) / 2);
          simplex[i] = { p, value: f(p) };
        }
    }
  }
  simplex.sort((a, b) => a.value - b.value);
  return simplex[0]!;
}

const thin = <A extends Float64Array | Uint8Array>(a: A, most: number): A =>
  a.length <= most
    ? a
    : (a.filter((_, i) => Math.floor((i * most) / a.length) !== Math.floor(((i - 1) * most) / a.length)) as A);

/**
 * Fits a loop of torque and angle, readings in the order they were taken: dead zone, up to three slopes, Coulomb
 * friction.
 *
 * @param torque N·m, from nought up, back, down and back
 * @param angle rad
 * @param slopes at most how many
 * @returns undefined where the readings do not determine one
 * Source: angle = offset ± play/2 + piecewise compliance of the spring's torque; the spring's torque follows the
 * applied one by the play operator of width ±friction (Prandtl). Linear in all but friction and bends, which are
 * searched
 * (variable projection); covariance from the derivatives of all parameters at the optimum; slopes are added while the
 * Bayesian criterion wants them.
 */
export function fitHysteresis(torque: Float64Array, angle: Float64Array, slopes = 3): HysteresisFit | undefined {
  const first = fitOnce(torque, angle, slopes, undefined);
  if (!first) return undefined;
  // Few readings far outside (a slip of the dial, a reading at the very turn) must not bend the loop: they are left out
  // once, by five of the robust spread.
  const off = first.fitted.map((v, i) => (Number.isFinite(v) ? Math.abs(angle[i]! - v) : NaN));
  const sorted = Array.from(off)
    .filter(Number.isFinite)
    .sort((a, b) => a - b);
  const limit = 5 * 1.4826 * (sorted[sorted.length >> 1] ?? 0);
  const skip = Uint8Array.from(off, (d) => (d > limit && limit > 0 ? 1 : 0));
  const left = skip.reduce((s, v) => s + v, 0);
  return left > 0 && left < 0.06 * torque.length
    ? (fitOnce(torque, angle, slopes, skip, [first.turns]) ?? first)
    : first;
}

function fitOnce(
  torque: Float64Array,
  angle: Float64Array,
  slopes: number,
  skip: Uint8Array | undefined,
  ways: readonly ('waits' | 'follows')[] = ['waits', 'follows'],
): HysteresisFit | undefined {
  const n = torque.length;
  if (n < 8) return undefined;
  const whole = new Loop(torque, angle, skip);
  if (!(whole.most > 0)) return undefined;
  const quick = n > 260 ? new Loop(thin(torque, 240), thin(angle, 240), skip && thin(skip, 240)) : whole;
  const middle = n > 700 ? new Loop(thin(torque, 600), thin(angle, 600), skip && thin(skip, 600)) : whole;
  const T = whole.most;
  const cost =
    (loop: Loop, turns: 'waits' | 'follows') =>
    (p: readonly number[]): number => {
      const [friction, ...bends] = p;
      if (!(friction! >= 0) || friction! > 0.6 * T) return Infinity;
      const sorted = bends.length > 1 ? bends.sort((a, b) => a - b) : bends;
      if (sorted.some((b, i) => b < 0.03 * T || b > 0.88 * T - friction! || (i > 0 && b - sorted[i - 1]! < 0.03 * T)))
        return Infinity;
      const t = loop.try(friction!, sorted, turns);
      // Compliances below nought are no springs.
      if (!t) return Infinity;
      for (let k = 2; k < t.values.length; k++) if (!(t.values[k]! > 0)) return Infinity;
      return t.rss / t.used;
    };
  let chosen: { p: number[]; turns: 'waits' | 'follows'; count: number; bic: number } | undefined;
  for (const turns of ways) {
    const f = cost(quick, turns);
    const g = cost(middle, turns);
    let best: { p: number[]; value: number } = { p: [0], value: Infinity };
    for (let i = 0; i <= 36; i++) {
      const p = [0.5 * T * (i / 36) ** 2];
      const v = f(p);
      if (v < best.value) best = { p, value: v };
    }
    if (!Number.isFinite(best.value)) continue;
    for (let count = 1; count <= slopes; count++) {
      if (count > 1) {
        const grid: { p: number[]; value: number } = { p: [], value: Infinity };
        const base = best.p;
        for (let i = 1; i <= 14; i++) {
          const p = [...base, (T * 0.9 * i) / 15];
          const v = f(p);
          if (v < grid.value) Object.assign(grid, { p, value: v });
        }
        if (!Number.isFinite(grid.value)) break;
        best = grid;
      }
      const near = descend(
        f,
        best.p,
        best.p.map((v, i) => (i === 0 ? 0.02 * T + 0.1 * v : 0.06 * T)),
        90,
      );
      const exact =
        quick === middle
          ? near
          : descend(
              g,
              near.p,
              near.p.map((v) => 0.004 * T + 0.01 * v),
              14,
            );
      if (!Number.isFinite(exact.value)) break;
      best = exact;
      const parameters = 3 + count + (count - 1);
      const used = middle.try(
        exact.p[0]!,
        exact.p.slice(1).sort((a, b) => a - b),
        turns,
      )!.used;
      const bic = used * Math.log(exact.value + 1e-30) + (parameters + (count - 1)) * Math.log(used) * 1.3;
      if (!chosen || bic < chosen.bic - (turns === 'follows' ? 4 : 0)) chosen = { p: exact.p, turns, count, bic };
    }
  }
  if (!chosen) return undefined;
  const { turns, count } = chosen;
  // The one that was chosen is brought home on all readings.
  if (quick !== whole)
    chosen.p = descend(
      cost(whole, turns),
      chosen.p,
      chosen.p.map((v) => 0.002 * T + 0.002 * v),
      24,
    ).p;
  const friction = chosen.p[0]!;
  const bends = chosen.p.slice(1).sort((a, b) => a - b);
  const t = whole.try(friction, bends, turns)!;
  const parameters = [...t.values, friction, ...bends];
  const fitted = whole.predict(parameters, count, turns, new Float64Array(n));
  // Derivatives of every parameter, friction and bends among them, at the optimum.
  const columns = parameters.map((v, i) => {
    const h = i >= 2 + count ? 1e-4 * T : Math.max(Math.abs(v) * 1e-5, 1e-12);
    const shifted = (d: number) =>
      whole.predict(
        parameters.map((x, j) => (j !== i ? x : i >= 2 + count ? Math.max(0, x + d) : x + d)),
        count,
        turns,
        new Float64Array(n),
      );
    const [a, b] = [shifted(h), shifted(-h)];
    const width = i >= 2 + count && v < h ? v + h : 2 * h;
    return a.map((x, j) =>
      Number.isFinite(x) && Number.isFinite(b[j]!) && Number.isFinite(fitted[j]!) ? (x - b[j]!) / width : 0,
    );
  });
  const residuals = fitted.map((v, i) => (Number.isFinite(v) ? angle[i]! - v : 0));
  const dof = t.used - parameters.length;
  const s2 = dof > 0 ? t.rss / dof : 0;
  const cov = fitColumns(columns, residuals)?.covariance;
  const own = cov ? n - parameters.length : 0;
  const u = (i: number): number => {
    if (!cov) return Infinity;
    // fitColumns scales by its own residual variance over all readings; ours counts those outside the dead zone.
    const rss = residuals.reduce((s, r) => s + r * r, 0);
    return Math.sqrt(Math.max(0, (cov[i]![i]! * s2) / Math.max(1e-300, rss / Math.max(1, own))));
  };
  return {
    play: { value: 2 * parameters[1]!, u: 2 * u(1) },
    offset: { value: parameters[0]!, u: u(0) },
    stiffness: Array.from({ length: count }, (_, j) => ({
      value: 1 / parameters[2 + j]!,
      u: u(2 + j) / parameters[2 + j]! ** 2,
    })),
    friction: { value: friction, u: u(2 + count) },
    bends: bends.map((value, j) => ({ value, u: u(3 + count + j) })),
    residual: Math.sqrt(s2),
    dof,
    k: student95(Math.max(1, dof)),
    turns,
    fitted,
    used: t.used,
  };
}
