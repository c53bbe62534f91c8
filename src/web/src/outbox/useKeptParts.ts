import { useSyncExternalStore } from 'react';
import type { Note, Station } from '../api/client';
import { outbox } from './outbox';

const KINDS = { strip: ['out', 'stays'], build: ['back'] } satisfies Partial<Record<Station, Note['kind'][]>>;

/**
 * Parts of a tray whose last entry on its way ends their work at a station: the hands go on to the next meanwhile.
 * A part that came out and waits on this device is still to go back in.
 */
export function useKeptParts(tray: number, station: keyof typeof KINDS): ReadonlySet<string> {
  const pending = useSyncExternalStore(outbox.subscribe, outbox.current);
  const last = new Map<string, Note['kind']>();
  for (const { tray: of, note } of pending)
    if (of === tray && 'part' in note && note.part) last.set(note.part, note.kind);
  const kinds: readonly string[] = KINDS[station];
  return new Set([...last].flatMap(([part, kind]) => (kind !== undefined && kinds.includes(kind) ? [part] : [])));
}
