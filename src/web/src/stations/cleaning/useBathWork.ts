import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, problemOf, type BathEventKind, type Problem } from '../../api/client';

interface BathWork {
  record: (bath: string, kind: BathEventKind, more?: { trayNumber?: number; temperature?: string }) => Promise<boolean>;
  busy: boolean;
  problem: Problem | null;
}

/** What happens at a bath goes to the server at once: everybody shares it. */
export function useBathWork(): BathWork {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  return {
    busy,
    problem,
    record: async (bath, kind, more = {}) => {
      setBusy(true);
      setProblem(null);
      try {
        queries.setQueryData(
          ['baths'],
          await ask(
            api.POST('/api/baths/{bath}/events', { params: { path: { bath } }, body: { id: uuidv7(), kind, ...more } }),
          ),
        );
        for (const key of ['tray', 'cleaning', 'bench']) void queries.invalidateQueries({ queryKey: [key] });
        return true;
      } catch (error) {
        setProblem(problemOf(error));
        return false;
      } finally {
        setBusy(false);
      }
    },
  };
}
