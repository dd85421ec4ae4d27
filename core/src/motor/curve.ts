/** Torque over speed as a data sheet gives it; speeds rising, rad/s and N·m. */
export interface TorqueCurve {
  readonly speed: readonly number[];
  readonly torque: readonly number[];
}

const kept = new WeakMap<TorqueCurve, Float64Array>();

/** End slope by three points, held to the shape of the data. */
function endSlope(h0: number, h1: number, d0: number, d1: number): number {
  const m = ((2 * h0 + h1) * d0 - h0 * d1) / (h0 + h1);
  if (Math.sign(m) !== Math.sign(d0)) return 0;
  return Math.sign(d0) !== Math.sign(d1) && Math.abs(m) > 3 * Math.abs(d0) ? 3 * d0 : m;
}

/**
 * Slopes of the piecewise cubic that never overshoots its points.
 *
 * Source: Fritsch & Butland, SIAM J. Sci. Stat. Comput. 5 (1984) 300: weighted harmonic mean of neighbouring
 * differences.
 */
export function monotoneSlopes(x: readonly number[], y: readonly number[]): Float64Array {
  const n = x.length;
  const m = new Float64Array(n);
  if (n < 2) return m;
  const h = (i: number) => x[i + 1]! - x[i]!;
  const d = (i: number) => (y[i + 1]! - y[i]!) / h(i);
  if (n === 2) return m.fill(d(0));
  for (let i = 1; i < n - 1; i++) {
    const [a, b] = [d(i - 1), d(i)];
    if (a * b <= 0) continue;
    const [w1, w2] = [2 * h(i) + h(i - 1), h(i) + 2 * h(i - 1)];
    m[i] = (w1 + w2) / (w1 / a + w2 / b);
  }
  m[0] = endSlope(h(0), h(1), d(0), d(1));
  m[n - 1] = endSlope(h(n - 2), h(n - 3), d(n - 2), d(n - 3));
  return m;
}

/**
 * Torque on the curve at a speed, by monotone cubic interpolation; NaN outside its ends, where nothing is known.
 *
 * @example curveTorque({ speed: [0, 100], torque: [1, 0.5] }, 50) // 0.75
 */
export function curveTorque(curve: TorqueCurve, speed: number): number {
  const { speed: x, torque: y } = curve;
  const n = x.length;
  if (!(speed >= x[0]! && speed <= x[n - 1]!)) return NaN;
  let m = kept.get(curve);
  if (!m) kept.set(curve, (m = monotoneSlopes(x, y)));
  let k = 0;
  while (k < n - 2 && speed > x[k + 1]!) k++;
  const h = x[k + 1]! - x[k]!;
  const t = (speed - x[k]!) / h;
  const u = 1 - t;
  return (
    y[k]! * (1 + 2 * t) * u * u + y[k + 1]! * t * t * (3 - 2 * t) + h * (m[k]! * t * u * u - m[k + 1]! * t * t * u)
  );
}
