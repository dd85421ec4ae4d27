import { fitColumns } from './regress.ts';
import { student95 } from './student.ts';

/**
 * Whether points that a straight line was laid through bend: the square term over its own standard uncertainty, over
 * Student's factor; beyond one it is no chance, but for five in a hundred.
 *
 * @returns with the sign of the bend; 0 where there are too few points to tell
 * @example bendOf([0, 1, 2, 3, 4], [0, 1, 2, 3, 4]) // 0
 */
export function bendOf(x: readonly number[], y: readonly number[]): number {
  const n = x.length;
  if (n < 5) return 0;
  const middle = x.reduce((s, v) => s + v, 0) / n;
  const reach = Math.max(...x.map((v) => Math.abs(v - middle)));
  if (!(reach > 0)) return 0;
  const u = Float64Array.from(x, (v) => (v - middle) / reach);
  const fit = fitColumns([new Float64Array(n).fill(1), u, u.map((v) => v * v)], Float64Array.from(y));
  if (!fit) return 0;
  const size = Math.max(...y.map(Math.abs));
  const own = Math.max(Math.sqrt(fit.covariance[2]![2]!), 1e-9 * size);
  return own > 0 ? fit.values[2]! / own / student95(n - 3) : 0;
}

/** What is said where a line does not go through its points, and the reading that would settle it. */
export const bendSays = (x: readonly number[], y: readonly number[], cause: string, next: string): string[] =>
  Math.abs(bendOf(x, y)) > 1
    ? [`The points bend away from the straight line (${cause}): its slope holds for the middle of them only. ${next}`]
    : [];
