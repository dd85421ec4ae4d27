type Kept = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

const named = (key: string): string => `gristmill left ${key}`;

/** The browser's plain storage; undefined where it lets nobody have it, which it says by throwing. */
function plainStorage(): Kept | undefined {
  try {
    return globalThis.localStorage;
  } catch {
    return undefined;
  }
}

/**
 * What a page had not stored yet as it went. A page that goes can wait for nothing, and a transaction that waits for
 * another is given up with it; the browser's plain storage has a value before the call returns. It is small, and slow for
 * what is large: a value lies there from the moment its page goes until the next one takes it in.
 */
export class Left {
  constructor(private readonly kept: Kept | undefined = plainStorage()) {}

  /** Keeps a value under its key; false where there is no room for it. */
  keep(key: string, value: unknown): boolean {
    try {
      this.kept?.setItem(named(key), JSON.stringify(value));
      return this.kept !== undefined;
    } catch {
      return false;
    }
  }

  /** What was left under a key; undefined where nothing was, or nothing that can be read. */
  read(key: string): unknown {
    try {
      return JSON.parse(this.kept?.getItem(named(key)) ?? 'null') ?? undefined;
    } catch {
      return undefined;
    }
  }

  has(key: string): boolean {
    return typeof this.kept?.getItem(named(key)) === 'string';
  }

  forget(key: string): void {
    this.kept?.removeItem(named(key));
  }
}
