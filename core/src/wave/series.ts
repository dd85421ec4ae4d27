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
  const { terms, lobes } = s;
  const c1 = Math.cos(lobes * angle);
  const s1 = Math.sin(lobes * angle);
  let c = c1;
  let sn = s1;
  let w = 0;
  let w1 = 0;
  let w2 = 0;
  let k = lobes;
  for (let j = 0; j < terms.length; j++) {
    const a = terms[j]!;
    const ac = a * c;
    w += ac;
    w1 -= a * k * sn;
    w2 -= k * k * ac;
    const next = c * c1 - sn * s1;
    sn = sn * c1 + c * s1;
    c = next;
    k += lobes;
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
