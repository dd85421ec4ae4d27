import { descend } from '../math/descend.ts';
import { hangingTogether, stepOf, swinging } from './hanging.ts';
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
  /** How far zero wandered from the first reading to the last, rad; nought where the loop does not come back. */
  readonly drift: Known;
  /** Standard deviation of the residuals, rad. */
  readonly residual: number;
  readonly dof: number;
  readonly k: number;
  /** How friction answers a reversal: the output waits until twice the friction is taken off, or follows at once. */
  readonly turns: 'waits' | 'follows';
  /** Angle of the fit at each reading, rad; NaN where the reading lies inside the dead zone and counts for nothing. */
  readonly fitted: Float64Array;
  readonly used: number;
  /** Readings that stand far off the loop and count for nothing, by their place. */
  readonly off: readonly number[];
  /** How many neighbouring residuals say the same thing once: 1 where they are independent. */
  readonly hangs: number;
  /** Whether residuals go up and down in step, as of something that sticks and slips. */
  readonly swings: boolean;
  /** Step in which the angles come, rad; 0 where they come in none. */
  readonly step: number;
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

/** Columns of the normal equations: up to six unknowns and the right-hand side; row i is the mirror of column i. */
const WIDE = 7;
/** The right-hand side. */
const RIGHT = 6;
/** Unknowns that every loop has before its compliances: offset, half the play, drift of zero. */
const BASE = 3;

/** What the normal equations were summed over. */
interface Gathered {
  readonly used: number;
  /** Sum of the squares of the angles. */
  readonly yy: number;
}

/**
 * Normal equations of angle = f0 + s·f1 + w·f2 + s·(u3·f3 + u4·f4 + u5·f5), u the spring's torque in each stretch of
 * slope, s its side and w the way through the loop, over the readings that count and lie outside the dead zone. Written
 * out in sums of their own: an engine keeps these in registers, and a matrix in memory.
 *
 * @param x torque of the spring, N·m
 * @param y angle, rad
 * @param w how far through the loop each reading was taken, −0.5 to 0.5; all nought where no drift is asked for
 * @param inside filled with the readings inside the dead zone, how many of them last
 * @param e1 torque at which the second slope begins, `Infinity` for none
 * @param e2 torque at which the third begins
 */
