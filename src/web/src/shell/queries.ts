import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import {
  api,
  ask,
  type CarburetorFamily,
  type ChokeKind,
  type EngineKind,
  type Entry,
  type TraceView,
  type Tray,
  type TrayPatch,
} from '../api/client';
import { core, type CorePage } from '../core/core';
import { outbox } from '../outbox/outbox';
import { usePerson } from '../session/session';
import { keys } from '../api/keys';
import { isHeard, lookAgainMs } from './live';

const LOOK_MS = 20;
const MOST_MS = 2_000;

/** Why the shop is shut on a day; nothing when it is open, or when that is not known. */
export function useWhyShut(): (day: string) => string | undefined {
  const shop = useQuery({ queryKey: keys.shop, queryFn: () => ask(api.GET('/api/shop')), staleTime: 60_000 });
  return (day) => {
    const found = shop.data?.shutDays.find((one) => one.day === day);
    return found && `The shop is shut that day: ${found.why}.`;
  };
}

export const useBench = () =>
  useQuery({ queryKey: keys.bench, queryFn: () => ask(api.GET('/api/bench')), refetchInterval: lookAgainMs });

/** A page of a tray: the server's, or Core's own while the server is away. */
function useTrayPage() {
  const by = usePerson().displayName;
  return <T>(number: number, page: CorePage, call: () => Promise<T>): (() => Promise<T>) =>
    () =>
      core.answer(number, page, call, outbox.current, by);
}

export function useTray(number: number) {
  const page = useTrayPage();
  return useQuery({
    queryKey: keys.tray(number),
    queryFn: page(number, 'tray', () => ask(api.GET('/api/trays/{number}', { params: { path: { number } } }))),
    enabled: number > 0,
    refetchInterval: lookAgainMs,
  });
}

/** What bench parts the bench knows. */
export const useParts = () =>
  useQuery({ queryKey: keys.parts, queryFn: () => ask(api.GET('/api/parts')), staleTime: Infinity });

/** A tray's trace, with or without the shop's own history. */
export function useTrace(number: number, history: boolean) {
  const page = useTrayPage();
  return useQuery<TraceView>({
    queryKey: keys.trace(number, history),
    queryFn: page(number, history ? 'trace' : 'trace-alone', () =>
      ask(api.GET('/api/trays/{number}/trace', { params: { path: { number }, query: { history } } })),
    ),
    placeholderData: (before) => before,
  });
}

/** A tray's strip ledger, for Strip and Build; asked for only where it is wanted. */
export function useLedger(number: number, wanted = true) {
  const page = useTrayPage();
  return useQuery({
    queryKey: keys.ledger(number),
    queryFn: page(number, 'ledger', () => ask(api.GET('/api/trays/{number}/ledger', { params: { path: { number } } }))),
    refetchInterval: lookAgainMs,
    enabled: wanted,
  });
}

/** How a tray is cleaned. */
export function useCleaning(number: number) {
  const page = useTrayPage();
  return useQuery({
    queryKey: keys.cleaning(number),
    queryFn: page(number, 'cleaning', () =>
      ask(api.GET('/api/trays/{number}/cleaning', { params: { path: { number } } })),
    ),
    refetchInterval: lookAgainMs,
  });
}

/** The shop's baths; looked at on every page, so that their timers call everywhere. */
export const useBaths = () =>
  useQuery({ queryKey: keys.baths, queryFn: () => ask(api.GET('/api/baths')), refetchInterval: lookAgainMs });

/** The one sheet a stamped number is on; null while it is on none, or on several. */
export const useStamped = (number: string) =>
  useQuery({
    queryKey: keys.stamped(number),
    queryFn: () => ask(api.GET('/api/stamped', { params: { query: { number } } })),
    enabled: number !== '',
    staleTime: 60_000,
  });

/** The words of the fault knowledge for a kind of carburetor. */
export const useFaultWords = (family: CarburetorFamily | null, engine: EngineKind | null, choke: ChokeKind | null) =>
  useQuery({
    queryKey: keys.faultWords(family, engine, choke),
    queryFn: () =>
      ask(
        api.GET('/api/faults/knowledge', {
          params: {
            query: { ...(family ? { family } : {}), ...(engine ? { engine } : {}), ...(choke ? { choke } : {}) },
          },
        }),
      ),
    staleTime: Infinity,
    placeholderData: (before) => before,
  });

/** A tray with what was just recorded on it; null when the page's tray is too old to put it into. */
export function patched(tray: Tray, patch: TrayPatch): Tray | null {
  // Somebody else's entry in between, or a change of what stands on the tray: the whole of it is fetched anew.
  if (patch.factsChanged || tray.revision < patch.revisionBefore) return null;
  if (tray.revision >= patch.revision) return tray;
  const lines = new Map(patch.lines.map((line) => [line.key, line]));
  const entries = new Map<string, Entry>(patch.entries.map((entry) => [entry.id, entry]));
  const known = new Set(tray.logbook.map((entry) => entry.id));
  return {
    ...tray,
    version: patch.version,
    revision: patch.revision,
    stations: patch.stations,
    lines: patch.wholeSheet ? patch.lines : tray.lines.map((line) => lines.get(line.key) ?? line),
    float: patch.float,
    next: patch.next,
    obstacles: patch.obstacles,
    whyNotProven: patch.whyNotProven,
    whyNotTimed: patch.whyNotTimed,
    triedWithout: patch.triedWithout,
    whyNotRun: patch.whyNotRun,
    runAfter: patch.runAfter,
    dangers: patch.dangers,
    notDone: patch.notDone,
    marks: patch.marks,
    oldParts: patch.oldParts ?? tray.oldParts,
    wanted: patch.wanted ?? tray.wanted,
    logbook: [
      ...patch.entries.filter((entry) => !known.has(entry.id)).toReversed(),
      ...tray.logbook.map((entry) => entries.get(entry.id) ?? entry),
    ],
  };
}

/** Takes what the server answered to entries of a tray; whatever hangs on the tray looks again. */
export function useTakePatch(): (number: number, patch: TrayPatch | null) => Promise<void> {
  const queries = useQueryClient();
  return useCallback(
    async (number: number, patch: TrayPatch | null) => {
      // What is on its way was asked before the entry was there; its answer would be shown as if it were newer.
      // The bench is looked at once: when the change is heard, or now when nothing is.
      const [trays, shop] = [keys.ofTray(number), isHeard() ? [keys.stock] : [keys.bench, keys.stock]];
      await Promise.all([trays, ...shop].map((queryKey) => queries.cancelQueries({ queryKey })));
      const before = queries.getQueryData<Tray>(keys.tray(number));
      const after = before && patch ? patched(before, patch) : null;
      if (after) queries.setQueryData(keys.tray(number), after);
      const view = keys.tray(number)[2];
      for (const queryKey of shop) void queries.invalidateQueries({ queryKey });
      // The page that is open shows what it has before the hands go on.
      await queries.invalidateQueries({
        queryKey: trays,
        predicate: ({ queryKey }) => queryKey[2] !== view || !after,
      });
      // A change that is heard meanwhile starts the look anew: then that one is waited for.
      for (let waited = 0; waited < MOST_MS && queries.isFetching({ queryKey: trays }) > 0; waited += LOOK_MS)
        await new Promise((again) => setTimeout(again, LOOK_MS));
      // The page is told in the next moment: whoever goes on before would see once more what was there.
      await new Promise((again) => setTimeout(again));
    },
    [queries],
  );
}
