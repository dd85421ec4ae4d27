/** Two-sided 95 % points of Student's t for 1 to 30 degrees of freedom. Source: JCGM 100:2008 table G.2. */
const T95 = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11,
  2.101, 2.093, 2.086, 2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];

/** The 99 % points. Source: the distribution itself, as table G.2 rounds it. */
const T99 = [
  63.657, 9.925, 5.841, 4.604, 4.032, 3.707, 3.499, 3.355, 3.25, 3.169, 3.106, 3.055, 3.012, 2.977, 2.947, 2.921, 2.898,
  2.878, 2.861, 2.845, 2.831, 2.819, 2.807, 2.797, 2.787, 2.779, 2.771, 2.763, 2.756, 2.75,
];

/** A point of Student's t from its table: interpolated in 1/ν between rows, and towards the normal one above 30. */
function fromTable(table: readonly number[], normal: number, dof: number): number {
  if (!(dof >= 1)) return table[0]!;
  if (dof >= 30) return normal + (table[29]! - normal) * (30 / dof);
  const low = Math.floor(dof);
  const a = table[low - 1]!;
  const b = table[low]!;
  const share = (1 / low - 1 / dof) / (1 / low - 1 / (low + 1));
  return a + (b - a) * share;
}

/**
 * Coverage factor k for 95 % and effective degrees of freedom.
 * @example student95(4) // 2.776
 * @example student95(60) // 2.001
 */
export const student95 = (dof: number): number => fromTable(T95, 1.96, dof);

/**
 * The same for 99 %.
 * @example student99(10) // 3.169
 * @example student99(60) // 2.663
 */
export const student99 = (dof: number): number => fromTable(T99, 2.5758, dof);