function gather(
  x: Float64Array,
  y: Float64Array,
  w: Float64Array,
  counts: Uint8Array,
  inside: Int32Array,
  dead: number,
  e1: number,
  e2: number,
  M: Float64Array,
): Gathered {
  let n = 0;
  let within = 0;
  let yy = 0;
  let w0 = 0;
  let w1 = 0;
  let ww = 0;
  let w2 = 0;
  let w3 = 0;
  let w4 = 0;
  let rw = 0;
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
    if (counts[i] === 0) continue;
    if (!(a > dead)) {
      inside[within++] = i;
      continue;
    }
    const s = v < 0 ? -1 : 1;
    const t = y[i]!;
    const ts = s * t;
    const d = w[i]!;
    const ds = s * d;
    w0 += d;
    w1 += ds;
    ww += d * d;
    rw += d * t;
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
    w2 += first * ds;
    if (a <= e1) continue;
    const second = (a < e2 ? a : e2) - e1;
    s3 += s * second;
    u3 += second;
    u23 += first * second;
    u33 += second * second;
    r3 += second * ts;
    w3 += second * ds;
    if (a <= e2) continue;
    const third = a - e2;
    s4 += s * third;
    u4 += third;
    u24 += first * third;
    u34 += second * third;
    u44 += third * third;
    r4 += third * ts;
    w4 += third * ds;
  }
  inside[x.length] = within;
  M[0] = n;
  M[RIGHT] = r0;
  M[WIDE] = s0;
  M[WIDE + 1] = n;
  M[WIDE + RIGHT] = r1;
  M[2 * WIDE] = w0;
  M[2 * WIDE + 1] = w1;
  // Where no drift is asked for, its row says that it is nought.
  M[2 * WIDE + 2] = ww > 0 ? ww : 1;
  M[2 * WIDE + RIGHT] = rw;
  M[3 * WIDE] = s2;
  M[3 * WIDE + 1] = u2;
  M[3 * WIDE + 2] = w2;
  M[3 * WIDE + 3] = u22;
  M[3 * WIDE + RIGHT] = r2;
  M[4 * WIDE] = s3;
  M[4 * WIDE + 1] = u3;
  M[4 * WIDE + 2] = w3;
  M[4 * WIDE + 3] = u23;
  M[4 * WIDE + 4] = u33;
  M[4 * WIDE + RIGHT] = r3;
  M[5 * WIDE] = s4;
  M[5 * WIDE + 1] = u4;
  M[5 * WIDE + 2] = w4;
  M[5 * WIDE + 3] = u24;
  M[5 * WIDE + 4] = u34;
  M[5 * WIDE + 5] = u44;
  M[5 * WIDE + RIGHT] = r4;
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
    let z = M[WIDE * r + RIGHT]!;
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
  /** Squares of what is left, those inside the dead zone by what they stand out of it. */
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
  private readonly matrix = new Float64Array(6 * WIDE);
  private readonly inside: Int32Array;
  readonly through: Float64Array;
  private readonly counts: Uint8Array;
  readonly most: number;
  /** Step in which the angles come, rad. */
  readonly step: number;

  constructor(
    readonly torque: Float64Array,
    readonly angle: Float64Array,
    /** Readings that stand far outside and count for nothing. */
    readonly skipped?: Uint8Array,
  ) {
    this.step = stepOf(angle);
    const n = torque.length;
    this.x = new Float64Array(n);
    this.weight = new Float64Array(n);
    this.columns = Array.from({ length: 6 }, () => new Float64Array(n));
    this.inside = new Int32Array(n + 1);
    this.counts = new Uint8Array(n).fill(1);
    if (skipped) for (let i = 0; i < n; i++) this.counts[i] = skipped[i] ? 0 : 1;
    this.most = torque.reduce((m, t) => Math.max(m, Math.abs(t)), 0);
    // Only a loop that comes back tells a drift of zero from a spring.
    const back = Math.abs(torque[n - 1]!) < 0.15 * this.most;
    this.through = Float64Array.from({ length: n }, (_, i) => (back ? i / (n - 1) - 0.5 : 0));
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

  /** Fills columns for a friction and bends: 1, side, way through the loop, and torque in each stretch of slope. */
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
      this.columns[2]![i] = this.through[i]!;
      for (let j = 0; j + 1 < edges.length; j++)
        this.columns[BASE + j]![i] = s * Math.max(0, Math.min(a, edges[j + 1]!) - edges[j]!);
    }
  }

  /** Best offset, play and compliances for a friction and bends. */
  try(friction: number, bends: readonly number[], turns: 'waits' | 'follows'): Trial | undefined {
    const n = this.torque.length;
    const p = BASE + 1 + bends.length;
    this.spring(friction, turns);
    const [e1 = Infinity, e2 = Infinity] = bends;
    const dead = 1e-6 * this.most;
    const { used, yy } = gather(this.x, this.angle, this.through, this.counts, this.inside, dead, e1, e2, this.matrix);
    if (used < n * 0.5 || used < bends.length + 6) return undefined;
    const values = new Float64Array(p);
    const explained = solveNormal(this.matrix, p, values);
    if (explained === undefined) return undefined;
    return { rss: Math.max(1e-14 * yy, yy - explained) + this.outsideZone(values), used, values };
  }

  /** Squares of what the readings inside the dead zone stand out of it. */
  private outsideZone(values: Float64Array): number {
    const { inside, angle, through } = this;
    let sum = 0;
    for (let k = 0; k < inside[angle.length]!; k++) {
      const i = inside[k]!;
      const out = Math.abs(angle[i]! - values[0]! - values[2]! * through[i]!) - Math.max(0, values[1]!);
      if (out > 0) sum += out * out;
    }
    return sum;
  }

  /** Angle by parameters: offset, half the play, drift, compliance of each stretch, friction, bends. */
  predict(p: readonly number[], slopes: number, turns: 'waits' | 'follows', out: Float64Array): Float64Array {
    const bends = p.slice(BASE + slopes + 1);
    this.fill(p[BASE + slopes]!, bends, turns);
    for (let i = 0; i < out.length; i++) {
      let v = 0;
      for (let c = 0; c < BASE + slopes; c++) v += this.columns[c]![i]! * p[c]!;
      out[i] = this.weight[i] ? v : NaN;
    }
    return out;
  }
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
 * (variable projection); covariance from the derivatives of all parameters at the optimum, widened by how far residuals
 * hang together; slopes are added while the Bayesian criterion wants them, all models over the same readings and no finer
 * than the readings' own step. Readings far off the loop are left out, and named.
 */
export function fitHysteresis(torque: Float64Array, angle: Float64Array, slopes = 3): HysteresisFit | undefined {
  const first = chosenModel(torque, angle, slopes, undefined);
  if (!first) return undefined;
  // A slip of the dial, a reading at the very turn: left out once, and all models compared again without it.
  const again = first.off.length
    ? chosenModel(
        torque,
        angle,
        slopes,
        Uint8Array.from(torque, (_, i) => (first.off.includes(i) ? 1 : 0)),
      )
    : undefined;
  return fitted(torque, angle, again ?? first, again ? first.off : []);
}

