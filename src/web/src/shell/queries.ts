import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { api, ask, type Tray } from '../api/client';

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
    },
    [queries],
  );
}
