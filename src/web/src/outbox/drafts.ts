import { useCallback, useMemo, useSyncExternalStore } from 'react';
import { device } from './device';

const listeners = new Map<string, Set<() => void>>();
const tell = (stored: string): void => listeners.get(stored)?.forEach((listener) => listener());
if (typeof window !== 'undefined') {
  // Another page of the same browser changed it.
  window.addEventListener('storage', (event) => {
    if (event.key !== null) tell(event.key);
  });
}

function subscribe(stored: string, listener: () => void): () => void {
  const here = listeners.get(stored) ?? new Set();
  listeners.set(stored, here.add(listener));
  return () => {
    here.delete(listener);
    if (here.size === 0) listeners.delete(stored);
  };
}

/**
 * Text that survives a reload: kept on the device under its key until it is cleared, the same wherever it is used. The
 * key says whose it is and where it belongs, so that nobody finds another's half-typed reading in their own field.
 */
export function useKept<T>(key: string, empty: T): [T, (next: T) => void, () => void] {
  const stored = `draft:${key}`;
  const text = useSyncExternalStore(
    useCallback((listener: () => void) => subscribe(stored, listener), [stored]),
    () => device.get(stored),
  );
  const value = useMemo(() => read(text, empty), [text, empty]);
  const keep = useCallback(
    (next: T) => {
      device.set(stored, JSON.stringify(next));
      tell(stored);
    },
    [stored],
  );
  const clear = useCallback(() => {
    device.remove(stored);
    tell(stored);
  }, [stored]);
  return [value, keep, clear];
}

/** Keeps something under a key, outside of a page; what is there already stays. */
export function keepIfNone(key: string, value: unknown): void {
  if (isKept(key)) return;
  device.set(`draft:${key}`, JSON.stringify(value));
  tell(`draft:${key}`);
}

/** What has been typed on a line and not yet recorded. */
export interface Draft {
  /** The way of measuring it was typed for; null when that follows from what was typed. */
  group: string | null;
  values: Record<string, string>;
  rows: Record<string, string>[];
  /** The entry being corrected; null for a fresh reading. */
  correcting: string | null;
  /** True for a fresh run, such as a clock's: nothing of the reading that stands goes with it. */
  alone?: boolean;
}

/** Where what is typed on a line is kept. */
export const lineDraftKey = (personId: string, tray: number, line: string): string => `${personId}:${tray}:${line}`;

/** Whether anything is kept under a key at this moment. */
export const isKept = (key: string): boolean => device.get(`draft:${key}`) !== null;

function read<T>(text: string | null, empty: T): T {
  if (text === null) return empty;
  try {
    return JSON.parse(text) as T;
  } catch {
    return empty;
  }
}
