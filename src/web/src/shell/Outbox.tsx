import { useQueryClient } from '@tanstack/react-query';
import { CircleAlert, Clock, CloudOff, HardDrive } from 'lucide-react';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { core } from '../core/core';
import { device } from '../outbox/device';
import { outbox, type Pending } from '../outbox/outbox';
import { parcels } from '../outbox/parcels';
import { fetchSession, usePerson } from '../session/session';
import { Button } from '../ui/button';
import { keys } from '../api/keys';
import { NotTakenDialog } from './NotTaken';
import { useTakePatch } from './queries';

const TRY_AGAIN_MS = 3000;
const WHILE_MS = 4000;

/** What has been there for a while: what is sent at once is not worth a word. */
function useForAWhile<T>(now: T[]): T[] {
  const [long, setLong] = useState(false);
  const any = now.length > 0;
  useEffect(() => {
    if (!any) return undefined;
    const timer = setTimeout(() => setLong(true), WHILE_MS);
    return () => {
      clearTimeout(timer);
      setLong(false);
    };
  }, [any]);
  return any && long ? now : [];
}

/** Keeps trying to send what this person has here. */
function useSending(personId: string, by: string): void {
  const take = useTakePatch();
  const queries = useQueryClient();
  useEffect(() => outbox.takeWith(take, (entry) => core.refusal(entry, outbox.current, by)), [take, by]);
  useEffect(() => {
    let running = false;
    const send = async (): Promise<void> => {
      if (running || (outbox.current().every((p) => p.personId !== personId) && !parcels.waiting(personId))) return;
      running = true;
      try {
        // A fresh token, in case the server was started anew; and nothing goes out under another's name.
        const session = await fetchSession();
        if (session.person?.id !== personId) {
          queries.setQueryData(keys.session, session);
          return;
        }
        await outbox.flush(personId, () => undefined);
        const came = await parcels.flush(personId);
        if (came) void queries.invalidateQueries({ queryKey: keys.bench });
        for (const tray of came ?? []) void queries.invalidateQueries({ queryKey: keys.ofTray(tray) });
      } catch {
        // The server is away; it is tried again.
      } finally {
        running = false;
      }
    };
    const timer = setInterval(() => void send(), TRY_AGAIN_MS);
    const online = (): void => void send();
    window.addEventListener('online', online);
    void send();
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', online);
    };
  }, [personId, queries]);
}

const entries = (count: number): string => (count === 1 ? '1 entry' : `${count} entries`);

/** Where what was entered is: nothing to say while all of it is in the book; otherwise how many wait, and what was not taken. */
export function Outbox() {
  const person = usePerson();
  useSending(person.id, person.displayName);
  const pending = useForAWhile<Pending>(useSyncExternalStore(outbox.subscribe, outbox.current));
  const sent = useForAWhile(useSyncExternalStore(parcels.subscribe, parcels.current));
  const notTaken = useSyncExternalStore(outbox.subscribe, outbox.notTaken);
  const clockOff = useSyncExternalStore(outbox.subscribe, outbox.clockOff);
  const full = useSyncExternalStore(device.subscribe, device.isFull);
  const [open, setOpen] = useState(false);
  const kept = [...pending, ...sent];
  const mine = kept.filter((p) => p.personId === person.id).length;
  const others = kept.length - mine;
  const [myRefused, othersRefused] = [
    notTaken.filter((p) => p.personId === person.id).length + parcels.refusedOf(person.id),
    notTaken.filter((p) => p.personId !== person.id).length,
  ];
  const anything = kept.length > 0 || myRefused > 0 || othersRefused > 0 || clockOff !== null || full;

  return (
    <div
      role="status"
      className={`text-unsure flex flex-wrap items-center gap-x-5 gap-y-1 font-strong print:hidden ${anything ? 'bg-unsure-soft px-4 py-1.5' : ''}`}
    >
      {mine > 0 && (
        <span className="inline-flex items-center gap-2">
          <CloudOff aria-hidden size={20} />
          {mine === 1 ? '1 entry is kept on this device' : `${mine} entries are kept on this device`}
        </span>
      )}
      {others > 0 && <span>{others} here wait for someone else to sign in</span>}
      {myRefused > 0 && (
        <span className="text-bad inline-flex items-center gap-2">
          <CircleAlert aria-hidden size={20} />
          {entries(myRefused)} not taken
          <Button onClick={() => setOpen(true)}>Look at {myRefused === 1 ? 'it' : 'them'}</Button>
        </span>
      )}
      {othersRefused > 0 && <span>{entries(othersRefused)} of someone else not taken</span>}
      {clockOff !== null && (
        <span className="inline-flex items-center gap-2">
          <Clock aria-hidden size={20} />
          This device’s clock is {Math.round(Math.abs(clockOff) / 60)} min {clockOff > 0 ? 'behind' : 'ahead'}; times
          are put right
        </span>
      )}
      {full && (
        <span className="inline-flex items-center gap-2">
          <HardDrive aria-hidden size={20} />
          This device’s storage is full: leave this page open until everything is sent
        </span>
      )}
      <NotTakenDialog open={open && myRefused > 0} onOpenChange={setOpen} />
    </div>
  );
}
