/**
 * Band of a figure that depends on several uncertain inputs: each input in turn is set to its low and high end, and the
 * deviations are added as root sum of squares, upwards and downwards apart (first-order propagation without a
 * correlation term, JCGM 100:2008 5.1.2, applied to finite differences so that bends in the function are felt).
 *
 * @param value the figure with every input at its likely value
 * @param ends for every uncertain input the figure at its low and at its high end
 * @returns `[low, high]`, never on the wrong side of `value`; an end that could not be computed (not finite) widens nothing
 * @example bandFrom(10, [[9, 11.5], [10.2, 9.9]]) // [8.995, 11.513]
 */
export function bandFrom(value: number, ends: readonly (readonly [number, number])[]): [number, number] {
  let down = 0;
  let up = 0;
  for (const [a, b] of ends) {
    const da = Number.isFinite(a) ? a - value : 0;
    const db = Number.isFinite(b) ? b - value : 0;
    const lowest = Math.min(da, db, 0);
    const highest = Math.max(da, db, 0);
    down += lowest * lowest;
    up += highest * highest;
  }
  return [value - Math.sqrt(down), value + Math.sqrt(up)];
}
