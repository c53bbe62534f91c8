import { Timer } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useKept } from '../outbox/drafts';
import { usePerson } from '../session/session';

interface Props {
  tray: number;
  line: string;
  name: string;
  disabled: boolean;
  /** Minutes to a tenth, when it is stopped. */
  onMinutes: (minutes: string) => void;
}

const stopped = { since: null as number | null };

/** A clock for what is watched for minutes. It goes on through a reload, and stops into the box. */
export function MinutesClock({ tray, line, name, disabled, onMinutes }: Props) {
  const person = usePerson();
  const [{ since }, keep, clear] = useKept(`${person.id}:${tray}:${line}:clock`, stopped);
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (since === null) return undefined;
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, [since]);
  const seconds = since === null ? 0 : Math.max(0, Math.floor((now - since) / 1000));
  return (
    <button
      type="button"
      disabled={disabled}
      className="border-line-strong bg-sheet hover:bg-paper inline-flex min-h-11 items-center gap-1.5 rounded-lg border px-2.5 font-medium disabled:opacity-60"
      aria-label={since === null ? `Start the clock, ${name}` : `Stop the clock, ${name}`}
      onClick={() => {
        if (since === null) {
          setNow(Date.now());
          keep({ since: Date.now() });
          return;
        }
        onMinutes((Math.round((Date.now() - since) / 6000) / 10).toString());
        clear();
      }}
    >
      <Timer aria-hidden size={18} />
      {since === null ? (
        'Clock'
      ) : (
        <span className="num text-part font-bold">
          {Math.floor(seconds / 60)}:{String(seconds % 60).padStart(2, '0')}
        </span>
      )}
    </button>
  );
}
