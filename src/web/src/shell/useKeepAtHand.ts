import { useEffect } from 'react';
import { device } from '../outbox/device';
import { AT_HAND } from '../session/session';
import { useBench } from './queries';

const AFTER_MS = 3_000;

/** What a tray's stations ask the server for. */
const answersOf = (tray: number): string[] => {
  const of = `/api/trays/${tray}`;
  return [
    of,
    `${of}/snapshot`,
    `${of}/ledger`,
    `${of}/cleaning`,
    `${of}/kits`,
    `${of}/fitting`,
    `${of}/photos`,
    `${of}/trace?history=true`,
  ];
};

/** What belongs to no tray. */
const shared = ['/api/parts', '/api/owners', '/api/identify', '/api/faults/knowledge', '/api/baths'];

/**
 * Keeps every tray on the bench at hand: what its stations ask for is fetched while nothing else is, and the service
 * worker keeps it, so that it can be opened while the server is away. A tray that has not changed is not asked for again.
 */
export function useKeepAtHand(personId: string): void {
  const { data, dataUpdatedAt } = useBench();
  useEffect(() => {
    if (!data || !('serviceWorker' in navigator) || !navigator.serviceWorker.controller) return undefined;
    const key = `${AT_HAND}${personId}`;
    const known = JSON.parse(device.get(key) ?? '{}') as Record<string, string>;
    const wanted = data.trays
      .filter((tray) => tray.waitsFor !== 'handedBack')
      .map((tray) => ({ tray: tray.number, state: `${tray.revision} ${data.today}` }))
      .filter(({ tray, state }) => known[tray] !== state);
    if (wanted.length === 0) return undefined;
    const stop = new AbortController();
    const fetchAll = async (addresses: string[]): Promise<boolean> => {
      for (const address of addresses) {
        const answer = await fetch(address, { signal: stop.signal, priority: 'low' });
        if (!answer.ok || answer.headers.has('X-Blue-Dawn-From')) return false;
        await answer.arrayBuffer();
      }
      return true;
    };
    const run = async (): Promise<void> => {
      if (Object.keys(known).length === 0 && !(await fetchAll(shared))) return;
      for (const { tray, state } of wanted) {
        if (!(await fetchAll(answersOf(tray)))) return;
        known[tray] = state;
        device.set(key, JSON.stringify(known));
      }
    };
    const timer = setTimeout(() => void run().catch(() => undefined), AFTER_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
    // Only when the bench has been looked at again.
  }, [dataUpdatedAt, data, personId]);
}
