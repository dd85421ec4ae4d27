import { makeShelf, refuse, stageKind, type Result } from '@gristmill/core';
import { meshSolid, write3mf, writeStl, type NamedMesh } from '@gristmill/core/solid/index';
import { registerKinds } from '@gristmill/core/stage/kinds';
import { expose } from 'comlink';
import kernelUrl from 'manifold-3d/manifold.wasm?url';
import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import type { SolidApi, SolidWish } from './solid-api.ts';

registerKinds();
let kernel: Promise<ManifoldToplevel> | undefined;

/** The boolean kernel is loaded when the first solid is asked for, from where the app came from. */
const loaded = (): Promise<ManifoldToplevel> =>
  (kernel ??= Kernel({ locateFile: () => kernelUrl }).then((k) => {
    k.setup();
    return k;
  }).catch((error: unknown) => {
    // A load that failed once may succeed the next time.
    kernel = undefined;
    throw error;
  }));

const api: SolidApi = {
  file: async (wish: SolidWish, onProgress): Promise<Result<Uint8Array>> => {
    const made = stageKind(wish.kind)!.parts(wish.params, makeShelf(wish.shop));
    if (!made.ok) return made;
    const parts = made.value.filter((p) => p.solid && (wish.part === undefined || p.id === wish.part));
    const k = await loaded();
    const meshes: NamedMesh[] = [];
    for (const p of parts) {
      const mesh = meshSolid(k, p.solid!(), wish.chordError);
      if (!mesh) return refuse(`Nothing is left of “${p.name}”.`, 'Its cuts take all of it away.', 'Look at its bore and screws.');
      meshes.push({ name: p.name, mesh });
      onProgress(meshes.length / parts.length);
    }
    if (meshes.length === 0) return refuse('There is no such part with a body.', 'Only parts that are made have one.', 'Choose another part.');
    return { ok: true, value: wish.format === 'stl' ? writeStl(meshes[0]!.mesh, wish.title) : write3mf(meshes, wish.title) };
  },
};

expose(api);
