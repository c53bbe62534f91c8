import { openDB, type IDBPDatabase } from 'idb';
import { api, ask, ProblemError, type Problem, type Tray, type TypedReading } from '../api/client';

/** A reading on its way to the logbook. It is kept on the device until the server has it. */
export interface Pending {
  id: string;
  personId: string;
  tray: number;
  lineKey: string;
  takenAt: string;
  typed: TypedReading;
  supersedes: string | null;
}

/** What became of one sending: in the book, still on its way, or refused with the reason. */
export type Sent = { state: 'recorded'; tray: Tray } | { state: 'kept' } | { state: 'refused'; problem: Problem };

const STORE = 'pending';
let opened: Promise<IDBPDatabase> | null = null;
const open = (): Promise<IDBPDatabase> =>
  (opened ??= openDB('blue-dawn', 1, {
    upgrade: (db) => {
      db.createObjectStore(STORE, { keyPath: 'id' });
    },
  }));

const listeners = new Set<() => void>();
let snapshot: Pending[] = [];

async function refresh(): Promise<void> {
  const all = (await (await open()).getAll(STORE)) as Pending[];
  snapshot = all.sort((a, b) => a.takenAt.localeCompare(b.takenAt));
  listeners.forEach((tell) => tell());
}

export const outbox = {
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener);
    void refresh();
    return () => listeners.delete(listener);
  },
  current: (): Pending[] => snapshot,

  /** Keeps a reading on the device, then tries to send it. */
  async record(pending: Pending): Promise<Sent> {
    await (await open()).put(STORE, pending);
    await refresh();
    return send(pending);
  },

  /** Sends what is still here and belongs to this person, oldest first; stops at the first that cannot be sent now. */
  async flush(personId: string, done: (pending: Pending, sent: Sent) => void): Promise<void> {
    await refresh();
    for (const pending of snapshot.filter((p) => p.personId === personId)) {
      const sent = await send(pending);
      if (sent.state === 'kept') return;
      done(pending, sent);
    }
  },
};

const inFlight = new Map<string, Promise<Sent>>();

function send(pending: Pending): Promise<Sent> {
  const running = inFlight.get(pending.id);
  if (running) return running;
  const sending = deliver(pending).finally(() => inFlight.delete(pending.id));
  inFlight.set(pending.id, sending);
  return sending;
}

async function deliver(pending: Pending): Promise<Sent> {
  try {
    const tray = await ask(
      api.POST('/api/trays/{number}/readings', {
        params: { path: { number: pending.tray } },
        body: {
          id: pending.id,
          lineKey: pending.lineKey,
          takenAt: pending.takenAt,
          typed: pending.typed,
          supersedes: pending.supersedes,
        },
        signal: AbortSignal.timeout(8000),
      }),
    );
    await remove(pending.id);
    return { state: 'recorded', tray };
  } catch (error) {
    // Signed out, or the server away: the reading stays here and goes out later.
    if (!(error instanceof ProblemError) || error.passing || error.problem.status === 401 || isStalePage(error)) {
      return { state: 'kept' };
    }
    await remove(pending.id);
    return { state: 'refused', problem: error.problem };
  }
}

const isStalePage = (error: ProblemError): boolean =>
  error.problem.status === 400 && error.problem.title.startsWith('This page is out of date');

async function remove(id: string): Promise<void> {
  await (await open()).delete(STORE, id);
  await refresh();
}
