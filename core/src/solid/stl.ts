import type { TriangleMesh } from './mesh.ts';

/**
 * A mesh as binary STL, millimetres.
 *
 * @param title kept in the 80 bytes of the header; ASCII, and never starting with "solid", which readers take for the
 *   text form
 * Source: STL as stereolithography machines took it: header, count, then normal and three corners a triangle,
 * little-endian.
 */
export function writeStl(mesh: TriangleMesh, title: string): Uint8Array {
  const n = mesh.triangles.length / 3;
  const bytes = new Uint8Array(84 + 50 * n);
  const view = new DataView(bytes.buffer);
  const header = `mm; ${title.replace(/[^\x20-\x7e]+/g, ' ')}`.slice(0, 80);
  for (let i = 0; i < header.length; i++) bytes[i] = header.charCodeAt(i);
  view.setUint32(80, n, true);
  const v = mesh.vertices;
  for (let t = 0, at = 84; t < n; t++, at += 50) {
    const [a, b, c] = [3 * mesh.triangles[3 * t]!, 3 * mesh.triangles[3 * t + 1]!, 3 * mesh.triangles[3 * t + 2]!];
    const [ux, uy, uz] = [v[b]! - v[a]!, v[b + 1]! - v[a + 1]!, v[b + 2]! - v[a + 2]!];
    const [wx, wy, wz] = [v[c]! - v[a]!, v[c + 1]! - v[a + 1]!, v[c + 2]! - v[a + 2]!];
    const [nx, ny, nz] = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx];
    const long = Math.hypot(nx, ny, nz) || 1;
    [
      nx / long,
      ny / long,
      nz / long,
      v[a]!,
      v[a + 1]!,
      v[a + 2]!,
      v[b]!,
      v[b + 1]!,
      v[b + 2]!,
      v[c]!,
      v[c + 1]!,
      v[c + 2]!,
    ].forEach((x, i) => view.setFloat32(at + 4 * i, x, true));
  }
  return bytes;
}
