import { proxy } from 'comlink';
import type { Result, ShopEdits } from '@gristmill/core';
import type { Correction } from '@gristmill/core/solid/correction';
import type { LineFilesProgress, LineFilesWish } from '@gristmill/core/assembly/line-files';
import { WorkerPool, workerOf } from './pool.ts';
import type {
  BodyWish,
  CouponWish,
  Curves,
  LineBody,
  LineWish,
  OverlayWish,
  PartMesh,
  PlateWish,
  ScheduleMade,
  ScheduleWish,
  SolidApi,
  SolidWish,
} from './solid-api.ts';

const poolOf = (start: () => Worker) => new WorkerPool<SolidApi>(() => workerOf<SolidApi>(start()), 1);

/** Meshed and exact bodies have a worker each, started when the first one is asked for: their kernels are large. */
const meshed = poolOf(() => new Worker(new URL('./solid.worker.ts', import.meta.url), { type: 'module' }));
const exact = poolOf(() => new Worker(new URL('./step.worker.ts', import.meta.url), { type: 'module' }));

export const solidFile = (
  wish: SolidWish,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Result<Uint8Array>> =>
  (wish.format === 'step' ? exact : meshed).run((api) => api.file(wish, proxy(onProgress)), { signal, heavy: true });

/**
 * Everything it takes to make some joints, as one zip.
 *
 * @param more files to go in with it, by name
 */
export const lineBundle = (
  wish: LineFilesWish,
  shop: ShopEdits,
  more: Readonly<Record<string, Uint8Array>>,
  onProgress: (at: LineFilesProgress) => void,
  signal: AbortSignal,
): Promise<Result<Uint8Array>> =>
  meshed.run((api) => api.bundle(wish, shop, more, proxy(onProgress)), { signal, heavy: true });

export const partOutlines = (wish: BodyWish, signal: AbortSignal): ReturnType<SolidApi['outlines']> =>
  meshed.run((api) => api.outlines(wish), { signal, heavy: true });

/** Contours as they are drawn for a process. */
export const correctedCurves = (
  curves: Curves,
  correction: Correction,
  chordError: number,
  signal: AbortSignal,
): Promise<Curves> => meshed.run((api) => api.corrected(curves, correction, chordError), { signal, heavy: true });

/** A part's contours as drawn, as drawn for its process, and as they come out. */
export const partOverlay = (wish: OverlayWish, signal: AbortSignal): ReturnType<SolidApi['overlay']> =>
  meshed.run((api) => api.overlay(wish), { signal, heavy: true });

/** The coupon of a process as a file. */
export const couponAsFile = (wish: CouponWish, signal: AbortSignal): Promise<Result<Uint8Array>> =>
  (wish.format === 'step' ? exact : meshed).run((api) => api.coupon(wish), { signal, heavy: true });

/** A whole line as one STEP assembly. */
export const lineAssembly = (
  wish: Omit<LineWish, 'chordError'> & { readonly title: string },
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Result<Uint8Array>> => exact.run((api) => api.assembly(wish, proxy(onProgress)), { signal, heavy: true });

/** Every body of a line; told of as they are made. */
export const lineBodies = (
  wish: LineWish,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Result<readonly LineBody[]>> =>
  meshed.run((api) => api.line(wish, proxy(onProgress)), { signal, heavy: true });

/** The order of putting a line together. */
export const lineOrder = (
  wish: Omit<LineWish, 'chordError'>,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): ReturnType<SolidApi['order']> => meshed.run((api) => api.order(wish, proxy(onProgress)), { signal, heavy: true });

/** Bodies of a line that stand in one another, at a dozen turns of the motor and more. */
export const lineClashes = (
  wish: Omit<LineWish, 'chordError'>,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): ReturnType<SolidApi['clashes']> =>
  meshed.run((api) => api.clashes(wish, proxy(onProgress)), { signal, heavy: true });

export const partMeshes = (wish: BodyWish, signal: AbortSignal): Promise<Result<readonly PartMesh[]>> =>
  meshed.run((api) => api.meshes(wish), { signal, heavy: true });

/** A build laid out in time. */
export const lineSchedule = (
  wish: ScheduleWish,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Result<ScheduleMade>> => meshed.run((api) => api.schedule(wish, proxy(onProgress)), { signal, heavy: true });

/** One plate of a plan as 3MF. */
export const planPlate = (
  wish: PlateWish,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Result<Uint8Array>> => meshed.run((api) => api.plate(wish, proxy(onProgress)), { signal, heavy: true });
