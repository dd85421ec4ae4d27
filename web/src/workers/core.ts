import type { CoreApi } from './api.ts';
import { WorkerPool, workerOf } from './pool.ts';

const cores = navigator.hardwareConcurrency || 2;
const make = () => workerOf<CoreApi>(new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' }));

/** The pool every analysis runs in. */
export const corePool = new WorkerPool<CoreApi>(make, Math.max(1, Math.min(4, cores - 1)));

/** Workers of a search, and how many: of their own, so that an edit never waits for one. */
export const SEARCHERS = Math.max(1, Math.min(4, cores));
export const findPool = new WorkerPool<CoreApi>(make, SEARCHERS);
