/**
 * Springs one after the other, N/m or N·m/rad; also lenses, conductances and whatever else adds up by its inverse.
 * @example inSeries(2, 3, 6) // 1
 */
export function inSeries(...springs: readonly number[]): number {
  let gives = 0;
  for (let i = 0; i < springs.length; i++) gives += 1 / springs[i]!;
  return 1 / gives;
}
