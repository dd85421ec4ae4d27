import { proxy, wrap } from 'comlink';
import type { Result } from '@gristmill/core';
import { WorkerPool } from './pool.ts';
import type { SolidApi, SolidWish } from './solid-api.ts';

/** Solids have a worker of their own, started when the first one is asked for. */
const pool = new WorkerPool<SolidApi>(() => {
  const worker = new Worker(new URL('./solid.worker.ts', import.meta.url), { type: 'module' });
  return { api: wrap<SolidApi>(worker) as unknown as SolidApi, end: () => worker.terminate() };
}, 1);

export const solidFile = (wish: SolidWish, onProgress: (share: number) => void, signal: AbortSignal): Promise<Result<Uint8Array>> => pool.run((api) => api.file(wish, proxy(onProgress)), { signal, heavy: true });
