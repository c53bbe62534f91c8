import { CloudOff } from 'lucide-react';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { outbox, type Pending } from '../outbox/outbox';
import { fetchSession, usePerson } from '../session/session';
import { useTakePatch } from './queries';

const TRY_AGAIN_MS = 3000;
const WHILE_MS = 600;

/** What has been there for a while: what is sent at once is not worth a word. */
function useForAWhile(now: Pending[]): Pending[] {
  const [shown, setShown] = useState<Pending[]>([]);
  useEffect(() => {
    const timer = setTimeout(() => setShown(now), now.length > 0 ? WHILE_MS : 0);
    return () => clearTimeout(timer);
  }, [now]);
  return shown;
}

/** Says how many entries are still on this device, and keeps trying to send them. */
export function Outbox() {
  const person = usePerson();
  const pending = useSyncExternalStore(outbox.subscribe, outbox.current);
  const take = useTakePatch();
  const [refused, setRefused] = useState('');
  const kept = useForAWhile(pending);
  const mine = kept.filter((p) => p.personId === person.id).length;
  const others = kept.length - mine;

  useEffect(() => outbox.takeWith(take), [take]);

  useEffect(() => {
    const send = async (): Promise<void> => {
      if (outbox.current().every((p) => p.personId !== person.id)) return;
      await fetchSession().catch(() => undefined); // a fresh token, in case the server was started anew
      await outbox.flush(person.id, (tray, sent) => {
        if (sent.problem) setRefused(`Tray ${tray}: ${sent.problem.title} ${sent.problem.detail}`);
      });
    };
    const timer = setInterval(() => void send(), TRY_AGAIN_MS);
    const online = (): void => void send();
    window.addEventListener('online', online);
    void send();
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', online);
    };
  }, [person.id]);

  return (
    <div
      role="status"
      className={`text-unsure flex items-center gap-2 font-strong ${kept.length > 0 || refused ? 'bg-unsure-soft px-4 py-1.5' : ''}`}
    >
      {mine > 0 && (
        <>
          <CloudOff aria-hidden size={20} />
          {mine === 1 ? '1 entry is kept on this device' : `${mine} entries are kept on this device`}
        </>
      )}
      {others > 0 && <span>{others} here wait for someone else to sign in</span>}
      {refused && (
        <button type="button" className="text-bad min-h-11 text-left" onClick={() => setRefused('')} title="Dismiss">
          {refused}
        </button>
      )}
    </div>
  );
}
