import {
  makeShelf,
  openLine,
  reducerOf,
  refuse,
  partsOf,
  type Frame,
  type Result,
  type Turning,
} from '@gristmill/core';
import { couponOf } from '@gristmill/core/fit/coupon';
import { namedBody, writeStep, type NamedBody } from '@gristmill/core/solid/step';
import { writeStepAssembly, type PlacedBody } from '@gristmill/core/solid/step-assembly';
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

/** Colours of bodies by what they turn with, as on the sheet. */
const COLOURS: Record<Turning, string> = { fixed: '#e9e2cf', input: '#b9b19c', output: '#dfdccd', free: '#bcdad2' };

const inMillimetres = ({ at, ...axes }: Frame) => ({
  ...axes,
  at: [at[0] * 1000, at[1] * 1000, at[2] * 1000] as const,
});

const api: Pick<SolidApi, 'file' | 'assembly' | 'coupon'> = {
  coupon: async ({ process }) => {
    await ready();
    const bodies: NamedBody[] = [];
    for (const p of couponOf(process).parts) {
      const body = namedBody(kit, p.name, p.solid());
      if (!body.ok) return body;
      bodies.push(body.value);
    }
    return { ok: true, value: await writeStep(kit, bodies) };
  },
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
  assembly: async ({ variant, shop, title }, onProgress) => {
    const opened = openLine(variant.stages, makeShelf(shop)).all;
    if (!opened.ok) return opened;
    const made = reducerOf(variant, opened.value, makeShelf(shop));
    if (!made.ok) return made;
    await ready();
    const placed: PlacedBody[] = [];
    for (const b of made.value.bodies) {
      const where = b.of === 'stage' ? `stage ${b.stage + 1}` : b.of === 'motor' ? 'motor' : 'housing';
      const body = namedBody(kit, `${b.part.name}, ${where}`, b.solid());
      if (!body.ok) return body;
      placed.push({ ...body.value, colour: COLOURS[b.turns], places: b.places(0).map(inMillimetres) });
      onProgress(placed.length / (made.value.bodies.length + 1));
    }
    return { ok: true, value: writeStepAssembly(kit, title, placed) };
  },
};

expose(api);
