import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { Bench, Tray } from '../api/client';
import { keys } from '../api/keys';

const QUIET_MS = 40_000; // the server says something every 15 s
const TRY_AGAIN_MS = 5_000;
const TOGETHER_MS = 120;
const LOCK = 'blue-dawn-hears';
const CHANNEL = 'blue-dawn-changes';
const MISSED = 'missed';

let heardAt = 0;

/** How long to wait before asking again: often while nothing is heard, seldom while changes come by themselves. */
export const lookAgainMs = (): number => (isHeard() ? 60_000 : 8_000);

/** Whether changes come by themselves: then nobody needs to look for what they have just changed. */
export const isHeard = (): boolean => Date.now() - heardAt < QUIET_MS;

/**
 * What the server says has changed: everything, a tray, the baths, the stock. After a silence something may have been
 * missed: the bench, whose tag changes with every entry of every tray, is asked whether it was. A page that has just
 * been opened does not fetch everything twice.
 */
export async function lookAt(queries: QueryClient, changes: ReadonlySet<string>): Promise<void> {
  const look = (queryKey: readonly unknown[]): void => void queries.invalidateQueries({ queryKey });
  const everything = (...but: readonly string[]): void =>
    void queries.invalidateQueries({ predicate: ({ queryKey }) => !but.includes(String(queryKey[0])) });
  if (changes.has('all')) {
    everything(keys.session[0]);
    return;
  }
  if (changes.has(MISSED)) {
    const before = queries.getQueryData(keys.bench);
    look(keys.baths);
    look(keys.stock);
    await queries.refetchQueries({ queryKey: keys.bench });
    if (before !== undefined && queries.getQueryData(keys.bench) !== before)
      everything(keys.session[0], keys.bench[0], keys.baths[0], keys.stock[0]);
  }
  for (const change of changes) {
    const [what, ...numbers] = change.split(' ');
    if (what === 'tray') {
      // Whoever wrote it has it already, and need not look again.
      const [number = 0, revision = Infinity, version = Infinity] = numbers.map(Number);
      const isKnown = (seen: { revision: number; version: number } | undefined): boolean =>
        seen !== undefined && seen.revision >= revision && seen.version >= version;
      if (!isKnown(queries.getQueryData<Tray>(keys.tray(number)))) look(keys.ofTray(number));
      const bench = queries.getQueryData<Bench>(keys.bench);
      if (!isKnown(bench?.trays.find((tray) => tray.number === number))) look(keys.bench);
    } else if (what === 'baths') look(keys.baths);
    else if (what === 'stock') look(keys.stock);
  }
}

/**
 * Hears what has changed and looks at it again. One tab of a browser listens for all of them, since a browser has only a
 * few lines to one server; without locks between tabs nobody listens, and every page asks from time to time instead.
 */
export function useLive(personId: string): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (!('locks' in navigator) || typeof EventSource === 'undefined') return undefined;
    const end = new AbortController();
    const tabs = new BroadcastChannel(CHANNEL);
    const waiting = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const hear = (change: string): void => {
      const silent = Date.now() - heardAt >= QUIET_MS;
      heardAt = Date.now();
      if (change === 'beat' && !silent) return;
      waiting.add(change === 'beat' ? MISSED : change);
      timer ??= setTimeout(() => {
        timer = undefined;
        const changes = new Set(waiting);
        waiting.clear();
        void lookAt(queries, changes);
      }, TOGETHER_MS);
    };
    tabs.onmessage = ({ data }: MessageEvent<string>) => hear(data);
    const listen = (): Promise<void> =>
      new Promise((done) => {
        const source = new EventSource('/api/changes');
        source.onmessage = ({ data }: MessageEvent<string>) => {
          tabs.postMessage(data);
          hear(data);
        };
        const close = (): void => {
          source.close();
          done();
        };
        source.onerror = () => {
          heardAt = 0;
          if (source.readyState === EventSource.CLOSED) close();
        };
        end.signal.addEventListener('abort', close);
      });
    const run = async (): Promise<void> => {
      while (!end.signal.aborted) {
        await listen();
        await new Promise((again) => setTimeout(again, TRY_AGAIN_MS));
      }
    };
    navigator.locks.request(LOCK, { signal: end.signal }, run).catch(() => undefined);
    return () => {
      end.abort();
      clearTimeout(timer);
      tabs.close();
      heardAt = 0;
    };
  }, [queries, personId]);
}
