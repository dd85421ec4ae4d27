import { strToU8 } from 'fflate';
import type { ManifoldToplevel } from 'manifold-3d';
import { couponOf } from '../fit/coupon.ts';
import { couponMarkdown } from '../fit/write-coupon.ts';
import type { Process } from '../schema/process-schema.ts';
import { refuse, ok, type Result } from '../result.ts';
import { writeDxf } from '../shape/dxf.ts';
import { writeSvg } from '../shape/svg.ts';
import { meshSolid } from '../solid/mesh.ts';
import { writeStl } from '../solid/stl.ts';
import { write3mf, type NamedMesh } from '../solid/threemf.ts';
import { onOnePlate } from './laid-out.ts';
import { zipped } from './line-files.ts';

/** Largest distance of the coupon's surface from the exact one, m. */
const SURFACE = 5e-6;

/**
 * The coupon of a process as a file: all pieces on a plate as 3MF; a zip of the pieces as STL, SVG or DXF, with the
 * measuring sheet. It is as drawn: what it comes out as is what is wanted.
 *
 * @param title in the files
 */
export function couponFile(
  kernel: ManifoldToplevel,
  process: Process,
  format: string,
  title: string,
): Result<Uint8Array> {
  const coupon = couponOf(process);
  const sheet = { 'measuring.md': strToU8(couponMarkdown(process)) };
  if (format === 'svg' || format === 'dxf') {
    const files: Record<string, Uint8Array> = { ...sheet };
    for (const p of coupon.parts) {
      const of = { title: `${title}, ${p.name}`, note: 'As drawn.', curves: p.curves };
      files[`${p.id}.${format}`] = strToU8(format === 'svg' ? writeSvg(of) : writeDxf(of, { reference: true }));
    }
    return ok(zipped(files));
  }
  const meshes: (NamedMesh & { count: number })[] = [];
  for (const p of coupon.parts) {
    const mesh = meshSolid(kernel, p.solid(), SURFACE);
    if (mesh) meshes.push({ name: p.name, mesh, count: 1 });
  }
  if (format === '3mf') return ok(write3mf(meshes, title, onOnePlate(meshes)));
  if (format === 'stl')
    return ok(
      zipped({
        ...sheet,
        ...Object.fromEntries(
          meshes.map((m, i) => [`${coupon.parts[i]!.id}.stl`, writeStl(m.mesh, `${title}, ${m.name}`)]),
        ),
      }),
    );
  return refuse(`A coupon is not written as ${format}.`, 'It is STL, 3MF, STEP, SVG or DXF.', 'Choose one of these.');
}
