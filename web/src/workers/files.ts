import type { Joint, Result } from '@gristmill/core';
import { proxy } from 'comlink';
import type { Brought, Wish } from '../storage/bundle.ts';
import type { FilesApi } from './files-api.ts';
import { WorkerPool, workerOf } from './pool.ts';

/** One worker for files, started when the first is read or written. */
const pool = new WorkerPool<FilesApi>(
  () => workerOf<FilesApi>(new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' })),
  1,
);

export const jointFile = (joint: Joint): Promise<{ readonly blob: Blob; readonly ending: string }> =>
  pool.run((api) => api.writeJoint(joint));

export const bundleFile = (wish: Wish, onProgress: (share: number) => void, signal?: AbortSignal): Promise<Blob> =>
  pool.run((api) => api.writeBundle(wish, proxy(onProgress)), { ...(signal && { signal }), heavy: true });

export const bringFile = (file: File, onProgress: (share: number) => void): Promise<Result<Brought>> =>
  pool.run((api) => api.bring(file, proxy(onProgress)));
