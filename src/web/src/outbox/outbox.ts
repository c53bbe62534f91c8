import { openDB, type IDBPDatabase } from 'idb';
import { keepIfNone, lineDraftKey, type Draft } from './drafts';
import {
  api,
  ask,
  ProblemError,
  toProblem,
  type EntryInput,
  type EntryOutcome,
  type Note,
  type Problem,
  type TrayPatch,
  type TypedReading,
} from '../api/client';

/** An entry on its way to the logbook. It is kept on the device until the server has it. */
export interface Pending {
  id: string;
  personId: string;
  tray: number;
  takenAt: string;
  note: Note;
  /** The entry it corrects or withdraws. */
  supersedes: string | null;
}

/**
 * What became of entries that were sent together: in the book, still on their way, or some of them refused. What they
 * changed of the tray comes along whenever at least one of them is in the book.
 */
export interface Sent {
  state: 'recorded' | 'kept' | 'refused';
  patch: TrayPatch | null;
  /** Why the first of them was refused. */
  problem: Problem | null;
}

const STORE = 'pending';
const MOST_AT_ONCE = 50;
let opened: Promise<IDBPDatabase> | null = null;
const open = (): Promise<IDBPDatabase> =>
  (opened ??= openDB('blue-dawn', 3, {
    upgrade: (db, from) => {
      if (from === 0) db.createObjectStore(STORE, { keyPath: 'id' });
    },
  }));

/** An entry as the first version of the device's store kept it: readings only. */
interface FirstPending extends Omit<Pending, 'note'> {
  lineKey: string;
  typed: TypedReading;
}

/** An entry as the second version kept it: each room had a shape of its own. */
interface SecondPending extends Omit<Pending, 'note' | 'supersedes'> {
  entry:
    | { kind: 'reading'; lineKey: string; typed: TypedReading; supersedes: string | null }
    | { kind: 'trace' | 'ledger' | 'cleaning'; note: Note };
}

/** What an earlier version of the page left on the device still arrives: nobody can be asked about it any more. */
const asPending = (stored: Pending | FirstPending | SecondPending): Pending => {
  if ('note' in stored) return stored;
  if ('lineKey' in stored) {
    const { lineKey, typed, ...rest } = stored;
    return { ...rest, note: { kind: 'reading', line: lineKey, typed, sure: true } };
  }
  const { entry, ...rest } = stored;
  return entry.kind === 'reading'
    ? {
        ...rest,
        note: { kind: 'reading', line: entry.lineKey, typed: entry.typed, sure: true },
        supersedes: entry.supersedes,
      }
    : { ...rest, note: entry.note, supersedes: null };
};

const listeners = new Set<() => void>();
type Take = (tray: number, patch: TrayPatch | null) => Promise<void>;
let take: Take = () => Promise.resolve();
let snapshot: Pending[] = [];

async function refresh(): Promise<void> {
  const all = ((await (await open()).getAll(STORE)) as (Pending | FirstPending | SecondPending)[]).map(asPending);
  // Of one moment, in the order their ids were made.
  snapshot = all.sort((a, b) => a.takenAt.localeCompare(b.takenAt) || a.id.localeCompare(b.id));
  listeners.forEach((tell) => tell());
}

export const outbox = {
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener);
    void refresh();
    return () => listeners.delete(listener);
  },
  current: (): Pending[] => snapshot,

  /**
   * Says who shows what the server answered. That is done before the entries leave the device: a page that counts on
   * them is never for a moment without them.
   */
  takeWith(taking: Take): void {
    take = taking;
  },

  /** Keeps entries on the device. From here on they are not lost, whatever happens to the page. */
  async keep(...entries: Pending[]): Promise<void> {
    const store = (await open()).transaction(STORE, 'readwrite');
    await Promise.all([...entries.map((entry) => store.store.put(entry)), store.done]);
    await refresh();
  },

  /** Tries to send entries of one tray that are kept, all in one request. */
  send: (...entries: Pending[]): Promise<Sent> => send(entries),

  /** Keeps entries of one tray on the device, then tries to send them. */
  async record(...entries: Pending[]): Promise<Sent> {
    await outbox.keep(...entries);
    return send(entries);
  },

  /** Sends what is still here and belongs to this person, oldest first; stops where something cannot be sent now. */
  async flush(personId: string, done: (tray: number, sent: Sent) => void): Promise<void> {
    await refresh();
    const mine = snapshot.filter((pending) => pending.personId === personId);
    while (mine[0]) {
      const { tray } = mine[0];
      const other = mine.findIndex((pending) => pending.tray !== tray);
      const together = mine.splice(0, Math.min(other < 0 ? mine.length : other, MOST_AT_ONCE));
      const sent = await send(together);
      if (sent.state === 'kept') return;
      done(tray, sent);
    }
  },
};

