import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, problemOf, type Problem, type Tray, type TrayFacts } from '../api/client';
import { useTakeTray } from '../shell/queries';

/** What can be changed on the tray itself, whatever its station. */
export type TrayChange = Partial<
  Pick<
    TrayFacts,
    | 'promisedDay'
    | 'waitsFor'
    | 'waitNote'
    | 'complaint'
    | 'stampedNumber'
    | 'family'
    | 'engine'
    | 'choke'
    | 'ownerLimit'
    | 'machineWorth'
  >
>;

/** Sends one write under its logbook id, against the version of the tray it was decided on. */
type Send = (entryId: string, version: number) => Promise<Tray>;

/** A write that met someone else's: what each wanted, and the same write once more. */
export interface Conflict {
  mine: Partial<TrayFacts>;
  problem: Problem;
  again: (version: number) => Promise<Problem | null>;
}

export interface TrayWrite {
  /**
   * Writes to the tray. Null when it is written; otherwise what stands in the way. When someone else was first, both
   * versions are shown on the page as well, to be decided on.
   */
  write: (mine: Partial<TrayFacts>, send: Send, version?: number) => Promise<Problem | null>;
  /** Changes what stands on the tray itself. */
  change: (mine: TrayChange, version?: number) => Promise<boolean>;
}

export const isConflict = (problem: Problem): boolean => problem.status === 409 && problem.version !== undefined;

/** Every write to a tray's own facts goes through here. Readings do not: they never conflict with one another. */
export function useTrayWrite(tray: Tray): TrayWrite & {
  conflict: Conflict | null;
  dismiss: () => void;
  problem: Problem | null;
} {
  const take = useTakeTray();
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);

  const write = async (
    mine: Partial<TrayFacts>,
    send: Send,
    version = tray.version,
    entryId = uuidv7(),
  ): Promise<Problem | null> => {
    try {
      take(await send(entryId, version));
      setConflict(null);
      return null;
    } catch (error) {
      const found = problemOf(error);
      if (isConflict(found)) setConflict({ mine, problem: found, again: (next) => write(mine, send, next, entryId) });
      return found;
    }
  };

  const change = async (mine: TrayChange, version?: number): Promise<boolean> => {
    setProblem(null);
    const found = await write(
      mine,
      (entryId, against) =>
        ask(
          api.PATCH('/api/trays/{number}', {
            params: { path: { number: tray.number } },
            body: { entryId, version: against, ...mine },
          }),
        ),
      version,
    );
    if (found && !isConflict(found)) setProblem(found);
    return found === null;
  };

  return {
    write: (mine, send, version) => write(mine, send, version),
    change,
    conflict,
    dismiss: () => setConflict(null),
    problem,
  };
}
