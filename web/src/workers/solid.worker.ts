import {
  makeShelf,
  motionsOf,
  openLine,
  reducerOf,
  refuse,
  rememberingOpener,
  partsOf,
  type Body,
  type Part,
  type Result,
  type Shelf,
  type Solid,
  type Variant,
} from '@gristmill/core';
import { clashesOf, CRANKS } from '@gristmill/core/reducer/clashes';
import { goingTogether } from '@gristmill/core/assembly/going-together';
import { onOnePlate } from '@gristmill/core/assembly/laid-out';
import { lineFiles, zipped } from '@gristmill/core/assembly/line-files';
import { learntTimes, scheduleOf, stretchesOf, type Pieces } from '@gristmill/core/schedule/index';
import type { BodyMeasures } from '@gristmill/core/schedule/measures';
import { jointPieces } from '@gristmill/core/schedule/pieces';
import { plateFile } from '@gristmill/core/schedule/plate-file';
import { makers } from '@gristmill/core/fit/making-of';
import { overlayOf } from '@gristmill/core/fit/overlay';
import { couponFile } from '@gristmill/core/assembly/coupon-file';
import type { GoingTogether } from '@gristmill/core/assembly/going-together';
import {
  compensated,
  meshSolid,
  solidKey,
  write3mf,
  writeStl,
  type NamedMesh,
  type TriangleMesh,
} from '@gristmill/core/solid/index';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { expose } from 'comlink';
import kernelUrl from 'manifold-3d/manifold.wasm?url';
import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import { Kept } from './kept.ts';
import type { BodyWish, LineBody, PartMesh, ScheduleWish, SolidApi, SolidWish } from './solid-api.ts';

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
    const mesh = meshSolid(k, bodyOf(p)!(), wish.chordError, wish.corrections?.[p.id] ?? wish.compensation);
    if (!mesh)
      return refuse(`Nothing is left of “${p.name}”.`, 'Its cuts take all of it away.', 'Look at its bore and screws.');
    each({ ...mesh, id: p.id, name: p.name, count: p.quantity }, (i + 1) / parts.length);
  }
  return { ok: true, value: parts.length };
}

/** The bodies of a line where they stand; refuses in words where a stage cannot be. */
function bodiesOfLine(variant: Variant, shelf: Shelf): Result<readonly Body[]> {
  const opened = openLine(variant.stages, shelf, open).all;
  if (!opened.ok) return opened;
  const made = reducerOf(variant, opened.value, shelf);
  return made.ok ? { ok: true, value: made.value.bodies } : made;
}

/** An edit of one stage leaves the bodies of the others as they are: surfaces are kept by what they were made of. */
const open = rememberingOpener(24);
const surfaces = new Map<string, TriangleMesh | undefined>();
const MOST_SURFACES = 300;

function surfaceOf(k: ManifoldToplevel, body: Body, chordError: number): TriangleMesh | undefined {
  const solid = body.solid();
  const key = `${chordError} ${solidKey(solid)}`;
  const had = surfaces.get(key);
  const made = surfaces.has(key) ? had : meshSolid(k, solid, chordError);
  surfaces.delete(key);
  surfaces.set(key, made);
  if (surfaces.size > MOST_SURFACES) surfaces.delete(surfaces.keys().next().value!);
  return made;
}

/** Runs what goes on step by step, with word of how far it is; word of a stop gets through between steps. */
async function stepwise<T>(steps: Generator<number, T>, onProgress: (share: number) => void): Promise<T> {
  let step = steps.next();
  for (; !step.done; step = steps.next()) {
    onProgress(step.value);
    await new Promise((next) => setTimeout(next));
  }
  return step.value;
}

function* shares<P extends { readonly share: number }, T>(steps: Generator<P, T>): Generator<number, T> {
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield step.value.share;
  return step.value;
}

/** What a plan is made of, kept while its design is the same: a tick or a day off moves only times. */
const planned = new Kept<{ pieces: Result<Pieces>; order: Result<GoingTogether> }>(6);
const measures = new Map<string, BodyMeasures>();

