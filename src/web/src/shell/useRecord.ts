import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useSyncExternalStore } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { problemOf, type Note, type Problem, type Signature } from '../api/client';
import { usePerson } from '../session/session';
import { useTakePatch } from './queries';
import { outbox, sendEntries, type Pending, type Sent } from '../outbox/outbox';

export interface Record<T extends Note = Note> {
  /** Keeps notes on the device, then sends them in one request. True when they are settled one way or the other. */
  record: (...notes: T[]) => Promise<boolean>;
  busy: boolean;
  /** True while the last of them is still on this device. */
  kept: boolean;
  problem: Problem | null;
  clear: () => void;
}

/** A note with what makes it an entry. */
export const usePending = (tray: number): ((note: Note, supersedes?: string | null) => Pending) => {
  const person = usePerson();
  return (note, supersedes = null) => ({
    id: uuidv7(),
    personId: person.id,
    tray,
    takenAt: new Date().toISOString(),
    note,
    supersedes,
  });
};

const none: string[] = [];

/** Whether any of these entries is still on this device; it stops being said when they have gone out. */
export function useStillKept(ids: readonly string[]): boolean {
  const pending = useSyncExternalStore(outbox.subscribe, outbox.current);
  return pending.some(({ id }) => ids.includes(id));
}

/** The way into a tray's logbook for everything that does not hang on what stands on the tray: kept first, then sent. */
export function useRecord<T extends Note = Note>(tray: number): Record<T> {
  const pending = usePending(tray);
  const there = useRef(true);
  useEffect(() => {
    there.current = true;
    return () => {
      there.current = false;
    };
  }, []);
  const { mutateAsync, data, isPending, reset } = useMutation({
    mutationFn: async (notes: T[]): Promise<Sent & { ids: string[] }> => {
      const entries = notes.map((note) => pending(note));
      return { ...(await outbox.record(entries, () => there.current)), ids: entries.map(({ id }) => id) };
    },
  });
  // A second press while the first is on its way is the same press, unless something else was pressed in between.
  const last = useRef<{ key: string; going: Promise<boolean> } | null>(null);
  const record = (...notes: T[]): Promise<boolean> => {
    const key = JSON.stringify(notes);
    if (last.current?.key === key) return last.current.going;
    const going = mutateAsync(notes)
      .then(({ state }) => state !== 'refused')
      .finally(() => {
        if (last.current?.going === going) last.current = null;
      });
    last.current = { key, going };
    return going;
  };
  const kept = useStillKept(data?.state === 'kept' ? data.ids : none);
  return {
    record,
    busy: isPending,
    kept,
    problem: data?.problem ?? null,
    clear: reset,
  };
}

/** A change that is decided on what stands on the tray: against a version of it, and so never later than now. */
export interface Decision {
  note: Note;
  version: number;
  signature?: Signature;
  /** The same change tried again keeps its id. */
  id?: string;
}

/** The way in for changes of what stands on the tray. Null when it is recorded; otherwise what stands in the way. */
export function useDecide(tray: number): (decision: Decision) => Promise<Problem | null> {
  const take = useTakePatch();
  const { mutateAsync } = useMutation({
    mutationFn: async ({ note, version, signature, id }: Decision): Promise<Problem | null> => {
      const entry = { id: id ?? uuidv7(), takenAt: new Date().toISOString(), note, version };
      try {
        const { tray: patch } = await sendEntries(tray, [{ ...entry, ...(signature ? { signature } : {}) }]);
        await take(tray, patch);
        return null;
      } catch (error) {
        return problemOf(error);
      }
    },
  });
  return mutateAsync;
}
