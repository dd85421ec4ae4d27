import type { CoreApi } from './api.ts';
import { WorkerPool, workerOf } from './pool.ts';

const size = Math.max(1, Math.min(4, (navigator.hardwareConcurrency || 2) - 1));

/** The pool every analysis runs in. */
export const corePool = new WorkerPool<CoreApi>(
  () => workerOf<CoreApi>(new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' })),
  size,
);
