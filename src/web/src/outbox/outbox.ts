import { keptUnderIds, STORES } from './device';
import { isKept, keepIfNone, lineDraftKey, type Draft } from './drafts';
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
  /** True when the server answered and could not do it: the fault may lie in one of them. */
  stumbled?: boolean;
}

/** An entry that the server refused for a reason. It stays in sight, with what it said, until a person settles it. */
export interface NotTaken extends Pending {
  problem: Problem;
}

const MOST_AT_ONCE = 50;
const HANDED = 'handed:';
/** How long a hand waits for Core on this device to count what was entered. */
const FOLD_MS = 2_000;
/** The same where no hand waits: a page goes on to the next part at once, and comes back to one that is refused. */
const PART_FOLD_MS = 40_000;
const sleep = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const pendings = keptUnderIds<Pending | FirstPending | SecondPending>(STORES.pending);
const refusals = keptUnderIds<NotTaken>(STORES.refused);

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
type Refusal = (entry: Pending) => Promise<Problem | undefined>;
let refusal: Refusal = () => Promise.resolve(undefined);
let snapshot: Pending[] = [];
let notTaken: NotTaken[] = [];
let clockOff: number | null = null;
const tellAll = (): void => listeners.forEach((tell) => tell());

// Of one moment, in the order their ids were made.
const inOrder = <T extends Pending>(entries: T[]): T[] =>
  entries.sort((a, b) => a.takenAt.localeCompare(b.takenAt) || a.id.localeCompare(b.id));

/** Writes entries down at once; without room for it only the store is left. */
function hand(entries: Pending[]): void {
  try {
    for (const entry of entries) localStorage.setItem(HANDED + entry.id, JSON.stringify(entry));
  } catch {
    // The store says whether the device is full.
  }
}

const letGo = (keys: string[]): void => keys.forEach((key) => localStorage.removeItem(key));

/** What an earlier page handed over and did not see arrive. */
async function takeHanded(): Promise<void> {
  const handed = Object.keys(localStorage).filter((key) => key.startsWith(HANDED));
  if (handed.length === 0) return;
  await pendings.put(...handed.map((key) => JSON.parse(localStorage.getItem(key) ?? '') as Pending));
  letGo(handed);
}

let handedTaken: Promise<void> | null = null;

/** What is settled is gone from here, also where a look into the store began before it had gone from there. */
const settledIds = new Set<string>();

/** One look into the store after the other: an older one that takes longer does not undo what a newer one saw. */
let looking: Promise<void> = Promise.resolve();
const refresh = (): Promise<void> => (looking = looking.then(look, look));

async function look(): Promise<void> {
  await (handedTaken ??= takeHanded().catch(() => undefined));
  [snapshot, notTaken] = await Promise.all([
    pendings.all().then((all) => inOrder(all.map(asPending).filter(({ id }) => !settledIds.has(id)))),
    refusals.all().then(inOrder),
  ]);
  tellAll();
}

export const outbox = {
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener);
    void refresh();
    return () => listeners.delete(listener);
  },
  /** Entries on their way. */
  current: (): Pending[] => snapshot,
  /** Entries that were refused and that nobody has settled yet. */
  notTaken: (): NotTaken[] => notTaken,
  /** By how many seconds this device's clock is behind, when that is worth saying. */
  clockOff: (): number | null => clockOff,

  /** A person has settled what was not taken: it is forgotten here. */
  async settle(id: string): Promise<void> {
    notTaken = notTaken.filter((entry) => entry.id !== id);
    tellAll();
    await refusals.forget(id);
  },

  /**
   * Says who shows what the server answered, and who knows without the server what the rules refuse. An answer is shown
   * before the entries leave the device: a page that counts on them is never for a moment without them.
   */
  takeWith(taking: Take, refusalOnDevice: Refusal): void {
    take = taking;
    refusal = refusalOnDevice;
  },

  /** Keeps entries on the device. From here on they are not lost, whatever happens to the page. */
  async keep(...entries: Pending[]): Promise<void> {
    // In the same breath as the press: a page that is thrown away before the store has answered has lost nothing.
    hand(entries);
    for (const { id } of entries) settledIds.delete(id);
    await pendings.put(...entries);
    letGo(entries.map(({ id }) => HANDED + id));
    await refresh();
  },

  /**
   * Tries to send entries of one tray that are kept, all in one request. Where the form they were entered in is still
   * there, it shows what is wrong with its fields; anything else that is refused goes to what was not taken.
   */
  send: (entries: Pending[], formIsThere: () => boolean = () => false): Promise<Sent> => send(entries, formIsThere),

  /** Keeps entries of one tray on the device, then tries to send them. */
  async record(entries: Pending[], formIsThere?: () => boolean): Promise<Sent> {
    await outbox.keep(...entries);
    return outbox.send(entries, formIsThere);
  },

  /** Sends what is still here and belongs to this person, oldest first; stops where something cannot be sent now. */
  async flush(personId: string, done: (tray: number, sent: Sent) => void): Promise<void> {
    await refresh();
    const mine = snapshot.filter((pending) => pending.personId === personId);
    while (mine[0]) {
      const { tray } = mine[0];
      const other = mine.findIndex((pending) => pending.tray !== tray);
      const together = mine.splice(0, Math.min(other < 0 ? mine.length : other, MOST_AT_ONCE));
      const sent = await send(together, nowhere);
      if (sent.state !== 'kept') done(tray, sent);
      // The server is there and stumbles over one of them: the others do not wait for it.
      else if (sent.stumbled) for (const one of together) await sendAlone(one, done);
      else return;
    }
  },
};

