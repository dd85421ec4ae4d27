import { makeShelf, refuse, partsOf, type Result } from '@gristmill/core';
import { namedBody, writeStep, type NamedBody } from '@gristmill/core/solid/step';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { expose } from 'comlink';
import * as kit from 'replicad';
import kernel from 'replicad-opencascadejs';
import kernelUrl from 'replicad-opencascadejs/wasm?url';
import type { SolidApi, SolidWish } from './solid-api.ts';

registerKinds();
let loaded: Promise<void> | undefined;

/** The kernel of exact bodies is large and is loaded when the first STEP file is asked for. */
const ready = (): Promise<void> =>
  (loaded ??= kernel({ locateFile: () => kernelUrl, print: () => undefined })
    .then((k) => kit.setOC(k))
    .catch((error: unknown) => {
      // A load that failed once may succeed the next time.
      loaded = undefined;
      throw error;
    }));

const api: Pick<SolidApi, 'file'> = {
  file: async (wish: SolidWish, onProgress): Promise<Result<Uint8Array>> => {
    const made = partsOf(wish.kind, wish.params, makeShelf(wish.shop));
    if (!made.ok) return made;
    const parts = made.value.filter((p) => p.solid && (wish.part === undefined || p.id === wish.part));
    if (parts.length === 0)
      return refuse('There is no such part with a body.', 'Only parts that are made have one.', 'Choose another part.');
    await ready();
    const bodies: NamedBody[] = [];
    for (const p of parts) {
      const body = namedBody(kit, p.name, p.solid!());
      if (!body.ok) return body;
      bodies.push(body.value);
      onProgress(bodies.length / (parts.length + 1));
    }
    return { ok: true, value: await writeStep(kit, bodies) };
  },
};

expose(api);
