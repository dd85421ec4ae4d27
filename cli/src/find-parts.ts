import {
  analyseFound,
  composeBlocks,
  findInParts,
  foundOf,
  screenStages,
  sumWhole,
  worthAnalysing,
  worthComputing,
  type FindAsk,
  type FindResult,
  type SearchSteps,
} from '@gristmill/core';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { availableParallelism } from 'node:os';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';

/** The steps that are done in parts. */
type Parted = 'screen' | 'compose' | 'sum' | 'analyse';
type Args<S extends Parted> = Parameters<SearchSteps[S]>;

/** Runs a search's piece of work to its end. */
function ran<T>(search: Generator<unknown, T>): T {
  let step = search.next();
  while (!step.done) step = search.next();
  return step.value;
}

/** What a thread does of a search. */
const partsOf = (ask: FindAsk) => ({
  screen: (...a: Args<'screen'>) => ran(screenStages(ask, ...a)),
  compose: (...a: Args<'compose'>) => ran(composeBlocks(ask, ...a)),
  sum: (...a: Args<'sum'>) => ran(sumWhole(ask, ...a)),
  analyse: (...a: Args<'analyse'>) => ran(analyseFound(ask, ...a)),
});

/** This file is what its threads run. */
if (!isMainThread && (workerData as { of?: string } | null)?.of === 'find') {
  registerKinds();
  const parts = partsOf((workerData as { ask: FindAsk }).ask) as unknown as Readonly<
    Record<Parted, (...args: unknown[]) => unknown>
  >;
  parentPort!.on('message', ({ step, args }: { step: Parted; args: unknown[] }) =>
    parentPort!.postMessage(parts[step](...args)),
  );
}

/** A thread of Node does not take over what reads these sources: it is told to first; bundled they need no reader. */
const READ_FIRST = `
const { workerData } = require('node:worker_threads');
const ready = workerData.reader ? import(workerData.reader).then(({ register }) => register()) : Promise.resolve();
ready.then(() => import(workerData.file));
`;
const bundled = import.meta.url.endsWith('.js');

/** A thread that does one thing after another. */
class Thread {
  private last: Promise<unknown> = Promise.resolve();
  private readonly worker: Worker;

  constructor(ask: FindAsk) {
    this.worker = new Worker(READ_FIRST, {
      eval: true,
      workerData: {
        ...{ of: 'find', ask },
        file: bundled ? new URL('./find-parts.js', import.meta.url).href : import.meta.url,
        ...(!bundled && { reader: import.meta.resolve('tsx/esm/api') }),
      },
    });
  }

  run<T>(step: Parted, args: readonly unknown[]): Promise<T> {
    const work = this.last.then(
      () =>
        new Promise<T>((yes, no) => {
          const done = (value: T) => (this.worker.off('error', no), yes(value));
          this.worker.once('message', done).once('error', no);
          this.worker.postMessage({ step, args });
        }),
    );
    this.last = work.catch(() => undefined);
    return work;
  }

  end(): Promise<number> {
    return this.worker.terminate();
  }
}

/**
 * A whole search on all cores; on this thread alone where there is one core, or where no thread can read these sources.
 */
export async function findOnAllCores(ask: FindAsk): Promise<FindResult> {
  const cores = Math.min(4, availableParallelism());
  const threads =
    cores > 1 && (bundled || process.execArgv.some((a) => a.includes('tsx')))
      ? Array.from({ length: cores }, () => new Thread(ask))
      : [];
  const own = partsOf(ask);
  const run = <S extends Parted>(step: S, part: number, args: Args<S>): ReturnType<SearchSteps[S]> =>
    (threads.length
      ? threads[part % threads.length]!.run(step, args)
      : Promise.resolve((own[step] as (...a: Args<S>) => unknown)(...args))) as ReturnType<SearchSteps[S]>;
  try {
    return await findInParts(Math.max(1, threads.length), {
      screen: (k, n) => run('screen', k, [k, n]),
      compose: (s, k, n) => run('compose', k, [s, k, n]),
      worth: (s, composed) => Promise.resolve(worthComputing(ask, s, composed)),
      sum: (s, worth, k, n) => run('sum', k, [s, worth, k, n]),
      chosen: (worth, sums) => Promise.resolve(worthAnalysing(ask, worth, sums)),
      analyse: (s, worth, chosen, k, n) => run('analyse', k, [s, worth, chosen, k, n]),
      found: (s, worth, lines) => Promise.resolve(foundOf(ask, s, worth, lines)),
    });
  } finally {
    await Promise.all(threads.map((t) => t.end()));
  }
}
