import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Problem } from '../api/client';
import { usePerson } from '../session/session';
import { useTakeSent } from '../shell/queries';
import { outbox, type PendingEntry } from './outbox';

export interface Entries<T> {
  /** Keeps an entry on the device, then sends it. True when it is settled one way or the other. */
  record: (entry: T) => Promise<boolean>;
  busy: boolean;
  kept: boolean;
  problem: Problem | null;
  clear: () => void;
}

/** Recording entries of a tray: kept on the device first, then sent. */
export function useEntries(tray: number): Entries<PendingEntry> {
  const person = usePerson();
  const take = useTakeSent();
  const [busy, setBusy] = useState(false);
  const [kept, setKept] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const record = async (entry: PendingEntry): Promise<boolean> => {
    setBusy(true);
    const sent = await outbox.record({
      id: uuidv7(),
      personId: person.id,
      tray,
      takenAt: new Date().toISOString(),
      entry,
    });
    setBusy(false);
    setKept(sent.state === 'kept');
    setProblem(sent.state === 'refused' ? sent.problem : null);
    take(sent);
    return sent.state !== 'refused';
  };
  return { record, busy, kept, problem, clear: () => setProblem(null) };
}
