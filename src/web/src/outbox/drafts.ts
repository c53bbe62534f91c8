import { useCallback, useState } from 'react';

/**
 * Text that survives a reload: kept on the device under its key until it is cleared. The key says whose it is and
 * where it belongs, so that nobody finds another's half-typed reading in their own field.
 */
export function useKept<T>(key: string, empty: T): [T, (next: T) => void, () => void] {
  const stored = `draft:${key}`;
  const [state, setState] = useState<{ key: string; value: T }>(() => ({ key: stored, value: read(stored, empty) }));
  const value = state.key === stored ? state.value : read(stored, empty);

  const keep = useCallback(
    (next: T) => {
      localStorage.setItem(stored, JSON.stringify(next));
      setState({ key: stored, value: next });
    },
    [stored],
  );
  const clear = useCallback(() => {
    localStorage.removeItem(stored);
    setState({ key: stored, value: empty });
  }, [stored, empty]);
  return [value, keep, clear];
}

/** Whether anything is kept under a key at this moment. */
export const isKept = (key: string): boolean => localStorage.getItem(`draft:${key}`) !== null;

function read<T>(stored: string, empty: T): T {
  const text = localStorage.getItem(stored);
  if (text === null) return empty;
  try {
    return JSON.parse(text) as T;
  } catch {
    return empty;
  }
}
