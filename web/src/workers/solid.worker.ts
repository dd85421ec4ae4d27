import { makeShelf, refuse, partsOf, type Part, type Result, type Solid } from '@gristmill/core';
import { onOnePlate } from '@gristmill/core/assembly/laid-out';
import { lineFiles, zipped } from '@gristmill/core/assembly/line-files';
import { compensated, meshSolid, write3mf, writeStl, type NamedMesh } from '@gristmill/core/solid/index';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { expose } from 'comlink';
import kernelUrl from 'manifold-3d/manifold.wasm?url';
import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import type { BodyWish, PartMesh, SolidApi, SolidWish } from './solid-api.ts';

registerKinds();
let kernel: Promise<ManifoldToplevel> | undefined;

/** The boolean kernel is loaded when the first solid is asked for, from where the app came from. */
const loaded = (): Promise<ManifoldToplevel> =>
  (kernel ??= Kernel({ locateFile: () => kernelUrl })
    .then((k) => {
      k.setup();
      return k;
    })
    .catch((error: unknown) => {
      // A load that failed once may succeed the next time.
      kernel = undefined;
      throw error;
    }));

/** Meshes what is wanted, one part after the other. */
async function meshAll(
  wish: BodyWish,
  bodyOf: (p: Part) => (() => Solid) | undefined,
  each: (mesh: PartMesh & { name: string; volume: number; count: number }, share: number) => void,
): Promise<Result<number>> {
  const made = partsOf(wish.kind, wish.params, makeShelf(wish.shop));
  if (!made.ok) return made;
  const parts = made.value.filter((p) => bodyOf(p) && (wish.part === undefined || p.id === wish.part));
  if (parts.length === 0)
    return refuse('There is no such part with a body.', 'Only parts that are made have one.', 'Choose another part.');
  const k = await loaded();
  for (const [i, p] of parts.entries()) {
    const mesh = meshSolid(k, bodyOf(p)!(), wish.chordError, wish.compensation);
    if (!mesh)
      return refuse(`Nothing is left of “${p.name}”.`, 'Its cuts take all of it away.', 'Look at its bore and screws.');
    each({ ...mesh, id: p.id, name: p.name, count: p.quantity }, (i + 1) / parts.length);
  }
  return { ok: true, value: parts.length };
}

const api: SolidApi = {
  file: async (wish: SolidWish, onProgress): Promise<Result<Uint8Array>> => {
    const meshes: (NamedMesh & { count: number })[] = [];
    const done = await meshAll(
      wish,
      (p) => p.solid,
      (mesh, share) => {
        meshes.push({ name: mesh.name, mesh, count: mesh.count });
        onProgress(share);
      },
    );
    return done.ok
      ? {
          ok: true,
          value:
            wish.format === 'stl'
              ? writeStl(meshes[0]!.mesh, wish.title)
              : write3mf(meshes, wish.title, onOnePlate(meshes)),
        }
      : done;
  },
  outlines: async (wish) => {
    const made = partsOf(wish.kind, wish.params, makeShelf(wish.shop));
    if (!made.ok) return made;
    const part = made.value.find((p) => p.id === wish.part);
    return part
      ? { ok: true, value: compensated(await loaded(), part.curves, wish.compensation, wish.chordError) }
      : refuse('There is no such part.', 'The stage may have changed meanwhile.', 'Choose another part.');
  },
  bundle: async (wish, shop, more, onProgress) => {
    const making = lineFiles(await loaded(), wish, makeShelf(shop));
    let step = making.next();
    for (; !step.done; step = making.next()) onProgress(step.value);
    return step.value.ok ? { ok: true, value: zipped({ ...step.value.value, ...more }) } : step.value;
  },
  meshes: async (wish) => {
    const out: PartMesh[] = [];
    const done = await meshAll(
      wish,
      (p) => (p.places ? (p.solid ?? p.seen) : undefined),
      ({ id, vertices, triangles }) => void out.push({ id, vertices, triangles }),
    );
    return done.ok ? { ok: true, value: out } : done;
  },
};

expose(api);