async function sendAlone(one: Pending, done: (tray: number, sent: Sent) => void): Promise<void> {
  const sent = await send([one], nowhere);
  if (sent.state !== 'kept') done(one.tray, sent);
}

const nowhere = (): boolean => false;
const inFlight = new Map<string, Promise<Sent>>();

function send(entries: Pending[], formIsThere: () => boolean): Promise<Sent> {
  // The same entries sent from two places of the page are one request.
  const key = entries.map((entry) => entry.id).join();
  const running = inFlight.get(key);
  if (running) return running;
  const sending = deliver(entries, formIsThere).finally(() => inFlight.delete(key));
  inFlight.set(key, sending);
  return sending;
}

const asInput = ({ id, takenAt, note, supersedes, personId }: Pending): EntryInput => ({
  id,
  takenAt,
  note,
  supersedes,
  takenBy: personId,
});

async function deliver(entries: Pending[], formIsThere: () => boolean): Promise<Sent> {
  const tray = entries[0]?.tray ?? 0;
  try {
    const { outcomes, tray: patch, clockOffSeconds } = await sendEntries(tray, entries.map(asInput));
    clockOff = clockOffSeconds ?? null;
    return await settle(entries, outcomes, patch, formIsThere);
  } catch (error) {
    // Signed out, or the server away: they stay here and go out later. Core on this device counts them meanwhile.
    if (!(error instanceof ProblemError) || error.passing || error.problem.status === 401 || isStalePage(error)) {
      const isPart = entries.every(({ note }) => 'part' in note);
      const longEnough = sleep(isPart ? PART_FOLD_MS : FOLD_MS);
      // What Core on this device refuses, the server would refuse too: it is said now, while the part is in the hand.
      const refusedHere = Promise.all(
        entries.map(async (entry) => {
          const problem = await refusal(entry);
          return problem ? [{ id: entry.id, outcome: 'refused' as const, problem: asEntryProblem(problem) }] : [];
        }),
      ).catch(() => []);
      const refused = (await Promise.race([refusedHere, longEnough]))?.flat() ?? [];
      if (refused.length > 0 && formIsThere())
        return settle(
          entries.filter(({ id }) => refused.some((one) => one.id === id)),
          refused,
          null,
          formIsThere,
        );
      await Promise.race([take(tray, null), longEnough]);
      return {
        state: 'kept',
        patch: null,
        problem: null,
        stumbled: error instanceof ProblemError && error.problem.status === 500,
      };
    }
    const outcomes: EntryOutcome[] =
      error.problem.outcomes ?? entries.map(({ id }) => ({ id, outcome: 'refused', problem: null }));
    const settled = outcomes.map((one) => ({ ...one, problem: one.problem ?? asEntryProblem(error.problem) }));
    await settle(entries, settled, null, formIsThere);
    return { state: 'refused', patch: null, problem: error.problem };
  }
}

/** Sends entries of one tray in one request; for what is decided together with others and so cannot wait on the device. */
export const sendEntries = (tray: number, entries: EntryInput[]) =>
  ask(
    api.POST('/api/trays/{number}/notes', {
      params: { path: { number: tray } },
      body: { entries, sentAt: new Date().toISOString() },
      signal: AbortSignal.timeout(8000),
    }),
  );

async function settle(
  entries: Pending[],
  all: Pick<EntryOutcome, 'id' | 'outcome' | 'problem'>[],
  patch: TrayPatch | null,
  formIsThere: () => boolean,
): Promise<Sent> {
  await take(entries[0]?.tray ?? 0, patch);
  // Somebody else is signed in on this device by now: theirs is not touched, and they wait for whoever took them.
  const outcomes = all.filter(({ outcome }) => outcome !== 'others');
  if (outcomes.length < all.length) window.dispatchEvent(new Event('blue-dawn:signed-out'));
  for (const { id, outcome, problem } of outcomes) {
    const entry = entries.find((one) => one.id === id);
    if (outcome !== 'refused' || !entry || giveBack(entry)) continue;
    if (problem && Object.keys(problem.errors).length > 0 && formIsThere()) continue;
    const why = problem ? toProblem(problem, problem.status) : unknown;
    notTaken = inOrder([...notTaken.filter((one) => one.id !== id), { ...entry, problem: why }]);
    await refusals.put({ ...entry, problem: why });
  }
  // The page goes on at once; an entry that the device still has when it is opened again is sent again, and is one.
  const ids = new Set(outcomes.map(({ id }) => id));
  for (const id of ids) settledIds.add(id);
  snapshot = snapshot.filter((pending) => !ids.has(pending.id));
  tellAll();
  void pendings.forget(...ids);
  const refused = outcomes.find(({ outcome }) => outcome === 'refused')?.problem;
  return {
    state: refused ? 'refused' : outcomes.length === 0 ? 'kept' : 'recorded',
    patch,
    problem: refused ? toProblem(refused, refused.status) : null,
  };
}

const asEntryProblem = ({ status, title, detail, errors }: Problem): NonNullable<EntryOutcome['problem']> => ({
  status,
  title,
  detail,
  errors,
});
const unknown: Problem = { status: 400, title: 'The server did not take it.', detail: '', errors: {} };

/** A reading that was refused goes back into the boxes it was typed in; false when something new is there. */
function giveBack(entry: Pending): boolean {
  if (entry.note.kind !== 'reading') return false;
  const { line, typed } = entry.note;
  const key = lineDraftKey(entry.personId, entry.tray, line);
  if (isKept(key)) return false;
  const draft: Draft = { group: null, values: typed.values, rows: typed.rows, correcting: entry.supersedes };
  keepIfNone(key, draft);
  return true;
}

const isStalePage = (error: ProblemError): boolean =>
  error.problem.status === 400 && error.problem.title.startsWith('This page is out of date');
