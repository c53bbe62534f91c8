import { useState } from 'react';
import {
  api,
  ask,
  sendKnowledgeTable,
  type KnowledgeLook,
  type KnowledgeView,
  type KnowledgeWish,
  type Problem,
} from '../api/client';
import { useWrite } from '../api/useWrite';
import { keys } from '../api/keys';

/** A row, a way back, or a whole table from a file. */
export type Wish = Omit<KnowledgeWish, 'was' | 'why'> | { table: string; file: File };

export interface ProposalState {
  /** What would happen; null while nobody has asked. */
  looked: KnowledgeLook | null;
  busy: boolean;
  problem: Problem | null;
  look: (wish: Wish) => Promise<KnowledgeLook | null>;
  accept: (why: string) => Promise<KnowledgeView | null>;
  drop: () => void;
}

/** Another state of the tables: looked at first, then accepted with a reason or dropped. */
export function useProposal(done?: () => void): ProposalState {
  const [wish, setWish] = useState<Wish | null>(null);
  const [looked, setLooked] = useState<KnowledgeLook | null>(null);
  const drop = (): void => {
    setWish(null);
    setLooked(null);
  };
  const seen = useWrite(
    (asked: Wish) =>
      'file' in asked
        ? sendKnowledgeTable<KnowledgeLook>('POST', asked.file, { name: asked.table })
        : ask(api.POST('/api/shop/knowledge/look', { body: asked })),
    { done: setLooked },
  );
  const accept = (asked: Wish, was: number, why: string): Promise<KnowledgeView> =>
    'file' in asked
      ? sendKnowledgeTable('PUT', asked.file, { name: asked.table, was: String(was), why })
      : ask(api.POST('/api/shop/knowledge/accept', { body: { ...asked, was, why } }));
  const take = useWrite(accept, {
    changes: [keys.knowledge, keys.bench, ['tray'], ['fault-words'], keys.baths],
    done: () => {
      drop();
      done?.();
    },
  });
  return {
    looked,
    busy: seen.busy || take.busy,
    problem: take.problem ?? seen.problem,
    look: async (asked) => {
      take.clear();
      setWish(asked);
      return seen.run(asked);
    },
    accept: async (why) => (wish && looked ? take.run(wish, looked.version, why) : null),
    drop,
  };
}