async function plannedOf(wish: ScheduleWish, shelf: Shelf, onProgress: (share: number) => void) {
  const { motor, driver, mount, output, housing, stages } = wish.variant;
  const key = JSON.stringify([motor, driver, mount, output, housing, stages, wish.shop, wish.plan.joints]);
  const had = planned.get(key);
  if (had) return had;
  const k = await loaded();
  const pieces = await stepwise(jointPieces(k, wish.variant, wish.plan.joints, shelf, measures), (x) =>
    onProgress(x / 2),
  );
  const order = await stepwise(shares(goingTogether(k, wish.variant, shelf, open)), (x) => onProgress((1 + x) / 2));
  const made = { pieces, order };
  planned.set(key, made);
  return made;
}

const api: Omit<SolidApi, 'assembly'> = {
  schedule: async (wish, onProgress) => {
    const shelf = makeShelf(wish.shop);
    const { pieces, order } = await plannedOf(wish, shelf, onProgress);
    if (!pieces.ok) return pieces;
    const { variant, plan, bench, build, now, offset } = wish;
    const found = order.ok && order.value.stuck.length === 0 ? order.value.steps : undefined;
    const lists = variant.stages.map((s) => {
      const opened = open(s, shelf);
      return opened.ok ? opened.value.assembly() : [];
    });
    const stretches = stretchesOf(variant, build, found, lists, pieces.value, offset);
    const input = { pieces: pieces.value, stretches, ...bench };
    return {
      ok: true,
      value: {
        schedule: scheduleOf(input, plan, shelf, now),
        learnt: learntTimes(plan, shelf),
        ...(!found && { unordered: order.ok ? order.value.stuck[0]! : order.problem.what }),
      },
    };
  },
  plate: async ({ variant, shop, ...ask }, onProgress) =>
    stepwise(plateFile(await loaded(), variant, ask, makeShelf(shop)), onProgress),
  line: async (wish, onProgress) => {
    const bodies = bodiesOfLine(wish.variant, makeShelf(wish.shop));
    if (!bodies.ok) return bodies;
    const k = await loaded();
    const out: LineBody[] = [];
    for (const [i, b] of bodies.value.entries()) {
      const mesh = surfaceOf(k, b, wish.chordError);
      onProgress((i + 1) / bodies.value.length);
      if (!mesh) continue;
      const { name, material, note, quantity, mass, money } = b.part;
      const told = { id: b.id, of: b.of, stage: b.stage, turns: b.turns, speed: b.speed };
      out.push({
        ...told,
        ...{ name, material, note, quantity, mass, money },
        motions: motionsOf(b),
        vertices: mesh.vertices,
        triangles: mesh.triangles,
      });
      // Word of how far it is, and of a stop, gets through between bodies.
      await new Promise((next) => setTimeout(next));
    }
    return { ok: true, value: out };
  },
  order: async (wish, onProgress) => {
    const looking = goingTogether(await loaded(), wish.variant, makeShelf(wish.shop), open);
    return stepwise(shares(looking), onProgress);
  },
  clashes: async (wish, onProgress) => {
    const bodies = bodiesOfLine(wish.variant, makeShelf(wish.shop));
    if (!bodies.ok) return bodies;
    const looking = clashesOf(await loaded(), bodies.value, CRANKS);
    return { ok: true, value: await stepwise(shares(looking), onProgress) };
  },
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
      ? {
          ok: true,
          value: compensated(
            await loaded(),
            part.curves,
            wish.corrections?.[part.id] ?? wish.compensation,
            wish.chordError,
          ),
        }
      : refuse('There is no such part.', 'The stage may have changed meanwhile.', 'Choose another part.');
  },
  corrected: async (curves, correction, chordError) => compensated(await loaded(), curves, correction, chordError),
  overlay: async ({ variant, shop, key, printed, day, correction }) => {
    const shelf = makeShelf(shop);
    const bodies = bodiesOfLine(variant, shelf);
    if (!bodies.ok) return bodies;
    const body = bodies.value.find((b) => b.id === key);
    const made = makers(variant.making, shelf.processes, day)(key, printed);
    if (!body || !made) return { ok: true, value: undefined };
    return { ok: true, value: overlayOf(await loaded(), body.solid(), correction, made) };
  },
  coupon: async (wish) => couponFile(await loaded(), wish.process, wish.format, wish.title),
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
