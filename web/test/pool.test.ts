import { describe, expect, it } from 'vitest';
import { WorkerPool, type PoolWorker } from '../src/workers/pool.ts';

interface Api {
  hold(): Promise<string>;
}

/** Workers whose jobs end when told. */
function bench(size: number) {
  const made: { ended: boolean; finish: (x: string) => void; fail: (e: Error) => void }[] = [];
  const pool = new WorkerPool<Api>((): PoolWorker<Api> => {
    const w = { ended: false, finish: (_: string) => undefined as void, fail: (_: Error) => undefined as void };
    made.push(w);
    return {
      api: { hold: () => new Promise<string>((ok, no) => ((w.finish = ok), (w.fail = no))) },
      end: () => (w.ended = true),
    };
  }, size);
  return { pool, made };
}
const settle = () => new Promise((done) => setTimeout(done, 0));

describe('the worker pool', () => {
  it('starts no more workers than it may, and reuses them', async () => {
    const { pool, made } = bench(2);
    const jobs = [1, 2, 3, 4].map(() => pool.run((a) => a.hold()));
    await settle();
    expect(made).toHaveLength(2);
    expect(pool.queued).toBe(2);
    made[0]!.finish('one');
    expect(await jobs[0]).toBe('one');
    await settle();
    expect(pool.queued).toBe(1);
    made[1]!.finish('two');
    await settle();
    made[0]!.finish('three');
    made[1]!.finish('four');
    expect(await Promise.all(jobs)).toEqual(['one', 'two', 'three', 'four']);
    expect(made).toHaveLength(2);
  });

  it('has its workers load before the first job, and takes them for it', async () => {
    const { pool, made } = bench(2);
    let practised = 0;
    const practise = async () => {
      practised++;
      throw new Error('a practice that fails is nobody’s matter');
    };
    pool.warm(practise);
    pool.warm(practise);
    expect(made).toHaveLength(2);
    expect(practised).toBe(2);
    const job = pool.run((a) => a.hold());
    await settle();
    made[1]!.finish('done');
    expect(await job).toBe('done');
    expect(made).toHaveLength(2);
  });

  it('drops a cancelled job that waits, and never runs it', async () => {
    const { pool, made } = bench(1);
    const first = pool.run((a) => a.hold());
    const stop = new AbortController();
    let ran = false;
    const second = pool.run(async () => (ran = true), { signal: stop.signal });
    stop.abort();
    await expect(second).rejects.toThrow('cancelled');
    made[0]!.finish('x');
    await first;
    await settle();
    expect(ran).toBe(false);
  });

  it('asks a job whether it is heavy when it is cancelled, not before', async () => {
    const { pool, made } = bench(1);
    let long = false;
    for (const [now, ended] of [
      [false, false],
      [true, true],
    ] as const) {
      const stop = new AbortController();
      const job = pool.run((a) => a.hold(), { signal: stop.signal, heavy: () => long });
      await settle();
      long = now;
      stop.abort();
      await expect(job).rejects.toThrow('cancelled');
      expect(made.at(-1)!.ended).toBe(ended);
      made.at(-1)!.finish('unheard');
      await settle();
    }
    const after = pool.run((a) => a.hold());
    await settle();
    expect(made).toHaveLength(2);
    made[1]!.finish('goes on');
    expect(await after).toBe('goes on');
  });

  it('ends the worker of a heavy job that is cancelled, and goes on with another', async () => {
    const { pool, made } = bench(1);
    const stop = new AbortController();
    const heavy = pool.run((a) => a.hold(), { signal: stop.signal, heavy: true });
    const next = pool.run((a) => a.hold());
    await settle();
    stop.abort();
    await expect(heavy).rejects.toThrow('cancelled');
    expect(made[0]!.ended).toBe(true);
    await settle();
    made[1]!.finish('on');
    expect(await next).toBe('on');
  });

  it('lets a light job finish unheard, keeps its worker and passes failures on', async () => {
    const { pool, made } = bench(1);
    const stop = new AbortController();
    const light = pool.run((a) => a.hold(), { signal: stop.signal });
    await settle();
    stop.abort();
    await expect(light).rejects.toThrow('cancelled');
    expect(made[0]!.ended).toBe(false);
    const next = pool.run((a) => a.hold());
    made[0]!.finish('late');
    await settle();
    made[0]!.fail(new Error('broken'));
    await expect(next).rejects.toThrow('broken');
    expect(made).toHaveLength(1);
    await expect(pool.run((a) => a.hold(), { signal: stop.signal })).rejects.toThrow('cancelled');
  });

  it('a worker that breaks fails its job and is replaced for the next', async () => {
    const made: { ended: boolean; finish: (x: string) => void; breaks: (why: Error) => void }[] = [];
    const pool = new WorkerPool<Api>((): PoolWorker<Api> => {
      const w = { ended: false, finish: (_: string) => undefined as void, breaks: (_: Error) => undefined as void };
      made.push(w);
      return {
        api: { hold: () => new Promise<string>((done) => (w.finish = done)) },
        end: () => (w.ended = true),
        broken: new Promise((done) => (w.breaks = done)),
      };
    }, 1);
    const first = pool.run((a) => a.hold());
    const second = pool.run((a) => a.hold());
    await settle();
    made[0]!.breaks(new Error('its script did not come'));
    await expect(first).rejects.toThrow('did not come');
    expect(made[0]!.ended).toBe(true);
    await settle();
    expect(made).toHaveLength(2);
    made[1]!.finish('done');
    expect(await second).toBe('done');
  });
});
