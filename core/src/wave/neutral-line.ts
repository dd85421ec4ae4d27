import { fewRollers, manyRollers, pressedBending, type RollerGroup } from './rollers.ts';
import { seriesAt, type CosineSeries } from './series.ts';

/**
 * What the wave generator gives the spline as its shape: an ellipse, cos nθ, one or two rollers a lobe, or many on the
 * contour cos nθ.
 */
export type WaveShape = 'ellipse' | 'cosine' | 'two' | 'four' | 'many';

export interface WaveForm {
  readonly shape: WaveShape;
  /** Waves round the spline, n. */
  readonly lobes: number;
  /** Radius of the neutral line at rest, m. */
  readonly radius: number;
  /** How far it is pushed out at a lobe's top, m. */
  readonly throw: number;
  /** Half the angle between the two rollers of a lobe, rad (`four`). */
  readonly spread: number;
  /** Rollers in all (`many`). */
  readonly rollers: number;
}

/**
 * The neutral line of a thin inextensible ring over a wave generator, in the generator's frame, a lobe's top on the x
 * axis; by its own length from there.
 */
export interface NeutralLine {
  readonly form: WaveForm;
  /** Writes x, y, the direction of the outward normal (rad) and the curvature (1/m) at a length along the line, m. */
  at(length: number, out: Float64Array): void;
  /** Least distance from the middle, m. */
  readonly least: number;
  /** Greatest bending of the wall over that of cos nθ at the same throw, and its mean square over that one's. */
  readonly bend: number;
  readonly bendSquare: number;
  /** Rollers or, for a contour, nothing. */
  readonly groups: readonly RollerGroup[];
}

/** Pieces of half a lobe; a cubic through each is right to a picometre. */
const N = 256;
const buf = new Float64Array(3);

type Polar = (angle: number, out: Float64Array) => void;

/** Ellipse by its half axes as distance from the middle, with derivatives. */
function ellipse(a: number, b: number): Polar {
  return (t, out) => {
    const [c, s] = [Math.cos(t), Math.sin(t)];
    const q = b * b * c * c + a * a * s * s;
    const q1 = 2 * (a * a - b * b) * s * c;
    const q2 = 2 * (a * a - b * b) * (c * c - s * s);
    const r = (a * b) / Math.sqrt(q);
    out[0] = r;
    out[1] = (-r * q1) / (2 * q);
    out[2] = (-r * q2) / (2 * q) + (3 * r * q1 * q1) / (4 * q * q);
  };
}

const around =
  (mean: number, amplitude: number, s: CosineSeries): Polar =>
  (t, out) => {
    seriesAt(s, t, out);
    out[0] = mean + amplitude * out[0]!;
    out[1] = amplitude * out[1]!;
    out[2] = amplitude * out[2]!;
  };

/** Length along the curve over half a lobe by Simpson's rule, cumulative at N + 1 angles. */
function lengths(polar: Polar, half: number): Float64Array {
  const s = new Float64Array(N + 1);
  const h = half / N;
  const speed = (t: number) => {
    polar(t, buf);
    return Math.hypot(buf[0]!, buf[1]!);
  };
  let before = speed(0);
  for (let i = 1; i <= N; i++) {
    const after = speed(h * i);
    s[i] = s[i - 1]! + (h / 6) * (before + 4 * speed(h * (i - 0.5)) + after);
    before = after;
  }
  return s;
}

function pressedSeries(f: WaveForm): { series: CosineSeries; groups: readonly RollerGroup[] } {
  if (f.shape === 'two') return fewRollers(f.lobes, 0);
  if (f.shape === 'four') return fewRollers(f.lobes, f.spread);
  if (f.shape === 'many') return manyRollers(f.lobes, f.rollers);
  return { series: { lobes: f.lobes, terms: Float64Array.of(1) }, groups: [] };
}

/**
 * The neutral line over a generator: as far out as the throw at a lobe's top and exactly as long as the ring at rest,
 * so that its points move along themselves.
 *
 * Source: inextensible ring, v′ = −w to the first order; here the length is kept exactly, by the ellipse's second axis
 * or by the mean radius.
 */
