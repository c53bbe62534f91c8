import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { FactsNote, Note, Problem, Signature, Tray, TrayFacts } from '../api/client';
import { useDecide } from '../shell/useRecord';

/** What can be changed on the tray itself, whatever its station. */
export type TrayChange = Omit<FactsNote, 'kind' | 'changes'>;

/** A change that met someone else's: what each wanted, and the same change once more. */
export interface Conflict {
  mine: Partial<TrayFacts>;
  problem: Problem;
  again: (version: number) => Promise<Problem | null>;
}

export interface TrayWrite {
  /**
   * Records a change of what stands on the tray. Null when it is recorded; otherwise what stands in the way. When
   * someone else was first, both versions are shown on the page as well, to be decided on.
   */
  decide: (
    note: Note,
    mine: Partial<TrayFacts>,
    more?: { version?: number; signature?: Signature },
  ) => Promise<Problem | null>;
  /** Changes what stands on the tray itself. */
  change: (mine: TrayChange, version?: number) => Promise<boolean>;
}

export const isConflict = (problem: Problem): boolean => problem.status === 409 && problem.version != null;

/** Every change of a tray's own facts goes through here. Readings do not: they never conflict with one another. */
export function useTrayWrite(tray: Tray): TrayWrite & {
  conflict: Conflict | null;
  dismiss: () => void;
  problem: Problem | null;
} {
  const send = useDecide(tray.number);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);

  const decide = async (
    note: Note,
    mine: Partial<TrayFacts>,
    { version = tray.version, signature, id = uuidv7() }: { version?: number; signature?: Signature; id?: string } = {},
  ): Promise<Problem | null> => {
    const found = await send({ note, version, id, ...(signature ? { signature } : {}) });
    setConflict(
      found && isConflict(found)
        ? {
            mine,
            problem: found,
            again: (next) => decide(note, mine, { version: next, id, ...(signature ? { signature } : {}) }),
          }
        : null,
    );
    return found;
  };

  const change = async (mine: TrayChange, version?: number): Promise<boolean> => {
    setProblem(null);
    const found = await decide(
      { kind: 'facts', ...mine },
      mine as Partial<TrayFacts>,
      version === undefined ? {} : { version },
    );
    if (found && !isConflict(found)) setProblem(found);
    return found === null;
  };

  return { decide, change, conflict, dismiss: () => setConflict(null), problem };
}
