import { useSyncExternalStore } from 'react';
import { outbox } from './outbox';

/** Parts of a tray with an entry of the ledger still on its way: the hands go on to the next meanwhile. */
export function useKeptParts(tray: number): ReadonlySet<string> {
  const pending = useSyncExternalStore(outbox.subscribe, outbox.current);
  return new Set(
    pending.flatMap(({ tray: of, note }) => (of === tray && 'part' in note && note.part ? [note.part] : [])),
  );
}
