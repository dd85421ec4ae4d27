import type { Outline } from './outline.ts';

/** A closed outline of one pattern of vertices, turned round the origin as many times as it takes. */
export function repeated(one: Float64Array, times: number): Outline {
  const n = one.length;
  const points = new Float64Array(n * times);
  for (let k = 0; k < times; k++) {
    const a = (2 * Math.PI * k) / times;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    for (let i = 0, o = k * n; i < n; i += 3, o += 3) {
      points[o] = c * one[i]! - s * one[i + 1]!;
      points[o + 1] = s * one[i]! + c * one[i + 1]!;
      points[o + 2] = one[i + 2]!;
    }
  }
  return { points, closed: true };
}
