import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, useContext, type ReactNode } from 'react';
import { api, ask, setToken, type May, type Person, type Session } from '../api/client';
import { keys } from '../shell/keys';

export async function fetchSession(): Promise<Session> {
  const session = await ask(api.GET('/api/session'));
  setToken(session.token);
  return session;
}

/** The session: who is signed in, and ways to change that. */
export function useSession() {
  const queries = useQueryClient();
  const query = useQuery({ queryKey: keys.session, queryFn: fetchSession, staleTime: 60_000 });
  const take = (session: Session): void => {
    setToken(session.token);
    queries.setQueryData(keys.session, session);
  };
  return {
    query,
    signIn: async (userName: string, password: string): Promise<void> => {
      await fetchSession();
      take(await ask(api.POST('/api/session', { body: { userName, password } })));
    },
    signOut: async (): Promise<void> => {
      take(await ask(api.DELETE('/api/session')));
      queries.removeQueries({ predicate: (q) => q.queryKey[0] !== keys.session[0] });
    },
    refresh: () => queries.invalidateQueries({ queryKey: keys.session }),
  };
}

const PersonContext = createContext<Person | null>(null);

export function PersonProvider({ person, children }: { person: Person; children: ReactNode }) {
  return <PersonContext.Provider value={person}>{children}</PersonContext.Provider>;
}

/** Whoever is signed in. */
export function usePerson(): Person {
  const person = useContext(PersonContext);
  if (!person) throw new Error('usePerson is for pages behind the sign-in.');
  return person;
}

export const useUnits = () => usePerson().units;

/** Whether this person may do something; a role that is not known may do nothing. */
export const useMay = (what: May): boolean => usePerson().may.includes(what);
