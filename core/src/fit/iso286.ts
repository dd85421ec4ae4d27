/** Steps of nominal size up to and including, mm. Source: ISO 286-1:2010, table 1. */
const STEPS = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250] as const;

/** Standard tolerances by grade and step, µm. Source: ISO 286-1:2010, table 1. */
const GRADES: Readonly<Record<number, readonly number[]>> = {
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290],
};

/**
 * Fundamental deviations of shafts by step, µm: the upper one of f, g, h, the lower one of k, m, n, p. Source: ISO
 * 286-1:2010, tables 4 and 5.
 */
const SHAFTS: Readonly<Record<string, readonly number[]>> = {
  f: [-6, -10, -13, -16, -20, -25, -30, -36, -43, -50],
  g: [-2, -4, -5, -6, -7, -9, -10, -12, -14, -15],
  h: [0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
  k: [0, 1, 1, 1, 2, 2, 2, 3, 3, 4],
  m: [2, 4, 6, 7, 8, 9, 11, 13, 15, 17],
  n: [4, 8, 10, 12, 15, 17, 20, 23, 27, 31],
  p: [6, 12, 15, 18, 22, 26, 32, 37, 43, 50],
};

/** Limit deviations of a tolerance class, m. */
export interface Limits {
  readonly low: number;
  readonly high: number;
}

/**
 * Limit deviations of a size by its tolerance class.
 *
 * @param nominal m, above 0 and up to 250 mm
 * @param name a small letter for shafts, a capital one for holes, then the grade: f to p, js, and grades 5 to 11
 * @returns undefined where the class or the size is not in the table
 * Source: ISO 286-1:2010; holes F to H and JS mirror the shafts, K to N up to grade 8 and P up to 7 add Δ = IT(n) − IT(n−1).
 * @example isoLimits(25e-3, 'H7') // { low: 0, high: 0.000021 }
 * @example isoLimits(25e-3, 'N7') // { low: -0.000028, high: -0.000007 }
 */
export function isoLimits(nominal: number, name: string): Limits | undefined {
  const parsed = /^(js|JS|[f-hkmnpF-HKMNP])(\d+)$/.exec(name);
  const step = STEPS.findIndex((to) => nominal * 1e3 <= to + 1e-9);
  const grade = Number(parsed?.[2]);
  const width = GRADES[grade]?.[step];
  if (!parsed || !(nominal > 0) || width === undefined) return undefined;
  const letter = parsed[1]!.toLowerCase();
  const hole = parsed[1] !== letter;
  const um = (low: number, high: number): Limits => ({ low: low / 1e6, high: high / 1e6 });
  if (letter === 'js') return um(-width / 2, width / 2);
  const own = SHAFTS[letter]![step]!;
  const clear = letter <= 'h';
  if (!hole) return clear ? um(own - width, own) : um(own, own + width);
  if (clear) return um(-own, -own + width);
  // Up to 3 mm no Δ is added.
  const small = step === 0;
  const rule = letter === 'p' ? grade <= 7 : grade <= 8;
  const delta = small || !rule ? 0 : width - (GRADES[grade - 1]?.[step] ?? width);
  // Above grade 8 a hole N ends at nought.
  const high = letter === 'n' && grade > 8 && !small ? 0 : -own + delta;
  return um(high - width, high);
}
