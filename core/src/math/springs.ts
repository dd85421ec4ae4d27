/**
 * Springs one after the other, N/m or N·m/rad; also lenses, conductances and whatever else adds up by its inverse.
 * @example inSeries(2, 3, 6) // 1
 */
export function inSeries(...springs: readonly number[]): number {
  let gives = 0;
  for (let i = 0; i < springs.length; i++) gives += 1 / springs[i]!;
  return 1 / gives;
}

/**
 * How far a spring of two slopes is wound up: T/k up to its bend, the rest at the other slope.
 *
 * @param torque N·m; its sign does not matter
 * @param stiffness up to the bend, N·m/rad
 * @param bend where it bends, N·m
 * @param beyond stiffness from there, N·m/rad
 * @returns rad
 * @example bentWindUp(3, 500, 2, 250) // 0.008
 */
export function bentWindUp(torque: number, stiffness: number, bend: number, beyond: number): number {
  const t = Math.abs(torque);
  return t <= bend ? t / stiffness : bend / stiffness + (t - bend) / beyond;
}
