import { wrap } from 'comlink';
import { serverLost } from '../state/server.ts';

/** One worker as the pool sees it: something that computes, and can be ended. */
export interface PoolWorker<A> {
  readonly api: A;
  end(): void;
  /** Settles with the reason when the worker breaks: its script does not come, or it fails outside of any call. */
  readonly broken?: Promise<Error>;
}

/** A worker's script did not come from the server. */
export class NotLoaded extends Error {
  constructor() {
    super('The part of Gristmill that computes did not come from the server.');
    this.name = 'NotLoaded';
  }
}

/** A worker of the browser as the pool sees it. */
export function workerOf<A>(worker: Worker): PoolWorker<A> {
  const broken = new Promise<Error>((resolve) => {
    // A script that does not load says nothing; one that fails says what.
    worker.addEventListener('error', (e) =>
      resolve(e instanceof ErrorEvent && e.message ? new Error(e.message) : new NotLoaded()),
    );
  });
  void broken.then((why) => void (why instanceof NotLoaded && serverLost()));
  return { api: wrap<A>(worker) as unknown as A, end: () => worker.terminate(), broken };
}

interface Job<A> {
  readonly run: (api: A) => Promise<unknown>;
  readonly resolve: (value: never) => void;
  readonly reject: (reason: unknown) => void;
  readonly signal: AbortSignal | undefined;
  readonly heavy: () => boolean;
}

export class Cancelled extends Error {
  constructor() {
    super('cancelled');
    this.name = 'AbortError';
  }
}

/**
 * Shares jobs among a few workers. A cancelled job that waits is dropped; one that runs is left to finish unheard when
 * it is
 * short, and has its worker ended and replaced when it is heavy.
 */
export class WorkerPool<A> {
  private readonly idle: PoolWorker<A>[] = [];
  private readonly waiting: Job<A>[] = [];
  private started = 0;

  constructor(
    private readonly make: () => PoolWorker<A>,
    private readonly size: number,
  ) {}

  /**
   * @param run what to do with a worker
   * @param options `signal` cancels; `heavy` marks work long enough to end its worker for, asked when it is cancelled
   *   where it is a function
   */
  run<T>(
    run: (api: A) => Promise<T>,
    options: { signal?: AbortSignal; heavy?: boolean | (() => boolean) } = {},
  ): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      if (options.signal?.aborted) return reject(new Cancelled());
      const job: Job<A> = {
        run,
        resolve,
        reject,
        signal: options.signal,
        heavy: typeof options.heavy === 'function' ? options.heavy : () => options.heavy === true,
      };
      options.signal?.addEventListener('abort', () => this.drop(job), { once: true });
      this.waiting.push(job);
      this.next();
    });
  }

  /**
   * Has every worker begin to load, so that the first job does not wait for it.
   *
   * @param practise what each new one may do meanwhile; it must give way to a job
   */
  warm(practise?: (api: A) => Promise<void>): void {
    while (this.started < this.size) {
      this.started++;
      const worker = this.make();
      this.idle.push(worker);
      // A worker that breaks is told of by the job that needs it.
      void practise?.(worker.api).catch(() => undefined);
    }
  }

  /** Jobs that wait for a worker. */
  get queued(): number {
    return this.waiting.length;
  }

  private drop(job: Job<A>): void {
    const at = this.waiting.indexOf(job);
    if (at >= 0) this.waiting.splice(at, 1);
    job.reject(new Cancelled());
  }

  private next(): void {
    if (this.waiting.length === 0) return;
    let worker = this.idle.pop();
    if (!worker) {
      if (this.started >= this.size) return;
      this.started++;
      worker = this.make();
    }
    const job = this.waiting.shift()!;
    void this.work(worker, job);
  }

  private async work(worker: PoolWorker<A>, job: Job<A>): Promise<void> {
    let ended = false;
    const end = () => {
      if (!job.heavy()) return;
      ended = true;
      worker.end();
      this.started--;
      this.next();
    };
    job.signal?.addEventListener('abort', end, { once: true });
    const broken = worker.broken?.then((why) => {
      if (!ended) {
        ended = true;
        worker.end();
        this.started--;
        this.next();
      }
      throw why;
    });
    try {
      const work = job.run(worker.api);
      job.resolve((await (broken ? Promise.race([work, broken]) : work)) as never);
    } catch (error) {
      job.reject(error);
    } finally {
      job.signal?.removeEventListener('abort', end);
      if (!ended) {
        this.idle.push(worker);
        this.next();
      }
    }
  }
}
