import localforage from 'localforage';

/** A key–value store that may refuse; localForage in the app, a map in tests. */
export interface Store {
  get<T>(key: string): Promise<T | null>;
  set<T>(key: string, value: T): Promise<void>;
  remove(key: string): Promise<void>;
  keys(): Promise<string[]>;
}

/** A localForage store in IndexedDB. No other driver: a fallback with a few megabytes would fail later and worse. */
export function forageStore(name: string): Store {
  const forage = localforage.createInstance({ name: 'gristmill', storeName: name, driver: localforage.INDEXEDDB });
  return {
    get: (key) => forage.getItem(key),
    set: async (key, value) => void (await forage.setItem(key, value)),
    remove: (key) => forage.removeItem(key),
    keys: () => forage.keys(),
  };
}

/** Keeps everything in memory: for tests, and where the browser blocks storage. */
export function memoryStore(): Store {
  const map = new Map<string, string>();
  return {
    get: async <T>(key: string) => (map.has(key) ? (JSON.parse(map.get(key)!) as T) : null),
    set: async (key, value) => void map.set(key, JSON.stringify(value)),
    remove: async (key) => void map.delete(key),
    keys: async () => [...map.keys()],
  };
}
