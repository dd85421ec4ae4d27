interface Request {
  readonly name: string;
  readonly run: (lock: object | null) => Promise<void> | undefined;
  readonly done: (x?: unknown) => void;
  readonly lost: (why: Error) => void;
}

/**
 * The platform's locks as far as tabs use them: one holder a name, a queue, taking over on `steal`, giving up on a
 * signal.
 */
export class Locks {
  private readonly held = new Map<string, Request>();
  private readonly queue: Request[] = [];

  request(name: string, options: LockOptions | Request['run'], callback?: Request['run']): Promise<unknown> {
    const [o, run] = typeof options === 'function' ? [{} as LockOptions, options] : [options, callback!];
    return new Promise((done, lost) => {
      const r: Request = { name, run, done, lost };
      if (o.steal) {
        const had = this.held.get(name);
        this.held.delete(name);
        had?.lost(new Error('stolen'));
        return this.grant(r);
      }
      if (!this.held.has(name)) return this.grant(r);
      if (o.ifAvailable) return void Promise.resolve(run(null)).then(done);
      this.queue.push(r);
      o.signal?.addEventListener('abort', () => {
        const at = this.queue.indexOf(r);
        if (at < 0) return;
        this.queue.splice(at, 1);
        lost(new Error('aborted'));
      });
    });
  }

  async query(): Promise<{ held: { name: string }[] }> {
    return { held: [...this.held.keys()].map((name) => ({ name })) };
  }

  /** All tabs are gone at once. */
  crash(): void {
    this.held.clear();
  }

  private grant(r: Request): void {
    this.held.set(r.name, r);
    void Promise.resolve(r.run({})).then(() => {
      if (this.held.get(r.name) !== r) return;
      this.held.delete(r.name);
      r.done();
      const next = this.queue.findIndex((q) => q.name === r.name);
      if (next >= 0) this.grant(this.queue.splice(next, 1)[0]!);
    });
  }
}
