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
  const twice = 2 * (a * a - b * b);
  return (t, out) => {
    const c = Math.cos(t);
    const s = Math.sin(t);
    const q = b * b * c * c + a * a * s * s;
    const q1 = twice * s * c;
    const q2 = twice * (c * c - s * s);
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

/** How fast the curve runs along at an angle, m/rad; leaves the distance and its derivatives in `buf`. */
function speedAt(polar: Polar, t: number): number {
  polar(t, buf);
  const rho = buf[0]!;
  const slope = buf[1]!;
  return Math.sqrt(rho * rho + slope * slope);
}

/** Points that tell the whole length: an even, periodic function summed at even steps is right to the last digit. */
const WHOLE = 128;

/** Length along the curve over half a lobe, m. */
function wholeLength(polar: Polar, half: number): number {
  let sum = (speedAt(polar, 0) + speedAt(polar, half)) / 2;
  for (let i = 1; i < WHOLE; i++) sum += speedAt(polar, (half * i) / WHOLE);
  return (sum * half) / WHOLE;
}

/** Length along the curve over half a lobe by Simpson's rule, cumulative at N + 1 angles, and the speed there. */
function lengths(polar: Polar, half: number): { s: Float64Array; speed: Float64Array } {
  const s = new Float64Array(N + 1);
  const speed = new Float64Array(N + 1);
  const h = half / N;
  speed[0] = speedAt(polar, 0);
  for (let i = 1; i <= N; i++) {
    speed[i] = speedAt(polar, h * i);
    s[i] = s[i - 1]! + (h / 6) * (speed[i - 1]! + 4 * speedAt(polar, h * (i - 0.5)) + speed[i]!);
  }
  return { s, speed };
}

/**
 * Angle at a length between two tabled ones: a cubic through both with the slopes there, one over the speed, and a step of
 * Newton's with the way to it by Simpson's rule, which leaves nothing of what the cubic is off.
 *
 * @param j the tabled length before it
 */
function angleAt(polar: Polar, { s, speed }: ReturnType<typeof lengths>, j: number, h: number, length: number): number {
  const wide = s[j + 1]! - s[j]!;
  const q = (length - s[j]!) / wide;
  const p = 1 - q;
  const before = h * j;
  const t = before + h * q * q * (3 - 2 * q) + wide * q * p * (p / speed[j]! - q / speed[j + 1]!);
  const end = speedAt(polar, t);
  const way = s[j]! + ((t - before) / 6) * (speed[j]! + 4 * speedAt(polar, (before + t) / 2) + end);
  return t - (way - length) / end;
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
  let f0 = wholeLength(make(x0), half) - whole;
  for (let k = 0; k < 12; k++) {
    const f1 = wholeLength(make(x1), half) - whole;
    if (Math.abs(f1) < 1e-15 || f1 === f0) break;
    const next = x1 - (f1 * (x1 - x0)) / (f1 - f0);
    [x0, f0, x1] = [x1, f1, next];
  }
  const polar = make(x1);
  const table = lengths(polar, half);
  const { s } = table;
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
    const t = i === N ? half : angleAt(polar, table, j, half / N, target);
    polar(t, buf);
    const rho = buf[0]!;
    const d1 = buf[1]!;
    const square = rho * rho + d1 * d1;
    if (rho < least) least = rho;
    px[i] = rho * Math.cos(t);
    py[i] = rho * Math.sin(t);
    normal[i] = t - Math.atan2(d1, rho);
    bent[i] = (square + d1 * d1 - rho * buf[2]!) / (square * Math.sqrt(square));
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
