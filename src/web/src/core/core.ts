import { seen, type DraftJudgement, type Problem, type ReadingDraft } from '../api/client';
import type { Pending } from '../outbox/outbox';
import type { Call, Reply } from './worker';

/** What a page can ask Core in the browser for. */
export type CorePage = 'tray' | 'ledger' | 'cleaning' | 'trace' | 'trace-alone';

const LONG_MS = 30_000;
let worker: Worker | null = null;
let version: string | null = null;
let next = 0;
const waiting = new Map<number, (reply: Reply) => void>();
/** By tray, the snapshot and the entries it was taken with. */
const taken = new Map<number, { snapshot: string; ids: string[] }>();
/** By entry, why the rules refuse it on the tray as it was taken last. */
const refusals = new Map<string, Problem>();

/** An entry that Core left out, and what the rules say to it. */
interface LeftOut {
  id: string;
  refusal: { title: string; detail: string; fields: { field: string; message: string }[] } | null;
}

const asProblem = ({ title, detail, fields }: NonNullable<LeftOut['refusal']>): Problem => ({
  status: 400,
  title,
  detail,
  errors: Object.fromEntries(
    fields.map(({ field }) => [field, fields.filter((one) => one.field === field).map(({ message }) => message)]),
  ),
});

function call<T>(name: Call['name'], ...args: unknown[]): Promise<T> {
  return new Promise((resolve, reject) => {
    if (!worker) {
      reject(new Error('Core has not been started.'));
      return;
    }
    const id = next++;
    const timer = setTimeout(() => {
      waiting.delete(id);
      reject(new Error('Core does not answer.'));
    }, LONG_MS);
    waiting.set(id, ({ answer, error }) => {
      clearTimeout(timer);
      waiting.delete(id);
      if (error !== undefined) reject(new Error(error));
      else resolve(answer as T);
    });
    worker.postMessage({ id, name, args } satisfies Call);
  });
}

/** The snapshot of a tray as the server wrote it, or as this device keeps it; null when neither is there. */
async function snapshotOf(tray: number): Promise<string | null> {
  try {
    const answer = await fetch(`/api/trays/${tray}/snapshot`);
    return answer.ok ? await answer.text() : null;
  } catch {
    return null;
  }
}

/** Pages that look at once are answered one after the other: what one has taken the next need not take again. */
let taking: Promise<boolean> = Promise.resolve(false);

async function takeNow(tray: number, pending: () => readonly Pending[], by: string): Promise<boolean> {
  if (version === null) return false;
  const snapshot = await snapshotOf(tray);
  if (snapshot === null) return false;
  const before = taken.get(tray);
  if (before?.snapshot !== snapshot && (JSON.parse(snapshot) as { core: string }).core !== version) return false;
  const entries = pending()
    .filter((one) => one.tray === tray)
    .map(({ id, takenAt, note, supersedes }) => ({ id, takenAt, note, supersedes }));
  const ids = entries.map(({ id }) => id);
  const more =
    before?.snapshot === snapshot && before.ids.every((id, i) => ids[i] === id)
      ? entries.slice(before.ids.length)
      : null;
  if (more?.length === 0) return true;
  // One at a time: what is on its way is put on top of what is there already.
  const added = more ? await call<string | null>('Add', tray, JSON.stringify(more), by) : null;
  const said = added ?? (await call<string>('Take', snapshot, JSON.stringify(entries), by));
  const leftOut = JSON.parse(said) as LeftOut[];
  for (const id of ids) refusals.delete(id);
  for (const { id, refusal } of leftOut) if (refusal) refusals.set(id, asProblem(refusal));
  taken.set(tray, { snapshot, ids });
  return true;
}

/** Pages that are being shown, and those that are shown once more after that. */
const shown = new Map<string, { now: Promise<string | null>; next?: Promise<string | null> }>();

/**
 * What a page shows. A page that asks again and again while the worker is busy is answered once more, with all that has
 * come by then: what waits behind it is not held up.
 */
function showOnce(tray: number, page: CorePage): Promise<string | null> {
  const key = `${tray}/${page}`;
  const running = shown.get(key);
  if (running) {
    const again = (): Promise<string | null> => showOnce(tray, page);
    return (running.next ??= running.now.then(again, again));
  }
  const now = call<string | null>('Show', tray, page).finally(() => shown.delete(key));
  shown.set(key, { now });
  return now;
}

/**
 * Core in the browser: the same verdicts as the server's, from the same code. The server stays the authority on what is
 * recorded; a Core that is not the server's own is not asked.
 */
export const core = {
  /** Starts it; to be called when the page is there and can be used. */
  start(): void {
    if (worker || typeof Worker === 'undefined') return;
    worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<Reply>) => waiting.get(data.id)?.(data);
    worker.onerror = () => {
      worker = null;
      version = null;
    };
    call<string>('Version').then(
      (said) => {
        version = said;
      },
      () => {
        // It is not there yet, or its server is away: the next page tries again.
        worker?.terminate();
        worker = null;
      },
    );
  },

  isReady: (): boolean => version !== null,

  /** Why the rules refuse an entry that is on its way; undefined when they do not, or when its tray cannot be taken. */
  async refusal({ id, tray }: Pending, pending: () => readonly Pending[], by: string): Promise<Problem | undefined> {
    return (await core.take(tray, pending, by)) ? refusals.get(id) : undefined;
  },

  /** Takes a tray's snapshot with what is on its way. False when it cannot be had, or belongs to another Core. */
  take(tray: number, pending: () => readonly Pending[], by: string): Promise<boolean> {
    const now = (): Promise<boolean> => takeNow(tray, pending, by);
    return (taking = taking.then(now, now));
  },

  /** What a page shows of a tray that has been taken. */
  async show<T>(tray: number, page: CorePage): Promise<T | null> {
    const text = await showOnce(tray, page);
    return text === null ? null : (JSON.parse(text) as T);
  },

  /** What is being typed would say; null when the tray has not been taken. */
  async judge(tray: number, draft: ReadingDraft): Promise<DraftJudgement | null> {
    if (version === null || !taken.has(tray)) return null;
    const text = await call<string | null>('Judge', tray, JSON.stringify(draft)).catch(() => null);
    return text === null ? null : (JSON.parse(text) as DraftJudgement);
  },

  /** The server's answer; while it is away, what Core makes of the tray as it was last seen and of what is on its way. */
  async answer<T>(
    tray: number,
    page: CorePage,
    ask: () => Promise<T>,
    pending: () => readonly Pending[],
    by: string,
  ): Promise<T> {
    let said: T | undefined;
    let trouble: unknown;
    try {
      said = await ask();
    } catch (error) {
      trouble = error;
    }
    if (trouble !== undefined || seen.since() !== null) {
      const folded = await core
        .take(tray, pending, by)
        .then((there) => (there ? core.show<T>(tray, page) : null))
        .catch(() => null);
      if (folded !== null) return folded;
    }
    if (said === undefined) throw trouble;
    return said;
  },
};
