import { useQueryClient } from '@tanstack/react-query';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, type BathEventKind } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { keys } from '../../api/keys';

/** What happens at a bath goes to the server at once: everybody shares it. */
export function useBathWork() {
  const queries = useQueryClient();
  const { run, busy, problem } = useWrite(
    (
      bath: string,
      kind: BathEventKind,
      { clean = false, ...more }: { trayNumber?: number; temperature?: string; clean?: boolean } = {},
    ) =>
      ask(
        api.POST('/api/baths/{bath}/events', {
          params: { path: { bath } },
          body: { id: uuidv7(), kind, clean, ...more },
        }),
      ),
    {
      changes: [['tray'], keys.bench],
      done: (baths) => queries.setQueryData(keys.baths, baths),
    },
  );
  return { record: async (...event: Parameters<typeof run>) => (await run(...event)) !== null, busy, problem };
}
