import { ok, parseQuantity, partsOf, refuse, type Result, type Solid } from '@gristmill/core';
import { onOnePlate } from '@gristmill/core/assembly/laid-out';
import { meshSolid, write3mf, writeStl, type NamedMesh } from '@gristmill/core/solid/index';
import { namedBody, writeStep, type NamedBody } from '@gristmill/core/solid/step';
import Kernel from 'manifold-3d';
import { fileURLToPath } from 'node:url';
import { kindAndParams, toJson, type Options } from './commands.ts';
import { misuse } from './misuse.ts';
import { writeOutput } from './write-output.ts';

/** Exact bodies as STEP; their kernel is loaded only for this. */
async function exactFile(
  parts: readonly { name: string; solid: () => Solid }[],
): Promise<Result<{ bytes: Uint8Array; volume: number }>> {
  const [kit, { default: kernel }] = await Promise.all([import('replicad'), import('replicad-opencascadejs')]);
  kit.setOC(
    await kernel({
      locateFile: () => fileURLToPath(import.meta.resolve('replicad-opencascadejs/wasm')),
      print: () => undefined,
    }),
  );
  const bodies: NamedBody[] = [];
  for (const p of parts) {
    const body = namedBody(kit, p.name, p.solid());
    if (!body.ok) return body;
    bodies.push(body.value);
  }
  return ok({ bytes: await writeStep(kit, bodies), volume: bodies.reduce((s, b) => s + b.volume, 0) * 1e-9 });
}

/** Largest distance of a surface from the exact one, m; as typed, or a hundredth of a millimetre. */
export function chordOf(o: Options): Result<number> {
  const chord = parseQuantity(o.chord ?? '10 µm', 'length');
  if (!chord.ok) return chord;
  if (!(chord.value.si >= 5e-7 && chord.value.si <= 1e-3))
    return refuse(
      'The chord error cannot be kept.',
      'It must be between 0.5 µm and 1 mm.',
      'Write it like --chord "10 um".',
    );
  return ok(chord.value.si);
}

/** `solid KIND [PART] --params JSON --format stl|3mf|step --out FILE`: bodies of parts, as closed surfaces or exact. */
export async function solid(
  kindId: string | undefined,
  partId: string | undefined,
  o: Options,
): Promise<Result<string>> {
  const asked = kindAndParams(kindId, o);
  if (!asked.ok) return asked;
  if (!o.out) return misuse('--out is missing.', 'A solid is not text and goes to a file.', 'Write --out part.stl.');
  const format = o.format ?? (o.out.endsWith('.3mf') ? '3mf' : /\.ste?p$/i.test(o.out) ? 'step' : 'stl');
  if (format !== 'stl' && format !== '3mf' && format !== 'step')
    return misuse(
      `“${format}” is not a format of solids.`,
      'They are written as stl, 3mf or step.',
      'Write --format stl.',
    );
  const chord = chordOf(o);
  if (!chord.ok) return chord;
  const moved = parseQuantity(o.compensation ?? '0 mm', 'length');
  if (!moved.ok) return moved;
  if (!(Math.abs(moved.value.si) <= 5e-4))
    return refuse(
      'The compensation is out of reach.',
      'It must lie between −0.5 and 0.5 mm.',
      'Write it like --compensation "50 um".',
    );
  if (format === 'step' && moved.value.si !== 0)
    return refuse(
      'A STEP file is as drawn.',
      'Compensation moves straight pieces, and STEP holds the exact curves.',
      'Leave --compensation out, or write STL or 3MF.',
    );
  const made = partsOf(asked.value.kind.id, asked.value.params, asked.value.shelf);
  if (!made.ok) return made;
  const bodies = made.value.filter((p) => p.solid);
  const wanted = bodies.filter((p) => partId === undefined || p.id === partId);
  if (wanted.length === 0)
    return refuse(
      partId === undefined ? 'No part of this stage has a body.' : `There is no part “${partId}” with a body.`,
      `This stage has ${bodies.map((p) => p.id).join(', ') || 'none'}.`,
      'Name one of these.',
    );
  if (format === 'stl' && wanted.length > 1)
    return misuse(
      'PART is missing.',
      `An STL file holds one body; this stage has ${bodies.map((p) => p.id).join(', ')}.`,
      'Name one, or write --format 3mf.',
    );
  if (format === 'step') {
    const file = await exactFile(wanted as { name: string; solid: () => Solid }[]);
    if (!file.ok) return file;
    const written = await writeOutput(o.out, file.value.bytes);
    if (!written.ok) return written;
    return ok(
      o.json
        ? toJson({
            file: o.out,
            format,
            parts: wanted.map((p) => p.id),
            unit: 'mm',
            chordError: 0,
            volume: file.value.volume,
          })
        : `${o.out}: ${wanted.length} exact bod${wanted.length > 1 ? 'ies' : 'y'}, ${(file.value.volume * 1e9).toFixed(2)} mm³, millimetres.`,
    );
  }
  const kernel = await Kernel();
  kernel.setup();
  const meshes: (NamedMesh & { count: number })[] = [];
  for (const p of wanted) {
    const mesh = meshSolid(kernel, p.solid!(), chord.value, moved.value.si);
    if (!mesh)
      return refuse(`Nothing is left of “${p.name}”.`, 'Its cuts take all of it away.', 'Look at its bore and screws.');
    meshes.push({ name: p.name, mesh, count: partId === undefined ? p.quantity : 1 });
  }
  const written = await writeOutput(
    o.out,
    format === 'stl'
      ? writeStl(meshes[0]!.mesh, `${asked.value.kind.name}, ${wanted[0]!.name}`)
      : write3mf(meshes, asked.value.kind.name, onOnePlate(meshes)),
  );
  if (!written.ok) return written;
  const volume = meshes.reduce((s, m) => s + m.mesh.volume, 0) * 1e-9;
  const triangles = meshes.reduce((s, m) => s + m.mesh.triangles.length / 3, 0);
  return ok(
    o.json
      ? toJson({
          file: o.out,
          format,
          parts: wanted.map((p) => p.id),
          unit: 'mm',
          chordError: chord.value,
          volume,
          triangles,
        })
      : `${o.out}: ${wanted.length} bod${wanted.length > 1 ? 'ies' : 'y'}, ${triangles} triangles, ${(volume * 1e9).toFixed(2)} mm³, millimetres.`,
  );
}