/** One shape of a loop brought home: friction and bends, and how well it does. */
interface Model {
  readonly p: readonly number[];
  readonly turns: 'waits' | 'follows';
  readonly count: number;
  readonly loop: Loop;
  /** Readings far off it, by their place among all. */
  readonly off: readonly number[];
}

/** Readings further off than five of the robust spread, where they are few. */
function farOff(residuals: Float64Array): number[] {
  const size = Array.from(residuals, Math.abs);
  const sorted = size.filter((d) => d > 0).sort((a, b) => a - b);
  const limit = 5 * 1.4826 * (sorted[sorted.length >> 1] ?? 0);
  const off = size.flatMap((d, i) => (limit > 0 && d > limit ? [i] : []));
  return off.length < 0.06 * size.length ? off : [];
}

/** What is left of each reading: nought inside the dead zone and for those that are skipped. */
const leftOf = (loop: Loop, t: Trial, model: Omit<Model, 'off' | 'loop'>, skip?: Uint8Array): Float64Array => {
  const all = [...t.values, model.p[0]!, ...sortedBends(model.p)];
  const at = loop.predict(all, model.count, model.turns, new Float64Array(loop.torque.length));
  return at.map((v, i) => (Number.isFinite(v) && !skip?.[i] ? loop.angle[i]! - v : 0));
};

const sortedBends = (p: readonly number[]): number[] => p.slice(1).sort((a, b) => a - b);

/**
 * The shape that the readings bear best. All shapes are held against the same readings, and no reading says more than
 * its own step: a criterion over those that each shape happens to keep, or below the resolution, makes slopes of nothing.
 */
function chosenModel(
  torque: Float64Array,
  angle: Float64Array,
  slopes: number,
  skip: Uint8Array | undefined,
): Model | undefined {
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
      for (let k = BASE; k < t.values.length; k++) if (!(t.values[k]! > 0)) return Infinity;
      return t.rss;
    };
  const models: { model: Model; rss: number; unknowns: number }[] = [];
  for (const turns of ['waits', 'follows'] as const) {
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
      const model = { p: exact.p, turns, count };
      const left = leftOf(middle, middle.try(exact.p[0]!, sortedBends(exact.p), turns)!, model, middle.skipped);
      const off = farOff(left);
      const rss = left.reduce((s, r, i) => (off.includes(i) ? s : s + r * r), 0);
      models.push({
        model: { ...model, loop: whole, off: [] },
        rss,
        // A bend costs more than a number: it is sought among many places. So does each reading that must be left out.
        unknowns: 4 + 3.9 * (count - 1) + 4 * off.length + (turns === 'follows' ? 1 : 0),
      });
    }
  }
  if (models.length === 0) return undefined;
  const m = middle.torque.length;
  const floor = (m * whole.step ** 2) / 12;
  const richest = models.reduce((a, b) => (b.rss < a.rss ? b : a)).model;
  const rest = leftOf(
    middle,
    middle.try(richest.p[0]!, sortedBends(richest.p), richest.turns)!,
    richest,
    middle.skipped,
  );
  const free = Math.max(8, m / hangingTogether(rest));
  const bic = ({ rss, unknowns }: (typeof models)[number]) =>
    free * Math.log(rss / m + floor / m + 1e-30) + unknowns * Math.log(free);
  const { model } = models.reduce((a, b) => (bic(b) < bic(a) ? b : a));
  // The one that was chosen is brought home on all readings.
  const p =
    quick === whole
      ? model.p
      : descend(
          cost(whole, model.turns),
          [...model.p],
          model.p.map((v) => 0.002 * T + 0.002 * v),
          24,
        ).p;
  const home = { ...model, p };
  const at = whole.try(p[0]!, sortedBends(p), model.turns);
  return at && { ...home, off: farOff(leftOf(whole, at, home, skip)) };
}

