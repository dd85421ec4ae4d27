import type { TriangleMesh } from '../solid/mesh.ts';

/** What a printer or a mill has to do with a body, lying as it is drawn. */
export interface BodyMeasures {
  /** m³. */
  readonly volume: number;
  /** Area of its sides seen from the side: what walls are laid along, m². */
  readonly side: number;
  /** Area seen from above and from below, one after the other, m². */
  readonly flat: number;
  /** Along x, y and z, m. */
  readonly box: readonly [number, number, number];
}

/** Square and cube metres in square and cube millimetres. */
const [MM2, MM3] = [1e-6, 1e-9];

/**
 * Measures of a body by its surface. A triangle that leans counts with both its shares: its shadow on the bed to what is
 * flat, the rest of its height to the sides.
 *
 * @param mesh mm
 */
export function measuresOf(mesh: TriangleMesh): BodyMeasures {
  const { vertices: v, triangles: t } = mesh;
  let [side, flat] = [0, 0];
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < v.length; i++) {
    const [k, x] = [i % 3, v[i]!];
    if (x < low[k]!) low[k] = x;
    if (x > high[k]!) high[k] = x;
  }
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i]!, 3 * t[i + 1]!, 3 * t[i + 2]!];
    const [ux, uy, uz] = [v[b]! - v[a]!, v[b + 1]! - v[a + 1]!, v[b + 2]! - v[a + 2]!];
    const [wx, wy, wz] = [v[c]! - v[a]!, v[c + 1]! - v[a + 1]!, v[c + 2]! - v[a + 2]!];
    const [nx, ny, nz] = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx];
    side += Math.sqrt(nx * nx + ny * ny) / 2;
    flat += Math.abs(nz) / 2;
  }
  return {
    volume: mesh.volume * MM3,
    side: side * MM2,
    flat: flat * MM2,
    box: [(high[0]! - low[0]!) / 1e3, (high[1]! - low[1]!) / 1e3, (high[2]! - low[2]!) / 1e3],
  };
}
