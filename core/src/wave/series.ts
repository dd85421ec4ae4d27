/** An even, periodic deflection as a cosine series over whole waves: w(θ) = Σ a_j·cos(j·n·θ), j from 1. */
export interface CosineSeries {
  /** Waves round the ring, n. */
  readonly lobes: number;
  readonly terms: Float64Array;
}

/** Terms kept of a ring pressed at points; they fall with the fourth power. */
const TERMS = 48;

/** Value and first two derivatives of a series at an angle, into `out`. */
export function seriesAt(s: CosineSeries, angle: number, out: Float64Array): void {
  const [c1, s1] = [Math.cos(s.lobes * angle), Math.sin(s.lobes * angle)];
  let [c, sn, w, w1, w2] = [c1, s1, 0, 0, 0];
  for (let j = 0; j < s.terms.length; j++) {
    const k = (j + 1) * s.lobes;
    const a = s.terms[j]!;
    w += a * c;
    w1 -= a * k * sn;
    w2 -= a * k * k * c;
    [c, sn] = [c * c1 - sn * s1, sn * c1 + c * s1];
  }
  out[0] = w;
  out[1] = w1;
  out[2] = w2;
}

/**
 * Deflection of a thin inextensible ring under n equal radial forces evenly spaced, the first at angle 0, per unit of
 * P·r³/(E·I).
 *
 * Source: S. Timoshenko, Strength of Materials II: the forces as a Fourier series, n·P/(π·r)·cos(jnθ), each term
 * bending the ring by p·r⁴/(E·I·((jn)² − 1)²).
 */
export function pressedAtPoints(lobes: number): CosineSeries {
  return {
    lobes,
    terms: Float64Array.from({ length: TERMS }, (_, j) => lobes / Math.PI / (((j + 1) * lobes) ** 2 - 1) ** 2),
  };
}

/** The series moved round by an angle and added to its mirror image: points at ±angle of every lobe. */
export function spreadApart(s: CosineSeries, angle: number): CosineSeries {
  return { lobes: s.lobes, terms: s.terms.map((a, j) => 2 * a * Math.cos((j + 1) * s.lobes * angle)) };
}

/** Several series of one kind, each times a weight. */
export function combined(list: readonly (readonly [CosineSeries, number])[]): CosineSeries {
  const terms = new Float64Array(Math.max(...list.map(([s]) => s.terms.length)));
  for (const [s, weight] of list) for (let j = 0; j < s.terms.length; j++) terms[j]! += weight * s.terms[j]!;
  return { lobes: list[0]![0].lobes, terms };
}
