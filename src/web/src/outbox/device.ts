import { openDB, type IDBPDatabase } from 'idb';

/**
 * What the device keeps. A browser's storage can be full or closed: then it is kept in memory, so that the hands can go
 * on, and the page says that it lasts only as long as it stays open.
 */
const listeners = new Set<() => void>();
const memory = new Map<string, string>();
let full = false;

function setFull(next: boolean): void {
  if (full === next) return;
  full = next;
  listeners.forEach((tell) => tell());
}

export const device = {
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  /** True while something is kept in memory only. */
  isFull: (): boolean => full,
  setFull,

  get(key: string): string | null {
    const held = memory.get(key);
    if (held !== undefined) return held;
    try {
      return localStorage.getItem(key);
    } catch {
      return null;
    }
  },
  set(key: string, value: string): void {
    try {
      localStorage.setItem(key, value);
      memory.delete(key);
      if (memory.size === 0) setFull(false);
    } catch {
      memory.set(key, value);
      setFull(true);
    }
  },
  remove(key: string): void {
    memory.delete(key);
    if (memory.size === 0) setFull(false);
    try {
      localStorage.removeItem(key);
    } catch {
      // It was never there.
    }
  },
};

/** Stores of the device's database. */
export const STORES = { pending: 'pending', refused: 'refused', parcels: 'parcels' } as const;
type Store = (typeof STORES)[keyof typeof STORES];
let opened: Promise<IDBPDatabase> | null = null;

const open = (): Promise<IDBPDatabase> =>
  (opened ??= openDB('blue-dawn', 4, {
    upgrade: (db) => {
      for (const store of Object.values(STORES))
        if (!db.objectStoreNames.contains(store)) db.createObjectStore(store, { keyPath: 'id' });
    },
    // A page of a newer version wants it: it is opened again when it is needed.
    blocking: (_from, _to, event) => {
      (event.target as IDBDatabase).close();
      opened = null;
    },
    terminated: () => {
      opened = null;
    },
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  }));

/** What is kept under ids in one store, in memory where the device's database does not take it. */
export function keptUnderIds<T extends { id: string }>(store: Store) {
  const held = new Map<string, T>();
  return {
    async all(): Promise<T[]> {
      try {
        const stored = (await (await open()).getAll(store)) as T[];
        return [...stored.filter(({ id }) => !held.has(id)), ...held.values()];
      } catch {
        return [...held.values()];
      }
    },
    async put(...items: T[]): Promise<void> {
      try {
        const tx = (await open()).transaction(store, 'readwrite');
        await Promise.all([...items.map((item) => tx.store.put(item)), tx.done]);
        items.forEach(({ id }) => held.delete(id));
        if (held.size === 0 && memory.size === 0) setFull(false);
      } catch {
        items.forEach((item) => held.set(item.id, item));
        setFull(true);
      }
    },
    async forget(...ids: string[]): Promise<void> {
      ids.forEach((id) => held.delete(id));
      if (held.size === 0 && memory.size === 0) setFull(false);
      try {
        const tx = (await open()).transaction(store, 'readwrite');
        await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done]);
      } catch {
        // It is sent again when the page is opened again, and is one.
      }
    },
  };
}
