import type { Bearing } from '../../schema/joint.ts';

/** Equivalent load of a deep-groove bearing under radial and axial force, N. Source: ISO 281:2007, table 3, f0 = 13. */
export function bearingLoad(b: Bearing, radial: number, axial: number): number {
  const rows = [
    [0.172, 0.19, 2.3],
    [0.345, 0.22, 1.99],
    [0.689, 0.26, 1.71],
    [1.03, 0.28, 1.55],
    [1.38, 0.3, 1.45],
    [2.07, 0.34, 1.31],
    [3.45, 0.38, 1.15],
    [5.17, 0.42, 1.04],
    [6.89, 0.44, 1],
  ] as const;
  const relative = (13 * axial) / b.static;
  const [, e, y] = rows.find((r) => relative <= r[0]) ?? rows[rows.length - 1]!;
  return axial <= e * radial ? radial : Math.max(radial, 0.56 * radial + y * axial);
}
