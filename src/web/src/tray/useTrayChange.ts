import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, problemOf, ProblemError, type Problem, type Tray } from '../api/client';
import { useTakeTray } from '../shell/queries';
import type { paths } from '../api/schema';

type Body = paths['/api/trays/{number}']['patch']['requestBody']['content']['application/json'];
export type TrayChange = Omit<Body, 'entryId' | 'version'>;

/** A change that met someone else's, with both versions. */
export interface Conflict {
  mine: TrayChange;
  problem: Problem;
}

/** Changes a tray; when someone else was first, both versions come back to be decided on. */
export function useTrayChange(tray: Tray) {
  const take = useTakeTray();
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);

  const change = async (mine: TrayChange, version = tray.version): Promise<boolean> => {
    setProblem(null);
    try {
      const next = await ask(
        api.PATCH('/api/trays/{number}', {
          params: { path: { number: tray.number } },
          body: { entryId: uuidv7(), version, ...mine },
        }),
      );
      setConflict(null);
      take(next);
      return true;
    } catch (error) {
      if (error instanceof ProblemError && error.problem.status === 409 && error.problem.version !== undefined) {
        setConflict({ mine, problem: error.problem });
      } else {
        setProblem(problemOf(error));
      }
      return false;
    }
  };

  return { change, conflict, dismiss: () => setConflict(null), problem };
}
