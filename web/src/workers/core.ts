import { wrap } from 'comlink';
import type { CoreApi } from './api.ts';
import { WorkerPool } from './pool.ts';

const size = Math.max(1, Math.min(4, (navigator.hardwareConcurrency || 2) - 1));

/** The pool every analysis runs in. */
export const corePool = new WorkerPool<CoreApi>(() => {
  const worker = new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' });
  return { api: wrap<CoreApi>(worker) as unknown as CoreApi, end: () => worker.terminate() };
}, size);
