import { openDB, type IDBPDatabase } from 'idb';

/**
 * Where everything lies:
 * `joints` which save of a joint counts, by its identifier; `history` the saves themselves; `attachments` recordings by
 * their SHA-256; `live` what is being recorded;
 * `shop` the reader's changes; `bin` joints that can still be brought back; `found` the lines that were found for a joint.
 */
export const STORES = ['joints', 'history', 'attachments', 'live', 'shop', 'bin', 'found'] as const;
export type StoreName = (typeof STORES)[number];

/**
 * What can be done within one transaction. Only these may be awaited in it: a transaction ends where it waits for
 * anything else.
 */
export interface Tx {
  get<T>(store: StoreName, key: string): Promise<T | null>;
  set<T>(store: StoreName, key: string, value: T): Promise<void>;
  remove(store: StoreName, key: string): Promise<void>;
  keys(store: StoreName): Promise<string[]>;
}

/**
 * Storage whose writes happen together or not at all: two tabs that read, compare and write never come between one
 * another.
 */
export interface Vault {
  read<T>(stores: readonly StoreName[], work: (at: Tx) => Promise<T>): Promise<T>;
  write<T>(stores: readonly StoreName[], work: (at: Tx) => Promise<T>): Promise<T>;
}

/**
 * Each store of localForage is a table of one database; asking for one makes it where it is not there yet. Needed once
 * in a browser, and loaded then.
 */
async function makeStores(database: string): Promise<void> {
  const { default: localforage } = await import('localforage');
  for (const name of STORES)
    await localforage.createInstance({ name: database, storeName: name, driver: localforage.INDEXEDDB }).ready();
}

/**
 * The browser's storage: the tables that localForage keeps, and transactions over several of them, which localForage
 * has no word for. No other driver than IndexedDB: a fallback with a few megabytes would fail later and worse.
 */
export class BrowserVault implements Vault {
  private db: Promise<IDBPDatabase> | undefined;

  constructor(private readonly name = 'gristmill') {}

  private open(): Promise<IDBPDatabase> {
    return (this.db ??= this.connect().catch((error: unknown) => {
      // What failed once may do the next time, when there is room or the other tab has let go.
      this.db = undefined;
      throw error;
    }));
  }

  private async connect(): Promise<IDBPDatabase> {
    let db = await openAsIs(this.name);
    if (!db || STORES.some((s) => !db!.objectStoreNames.contains(s))) {
      db?.close();
      await makeStores(this.name);
      db = (await openAsIs(this.name))!;
    }
    const lost = () => (this.db = undefined);
    // Another tab with a newer version needs the tables for itself for a moment.
    db.addEventListener('versionchange', () => (db!.close(), lost()));
    db.addEventListener('close', lost);
    return db;
  }

  private async run<T>(
    stores: readonly StoreName[],
    mode: 'readonly' | 'readwrite',
    work: (at: Tx) => Promise<T>,
    again = true,
  ): Promise<T> {
    const db = await this.open();
    let tx;
    try {
      tx = db.transaction(stores as StoreName[], mode);
    } catch (error) {
      // The connection was closed under us, by the browser or for another tab.
      if (!again || (error as Error).name !== 'InvalidStateError') throw error;
      this.db = undefined;
      return this.run(stores, mode, work, false);
    }
    const ended = tx.done.then(
      () => undefined,
      (error: unknown) => ({ error }),
    );
    try {
      const value = await work({
        get: async <V>(store: StoreName, key: string) =>
          ((await tx.objectStore(store).get(key)) as V | undefined) ?? null,
        set: async (store, key, value) => void (await tx.objectStore(store).put!(value, key)),
        remove: async (store, key) => void (await tx.objectStore(store).delete!(key)),
        keys: async (store) => (await tx.objectStore(store).getAllKeys()).map(String),
      });
      const failed = await ended;
      if (failed) throw failed.error;
      return value;
    } catch (error) {
      try {
        tx.abort();
      } catch {
        // It has ended already.
      }
      await ended;
      throw error;
    }
  }

  read<T>(stores: readonly StoreName[], work: (at: Tx) => Promise<T>): Promise<T> {
    return this.run(stores, 'readonly', work);
  }

  write<T>(stores: readonly StoreName[], work: (at: Tx) => Promise<T>): Promise<T> {
    return this.run(stores, 'readwrite', work);
  }
}

/** The database in whatever version it is; undefined where it is not there, which leaves none behind. */
async function openAsIs(name: string): Promise<IDBPDatabase | undefined> {
  let fresh = false;
  try {
    return await openDB(name, undefined, {
      upgrade(_db, from, _to, tx) {
        if (from > 0) return;
        fresh = true;
        tx.done.catch(() => undefined);
        tx.abort();
      },
    });
  } catch (error) {
    if (fresh) return undefined;
    throw error;
  }
}

/** Keeps everything in memory: for tests. One transaction after the other, and nothing of one that fails. */
export class MemoryVault implements Vault {
  readonly tables = new Map<StoreName, Map<string, unknown>>(STORES.map((s) => [s, new Map()]));
  private queue: Promise<unknown> = Promise.resolve();

  read<T>(stores: readonly StoreName[], work: (at: Tx) => Promise<T>): Promise<T> {
    return this.write(stores, work);
  }

  write<T>(stores: readonly StoreName[], work: (at: Tx) => Promise<T>): Promise<T> {
    const next = this.queue.then(async () => {
      const before = new Map(stores.map((s) => [s, new Map(this.tables.get(s))]));
      const table = (s: StoreName) => {
        if (!stores.includes(s)) throw new Error(`${s} is not part of this transaction`);
        return this.tables.get(s)!;
      };
      try {
        return await work({
          get: async <V>(s: StoreName, key: string) =>
            table(s).has(key) ? (structuredClone(table(s).get(key)) as V) : null,
          set: async (s, key, value) => void table(s).set(key, structuredClone(value)),
          remove: async (s, key) => void table(s).delete(key),
          keys: async (s) => [...table(s).keys()],
        });
      } catch (error) {
        for (const [s, was] of before) this.tables.set(s, was);
        throw error;
      }
    });
    this.queue = next.catch(() => undefined);
    return next;
  }
}
