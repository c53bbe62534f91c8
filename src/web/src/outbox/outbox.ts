import { openDB, type IDBPDatabase } from 'idb';
import {
  api,
  ask,
  ProblemError,
  type CleaningNote,
  type CleaningView,
  type LedgerNote,
  type LedgerView,
  type Problem,
  type TraceNote,
  type TraceView,
  type Tray,
  type TypedReading,
} from '../api/client';

/** An entry on its way to the logbook. It is kept on the device until the server has it. */
export interface Pending {
  id: string;
  personId: string;
  tray: number;
  takenAt: string;
  entry: PendingEntry;
}

export type PendingEntry = PendingReading | PendingNote | PendingLedger | PendingCleaning;

/** A reading of a gauge line. */
export interface PendingReading {
  kind: 'reading';
  lineKey: string;
  typed: TypedReading;
  supersedes: string | null;
}

/** A step of a trace. */
export interface PendingNote {
  kind: 'trace';
  note: TraceNote;
}

/** An entry of the strip ledger. */
export interface PendingLedger {
  kind: 'ledger';
  note: LedgerNote;
}

/** An entry about cleaning. */
export interface PendingCleaning {
  kind: 'cleaning';
  note: CleaningNote;
}

/** What became of one sending: in the book, still on its way, or refused with the reason. */
export type Sent =
  | { state: 'recorded'; tray: Tray }
  | { state: 'traced'; tray: number; trace: TraceView }
  | { state: 'ledgered'; tray: number; ledger: LedgerView }
  | { state: 'cleaned'; tray: number; cleaning: CleaningView }
  | { state: 'kept' }
  | { state: 'refused'; problem: Problem };

const STORE = 'pending';
let opened: Promise<IDBPDatabase> | null = null;
const open = (): Promise<IDBPDatabase> =>
  (opened ??= openDB('blue-dawn', 2, {
    upgrade: (db, from) => {
      if (from === 0) db.createObjectStore(STORE, { keyPath: 'id' });
    },
  }));

/** A reading as the first version of the device's store kept it. */
type OldPending = Omit<Pending, 'entry'> & Omit<PendingReading, 'kind'>;

const asPending = (stored: Pending | OldPending): Pending => {
  if ('entry' in stored) return stored;
  const { lineKey, typed, supersedes, ...rest } = stored;
  return { ...rest, entry: { kind: 'reading', lineKey, typed, supersedes } };
};

const listeners = new Set<() => void>();
let snapshot: Pending[] = [];

async function refresh(): Promise<void> {
  const all = ((await (await open()).getAll(STORE)) as (Pending | OldPending)[]).map(asPending);
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

  /** Keeps an entry on the device. From here on it is not lost, whatever happens to the page. */
  async keep(pending: Pending): Promise<void> {
    await (await open()).put(STORE, pending);
    await refresh();
  },

  /** Tries to send an entry that is kept. */
  send: (pending: Pending): Promise<Sent> => send(pending),

  /** Keeps an entry on the device, then tries to send it. */
  async record(pending: Pending): Promise<Sent> {
    await outbox.keep(pending);
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

async function post({ id, tray, takenAt, entry }: Pending): Promise<Sent> {
  const where = { params: { path: { number: tray } }, signal: AbortSignal.timeout(8000) };
  if (entry.kind === 'trace') {
    const trace = await ask(
      api.POST('/api/trays/{number}/trace', { ...where, body: { id, takenAt, note: entry.note } }),
    );
    return { state: 'traced', tray, trace };
  }
  if (entry.kind === 'ledger') {
    const ledger = await ask(
      api.POST('/api/trays/{number}/ledger', { ...where, body: { id, takenAt, note: entry.note } }),
    );
    return { state: 'ledgered', tray, ledger };
  }
  if (entry.kind === 'cleaning') {
    const cleaning = await ask(
      api.POST('/api/trays/{number}/cleaning', { ...where, body: { id, takenAt, note: entry.note } }),
    );
    return { state: 'cleaned', tray, cleaning };
  }
  const { lineKey, typed, supersedes } = entry;
  return {
    state: 'recorded',
    tray: await ask(
      api.POST('/api/trays/{number}/readings', { ...where, body: { id, lineKey, takenAt, typed, supersedes } }),
    ),
  };
}

async function deliver(pending: Pending): Promise<Sent> {
  try {
    const sent = await post(pending);
    await remove(pending.id);
    return sent;
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
