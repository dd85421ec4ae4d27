/** What is known of a few numbers together: information matrix, row by row, and information times value. */
export interface Information {
  readonly matrix: Float64Array;
  readonly vector: Float64Array;
}

/** What is known without any measurement: values with standard uncertainties, each for itself. */
export function ofPrior(values: readonly (readonly [value: number, u: number])[]): Information {
  const n = values.length;
  const matrix = new Float64Array(n * n);
  const vector = new Float64Array(n);
  values.forEach(([value, u], i) => {
    const weight = u === Infinity ? 0 : 1 / (u * u);
    matrix[i * n + i] = weight;
    vector[i] = weight * value;
  });
  return { matrix, vector };
}

/** Adds a measurement: `row` times the numbers is `value`, with a standard uncertainty. */
export function addMeasured(info: Information, row: ArrayLike<number>, value: number, u: number): void {
  const n = info.vector.length;
  const weight = 1 / (u * u);
  for (let i = 0; i < n; i++) {
    info.vector[i] = info.vector[i]! + weight * row[i]! * value;
    for (let j = 0; j < n; j++) info.matrix[i * n + j] = info.matrix[i * n + j]! + weight * row[i]! * row[j]!;
  }
}

/** Values with their covariance, row by row. Numbers of which nothing is known have a variance of Infinity and stand at 0. */
export interface Known {
  readonly values: Float64Array;
  readonly covariance: Float64Array;
}

/**
 * Solves for the numbers; undefined where those that were measured cannot be told apart.
 *
 * Source: normal equations by elimination, rows scaled by their diagonals since lengths and shares differ by a thousand.
 */
export function solved({ matrix, vector }: Information): Known | undefined {
  const all = vector.length;
  const used = Array.from({ length: all }, (_, i) => i).filter((i) => matrix[i * all + i]! > 0);
  const n = used.length;
  const scale = used.map((i) => 1 / Math.sqrt(matrix[i * all + i]!));
  const width = n + n;
  const m = new Float64Array(n * width);
  used.forEach((i, r) => {
    used.forEach((j, c) => (m[r * width + c] = matrix[i * all + j]! * scale[r]! * scale[c]!));
    m[r * width + n + r] = 1;
  });
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let r = k + 1; r < n; r++) if (Math.abs(m[r * width + k]!) > Math.abs(m[best * width + k]!)) best = r;
    // Diagonals are 1: what is left is the share of a number that the others do not tell.
    if (!(Math.abs(m[best * width + k]!) > 1e-10)) return undefined;
    for (let c = 0; c < width; c++) {
      const kept = m[k * width + c]!;
      m[k * width + c] = m[best * width + c]!;
      if (best !== k) m[best * width + c] = kept;
    }
    const pivot = m[k * width + k]!;
    for (let c = 0; c < width; c++) m[k * width + c] = m[k * width + c]! / pivot;
    for (let r = 0; r < n; r++) {
      const f = m[r * width + k]!;
      if (r === k || f === 0) continue;
      for (let c = 0; c < width; c++) m[r * width + c] = m[r * width + c]! - f * m[k * width + c]!;
    }
  }
  const values = new Float64Array(all);
  const covariance = new Float64Array(all * all);
  for (let i = 0; i < all; i++) covariance[i * all + i] = Infinity;
  used.forEach((i, r) => {
    used.forEach((j, c) => {
      const v = m[r * width + n + c]! * scale[r]! * scale[c]!;
      covariance[i * all + j] = v;
      values[i] = values[i]! + v * vector[j]!;
    });
  });
  return { values, covariance };
}

/** The same knowledge as information, after each variance has grown by so much: what was measured long ago tells less. */
export function grown(known: Known, growth: readonly number[]): Information {
  const n = known.values.length;
  const covariance = Float64Array.from(known.covariance);
  for (let i = 0; i < n; i++) covariance[i * n + i] = covariance[i * n + i]! + growth[i]!;
  const back = solved({ matrix: covariance, vector: new Float64Array(n) })!;
  const vector = new Float64Array(n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) vector[i] = vector[i]! + back.covariance[i * n + j]! * known.values[j]!;
  return { matrix: back.covariance, vector };
}