const inFlight = new Map<string, Promise<Sent>>();

function send(entries: Pending[]): Promise<Sent> {
  // The same entries sent from two places of the page are one request.
  const key = entries.map((entry) => entry.id).join();
  const running = inFlight.get(key);
  if (running) return running;
  const sending = deliver(entries).finally(() => inFlight.delete(key));
  inFlight.set(key, sending);
  return sending;
}

const asInput = ({ id, takenAt, note, supersedes }: Pending): EntryInput => ({ id, takenAt, note, supersedes });

async function deliver(entries: Pending[]): Promise<Sent> {
  const tray = entries[0]?.tray ?? 0;
  try {
    const { outcomes, tray: patch } = await sendEntries(tray, entries.map(asInput));
    return await settle(entries, outcomes, patch);
  } catch (error) {
    // Signed out, or the server away: they stay here and go out later.
    if (!(error instanceof ProblemError) || error.passing || error.problem.status === 401 || isStalePage(error)) {
      return { state: 'kept', patch: null, problem: null };
    }
    const outcomes = error.problem.outcomes ?? entries.map(({ id }) => ({ id, outcome: 'refused' as const }));
    await settle(entries, outcomes, null);
    return { state: 'refused', patch: null, problem: error.problem };
  }
}

/** Sends entries of one tray in one request; for what is decided together with others and so cannot wait on the device. */
export const sendEntries = (tray: number, entries: EntryInput[]) =>
  ask(
    api.POST('/api/trays/{number}/notes', {
      params: { path: { number: tray } },
      body: { entries },
      signal: AbortSignal.timeout(8000),
    }),
  );

async function settle(
  entries: Pending[],
  outcomes: Pick<EntryOutcome, 'id' | 'outcome' | 'problem'>[],
  patch: TrayPatch | null,
): Promise<Sent> {
  await take(entries[0]?.tray ?? 0, patch);
  for (const { id, outcome } of outcomes) if (outcome === 'refused') giveBack(entries.find((entry) => entry.id === id));
  // The page goes on at once; an entry that the device still has when it is opened again is sent again, and is one.
  const ids = new Set(outcomes.map(({ id }) => id));
  snapshot = snapshot.filter((pending) => !ids.has(pending.id));
  listeners.forEach((tell) => tell());
  void forget([...ids]);
  const refused = outcomes.find(({ outcome }) => outcome === 'refused')?.problem;
  return {
    state: refused ? 'refused' : 'recorded',
    patch,
    problem: refused ? toProblem(refused, refused.status) : null,
  };
}

/** A reading that was refused goes back into the boxes it was typed in, unless something new is there. */
function giveBack(entry: Pending | undefined): void {
  if (entry?.note.kind !== 'reading') return;
  const { line, typed } = entry.note;
  const draft: Draft = { group: null, values: typed.values, rows: typed.rows, correcting: entry.supersedes };
  keepIfNone(lineDraftKey(entry.personId, entry.tray, line), draft);
}

async function forget(ids: string[]): Promise<void> {
  const store = (await open()).transaction(STORE, 'readwrite');
  await Promise.all([...ids.map((id) => store.store.delete(id)), store.done]);
}

const isStalePage = (error: ProblemError): boolean =>
  error.problem.status === 400 && error.problem.title.startsWith('This page is out of date');