/** Derivatives of the angle by every parameter, friction and bends among them. */
function slopesBy(
  loop: Loop,
  parameters: readonly number[],
  { count, turns }: Model,
  at: Float64Array,
): Float64Array[] {
  const T = loop.most;
  const softest = Math.max(...parameters.slice(BASE, BASE + count).map(Math.abs));
  return parameters.map((v, i) => {
    const torque = i >= BASE + count;
    const h = torque ? 1e-4 * T : Math.max(Math.abs(v) * 1e-5, 1e-12);
    const shifted = (d: number) =>
      loop.predict(
        parameters.map((x, j) => (j !== i ? x : torque ? Math.max(0, x + d) : x + d)),
        count,
        turns,
        new Float64Array(at.length),
      );
    const [a, b] = [shifted(h), shifted(-h)];
    const width = torque && v < h ? v + h : 2 * h;
    // A reading that goes over to the other side of the play jumps by all of it: whether one happens to lie there says
    // nothing of how well friction is known.
    const most = torque ? 2 * width * softest : Infinity;
    return a.map((x, j) => {
      const by = x - b[j]!;
      return Number.isFinite(by) && Number.isFinite(at[j]!) && Math.abs(by) <= most ? by / width : 0;
    });
  });
}

/** Times the variance is larger where residuals go up and down in step, as found on blocks that stick and slip. */
const SWUNG = 2;

/** A chosen shape with what is known of each of its numbers. */
function fitted(
  torque: Float64Array,
  angle: Float64Array,
  model: Model,
  off: readonly number[],
): HysteresisFit | undefined {
  const { loop, count, turns } = model;
  const n = torque.length;
  const friction = model.p[0]!;
  const bends = sortedBends(model.p);
  const t = loop.try(friction, bends, turns);
  if (!t) return undefined;
  const parameters = [...t.values, friction, ...bends];
  const at = loop.predict(parameters, count, turns, new Float64Array(n));
  const left = leftOf(loop, t, model, loop.skipped);
  const drifts = loop.through[0] !== 0;
  const free = parameters.length - (drifts ? 0 : 1);
  const dof = t.used - free;
  const s2 = dof > 0 ? t.rss / dof : 0;
  // Readings in steps scatter by no less than their step.
  const scatter = Math.max(s2, loop.step ** 2 / 12);
  const counting = left.filter((_, i) => Number.isFinite(at[i]!) && !loop.skipped?.[i]);
  const swings = swinging(counting);
  // What swings has no one friction: the branches lie apart by what their slips happen to be.
  const hangs = hangingTogether(counting, free) * (swings ? SWUNG : 1);
  const counted = at.map((v, i) => (Number.isFinite(v) && !loop.skipped?.[i] ? 1 : 0));
  const places = parameters.flatMap((_, i) => (i === 2 && !drifts ? [] : [i]));
  const columns = slopesBy(loop, parameters, model, at);
  const cov = fitColumns(
    places.map((i) => columns[i]!),
    left,
    counted,
  );
  const u = (i: number): number => {
    const place = places.indexOf(i);
    if (place < 0) return 0;
    if (!cov) return Infinity;
    // fitColumns scales by its own residual variance; ours counts as many as are independent.
    const own = cov.rss / Math.max(1, n - places.length);
    return Math.sqrt(Math.max(0, (cov.covariance[place]![place]! / Math.max(1e-300, own)) * scatter * hangs));
  };
  const jitter = jitterOf(torque, loop.way);
  return {
    play: { value: 2 * parameters[1]!, u: 2 * u(1) },
    offset: { value: parameters[0]!, u: u(0) },
    drift: { value: parameters[2]!, u: u(2) },
    stiffness: Array.from({ length: count }, (_, j) => ({
      value: 1 / parameters[BASE + j]!,
      u: u(BASE + j) / parameters[BASE + j]! ** 2,
    })),
    // Friction is read where the torque turns: no better than single torques are, nor, where noise does not blur
    // the steps of the angle, than half of one.
    friction: {
      value: friction,
      u: Math.hypot(
        u(BASE + count),
        jitter,
        loop.step > 2.5 * Math.sqrt(s2) ? loop.step / 4 / Math.sqrt(12) / parameters[BASE]! : 0,
      ),
    },
    bends: bends.map((value, j) => ({ value, u: Math.hypot(u(BASE + 1 + count + j), jitter) })),
    residual: Math.sqrt(s2),
    dof,
    k: student95(Math.max(1, dof / hangs)),
    turns,
    fitted: at,
    used: t.used,
    off,
    hangs,
    swings,
    step: loop.step,
  };
}

/** How far single torques jump about their own course, N·m: by their second differences along a branch. */
function jitterOf(torque: Float64Array, way: Int8Array): number {
  if (torque.length < 100) return 0;
  const bends: number[] = [];
  for (let i = 2; i < torque.length; i++)
    if (way[i] === way[i - 2]) bends.push(Math.abs(torque[i]! - 2 * torque[i - 1]! + torque[i - 2]!));
  bends.sort((a, b) => a - b);
  return (1.4826 * (bends[bends.length >> 1] ?? 0)) / Math.sqrt(6);
}
