import { useEffect, useRef } from 'react';
import { api, ask, type AtHand, type Bench } from '../api/client';
import { device } from '../outbox/device';
import { AT_HAND, ANSWERS } from '../session/session';
import { useBench } from './queries';

const AFTER_MS = 3_000;

/** What a device keeps, in the words of the server, and the bench it was asked for. */
interface Kept {
  bench: string;
  trays: Record<string, string>;
  shared: string | null;
}

const nothing: Kept = { bench: '', trays: {}, shared: null };

/** What stands for a bench: another when a tray that is not handed back has changed. */
const stateOf = (bench: Bench): string =>
  `${bench.today} ${bench.trays
    .filter((tray) => tray.waitsFor !== 'handedBack')
    .map((tray) => `${tray.number}.${tray.revision}`)
    .join(' ')}`;

/**
 * Keeps every tray on the bench at hand, so that it can be opened while the server is away: what its stations ask for is
 * fetched while nothing else is, in one answer of what has changed, and lies where the service worker keeps answers.
 */
export function useKeepAtHand(personId: string): void {
  const { data, dataUpdatedAt } = useBench();
  // What is under way goes on when the bench is looked at again: in a busy shop it would never come to its end.
  const underWay = useRef<AbortController | null>(null);
  // It is one person’s: it ends with them.
  useEffect(() => () => underWay.current?.abort(), [personId]);
  useEffect(() => {
    if (underWay.current || !data || !('serviceWorker' in navigator) || !navigator.serviceWorker.controller)
      return undefined;
    const key = `${AT_HAND}${personId}`;
    const kept = { ...nothing, ...(JSON.parse(device.get(key) ?? '{}') as Partial<Kept>) };
    const bench = stateOf(data);
    if (kept.bench === bench) return undefined;
    const run = async (stop: AbortController): Promise<void> => {
      const { trays, shared } = kept;
      const answer = await ask(api.POST('/api/at-hand', { body: { trays, shared }, signal: stop.signal }));
      // Nothing comes when nothing has changed.
      const changed = answer as AtHand | undefined;
      if (changed) {
        const answers = await caches.open(ANSWERS);
        const headers = { 'Content-Type': 'application/json', Date: new Date().toUTCString() };
        for (const { path, body } of changed.answers) {
          if (stop.signal.aborted) return;
          await answers.put(path, new Response(JSON.stringify(body), { headers }));
        }
      }
      const next: Kept = { bench, ...(changed ? { trays: changed.trays, shared: changed.shared } : { trays, shared }) };
      if (!stop.signal.aborted) device.set(key, JSON.stringify(next));
    };
    const timer = setTimeout(() => {
      const stop = new AbortController();
      underWay.current = stop;
      void run(stop)
        .catch(() => undefined)
        .finally(() => {
          if (underWay.current === stop) underWay.current = null;
        });
    }, AFTER_MS);
    return () => clearTimeout(timer);
    // Only when the bench has been looked at again.
  }, [dataUpdatedAt, data, personId]);
}