export function neutralLine(f: WaveForm): NeutralLine {
  const { radius: r, lobes } = f;
  const half = Math.PI / lobes;
  const whole = half * r;
  const pressed = pressedSeries(f);
  const make = (x: number): Polar => {
    if (f.shape === 'ellipse') return ellipse(r + f.throw, x);
    seriesAt(pressed.series, 0, buf);
    return around(x, (r + f.throw - x) / buf[0]!, pressed.series);
  };
  // The length rises evenly with the free parameter: two secant steps from good guesses land on it, more make sure.
  let [x0, x1] = [
    f.shape === 'ellipse' ? r - 1.02 * f.throw : r,
    f.shape === 'ellipse' ? r - 0.98 * f.throw : r - (f.throw * f.throw) / r,
  ];
  let f0 = lengths(make(x0), half)[N]! - whole;
  for (let k = 0; k < 12; k++) {
    const f1 = lengths(make(x1), half)[N]! - whole;
    if (Math.abs(f1) < 1e-15 || f1 === f0) break;
    const next = x1 - (f1 * (x1 - x0)) / (f1 - f0);
    [x0, f0, x1] = [x1, f1, next];
  }
  const polar = make(x1);
  const s = lengths(polar, half);
  const total = s[N]!;
  // Even steps of length: angle by inverting, then place, normal and curvature.
  const [px, py, normal, bent] = [
    new Float64Array(N + 1),
    new Float64Array(N + 1),
    new Float64Array(N + 1),
    new Float64Array(N + 1),
  ];
  let j = 0;
  let least = Infinity;
  for (let i = 0; i <= N; i++) {
    const target = (total * i) / N;
    while (j < N - 1 && s[j + 1]! < target) j++;
    let t = (half / N) * (j + (target - s[j]!) / (s[j + 1]! - s[j]!));
    for (let k = 0; k < 3; k++) {
      // Newton from the nearest tabled length: the rest by Simpson over the small way.
      const t0 = (half / N) * j;
      const sp = (u: number) => (polar(u, buf), Math.hypot(buf[0]!, buf[1]!));
      const way = s[j]! + ((t - t0) / 6) * (sp(t0) + 4 * sp((t0 + t) / 2) + sp(t));
      t -= (way - target) / sp(t);
    }
    if (i === N) t = half;
    polar(t, buf);
    const [rho, d1, d2] = [buf[0]!, buf[1]!, buf[2]!];
    least = Math.min(least, rho);
    px[i] = rho * Math.cos(t);
    py[i] = rho * Math.sin(t);
    normal[i] = t - Math.atan2(d1, rho);
    bent[i] = (rho * rho + 2 * d1 * d1 - rho * d2) / Math.hypot(rho, d1) ** 3;
  }
  const step = total / N;
  const lobe = 2 * total;
  const at = (length: number, out: Float64Array): void => {
    const turns = Math.round(length / lobe);
    const local = length - turns * lobe;
    const side = local < 0 ? -1 : 1;
    const u = Math.abs(local) / step;
    const i = Math.min(N - 1, Math.floor(u));
    const q = u - i;
    const [n0, n1] = [normal[i]!, normal[i + 1]!];
    // Cubic through both ends along their tangents, which stand a quarter turn on from the normals.
    const [h00, h10, h01, h11] = [(1 + 2 * q) * (1 - q) ** 2, q * (1 - q) ** 2, q * q * (3 - 2 * q), q * q * (q - 1)];
    const x = h00 * px[i]! + h01 * px[i + 1]! - step * (h10 * Math.sin(n0) + h11 * Math.sin(n1));
    const y = side * (h00 * py[i]! + h01 * py[i + 1]! + step * (h10 * Math.cos(n0) + h11 * Math.cos(n1)));
    const n = side * (h00 * n0 + h01 * n1 + step * (h10 * bent[i]! + h11 * bent[i + 1]!));
    const turn = (2 * Math.PI * turns) / lobes;
    const [c, sn] = [Math.cos(turn), Math.sin(turn)];
    out[0] = c * x - sn * y;
    out[1] = sn * x + c * y;
    out[2] = n + turn;
    out[3] = bent[i]! + q * (bent[i + 1]! - bent[i]!);
  };
  const bending =
    f.shape === 'ellipse'
      ? ellipseBending(bent, f)
      : pressed.groups.length
        ? pressedBending(lobes, pressed.groups)
        : { most: 1, square: 1 };
  return { form: f, at, least, bend: bending.most, bendSquare: bending.square, groups: pressed.groups };
}

/** Most change of curvature of an ellipse over that of cos nθ, both exact, and the mean squares. */
function ellipseBending(bent: Float64Array, f: WaveForm): { most: number; square: number } {
  const change = (list: ArrayLike<number>) => {
    let [most, square] = [0, 0];
    for (let i = 0; i < list.length; i++) {
      const d = list[i]! - 1 / f.radius;
      most = Math.max(most, Math.abs(d));
      square += (d * d) / (i === 0 || i === list.length - 1 ? 2 : 1);
    }
    return { most, square };
  };
  const other = neutralLine({ ...f, shape: 'cosine' });
  const out = new Float64Array(4);
  const values = Float64Array.from({ length: N + 1 }, (_, i) => {
    other.at(((Math.PI / f.lobes) * f.radius * i) / N, out);
    return out[3]!;
  });
  const [a, b] = [change(bent), change(values)];
  return { most: a.most / b.most, square: a.square / b.square };
}
