import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { Sent } from '../outbox/outbox';
import {
  api,
  ask,
  type CarburetorFamily,
  type ChokeKind,
  type EngineKind,
  type TraceView,
  type Tray,
} from '../api/client';

const LOOK_AGAIN_MS = 8000;

export const useBench = () =>
  useQuery({ queryKey: ['bench'], queryFn: () => ask(api.GET('/api/bench')), refetchInterval: LOOK_AGAIN_MS });

export const useTray = (number: number) =>
  useQuery({
    queryKey: ['tray', number],
    queryFn: () => ask(api.GET('/api/trays/{number}', { params: { path: { number } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });

/** Takes a tray as the server just answered it; the bench looks again. */
export function useTakeTray(): (tray: Tray) => void {
  const queries = useQueryClient();
  return useCallback(
    (tray: Tray) => {
      queries.setQueryData(['tray', tray.number], tray);
      void queries.invalidateQueries({ queryKey: ['bench'] });
      void queries.invalidateQueries({ queryKey: ['report', tray.number] });
      void queries.invalidateQueries({ queryKey: ['trace', tray.number] });
      void queries.invalidateQueries({ queryKey: ['kits', tray.number] });
      void queries.invalidateQueries({ queryKey: ['fitting', tray.number] });
      void queries.invalidateQueries({ queryKey: ['stock'] });
    },
    [queries],
  );
}

/** What the bench knows about parts. */
export const useParts = () =>
  useQuery({ queryKey: ['parts'], queryFn: () => ask(api.GET('/api/parts')), staleTime: Infinity });

/** A tray's trace, with or without the shop's own history. */
export const useTrace = (number: number, history: boolean) =>
  useQuery({
    queryKey: ['trace', number, history],
    queryFn: () => ask(api.GET('/api/trays/{number}/trace', { params: { path: { number }, query: { history } } })),
    placeholderData: (before) => before,
  });

/** Takes a trace as the server just answered it; the tray and the bench look again. */
export function useTakeTrace(): (number: number, trace: TraceView) => void {
  const queries = useQueryClient();
  return useCallback(
    (number: number, trace: TraceView) => {
      queries.setQueryData(['trace', number, trace.historyUsed], trace);
      void queries.invalidateQueries({ queryKey: ['trace', number, !trace.historyUsed] });
      void queries.invalidateQueries({ queryKey: ['tray', number] });
      void queries.invalidateQueries({ queryKey: ['bench'] });
      void queries.invalidateQueries({ queryKey: ['report', number] });
    },
    [queries],
  );
}

/** A tray's strip ledger, for Strip and Build. */
export const useLedger = (number: number) =>
  useQuery({
    queryKey: ['ledger', number],
    queryFn: () => ask(api.GET('/api/trays/{number}/ledger', { params: { path: { number } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });

/** How a tray is cleaned. */
export const useCleaning = (number: number) =>
  useQuery({
    queryKey: ['cleaning', number],
    queryFn: () => ask(api.GET('/api/trays/{number}/cleaning', { params: { path: { number } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });

/** The shop's baths; looked at on every page, so that their timers call everywhere. */
export const useBaths = () =>
  useQuery({ queryKey: ['baths'], queryFn: () => ask(api.GET('/api/baths')), refetchInterval: LOOK_AGAIN_MS });

/** Takes whatever the server answered to an entry; whatever hangs on it looks again. */
export function useTakeSent(): (sent: Sent) => void {
  const queries = useQueryClient();
  const takeTray = useTakeTray();
  const takeTrace = useTakeTrace();
  return useCallback(
    (sent: Sent) => {
      if (sent.state === 'recorded') takeTray(sent.tray);
      if (sent.state === 'traced') takeTrace(sent.tray, sent.trace);
      if (sent.state !== 'ledgered' && sent.state !== 'cleaned') return;
      if (sent.state === 'ledgered') queries.setQueryData(['ledger', sent.tray], sent.ledger);
      else queries.setQueryData(['cleaning', sent.tray], sent.cleaning);
      for (const key of ['tray', 'trace', 'report', sent.state === 'ledgered' ? 'cleaning' : 'ledger'])
        void queries.invalidateQueries({ queryKey: [key, sent.tray] });
      for (const key of ['bench', 'stock']) void queries.invalidateQueries({ queryKey: [key] });
    },
    [queries, takeTray, takeTrace],
  );
}

/** The words of the fault knowledge for a kind of carburetor. */
export const useFaultWords = (family: CarburetorFamily, engine: EngineKind | null, choke: ChokeKind | null) =>
  useQuery({
    queryKey: ['fault-words', family, engine, choke],
    queryFn: () =>
      ask(
        api.GET('/api/faults/knowledge', {
          params: { query: { family, ...(engine ? { engine } : {}), ...(choke ? { choke } : {}) } },
        }),
      ),
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
