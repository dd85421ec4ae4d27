/** Two-sided 95 % points of Student's t for 1 to 30 degrees of freedom. Source: JCGM 100:2008 table G.2. */
const T95 = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11,
  2.101, 2.093, 2.086, 2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];

/**
 * Coverage factor k for 95 % and effective degrees of freedom, interpolated in 1/ν between table rows and towards 1.960
 * above 30.
 * @example student95(4) // 2.776
 */
export function student95(dof: number): number {
  if (!(dof >= 1)) return T95[0]!;
  if (dof >= 30) return 1.96 + (T95[29]! - 1.96) * (30 / dof);
  const low = Math.floor(dof);
  const a = T95[low - 1]!;
  const b = T95[low]!;
  const share = (1 / low - 1 / dof) / (1 / low - 1 / (low + 1));
  return a + (b - a) * share;
}
