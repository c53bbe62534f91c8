import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, useContext, useLayoutEffect, type ReactNode } from 'react';
import {
  api,
  ask,
  sendArchive,
  setPerson,
  setToken,
  type ArchiveBearer,
  type FirstStart,
  type Permission,
  type Person,
  type Session,
  type Tray,
} from '../api/client';
import { device } from '../outbox/device';
import { keys } from '../api/keys';

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
    tellOtherTabs();
  };
  return {
    query,
    signIn: async (userName: string, password: string): Promise<void> => {
      setPerson('');
      await fetchSession();
      take(await ask(api.POST('/api/session', { body: { userName, password } })));
    },
    signInByPin: async (userName: string, pin: string): Promise<void> => {
      setPerson('');
      await fetchSession();
      take(await ask(api.POST('/api/session/pin', { body: { userName, pin } })));
    },
    signInByCode: async (userName: string, code: string, password: string): Promise<void> => {
      setPerson('');
      await fetchSession();
      take(await ask(api.POST('/api/session/code', { body: { userName, code, password } })));
    },
    setUp: async (first: FirstStart): Promise<void> => {
      setPerson('');
      await fetchSession();
      take(await ask(api.POST('/api/session/first', { body: first })));
    },
    moveHere: async (archive: File, who: ArchiveBearer): Promise<void> => {
      setPerson('');
      await fetchSession();
      take(await sendArchive(archive, who));
    },
    signOut: async (): Promise<void> => {
      take(await ask(api.DELETE('/api/session')));
      queries.removeQueries({ predicate: (q) => q.queryKey[0] !== keys.session[0] });
      await forgetAnswers();
    },
    refresh: () => queries.invalidateQueries({ queryKey: keys.session }),
  };
}

const CHANGED = 'session-changed';

/** Another tab of this browser finds out at once who is signed in now: the cookie is the same for all of them. */
function tellOtherTabs(): void {
  device.set(CHANGED, String(Date.now()));
}

/** Calls when somebody has signed in or out in another tab. */
export function onOtherTab(changed: () => void): () => void {
  const hear = (event: StorageEvent): void => {
    if (event.key === CHANGED) changed();
  };
  window.addEventListener('storage', hear);
  return () => window.removeEventListener('storage', hear);
}

/** What this device keeps of the server's answers to look at without it is not for the next person. */
async function forgetAnswers(): Promise<void> {
  for (const key of Object.keys(localStorage)) if (key.startsWith(AT_HAND)) device.remove(key);
  if ('caches' in window) await caches.delete(ANSWERS).catch(() => false);
}

/** The cache of answers; the service worker fills it, and what is kept at hand is put there. */
export const ANSWERS = 'answers';

/** What is written down of the trays that are kept at hand, for each person. */
export const AT_HAND = 'at-hand:';

const PersonContext = createContext<Person | null>(null);

export function PersonProvider({ person, children }: { person: Person; children: ReactNode }) {
  useLayoutEffect(() => {
    setPerson(person.id);
    return () => setPerson('');
  }, [person.id]);
  return <PersonContext.Provider value={person}>{children}</PersonContext.Provider>;
}

/** Whoever is signed in. */
export function usePerson(): Person {
  const person = useContext(PersonContext);
  if (!person) throw new Error('usePerson is for pages behind the sign-in.');
  return person;
}

export const useUnits = () => usePerson().units;

/** What stands for a name in the book, by the name. */
export const useInitials = (): Record<string, string> => useSession().query.data?.initials ?? {};

/** Whether this person may do something; a role that is not known may do nothing. */
export const useAllowed = (what: Permission): boolean => usePerson().permissions.includes(what);

/** Why whoever is signed in records nothing on a tray; undefined when they may. */
export function useOff({ facts }: Tray): string | undefined {
  const may = useAllowed('workAtTheBench');
  if (facts.waitsFor === 'handedBack') return 'Handed back: bring it back to the bench to change it.';
  return may ? undefined : 'A technician records here; you are reading along.';
}
